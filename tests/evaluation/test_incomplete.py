"""A line without a weight is said wherever a figure is, and sizes of packages are read."""

import pytest

from substrata import analyse, load_library, read_document
from substrata.evaluation.dough import Dough
from substrata.formula.exchange.text_import import import_text
from substrata.publishing.recipe import recipe_of
from substrata.publishing.recipe_formats import as_markdown, as_text
from tests.support.doughs import document

LIBRARY = load_library()


@pytest.mark.parametrize(
    ("text", "food", "grams"),
    [
        ("1 (6-oz) block aged gouda", "gouda", 170.1),
        ("2 (9 oz) bags frozen spinach", "spinach-frozen", 510.3),
        ("one 175g tub mascarpone", "mascarpone", 175.0),
        ("1 can (6 oz) tuna", "tuna", 170.1),
        ("2 packs (200 g each) halloumi", "halloumi", 400.0),
        ("3 x 90 g butter", "butter", 270.0),
        ("1/2-lb bag almond flour", "almond-flour", 226.8),
        ("1 tin tuna (145 g)", "tuna", 145),
        ("3 tubs ricotta (9 oz each)", "ricotta", 765.4),
    ],
)
def test_a_package_of_a_stated_size_is_weighed(text, food, grams):
    (row,) = import_text(text, LIBRARY)
    assert (row.status, row.lines[0].ingredient, row.text) == ("read", food, text)
    assert row.weights[0].value == pytest.approx(grams, abs=0.2)


def test_a_size_that_may_be_of_each_or_of_all_is_left_to_the_baker():
    (row,) = import_text("2 tubs ricotta (250 g)", LIBRARY)
    assert row.weights == (None,)


def test_a_size_that_is_no_number_is_no_failure():
    for text in ("1 (1/0-lb) bag almond flour", "1 tub ricotta (1/0 lb)", "1 (0/0 oz) can tuna"):
        assert import_text(text, LIBRARY)[0].weights in ((None,), ())


def unweighed():
    told = document("wrap", 4, almond_flour=60, egg=100, salt=2)
    told["lines"].append({"id": "c", "ingredient": "cheddar", "entered": "1 block", "grams": None})
    return read_document(told)


def test_until_a_line_has_a_weight_every_figure_says_that_it_is_without_it():
    told = analyse(unweighed(), LIBRARY)
    assert "Incomplete: cheddar has no weight yet" in "".join(str(phrase.text) for phrase in told.summary)
    assert {str(bracket.note) for bracket in told.brackets} == {"incomplete: cheddar has no weight"}
    assert not [claim for claim in told.claims if claim.verdict == "holds"]
    assert any("cheddar has no weight" in claim.text for claim in told.claims if claim.verdict == "unsure")
    recipe = recipe_of(Dough(unweighed(), LIBRARY).as_baked())
    for text in (recipe.incomplete, as_text(recipe), as_markdown(recipe)):
        assert "cheddar has no weight" in text


def test_a_formula_whose_lines_all_have_one_says_nothing_of_it():
    recipe = recipe_of(Dough(read_document(document("wrap", 4, almond_flour=60, egg=100, salt=2)), LIBRARY).as_baked())
    assert recipe.incomplete == ""


def test_while_a_line_has_no_weight_nothing_is_missed_that_it_may_be():
    told = document("wrap", 4, bamboo_fibre=30, water=90)
    assert any(w.code == "nothing-binds" for w in analyse(read_document(told), LIBRARY).warnings)
    told["lines"] += [{"id": key, "ingredient": key, "entered": "some", "grams": None} for key in ("egg", "cheddar")]
    result = analyse(read_document(told), LIBRARY)
    assert not any(w.code == "nothing-binds" for w in result.warnings)
    assert "egg and cheddar have no weight yet" in "".join(str(phrase.text) for phrase in result.summary)
