"""Allergen facts against the lists of the law, written out here from the regulations themselves."""

import pytest

from substrata import load_library
from substrata.base.tables.table_reader import read_table

LIBRARY = load_library()
# FALCPA 2004 and the FASTER Act 2021: milk, egg, fish, shellfish, tree nuts, wheat, peanut, soy, sesame.
US = {"milk", "egg", "fish", "crustacean shellfish", "tree nuts", "wheat", "peanut", "soy", "sesame"}
# Regulation (EU) 1169/2011, Annex II.
EU = {
    "cereals with gluten", "crustaceans", "egg", "fish", "peanut", "soy", "milk", "nuts", "celery", "mustard", "sesame", "sulphites",
    "lupin", "molluscs",
}  # fmt: skip
# Annex II names these nuts and no others.
EU_NUTS = {"almond", "hazelnut", "walnut", "cashew", "pecan", "Brazil nut", "pistachio", "macadamia"}


def kind(name):
    return name.partition(" (")[0]


def named(region):
    return {row.text(region) for row in read_table("allergens.csv")} - {""}


def test_every_allergen_we_name_is_on_its_list():
    assert {kind(n) for n in named("us")} <= US
    assert {kind(n) for n in named("eu")} <= EU


def test_every_allergen_of_the_law_can_be_named_by_a_pack():
    assert {kind(n) for n in named("us")} == US
    assert {kind(n) for n in named("eu")} == EU


def test_the_european_nuts_are_the_eight_of_annex_ii():
    assert {n.partition("(")[2].rstrip(")") for n in named("eu") if n.startswith("nuts")} == EU_NUTS


@pytest.mark.parametrize(
    ("ingredient", "flag"),
    [
        ("celeriac", "celery"), ("lupin-flour", "lupin"), ("tahini", "sesame"), ("sesame-oil", "sesame"), ("ghee", "milk"),
        ("whey-isolate", "milk"), ("casein-powder", "milk"), ("egg-white-powder", "egg"), ("almond-milk", "nut:almond"),
        ("walnut-oil", "nut:walnut"), ("peanut-oil", "peanut"), ("soy-isolate", "soy"), ("tofu", "soy"), ("oat-fibre", "grain:oat"),
        ("mustard", "mustard"), ("feta", "milk"), ("butter", "milk"),
    ],
)  # fmt: skip
def test_an_allergen_follows_its_food_through_processing(ingredient, flag):
    assert flag in LIBRARY[ingredient].flags


def test_no_cheese_or_egg_hides_its_allergen():
    assert all("milk" in i.flags for i in LIBRARY if i.role == "cheese" and i.id != "vegan-cheese")
    assert "milk" in LIBRARY["almond-cheese"].flags  # it holds casein
    assert all("egg" in i.flags for i in LIBRARY if i.role == "egg")


def test_coconut_is_told_apart_from_tree_nuts():
    """FDA, questions and answers on allergen labelling, edition 5 (2025): coconut is no longer a tree nut."""
    for ingredient in LIBRARY:
        if "coconut" in ingredient.id:
            assert "coconut" in ingredient.flags
            assert not any(flag.startswith("nut:") for flag in ingredient.flags)
