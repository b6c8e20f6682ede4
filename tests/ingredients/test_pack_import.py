"""Panels from the clipboard and files of products."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import load_library
from substrata.base.errors import LabelError
from substrata.ingredients.labels.label_vocabulary import read_header
from substrata.ingredients.labels.pack_document import read_lot, write_lot
from substrata.ingredients.labels.panel_text import read_panel
from substrata.ingredients.labels.product_files import Mapped, guess, read_rows
from substrata.ingredients.labels.product_tables import read_file
from tests.support.doughs import refusal_of

LIBRARY = load_library()
US = """Nutrition Facts
12 servings per container
Serving size 2 Tbsp (14 g)
Amount per serving
Calories 60
% Daily Value*
Total Fat 2g 3%
Saturated Fat 1.5g 8%
Trans Fat 0g
Sodium 15mg 1%
Total Carbohydrate 9g 3%
Dietary Fiber 5g 18%
Total Sugars less than 1g
Includes 0g Added Sugars 0%
Protein 3g
Vitamin D 0mcg 0%
Iron 1.2mg 6%"""
EU = "Typical values per 100 g | Energy 2534 kJ / 613 kcal | Fat 52 g | of which saturates 4,1 g | Carbohydrate 7,2 g | of which sugars 4,9 g | Fibre 11 g | Protein 24 g | Salt <0,01 g"
GERMAN = "Nährwerte pro 100 g: Brennwert 1046 kJ (253 kcal) Fett 17 g davon gesättigte Fettsäuren 11 g Kohlenhydrate 1,5 g davon Zucker 1,0 g Eiweiß 24 g Salz 0,8 g"
FRENCH = "Valeurs pour 100 g\nMatières grasses 33 g\ndont acides gras saturés 19 g\nGlucides 0,5 g\ndont sucres 0,5 g\nProtéines 27 g\nSel 1,5 g"


def test_a_us_panel_is_read_line_by_line():
    read = read_panel(US)
    assert (read.style, read.per_g, read.serving_measure) == ("us", 14.0, "2 tbsp")
    assert read.figures == {
        "energy_kcal": "60", "fat_g": "2", "saturates_g": "1.5", "trans_g": "0", "sodium_mg": "15", "carbohydrate_g": "9", "fibre_g": "5",
        "sugars_g": "<1", "added_sugars_g": "0", "protein_g": "3", "vitamin_d_ug": "0", "iron_mg": "1.2",
    }  # fmt: skip


def test_a_panel_in_one_line_is_read():
    read = read_panel("Serving size 2 Tbsp (14 g) Total Carbohydrate 9 g, Dietary Fiber 5 g, Protein 3 g")
    assert (read.style, read.per_g, read.figures) == (
        "us",
        14.0,
        {"carbohydrate_g": "9", "fibre_g": "5", "protein_g": "3"},
    )


@pytest.mark.parametrize(
    ("text", "figures"),
    [
        (
            EU,
            {"energy_kj": "2534", "energy_kcal": "613", "carbohydrate_g": "7,2", "sugars_g": "4,9", "salt_g": "<0,01"},
        ),
        (GERMAN, {"energy_kcal": "253", "fat_g": "17", "saturates_g": "11", "protein_g": "24", "salt_g": "0,8"}),
        (FRENCH, {"fat_g": "33", "saturates_g": "19", "carbohydrate_g": "0,5", "protein_g": "27", "salt_g": "1,5"}),
    ],
    ids=["english", "german", "french"],
)
def test_a_european_panel_is_read_in_its_language(text, figures):
    read = read_panel(text)
    assert (read.style, read.per_g, read.per_digit_g) == ("eu", 100.0, 0.0)
    assert figures.items() <= read.figures.items()
    assert read.label().figures == read.figures


def test_a_panel_that_does_not_say_its_style_asks_for_it():
    read = read_panel("Carbohydrate 9 g Fibre 5 g Sodium 3 mg")
    with pytest.raises(LabelError):
        read_panel("Carbohydrate 9 g Protein 2 g").label()
    assert read.per_g is None
    assert read.notes


@pytest.mark.parametrize("text", ["", "hello there", "x" * 30_000, "fat", "0 0 0"])
def test_what_is_no_panel_is_refused(text):
    with pytest.raises(LabelError):
        read_panel(text)


@given(
    st.text(max_size=200)
    | st.from_regex(r"(fat|protein|salt|kcal|per|serving size|<|\d|,|\(|\)| |g){1,30}", fullmatch=True)
)
def test_any_text_is_read_or_refused(text):
    refusal = refusal_of(lambda: read_panel(text))
    assert refusal is None or refusal.what


@pytest.mark.parametrize(
    ("header", "field", "unit", "per_100"),
    [("Sodium (mg)", "sodium_mg", "mg", None), ("carbohydrates_100g", "carbohydrate_g", "", True), ("fatContent", "fat_g", "", None),
     ("energy-kcal_100g", "energy_kcal", "kcal", True), ("fiber_serving", "fibre_g", "", False), ("Protein g/100g", "protein_g", "g", True),
     ("product_name", "name", "", None), ("Net weight g", "pack_g", "g", None), ("colour", "", "", None)],
)  # fmt: skip
def test_headers_say_their_field_unit_and_basis(header, field, unit, per_100):
    read = read_header(header)
    assert (read.field, read.unit, read.per_100) == (field, unit, per_100)


CSV = """Product name,Serving Size,Calories,Total Fat (g),Total Carbohydrate (g),Dietary Fiber (g),Sodium (g),Protein (g),Price,Pack size,Allergens
Mill blanched almond flour,1/4 cup (28 g),160,14,6,3,0.01,6,$8.99,16 oz,"Almonds, en:sesame-seeds"
Mystery tonic,28 g,1,2,3,4,5,6,,,
Salted butter,14g,100,11,0,0,0.09,0,"4,5",454 g,Milk
"""


def rows(text, kind="csv", **change):
    table = read_file(text, kind)
    mapped = guess(table)
    return list(
        read_rows(
            table,
            Mapped(**{"fields": mapped.fields, "style": mapped.style, "per_100": mapped.per_100, **change}),
            LIBRARY,
        )
    )


def test_a_csv_is_read_by_its_headers_and_units_are_recognised():
    flour, tonic, butter = rows(CSV)
    assert (flour.lot.ingredient, flour.lot.label.style, flour.lot.label.per_g) == ("almond-flour", "us", 28.0)
    assert flour.lot.label.serving_measure == "1/4 cup"
    assert flour.lot.label.number("sodium_mg") == pytest.approx(10)
    assert flour.lot.price == pytest.approx(8.99)
    assert flour.lot.pack_g == pytest.approx(16 * 28.349523125)
    assert "nut:almond" in flour.lot.contains
    assert (butter.lot.ingredient, butter.lot.price, butter.lot.contains) == ("butter-salted", 4.5, frozenset({"milk"}))
    assert tonic.lot is None


def test_a_bad_row_is_told_by_its_number_and_leaves_the_others_alone():
    bad = [row for row in rows(CSV) if row.problem]
    assert [row.number for row in bad] == [3]
    assert bad[0].problem.line == "row 3"
    assert bad[0].problem.field == "ingredient"


@pytest.mark.parametrize("delimiter", [";", "\t", "|"])
def test_other_delimiters_and_a_byte_order_mark_do_not_matter(delimiter):
    text = "\ufeffname;kcal;Salz;Eiweiß".replace(";", delimiter) + "\nGouda;356;1,9;24".replace(";", delimiter)
    (row,) = rows(text)
    assert row.lot.label.style == "eu"
    assert row.lot.label.figures == {"energy_kcal": "356", "salt_g": "1,9", "protein_g": "24"}


def test_nested_json_is_read_by_what_its_keys_say():
    document = {
        "products": [
            {"product_name": "Hill coconut flour", "nutriments": {"energy-kcal_100g": 429, "carbohydrates_100g": 20.0, "fiber_100g": 40, "salt_100g": 0.2, "carbohydrates_serving": 3}},
        ]
    }  # fmt: skip
    (row,) = rows(json.dumps(document), "json")
    assert (row.lot.ingredient, row.lot.label.per_g, row.lot.label.figures["carbohydrate_g"]) == (
        "coconut-flour",
        100.0,
        "20.0",
    )


def test_the_nutrition_of_a_schema_org_product_is_read():
    """schema.org Product with NutritionInformation, an open vocabulary."""
    product = {
        "@type": "Product",
        "name": "Gouda slices",
        "nutrition": {
            "@type": "NutritionInformation",
            "calories": "100 calories",
            "fatContent": "8 g",
            "carbohydrateContent": "0 g",
            "proteinContent": "7 g",
            "servingSize": "1 slice (28 g)",
            "sodiumContent": "230 mg",
        },
    }
    (row,) = rows(json.dumps(product), "json")
    assert (row.lot.ingredient, row.lot.label.per_g, row.lot.label.number("sodium_mg")) == ("gouda", 28.0, 230.0)


def test_a_label_style_that_the_file_does_not_tell_must_be_chosen():
    text = "name,carbohydrate,protein\nGouda,2,24"
    assert rows(text)[0].problem.field == "style"
    assert rows(text, style="eu")[0].lot.label.style == "eu"


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("", "csv"),
        ("name\n", "csv"),
        ("{", "json"),
        ("[]", "json"),
        ('"x"', "json"),
        ("[" * 100_000, "json"),
        ('name\n"open', "csv"),
    ],
)
def test_a_file_that_holds_nothing_is_refused(text, kind):
    with pytest.raises(LabelError):
        read_file(text, kind)


def test_a_mapping_that_does_not_fit_is_refused():
    with pytest.raises(LabelError):
        list(read_rows(read_file(CSV, "csv"), Mapped(fields=("name",), style="us", per_100=True), LIBRARY))


@given(st.text(max_size=300), st.sampled_from(["csv", "json"]))
def test_any_file_is_read_or_refused(text, kind):
    refusal = refusal_of(lambda: rows(text, kind))
    assert refusal is None or refusal.what


def test_our_own_pack_documents_come_back_as_they_were():
    document = {
        "substrata_pack": 1, "ingredient": "psyllium-powder", "name": "Bay", "husk": "blond", "capacity": 11.2, "measures": {"tbsp": 8.5},
        "label": {"style": "us", "per_g": 5, "per_digit_g": 1, "serving_measure": "1 1/2 tsp", "figures": {"carbohydrate_g": "4", "fibre_g": "4"}},
    }  # fmt: skip
    (row,) = rows(json.dumps({"packs": [document]}), "json")
    assert write_lot(row.lot) == write_lot(read_lot(document, ""))
    (bad,) = rows(json.dumps([document | {"price": -1}]), "json")
    assert bad.problem.field == "price"
