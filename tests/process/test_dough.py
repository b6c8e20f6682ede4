"""Sign tests, limits and the everyday doughs that the house windows were drawn from (common practice)."""

from itertools import pairwise
from math import exp

import pytest

from substrata import Settings, analyse, load_library, read_document
from substrata.process.rheology.leavening import co2_per_gram_soda, expected_rise, gas_ml_per_gram_co2
from substrata.process.rheology.water_fill import held_water
from tests.support.doughs import document


@pytest.mark.parametrize(
    ("absorber", "more"),
    [("almond_flour", 20), ("coconut_flour", 10), ("psyllium_powder", 3), ("flax_meal", 10), ("oat_fibre", 5)],
)
def test_more_absorber_lowers_the_water_fill_and_more_water_raises_it(judged, absorber, more):
    base = {
        "almond_flour": 100,
        "coconut_flour": 20,
        "psyllium_powder": 10,
        "flax_meal": 10,
        "oat_fibre": 5,
        "water": 150,
    }
    before = judged(**base).water.fill.value
    assert judged(**base | {absorber: base[absorber] + more}).water.fill.value < before
    assert judged(**base | {"water": 170}).water.fill.value > before


@pytest.mark.parametrize("binder", ["egg", "egg_white", "psyllium_powder", "xanthan", "whey_isolate", "gelatin"])
def test_more_binder_binds_more(judged, binder):
    base = {
        "almond_flour": 200,
        "egg": 20,
        "egg_white": 20,
        "psyllium_powder": 5,
        "xanthan": 1,
        "whey_isolate": 5,
        "gelatin": 2,
        "water": 80,
    }
    assert judged(**base | {binder: base[binder] * 1.5}).binder.load.value > judged(**base).binder.load.value


def test_egg_sets_psyllium_sets_in_part_and_xanthan_never(judged):
    share = [
        judged(almond_flour=100, water=50, **{b: 5}).binder.heat_set.value
        for b in ("egg", "psyllium_powder", "xanthan")
    ]
    assert share == sorted(share, reverse=True)
    assert share[0] == 1
    assert share[2] == 0


def test_water_is_conserved_and_the_limits_hold():
    for available in (0.0, 1e-6, 50.0, 1e6):
        for demand in (0.0, 1e-6, 50.0, 1e6):
            held = held_water(available, demand)
            assert 0 <= held <= min(available, demand)
    assert held_water(1e6, 50.0) == pytest.approx(50, rel=1e-4)
    assert held_water(50.0, 1e6) == pytest.approx(50, rel=1e-4)


@pytest.mark.parametrize(
    ("form", "lines", "low", "high"),
    [
        ("cracker", {"almond_flour": 224, "egg": 50}, 0.12, 0.35),
        ("tin-loaf", {"egg": 280, "coconut_flour": 80, "butter": 100}, 0.62, 0.95),
        (
            "bun",
            {"coconut_flour": 128, "sunflower_flour": 56, "psyllium_powder": 28, "flax_meal": 24, "water": 580},
            0.45,
            0.80,
        ),
    ],
)
def test_everyday_doughs_drink_as_their_form_wants(judged, form, lines, low, high):
    assert low <= judged(form, **lines).water.fill.value <= high


@pytest.mark.parametrize(
    ("form", "lines", "low", "high"),
    [
        ("cracker", {"almond_flour": 224, "egg": 50}, 0.3, 1.5),
        ("thin-crust", {"mozzarella": 160, "cream_cheese": 62, "egg": 92, "coconut_flour": 36}, 4, 10),
        ("tin-loaf", {"egg": 280, "coconut_flour": 80, "butter": 100}, 2, 5),
    ],
)
def test_everyday_doughs_are_bound_as_their_form_wants(judged, form, lines, low, high):
    assert low <= judged(form, **lines).binder.load.value <= high


def test_seven_grams_of_psyllium_stand_for_one_egg(judged):
    """Common practice: 5 to 7 g of psyllium powder for one egg."""
    egg = judged(almond_flour=200, egg=50).binder.load.value
    assert judged(almond_flour=200, psyllium_powder=7).binder.load.value >= egg * 0.95
    assert judged(almond_flour=200, psyllium_powder=5).binder.load.value <= egg


