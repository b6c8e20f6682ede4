"""The bench before mixing: microwave, cooling, water, yeast, gels, fats, premix; against practice and by hand."""

import json
from math import exp

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import Dough, load_library, prep, read_document
from substrata.base.settings import Settings
from substrata.base.tables.table_reader import read_table
from substrata.cli.main import main
from substrata.formula.batch.weighed_lines import weigh_formula
from substrata.process.preparation.dough_cooling import ball_mm, cooling, minutes_to, time_constant_s
from substrata.process.preparation.frying_fats import frying_fats
from substrata.process.preparation.gel_filling import gels
from substrata.process.preparation.microwave import Warmed, bursts, joules_to, seconds_to, warmed_by
from substrata.process.preparation.water_temperature import water_for
from substrata.process.preparation.yeast_activation import waking
from substrata.process.rheology.dough_temperature import dough_heat
from substrata.process.rheology.yeast_kinetics import relative_rate
from tests.support.doughs import document

LIBRARY = load_library()
# Mozzarella, half water and a fifth fat; specific heat by Choi & Okos 2.8 J/(g K).
CHEESE = Warmed(grams=226.0, j_per_k=226 * 2.85, fat_g=226 * 0.20)
STIFF = Warmed(grams=100.0, j_per_k=100 * 2.8, fat_g=12.0)
HEAT_PER_M3 = 3.0e6  # J/(m3 K) of a dough of half water
DOUGHNUT = document(
    "doughnut", 8, almond_flour=230, egg=150, psyllium_powder=10, water=30, dry_yeast=1, baking_powder=4
)
CRUST = document("thin-crust", 8, mozzarella=160, cream_cheese=62, egg=50, almond_flour=85)


def test_heat_by_hand():
    """m·c·ΔT and 80 J for each gram of fat that melts between 20 and 40 °C."""
    assert joules_to(Warmed(grams=100, j_per_k=300, fat_g=20), 10, 60) == pytest.approx(300 * 50 + 20 * 80)
    assert joules_to(Warmed(grams=100, j_per_k=300, fat_g=20), 45, 60) == pytest.approx(300 * 15)
    assert seconds_to(STIFF, 45, 60, 900) == pytest.approx(280 * 15 / (0.55 * 900))


def test_cheese_melts_in_the_time_that_practice_takes():
    """Common practice: 226 g from the fridge need 80 to 95 s at 900 W, in bursts of 30 s."""
    plan = bursts(CHEESE, 5, 62, watts=900, burst_s=30)
    assert 78 <= plan.seconds <= 97
    assert [b.seconds for b in plan.bursts[:-1]] == [30, 30]
    assert sum(b.seconds for b in plan.bursts) == pytest.approx(plan.seconds)
    assert plan.bursts[-1].temperature_c == pytest.approx(62, abs=0.1)
    assert plan.low_s < plan.seconds < plan.high_s


def test_fifteen_seconds_warm_a_piece_and_hardly_a_lump():
    """Common practice: 100 g of stiff dough gain 17 to 27 K, a lump of 450 g 4 to 6 K."""
    joules = 0.55 * 900 * 15
    assert 17 <= warmed_by(STIFF, 38, joules) - 38 <= 27
    lump = Warmed(grams=450, j_per_k=450 * 2.8, fat_g=54)
    assert 4 <= warmed_by(lump, 38, joules) - 38 <= 6


@given(start=st.floats(0, 60), more=st.floats(0, 40), fat=st.floats(0, 60))
def test_warming_is_the_inverse_of_the_heat(start, more, fat):
    matter = Warmed(grams=200, j_per_k=560, fat_g=fat)
    assert warmed_by(matter, start, joules_to(matter, start, start + more)) == pytest.approx(start + more, abs=0.01)


@pytest.mark.parametrize(
    ("shape", "mm", "surface", "low", "high"),
    [("ball", ball_mm(100, 1.05), "wood", 38, 54), ("sheet", 6, "wood", 12, 18), ("sheet", 3, "wood", 6.5, 9.5), ("sheet", 3, "stone", 2, 4)],
)  # fmt: skip
def test_a_dough_cools_as_practice_finds(shape, mm, surface, low, high):
    """Common practice, 60 to 35 °C in a room of 22 °C: ball of 100 g 45 min, 6 mm sheet 15, 3 mm 8, on stone 3."""
    tau = time_constant_s(shape, mm, surface, HEAT_PER_M3)
    assert low <= minutes_to(60, 22, 35, tau) <= high


def test_the_clock_knows_a_warm_room_and_a_dough_that_is_past_it():
    def clock(**said):
        return cooling("sheet", 4, "wood", HEAT_PER_M3, **{"start_c": 55, "room_c": 21, "until_c": 38, **said})

    assert clock(room_c=40).minutes is None
    assert clock(start_c=30).minutes == 0
    usual = clock()
    assert usual.low_min < usual.minutes < usual.high_min
    assert clock(room_c=28).minutes > usual.minutes
    tau = time_constant_s("sheet", 4, "wood", HEAT_PER_M3)
    assert usual.curve[8].temperature_c == pytest.approx(21 + 34 * exp(-60 * usual.curve[8].minutes / tau))


def batch_of(made):
    return weigh_formula(read_document(made), LIBRARY, Settings())[0]


