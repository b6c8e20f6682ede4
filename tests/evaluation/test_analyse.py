import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import Settings, analyse, load_library, read_document
from substrata.evaluation.analysis.target_states import ruler
from substrata.formula.form_table import Window, forms
from tests.support.doughs import document

LIBRARY = load_library()
WEIGHTS = st.dictionaries(
    st.sampled_from(
        [
            "almond_flour",
            "coconut_flour",
            "psyllium_powder",
            "egg",
            "mozzarella",
            "celeriac",
            "water",
            "butter",
            "baking_powder",
            "salt",
            "erythritol",
            "xylitol",
            "dry_yeast",
            "cider_vinegar",
            "baking_soda",
        ]
    ),
    st.floats(0.1, 400),
    min_size=1,
    max_size=8,
)


def of(made, **choices):
    return analyse(read_document(made), LIBRARY, Settings(**choices))


@given(WEIGHTS, st.sampled_from(list(forms())), st.integers(1, 40))
def test_pieces_make_the_whole_and_doubling_changes_no_share(weights, form, pieces):
    made = document(form, pieces, **weights)
    twice = document(form, pieces * 2, **{key: 2 * grams for key, grams in weights.items()})
    one, two = of(made), of(twice)
    whole = sum(LIBRARY[line["ingredient"]].composition["protein_g"] * line["grams"] / 100 for line in made["lines"])
    assert one.nutrition.piece.protein.value * pieces == pytest.approx(whole)
    assert two.totals.dough_g == pytest.approx(2 * one.totals.dough_g)
    for a, b in zip(one.brackets, two.brackets, strict=True):
        if a.key != "lift" or "dry_yeast" not in weights:
            assert b.estimate.value == pytest.approx(a.estimate.value), a.key
    for a, b in zip(one.lines, two.lines, strict=True):
        assert b.bakers_percent == (None if a.bakers_percent is None else pytest.approx(a.bakers_percent))


@given(WEIGHTS, st.sampled_from(list(forms())))
def test_every_figure_lies_in_its_range(weights, form):
    for bracket in of(document(form, 6, **weights)).brackets:
        estimate = bracket.estimate
        assert 0 <= estimate.low <= estimate.value <= estimate.high


def test_conventions_order_total_above_the_others():
    made = document(coconut_flour=50, erythritol=30, xylitol=20, allulose=10, egg=50)
    n = of(made).nutrition
    assert n.net_carbs_total.value > n.net_carbs_eu.value > n.net_carbs_us.value
    assert of(made, polyol_rule="energy").nutrition.net_carbs_us.value > n.net_carbs_us.value


def test_a_line_that_cannot_be_weighed_is_left_out_and_the_rest_is_kept():
    made = document(almond_flour=100, egg=50)
    made["lines"] += [
        {"id": "x", "ingredient": "moon-dust", "grams": 5},
        {"id": "n", "ingredient": "salt", "grams": -3},
        {"id": "h", "ingredient": "salt", "grams": 9e9},
        {"id": "t", "ingredient": "salt", "entered": "some", "grams": None},
        {"id": "e", "ingredient": "salt", "grams": None},
    ]
    found = of(made)
    assert {p.line: p.field for p in found.problems} == {
        "x": "ingredient",
        "n": "grams",
        "h": "grams",
        "t": "entered",
        "e": "entered",
    }
    assert all(p.what and p.remedy for p in found.problems)
    assert {p.name for p in found.problems if p.line != "x"} == {"Salt, fine"}
    assert found.totals.dough_g == 150


def test_an_empty_bowl_and_a_bowl_without_base_say_so():
    empty = of(document())
    assert "no ingredients yet" in str(empty.summary[0].text).lower()
    assert {w.code for w in empty.warnings} == {"empty"}
    no_base = of(document(egg=100, water=20))
    assert "no-base" in {w.code for w in no_base.warnings}
    assert all(line.bakers_percent is None for line in no_base.lines)


