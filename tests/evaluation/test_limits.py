"""What cannot be said is said so: one line, water alone, a milligram, a ton, a hair's breadth, a column."""

import pytest

from substrata import Dough, Settings, analyse, bake, load_library, prep, read_document, shape
from substrata.base.errors import FormulaError, OvenError
from substrata.publishing.card_panels import card
from tests.support.doughs import document

LIBRARY = load_library()
ODD = {
    "nothing": document(),
    "water alone": document(water=100),
    "one line": document(almond_flour=100),
    "oil alone": document(olive_oil=80),
    "a milligram": document(almond_flour=0.0006, egg=0.0004),
    "a ton": document(pieces=9000, almond_flour=500_000, egg=250_000, water=250_000),
    "a column": document("bun", 6, almond_flour=100, egg=50, water=60)
    | {"form": {"kind": "bun", "pieces": 6, "size": {"held": "thickness", "thickness_mm": 200}}},
}


@pytest.mark.parametrize("name", list(ODD))
def test_every_station_answers_or_says_why_not(name):
    formula = read_document(ODD[name])
    judged = analyse(formula, LIBRARY)
    assert judged.summary
    assert judged.handling is not None or str(judged.basis.handling).startswith(
        ("No dough yet", "One ingredient is not", "Not enough dough")
    )
    prep(Dough(formula, LIBRARY))
    shape(Dough(formula, LIBRARY))
    assert card(formula, LIBRARY, Settings()).cautions


@pytest.mark.parametrize("name", ["water alone", "oil alone", "a milligram", "a column"])
def test_a_bake_beyond_all_that_was_tried_is_refused_with_its_bounds(name):
    with pytest.raises(OvenError) as refusal:
        bake(Dough(read_document(ODD[name]), LIBRARY))
    assert refusal.value.allowed
    assert refusal.value.remedy


def test_a_line_of_ten_tons_and_a_thickness_of_a_hair_are_refused_and_nothing_else_is_lost():
    judged = analyse(read_document(document(almond_flour=9_000_000)), LIBRARY)
    assert "the weight cannot be right" in judged.problems[0].what
    assert "usable weight" in judged.summary[0].text
    with pytest.raises(FormulaError, match=r"0\.5 to 200"):
        read_document(document() | {"form": {"kind": "bun", "pieces": 1, "size": {"thickness_mm": 0.2}}})


def test_water_has_no_texture_of_a_crumb():
    assert analyse(read_document(document(water=100)), LIBRARY).texture is None
    assert analyse(read_document(document(almond_flour=10, water=50)), LIBRARY).texture is not None
