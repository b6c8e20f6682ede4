"""The steps of a run, held against the order of work that bakers keep (common practice)."""

import pytest

from substrata.bench.steps import run_steps
from substrata.errors import FormulaError
from substrata.quantities.amount import parse_amount
from tests.bench.conftest import DEMO, demo, made

PLANS = {
    name: run_steps(demo(name))
    for name in ("Market rolls, egg-free", "Broccoli wraps", "Mustard twists", "Orange drop doughnuts")
}


def places(plan, *ids):
    every = [step.id for step in plan.steps]
    return [every.index(key) for key in ids]


@pytest.mark.parametrize("name", PLANS)
def test_every_line_is_weighed_once_and_ids_are_stable(name):
    plan, dough = PLANS[name], demo(name)
    lines = [step.line for step in plan.steps if step.id.startswith(("weigh:", "dried:"))]
    assert sorted(lines) == sorted(w.line.id for w in dough.batch.lines if w.role != "frying")
    assert len({step.id for step in plan.steps}) == len(plan.steps)
    assert [s.id for s in run_steps(dough, batches=2).steps] == [s.id for s in plan.steps]


def test_groups_follow_the_bench():
    order = ["ready", "prep", "weigh", "mix", "rest", "shape", "bake", "cool", "finish"]
    for plan in PLANS.values():
        at = [order.index(step.group) for step in plan.steps]
        assert at == sorted(at)


def test_dry_things_before_the_warm_liquid_in_a_psyllium_dough():
    first, last = places(PLANS["Market rolls, egg-free"], "weigh:psyllium-powder", "weigh:water")
    assert first < last


def test_the_vegetable_first_and_the_eggs_after_the_flours():
    raw, dried, flour, egg = places(
        PLANS["Broccoli wraps"], "raw:broccoli", "dried:broccoli", "weigh:almond-flour", "weigh:egg"
    )
    assert raw < dried < flour < egg


def test_cheese_is_melted_and_the_egg_weighed_last():
    cheese, egg, melt = places(PLANS["Mustard twists"], "weigh:mozzarella", "weigh:egg", "melt")
    assert cheese < egg < melt
    assert any("burns" in caution for step in PLANS["Mustard twists"].steps for caution in step.cautions)


def test_soft_dairy_is_whisked_with_the_eggs_and_grated_cheese_goes_among_the_flour():
    loaf = {"almond_flour": 200, "ricotta": 150, "cheddar": 60, "egg": 150, "butter": 40, "baking_powder": 9}
    plan = run_steps(made("tin-loaf", 10, **loaf))
    soft, egg, flour, grated = places(plan, "weigh:ricotta", "weigh:egg", "weigh:almond-flour", "weigh:cheddar")
    assert max(soft, egg) < min(flour, grated)


def test_a_batter_that_may_be_nearly_anything_is_not_felt_for():
    rest = next(
        s for s in run_steps(made("bun", 8, egg=300, cream_cheese=120, almond_flour=60)).steps if s.id == "rest"
    )
    assert "when you press it" not in rest.sign
    rolls = next(s for s in PLANS["Market rolls, egg-free"].steps if s.id == "rest")
    assert "when you press it" in rolls.sign


def test_what_is_fried_is_turned_in_hot_oil_with_its_caution():
    plan = PLANS["Orange drop doughnuts"]
    assert any(step.moment == "flip" for step in plan.steps)
    assert not any(step.id == "preheat" for step in plan.steps)
    assert any("Hot oil" in caution for step in plan.steps for caution in step.cautions)


def test_batches_scale_weights_and_pieces_but_not_minutes():
    one, two = (run_steps(demo("Market rolls, egg-free"), batches=b) for b in (1.0, 2.0))
    for a, b in zip(one.steps, two.steps, strict=True):
        assert a.minutes == b.minutes
        if a.kind == "weigh" and a.grams > 20:
            assert b.grams == pytest.approx(2 * a.grams, rel=0.02)
    assert two.dough_g == pytest.approx(2 * one.dough_g)


def test_a_cheese_dough_has_its_cooling_clock_from_the_moment_it_is_mixed():
    # Common practice: melted cheese is dough only while it is warm.
    clock = next(step for step in run_steps(demo("Gouda-melt crust")).steps if step.starts == "mixed")
    assert 0 < clock.check_min < clock.minutes < 60
    assert not any(step.starts for step in PLANS["Market rolls, egg-free"].steps)


def test_the_moments_that_a_log_needs_are_all_marked():
    for plan in PLANS.values():
        marked = [step.moment for step in plan.steps if step.moment]
        assert {"mixed", "shaped", "in", "out"} <= set(marked)
        assert marked.index("mixed") < marked.index("shaped") < marked.index("in") < marked.index("out")


def test_a_look_before_it_is_done():
    step = next(s for s in PLANS["Market rolls, egg-free"].steps if s.check_min and s.kind == "wait")
    assert 0 < step.check_min < step.minutes


def test_what_a_spoon_or_a_cup_tells_is_told_beside_the_grams():
    told = {s.line: s for s in run_steps(demo("Market rolls, egg-free")).steps if s.kind == "weigh"}
    # Common practice: fine salt has 6 g a teaspoon, so 8 g are about a teaspoon and a third.
    assert told["salt"].measure == "about 1¼ tsp"
    assert told["salt"].filled == "1¼ tsp", "as it can be typed"
    cups = parse_amount(told["almond-flour"].filled).terms[0]
    assert cups.unit == "cup"
    assert cups.number * 106 == pytest.approx(told["almond-flour"].grams, rel=0.1)


def test_an_empty_bowl_has_no_steps():
    with pytest.raises(FormulaError, match="nothing to make"):
        run_steps(made(almond_flour=100))


@pytest.mark.parametrize("name", DEMO)
def test_a_formula_of_every_form_can_be_run(name):
    plan = run_steps(demo(name))
    assert plan.text
    assert all(step.text and step.text[0].isupper() for step in plan.steps)
