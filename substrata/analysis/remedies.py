"""One line that brings one quantity back into its window: the smallest honest answer to a red mark.

A remedy moves a single line (or the number of pieces) and looks at one bracket only; balancing all at
once is the solver's work.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

from substrata.analysis.levers import Lever, levers
from substrata.analysis.words import grams as in_grams
from substrata.analysis.words import short_name
from substrata.batch.kitchen_steps import to_the_scale
from substrata.batch.propagate import Ratio
from substrata.batch.weighed import Batch
from substrata.context.dough import Dough
from substrata.context.quantities import RatioOf
from substrata.context.windows import is_outside, side_of
from substrata.formula.form import Window
from substrata.formula.formula import Formula
from substrata.pantry.library import Library

_INSIDE = 0.06  # how far into the window a remedy aims, as a share of its width
_MOST_ADDED = 0.6  # of the dough; beyond this the formula wants another thought
_LEAST_MOVE_G = 0.05


@dataclass(frozen=True, kw_only=True)
class Remedy:
    """An edit that can be applied and undone."""

    text: str  # on the button: "+ 26 g water"
    line: str | None = None  # line to change; None adds a line
    ingredient: str | None = None  # ingredient of that line
    grams: float | None = None  # its new weight
    pieces: int | None = None  # new number of pieces


def remedy_for(key: str, window: Window, state: str, dough: Dough) -> Remedy | None:
    """The edit of one line that brings a quantity inside its window; None when one line cannot."""
    if not is_outside(state):
        return None
    side = side_of(state)
    ratio_of = dough.ratios_of[key]
    if key == "net_carbs" and side == "high" and window.high:
        return _more_pieces(ratio_of(dough.batch), window.high, dough.formula, dough.batch)
    wanted = aim(window, side)
    for lever in levers(key, side, dough.batch):
        result = _move(lever, ratio_of, wanted, dough.batch, dough.library)
        if result is not None and _mends(result, lever, ratio_of, window, dough.batch, dough.library):
            return result
    return None


def aim(window: Window, side: str) -> float:
    """A value a little inside the bound that was missed."""
    low, high = window.low, window.high
    if low is not None and high is not None:
        return low + _INSIDE * (high - low) if side == "low" else high - _INSIDE * (high - low)
    return low * 1.02 if low is not None else (high or 0.0) * 0.98


def _more_pieces(ratio: Ratio, limit: float, formula: Formula, batch: Batch) -> Remedy | None:
    needed = ceil(ratio.value(batch.grams) * formula.pieces / limit - 1e-9)
    if not formula.pieces < needed <= 4 * formula.pieces:
        return None
    return Remedy(text=f"{needed} pieces", pieces=needed)


def _mends(remedy: Remedy, lever: Lever, ratio_of: RatioOf, window: Window, batch: Batch, library: Library) -> bool:
    """Whether the weight, rounded to the scale, really lies inside: on a small dough a step may be too coarse."""
    if lever.index is None:
        batch = batch.joined_by(lever.ingredient, library)
    weights = batch.grams.copy()
    weights[len(weights) - 1 if lever.index is None else lever.index] = remedy.grams
    value = ratio_of(batch).value(weights)
    above = window.low is None or value >= window.low
    return above and (window.high is None or value <= window.high)


def _move(lever: Lever, ratio_of: RatioOf, wanted: float, batch: Batch, library: Library) -> Remedy | None:
    if lever.index is None:
        # A line of 0 g tells what one gram of the new ingredient would do.
        batch = batch.joined_by(lever.ingredient, library)
    index = len(batch.lines) - 1 if lever.index is None else lever.index
    ratio = ratio_of(batch)
    change = ratio.grams_to_reach(batch.grams, wanted, float(ratio.top[0][index]), float(ratio.bottom[0][index]))
    present = float(batch.grams[index])
    if change is None or abs(change) > _MOST_ADDED * batch.dough_g or present + change < 0:
        return None
    after = to_the_scale(present + change)
    if abs(after - present) < _LEAST_MOVE_G:
        return None
    name = short_name(library[lever.ingredient].name)
    return Remedy(
        text=f"{'+' if after > present else '−'} {in_grams(abs(after - present))} {name}",
        grams=after,
        line=None if lever.index is None else batch.lines[index].line.id,
        ingredient=lever.ingredient,
    )
