"""Drying vegetables: what leaves as steam and as juice, against common practice and by hand."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import Settings, load_library, read_document
from substrata.base.errors import FormulaError
from substrata.formula.batch.weighed_lines import weigh_formula
from substrata.ingredients.vegetable_drying import DryingStep, dry, dry_to, drying_numbers, start_for
from substrata.process.preparation.vegetable_stages import vegetable_drying
from tests.support.doughs import document

LIBRARY = load_library()
CAULIFLOWER = LIBRARY["cauliflower"].composition
STEAM = (DryingStep(act="cook", minutes=6, water_g=60), DryingStep(act="squeeze", times=3))
STEPS = st.lists(
    st.one_of(
        st.builds(DryingStep, act=st.just("salt"), minutes=st.floats(0, 60), salt_g=st.floats(0, 20)),
        st.builds(DryingStep, act=st.sampled_from(["microwave", "pan"]), minutes=st.floats(0, 8), watts=st.floats(300, 1200)),
        st.builds(DryingStep, act=st.just("cook"), minutes=st.floats(0, 10), water_g=st.floats(0, 100)),
        st.builds(DryingStep, act=st.just("squeeze"), times=st.integers(1, 4)),
    ),
    max_size=5,
).map(tuple)  # fmt: skip


def test_a_steamed_and_squeezed_head_weighs_what_bakers_find():
    """Common practice: 600 to 700 g riced and 60 g water, steamed 5 to 7 min, give about 237 g."""
    assert dry(CAULIFLOWER, STEAM, 650).end_g == pytest.approx(237, abs=15)


@pytest.mark.parametrize(("minutes", "gone"), [(6, 95), (7, 119), (8, 143)])
def test_a_pan_of_900_net_watts_dries_350_grams_as_practice_says(minutes, gone):
    """Common practice. By hand: 900 W less what warms 350 g to the boil, over 2257 J/g."""
    found = dry(CAULIFLOWER, (DryingStep(act="pan", minutes=minutes, watts=900),), 350)
    assert 350 - found.end_g == pytest.approx(gone, abs=6)
    by_hand = (900 * 60 * minutes - 350 * 4.0 * (100 - 15)) / 2257
    assert found.stages[-1].steam_g == pytest.approx(by_hand, rel=0.04)


@pytest.mark.parametrize(
    ("steps", "low", "high"),
    [
        ((), 0.10, 0.20),
        ((DryingStep(act="salt", minutes=30, salt_g=6),), 0.25, 0.35),
        ((DryingStep(act="microwave", minutes=5, watts=900),), 0.34, 0.45),
    ],
    ids=["raw", "salted", "microwaved"],
)
def test_one_squeeze_gives_the_share_that_practice_gives(steps, low, high):
    before = dry(CAULIFLOWER, steps, 500)
    after = dry(CAULIFLOWER, (*steps, DryingStep(act="squeeze")), 500)
    water = before.stages[-1].water_g
    assert low <= (water - after.stages[-1].water_g) / water <= high


@given(steps=STEPS, start=st.floats(20, 3000))
def test_mass_is_conserved_and_the_composition_closes(steps, start):
    found = dry(CAULIFLOWER, steps, start)
    added = sum(s.salt_g if s.act == "salt" else s.water_g if s.act == "cook" else 0 for s in steps)
    left = sum(s.steam_g + s.juice_g for s in found.stages)
    closes = CAULIFLOWER.closes_at / 100
    assert found.end_g + left == pytest.approx(start * closes + added, rel=1e-9)
    assert found.composition.closes_at == pytest.approx(100)
    assert min(found.composition.values) >= 0
    assert found.low_g - 1e-9 <= found.end_g <= found.high_g + 1e-9


def test_squeezing_takes_sugars_salt_and_potassium_and_a_pan_keeps_them():
    squeezed, panned = (
        dry(CAULIFLOWER, STEAM, 500),
        dry(CAULIFLOWER, (DryingStep(act="pan", minutes=8, watts=900),), 500),
    )
    assert squeezed.sugars_lost_g > 0.5 * CAULIFLOWER["sugars_g"] * 5
    assert squeezed.potassium_lost_mg > 0
    assert (panned.sugars_lost_g, panned.potassium_lost_mg) == (0, 0)
    salted = dry(CAULIFLOWER, (DryingStep(act="salt", minutes=30, salt_g=6), DryingStep(act="squeeze")), 500)
    assert salted.composition["sodium_mg"] > 3 * CAULIFLOWER["sodium_mg"]


def test_boiled_and_drained_vegetables_of_sr28_hold_less_carbohydrate_as_squeezed_ones_do():
    """SR28 rows of the raw and the boiled vegetable: net carbohydrate per 100 g dry matter falls by a third or more."""

    def net_of_dry(c):
        return (c["carbohydrate_g"] - c["fibre_g"]) / (100 - c["water_g"])

    for raw, boiled in (("cauliflower", "cauliflower-boiled"), ("celeriac", "celeriac-boiled")):
        fallen = net_of_dry(LIBRARY[boiled].composition) / net_of_dry(LIBRARY[raw].composition)
        squeezed = net_of_dry(dry(LIBRARY[raw].composition, STEAM, 500).composition) / net_of_dry(
            LIBRARY[raw].composition
        )
        assert squeezed == pytest.approx(fallen, abs=0.25)


@pytest.mark.parametrize("end", [50.0, 237.0, 2000.0])
@pytest.mark.parametrize("steps", [STEAM, (DryingStep(act="pan", minutes=5, watts=900),)], ids=["steam", "pan"])
def test_the_start_for_a_weight_gives_that_weight(steps, end):
    assert dry(CAULIFLOWER, steps, start_for(CAULIFLOWER, steps, end)).end_g == pytest.approx(end, rel=1e-3)


def test_the_scale_tells_how_well_it_was_squeezed():
    usual = dry(CAULIFLOWER, STEAM, 650)
    wet, tight = (dry_to(CAULIFLOWER, STEAM, 650, usual.end_g + more) for more in (60, -40))
    assert wet.effort < 1 < tight.effort
    assert wet.composition["water_g"] > usual.composition["water_g"] > tight.composition["water_g"]
    assert wet.end_g == pytest.approx(usual.end_g + 60, abs=0.1)


@pytest.mark.parametrize("end", [10.0, 900.0])
def test_a_weight_that_cannot_be_is_refused_with_what_can(end):
    with pytest.raises(FormulaError) as refusal:
        dry_to(CAULIFLOWER, STEAM, 650, end)
    assert "after these steps" in refusal.value.allowed


def prepared(prep, grams=240):
    made = document("thin-crust", 4, cauliflower=grams, almond_flour=60, egg=50)
    made["lines"][0]["prep"] = prep
    return weigh_formula(read_document(made), LIBRARY, Settings())


SQUEEZE = {"steps": [{"act": "microwave", "minutes": 5, "watts": 900}, {"act": "squeeze", "times": 2}]}


def test_a_dried_line_is_another_matter_in_the_dough():
    (raw, _), (dried, _) = prepared(None), prepared(SQUEEZE)
    assert dried.nutrient("water_g")[0][0] < raw.nutrient("water_g")[0][0]
    assert dried.nutrient("fibre_g")[0][0] > raw.nutrient("fibre_g")[0][0]
    assert dried.behaviour("capacity")[0][0] < raw.behaviour("capacity")[0][0]
    assert dried.grams[0] == raw.grams[0] == 240


def test_a_weighed_line_that_cannot_be_is_left_out_and_named():
    batch, problems = prepared({**SQUEEZE, "start_g": 300, "weighed": True}, grams=290)
    assert [p.line for p in problems] == ["cauliflower"]
    assert len(batch.lines) == 2


def test_the_card_compares_the_schools_and_tells_the_scale():
    batch, _ = prepared({**SQUEEZE, "start_g": 500, "weighed": True}, grams=215)
    card = vegetable_drying(batch.lines[0])
    assert "on the scale from 500 g raw" in card.text
    assert [s.key for s in card.schools if s.chosen] == ["microwave"]
    by_key = {s.key: s for s in card.schools}
    assert by_key["steam"].start_g > by_key["raw"].start_g > card.target_g
    assert by_key["pan"].sugars_lost_g == 0 < by_key["steam"].sugars_lost_g
    assert drying_numbers()["expressed_raw"].value < drying_numbers()["expressed_cooked"].value
