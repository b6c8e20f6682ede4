"""Formulas inside formulas, and sorts out of one dough: worth what their lines are worth, refused where they contain themselves."""

from dataclasses import replace

import pytest

from substrata import analyse, load_library, read_document, write_document
from substrata.base.errors import FormulaError
from substrata.base.settings import Settings
from substrata.evaluation.dough import Dough
from substrata.evaluation.forecasts.bake_forecast import forecast_bake
from substrata.evaluation.forecasts.variety_bakes import variety_bakes
from substrata.evaluation.varieties import check_sorts, variety_doughs, variety_figures
from substrata.execution.protocol import bake_protocol
from substrata.formula.bake_settings import BakeStage, BakeWish
from substrata.formula.batch.sub_recipes import keys_in, part_ingredient
from substrata.formula.batch.weighed_lines import weigh_formula
from substrata.formula.formula import PART, Formula, Line, Part, Sort
from substrata.publishing.card_panels import card
from tests.support.doughs import document

LIBRARY, SETTINGS = load_library(), Settings()


def line(ingredient, grams, **more):
    return Line(id=more.pop("id", ingredient), ingredient=ingredient, grams=grams, entered=f"{grams} g", **more)


SAUCE = Formula(
    name="Tomato sauce",
    form="cracker",
    pieces=1,
    lines=(line("tomato-passata", 300), line("olive-oil", 20), line("salt", 3)),
)
DRY = Formula(
    name="Dry mix",
    form="bun",
    pieces=1,
    lines=(line("almond-flour", 160), line("psyllium-powder", 36), line("baking-powder", 14), line("salt", 8)),
)
DOUGH = (line("water", 420), line("cider-vinegar", 10))


def part(formula, grams, role="", key="f1", **more):
    return Line(
        id=more.pop("id", "part-1"),
        ingredient=PART,
        grams=grams,
        entered=f"{grams} g",
        role=role,
        part=Part(formula=formula, key=key, **more),
    )


def buns(*lines, pieces=8, **more):
    return Formula(name="Buns", form="bun", pieces=pieces, lines=lines, **more)


def test_a_part_without_loss_is_worth_its_own_lines():
    together = analyse(buns(*DOUGH, part(DRY, 218, role="base")), LIBRARY)
    apart = analyse(buns(*DOUGH, *DRY.lines), LIBRARY)
    for one, other in (
        (together.nutrition.piece, apart.nutrition.piece),
        (together.nutrition.dough_100g, apart.nutrition.dough_100g),
    ):
        for name in ("net_carbs", "protein", "fat", "fibre", "sodium", "energy"):
            assert getattr(one, name).value == pytest.approx(getattr(other, name).value, rel=1e-9)
    assert together.nutrition.net_carbs_eu.value == pytest.approx(apart.nutrition.net_carbs_eu.value, rel=1e-9)
    assert {a.name for a in together.allergens} == {a.name for a in apart.allergens}
    assert together.handling.at_shaping.consistency == pytest.approx(apart.handling.at_shaping.consistency, abs=0.6)


def test_half_a_part_is_half_of_it_and_parts_lie_in_parts():
    inner = Formula(name="Spiced mix", form="bun", pieces=1, lines=(part(DRY, 109, key="a"), line("caraway", 4)))
    together = analyse(buns(*DOUGH, part(inner, 113, key="b")), LIBRARY)
    apart = analyse(
        buns(
            *DOUGH,
            *(replace(own, grams=own.grams / 2, entered=f"{own.grams / 2} g") for own in DRY.lines),
            line("caraway", 4),
        ),
        LIBRARY,
    )
    assert together.nutrition.piece.protein.value == pytest.approx(apart.nutrition.piece.protein.value, rel=1e-9)
    assert together.nutrition.piece.net_carbs.value == pytest.approx(apart.nutrition.piece.net_carbs.value, rel=1e-9)
    assert keys_in(buns(part(inner, 113, key="b"))) == {"a", "b"}


