"""What goes in and out of recipes: what is handed on, labels, files that come in, parts."""

from datetime import date
from typing import Any, Literal

from ninja import Schema
from pydantic import Field

from api.document_schemas import FormulaDocument
from substrata.base import Wording
from substrata.evaluation import Keeping
from substrata.formula import PastedLine
from substrata.nutrition import StatementPart
from substrata.publishing import Business, RecipeGroup, RecipeStep, Variant


class RecipeIn(Schema):
    """A document, how much of it, and of which sort."""

    document: FormulaDocument
    batches: float = 1.0
    sort: str = Field(default="", max_length=80)
    formula_id: int | None = None  # on the shelf: what was made of it is told among the variants


class RecipeOut(Schema):
    """A formula as it is handed on."""

    name: str
    form: str
    yields: Wording
    groups: list[RecipeGroup]
    steps: list[RecipeStep]
    keeping: Keeping
    variants: list[Variant]
    cost: Wording
    net_carbs: Wording
    incomplete: Wording
    net_rule: Wording
    notes: str


class BagsIn(Schema):
    """Premix bags of a document: how many, made when, and the size of their label."""

    document: FormulaDocument
    bags: int = 1
    made_on: date
    width_mm: float = 90.0
    height_mm: float = 60.0


class LabelIn(Schema):
    """What stands on a pack besides."""

    document: FormulaDocument
    style: Literal["us", "eu"]
    baked_on: date
    business: str = Field(default="", max_length=120)
    address: str = Field(default="", max_length=200)
    pieces_a_pack: int = Field(default=1, ge=1, le=1000)
    lot: str = Field(default="", max_length=40)
    width_mm: float = 90.0
    height_mm: float = 60.0

    def to_core(self) -> Business:
        """Who sells it."""
        return Business(name=self.business, address=self.address, pieces_a_pack=self.pieces_a_pack, lot=self.lot)


class LabelOut(Schema):
    """A label, and what is missing before it may be sold."""

    name: str
    statement: list[StatementPart]
    contains: str
    words: list[str]
    missing: list[str]


class FileRead(Schema):
    """What a file holds."""

    kind: str
    text: str
    document: FormulaDocument | None
    unread: list[str]
    pasted: list[PastedLine]


class ShareIn(Schema):
    """Whether the card has an address."""

    on: bool


class ShareOut(Schema):
    """The address; "" for none."""

    address: str


class PartOut(Schema):
    """A formula, ready to be a line of another."""

    part: dict[str, Any]
    name: str
    grams: float


class NewerPartOut(Schema):
    """A part of which there is a newer version."""

    line: str
    name: str
    number: int
    newest: int
    changes: list[str]
    part: dict[str, Any]


class IntoQuery(Schema):
    """Which formula it is to be a part of."""

    into: int = 0
