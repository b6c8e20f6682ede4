"""Recipes of pages and sheets as a plain list, which ``import_text`` then reads. Nothing is fetched; what is not taken over is told."""

from __future__ import annotations

import csv
import html
import io
import json
import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from substrata.base.errors import FormulaError
from substrata.formula.exchange.workbook import read_first_sheet

MOST_BYTES = 4_000_000  # of a page or a table
_MOST_ROWS = 400
_MOST_DEEP = 40
_SPACE = re.compile(r"[ \t\xa0]+")


@dataclass(frozen=True, kw_only=True)
class PageRecipe:
    """What a page or a sheet said, one ingredient a line."""

    text: str  # for import_text
    unread: tuple[str, ...]  # what was there and is not taken over


def page_recipe(page: str) -> PageRecipe:
    """Return the recipe of a page: schema.org's JSON-LD in HTML, or by itself.

    Raises:
        FormulaError: when the page is too large or holds no recipe.
    """
    if len(page.encode("utf8", "replace")) > MOST_BYTES:
        raise _too_large(f"{len(page):,} characters", f"up to {MOST_BYTES:,} bytes")
    recipes = [recipe for whole in _objects(page) for recipe in _recipes(whole)]
    if not recipes:
        raise FormulaError(
            "the page holds no recipe",
            got=page.strip()[:60],
            allowed="a page with a schema.org Recipe in it (JSON-LD)",
            remedy="paste its list of ingredients instead",
            field="text",
        )
    return _plain_list(
        max(recipes, key=lambda recipe: len(_texts(recipe.get("recipeIngredient") or recipe.get("ingredients"))))
    )


def _objects(page: str) -> Iterator[Any]:
    """Yield the JSON-LD of a page; a script that is broken is passed over."""
    bare = page.lstrip("\ufeff \n\r\t")
    if bare[:1] in "{[":
        scripts = [bare]
    else:
        from selectolax.lexbor import LexborHTMLParser

        scripts = [node.text() for node in LexborHTMLParser(page).css('script[type="application/ld+json"]')]
    for script in scripts:
        for text in (script, html.unescape(script)):
            try:
                yield json.loads(text, strict=False)
            except (ValueError, RecursionError):
                continue
            break


def _recipes(whole: Any, depth: int = 0) -> Iterator[Mapping[str, Any]]:
    """Recipes anywhere in it: in a list, a graph, or as a page's main thing."""
    if depth > _MOST_DEEP:
        return
    if isinstance(whole, list):
        for entry in whole:
            yield from _recipes(entry, depth + 1)
    elif isinstance(whole, Mapping):
        kinds = whole.get("@type", "")
        if "Recipe" in (kinds if isinstance(kinds, list) else [kinds]):
            yield whole
            return
        for key in ("@graph", "mainEntity", "mainEntityOfPage", "itemListElement", "item"):
            if key in whole:
                yield from _recipes(whole[key], depth + 1)


def _plain_list(recipe: Mapping[str, Any]) -> PageRecipe:
    name = _clean(recipe.get("name"))[:120]
    rows = [name] if name else []
    pieces = _pieces(recipe.get("recipeYield"))
    if pieces:
        rows.append(f"Makes {pieces} pieces")
    rows += [_clean(text) for text in _texts(recipe.get("recipeIngredient") or recipe.get("ingredients"))]
    steps = list(_steps(recipe.get("recipeInstructions")))
    rows += steps
    known_keys = {
        "@context",
        "@type",
        "@id",
        "name",
        "recipeYield",
        "recipeIngredient",
        "ingredients",
        "recipeInstructions",
    }
    unread = tuple(
        sorted(key for key, value in recipe.items() if key not in known_keys and value not in (None, "", [], {}))
    )
    return PageRecipe(text="\n".join(row for row in rows if row), unread=unread)


def _texts(value: Any) -> list[str]:
    if isinstance(value, str):
        return [part for part in value.splitlines() if part.strip()]
    return [str(entry) for entry in value if isinstance(entry, str | int | float)] if isinstance(value, list) else []


