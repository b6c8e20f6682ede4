"""How far it can go, what a step takes, a line swept, and a formula from nothing."""

from dataclasses import replace

import pytest

from substrata import Settings
from substrata.base.errors import FormulaError
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import figures
from substrata.formula.form_table import Window, forms
from substrata.reformulation.balancing import balance
from substrata.reformulation.blending import blend, lean
from substrata.reformulation.feasible_range import feasible_ranges
from substrata.reformulation.line_sweep import sweep
from substrata.reformulation.pareto import CHANGE, pareto_front
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import check_by_model
from substrata.reformulation.request.balance_request import Wish
from substrata.reformulation.request.exclusions import excluded_by, exclusions
from substrata.reformulation.solutions.solution import minutes_of
from substrata.reformulation.starter_formula import begin, formula_templates
from tests.reformulation.conftest import DEMO, HOUSE, LIBRARY, values

ROLLS, TWISTS = DEMO["Market rolls, egg-free"], DEMO["Mustard twists"]


def test_the_ends_can_be_reached_and_nothing_beyond_them():
    end = feasible_ranges(ROLLS, LIBRARY, Settings(), ("net_carbs",))[0]
    assert end.low < end.now < end.high
    at = Wish(targets={"net_carbs": Window(high=end.low * 1.03)})
    assert balance(ROLLS, LIBRARY, Settings(), at, ways=1).status == "settled"
    beyond = Wish(targets={"net_carbs": Window(high=end.low * 0.75)})
    assert balance(ROLLS, LIBRARY, Settings(), beyond, ways=1).status == "nearest"


def test_the_study_of_vegan_rolls_in_kind():
    """Two grams of net carbs with twelve of protein cannot be had while half of the main flours stay; 2.5 or so can."""
    wish = Wish(targets={"net_carbs": Window(high=1.8), "protein": Window(low=12)})
    answer = balance(ROLLS, LIBRARY, Settings(), wish, ways=1)
    assert answer.status == "nearest"
    assert {"net_carbs", "protein"} & {relax.key for relax in answer.clash}
    assert 2.0 < feasible_ranges(ROLLS, LIBRARY, Settings(), ("net_carbs",))[0].low < 3.0


def test_a_front_gives_more_for_more_and_no_point_is_beaten_by_another():
    seen = []

    def seen_by(number):
        seen.append(number)
        return True

    told = pareto_front(ROLLS, LIBRARY, Settings(), "net_carbs", CHANGE, points=6, step=seen_by)
    assert seen == [1, 2, 3, 4, 5, 6]
    xs, ys = [p.x for p in told.points], [p.y for p in told.points]
    assert xs == sorted(xs, reverse=True)
    assert ys == sorted(ys)
    for point in told.points:
        assert figures(Dough(point.formula, LIBRARY)).values["net_carbs"] == pytest.approx(point.x)
        assert figures(Dough(point.formula, LIBRARY)).fits
    assert pareto_front(ROLLS, LIBRARY, Settings(), "net_carbs", CHANGE, points=4, step=lambda _: False) is None
    with pytest.raises(FormulaError, match="quantity not found"):
        pareto_front(ROLLS, LIBRARY, Settings(), "luck", CHANGE)


def test_a_sweep_is_the_dough_with_other_grams_and_finds_where_each_window_ends():
    told = sweep(ROLLS, LIBRARY, Settings(), "water")
    curve = {c.key: c for c in told.curves}["water_fill"]
    assert list(curve.values) == sorted(curve.values)
    for place in (0, 12, 24):
        dough = Dough(ROLLS, LIBRARY).with_changes(grams={"water": told.grams[place]})
        assert figures(dough).values["water_fill"] == pytest.approx(curve.values[place])
    edge = figures(Dough(ROLLS, LIBRARY).with_changes(grams={"water": curve.leaves_high_g}))
    assert edge.values["water_fill"] == pytest.approx(curve.window.high, rel=0.01)
    assert f"{curve.leaves_low_g:.0f}" in told.text
    carbs = {c.key: c for c in told.curves}["net_carbs"]
    assert carbs.leaves_low_g is carbs.leaves_high_g is None
    with pytest.raises(FormulaError, match="cannot be varied"):
        sweep(ROLLS, LIBRARY, Settings(), "nobody")


