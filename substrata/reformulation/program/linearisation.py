"""What is not linear in the grams: handling, texture and minutes in the oven, with their slopes at a point."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from math import log
from typing import Literal

import numpy as np

from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import shaped_at
from substrata.ingredients.library import Floats
from substrata.process.baking.oven_questions import coarse
from substrata.process.rheology.handling_classes import band_of
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.request.guard_limits import guard_limits

Kind = Literal["window", "handling", "wish", "soft"]
PAD = 0.15  # how far inside a class of handling a settle aims, log10 Pa s
FILLED = 0.06  # ln of the filling of the voids that a dough needs, with a little to spare
_TWO_PERCENT = 0.02  # of a line: the step of a slope
_LEAST_STEP = 0.003  # of the dough, where a line is small
SCORE_UNIT = 3.0  # points of texture that weigh as much as missing another limit whole
INSIDE_SCORE = 0.1  # points by which a wish of texture is aimed beyond
_INSIDE_MINUTES = 0.97


@dataclass(frozen=True, kw_only=True)
class Slope:
    """A quantity at a point, its slopes, and between what it should lie."""

    key: str
    kind: Kind
    value: float
    per_gram: Floats  # shape (n,)
    low: float | None
    high: float | None
    unit: float  # what counts as one unit of missing it
    price: float = 0.0


@dataclass(frozen=True, kw_only=True)
class Slopes:
    """All of them."""

    hard: tuple[Slope, ...] = ()
    soft: tuple[Slope, ...] = field(default=())

    def every(self) -> Iterator[Slope]:
        """One after the other."""
        yield from self.hard
        yield from self.soft


@dataclass(frozen=True, kw_only=True)
class SlopeBand:
    """Consistencies at which a dough is shaped as wanted, log10 Pa s."""

    low: float
    high: float


def target_band(problem: BalanceProblem, dough: Dough) -> SlopeBand:
    """Return the class that is wished for, else those in which the form is shaped."""
    if problem.wish.handling:
        band = band_of(problem.wish.handling, dough.piece.thickness_mm)
        return SlopeBand(low=band.low, high=band.high)
    return SlopeBand(low=dough.target_handling.low, high=dough.target_handling.high)


def slopes_at(problem: BalanceProblem, grams: Floats, *, present: float | None) -> Slopes:
    """Return handling, texture and minutes at a point with their slopes by central differences.

    Args:
        problem: the dough and the wish.
        grams: the point, shape (n,).
        present: consistency of the formula as it stands: a settle aims no further inside a class than it is.
    """
    dough = problem.at(grams)
    if len(dough.inside.lines) < 2 or dough.batch.dough_g <= 0:
        return Slopes()
    hard, soft = [], []
    consistency, filled, run = _handling(problem, grams)
    band = target_band(problem, dough)
    usual = problem.usual_consistency
    low, high = _aim(band, present, usual)
    hard.append(
        Slope(key="handling", kind="handling", value=consistency, per_gram=run[0], low=low, high=high, unit=1.0)
    )
    hard.append(Slope(key="crumbly", kind="handling", value=filled, per_gram=run[1], low=FILLED, high=None, unit=0.5))
    if "handling" in problem.wish.released:
        hard = [slope for slope in hard if slope.key != "handling"]
    rail = guard_limits()["soft:handling"]
    if usual is not None and band.low <= usual < band.high and rail.id not in problem.wish.released:
        soft.append(
            Slope(
                key="soft:handling", kind="soft", value=consistency, per_gram=run[0], low=usual - rail.low,
                high=usual + rail.high, unit=1.0, price=rail.price,
            )
        )  # fmt: skip
    hard += _texture_wishes(problem, grams)
    soft += _texture_bounds(problem, grams)
    hard += _minutes(problem, grams)
    return Slopes(hard=tuple(hard), soft=tuple(soft))


def _aim(band: SlopeBand, *known: float | None) -> tuple[float, float]:
    """Return a level a little inside the class, never further than the dough is, or was, already."""
    low, high = band.low + PAD, band.high - PAD
    if low > high:
        low = high = (band.low + band.high) / 2
    for entry in known:
        if entry is not None and band.low <= entry < band.high:
            low, high = min(low, entry), max(high, entry)
    return low, high


def _handling(problem: BalanceProblem, grams: Floats) -> tuple[float, float, tuple[Floats, Floats]]:
    def read(at: Floats) -> tuple[float, float]:
        consistency, filled = shaped_at(
            problem.batch_at(at).dough(), problem.base.formula, stiffer=problem.base.hands.stiffer
        )
        return consistency, log(max(filled, 1e-6))

    here = read(grams)
    thick, full = np.zeros(problem.count), np.zeros(problem.count)
    for place, below, above in _steps(problem, grams):
        a, b = (here if below == grams[place] else read(_with(grams, place, below))), read(_with(grams, place, above))
        thick[place], full[place] = ((b[i] - a[i]) / (above - below) for i in (0, 1))
    return *here, (thick, full)


def _steps(problem: BalanceProblem, grams: Floats) -> Iterator[tuple[int, float, float]]:
    """Each free line with the two weights between which its slope is taken."""
    least = _LEAST_STEP * max(problem.reference.batch.dough_g, 1.0)
    for place, slot in enumerate(problem.slots):
        if slot.free and problem.inside[place]:
            step = max(_TWO_PERCENT * float(grams[place]), min(least, slot.step.grams))
            below = max(float(grams[place]) - step, 0.0)
            yield place, below if grams[place] > 0 else 0.0, float(grams[place]) + step


def _with(grams: Floats, place: int, value: float) -> Floats:
    other = grams.copy()
    other[place] = value
    return other


@dataclass(frozen=True, kw_only=True)
class _Eaten:
    """The scores of texture at a point and how each runs with every line's grams, each shape (n,)."""

    scores: Mapping[str, float]
    runs: Mapping[str, Floats]


