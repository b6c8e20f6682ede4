"""Rounding and panels against the laws, case by case."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import Settings, load_library, read_document
from substrata.ingredients.labels.label_rounding import bands, printed, stands_for
from substrata.ingredients.printed_label import FIGURES, Label
from substrata.nutrition.nutrition_panel import daily_percent, reference_amount_g
from substrata.publishing.card_panels import card

LIBRARY = load_library()

# 21 CFR 101.9(c)(1)-(7): amount -> what is printed. Cases at, just under and just over every bound of the text.
US_CASES = [
    *[("energy_kcal", a, p) for a, p in ((0, "0"), (4.9, "0"), (5, "5"), (7.4, "5"), (7.5, "10"), (47.4, "45"), (50, "50"), (54.9, "50"), (55, "60"), (244, "240"))],
    *[("fat_g", a, p) for a, p in ((0.49, "0"), (0.5, "0.5"), (0.74, "0.5"), (0.75, "1"), (4.74, "4.5"), (4.9, "5"), (5.4, "5"), (5.5, "6"))],
    *[("saturates_g", a, p) for a, p in ((0.3, "0"), (1.2, "1"), (1.3, "1.5"))],
    *[("cholesterol_mg", a, p) for a, p in ((1.9, "0"), (2, "<5"), (4.9, "<5"), (7.6, "10"), (32, "30"))],
    *[("sodium_mg", a, p) for a, p in ((4.9, "0"), (5, "5"), (138, "140"), (140, "140"), (143, "140"), (146, "150"))],
    *[(f, a, p) for f in ("carbohydrate_g", "fibre_g", "sugars_g", "protein_g", "polyols_g") for a, p in ((0.49, "0"), (0.5, "<1"), (0.99, "<1"), (1, "1"), (1.49, "1"), (1.5, "2"))],
]  # fmt: skip
# Commission guidance document on tolerances (December 2012), table 4.
EU_CASES = [
    *[("energy_kcal", a, p) for a, p in ((0.4, "0"), (252.5, "253"))], ("energy_kj", 1046.4, "1046"),
    *[(f, a, p) for f in ("fat_g", "carbohydrate_g", "sugars_g", "protein_g", "fibre_g") for a, p in ((0.5, "<0.5"), (0.51, "0.5"), (9.94, "9.9"), (10.4, "10"), (10.5, "11"))],
    *[("saturates_g", a, p) for a, p in ((0.1, "<0.1"), (0.11, "0.1"), (4.04, "4.0"), (12.4, "12"))],
    *[("salt_g", a, p) for a, p in ((0.0125, "<0.01"), (0.013, "0.01"), (0.994, "0.99"), (1.24, "1.2"))],
]  # fmt: skip


@pytest.mark.parametrize(("figure", "amount", "text"), US_CASES)
def test_the_united_states_round_so(figure, amount, text):
    assert printed("us", figure, amount) == text


@pytest.mark.parametrize(("figure", "amount", "text"), EU_CASES)
def test_europe_rounds_so(figure, amount, text):
    assert printed("eu", figure, amount) == text


ROUNDED = [(style, figure) for style in ("us", "eu") for figure in FIGURES if bands(style, figure)]


@given(st.sampled_from(ROUNDED), st.floats(0, 2_000, allow_nan=False) | st.floats(0, 2, allow_nan=False))
def test_what_is_printed_can_stand_for_what_was_there(rule, amount):
    style, figure = rule
    interval = stands_for(style, figure, printed(style, figure, amount))
    assert interval.low - 1e-9 <= amount <= interval.high + 1e-9


@given(
    st.sampled_from(["us", "eu"]),
    st.floats(4, 100),
    st.fixed_dictionaries({k: st.floats(0, 90) for k in ("protein_g", "fat_g", "carbohydrate_g", "sodium_mg")}),
)
def test_a_food_is_inside_what_its_own_label_says_per_100_g(style, serving, food):
    """Any food, rounded by the rule to a serving whose grams are rounded too."""
    grams = 100.0 if style == "eu" else round(serving)
    figures = {
        key: printed(style, key, amount * (serving if style == "us" else 100) / 100) for key, amount in food.items()
    }
    label = Label(style=style, per_g=grams, per_digit_g=0.0 if style == "eu" else 1.0, figures=figures)
    for key, amount in food.items():
        interval = label.per_100g(key)
        assert interval.low - 1e-6 <= amount <= interval.high + 1e-6, (key, figures[key])


def test_a_zero_on_a_small_serving_hides_nearly_ten_grams():
    """Common practice: "0 g" in 5 g can be .49 g, almost 10 g per 100 g (here with the serving's own rounding)."""
    label = Label(style="us", per_g=5, per_digit_g=0.0, figures={"carbohydrate_g": "0"})
    assert label.hides("carbohydrate_g")
    assert label.per_100g("carbohydrate_g").high == pytest.approx(10.0)


@pytest.mark.parametrize(
    ("figure", "amount", "percent"),
    # 21 CFR 101.9(c)(9) and (c)(8)(iv): the daily values; minerals by 2, 5 and 10 per cent.
    [("fat_g", 78, "100 %"), ("saturates_g", 4, "20 %"), ("cholesterol_mg", 30, "10 %"), ("sodium_mg", 470, "20 %"), ("carbohydrate_g", 46, "17 %"),
     ("fibre_g", 7, "25 %"), ("added_sugars_g", 12, "24 %"), ("vitamin_d_ug", 2, "10 %"), ("calcium_mg", 260, "20 %"), ("iron_mg", 0.6, "4 %"),
     ("potassium_mg", 240, "6 %"), ("calcium_mg", 800, "60 %"), ("protein_g", 20, ""), ("sugars_g", 9, "")],
)  # fmt: skip
def test_daily_values_are_those_of_the_rule(figure, amount, percent):
    assert daily_percent(figure, amount) == percent


def test_reference_amounts_are_those_of_the_rule():
    """21 CFR 101.12(b): bread 50 g, tortillas 55, snack crackers 30, cookies 30, doughnuts 55, filled things 140."""
    forms = ("bun", "wrap", "cracker", "cookie", "doughnut", "pocket")
    assert [reference_amount_g(f) for f in forms] == [50, 55, 30, 30, 55, 140]


def made(lines, **form):
    document = {
        "name": "x",
        "form": {"kind": "bun", "pieces": 1, "serving_pieces": 1} | form,
        "lines": [{"id": k, "ingredient": k, "grams": g} for k, g in lines.items()],
    }
    return card(read_document(document), LIBRARY, Settings())


def row(panel, key):
    return next(r for r in panel.rows if r.key == key)


def test_energy_of_the_us_panel_by_hand():
    """Method C by hand, with SR28 erythritol, psyllium and olive oil: 4/4/9, soluble fibre 2, insoluble 0, erythritol 0."""
    made_card = made({"olive-oil": 50, "psyllium-powder": 20, "erythritol": 10})
    oil, husk, sweet = (LIBRARY[k].composition for k in ("olive-oil", "psyllium-powder", "erythritol"))
    by_hand = 50 * oil["fat_g"] * 9 / 100
    by_hand += 20 / 100 * (husk["protein_g"] * 4 + husk["fat_g"] * 9 + (husk["carbohydrate_g"] - husk["fibre_g"]) * 4)
    by_hand += 20 / 100 * husk["fibre_g"] * 0.75 * 2
    by_hand += 10 / 100 * (sweet["carbohydrate_g"] - sweet["erythritol_g"]) * 4
    assert row(made_card.us_panel, "energy_kcal").cells[0].estimate.value == pytest.approx(by_hand)


def test_energy_of_the_eu_panel_by_hand():
    """Annex XIV by hand: xylitol 2.4 kcal or 10 kJ, butter fat 9 or 37, its protein and lactose 4 or 17 a gram."""
    portion = row(made({"xylitol": 20, "butter": 30}).eu_panel, "energy_kj").cells[1]
    butter, sweet = LIBRARY["butter"].composition, LIBRARY["xylitol"].composition
    kcal = 0.3 * (9 * butter["fat_g"] + 4 * (butter["protein_g"] + butter["carbohydrate_g"]))
    kcal += 0.2 * (2.4 * sweet["polyols_g"] + 4 * (sweet["carbohydrate_g"] - sweet["polyols_g"]))
    assert portion.estimate.value == pytest.approx(kcal)
    kj = float(portion.text.split(" kJ")[0])
    assert kj == pytest.approx(
        0.3 * (37 * butter["fat_g"] + 17 * (butter["protein_g"] + butter["carbohydrate_g"]))
        + 0.2 * 10 * sweet["polyols_g"],
        abs=1,
    )


def test_an_olive_oil_label_reads_as_every_bottle_does():
    """A tablespoon of olive oil, 14 g: 120 calories, 14 g fat, 2 g saturates, no sodium, no carbohydrate (common label)."""
    panel = made({"olive-oil": 14}).us_panel
    said = {r.key: r.cells[0].text for r in panel.rows}
    assert said["energy_kcal"] in ("120", "130")  # 14 g of pure fat are 126 kcal: bottles print either
    assert (said["fat_g"], said["saturates_g"], said["sodium_mg"], said["carbohydrate_g"]) == (
        "14 g",
        "2 g",
        "0 mg",
        "0 g",
    )


def test_europe_counts_no_fibre_in_carbohydrate_and_the_united_states_do():
    panels = made({"coconut-flour": 100})
    composition = LIBRARY["coconut-flour"].composition
    assert row(panels.us_panel, "carbohydrate_g").cells[0].text == f"{composition['carbohydrate_g']:.0f} g"
    inside = composition["carbohydrate_g"] - composition["fibre_g"]
    assert row(panels.eu_panel, "carbohydrate_g").cells[1].text == f"{inside:.0f} g"


def test_salt_is_two_and_a_half_times_sodium():
    """EU 1169/2011 Annex I."""
    portion = row(made({"salt": 4}).eu_panel, "salt_g").cells[1]
    assert portion.estimate.value == pytest.approx(4 * LIBRARY["salt"].composition["sodium_mg"] / 100 * 2.5 / 1000)


def test_polyols_are_named_only_where_there_are_some():
    keys = lambda c: [r.key for r in (*c.us_panel.rows, *c.eu_panel.rows)]  # noqa: E731
    assert keys(made({"erythritol": 20})).count("polyols_g") == 2
    assert "polyols_g" not in keys(made({"almond-flour": 20}))


def test_the_panel_proposes_the_serving_nearest_the_reference_amount():
    notes = made({"almond-flour": 150, "water": 150}, kind="cracker", pieces=30).us_panel.notes
    # 144 g dry matter dried to 5 % water weigh 151 g: six pieces of 5 g make 30 g.
    assert any("30 g. A serving of 6 pieces" in note for note in notes)
