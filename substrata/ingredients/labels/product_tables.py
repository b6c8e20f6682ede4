"""Files of products as tables: CSV with any separator, and JSON of any depth."""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from substrata.base.errors import LabelError

FileKind = Literal["csv", "json"]


MOST_ROWS = 20_000


MOST_COLUMNS = 400


_DEEPEST = 6  # levels of a JSON product that are looked into


@dataclass(frozen=True, kw_only=True)
class Table:
    """A file as rows of text."""

    headers: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    first_number: int  # number of the first row as the file shows it


def read_file(text: str, kind: FileKind) -> Table:
    """Split a file into rows.

    Returns:
        The table with its headers.

    Raises:
        LabelError: when it is not what it says, is empty or too large.
    """
    table = _read_csv(text) if kind == "csv" else _read_json(text)
    if not table.rows:
        raise LabelError("the file holds no products", got="no rows", allowed="one product per row", field="file")
    if len(table.rows) > MOST_ROWS or len(table.headers) > MOST_COLUMNS:
        got = f"{len(table.rows)} rows, {len(table.headers)} columns"
        allowed = f"up to {MOST_ROWS} rows, {MOST_COLUMNS} columns"
        raise LabelError("the file is too large", got=got, allowed=allowed, remedy="split it", field="file")
    return table


def _read_csv(text: str) -> Table:
    text = text.removeprefix("\ufeff").replace("\x00", "")
    head = text[:4_000].partition("\n")[0]
    delimiter = max(",;\t|", key=head.count)
    try:
        lines = list(csv.reader(io.StringIO(text), delimiter=delimiter, strict=True))
    except csv.Error as error:
        raise LabelError(
            "this file is not valid CSV", got=str(error)[:80], remedy="save it as CSV again", field="file"
        ) from error
    lines = [row for row in lines if any(cell.strip() for cell in row)]
    if not lines:
        return Table(headers=(), rows=(), first_number=2)
    width = len(lines[0])
    rows = tuple(tuple((*row, *[""] * width)[:width]) for row in lines[1:])
    return Table(headers=tuple(cell.strip() for cell in lines[0]), rows=rows, first_number=2)


def _read_json(text: str) -> Table:
    try:
        whole = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise LabelError(
            "this file is not valid JSON", got=str(error)[:80], remedy="check how the file was saved", field="file"
        ) from error
    products = _products(whole)
    if products and all("substrata_pack" in product for product in products):
        documents = tuple((json.dumps(product),) for product in products)
        return Table(headers=("pack document",), rows=documents, first_number=1)
    flat = [dict(_flattened(product, "", 0)) for product in products[: MOST_ROWS + 1]]
    headers = tuple(dict.fromkeys(key for product in flat for key in product))
    rows = tuple(tuple(product.get(key, "") for key in headers) for product in flat)
    return Table(headers=headers, rows=rows, first_number=1)


def _products(whole: object) -> list[Mapping[str, Any]]:
    """Return the list of products in a JSON file, wherever it stands."""
    if isinstance(whole, Mapping):
        for key in ("products", "product", "packs", "items", "foods", "@graph", "data"):
            if isinstance(whole.get(key), list | Mapping):
                return _products(whole[key])
        return [whole]
    return [item for item in whole if isinstance(item, Mapping)] if isinstance(whole, list) else []


def _flattened(value: object, path: str, depth: int) -> Iterator[tuple[str, str]]:
    if isinstance(value, Mapping) and depth < _DEEPEST:
        for key, inner in value.items():
            yield from _flattened(inner, f"{path}.{key}" if path else str(key), depth + 1)
    elif isinstance(value, list):
        if all(isinstance(item, str | int | float) for item in value):
            yield path, ", ".join(map(str, value))
    elif isinstance(value, str | int | float) and not isinstance(value, bool):
        yield path, str(value)
