"""Water activity against published solutions and foods, and how long a piece may be kept against the food code."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata.evaluation.dough import Dough
from substrata.evaluation.keeping import keeping
from substrata.formula.formula import Formula, Line
from substrata.nutrition.water_activity import solutes, water_activity_norrish, water_activity_ross
from tests.execution.conftest import LIBRARY

# Robinson & Stokes, Electrolyte Solutions (1959), appendix 8.3: NaCl in water at 25 °C, mol/kg → water activity.
BRINES = {0.5: 0.9836, 1.0: 0.9669, 2.0: 0.9316, 3.0: 0.8932}
# CRC Handbook, sucrose in water at 25 °C (Scatchard, Hamer & Wood 1938), mol/kg → water activity.
SYRUPS = {1.0: 0.9806, 2.0: 0.9581, 4.0: 0.9057}


def solute(nutrient):
    return next(s for s in solutes() if s.nutrient == nutrient)


@pytest.mark.parametrize(("nutrient", "table"), [("sodium_mg", BRINES), ("sugars_g", SYRUPS)])
def test_solutions_have_the_water_activity_of_the_tables(nutrient, table):
    matter = solute(nutrient)
    for molality, published in table.items():
        assert water_activity_norrish(matter, molality * matter.molar_mass, 1000.0) == pytest.approx(
            published, abs=0.005
        )


def dough(form="cracker", pieces=24, oven=170.0, moisture=None, **grams):
    lines = tuple(Line(id=key, ingredient=key.replace("_", "-"), grams=value) for key, value in grams.items())
    formula = Formula(name="Kept", form=form, pieces=pieces, lines=lines)
    return Dough(replace(formula, bake=replace(formula.bake, oven_c=oven, moisture_percent=moisture)), LIBRARY)


def kept(*args, **how):
    return keeping(dough(*args, **how).as_baked())


@pytest.mark.parametrize(
    "grams",
    [
        {"tuna": 150, "egg": 50, "almond_flour": 60, "salt": 2},
        {"smoked_salmon": 110, "egg": 45, "flax_meal": 70},
        {"ham": 130, "egg": 50, "coconut_flour": 25, "almond_flour": 40},
        {"ricotta": 150, "almond_flour": 110, "erythritol": 55, "egg": 50},
        {"zucchini": 180, "almond_flour": 60, "egg": 50, "parmesan": 40},
        {"lentils_boiled": 200, "egg": 50, "psyllium_powder": 8},
    ],
    ids=lambda grams: next(iter(grams)),
)
def test_what_is_moist_and_perishable_is_never_kept_at_room_temperature(grams):
    # FDA Food Code 2022, 3-501.16: meat, fish, cut vegetable and cooked pulses are held at 5 °C or below; cold storage chart: 3-4 days.
    keeping = kept(moisture=30.0, **grams)
    assert keeping.water_activity_high > 0.85
    assert (keeping.room_days, keeping.chill_within_hours) == (0, 2)
    assert keeping.fridge_days <= 4
    assert "at room temperature:" in keeping.text


def test_a_dry_cracker_keeps_for_weeks_and_a_moist_bun_for_the_day():
    cracker = kept(almond_flour=150, egg=40, salt=2)
    assert cracker.room_days == 14
    assert cracker.water_activity < 0.45  # crisp
    bun = kept("bun", 6, 177.0, almond_flour=150, psyllium_powder=20, egg=100, water=150, salt=4)
    # Handbooks give bread crumb .94-.97 (Fontana, Water Activity in Foods, 2007, appendix E); .88 is the line of the food code.
    assert bun.water_activity == pytest.approx(0.96, abs=0.03)
    assert (bun.room_days, bun.chill_within_hours) == (0, None)
    assert bun.fridge_days == 5


def test_a_fresh_topping_or_filling_decides_whatever_the_piece_is():
    dry = dough("cookie", 24, 160.0, almond_flour=180, butter=70, erythritol=50)
    topped = replace(
        dry.formula, lines=(*dry.formula.lines, Line(id="top", ingredient="cream-cheese", grams=90, role="topping"))
    )
    assert keeping(dry.as_baked()).room_days > 0
    assert keeping(Dough(topped, LIBRARY).as_baked()).room_days == 0


@given(
    moisture=st.floats(1, 45),
    more=st.floats(0, 10),
    fish=st.sampled_from([0, 0, 120]),
    egg=st.floats(20, 120),
)
def test_more_water_never_keeps_longer(moisture, more, fish, egg):
    grams = {"almond_flour": 150, "egg": egg, "erythritol": 30, "salt": 2, "smoked_salmon": fish}
    grams = {key: value for key, value in grams.items() if value}
    plain, wetter = (keeping(dough(moisture=water, **grams)) for water in (moisture, moisture + more))
    assert wetter.room_days <= plain.room_days
    assert wetter.water_activity >= plain.water_activity
    if fish and plain.water_activity_high > 0.85:
        assert plain.room_days == 0


@given(
    water=st.floats(1, 200),
    solids=st.floats(10, 200),
    solute=st.sampled_from([s.nutrient for s in solutes()]),
    units=st.floats(0, 60),
    less=st.floats(0, 1),
)
def test_less_salt_sugar_or_polyol_never_binds_more_water(water, solids, solute, units, less):
    unit = 1 / next(s for s in solutes() if s.nutrient == solute).grams_per_unit
    some, fewer = (water_activity_ross(water, solids, 0.12, {solute: units * unit * share}) for share in (1.0, less))
    assert fewer >= some - 1e-12
    assert 0 <= some <= 1


def test_a_line_that_is_not_counted_may_be_anything_that_spoils():
    dry = {"flax_meal": 80, "egg": 40, "salt": 2}
    assert kept(**dry).room_days > 0
    unsure = kept(unheard_of_fish=120, **dry)
    assert unsure.room_days == 0
    assert unsure.chill_within_hours == 2
    assert "unheard of fish" in unsure.why
    assert not unsure.freezer_months


def test_a_dry_store_without_a_weight_does_not_make_it_perishable():
    base = dough(flax_meal=80, egg=40)
    pinch = Line(id="pinch", ingredient="salt")
    salted = Dough(replace(base.formula, lines=(*base.formula.lines, pinch)), LIBRARY)
    assert salted.unweighed
    assert keeping(salted.as_baked()).room_days == kept(flax_meal=80, egg=40).room_days > 0
