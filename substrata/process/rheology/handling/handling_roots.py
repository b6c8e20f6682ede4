"""Roots of a dough's handling: when it is ready, and when it turns brittle."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from substrata.formula.batch.batch_lines import Batch
from substrata.ingredients.library import Floats
from substrata.process.rheology.handling.consistency import Method, handling, typical_draw
from substrata.process.rheology.handling.materials import Materials, materials
from substrata.process.rheology.handling.resting import after

_FANNED = 9  # points that narrow a bracket to an eighth, in which the curve is taken as straight


@dataclass(frozen=True, kw_only=True)
class Bowl:
    """A dough as it is mixed."""

    batch: Batch
    method: Method
    temperature_c: float  # after mixing
    rest_min: float
    place_c: float | None = None  # where it rests; None where it keeps its temperature

    @cached_property
    def materials(self) -> Materials:
        """What it is made of."""
        return materials(self.batch)

    def warmth(self, minutes: Floats) -> Floats:
        """Its temperature after some minutes of rest, °C, shape (points,)."""
        return after(minutes, self.temperature_c, self.place_c)

    @cached_property
    def shaped_c(self) -> float:
        """Its temperature when it is shaped, °C."""
        return float(self.warmth(np.array([self.rest_min]))[0])

    def over_minutes(self, minutes: Floats) -> Floats:
        """Typical consistency at resting times, shape (points,)."""
        warm = self.warmth(minutes)
        result: Floats = handling(self.materials, self.method, minutes, warm, draws=typical_draw()).consistency[0]
        return result

    def over_degrees(self, degrees: Floats) -> Floats:
        """Typical consistency at temperatures, shape (points,)."""
        rested = np.full(len(degrees), self.rest_min)
        result: Floats = handling(self.materials, self.method, rested, degrees, draws=typical_draw()).consistency[0]
        return result


def crossings(
    curve: Callable[[Floats], Floats], at: Floats, values: Floats, levels: Sequence[float]
) -> tuple[float | None, ...]:
    """Where a curve first reaches some values from below, by narrowing all brackets together in one evaluation.

    Args:
        curve: the values at points, shape (points,) to (points,).
        at: points already known, rising, shape (k,).
        values: the curve there, shape (k,).
        levels: values to reach.

    Returns:
        A point for each wanted value; None for one that is not reached.
    """
    rows: list[float | None] = []
    brackets: dict[int, tuple[float, float]] = {}
    for number, level in enumerate(levels):
        indices = np.flatnonzero(values >= level)
        rows.append(float(at[0]) if len(indices) else None)
        if len(indices) and indices[0] > 0:
            brackets[number] = float(at[indices[0] - 1]), float(at[indices[0]])
    if brackets:
        points = np.array([np.linspace(low, high, _FANNED) for low, high in brackets.values()])
        sampled = curve(points.ravel()).reshape(points.shape)
        for number, row, heights in zip(brackets, points, sampled, strict=True):
            level = levels[number]
            over = heights >= level
            over[-1] = True  # known from before
            k = max(int(over.argmax()), 1)
            rise = float(heights[k] - heights[k - 1])
            part = (level - float(heights[k - 1])) / rise if rise > 0 else 0.5
            rows[number] = float(row[k - 1] + min(max(part, 0.0), 1.0) * (row[k] - row[k - 1]))
    return tuple(rows)
