"""Composition rows against USDA SR28, read from the data file of the package that ships it (public domain)."""

import csv
from importlib.util import find_spec
from pathlib import Path

import pytest

from substrata import load_library
from substrata.base.tables.table_reader import read_table
from substrata.nutrition.energy import energy_kcal

SR28 = Path(find_spec("usda_nutrition").submodule_search_locations[0]) / "data" / "sr28"
NUTRIENTS = {
    "water_g": "255", "protein_g": "203", "fat_g": "204", "saturates_g": "606", "carbohydrate_g": "205", "fibre_g": "291",
    "sugars_g": "269", "ash_g": "207", "alcohol_g": "221", "sodium_mg": "307", "cholesterol_mg": "601", "calcium_mg": "301",
    "iron_mg": "303", "potassium_mg": "306", "vitamin_d_ug": "328",
}  # fmt: skip
# Cells that differ from the dataset on purpose; each row's note says why.
MENDED = {
    ("goat-cheese", "water_g"), ("black-pepper", "carbohydrate_g"), ("baking-soda", "ash_g"), ("sesame-flour", "fibre_g"),
    ("sesame-flour-defatted", "fibre_g"), ("coconut-milk", "fibre_g"), ("coconut-milk", "sugars_g"),
    ("halloumi", "sodium_mg"), ("baking-powder", "sodium_mg"), ("agar", "fibre_g"), ("sunflower-flour-defatted", "fibre_g"),
    ("light-cream", "sugars_g"), ("jalapeno", "sugars_g"), ("asparagus", "sugars_g"), ("tomato-canned", "fibre_g"),
}  # fmt: skip


def sr28(file):
    with (SR28 / file).open(encoding="latin-1", newline="") as handle:
        yield from csv.reader(handle, delimiter="^", quotechar="~")


@pytest.fixture(scope="module")
def published():
    wanted = set(NUTRIENTS.values()) | {"208"}
    return {(row[0], row[1]): float(row[2]) for row in sr28("NUT_DATA.txt") if row[1] in wanted}


ROWS = [row for row in read_table("composition.csv") if row.text("dataset") == "USDA SR28"]


def test_most_of_the_pantry_is_published_data():
    assert len(ROWS) >= 130


def test_names_are_the_datasets_own():
    names = {row[0]: row[2] for row in sr28("FOOD_DES.txt")}
    assert all(names[row.text("food_id")] == row.text("food_name") for row in ROWS)


def test_every_cell_is_the_published_one_but_those_mended_with_a_note(published):
    for row in ROWS:
        for column, number in NUTRIENTS.items():
            here, there = row.number_in(column), published.get((row.text("food_id"), number), 0.0)
            if (row.text("id"), column) in MENDED:
                assert row.text("note"), row.text("id")
            else:
                assert here == pytest.approx(there, rel=0.002, abs=0.005), (row.text("id"), column)


def test_energy_by_general_factors_lies_near_the_published_specific_factors(published):
    """SR28 uses specific Atwater factors; general ones differ by up to a tenth for whole foods (FAO 77, 2003)."""
    library = load_library()
    near = 0
    for row in ROWS:
        theirs = published[row.text("food_id"), "208"]
        ours = energy_kcal(library[row.text("id")].composition)
        near += abs(ours - theirs) <= max(0.15 * theirs, 8)
    assert near / len(ROWS) > 0.9


def test_household_measures_are_the_published_weights():
    weights = {}
    for row in sr28("WEIGHT.txt"):
        weights.setdefault(row[0], []).append(float(row[4]) / float(row[2]))
    food = {row.text("id"): row.text("food_id") for row in ROWS}
    checked = 0
    for row in read_table("measures.csv"):
        if row.text("source").startswith("USDA SR28"):
            known = weights[food[row.text("ingredient")]]
            assert any(abs(row.number_in("grams") - grams) <= 0.02 * grams for grams in known), row.number
            checked += 1
    assert checked > 150
