"""A file of any kind that a recipe comes in, told by what is in it: our own document, a page, a table, a workbook, or a plain list."""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any

from substrata.base.errors import FormulaError
from substrata.formula.exchange.page_import import MOST_BYTES, page_recipe, sheet_recipe


@dataclass(frozen=True, kw_only=True)
class FileRecipe:
    """What a file holds: a document, or a list to be read."""

    kind: str  # document, page, table, list
    text: str  # the list; "" for a document
    document: dict[str, Any] | None
    unread: tuple[str, ...]


def file_recipe(data: bytes, name: str = "") -> FileRecipe:
    """Read a file.

    Args:
        data: of it.
        name: that it has; its ending counts where its content does not tell.

    Returns:
        The recipe and its kind of file.

    Raises:
        FormulaError: when it is too large, or of no kind that is known.
    """
    if len(data) > MOST_BYTES:
        raise FormulaError(
            "the file is too large",
            got=f"{len(data):,} bytes",
            allowed=f"up to {MOST_BYTES:,}",
            remedy="upload only the recipe",
            field="file",
        )
    ending = name.lower().rpartition(".")[2]
    if data[:2] == b"PK" or ending in ("csv", "tsv", "xlsx", "xlsm"):
        table = sheet_recipe(data, name)
        return FileRecipe(kind="table", text=table.text, document=None, unread=table.unread)
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("latin-1")
    if "\x00" in text:
        raise FormulaError(
            "this file is not a recipe",
            got="data that is not text",
            allowed="a page, a table, a workbook, a list or a document",
            field="file",
        )
    bare = text.lstrip()
    document = _substrata_document(bare)
    if document is not None:
        return FileRecipe(kind="document", text="", document=document, unread=())
    if bare[:1] in ("{", "[", "<"):
        page = page_recipe(text)
        return FileRecipe(kind="page", text=page.text, document=None, unread=page.unread)
    return FileRecipe(kind="list", text=text, document=None, unread=())


def _substrata_document(text: str) -> dict[str, Any] | None:
    """Our own document of a formula."""
    if not text.startswith("{"):
        return None
    try:
        whole = json.loads(text)
    except (ValueError, RecursionError):
        return None
    return whole if isinstance(whole, dict) and "lines" in whole and "form" in whole else None
