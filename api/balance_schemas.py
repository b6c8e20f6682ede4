"""What goes in and out of Settle, Reach, the trade-off, What-if and Begin. What is told are the core's own dataclasses."""

from typing import Literal

from ninja import Schema
from pydantic import Field

from api.document_schemas import FormulaDocument, model_of
from substrata.base import Wording
from substrata.formula import Window
from substrata.reformulation import Wish


class FormulaJobIn(Schema):
    """A document, and the formula that it is the draft of: its last saved version is what changes are measured against."""

    document: FormulaDocument
    formula_id: int = 0


class SettleJobIn(FormulaJobIn):
    """A formula that is to be settled."""

    kind: Literal["settle"]
    wish: model_of(Wish)  # type: ignore[valid-type]  # made of the declaration


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


class NamedWeight(Schema):
    """An ingredient by its name, and how much of it."""

    name: str
    grams: float


class BeginningOut(Schema):
    """A formula to begin with."""

    name: str
    base: str
    text: Wording
    weights: list[NamedWeight]
    met: bool
    document: FormulaDocument
