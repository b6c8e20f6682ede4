"""The ingredient statement and the allergens of a dough, by rule.

Order by weight as mixed, and free below 2 %: 21 CFR 101.4(a), Regulation (EU) 1169/2011 Article 18 and Annex VII A. Allergens:
FALCPA (21 U.S.C. 343(w)) with sesame since the FASTER Act; EU Annex II, emphasised in the list (Article 21).
"""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from substrata import Dough, load_library, read_document
from substrata.nutrition.allergens import allergens, us_contains
from substrata.nutrition.ingredient_statement import statement
from tests.support.doughs import document

LIBRARY = load_library()


def batch(**grams):
    return Dough(read_document(document("bun", 8, **grams)), LIBRARY).batch


def text(style, remaining=0.9, **grams):
    return statement(batch(**grams), style, remaining).text.lower()


@pytest.mark.parametrize("style", ["us", "eu"])
def test_what_weighs_most_stands_first(style):
    words = text(style, almond_flour=80, coconut_flour=300, egg=150)
    assert words.index("coconut") < words.index("egg") < words.index("almond")


def test_what_is_under_two_percent_stands_last_whatever_its_order():
    words = text("us", almond_flour=400, egg=200, salt=5, xanthan=3)
    assert max(words.index("almond"), words.index("egg")) < min(words.index("salt"), words.index("xanthan"))


def test_water_that_bakes_out_is_not_declared():
    """Annex VII A 1: water counts as what the finished food holds of it, and up to 5 % it need not be listed."""
    wet = {"almond_flour": 400, "water": 100, "egg": 50}
    assert "water" in text("eu", 0.99, **wet)
    assert "water" not in text("eu", 0.82, **wet)


ALLERGENS = {
    "almond-flour": ("nut", "almond"),
    "egg": ("egg", "egg"),
    "cheddar": ("milk", "milk"),
    "sesame-seeds": ("sesame", "sesame"),
    "peanut-butter": ("peanut", "peanut"),
}


@pytest.mark.parametrize("ingredient", [key for key in ALLERGENS if key in LIBRARY])
def test_each_of_the_laws_allergens_is_named(ingredient):
    name, word = ALLERGENS[ingredient]
    made = batch(**{ingredient.replace("-", "_"): 100, "water": 50})
    found = allergens(made)
    assert any(name in row.name.lower() for row in found)
    assert word in us_contains(made).lower()


def test_coconut_is_a_tree_nut_nowhere_any_more():
    """FDA, Guidance on food allergens of January 2025: coconut is no longer a tree nut; it never was one in the European Union."""
    assert not any("nut" in a.name.lower() for a in allergens(batch(coconut_flour=100, water=50)))


@given(st.permutations(["almond_flour", "egg", "cheddar", "psyllium_powder"]), st.floats(0.7, 1.0))
@settings(max_examples=20, deadline=None)
def test_the_order_of_lines_changes_nothing(order, remaining):
    grams = {"almond_flour": 180, "egg": 110, "cheddar": 90, "psyllium_powder": 20}
    one, two = batch(**grams), batch(**{key: grams[key] for key in order})
    assert statement(one, "us", remaining).text == statement(two, "us", remaining).text
    assert {a.name for a in allergens(one)} == {a.name for a in allergens(two)}
