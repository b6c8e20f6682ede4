"""How far a dough moves between two steps of one line."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from math import log

from substrata.base.errors import SubstrataError
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import Figures, figures
from substrata.process.baking.oven_questions import judged

MOST = {"minutes": 0.11, "consistency": 0.15, "texture": 0.5, "window": 0.05}


@dataclass(frozen=True, kw_only=True)
class Point:
    """A dough at one weight of one line."""

    minutes: float | None
    figures: Figures
    windows: dict[str, tuple[float | None, float | None]]


def point(dough: Dough) -> Point | None:
    """What is told of a dough; None where there is no dough."""
    found = figures(dough)
    if found is None:
        return None
    try:
        minutes = judged(dough.case)[0].ready
    except SubstrataError:
        minutes = None
    bounds = {key: (w.window.low, w.window.high) for key, w in dough.windows.items() if w.source != "target"}
    return Point(minutes=minutes, figures=found, windows=bounds)


def moves(before: Point, after: Point) -> Iterator[tuple[str, float, float, float]]:
    """What moves between two steps: its kind and name, how far in the kind's measure, and both values."""
    if before.minutes and after.minutes:
        yield "minutes", abs(log(after.minutes / before.minutes)), before.minutes, after.minutes
    one, other = before.figures, after.figures
    yield "consistency", abs(other.consistency - one.consistency), one.consistency, other.consistency
    for key, value in one.texture.items():
        yield f"texture {key}", abs(other.texture[key] - value), value, other.texture[key]
    for key, bounds in before.windows.items():
        for side, (low, high) in enumerate(zip(bounds, after.windows[key], strict=True)):
            if low and high:
                yield f"window {key} {('low', 'high')[side]}", abs(log(high / low)), low, high
