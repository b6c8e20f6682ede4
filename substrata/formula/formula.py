"""A formula and its lines, as plain values."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from substrata.formula.form import Window


@dataclass(frozen=True, kw_only=True)
class Line:
    """One ingredient of a formula.

    ``grams`` is what the formula says; ``entered`` is how it was measured and gives the spread.
    With ``grams`` None the weight is taken from ``entered``.
    """

    id: str  # stable within the formula
    ingredient: str  # id in the pantry; unknown ones are kept and reported
    lot: str = ""  # key of the pack it is taken from; "" means the reference
    grams: float | None = None
    entered: str = ""  # amount as typed: "1 1/2 cup", "90 g"
    role: str = ""  # "" means the ingredient's usual role
    stage: str = ""  # mix stage
    treatment: str = ""  # "squeezed", "melted"
    note: str = ""  # "softened", "divided", and what else stood in the list
    locked: bool = False  # the solver leaves it alone
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Mix:
    """How a dough is mixed; what is left open follows from what is in it."""

    temperature_c: float | None = None  # after mixing
    cheese: Literal["", "melted", "cold"] = ""  # melted first, or shredded and stirred in cold
    work: Literal["", "pressed", "stirred"] = ""  # kneaded or pressed, or only stirred


@dataclass(frozen=True, kw_only=True)
class Formula:
    """Lines, form, pieces and targets."""

    name: str
    form: str  # id in forms.csv
    pieces: int
    lines: tuple[Line, ...]
    serving_pieces: int = 1  # pieces that are eaten as one serving
    notes: str = ""
    mix: Mix = Mix()
    targets: Mapping[str, Window] = field(default_factory=dict)  # bracket key -> wanted bounds
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document
