"""What goes in and out of files of formulas and kitchens."""

from typing import Any

from ninja import Schema
from pydantic import Field

from api.document_schemas import Text
from api.schemas import ShelfOut


class FormulaEntry(Schema):
    """A formula of a file."""

    document: dict[str, Any]
    archived: bool = False
    versions: list[dict[str, Any]] = Field(default_factory=list)


class FileOut(Schema):
    """One formula, or a whole kitchen, as an open file."""

    substrata_file: int
    formulas: list[FormulaEntry]
    packs: list[dict[str, Any]] = Field(default_factory=list)
    pans: list[dict[str, Any]] = Field(default_factory=list)
    ovens: list[dict[str, Any]] = Field(default_factory=list)
    kitchen: dict[str, Any] | None = None


class FileIn(Schema):
    """A file that comes in."""

    file: dict[str, Any]
    settings: bool = False  # take the choices, eaters and ovens of a kitchen's file too


class ImportedFileOut(Schema):
    """What an import brought."""

    formulas: list[ShelfOut]
    packs_added: int
    packs_known: int


class HouseOut(Schema):
    """A house formula that can be copied."""

    name: str
    form: str
    pieces: int


class HouseIn(Schema):
    """Which one to copy."""

    name: Text