@pytest.mark.parametrize("wanted", [24.0, 30.0, 36.0])
def test_water_of_the_told_temperature_gives_the_wanted_dough(wanted):
    made = document("bun", 6, almond_flour=150, psyllium_powder=20, water=240, egg=100)
    heat = dough_heat(batch_of(made), melted=False, room_c=21)
    found = water_for(heat, "water", wanted, room_c=21, has_egg=True)
    made["lines"][2]["temperature_c"] = found.water_c
    assert dough_heat(batch_of(made), melted=False, room_c=21).temperature_c == pytest.approx(wanted, abs=0.01)


def test_water_with_egg_stays_below_where_egg_sets():
    made = document("bun", 6, almond_flour=150, water=40, egg=100)
    heat = dough_heat(batch_of(made), melted=False, room_c=21)
    found = water_for(heat, "water", 45, room_c=21, has_egg=True)
    assert not found.within
    assert found.limit_c == 50
    assert found.dough_at_limit_c < 45


def test_the_dough_temperature_is_a_balance_by_hand():
    """100 g water at 50 °C and 100 g oil at 21 °C: 4.18 and 2.04 J/(g K), less a tenth of what is above the room."""
    made = document("bun", 1, water=100, olive_oil=100)
    made["lines"][0]["temperature_c"] = 50
    mixed = (418 * 50 + 204 * 21) / (418 + 204)
    assert dough_heat(batch_of(made), melted=False, room_c=21).temperature_c == pytest.approx(
        mixed - 0.1 * (mixed - 21), abs=0.2
    )


def test_yeast_likes_hand_warm_water_and_dies_in_hot():
    """Common practice: 38 to 43 °C, a teaspoon of sugar, ten minutes to foam."""
    assert waking(7, 40, 10, 4).foams
    assert 2 <= waking(7, 40, 10, 4).foam_min <= 10
    assert not waking(7, 15, 10, 4).foams
    assert not waking(7, 60, 10, 4).foams
    assert "kills" in waking(7, 60, 10, 4).text
    assert "teaspoon of sugar" in waking(7, 40, 10, 0).text
    assert relative_rate(30) > relative_rate(20) > relative_rate(8)


def test_yeast_gives_the_gas_of_its_sugar_at_most():
    """Stoichiometry: 1 g sucrose gives .514 g CO2, .547 L/g at 20 °C."""
    assert waking(50, 35, 60, 2).gas_ml == pytest.approx(2 * 0.514 * 575, rel=0.02)
    assert waking(50, 35, 60, 2).limited_by_sugar


def test_gels_by_the_water_and_fats_by_their_smoke():
    """Common practice: konjac about 1 % of the water; fry well below the smoke point."""
    konjac = next(g for g in gels(200) if g.ingredient == "konjac")
    assert konjac.grams == pytest.approx(2)
    assert not next(g for g in gels(200, 5) if g.ingredient == "konjac").within
    names = {row.text("ingredient"): LIBRARY[row.text("ingredient")].name for row in read_table("frying_fats.csv")}
    verdicts = {f.ingredient: f.verdict for f in frying_fats(178, names)}
    assert verdicts["avocado-oil"] == verdicts["sunflower-oil"] == "good"
    assert verdicts["butter"] == verdicts["walnut-oil"] == "smokes"
    order = ["good", "near", "smokes"]
    assert [f.verdict for f in frying_fats(178, names)] == sorted(verdicts.values(), key=order.index)


def kinds(made):
    return [card.kind for card in prep(Dough(read_document(made), LIBRARY)).tasks]


def test_cards_come_in_the_order_of_work_and_only_where_needed():
    assert kinds(CRUST) == ["melt", "mix", "bench", "rewarm"]
    assert kinds(DOUGHNUT) == ["yeast", "premix", "water", "mix", "gel", "fry"]
    assert kinds({**CRUST, "mix": {"cheese": "cold"}}) == ["mix"]
    assert kinds({**DOUGHNUT, "bake": {"fried": "baked"}})[-1] == "gel"
    assert kinds(document("bun", 1, egg=50)) == []


def test_what_is_set_changes_the_card():
    def text(kind, **choices):
        plan = prep(Dough(read_document({**CRUST, "prep": choices}), LIBRARY))
        return next(card.text for card in plan.tasks if card.kind == kind)

    assert text("melt", microwave_watts=450) != text("melt")
    assert "stays workable" in text("bench", room_c=44)
    assert text("bench", room_c=12, cool_on="stone") != text("bench", room_c=12)
    assert text("bench", room_c=12, melt_to_c=85) != text("bench", room_c=12)


def test_a_premix_holds_the_dry_lines_times_the_batches():
    plan = prep(Dough(read_document({**DOUGHNUT, "prep": {"batches": 4}}), LIBRARY))
    mix = next(card.premix for card in plan.tasks if card.premix)
    assert {p.line for p in mix.parts} == {"almond-flour", "psyllium-powder", "dry-yeast", "baking-powder"}
    assert mix.whole_g == pytest.approx(4 * (230 + 10 + 1 + 4))
    assert sum(p.share for p in mix.parts) == pytest.approx(1)


def test_the_command_line_prepares(tmp_path, capsys):
    file = tmp_path / "f.substrata.json"
    file.write_text(json.dumps(DOUGHNUT), encoding="utf8")
    assert main(["prep", str(file)]) == 0
    assert [c["kind"] for c in json.loads(capsys.readouterr().out)["tasks"]] == kinds(DOUGHNUT)
    assert main(["prep", str(file), "--table"]) == 0
    assert "1. Activate the yeast" in capsys.readouterr().out
    file.write_text(json.dumps({**DOUGHNUT, "prep": {"room_c": 300}}), encoding="utf8")
    assert main(["prep", str(file)]) == 2
    assert "5 to 45" in capsys.readouterr().err
