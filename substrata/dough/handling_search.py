"""Roots of a dough's handling: when it is ready, when it turns brittle, and what one line would have to be."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from substrata.dough.consistency import Method, handling, typical_draw
from substrata.formula.weighed import Batch
from substrata.pantry.library import Floats, Library

_ROUNDS, _FANNED = 3, 9  # each round narrows a bracket to an eighth
_MOST_ADDED = 0.4  # of the dough


@dataclass(frozen=True, kw_only=True)
class Bowl:
    """A dough as it is mixed."""

    batch: Batch
    method: Method
    temperature_c: float
    rest_min: float

    def over_minutes(self, minutes: Floats) -> Floats:
        """Typical consistency at resting times, shape (points,)."""
        warm = np.full(len(minutes), self.temperature_c)
        found: Floats = handling(self.batch, self.method, minutes, warm, draws=typical_draw()).consistency[0]
        return found

    def over_degrees(self, degrees: Floats) -> Floats:
        """Typical consistency at temperatures, shape (points,)."""
        rested = np.full(len(degrees), self.rest_min)
        found: Floats = handling(self.batch, self.method, rested, degrees, draws=typical_draw()).consistency[0]
        return found


def crossing(curve: Callable[[Floats], Floats], at: Floats, values: Floats, wanted: float) -> float | None:
    """Where a curve first reaches a value from below, by narrowing the bracket; None when it does not.

    Args:
        curve: the values at points, shape (points,) to (points,).
        at: points already known, rising, shape (k,).
        values: the curve there, shape (k,).
        wanted: value to reach.
    """
    there = np.flatnonzero(values >= wanted)
    if not len(there):
        return None
    first = int(there[0])
    if first == 0:
        return float(at[0])
    low, high = float(at[first - 1]), float(at[first])
    for _ in range(_ROUNDS):
        points = np.linspace(low, high, _FANNED)
        over = np.flatnonzero(curve(points) >= wanted)
        k = max(int(over[0]), 1) if len(over) else _FANNED - 1
        low, high = float(points[k - 1]), float(points[k])
    return (low + high) / 2


def grams_for(bowl: Bowl, row: int, *, read: Callable[[Batch], float], wanted: float) -> float | None:
    """New weight of one line at which a reading of the dough is as wanted; None when no sensible weight does it.

    Args:
        bowl: the dough.
        row: the line to change.
        read: the reading of a batch.
        wanted: its value.
    """
    present = float(bowl.batch.grams[row])
    start = read(bowl.batch)

    def off(grams: float) -> float:
        weights = bowl.batch.grams.copy()
        weights[row] = grams
        return read(bowl.batch.with_grams(weights)) - wanted

    most = present + _MOST_ADDED * bowl.batch.dough_g
    for low, high in ((present, most), (0.0, present)):
        if high <= low:
            continue
        first, last = (
            (start - wanted if low == present else off(low)),
            (start - wanted if high == present else off(high)),
        )
        if (first > 0) == (last > 0):
            continue
        for _ in range(9):
            middle = (low + high) / 2
            low, high = (low, middle) if (off(middle) > 0) == (last > 0) else (middle, high)
        return (low + high) / 2
    return None


def with_line(batch: Batch, ingredient: str, library: Library) -> tuple[Batch, int]:
    """The batch with a line of this ingredient, and its row; a line of 0 g is added where there is none."""
    for row, w in enumerate(batch.lines):
        if w.ingredient.id == ingredient and not w.line.locked:
            return batch, row
    return batch.joined_by(ingredient, library), len(batch.lines)
