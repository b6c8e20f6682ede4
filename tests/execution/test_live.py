"""The live bake: readings move the window, the right way and by as much as they should."""

import numpy as np
import pytest

from substrata.base.errors import FormulaError
from substrata.execution import live_forecast as live
from substrata.execution.live_forecast import BakeReading, LiveBake
from substrata.process.baking.oven_questions import varied
from tests.execution.conftest import demo

# What a scale and a probe can tell whatever differs: the crumb or the middle decides. Where the first colour does, they tell of the
# oven; how soon a dough browns by itself they cannot, nor can an eye while it is pale: that is learned from bake to bake.
NAMES = ("Market rolls, egg-free", "Four-seed crispbread", "Pumpkin tin loaf", "Hazelnut caraway crackers")
BY_COLOUR = ("Celeriac flatbread", "Gouda-melt crust", "Broccoli wraps", "Mustard twists", "Spinach pockets")
CASES = {name: demo(name) for name in (*NAMES, *BY_COLOUR)}
BAKES = {name: LiveBake(dough.case, dough.formula.form) for name, dough in CASES.items()}


OVEN_ALONE = np.array([1.0, 0, 0, 0, 0])


def truths(name, count=40, differs=1.0):
    """Bakes that differ from the forecast as bakes do, and what they come to."""
    rng = np.random.default_rng(9)
    dough = CASES[name]
    for case in varied(dough.case, dough.formula.form, differs * rng.normal(size=(count, 5))):
        ran, ready = live._one(case)
        if ready:
            yield case, ran, ready


def seen(case, ran, minute, rng):
    """What a scale, a probe in the core and one in the air say."""
    return [
        BakeReading(
            minute=minute, kind="weight", value=float(np.interp(minute, ran.minutes, ran.loss)) + rng.normal() * 0.004
        ),
        BakeReading(
            minute=minute, kind="core", value=float(np.interp(minute, ran.minutes, ran.core_c)) + rng.normal() * 2
        ),
        BakeReading(minute=minute, kind="oven", value=case.oven_c + case.offset_k + rng.normal() * 3),
    ]


def at_half_time(name, **which):
    """Errors before anything is read and at half time, shares, and whether the truth is in the told range."""
    rng = np.random.default_rng(2)
    before, after, inside = [], [], []
    for case, ran, ready in truths(name, **which):
        told = BAKES[name].forecast(ready / 2, [*seen(case, ran, ready / 4, rng), *seen(case, ran, ready / 2, rng)])
        before.append(np.log(told.before_min / ready))
        after.append(np.log(told.ready_min / ready))
        inside.append(told.low_min <= ready <= told.high_min)
    return np.sqrt(np.mean(np.square(before))), np.sqrt(np.mean(np.square(after))), np.mean(inside)


@pytest.mark.parametrize("name", NAMES)
def test_at_half_time_the_error_is_halved(name):
    before, after, inside = at_half_time(name)
    assert after <= 0.55 * before
    assert inside >= 0.85


@pytest.mark.parametrize("name", BY_COLOUR)
def test_an_oven_that_is_off_is_found_out_at_half_time(name):
    before, after, inside = at_half_time(name, count=16, differs=OVEN_ALONE)
    assert after <= 0.45 * before
    assert inside >= 0.9


def test_a_hot_oven_is_done_sooner_and_a_cool_one_later():
    bake, dial = BAKES["Market rolls, egg-free"], CASES["Market rolls, egg-free"].case.oven_c
    hot, cool = (bake.forecast(5, [BakeReading(minute=5, kind="oven", value=dial + k)]) for k in (18, -18))
    assert hot.ready_min < hot.before_min < cool.ready_min
    assert hot.offset_k > 8
    assert cool.offset_k < -8


def test_more_weight_lost_than_forecast_is_done_sooner():
    bake, case = BAKES["Four-seed crispbread"], CASES["Four-seed crispbread"].case
    ran, _ = live._one(case)
    at = 8.0
    lost = float(np.interp(at, ran.minutes, ran.loss))
    more, less = (bake.forecast(at, [BakeReading(minute=at, kind="weight", value=lost + d)]) for d in (0.05, -0.05))
    assert more.ready_min < less.ready_min


def test_browner_than_forecast_is_done_sooner_where_colour_decides():
    dough = demo("Mustard twists")
    bake = LiveBake(dough.case, dough.formula.form)
    brown, pale = (bake.forecast(12, [BakeReading(minute=12, kind="colour", value=v)]) for v in (0.0, -2.0))
    assert brown.ready_min < pale.ready_min


def test_one_wrong_number_does_not_move_the_bake():
    bake, case = BAKES["Market rolls, egg-free"], CASES["Market rolls, egg-free"].case
    ran, _ = live._one(case)
    good = [BakeReading(minute=m, kind="core", value=float(np.interp(m, ran.minutes, ran.core_c))) for m in (6, 9, 12)]
    bad = [*good, BakeReading(minute=12, kind="weight", value=0.7)]
    plain, odd = bake.forecast(13, good), bake.forecast(13, bad)
    assert odd.odd == (3,)
    assert abs(odd.ready_min / plain.ready_min - 1) < 0.12


def test_nothing_seen_is_the_forecast_and_the_same_question_has_the_same_answer():
    bake = BAKES["Market rolls, egg-free"]
    told = bake.forecast(0.0)
    assert told.ready_min == pytest.approx(told.before_min)
    assert bake.forecast(0.0) == told
    assert "min left" in told.text


@pytest.mark.parametrize(
    "reading",
    [
        BakeReading(minute=3, kind="core", value=900),
        BakeReading(minute=-1, kind="core", value=60),
        BakeReading(minute=3, kind="mood", value=1),
    ],
)
def test_a_reading_that_cannot_be_meant_is_refused(reading):
    with pytest.raises(FormulaError):
        BAKES["Market rolls, egg-free"].forecast(4, [reading])
