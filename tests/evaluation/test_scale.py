"""The same dough, more or less of it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import analyse, load_library, read_document
from substrata.base.errors import AmountError, FormulaError
from substrata.evaluation.dough import Dough
from substrata.evaluation.scaling import ScaleWish, scale

LIBRARY = load_library()
LINES = [
    {"id": "flour", "ingredient": "almond-flour", "grams": 150, "entered": "150 g"},
    {"id": "egg", "ingredient": "egg", "grams": 100, "entered": "2 large eggs"},
    {"id": "powder", "ingredient": "baking-powder", "grams": 4.6, "entered": "1 tsp"},
    {"id": "water", "ingredient": "water", "grams": 60, "entered": ""},
]
DOUGH = Dough(read_document({"name": "Rolls", "form": {"kind": "bun", "pieces": 6}, "lines": LINES}), LIBRARY)
WHOLE = DOUGH.batch.dough_g


def grams(scaled):
    return {line.id: line.grams for line in scaled.formula.lines}


def test_by_pieces_each_stays_as_heavy():
    scaled = scale(DOUGH, ScaleWish(pieces=9))
    assert scaled.factor == 1.5
    assert scaled.piece_g == pytest.approx(WHOLE / 6)
    assert grams(scaled) == {"flour": 225, "egg": 150, "powder": 6.9, "water": 90}
    assert [line.entered for line in scaled.formula.lines] == ["225 g", "3 large egg", "1 1/2 tsp", "90 g"]


def test_by_the_weight_of_a_piece_their_number_stays():
    scaled = scale(DOUGH, ScaleWish(piece_g=2 * WHOLE / 6))
    assert (scaled.formula.pieces, scaled.factor) == (6, pytest.approx(2))


@pytest.mark.parametrize(("amount", "factor"), [("3 large eggs", 1.5), ("150 g", 1.5), ("50", 0.5)])
def test_by_what_is_at_hand(amount, factor):
    scaled = scale(DOUGH, ScaleWish(line="egg", amount=amount))
    assert scaled.factor == pytest.approx(factor, rel=0.01)
    assert scaled.formula.pieces == round(6 * factor)
    assert scale(DOUGH, ScaleWish(line="egg", amount=amount, keep_pieces=True)).formula.pieces == 6


@given(st.floats(0.05, 40))
def test_what_a_gram_is_made_of_does_not_change(factor):
    scaled = scale(DOUGH, ScaleWish(factor=factor)).formula
    now, then = (analyse(f, LIBRARY) for f in (DOUGH.formula, scaled))
    for before, after in zip(now.lines, then.lines, strict=True):
        assert after.grams == pytest.approx(factor * before.grams, abs=0.006)
    fill = lambda a: next(b.estimate.value for b in a.brackets if b.key == "water_fill")  # noqa: E731
    assert fill(then) == pytest.approx(fill(now), rel=0.02)


@pytest.mark.parametrize(
    "wish",
    [
        ScaleWish(),
        ScaleWish(factor=0),
        ScaleWish(factor=float("nan")),
        ScaleWish(factor=1e9),
        ScaleWish(pieces=0),
        ScaleWish(line="moon", amount="1 g"),
    ],
)
def test_what_cannot_be_is_refused(wish):
    with pytest.raises(FormulaError):
        scale(DOUGH, wish)


def test_an_amount_that_cannot_be_read_is_refused():
    with pytest.raises(AmountError):
        scale(DOUGH, ScaleWish(line="egg", amount="some"))
    with pytest.raises(FormulaError):
        scale(Dough(read_document({"name": "", "form": {"kind": "bun"}, "lines": []}), LIBRARY), ScaleWish(factor=2))
