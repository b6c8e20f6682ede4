"""A formula and its lines, as plain values."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from substrata.formula.form import Window
from substrata.pantry.drying import DryingStep


@dataclass(frozen=True, kw_only=True)
class LinePrep:
    """How the raw matter of a line is dried; the line's grams are what goes into the dough."""

    steps: tuple[DryingStep, ...] = ()
    start_g: float | None = None  # raw weight; None takes what the steps need to give the line's grams
    weighed: bool = False  # the line's grams stand on the scale, and are no forecast


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
    temperature_c: float | None = None  # its own when it goes in; None takes the usual one
    prep: LinePrep | None = None  # how it is dried first
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Mix:
    """How a dough is mixed; what is left open follows from what is in it."""

    temperature_c: float | None = None  # after mixing
    cheese: Literal["", "melted", "cold"] = ""  # melted first, or shredded and stirred in cold
    work: Literal["", "pressed", "stirred"] = ""  # kneaded or pressed, or only stirred


@dataclass(frozen=True, kw_only=True)
class Size:
    """How a piece is shaped: one measure is held, the others follow from the dough's weight and density."""

    held: Literal["", "thickness", "size"] = ""  # "" holds what the form usually holds
    thickness_mm: float | None = None  # of a sheet, diameter of a rope, height of a bun
    length_mm: float | None = None  # diameter of a round, length of a rope, side of a cut piece
    pan: str = ""  # for what is baked in one
    tray: str = ""
    gap_mm: float | None = None  # between pieces on a tray
    hole_mm: float | None = None  # of a bun or doughnut that is a ring; None or 0 for one without


StageKind = Literal["preheat", "bake", "flip", "rotate", "door", "top", "finish", "broil", "rest"]


@dataclass(frozen=True, kw_only=True)
class BakeStage:
    """One stage of a bake."""

    kind: StageKind
    minutes: float | None = None  # None: until it is done; of a moment (flip, rotate, door, top) nothing
    oven_c: float | None = None  # None: as before
    fan: bool | None = None  # None: as before


@dataclass(frozen=True, kw_only=True)
class Bake:
    """What is wanted of the oven; what is left open follows from the form."""

    moisture_percent: float | None = None  # of the baked piece
    moisture_from: Literal["", "oven"] = ""  # where that number comes from: the baker, or the simulated bake
    oven_c: float | None = None
    fan: bool = False
    oven: str = ""  # key of one of the kitchen's ovens
    ware: str = ""  # what it lies on: tray, stone; "" is the form's usual one
    trays: int = 1  # baked at once
    dough_c: float | None = None  # temperature of the dough going in; None: as it was mixed
    altitude_m: float = 0.0  # 0: where its oven stands
    stages: tuple[BakeStage, ...] = ()
    fried: Literal["", "fried", "baked"] = ""  # a doughnut is fried unless told otherwise
    frying_fat: str = ""  # ingredient
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Formula:
    """Lines, form, pieces and targets."""

    name: str
    form: str  # id in forms.csv
    pieces: int
    lines: tuple[Line, ...]
    size: Size = Size()
    serving_pieces: int = 1  # pieces that are eaten as one serving
    notes: str = ""
    mix: Mix = Mix()
    bake: Bake = Bake()
    prep: Mapping[str, float | str] = field(default_factory=dict)  # what is set on the Prep station, by name
    targets: Mapping[str, Window] = field(default_factory=dict)  # bracket key -> wanted bounds
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document
