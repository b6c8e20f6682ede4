"""One line swept: how every figure answers, and where each leaves its window."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from substrata.base.errors import FormulaError
from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.settings import Settings
from substrata.evaluation.analysis.target_states import bracket_kinds
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import figures
from substrata.evaluation.target_ranges import is_outside
from substrata.formula.form_table import Window
from substrata.formula.formula import Formula
from substrata.ingredients.library import Library
from substrata.reformulation.solutions.solution import minutes_of

SPAN = 0.6  # of the line's weight to both sides
POINTS = 25
_BAKED_EVERY = 4  # every so many points are baked too
_HALVINGS = 8


@dataclass(frozen=True, kw_only=True)
class Curve:
    """A figure over the weights."""

    key: str
    label: str
    unit: str
    decimals: int
    values: tuple[float, ...]
    states: tuple[str, ...]
    window: Window
    leaves_low_g: float | None  # weight below which it is out of its window; None when it never is
    leaves_high_g: float | None  # and above


@dataclass(frozen=True, kw_only=True)
class BakedAt:
    """Minutes in the oven at one weight; None where the bake does not end."""

    grams: float
    minutes: float | None


@dataclass(frozen=True, kw_only=True)
class Sweep:
    """A line's sweep."""

    line: str
    name: str
    now: float
    grams: tuple[float, ...]
    curves: tuple[Curve, ...]
    classes: tuple[str, ...]  # of handling at shaping
    fits: tuple[bool, ...]
    minutes: tuple[BakedAt, ...]
    text: Wording


def sweep(formula: Formula, library: Library, settings: Settings, line: str) -> Sweep | None:
    """Sweep one line by ± 60 %; None while there is no dough to speak of.

    Returns:
        The curves; None while there is no dough.

    Raises:
        FormulaError: when there is no such line, or it weighs nothing.
    """
    dough = Dough(formula, library, settings).as_baked()
    weighed = next((w for w in dough.batch.lines if w.line.id == line), None)
    if weighed is None or weighed.grams.value <= 0:
        raise FormulaError(
            "this ingredient cannot be varied",
            got=line[:60],
            allowed="an ingredient of the formula that has a weight",
            remedy="enter its grams first",
            field="line",
        )
    now = weighed.grams.value
    if figures(dough) is None:
        return None
    at = [float(g) for g in np.linspace(1 - SPAN, 1 + SPAN, POINTS) * now]
    doughs = [dough.with_changes(grams={line: g}) for g in at]
    read = [figures(figures_at) for figures_at in doughs]
    points = [(g, figures_at) for g, figures_at in zip(at, read, strict=True) if figures_at is not None]
    curves = tuple(
        _curve(
            key,
            kind.label,
            kind.unit,
            kind.decimals,
            dough,
            line,
            [(g, f.values[key], f.states[key]) for g, f in points],
        )
        for key, kind in bracket_kinds().items()
        if key in points[0][1].values and (key != "cost" or points[0][1].values["cost"] > 0)
    )
    return Sweep(
        line=line,
        name=weighed.ingredient.name,
        now=now,
        grams=tuple(g for g, _ in points),
        curves=curves,
        classes=tuple(f.class_name for _, f in points),
        fits=tuple(f.fits for _, f in points),
        minutes=tuple(BakedAt(grams=at[i], minutes=minutes_of(doughs[i])) for i in range(0, POINTS, _BAKED_EVERY)),
        text=_text(weighed.ingredient.name, curves, [(g, f.fits) for g, f in points]),
    )


def _curve(
    key: str, label: str, unit: str, decimals: int, dough: Dough, line: str, points: list[tuple[float, float, str]]
) -> Curve:
    middle = len(points) // 2
    inside = [not is_outside(state) for _, _, state in points]
    below = next((i for i in range(middle, -1, -1) if inside[middle] and not inside[i]), None)
    above = next((i for i in range(middle, len(points)) if inside[middle] and not inside[i]), None)

    def edge(out: int, within: int) -> float:
        a, b = points[out][0], points[within][0]
        for _ in range(_HALVINGS):
            half = (a + b) / 2
            half_way = figures(dough.with_changes(grams={line: half}))
            if half_way is not None and not is_outside(half_way.states[key]):
                b = half
            else:
                a = half
        return b

    target = dough.windows.get(key)
    return Curve(
        key=key,
        label=label,
        unit=unit,
        decimals=decimals,
        values=tuple(v for _, v, _ in points),
        states=tuple(s for _, _, s in points),
        window=target.window if target else Window(),
        leaves_low_g=None if below is None else edge(below, below + 1),
        leaves_high_g=None if above is None else edge(above, above - 1),
    )


def _text(name: str, curves: tuple[Curve, ...], fits: list[tuple[float, bool]]) -> Wording:
    """Between which weights everything holds."""
    lows = [(c.leaves_low_g, c.label.lower()) for c in curves if c.leaves_low_g is not None]
    highs = [(c.leaves_high_g, c.label.lower()) for c in curves if c.leaves_high_g is not None]
    middle = len(fits) // 2
    if fits[middle][1]:
        below = [g for g, ok in fits[:middle] if not ok]
        above = [g for g, ok in fits[middle:] if not ok]
        lows += [(max(below), "handling")] if below else []
        highs += [(min(above), "handling")] if above else []
    short = name.partition(",")[0]
    low, high = max(lows, default=None), min(highs, default=None)
    if low is None and high is None:
        return Message("line-sweep-all-targets-stay-met-within", short=short, span=Quantity(100 * SPAN, "%", digits=0))
    if low and high and low[1] == high[1]:
        return Message(
            "line-sweep-stays-in-range-from-to",
            short=short,
            low=low[1],
            low_2=Quantity(low[0], "g", digits=0, bare=True),
            high_2=Quantity(high[0], "g", digits=0),
        )
    parts = [
        Message("line-sweep-out-of-range-below-g", low=low[1], low_2=Quantity(low[0], "g", digits=0)) if low else "",
        Message("line-sweep-out-of-range-above-g", high=high[1], high_2=Quantity(high[0], "g", digits=0))
        if high
        else "",
    ]
    return Message("line-sweep-parts", short=short, ranges=Joined(parts, ", "))
