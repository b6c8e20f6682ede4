"""What goes in and out of the shelf, its formulas and the words. Analysis types are the core's own dataclasses."""

from datetime import datetime
from typing import Annotated, Any

from ninja import Schema
from pydantic import Field, StringConstraints

from api.document_schemas import FormulaDocument, Text
from kitchen.models import Draft, Formula, FormulaVersion
from kitchen.services.formulas import LONGEST_LIST, OpenFormula
from substrata.formula import Change
from substrata.ingredients import Ingredient


class StratumOut(Schema):
    """One layer of the small core drawing."""

    role: str
    code: str
    share: float


class ThumbOut(Schema):
    """What the shelf draws of a formula."""

    strata: list[StratumOut]
    net_carbs: float
    protein: float
    pieces: int
    outside: int
    problems: int
    convention: str


class ShelfOut(Schema):
    """A formula on the shelf."""

    id: int
    name: str
    form: str
    thumb: ThumbOut
    versions: int
    archived: bool
    touched_at: datetime

    @classmethod
    def from_service(cls, formula: Formula) -> "ShelfOut":
        """Build a row of the shelf."""
        return cls(
            id=formula.pk,
            name=formula.name,
            form=formula.form,
            thumb=formula.thumb,
            versions=getattr(formula, "version_count", 0),
            archived=formula.archived_at is not None,
            touched_at=formula.touched_at,
        )


class ShelfQuery(Schema):
    """What to look for on the shelf."""

    search: Annotated[str, StringConstraints(max_length=120)] = ""
    form: Annotated[str, StringConstraints(max_length=20)] = ""
    archived: bool = False
    limit: int = Field(60, ge=1, le=LONGEST_LIST)
    offset: int = Field(0, ge=0, le=1_000_000)


class IngredientQuery(Schema):
    """A few typed letters."""

    search: Annotated[str, StringConstraints(max_length=120)] = ""
    limit: int = Field(12, ge=1, le=300)


class ShelfPage(Schema):
    """A page of the shelf."""

    items: list[ShelfOut]
    total: int


class ScaleIn(Schema):
    """How much of a dough is wanted."""

    document: FormulaDocument
    factor: float | None = None
    pieces: int | None = None
    piece_g: float | None = None
    line: str | None = None
    amount: str = ""
    keep_pieces: bool = False


class ScaledOut(Schema):
    """The scaled document, and by how much."""

    document: dict[str, Any]
    factor: float
    dough_g: float
    piece_g: float


class FormulaOut(Schema):
    """A formula on the bench."""

    id: int
    document: dict[str, Any]
    lock: int
    base_number: int
    changed: bool
    may_edit: bool
    archived: bool
    updated_by: str

    @classmethod
    def from_service(cls, opened: OpenFormula) -> "FormulaOut":
        """Build an opened formula."""
        draft: Draft = opened.draft
        return cls(
            id=opened.formula.pk,
            document=draft.document,
            lock=draft.lock,
            base_number=draft.base_number,
            changed=draft.changed,
            may_edit=opened.may_edit,
            archived=opened.formula.archived_at is not None,
            updated_by=draft.updated_by.email if draft.updated_by else "",
        )


class DraftIn(Schema):
    """The edited document, with the lock as last seen."""

    document: FormulaDocument
    lock: int
    page: str = Field(default="", max_length=40)  # a mark of the open page: its own lost answer is no conflict


class VersionIn(Schema):
    """A version to keep."""

    lock: int
    note: Text = ""


class VersionOut(Schema):
    """A version in the list."""

    number: int
    note: str
    changes: list[str]
    author: str
    created_at: datetime

    @classmethod
    def from_service(cls, version: FormulaVersion) -> "VersionOut":
        """Build a row of the versions panel."""
        return cls(
            number=version.number,
            note=version.note,
            changes=version.changes,
            author=version.author.email if version.author else "",
            created_at=version.created_at,
        )


class VersionDocument(VersionOut):
    """A version with its document."""

    document: dict[str, Any]


class ForkIn(Schema):
    """Name of the new formula."""

    name: Annotated[str, StringConstraints(max_length=120)] = ""


class ArchiveIn(Schema):
    """Whether it is put away; false brings it back."""

    archived: bool


class ChangeOut(Schema):
    """One difference in words."""

    kind: str
    text: str
    line: str | None

    @classmethod
    def from_service(cls, change: Change) -> "ChangeOut":
        """Build a change of the core."""
        return cls(kind=change.kind, text=change.text, line=change.line)


class PasteIn(Schema):
    """A pasted ingredient list."""

    text: str


class IngredientOut(Schema):
    """An ingredient to choose."""

    id: str
    name: str
    role: str
    aliases: list[str]
    measures: list[str]
    source: str
    far: bool = False  # only like what was typed: offered, and never taken by itself

    @classmethod
    def from_service(cls, ingredient: Ingredient, *, far: bool = False) -> "IngredientOut":
        """Build an ingredient of the library."""
        return cls(
            id=ingredient.id,
            name=ingredient.name,
            role=ingredient.role,
            aliases=list(ingredient.aliases),
            measures=list(ingredient.measures),
            source=ingredient.source,
            far=far,
        )