@pytest.mark.parametrize("skeleton", formula_templates(), ids=lambda s: s.id)
def test_every_house_skeleton_comes_to_a_dough_that_is_right(skeleton):
    problem = BalanceProblem(HOUSE[skeleton.id], LIBRARY, Settings(), Wish())
    if check_by_model(problem, problem.start).missed:
        answer = balance(HOUSE[skeleton.id], LIBRARY, Settings(), ways=1)
        assert answer.status == "settled"
        assert answer.ways[0].cost < 60
    assert skeleton.source


@pytest.mark.parametrize("form", forms())
def test_every_form_can_be_begun_on_several_bases(form):
    made = begin(form, LIBRARY)
    assert 3 <= len(made) <= 4
    assert len({b.skeleton.base for b in made}) == len(made)
    assert all(b.settlement.status in ("fits", "settled") for b in made)


def test_a_beginning_keeps_to_what_is_asked():
    made = begin(
        "bun",
        LIBRARY,
        targets={"net_carbs": Window(high=3), "protein": Window(low=9)},
        without=("egg", "dairy"),
        pieces=8,
    )
    assert made
    for b in made:
        assert b.formula.pieces == 8
        assert not [x for x in b.formula.lines if excluded_by(LIBRARY[x.ingredient], ("egg", "dairy"))]
        if b.settlement.status in ("fits", "settled"):
            assert values(b.formula)["net_carbs"] <= 3.0001
            assert values(b.formula)["protein"] >= 8.9999
    assert begin("rope", LIBRARY, without=("dairy",)) == ()
    with pytest.raises(FormulaError):
        begin("sandcastle", LIBRARY)
    with pytest.raises(FormulaError):
        begin("bun", LIBRARY, without=("gluten",))


@pytest.mark.parametrize(
    ("without", "out", "kept"),
    [
        ("tree-nut", "almond-flour", "coconut-flour"), ("nut", "peanut-flour", "sunflower-flour"), ("coconut", "coconut-oil", "almond-flour"), ("seed", "tahini", "almond-flour"),
        ("egg", "mayonnaise", "flax-meal"), ("yolk", "egg", "egg-white"), ("dairy", "butter", "coconut-oil"), ("lactose", "cream-cheese", "parmesan"),
        ("casein", "whey-isolate", "egg"), ("psyllium", "psyllium-husk", "xanthan"), ("soy", "tofu", "pea-protein"), ("pulse", "pea-protein", "sunflower-flour"),
        ("nightshade", "potato-fibre", "bamboo-fibre"), ("gum", "xanthan", "psyllium-powder"), ("polyol", "erythritol", "allulose"), ("sesame", "sesame-oil", "olive-oil"),
    ],
)  # fmt: skip
def test_an_exclusion_takes_what_holds_it_and_no_more(without, out, kept):
    """Allergen law names the nuts, milk and eggs (FALCPA; EU 1169/2011 Annex II); what else holds them is common practice."""
    assert exclusions()[without].holds(LIBRARY[out])
    assert not exclusions()[without].holds(LIBRARY[kept])


def test_a_kitchen_that_counts_coconut_as_a_nut_gets_none_in_its_place():
    answer = balance(TWISTS, LIBRARY, Settings(coconut_is_nut=True), Wish(without=("tree-nut",)))
    for way in answer.ways:
        assert not [line for line in way.formula.lines if "coconut" in LIBRARY[line.ingredient].flags]


def test_a_line_can_be_done_without_and_stock_bounds_what_is_brought():
    answer = balance(TWISTS, LIBRARY, Settings(), Wish(without_lines=("almond-flour",)))
    assert answer.status == "settled"
    assert all(line.ingredient != "almond-flour" for line in answer.ways[0].formula.lines)
    stock = {line.ingredient: 500.0 for line in TWISTS.lines} | {"sunflower-flour": 60.0}
    few = balance(TWISTS, LIBRARY, Settings(), Wish(without_lines=("almond-flour",), stock=stock))
    for way in few.ways:
        assert all((line.grams or 0) <= 60 for line in way.formula.lines if line.ingredient == "sunflower-flour")


def test_a_wish_of_texture_and_of_minutes_is_kept_by_the_full_model():
    crisp = balance(ROLLS, LIBRARY, Settings(), Wish(texture={"sturdy": Window(low=6.0)}), ways=1)
    assert crisp.status == "settled"
    assert figures(Dough(crisp.ways[0].formula, LIBRARY)).texture["sturdy"] >= 6.0
    too_much = balance(ROLLS, LIBRARY, Settings(), Wish(texture={"sturdy": Window(low=9.5)}), ways=1)
    would = next(relax for relax in too_much.clash if relax.key == "texture:sturdy")
    assert 6.0 < would.low < 9.5
    before = crisp.ways[0].minutes.before
    quick = balance(ROLLS, LIBRARY, Settings(), Wish(minutes_most=before - 0.7), ways=1)
    if quick.status == "settled":
        assert quick.ways[0].minutes.after <= before - 0.7
    else:
        assert "in the oven" in quick.nearest


