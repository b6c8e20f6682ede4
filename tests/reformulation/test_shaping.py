"""Pieces and thickness as freedoms of a settle: kept unless they are let go, and judged by the whole model like any edit."""

from dataclasses import replace

import pytest

from substrata import Settings, analyse
from substrata.base.errors import FormulaError
from substrata.evaluation.dough import Dough
from substrata.formula.form_table import Window
from substrata.formula.formula import Sort
from substrata.reformulation.balancing import balance
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.piece_changes import as_shaped, can_hold_thickness, other_shapes
from substrata.reformulation.request.balance_request import Wish
from substrata.reformulation.solutions.target_probability import sure_steps
from tests.reformulation.conftest import DEMO, LIBRARY, values

ROLLS, LOAF, COINS = DEMO["Market rolls, egg-free"], DEMO["Pumpkin tin loaf"], DEMO["Lemon shortbread coins"]
SHEETS = [name for name, formula in DEMO.items() if can_hold_thickness(formula)]


def lean(formula, share=0.7, **freedoms):
    return Wish(targets={"net_carbs": Window(high=share * values(formula)["net_carbs"])}, **freedoms)


def settled(formula, wish, **named):
    return balance(formula, LIBRARY, Settings(), wish, **named)


@pytest.mark.parametrize("name", DEMO)
def test_pieces_and_thickness_stay_unless_they_are_let_go(name):
    for way in settled(DEMO[name], lean(DEMO[name], 0.9), ways=2).ways:
        assert way.shape == ()
        assert (way.formula.pieces, way.formula.size) == (DEMO[name].pieces, DEMO[name].size)


@pytest.mark.parametrize("name", ["Market rolls, egg-free", "Spinach pockets", "Lemon shortbread coins"])
def test_fewer_net_carbs_a_piece_may_come_from_more_pieces(name):
    formula, wish = DEMO[name], lean(DEMO[name], may_change_pieces=True)
    answer = settled(formula, wish)
    assert answer.status == "settled"
    reshaped = [way for way in answer.ways if way.shape]
    assert reshaped
    assert reshaped[0].cost == min(way.cost for way in answer.ways)
    for way in reshaped:
        (change,) = way.shape
        assert change.kind == "pieces"
        assert (change.before, change.after) == (formula.pieces, way.formula.pieces)
        assert way.formula.pieces > formula.pieces
        told = analyse(way.formula, LIBRARY)
        high = wish.targets["net_carbs"].high
        assert next(b for b in told.brackets if b.key == "net_carbs").estimate.value <= high * (1 + 1e-6)
        assert way.dough_after_g == pytest.approx(way.dough_before_g, rel=0.03)


def test_fewer_pieces_hold_more_protein_each():
    wish = Wish(targets={"protein": Window(low=1.3 * values(LOAF)["protein"])}, may_change_pieces=True)
    ways = [way for way in settled(LOAF, wish).ways if way.shape]
    assert ways
    assert all(way.formula.pieces < LOAF.pieces for way in ways)


@pytest.mark.parametrize("name", SHEETS)
def test_a_piece_is_made_no_thicker_than_is_wished(name):
    formula = DEMO[name]
    now = Dough(formula, LIBRARY, Settings()).piece.thickness_mm
    answer = settled(formula, Wish(thickness_most=0.8 * now), ways=2)
    assert answer.status in {"settled", "nearest"}
    for way in answer.ways:
        after = Dough(way.formula, LIBRARY, Settings())
        assert after.piece.thickness_mm <= 0.8 * now + 1e-3
        assert [change.kind for change in way.shape] == ["thickness"]
        if name not in {
            "Orange drop doughnuts",
            "Celeriac flatbread",
        }:  # what is fried is done by its crust, a sheet by both faces
            assert way.minutes.after < way.minutes.before + 0.5


def test_in_a_tin_the_tin_makes_the_thickness():
    answer = settled(LOAF, Wish(thickness_most=30))
    assert answer.status == "nearest"
    assert "mm thick" in answer.nearest
    assert answer.moves == ("use a wider loaf pan, or less dough",)
    assert other_shapes(as_shaped(BalanceProblem(LOAF, LIBRARY, Settings(), Wish(may_change_thickness=True)))) == []


def test_a_thinner_coin_is_a_crisper_one():
    crisp = next(s.value for s in analyse(COINS, LIBRARY).texture.scores if s.key == "crisp")
    wish = Wish(texture={"crisp": Window(low=crisp + 1)}, may_change_thickness=True)
    way = next(way for way in settled(COINS, wish).ways if way.shape)
    assert way.shape[0].after < way.shape[0].before
    assert next(s.value for s in analyse(way.formula, LIBRARY).texture.scores if s.key == "crisp") >= crisp + 1 - 1e-6


def test_what_cannot_be_met_in_these_pieces_says_in_which_it_could():
    answer = settled(replace(ROLLS, pieces=ROLLS.pieces // 2), Wish(), saved=ROLLS)
    assert answer.status == "nearest"
    first = answer.clash[0]
    assert (first.kind, first.key) == ("shape", "pieces")
    freed = settled(replace(ROLLS, pieces=ROLLS.pieces // 2), Wish(may_change_pieces=True), saved=ROLLS)
    assert freed.status == "settled"
    assert freed.ways[0].formula.pieces == int(str(first.price).split()[0])


def test_rails_compare_like_with_like_when_the_pieces_were_changed_by_hand():
    """Twice as many pieces hold half the protein and fat each: no rail is broken by that."""
    draft = replace(COINS, pieces=2 * COINS.pieces)
    wish = Wish(targets={"net_carbs": Window(high=0.9 * values(draft)["net_carbs"])})
    answer = settled(draft, wish, saved=COINS, ways=1)
    alone = settled(draft, wish, ways=1)
    assert answer.status == alone.status == "settled"
    assert [c.text for c in answer.ways[0].changes] == [c.text for c in alone.ways[0].changes]


def test_sorts_hold_their_pieces():
    sorts = tuple(Sort(name=name, pieces=ROLLS.pieces // 2) for name in ("plain", "seeded"))
    answer = settled(replace(ROLLS, sorts=sorts), lean(ROLLS, may_change_pieces=True), ways=2)
    assert all(way.formula.pieces == ROLLS.pieces for way in answer.ways)


def test_the_dial_tells_the_probability_of_a_normal_doubt():
    """Quantiles of the normal distribution, handbook table: .2533, .5244, .8416, 1.2816 for 60, 70, 80 and 90 %."""
    steps = sure_steps()
    assert [s.margin for s in steps] == pytest.approx([0, 0.2533, 0.5244, 0.8416, 1.2816], abs=1e-4)
    assert [s.probability for s in steps] == pytest.approx([0.5, 0.6, 0.7, 0.8, 0.9], abs=1e-9)
    assert steps[-1].text == "met 9 times in 10"


def test_a_surer_wish_is_met_more_surely_or_told_that_it_cannot_be():
    for margin in (0.5244, 1.2816):
        answer = settled(ROLLS, lean(ROLLS, 0.85, margin=margin), ways=1)
        reached = min(sure.probability for sure in answer.ways[0].sure)
        assert reached > 0.69 or answer.surer.startswith("No surer than")


@pytest.mark.parametrize("field", ["thickness_most", "minutes_most"])
@pytest.mark.parametrize("told", [0.0, -3.0, float("nan"), float("inf")])
def test_a_limit_that_nothing_can_meet_is_refused(field, told):
    with pytest.raises(FormulaError) as error:
        settled(ROLLS, Wish(**{field: told}))
    assert error.value.field == field