def test_a_cheese_dough_is_judged_as_one(judged, bracket):
    found = judged(mozzarella=160, cream_cheese=62, egg=50, almond_flour=80)
    assert found.binder.matrix.name == "cheese-based dough"
    assert bracket(found, "water_fill").state == "in"
    assert judged(mozzarella=40, egg=50, almond_flour=200, water=40).binder.matrix.name == ""


@pytest.mark.parametrize("line", ["mozzarella", "cauliflower_boiled", "egg", "whey_isolate"])
def test_no_gram_makes_it_another_dough(judged, line):
    """A window moves by less than 5 % when a line moves by 2 %: nothing is decided by a threshold."""
    rest = {"almond_flour": 120, "egg": 60, "water": 60, "psyllium_powder": 6}
    grams = [12 * 1.02**step for step in range(160)]
    windows = [judged(**(rest | {line: g})).binder.matrix for g in grams]
    for before, after in pairwise(windows):
        for one, other in ((before.window, after.window), (before.water_fill, after.water_fill)):
            assert 0.95 < other.low / one.low < 1.05
            assert 0.95 < other.high / one.high < 1.05
    assert windows[0].window != windows[-1].window


def test_a_vegetable_is_wanted_squeezed_and_salt_wanted_in_bread(judged, bracket):
    """Common practice: unsqueezed courgette floods its crust; a soft note of the list counts; sweets need no salt."""
    crust = {"egg": 100, "almond_flour": 80, "salt": 3}
    codes = {w.code for w in judged(zucchini=300, **crust).warnings}
    assert "not-squeezed" in codes
    assert "not-squeezed" not in {w.code for w in judged(zucchini=40, **crust).warnings}
    assert bracket(judged("bun", almond_flour=200, egg=30, psyllium_powder=15, water=150), "salt").state == "low"
    assert bracket(judged("cookie", almond_flour=200, butter=80, egg=30), "salt").state == "in"
    assert "nothing-binds" in {w.code for w in judged("wrap", cauliflower_boiled=300, salt=3).warnings}


def test_a_window_missed_by_a_little_is_unusual_and_by_much_it_fails(judged, bracket):
    def state(water):
        return bracket(
            judged("bun", almond_flour=150, psyllium_powder=20, egg_white=60, water=water), "water_fill"
        ).state

    assert [state(water) for water in (20, 170, 420)] == ["low", "in", "high"]
    seen = list(dict.fromkeys(state(water) for water in range(20, 430, 5)))
    assert seen == ["low", "under", "in", "over", "high"]


def test_carbon_dioxide_by_the_gas_law_and_by_stoichiometry():
    """Handbook: 1 g CO₂ is .547 L at 20 °C and .696 L at 100 °C; 84.01 g NaHCO₃ give 44.01 g CO₂."""
    assert gas_ml_per_gram_co2(20) == pytest.approx(547, rel=0.002)
    assert gas_ml_per_gram_co2(100) == pytest.approx(696, rel=0.002)
    assert co2_per_gram_soda() == pytest.approx(44.01 / 84.01, rel=1e-3)


def test_baking_powder_gives_at_least_the_standard_twelve_per_cent(judged):
    """The trade standard asks for 12 % available CO₂ at least."""
    found = judged(almond_flour=100, egg=50, baking_powder=10).lift
    assert found.gas_ml >= 10 * 0.12 * gas_ml_per_gram_co2(100)


def test_soda_needs_acid_and_fifteen_grams_of_vinegar_meet_one_gram(judged):
    """15 g of 5 % acetic acid neutralise 1.04 g of sodium bicarbonate: 15 · .05 / 60.05 · 84.01."""
    assert pytest.approx(1.05, abs=0.01) == 15 * 0.05 / 60.05 * 84.01
    bare = judged(almond_flour=100, egg=50, baking_soda=2)
    met = judged(almond_flour=100, egg=50, baking_soda=2, cider_vinegar=30)
    assert bare.lift.gas_ml == 0
    assert bare.lift.soda_excess_g == 2
    assert met.lift.soda_excess_g == pytest.approx(0, abs=0.1)
    assert "soda-unneutralised" in {w.code for w in bare.warnings} - {w.code for w in met.warnings}


