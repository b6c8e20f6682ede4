"""What is wanted of each quantity: the baker's target, else the house window of the form or of what carries the dough.

Nothing here is drawn or said: the solver steers by these windows alone.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from substrata.dough.binder import Binder
from substrata.formula.form import Window, form_of
from substrata.formula.formula import Formula

State = Literal["in", "low", "high", "open", "undefined"]
Source = Literal["target", "form", "matrix", "none"]
_HAIR = 1e-9  # a hair outside is inside: no figure is known that well


@dataclass(frozen=True, kw_only=True)
class Wanted:
    """The window of a quantity, and who wants it."""

    window: Window
    source: Source


NOTHING_WANTED = Wanted(window=Window(), source="none")


def wanted_windows(formula: Formula, binder: Binder) -> dict[str, Wanted]:
    """The window of every quantity that has one, by its key."""
    targets = {key: Wanted(window=target.window, source="target") for key, target in formula.targets.items()}
    return house_windows(formula, binder) | targets


def house_windows(formula: Formula, binder: Binder) -> dict[str, Wanted]:
    """The windows that hold when the baker has set no target."""
    form, matrix = form_of(formula.form), binder.matrix
    least = binder.heat_set_least

    def of_the_form(window: Window) -> Wanted:
        return Wanted(window=window, source="form")

    return {
        "net_carbs": of_the_form(form.net_carbs),
        "protein": of_the_form(form.protein),
        "binder_load": Wanted(window=matrix.window, source="matrix" if matrix.name else "form"),
        # A cheese-matrix dough is judged by cheese and temperature first: its water is shown, not judged.
        "water_fill": of_the_form(form.water_fill) if matrix.judges_water else Wanted(window=Window(), source="matrix"),
        "lift": of_the_form(form.gas),
        "salt": of_the_form(form.salt),
        "heat_set": Wanted(window=Window(low=least), source="form") if least else NOTHING_WANTED,
    }


def state_of(value: float, window: Window, *, defined: bool = True) -> State:
    """Where a value stands to its window.

    Args:
        value: of the quantity.
        window: what is wanted of it.
        defined: whether there is anything to weigh it against.
    """
    if not defined:
        return "undefined"
    if window.low is None and window.high is None:
        return "open"
    if window.low is not None and value < window.low * (1 - _HAIR):
        return "low"
    return "high" if window.high is not None and value > window.high * (1 + _HAIR) else "in"