def test_another_form_is_not_measured_against_the_saved_version():
    other = replace(TWISTS, form="pocket")
    problem = BalanceProblem(other, LIBRARY, Settings(), Wish(), saved=TWISTS)
    assert problem.reference.formula.form == "pocket"


def test_a_mix_keeps_its_total_and_its_shares():
    crust = DEMO["Gouda-melt crust"]
    cheeses = [line.id for line in crust.lines if LIBRARY[line.ingredient].role == "cheese"]
    total = sum(line.grams for line in crust.lines if line.id in cheeses)
    moved = blend(crust, cheeses, "gouda", 90)
    grams = {line.id: line.grams for line in moved.lines}
    assert sum(grams[key] for key in cheeses) == pytest.approx(total, abs=0.05)
    assert grams["gouda"] == 90
    before = {line.id: line.grams for line in crust.lines}
    assert grams["mozzarella"] / grams["cream-cheese"] == pytest.approx(
        before["mozzarella"] / before["cream-cheese"], rel=0.02
    )
    assert {k: v for k, v in grams.items() if k not in cheeses} == {k: v for k, v in before.items() if k not in cheeses}
    most = blend(crust, cheeses, "gouda", 10_000)
    assert next(line.grams for line in most.lines if line.id == "gouda") == pytest.approx(total)
    with pytest.raises(FormulaError, match="nothing can be reduced"):
        blend(crust, ["gouda"], "gouda", 90)
    with pytest.raises(FormulaError, match="nothing can be reduced"):
        blend(crust, [*cheeses, "brie"], "gouda", 90)


TWO_CHEESES = DEMO["Gouda-melt crust"]


def cheeses(formula):
    return {line.id: line.grams for line in formula.lines if line.id in ("mozzarella", "gouda", "cream-cheese")}


def leaned(formula, by, towards, group=("mozzarella", "gouda", "cream-cheese"), library=LIBRARY):
    return lean(Dough(formula, library, Settings()).batch, formula, group, by, towards)


def test_a_mix_leans_to_the_stronger_cheese_and_keeps_its_sum():
    start = cheeses(TWO_CHEESES)
    told = [cheeses(leaned(TWO_CHEESES, "strength", t)) for t in (-1, -0.5, 0, 0.5, 1)]
    assert told[2] == start
    for grams in told:
        assert sum(grams.values()) == pytest.approx(sum(start.values()), abs=0.05)
        assert min(grams.values()) > 0
    gouda = [grams["gouda"] for grams in told]
    assert gouda == sorted(gouda)
    assert gouda[0] < start["gouda"] < gouda[-1]
    # There and back again, but for what a scale can weigh.
    back = leaned(leaned(TWO_CHEESES, "strength", 0.5), "strength", -0.5)
    assert cheeses(back) == pytest.approx(start, abs=2)


def test_a_locked_cheese_keeps_its_weight_and_what_cannot_lean_says_why():
    locked = replace(TWO_CHEESES, lines=tuple(replace(line, locked=line.id == "gouda") for line in TWO_CHEESES.lines))
    made = leaned(locked, "strength", 1)
    assert cheeses(made)["gouda"] == cheeses(locked)["gouda"]
    assert cheeses(made)["mozzarella"] > cheeses(locked)["mozzarella"]
    for by, group, words in (
        ("price", ("mozzarella", "gouda"), "no ingredient"),
        ("strength", ("gouda",), "gouda"),
        ("strength", ("salt", "water"), "no ingredient"),
    ):
        with pytest.raises(FormulaError) as error:
            leaned(TWO_CHEESES, by, 0.5, group)
        assert error.value.got == words
        assert error.value.field == "group"


def test_a_front_of_minutes_makes_the_bake_short_and_fewer_net_carbs_take_longer():
    shown = pareto_front(ROLLS, LIBRARY, Settings(), "net_carbs", "minutes", points=4)
    by_change = pareto_front(ROLLS, LIBRARY, Settings(), "net_carbs", CHANGE, points=4)
    least = min(minutes_of(Dough(p.formula, LIBRARY, Settings())) for p in by_change.points)
    minutes = [p.y for p in shown.points]
    assert min(minutes) < min(least, shown.now_y)
    assert minutes == sorted(minutes)  # from the easiest point on
