"""The steps of a run, held against the order of work that bakers keep (common practice)."""

import re

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from substrata.base.amounts import parse_amount
from substrata.base.errors import FormulaError
from substrata.base.tables.table_reader import read_table
from substrata.evaluation.dough import Dough
from substrata.evaluation.forecasts.bake_forecast import forecast_bake
from substrata.evaluation.forecasts.mixing_method import WORDS, mixing_steps
from substrata.execution.protocol import bake_protocol
from substrata.formula.batch.weighed_lines import is_fried
from substrata.formula.form_table import forms
from substrata.formula.formula import Formula, Line, Mix
from substrata.formula.formula_document import read_document
from substrata.process.baking.oven_profile import heating_minutes
from substrata.scheduling.schedule_problem import ScheduledOven
from tests.execution.conftest import DEMO, LIBRARY, demo, made
from tests.support.doughs import document

PLANS = {
    name: bake_protocol(demo(name))
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
    assert [s.id for s in bake_protocol(dough, batches=2).steps] == [s.id for s in plan.steps]


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


def test_the_words_of_the_mixing_table_are_known():
    for row in read_table("mixing_steps.csv"):
        assert {*row.text("adds").split(), *row.text("needs").split()} <= set(WORDS), row


# A word of a step, and the roles or flags of which one has to be in the formula for it to be said.
NOUNS = {
    "egg": {"egg"}, "eggs": {"egg"}, "cheese": {"cheese"}, "cheeses": {"cheese"}, "butter": {"fat", "base"}, "oil": {"fat"},
    "vegetable": {"vegetable"}, "psyllium": {"psyllium"}, "yeast": {"yeast", "lift"}, "salt": {"salt"}, "sweetener": {"sweetener"},
    "liquid": {"liquid", "acid", "flavour", "sweetener"}, "filling": {"filling"}, "topping": {"topping"}, "water": {"liquid"},
}  # fmt: skip


@st.composite
def formulas(draw):
    """Any formula of two to seven lines of the library, in any form."""
    ids = draw(st.lists(st.sampled_from(sorted(i.id for i in LIBRARY if i.role)), min_size=2, max_size=7, unique=True))
    grams = [draw(st.floats(1, 300)) for _ in ids]
    lines = tuple(Line(id=key, ingredient=key, grams=value) for key, value in zip(ids, grams, strict=True))
    form = draw(st.sampled_from(sorted(forms())))
    cheese = draw(st.sampled_from(["", "melted", "cold"]))
    return Formula(name="Any", form=form, pieces=draw(st.integers(1, 24)), lines=lines, mix=Mix(cheese=cheese))


@given(formula=formulas())
@settings(max_examples=200)
def test_every_line_enters_exactly_one_step_of_the_method(formula):
    dough = Dough(formula, LIBRARY)
    entered = [line for step in mixing_steps(dough) for line in step.added]
    assert sorted(entered) == sorted(w.line.id for w in dough.batch.lines if w.role != "frying")


@given(formula=formulas(), batches=st.sampled_from([1.0, 3.0]))
@settings(max_examples=40)
def test_every_line_enters_one_step_of_the_bake_and_no_step_names_what_is_not_there(formula, batches):
    dough = Dough(formula, LIBRARY)
    there = [w.line.id for w in dough.batch.lines if w.role != "frying"]
    assume(dough.handling is not None)
    plan = bake_protocol(dough, batches=batches)
    steps = [step for step in plan.steps if step.group != "weigh"]
    told = [line for step in steps for line in step.lines]
    assert sorted(told) == sorted(there), "each line in one step of the bake"
    names = " ".join(w.ingredient.name.lower() for w in dough.batch.lines)
    has = {w.role for w in dough.batch.lines} | {flag for w in dough.batch.lines for flag in w.ingredient.flags}
    has |= {"oil", "fat"} if is_fried(formula) else set()
    for step in (*steps, *(s for s in plan.steps if s.group == "weigh")):
        for word in re.findall(r"[a-z]+", f"{step.text} {step.sign}".lower()):
            assert word not in NOUNS or NOUNS[word] & has or word in names, (word, step)


def test_an_egg_free_cheese_dough_names_no_egg_and_adds_its_water():
    plan = bake_protocol(
        made("rope", 6, gouda=160, mascarpone=35, almond_flour=90, water=45, psyllium_powder=5, salt=2)
    )
    assert not any("egg" in f"{step.text} {step.sign} {step.target}".lower() for step in plan.steps)
    assert any("water" in str(step.text).lower() and step.group == "mix" and step.id != "water" for step in plan.steps)


def test_the_oven_is_hot_before_a_dough_that_cracks_is_melted_and_it_does_not_rest():
    plan = bake_protocol(made("rope", 8, gouda=150, mascarpone=30, almond_flour=95, egg=50), batches=4)
    oven, melt = places(plan, "preheat", "melt")
    assert oven < melt
    assert not any(step.id == "rest" for step in plan.steps)
    step = plan.steps[melt]
    assert step.grams == pytest.approx(180, abs=1)
    assert "4 melts" in step.target


def test_cheese_is_melted_and_the_egg_weighed_last():
    cheese, egg, melt = places(PLANS["Mustard twists"], "weigh:mozzarella", "weigh:egg", "melt")
    assert cheese < egg < melt
    assert any("burns" in caution for step in PLANS["Mustard twists"].steps for caution in step.cautions)


def test_soft_dairy_is_whisked_with_the_eggs_and_grated_cheese_goes_among_the_flour():
    loaf = {"almond_flour": 200, "ricotta": 150, "cheddar": 60, "egg": 150, "butter": 40, "baking_powder": 9}
    plan = bake_protocol(made("tin-loaf", 10, **loaf))
    soft, egg, flour, grated = places(plan, "weigh:ricotta", "weigh:egg", "weigh:almond-flour", "weigh:cheddar")
    assert max(soft, egg) < min(flour, grated)


def test_a_batter_that_may_be_nearly_anything_is_not_felt_for():
    rest = next(
        s for s in bake_protocol(made("bun", 8, egg=300, cream_cheese=120, almond_flour=60)).steps if s.id == "rest"
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
    one, two = (bake_protocol(demo("Market rolls, egg-free"), batches=b) for b in (1.0, 2.0))
    for a, b in zip(one.steps, two.steps, strict=True):
        assert a.minutes == b.minutes
        if a.kind == "weigh" and a.grams > 20:
            assert b.grams == pytest.approx(2 * a.grams, rel=0.02)
    assert two.dough_g == pytest.approx(2 * one.dough_g)


def test_a_cheese_dough_has_its_cooling_clock_from_the_moment_it_is_mixed():
    # Common practice: melted cheese is dough only while it is warm.
    clock = next(step for step in bake_protocol(demo("Gouda-melt crust")).steps if step.starts == "mixed")
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
    told = {s.line: s for s in bake_protocol(demo("Market rolls, egg-free")).steps if s.kind == "weigh"}
    # Common practice: fine salt has 6 g a teaspoon, so 8 g are about a teaspoon and a third.
    assert told["salt"].measure == "about 1¼ tsp"
    assert told["salt"].filled == "1¼ tsp", "as it can be typed"
    cups = parse_amount(told["almond-flour"].filled).terms[0]
    assert cups.unit == "cup"
    assert cups.number * 106 == pytest.approx(told["almond-flour"].grams, rel=0.1)


def test_an_empty_bowl_has_no_steps():
    with pytest.raises(FormulaError, match="nothing to make"):
        bake_protocol(made(almond_flour=100))


@pytest.mark.parametrize("name", DEMO)
def test_a_formula_of_every_form_can_be_run(name):
    plan = bake_protocol(demo(name))
    assert plan.text
    assert all(step.text and str(step.text)[0].isupper() for step in plan.steps)


@pytest.mark.parametrize("degrees", [140, 180, 230])
def test_protocol_and_plan_heat_an_oven_at_one_rate(degrees):
    assert heating_minutes(degrees) == ScheduledOven(name="oven").heating(degrees)
    assert heating_minutes(degrees) < heating_minutes(degrees + 20)


def test_a_dark_dough_is_told_by_touch_and_not_by_its_color():
    """Common practice: cocoa is brown before the oven."""
    lines = {"almond_flour": 150, "butter": 90, "erythritol": 80, "egg": 60}

    def signs(**more):
        dough = Dough(read_document(document("cookie", 16, **lines, **more)), LIBRARY)
        return str(forecast_bake(dough).text), " ".join(str(step.sign) for step in bake_protocol(dough).steps)

    text, told = signs(cocoa=40)
    assert "golden" not in f"{text} {told}".lower()
    assert "springs back" in told
    text, told = signs()
    assert "golden" in text.lower()
    assert "golden" in told
