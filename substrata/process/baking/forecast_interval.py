"""A forecast with its range: a dozen bakes beside the usual one, and what the model itself misses."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from math import exp, hypot

import numpy as np

from substrata.base.uncertainty import SDS_IN_HALF_90
from substrata.ingredients.library import Floats
from substrata.process.baking.bake_case import BakeCase
from substrata.process.baking.doneness import Doneness
from substrata.process.baking.oven_questions import many, varied
from substrata.process.baking.simulation.oven_constants import oven_number

DRAWS = 12


@dataclass(frozen=True, kw_only=True)
class Between:
    """A forecast with its range of nine bakes in ten."""

    low: float
    best: float
    high: float


def ready_between(case: BakeCase, form: str, done: Doneness) -> Between | None:
    """When it is done, with its range; None when that cannot be told."""
    return between_minutes(done.ready, [d.ready for d in many(varied(case, form, design()))])


@cache
def design() -> Floats:
    """Twelve draws at one standard deviation either side, shape (DRAWS, 5).

    The design of Plackett & Burman (1946): every two columns are orthogonal, so a dozen bakes tell the variance of all.

    Returns:
        Draws in standard deviations, shape (DRAWS, 5).
    """
    row = np.array([1, 1, -1, 1, 1, 1, -1, -1, -1, 1, -1], dtype=float)
    return np.vstack([np.roll(row, k) for k in range(11)] + [-np.ones(11)])[:, :5]


def between_minutes(best: float | None, drawn: list[float | None]) -> Between | None:
    """Return the best with the draws' spread and the model's own error: a log-normal's 90 %, so that it is longer upwards."""
    known = [d for d in drawn if d is not None and d > 0]
    if not best or len(known) < DRAWS // 2:
        return None
    sd = hypot(float(np.std(np.log(known))), oven_number("model_error"))
    factor = exp(SDS_IN_HALF_90 * sd)
    return Between(low=best / factor, best=best, high=best * factor)
