"""Roots of a dough's handling: when it is ready, when it turns brittle, and what one line would have to be."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from substrata.batch.weighed import Batch
from substrata.dough.consistency import Method, handling, typical_draw
from substrata.dough.materials import Materials, materials
from substrata.pantry.library import Floats, Library

_FANNED = 9  # points that narrow a bracket to an eighth, in which the curve is taken as straight
_HALVINGS = 9
_MOST_ADDED = 0.4  # of the dough


@dataclass(frozen=True, kw_only=True)
class Bowl:
    """A dough as it is mixed."""

    batch: Batch
    method: Method
    temperature_c: float
    rest_min: float

    @cached_property
    def materials(self) -> Materials:
        """What it is made of."""
        return materials(self.batch)

    def over_minutes(self, minutes: Floats) -> Floats:
        """Typical consistency at resting times, shape (points,)."""
        warm = np.full(len(minutes), self.temperature_c)
        result: Floats = handling(self.materials, self.method, minutes, warm, draws=typical_draw()).consistency[0]
        return result

    def over_degrees(self, degrees: Floats) -> Floats:
        """Typical consistency at temperatures, shape (points,)."""
        rested = np.full(len(degrees), self.rest_min)
        result: Floats = handling(self.materials, self.method, rested, degrees, draws=typical_draw()).consistency[0]
        return result


def crossings(
    curve: Callable[[Floats], Floats], at: Floats, values: Floats, wanted: Sequence[float]
) -> tuple[float | None, ...]:
    """Where a curve first reaches some values from below, by narrowing all brackets together in one evaluation.

    Args:
        curve: the values at points, shape (points,) to (points,).
        at: points already known, rising, shape (k,).
        values: the curve there, shape (k,).
        wanted: values to reach.

    Returns:
        A point for each wanted value; None for one that is not reached.
    """
    rows: list[float | None] = []
    brackets: dict[int, tuple[float, float]] = {}
    for number, level in enumerate(wanted):
        there = np.flatnonzero(values >= level)
        rows.append(float(at[0]) if len(there) else None)
        if len(there) and there[0] > 0:
            brackets[number] = float(at[there[0] - 1]), float(at[there[0]])
    if brackets:
        points = np.array([np.linspace(low, high, _FANNED) for low, high in brackets.values()])
        seen = curve(points.ravel()).reshape(points.shape)
        for number, row, heights in zip(brackets, points, seen, strict=True):
            level = wanted[number]
            over = heights >= level
            over[-1] = True  # known from before
            k = max(int(over.argmax()), 1)
            rise = float(heights[k] - heights[k - 1])
            part = (level - float(heights[k - 1])) / rise if rise > 0 else 0.5
            rows[number] = float(row[k - 1] + min(max(part, 0.0), 1.0) * (row[k] - row[k - 1]))
    return tuple(rows)


def grams_for(bowl: Bowl, row: int, *, read: Callable[[Batch], float], wanted: float) -> float | None:
    """New weight of one line at which a reading of the dough is as wanted; None when no sensible weight does it.

    Args:
        bowl: the dough.
        row: the line to change.
        read: the reading of a batch.
        wanted: its value.
    """
    present = float(bowl.batch.grams[row])

    def off(grams: float) -> float:
        weights = bowl.batch.grams.copy()
        weights[row] = grams
        return read(bowl.batch.with_grams(weights)) - wanted

    now = off(present)
    for end in (present + _MOST_ADDED * bowl.batch.dough_g, 0.0):
        if (off(end) > 0) == (now > 0):
            continue
        near, far = present, end
        for _ in range(_HALVINGS):
            middle = (near + far) / 2
            near, far = (middle, far) if (off(middle) > 0) == (now > 0) else (near, middle)
        return (near + far) / 2
    return None


def with_line(batch: Batch, ingredient: str, library: Library) -> tuple[Batch, int]:
    """The batch with a line of this ingredient, and its row; a line of 0 g is added where there is none."""
    for row, w in enumerate(batch.lines):
        if w.ingredient.id == ingredient and not w.line.locked:
            return batch, row
    return batch.joined_by(ingredient, library), len(batch.lines)