def test_what_steams_away_is_water_and_nothing_else():
    plain = part_ingredient(Part(formula=SAUCE), LIBRARY, SETTINGS, weigh_formula)
    thick = part_ingredient(Part(formula=SAUCE, loss_percent=40), LIBRARY, SETTINGS, weigh_formula)
    for name in ("protein_g", "fat_g", "carbohydrate_g", "sodium_mg"):
        assert thick.composition[name] * 0.6 == pytest.approx(plain.composition[name], rel=1e-9)
    assert thick.composition["water_g"] * 0.6 == pytest.approx(plain.composition["water_g"] - 40, rel=1e-9)
    assert thick.composition.closes_at == pytest.approx(100, abs=1.0)
    with pytest.raises(FormulaError, match="is too high"):
        part_ingredient(Part(formula=SAUCE, loss_percent=94), LIBRARY, SETTINGS, weigh_formula)


def test_the_statement_allergens_and_cautions_of_a_part_roll_up():
    cheesy = Formula(name="Spinach filling", form="cracker", pieces=1, lines=(line("spinach", 200), line("feta", 100)))
    made = card(buns(*DOUGH, *DRY.lines, part(cheesy, 200, role="filling")), LIBRARY, SETTINGS)
    assert "Spinach filling (spinach" in made.us_statement.text or "spinach filling (spinach" in made.us_statement.text
    assert "milk" in made.us_statement.contains.lower()
    assert "filling" in {caution.code for caution in made.cautions}
    assert not {claim.name for claim in made.claims} & {"Dairy-free", "Vegan"}


def test_a_circle_is_refused_with_its_path():
    inner = Formula(name="B", form="bun", pieces=1, lines=(part(replace(DRY, name="C"), 10, key="a"),))
    formula = buns(*DOUGH, part(replace(DRY, name="A", lines=(part(inner, 10, key="b"), *DRY.lines)), 50, key="a"))
    told = analyse(formula, LIBRARY)
    assert told.problems[0].what == "the formula contains itself"
    assert told.problems[0].got == "C in B in A"
    deep = DRY
    for level in range(8):
        deep = Formula(name=f"{level}", form="bun", pieces=1, lines=(part(deep, 10, key=f"k{level}"),))
    assert "deep" in analyse(buns(*DOUGH, part(deep, 50, key="x")), LIBRARY).problems[0].what


def test_a_part_that_cannot_be_weighed_is_a_problem_of_its_line():
    broken = replace(DRY, lines=(*DRY.lines, line("moon-dust", 3)))
    told = analyse(buns(*DOUGH, part(broken, 50)), LIBRARY)
    assert told.problems[0].line == "part-1"
    assert "moon-dust" in told.problems[0].got
    assert "empty" in analyse(buns(*DOUGH, part(replace(DRY, lines=()), 50)), LIBRARY).problems[0].what


def test_a_document_keeps_its_parts_and_sorts_whole():
    formula = buns(*DOUGH, part(DRY, 218, number=3, loss_percent=2), sorts=(Sort(name="plain", pieces=8),))
    written = write_document(formula)
    written["lines"][2]["part"]["mood"] = "good"
    written["lines"][2]["part"]["formula"]["lines"][0]["mark"] = 1
    again = write_document(read_document(written))
    assert again["lines"][2]["part"]["mood"] == "good"
    assert again["lines"][2]["part"]["formula"]["lines"][0]["mark"] == 1
    assert again["sorts"] == [{"name": "plain", "pieces": 8, "lines": []}]
    assert "part" not in document(almond_flour=1)["lines"][0]


FILLED = (*DOUGH, *DRY.lines, line("spinach", 160, role="filling"), line("feta", 120, role="filling"))
TWO = (
    Sort(name="spinach", pieces=6, lines=frozenset({"spinach"})),
    Sort(name="feta", pieces=2, lines=frozenset({"feta"})),
)


def test_sorts_share_the_dough_and_differ_in_what_is_their_own():
    dough = Dough(buns(*FILLED, sorts=TWO), LIBRARY)
    green, white = variety_figures(dough)
    shared = sum(own.grams for own in (*DOUGH, *DRY.lines))
    assert green.piece_g == pytest.approx(shared / 8 + 160 / 6)
    assert white.piece_g == pytest.approx(shared / 8 + 120 / 2)
    assert "milk" in white.allergens
    assert "milk" not in green.allergens
    assert white.cautions_differ
    # All sorts together are the formula: what lies in each adds up to the whole.
    whole = sum(own.batch.whole_g for _, own in variety_doughs(dough))
    assert whole == pytest.approx(dough.batch.whole_g, rel=1e-9)
    for name in ("protein_g", "fat_g", "fibre_g", "sodium_mg"):
        each = sum(float(own.batch.grams @ own.batch.nutrient(name)[0]) for _, own in variety_doughs(dough))
        assert each == pytest.approx(float(dough.batch.grams @ dough.batch.nutrient(name)[0]), rel=1e-9)


