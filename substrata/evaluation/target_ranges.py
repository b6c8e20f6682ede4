"""What is wanted of each quantity: the baker's target, else the house window of the form or of what carries the dough.

Nothing here is drawn or said: the solver steers by these windows alone.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cache
from typing import Literal

from substrata.base.tables.table_reader import constant, read_table
from substrata.formula.form_table import Form, Window
from substrata.formula.formula import Formula
from substrata.process.rheology.binder import Structure

# Under and over are unusual, or missed by less than the doubt; low and high will fail.
State = Literal["in", "under", "over", "low", "high", "open", "undefined"]
Source = Literal["target", "form", "matrix", "none"]
_INSIDE = 0.06  # how far into a window one aims, as a share of its width
_HARDLY = 0.05  # of an egg in 100 g
_HAIR = 1e-9  # a hair outside is inside: no figure is known that well


@dataclass(frozen=True, kw_only=True)
class TargetRange:
    """The window of a quantity, and who wants it."""

    window: Window  # what works
    source: Source
    fails: Window | None = None  # beyond these bounds it will fail; None: where the doubt no longer touches the window


NO_TARGET = TargetRange(window=Window(), source="none")


def target_ranges(formula: Formula, form: Form, matrix: Structure, *, low_salt: bool = False) -> dict[str, TargetRange]:
    """Return the window of every quantity that has one, by its key.

    Args:
        formula: its targets come before the house's windows.
        form: what is baked.
        matrix: what carries the dough.
        low_salt: a kitchen that bakes with little salt on purpose.
    """
    targets = {key: TargetRange(window=target.window, source="target") for key, target in formula.targets.items()}
    house = default_ranges(form, matrix)
    if low_salt:
        window = Window(high=constant("low_salt_most"))
        house["salt"] = TargetRange(window=window, source="form", fails=_fails("salt", window))
    return house | targets


def default_ranges(form: Form, matrix: Structure) -> dict[str, TargetRange]:
    """Return the windows that hold when the baker has set no target."""
    least = form.heat_set_least
    carried: Source = "matrix" if matrix.name else "form"

    def form_range(key: str, window: Window, source: Source = "form") -> TargetRange:
        return TargetRange(window=window, source=source, fails=_fails(key, window))

    return {
        "net_carbs": TargetRange(window=form.net_carbs, source="form"),
        "protein": TargetRange(window=form.protein, source="form"),
        "binder_load": form_range("binder_load", matrix.window, carried),
        "water_fill": _forgiven(form_range("water_fill", matrix.water_fill, carried), matrix.forgives),
        "lift": form_range("lift", form.gas),
        "salt": form_range("salt", matrix.salt),
        "heat_set": form_range("heat_set", Window(low=least)) if least else NO_TARGET,
    }


@cache
def _failing() -> dict[str, tuple[float | None, float | None]]:
    """Share of the lower bound and multiple of the upper one beyond which a quantity spoils a dough, by its key."""
    table = {}
    for row in read_table("brackets.csv"):
        below, above = row.text("fails_below"), row.text("fails_above")
        if below or above:
            table[row.text("key")] = (float(below) if below else None, float(above) if above else None)
    return table


def _fails(key: str, window: Window) -> Window:
    below, above = _failing()[key]
    # Below a bound that is next to nothing a dough is unusual, and does not fail.
    hardly = key == "binder_load" and window.low is not None and window.low <= _HARDLY
    return Window(
        low=None if below is None or window.low is None else 0.0 if hardly else below * window.low,
        high=None if above is None or window.high is None else above * window.high,
    )


def _forgiven(target: TargetRange, times: float) -> TargetRange:
    """Return what fails only from so many times its upper bound."""
    fails = target.fails
    if fails is None or fails.high is None:
        return target
    return replace(target, fails=replace(fails, high=times * fails.high))


def state_of(
    value: float, target: TargetRange, doubt: Callable[[], tuple[float, float]], *, defined: bool = True
) -> State:
    """Where a value stands to what is wanted of it.

    Args:
        value: of the quantity.
        target: its window, and where it fails.
        doubt: gives the lowest and highest that it may be (nine in ten); asked only outside a window without failing bounds.
        defined: whether there is anything to weigh it against.

    Returns:
        in, under, over, low, high, open or undefined.
    """
    window, fails = target.window, target.fails
    if not defined:
        return "undefined"
    if window.low is None and window.high is None:
        return "open"
    if window.low is not None and value < window.low * (1 - _HAIR):
        failing = fails.low is not None and value < fails.low if fails else doubt()[1] < window.low
        return "low" if failing else "under"
    if window.high is not None and value > window.high * (1 + _HAIR):
        failing = fails.high is not None and value > fails.high if fails else doubt()[0] > window.high
        return "high" if failing else "over"
    return "in"


def aim(window: Window, side: str) -> float:
    """Return a value a little inside the bound that was missed."""
    low, high = window.low, window.high
    if low is not None and high is not None:
        return low + _INSIDE * (high - low) if side == "low" else high - _INSIDE * (high - low)
    return low * (1 + _INSIDE) if low is not None else (high or 0.0) * (1 - _INSIDE)


def is_outside(state: str) -> bool:
    """Whether a window is missed, by a little or by much."""
    return state in ("under", "over", "low", "high")


def fails(state: str) -> bool:
    """Whether a window is missed by so much that the dough will fail."""
    return state in ("low", "high")


def side_of(state: str) -> Literal["low", "high"]:
    """On which side a window is missed."""
    return "low" if state in ("low", "under") else "high"
