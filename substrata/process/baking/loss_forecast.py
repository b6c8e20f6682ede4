"""How much weight a bake loses, hot from the oven and when it is cool, with its range: the one figure that every station tells."""

from __future__ import annotations

from dataclasses import dataclass
from math import exp, hypot

import numpy as np

from substrata.base.uncertainty import SDS_IN_HALF_90
from substrata.process.baking.bake_case import BakeCase
from substrata.process.baking.bake_simulation import run
from substrata.process.baking.doneness import Doneness, doneness
from substrata.process.baking.forecast_interval import Between
from substrata.process.baking.oven_questions import COARSE
from substrata.process.baking.simulation.bake_curves import Ran
from substrata.process.baking.simulation.oven_constants import oven_number, oven_numbers

_KEEP_S = 30.0


@dataclass(frozen=True, kw_only=True)
class LossForecast:
    """Shares of the weight that went into the oven."""

    hot: Between  # when it is taken out: what a scale beside the oven shows
    cool: Between  # after it has given off its steam: what is eaten, packed and declared


def forecast_loss(case: BakeCase, *, water_sd: float, most: float) -> LossForecast | None:
    """Forecast the loss of a bake that is taken out when it is done.

    The range joins doubts that are independent: the minutes, by what decides (``loss_sd_…``) and by the model's own error, read on
    the curve of the loss; and for what is baked dry, how much water was in it and how dry it gets.

    Args:
        case: what is baked.
        water_sd: of its water before the oven, share of the weight.
        most: share that it can lose.

    Returns:
        The loss, a normal's 90 %; None where the bake comes to no end.
    """
    error = oven_number("model_error")
    ran = run(case, rest=True, beyond=exp(error) + 0.01, cells=COARSE, keep_s=_KEEP_S)
    out = next((mark.start_min for mark in ran.marks if mark.kind == "rest"), float(ran.minutes[-1]))
    bake = ran.before(out)
    rim = run(case.rim(), cells=COARSE, keep_s=_KEEP_S, beyond=1.0) if case.form.face == "rim" else None
    done = doneness(case, bake, rim)
    if done.ready is None or done.loss is None:
        return None
    sds = [_by_minutes(done, bake, error)]
    if case.form.asks_dry:
        dry = oven_numbers()["dry_water"]
        sds += [water_sd, (1 - done.loss) * (dry.high - dry.low) / 2 / SDS_IN_HALF_90 / 100]
    half = SDS_IN_HALF_90 * hypot(*sds)
    # Steam goes off at its own pace: a minute more or less in the oven hardly changes how much.
    steam = float(ran.loss[-1] - bake.loss[-1]) if case.form.cools_min > 0 else 0.0
    return LossForecast(hot=_within(done.loss, half, most), cool=_within(done.loss + steam, half, most))


def _by_minutes(done: Doneness, bake: Ran, error: float) -> float:
    """Return the sd of the loss by that of the minutes; none where the baker takes it out by its weight."""
    if done.decides == "weight" or done.ready is None:
        return 0.0
    spread = hypot(error, oven_number(f"loss_sd_{done.decides}"))
    early, late = np.interp([done.ready * exp(-error), done.ready * exp(error)], bake.minutes, bake.loss)
    return float(late - early) / (2 * error) * spread


def _within(best: float, half: float, most: float) -> Between:
    low, middle, high = (min(max(share, 0.0), most) for share in (best - half, best, best + half))
    return Between(low=low, best=middle, high=high)