def _eaten(problem: BalanceProblem, grams: Floats) -> _Eaten:
    def read(at: Floats) -> dict[str, float]:
        dough = problem.at(at)
        return dough.scores()

    here = read(grams)
    runs = {key: np.zeros(problem.count) for key in here}
    for place, _, above in _steps(problem, grams):
        above_run = read(_with(grams, place, above))
        for key, run in runs.items():
            run[place] = (above_run[key] - here[key]) / (above - grams[place])
    return _Eaten(scores=here, runs=runs)


def texture_slope(problem: BalanceProblem, grams: Floats, key: str) -> Floats:
    """How a score of texture runs with each line's grams at a point, shape (n,)."""
    return _eaten(problem, grams).runs[key]


def _texture_wishes(problem: BalanceProblem, grams: Floats) -> Iterator[Slope]:
    if not problem.wish.texture:
        return
    here = _eaten(problem, grams)
    for key, window in problem.wish.texture.items():
        if key in here.scores:
            yield Slope(
                key=f"texture:{key}", kind="wish", value=here.scores[key], per_gram=here.runs[key],
                low=None if window.low is None else window.low + INSIDE_SCORE,
                high=None if window.high is None else window.high - INSIDE_SCORE, unit=SCORE_UNIT,
            )  # fmt: skip


def _texture_bounds(problem: BalanceProblem, grams: Floats) -> Iterator[Slope]:
    """Every score that is not wished for is kept near what it was, at a price; its slopes are taken where the formula stands."""
    usual, rail = problem.usual_texture, guard_limits()["soft:texture"]
    if not usual or rail.id in problem.wish.released:
        return
    start = problem.once("eaten", lambda: _eaten(problem, problem.start))
    for key, run in start.runs.items():
        if key not in problem.wish.texture:
            yield Slope(
                key=f"{rail.id}:{key}", kind="soft", value=start.scores[key] + float(run @ (grams - problem.start)),
                per_gram=run, low=usual[key] - rail.low, high=usual[key] + rail.high, unit=1.0, price=rail.price,
            )  # fmt: skip


def _minutes(problem: BalanceProblem, grams: Floats) -> Iterator[Slope]:
    most = problem.wish.minutes_most
    here = coarse(problem.at(grams).case).ready if most is not None else None
    if most is None or here is None:
        return
    run = minutes_slope(problem, grams)
    yield Slope(key="minutes", kind="wish", value=here, per_gram=run, low=None, high=most * _INSIDE_MINUTES, unit=most)


def minutes_slope(problem: BalanceProblem, grams: Floats) -> Floats:
    """How the minutes in the oven run with each line's grams at a point, shape (n,); 0 for what the formula does not hold."""
    run = np.zeros(problem.count)
    for place, below, above in _steps(problem, grams):
        if problem.slots[place].new:
            continue
        a, b = (coarse(problem.at(_with(grams, place, g)).case).ready for g in (below, above))
        run[place] = (b - a) / (above - below) if a is not None and b is not None else 0.0
    return run