HALVES = (
    line("mozzarella", 175),
    line("almond-flour", 115),
    line("egg", 52),
    line("salt", 2),
    line("cheddar", 55, role="topping"),
    line("tomato", 170, role="topping"),
    line("gouda", 85, role="topping"),
)


def halved(*lines, topped=True, laden=("tomato", "gouda")):
    stages = (BakeStage(kind="bake", minutes=7), BakeStage(kind="top"), BakeStage(kind="bake"))
    return Formula(
        name="Crust in halves",
        form="thin-crust",
        pieces=4,
        lines=lines,
        bake=BakeWish(oven_c=177, stages=stages if topped else ()),
        sorts=(
            Sort(name="plain", pieces=2, lines=frozenset({"cheddar"})),
            Sort(name="laden", pieces=2, lines=frozenset(laden)),
        ),
    )


def test_a_laden_top_is_done_later_than_cheese_alone():
    """Common practice at 177 degC: 5 to 7 min for cheese alone, 10 to 12 under vegetables and more."""
    dough = Dough(halved(*HALVES), LIBRARY)
    plain, laden = variety_bakes(dough)
    after = [told.ready_min.best - told.topped_min for told in (plain, laden)]
    assert (plain.name, laden.name) == ("plain", "laden")
    assert after[1] > 1.5 * after[0]
    assert plain.ready_min.low < plain.ready_min.best < plain.ready_min.high
    whole = forecast_bake(dough, further=False)
    assert whole.sorts == (plain, laden)
    steps = [step for step in bake_protocol(dough).steps if step.moment == "out" or step.id.startswith("out:")]
    assert [step.text for step in steps] == ["Take plain out of the oven", "Take laden out of the oven"]
    assert [step.moment for step in steps] == ["", "out"], "the clock of the bake ends with the last"


def test_sorts_that_are_done_together_come_out_together():
    alike = (*HALVES[:4], line("cheddar", 60, role="topping"), line("gouda", 60, role="topping"))
    assert variety_bakes(Dough(halved(*alike, laden=("gouda",)), LIBRARY)) == ()
    assert variety_bakes(Dough(replace(halved(*HALVES), sorts=()), LIBRARY)) == ()
    wrong = replace(halved(*HALVES), pieces=5)
    assert variety_bakes(Dough(wrong, LIBRARY)) == (), "what does not add up is told where it is set"


@pytest.mark.parametrize(
    ("sorts", "words"),
    [
        ((Sort(name="a", pieces=3),), "do not add up"),
        ((Sort(name="a", pieces=4), Sort(name="a", pieces=4)), "have the same name"),
        ((Sort(name="a", pieces=8, lines=frozenset({"moon"})),), "of another variety"),
        (
            (Sort(name="a", pieces=4, lines=frozenset({"feta"})), Sort(name="b", pieces=4, lines=frozenset({"feta"}))),
            "of another variety",
        ),
    ],
)
def test_sorts_that_do_not_add_up_are_refused(sorts, words):
    with pytest.raises(FormulaError) as refused:
        check_sorts(buns(*FILLED, sorts=sorts))
    assert words in str(refused.value)


def test_a_dough_with_a_part_is_settled_and_its_part_left_out_when_asked():
    from substrata.reformulation.balancing import balance
    from substrata.reformulation.quick_fix_search import quick_fixes
    from substrata.reformulation.request.balance_request import Wish

    formula = buns(*DOUGH, *DRY.lines, part(SAUCE, 80, role="filling"))
    answer = balance(formula, LIBRARY, SETTINGS, Wish())
    assert answer.status
    assert quick_fixes(formula, LIBRARY, SETTINGS) is not None
    for way in answer.ways:
        assert next(own for own in way.formula.lines if own.id == "part-1").grams == 80
    without = balance(formula, LIBRARY, SETTINGS, Wish(without=("nightshade",)))
    assert all("part-1" not in {own.id for own in way.formula.lines} for way in without.ways)