@pytest.mark.parametrize(
    ("lines", "code"),
    [
        ({"almond_flour": 100, "water": 200, "psyllium_powder": 30}, "psyllium-over-cap"),
        ({"almond_flour": 100, "water": 200, "psyllium_powder": 26}, "psyllium-near-cap"),
        ({"almond_flour": 100, "egg": 50, "xanthan": 4}, "xanthan-over-cap"),
        ({"chickpea_flour": 200, "egg": 50}, "pulse-carbs"),
        ({"tapioca_starch": 60, "egg": 50, "almond_flour": 50}, "starch-carbs"),
        ({"oat_fibre": 30, "egg": 100}, "oat"),
        ({"xylitol": 20, "almond_flour": 100}, "xylitol"),
        ({"psyllium_powder": 5, "almond_flour": 100}, "gum-liquid"),
        ({"erythritol": 40, "almond_flour": 100}, "polyols"),
        ({"egg": 50, "almond_flour": 100}, "raw-egg"),
        ({"ground_beef": 300, "egg": 50}, "raw-meat"),
        ({"pumpkin_seeds": 50, "egg": 50}, "pumpkin-seed-data"),
        ({"mozzarella_preshredded": 100, "almond_flour": 50}, "anticaking"),
        ({"coconut_flour": 100, "water": 200}, "largest-doubt"),
    ],
)
def test_a_trap_of_the_trade_is_named(judged, lines, code):
    found = judged("bun", **lines)
    assert code in {w.code for w in found.warnings}
    assert code not in {w.code for w in judged("bun", water=100).warnings}


@pytest.mark.parametrize("low_in_starch", ["peanut_butter", "peanut_flour", "tofu"])
def test_a_pulse_with_little_starch_is_no_trap(judged, low_in_starch):
    # FoodData Central: net carbohydrate is about a seventh of the dry matter of peanuts, two fifths of that of lentils.
    codes = {w.code for w in judged("cookie", **{low_in_starch: 200}, egg=50).warnings}
    assert "pulse-carbs" not in codes


def test_a_psyllium_loaf_without_egg_is_told_that_it_may_sink(judged):
    egg_free = judged("free-loaf", almond_flour=200, psyllium_powder=25, water=300)
    assert "heat-set-low" in {w.code for w in egg_free.warnings}
    assert "heat-set-low" not in {
        w.code for w in judged("free-loaf", almond_flour=200, egg_white=200, psyllium_powder=10).warnings
    }


def test_a_target_takes_the_place_of_the_house_window(judged, bracket):
    found = bracket(judged(targets={"salt": {"low": 3, "high": 4}}, almond_flour=100, egg=50, salt=2), "salt")
    assert (found.window_source, found.state) == ("target", "low")


def test_the_sentence_speaks_of_the_brackets_that_ask(judged, bracket):
    wet = judged(almond_flour=100, psyllium_powder=10, egg=50, water=400, salt=6)
    phrase = next(p for p in wet.summary if p.bracket == "water_fill")
    assert phrase.tone == "act"
    assert phrase.text == bracket(wet, "water_fill").note


def test_allergens_follow_both_lists(judged):
    found = {
        a.name: a.regions
        for a in judged(celeriac=100, almond_flour=50, coconut_flour=20, lupin_flour=10, parmesan=5).allergens
    }
    assert found == {"celery": ("eu",), "lupin": ("eu",), "milk": ("us", "eu"), "nuts (almond)": ("us", "eu")}


def test_a_typed_measure_gives_the_weight_and_its_spread():
    made = document()
    made["lines"] = [{"id": "a", "ingredient": "almond-flour", "entered": "1 cup", "grams": None}]
    line = of(made).lines[0]
    assert line.grams == pytest.approx(106)
    made["lines"][0]["grams"] = 212
    wide = of(made).lines[0]
    assert wide.grams_high - wide.grams_low == pytest.approx(2 * (line.grams_high - line.grams_low))


@pytest.mark.parametrize(
    "window", [Window(low=0.3, high=0.62), Window(high=4), Window(low=8), Window(), Window(low=0, high=0)]
)
def test_a_ruler_holds_its_window_and_has_readable_ticks(window):
    found = ruler(window, 10.0)
    assert found.low < found.high
    assert 3 <= len(found.ticks) <= 12
    assert all(found.low - 1e-9 <= t <= found.high + 1e-9 for t in found.ticks)
    for side in (window.low, window.high):
        assert side is None or found.low <= side <= found.high


def test_twice_the_butter_of_a_shortbread_is_told_as_greasy(judged):
    """Common practice: a quarter of a rich dough is butter."""
    lines = {"almond_flour": 155, "coconut_flour": 30, "erythritol": 55, "egg": 30}
    usual, twice = ({w.code for w in judged("cookie", 16, **lines, butter=grams).warnings} for grams in (88, 176))
    assert "greasy" in twice - usual