def test_yeast_gives_gas_by_sugar_or_by_time_whichever_is_less(judged):
    dough = {"bamboo_fibre": 60, "egg": 50, "dry_yeast": 5, "water": 100}
    none, little, much = (judged(**dough, sugar=s).lift.gas_ml for s in (0, 0.2, 20))
    assert none == 0
    assert little == pytest.approx(0.2 * 0.514 * gas_ml_per_gram_co2(100), rel=0.01)
    by_time = 0.3 * 0.020 * 44.01 * 0.5 * gas_ml_per_gram_co2(100)
    assert judged(**dough | {"dry_yeast": 0.3}, sugar=20).lift.gas_ml == pytest.approx(by_time, rel=0.02)
    # And no more than a dough without gluten holds until it is baked: it about doubles (common practice).
    whole = judged(**dough, sugar=20).lift
    assert much == pytest.approx(1.2 * whole.dough_ml * gas_ml_per_gram_co2(100) / gas_ml_per_gram_co2(30), rel=0.03)
    assert "yeast-without-sugar" in {w.code for w in judged(**dough).warnings}


def test_yeast_eats_a_flours_own_sugar_and_dies_in_hot_cheese(judged):
    """Almond and coconut flour bring sugars of their own; yeast dies from about 50 degC (from memory)."""
    assert judged(coconut_flour=100, egg=50, dry_yeast=5, water=100).lift.gas_ml > 0
    crust = {"mozzarella": 170, "almond_flour": 85, "egg": 50, "dry_yeast": 5}
    told = [
        analyse(read_document(document("thin-crust", 2, **crust) | {"mix": {"temperature_c": c}}), load_library())
        for c in (35, 52, 60)
    ]
    gas = [one.lift.gas_ml for one in told]
    assert gas[0] > gas[1] > gas[2] == 0
    assert [("hot-yeast" in {w.code for w in one.warnings}) for one in told] == [False, True, True]


def test_fresh_yeast_does_the_work_of_a_third_of_its_weight_in_dry(judged):
    """Common practice: 3 g fresh for 1 g dry."""
    dough = {"almond_flour": 100, "egg": 50, "water": 60, "sugar": 10}
    dry, fresh = judged(**dough, dry_yeast=1), judged(**dough, fresh_yeast=3)
    assert fresh.lift.gas_ml == pytest.approx(dry.lift.gas_ml, rel=0.02)


def test_gas_that_nothing_holds_does_not_raise():
    assert expected_rise(0, 5) == 1
    assert expected_rise(4, 1) > expected_rise(1, 1) > 1
    # However much gas, the largest void the binder allows caps the rise.
    assert expected_rise(4, 1e6) == pytest.approx(1 / (1 - 0.55 * (1 - exp(-2))))


def test_cheese_salt_counts_and_leavening_sodium_does_not_taste(judged):
    plain = judged(almond_flour=150, egg=50).salt.value
    assert judged(almond_flour=150, egg=50, parmesan=50).salt.value > plain + 0.4
    with_powder = judged(almond_flour=150, egg=50, baking_powder=10)
    assert with_powder.salt.value < plain
    assert with_powder.nutrition.piece.sodium.value > judged(almond_flour=150, egg=50).nutrition.piece.sodium.value + 50


def test_sweetness_is_in_sucrose(judged):
    assert judged(almond_flour=90, sugar=10).sweetness.value == pytest.approx(10)
    assert judged(almond_flour=90, erythritol=10).sweetness.value == pytest.approx(6.5)


def test_a_low_salt_kitchen_wants_little_salt_and_no_more(judged):
    dough = {"almond_flour": 100, "egg": 50, "water": 30}

    def state(settings, salt):
        rows = judged(settings=settings, **dough, salt=salt).brackets
        return next(b.state for b in rows if b.key == "salt")

    assert state(None, 0.1) == "low"
    assert state(Settings(low_salt=True), 0.1) == "in"
    assert state(None, 2.5) == "in"
    assert state(Settings(low_salt=True), 2.5) in ("over", "high")
