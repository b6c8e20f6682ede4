"""Where a dough rests: the fridge makes it cold and stiff, a warm place makes its yeast work, the bench changes nothing."""

from dataclasses import replace
from itertools import pairwise
from math import exp, log

import numpy as np
import pytest

from substrata import analyse, load_library, read_document, write_document
from substrata.evaluation.dough import Dough
from substrata.execution.protocol import bake_protocol
from substrata.formula.formula import Formula, Line, Mix
from substrata.process.rheology.handling.resting import after, rest_places, yeast_minutes
from substrata.process.rheology.yeast_kinetics import relative_rate
from tests.reformulation.conftest import DEMO

LIBRARY = load_library()
COINS, ROLLS = DEMO["Lemon shortbread coins"], DEMO["Market rolls, egg-free"]


def resting(formula, **mix):
    return replace(formula, mix=replace(formula.mix, **mix))


def shaped(formula):
    return analyse(formula, LIBRARY).handling


def test_newtons_cooling_by_hand():
    """Worked example: after one time constant 1/e of the difference is left, after three 5 %."""
    degrees = after(np.array([0.0, 75.0, 225.0]), 26.0, 6.0)
    assert degrees == pytest.approx([26.0, 6 + 20 / exp(1), 6 + 20 * exp(-3)])
    assert after(np.array([0.0, 600.0]), 26.0, None) == pytest.approx([26.0, 26.0])


def test_on_the_bench_as_long_as_usual_is_what_it_was():
    usual = shaped(COINS)
    told = shaped(resting(COINS, rest_min=usual.rest_min, rest_in="bench"))
    assert told.at_shaping == usual.at_shaping
    assert told.minutes == usual.minutes


@pytest.mark.parametrize("name", ["Lemon shortbread coins", "Hazelnut caraway crackers", "Mustard twists"])
def test_the_fridge_makes_it_colder_and_stiffer_and_longer_more_so(name):
    told = [shaped(resting(DEMO[name], rest_min=minutes, rest_in="fridge")) for minutes in (15, 60, 240, 1440)]
    cold = [t.shaped_c for t in told]
    assert cold == sorted(cold, reverse=True)
    assert cold[-1] == pytest.approx(6.0, abs=0.1)
    stiff = [t.at_shaping.consistency for t in told]
    assert all(later >= earlier - 0.01 for earlier, later in pairwise(stiff))
    assert stiff[-1] > shaped(DEMO[name]).at_shaping.consistency


def test_butter_dough_from_the_fridge_goes_cold_into_the_oven_and_takes_longer():
    def minutes(formula):
        from substrata.evaluation.forecasts.bake_forecast import forecast_bake

        return forecast_bake(Dough(formula, LIBRARY), further=False).ready_min.best

    assert minutes(resting(COINS, rest_min=240, rest_in="fridge")) > minutes(COINS)


def test_a_chilled_cookie_may_be_cut_stiff_and_asks_for_no_more_yolk():
    """Common practice: rolls of cookie dough are cut from the fridge; cold melted-cheese dough cracks and is warmed again."""
    cold = analyse(resting(COINS, rest_min=600, rest_in="fridge"), LIBRARY)
    assert (cold.handling.target_high, cold.handling.fits) == ("stiff", True)
    assert "stiff after 10 h" in cold.handling.text
    assert not shaped(resting(DEMO["Mustard twists"], rest_min=600, rest_in="fridge")).fits


def yeasted(**mix):
    lines = [
        ("almond-flour", 150),
        ("flax-meal", 30),
        ("psyllium-powder", 20),
        ("water", 260),
        ("dry-yeast", 4),
        ("sugar", 12),
        ("salt", 4),
    ]
    return Formula(
        name="Raised", form="bun", pieces=6, mix=Mix(**mix),
        lines=tuple(Line(id=i, ingredient=i, grams=float(g), entered=f"{g} g") for i, g in lines),
    )  # fmt: skip


def lift(**mix):
    return next(b for b in analyse(yeasted(**mix), LIBRARY).brackets if b.key == "lift").estimate.value


def test_yeast_works_by_the_minutes_and_the_warmth_of_its_rest():
    assert lift(rest_min=60, rest_in="warm") > lift(rest_min=20, rest_in="warm") > lift()
    assert lift(rest_min=60, rest_in="warm") > lift(rest_min=60, rest_in="fridge")
    # Sugar is the end of it, however long it stands.
    assert lift(rest_min=1440, rest_in="warm") == pytest.approx(lift(rest_min=2880, rest_in="warm"))


def test_minutes_of_yeast_are_those_of_the_rate_at_30_degrees():
    """An hour held at 30 °C counts as an hour; a cold one as little (rate: Rosso, Lobry & Flandrois 1993)."""
    held = yeast_minutes(yeasted(rest_min=60, rest_in="bench"), 30.0) - yeast_minutes(yeasted(), 30.0)
    assert held == pytest.approx(60.0)
    cold = yeast_minutes(yeasted(rest_min=600, rest_in="fridge"), 6.0) - yeast_minutes(yeasted(), 6.0)
    assert cold == pytest.approx(600 * relative_rate(6.0) / relative_rate(30.0), rel=1e-6)
    assert cold < 60


def test_the_kitchens_own_fridge_counts_where_its_temperature_was_told():
    """As it is set on the Prep station, where cold cheese and milk already go by it."""
    chilled = resting(COINS, rest_min=1440, rest_in="fridge")
    own = replace(chilled, prep={**chilled.prep, "fridge_c": 3})
    assert shaped(own).shaped_c == pytest.approx(3, abs=0.1)
    assert shaped(own).at_shaping.consistency >= shaped(chilled).at_shaping.consistency
    assert shaped(replace(COINS, prep={"fridge_c": 3})).at_shaping == shaped(COINS).at_shaping


def test_places_that_chill_or_warm_stand_where_the_study_of_foods_has_them():
    """A fridge at or below 5 to 8 °C (Codex and most local rules), proofing at 26 to 38 °C (common practice)."""
    places = rest_places()
    assert places["bench"].degrees is None
    assert 2 <= places["fridge"].degrees <= 8
    assert 26 <= places["warm"].degrees <= 38


def test_the_run_says_where_and_how_long():
    step = next(
        s for s in bake_protocol(Dough(resting(COINS, rest_min=90, rest_in="fridge"), LIBRARY)).steps if s.id == "rest"
    )
    assert (step.minutes, step.text) == (90, "Let the dough rest in the fridge, wrapped")
    proof = next(s for s in bake_protocol(Dough(yeasted(), LIBRARY)).steps if s.id == "proof")
    assert proof.minutes == 30
    assert not [s for s in bake_protocol(Dough(ROLLS, LIBRARY)).steps if s.id == "proof"]


def test_a_rest_survives_the_document_and_names_its_difference():
    told = read_document(write_document(resting(ROLLS, rest_min=45, rest_in="warm")))
    assert (told.mix.rest_min, told.mix.rest_in) == (45, "warm")


def test_the_curve_of_minutes_follows_the_place():
    cold = shaped(resting(COINS, rest_min=20, rest_in="fridge")).minutes
    start, end = cold[0], cold[-1]
    assert end.temperature_c < start.temperature_c
    assert log((end.temperature_c - 6) / (start.temperature_c - 6)) == pytest.approx(-end.minutes / 75, rel=1e-6)
