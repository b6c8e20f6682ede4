"""From a printed label to composition, and what a label must refuse."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import Settings, analyse, load_library, read_document
from substrata.base.errors import LabelError
from substrata.base.uncertainty import Spread
from substrata.ingredients.labels.label_rounding import Interval, read_printed
from substrata.ingredients.labels.pack_document import read_lot, write_lot
from substrata.ingredients.labels.pack_reading import cut_normal, estimate, ingredient_of_lot, read_pack
from substrata.ingredients.pack import Lot
from substrata.ingredients.printed_label import Label
from tests.support.doughs import refusal_of

LIBRARY = load_library()
ALMOND = LIBRARY["almond-flour"]
FIGURES = {
    "energy_kcal": "160",
    "fat_g": "14",
    "saturates_g": "1",
    "carbohydrate_g": "6",
    "fibre_g": "3",
    "sugars_g": "1",
    "protein_g": "6",
}
LABEL = Label(style="us", per_g=28, serving_measure="1/4 cup", figures=FIGURES)
LOT = Lot(key="k", ingredient="almond-flour", name="Mill", label=LABEL)


def figure(label, nutrient, ingredient=ALMOND):
    return next(f for f in read_pack(label, ingredient) if f.nutrient == nutrient)


def test_a_cut_normal_is_the_mean_of_the_draws_that_fall_inside():
    """Against Monte Carlo."""
    draws = np.random.default_rng(7).normal(5.0, 2.0, 400_000)
    kept = draws[(draws > 4.5) & (draws < 7.0)]
    value, sd = cut_normal(5.0, 2.0, Interval(low=4.5, high=7.0))
    assert (value, sd) == (pytest.approx(kept.mean(), abs=0.01), pytest.approx(kept.std(), abs=0.01))


@given(st.floats(0, 100), st.floats(0, 20), st.floats(0, 90), st.floats(0, 10))
def test_an_estimate_lies_in_its_interval(mean, sd, low, width):
    interval = Interval(low=low, high=low + width)
    value, _ = estimate(Spread.around(mean, 1.645 * sd), interval)
    assert interval.low - 1e-6 <= value <= interval.high + 1e-6


def test_the_reference_pulls_towards_itself_and_the_less_the_further_it_lies():
    interval = Interval(low=20.0, high=24.0)
    above, far = (estimate(Spread.around(mean, 3.0), interval)[0] for mean in (25.0, 60.0))
    below = estimate(Spread.around(19.0, 3.0), interval)[0]
    assert below < 22 < above
    assert abs(far - 22) < abs(above - 22)


def test_every_labelled_figure_stays_inside_what_its_rounding_allows():
    for f in read_pack(LABEL, ALMOND):
        if f.origin == "label":
            assert f.bounds.low <= f.value <= f.bounds.high


def test_a_pack_is_narrower_than_its_reference():
    for nutrient in ("protein_g", "fat_g", "carbohydrate_g", "fibre_g"):
        assert figure(LABEL, nutrient).sd < figure(LABEL, nutrient).reference.sd


def test_a_european_carbohydrate_gets_its_fibre_back():
    eu = Label(
        style="eu",
        per_g=100,
        per_digit_g=0.0,
        figures={"carbohydrate_g": "8.0", "fibre_g": "10.0", "fat_g": "50", "protein_g": "21"},
    )
    assert figure(eu, "carbohydrate_g").value == pytest.approx(18.0, abs=0.4)  # "10.0" prints for 9.95 to 10.5


def test_fibre_left_off_a_european_label_is_the_references():
    eu = Label(style="eu", per_g=100, per_digit_g=0.0, figures={"carbohydrate_g": "8.0"})
    assert figure(eu, "carbohydrate_g").value == pytest.approx(8.0 + ALMOND.composition["fibre_g"], abs=0.3)


def test_salt_on_a_label_is_sodium_in_the_composition():
    eu = Label(style="eu", per_g=100, per_digit_g=0.0, figures={"salt_g": "1.5"})
    assert figure(eu, "sodium_mg", LIBRARY["gruyere"]).value == pytest.approx(600, rel=0.05)


def test_a_part_the_label_leaves_out_follows_its_whole():
    half_fat = Label(
        style="us", per_g=100, per_digit_g=0.0, figures={"fat_g": "25", "protein_g": "30", "carbohydrate_g": "25"}
    )
    ratio = figure(half_fat, "saturates_g").value / figure(half_fat, "fat_g").value
    assert ratio == pytest.approx(ALMOND.composition["saturates_g"] / ALMOND.composition["fat_g"])


def test_polyols_are_split_as_the_reference_is_and_taken_whole_where_erythritol_is_named():
    unnamed = Label(style="us", per_g=4, figures={"carbohydrate_g": "4", "polyols_g": "4"})
    assert figure(unnamed, "erythritol_g", LIBRARY["erythritol"]).value > 80
    assert figure(unnamed, "erythritol_g", LIBRARY["xylitol"]).value == 0
    named = replace(unnamed, figures={**unnamed.figures, "erythritol_g": "4"})
    assert figure(named, "polyols_g", LIBRARY["monk-fruit-blend"]).value < 1


def test_water_closes_the_hundred():
    composition = ingredient_of_lot(LOT, ALMOND).composition
    assert composition.closes_at == pytest.approx(100, abs=0.5)


def test_a_pack_brings_its_serving_as_a_measure_and_the_bakers_own_weighing_beats_it():
    assert ingredient_of_lot(LOT, ALMOND).measures["cup"].grams.value == pytest.approx(112)
    own = replace(LOT, measures={"cup": 105.0})
    assert ingredient_of_lot(own, ALMOND).measures["cup"].source == "weighed by the kitchen"


def test_a_pack_tightens_the_brackets_of_a_formula_that_uses_it():
    lines = [
        {"id": "a", "ingredient": "almond-flour", "grams": 200, "lot": "k"},
        {"id": "e", "ingredient": "egg", "grams": 100},
    ]
    document = {"name": "x", "form": {"kind": "bun", "pieces": 6}, "lines": lines}
    packed = analyse(read_document(document), LIBRARY.with_packs([ingredient_of_lot(LOT, ALMOND)]))
    plain = analyse(read_document(document), LIBRARY)
    width = lambda a: a.nutrition.piece.protein.high - a.nutrition.piece.protein.low  # noqa: E731
    assert width(packed) < width(plain)
    assert packed.lines[0].pack == "Mill"
    assert [w.code for w in plain.warnings].count("pack-unknown") == 1
    assert "pack-unknown" not in [w.code for w in packed.warnings]


def test_a_pack_of_another_ingredient_does_not_stand_in():
    library = LIBRARY.with_packs([ingredient_of_lot(LOT, ALMOND)])
    assert library.pack_or_ingredient("coconut-flour", "k").pack is None


@pytest.mark.parametrize("text", ["", "abc", "12 34", "<", "1/2", "-3", "1e3", "∞", "5 furlongs"])
def test_a_figure_that_is_none_is_refused(text):
    with pytest.raises(LabelError):
        read_printed(text, "fat_g")


@pytest.mark.parametrize(
    ("text", "number"), [("0,5", 0.5), ("<1 g", 1), ("less than 5mg", 0.005), ("120 mg", 0.12), (".5", 0.5), ("~3", 3)]
)
def test_figures_are_read_as_packs_print_them(text, number):
    assert read_printed(text, "fat_g").number == pytest.approx(number)


PACK = {
    "substrata_pack": 1, "ingredient": "almond-flour", "name": "Mill", "price": 8.5, "pack_g": 454.0, "usable": 0.9, "use_by": "2027-01-31",
    "label": {"style": "us", "per_g": 28, "figures": FIGURES}, "measures": {"cup": 108}, "capacity": 1.1, "certificates": ["gluten-free"],
    "contains": ["sesame"], "may_contain": ["milk"], "statement": "almonds", "colour": "", "notes": "ö",
}  # fmt: skip


def test_a_pack_document_survives_a_round_trip():
    lot = read_lot(PACK, "k")
    assert read_lot(write_lot(lot), "k") == lot
    assert lot.use_by == date(2027, 1, 31)
    assert lot.price_per_g == pytest.approx(8.5 / 454 / 0.9)


@pytest.mark.parametrize(
    ("change", "field"),
    [({"price": -1}, "price"), ({"price": float("nan")}, "price"), ({"pack_g": 0}, "pack_g"), ({"usable": 1.2}, "usable"), ({"name": "  "}, "name"),
     ({"name": "x" * 121}, "name"), ({"use_by": "31.1.2027"}, "use_by"), ({"certificates": ["tasty"]}, "certificates"), ({"contains": "milk"}, "contains"),
     ({"measures": {"bucket": 3}}, "measures"), ({"label": {"style": "uk", "per_g": 28}}, "label.style"), ({"label": {"style": "us", "per_g": 0}}, "label.per_g"),
     ({"label": {"style": "us", "per_g": 28, "figures": {"fat_g": "lots"}}}, "fat_g"), ({"label": []}, "label"), ({"notes": "\x00"}, "notes"),
     ({"substrata_pack": 2}, "substrata_pack"), ({"price": True}, "price")],
)  # fmt: skip
def test_a_pack_that_cannot_be_is_refused_at_its_field(change, field):
    with pytest.raises(LabelError) as refusal:
        read_lot(PACK | change, "k")
    assert refusal.value.field == field


@given(
    st.recursive(
        st.none() | st.booleans() | st.floats() | st.text(max_size=8),
        lambda x: st.lists(x, max_size=3) | st.dictionaries(st.sampled_from(sorted(PACK)), x, max_size=4),
    )
)
def test_any_document_is_read_or_refused_with_words(document):
    refusal = refusal_of(lambda: read_lot(document if isinstance(document, dict) else {"label": document}, "k"))
    assert refusal is None or refusal.what


def test_settings_do_not_change_what_a_pack_is():
    lines = [{"id": "a", "ingredient": "almond-flour", "grams": 100, "lot": "k"}]
    document = read_document({"name": "x", "form": {"kind": "bun", "pieces": 1}, "lines": lines})
    library = LIBRARY.with_packs([ingredient_of_lot(LOT, ALMOND)])
    us, total = (
        analyse(document, library, Settings(convention=c)).nutrition.piece.protein.value for c in ("us", "total")
    )
    assert us == total
