"""What goes in and out of Settle, Reach, the trade-off, What-if and Begin. What is told are the core's own dataclasses."""

from typing import Literal

from ninja import Schema
from pydantic import Field

from api.document_schemas import FormulaDocument
from substrata.formula.forms import Window
from substrata.reformulation.request.balance_answer import (
    ClassMove,
    LineChange,
    Minutes,
    Moved,
    Relaxation,
    ShapeChange,
    Status,
    Sure,
)


class WishIn(Schema):
    """What is wanted besides the formula's own targets and windows."""

    handling: str = ""
    texture: dict[str, Window] = Field(default={})
    minutes_most: float | None = Field(default=None, gt=0, le=300)
    thickness_most: float | None = Field(default=None, gt=0, le=200)
    without: list[str] = Field(default=[], max_length=30)
    without_lines: list[str] = Field(default=[], max_length=60)
    locked: list[str] = Field(default=[], max_length=200)
    released: list[str] = Field(default=[], max_length=60)
    steps: Literal["kitchen", "grams"] = "kitchen"
    may_bring: bool = True
    only_stock: bool = False  # only what the kitchen has
    may_change_mass: bool = False
    may_change_pieces: bool = False
    may_change_thickness: bool = False
    margin: float = Field(default=0.0, ge=0, le=1.3)


class FormulaJobIn(Schema):
    """A document, and the formula that it is the draft of: its last saved version is what changes are measured against."""

    document: FormulaDocument
    formula_id: int = 0


class SettleJobIn(FormulaJobIn):
    """A formula that is to be settled."""

    kind: Literal["settle"]
    wish: WishIn


class ReachJobIn(FormulaJobIn):
    """Quantities whose ends are asked for."""

    kind: Literal["reach"]
    keys: list[str] = Field(max_length=6)


class FrontJobIn(FormulaJobIn):
    """Two quantities whose trade-off is asked for."""

    kind: Literal["front"]
    x: str
    y: str


class BeginJobIn(Schema):
    """A form that is to be begun."""

    kind: Literal["begin"]
    form: str
    targets: dict[str, Window] = Field(default={})
    without: list[str] = Field(default=[], max_length=30)
    pieces: int | None = Field(default=None, ge=1, le=10_000)
    only_stock: bool = False  # only from what the kitchen has


class SweepIn(Schema):
    """A line that is to be swept."""

    document: FormulaDocument
    line: str


class MixIn(Schema):
    """A group of lines with a kept total, and the new weight of one of them."""

    document: FormulaDocument
    group: list[str] = Field(max_length=60)
    line: str
    grams: float = Field(ge=0, le=50_000)


class LeanIn(Schema):
    """A group of lines with a kept total, and the end of a quality that it is to lean to."""

    document: FormulaDocument
    group: list[str] = Field(max_length=60)
    by: Literal["price", "strength"]
    towards: float = Field(ge=-1, le=1)


class MixOut(Schema):
    """The formula after it."""

    document: FormulaDocument


class WayOut(Schema):
    """One answer of a settle."""

    name: str
    document: FormulaDocument
    changes: list[LineChange]
    shape: list[ShapeChange] = Field(default=[])  # answers that were kept before there were any have none
    brackets: list[Moved]
    texture: list[Moved]
    handling: ClassMove | None
    minutes: Minutes
    dough_before_g: float
    dough_after_g: float
    cost: float
    new: int
    holds: list[str]
    prices: list[str]
    sure: list[Sure]
    lost: list[str]
    cautions: list[str]
    missed: list[str]
    met: bool


class SettlementOut(Schema):
    """What a settle answers."""

    status: Status
    text: str
    ways: list[WayOut]
    nearest: str
    clash: list[Relaxation]
    surer: str
    moves: list[str]
    started: dict[str, float] | None


class FrontPointOut(Schema):
    """One dough of a trade-off."""

    x: float
    y: float
    change: float
    text: str
    document: FormulaDocument


class FrontOut(Schema):
    """A trade-off."""

    x: str
    y: str
    now_x: float
    now_y: float
    points: list[FrontPointOut]


class NamedWeight(Schema):
    """An ingredient by its name, and how much of it."""

    name: str
    grams: float


class BeginningOut(Schema):
    """A formula to begin with."""

    name: str
    base: str
    text: str
    weights: list[NamedWeight]
    met: bool
    document: FormulaDocument