def _steps(value: Any, depth: int = 0) -> Iterator[str]:
    if depth > _MOST_DEEP:
        return
    if isinstance(value, str):
        yield from (_clean(part) for part in value.splitlines() if part.strip())
    elif isinstance(value, list):
        for entry in value:
            yield from _steps(entry, depth + 1)
    elif isinstance(value, Mapping):
        if value.get("itemListElement"):
            yield from _steps(value["itemListElement"], depth + 1)
        elif value.get("text"):
            yield _clean(value["text"])


def _pieces(value: Any) -> int | None:
    texts = value if isinstance(value, list) else [value]
    for text in texts:
        match = re.search(r"\d{1,5}", str(text)) if text is not None else None
        if match and int(match.group()):
            return int(match.group())
    return None


def _clean(text: Any) -> str:
    """Plain words: no markup, no entities."""
    if not isinstance(text, str):
        return ""
    bare = re.sub(r"<[^>]{0,200}>", " ", html.unescape(text))
    return _SPACE.sub(" ", bare.replace("\x00", " ").replace("\n", " ")).strip()[:300]


def sheet_recipe(data: bytes, name: str) -> PageRecipe:
    """Return the recipe of a table: CSV, or the first sheet of a workbook.

    A column headed as grams or amount goes before the one headed as ingredient or name; without heads, cells stand as they are.

    Raises:
        FormulaError: when the file is too large or is no table.
    """
    if len(data) > MOST_BYTES:
        raise _too_large(f"{len(data):,} bytes", f"up to {MOST_BYTES:,} bytes")
    rows = (
        [[_clean(cell) for cell in row] for row in read_first_sheet(data)]
        if name.lower().endswith((".xlsx", ".xlsm")) or data[:2] == b"PK"
        else _table(data)
    )
    rows = [row for row in rows if any(row)][:_MOST_ROWS]
    if not rows:
        raise FormulaError("the table is empty", got=name[:60], allowed="one ingredient per row", field="file")
    heads = [cell.lower() for cell in rows[0]]
    what = _column(heads, ("ingredient", "name", "what", "item"))
    much = _column(heads, ("grams", "g", "weight", "amount", "quantity"))
    if what is None:
        return PageRecipe(text="\n".join(" ".join(filter(None, row)) for row in rows), unread=())
    unit = " g" if much is not None and heads[much] in ("grams", "g", "weight") else ""
    measure = _column(heads, ("measure",))
    rows_read = []
    for row in rows[1:]:
        cells = [*row, *[""] * (len(heads) - len(row))]
        amount = f"{cells[much]}{unit if _is_number(cells[much]) else ''}" if much is not None and cells[much] else ""
        amount = amount or (cells[measure] if measure is not None else "")
        if cells[what]:
            rows_read.append(f"{amount} {cells[what]}".strip())
    used = {index for index in (what, much, measure) if index is not None}
    unread = tuple(head for n, head in enumerate(rows[0]) if n not in used and head)
    return PageRecipe(text="\n".join(rows_read), unread=unread)


def _column(heads: list[str], names: tuple[str, ...]) -> int | None:
    return next((n for name in names for n, head in enumerate(heads) if head.strip() == name), None)


def _is_number(text: str) -> bool:
    return bool(re.fullmatch(r"\d+(?:[.,]\d+)?", text.strip()))


def _table(data: bytes) -> list[list[str]]:
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("latin-1")
    if "\x00" in text:
        raise FormulaError("this file is not a table", got="data that is not text", allowed="CSV or XLSX", field="file")
    first = text.partition("\n")[0]
    split = max(",;\t", key=first.count)
    try:
        return [[_clean(cell) for cell in row] for row in csv.reader(io.StringIO(text), delimiter=split)]
    except csv.Error as error:
        raise FormulaError("the table cannot be read", got=str(error)[:80], allowed="CSV", field="file") from error


def _too_large(got: str, allowed: str) -> FormulaError:
    return FormulaError(
        "the file is too large", got=got, allowed=allowed, remedy="upload only the recipe", field="file"
    )
