"""No cliffs: every line of every everyday dough from half to one and a half of its weight, in steps of two hundredths.

``python -m benchmarks.continuity [NAME…]`` prints each step that moves the minutes by more than 11 %, the consistency by more than .15,
a texture score by more than .5 or a bracket's window by more than 5 %. A bake that ends and says why is no cliff.
"""

from __future__ import annotations

import sys
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from math import log

import numpy as np

from benchmarks.judgements import good_doughs
from substrata.base.errors import SubstrataError
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import Figures, figures
from substrata.formula.formula import Formula
from substrata.ingredients.library import load_library
from substrata.process.baking.oven_questions import judged

STEPS = np.arange(0.5, 1.5001, 0.02)
MOST = {"minutes": 0.11, "consistency": 0.15, "texture": 0.5, "window": 0.05}


@dataclass(frozen=True, kw_only=True)
class Point:
    """A dough at one weight of one line."""

    minutes: float | None
    figures: Figures
    windows: dict[str, tuple[float | None, float | None]]


@dataclass(frozen=True, kw_only=True)
class Jump:
    """A step that moves something by too much."""

    dough: str
    line: str
    at: float  # of the line's weight
    what: str
    before: float
    after: float


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


def jumps(formula: Formula) -> list[Jump]:
    """Every cliff of one dough."""
    dough = Dough(formula, load_library())
    found = []
    for weighed in dough.batch.lines:
        line = weighed.line.id
        if weighed.grams.value <= 0 or line not in {l.id for l in formula.lines}:
            continue
        before = None
        for share in STEPS.tolist():
            now = point(dough.with_changes(grams={line: weighed.grams.value * share}))
            if before is not None and now is not None:
                for what, by, one, other in moves(before, now):
                    if by > MOST[what.split()[0]] * (1 + 1e-9):
                        found.append(Jump(dough=formula.name, line=line, at=share, what=what, before=one, after=other))
            before = now
    return found


def main() -> None:
    """Sweep all doughs, or those whose name begins so."""
    doughs = [f for f in good_doughs() if len(sys.argv) < 2 or f.name.startswith(tuple(sys.argv[1:]))]
    count = 0
    with ProcessPoolExecutor(2) as pool:
        for rows in pool.map(jumps, doughs):
            for j in rows:
                print(f"{j.dough[:32]:32} {j.line:22} at {j.at:.2f}  {j.what:26} {j.before:8.2f} → {j.after:8.2f}")
            count += len(rows)
    print(f"{count} cliffs over {len(doughs)} doughs")


if __name__ == "__main__":
    main()
