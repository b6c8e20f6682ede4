"""A list of bakes as a table: what is to be ready when, and how much of it."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from substrata.base.errors import FormulaError
from substrata.formula.exchange.spreadsheet_cells import safe_cell
from substrata.scheduling.plans.plan_document import MOST_BAKES

COLUMNS = ("formula", "ready", "batches", "fresh_h")
_NAMES = {
    "formula": ("formula", "bake", "name", "what", "product"),
    "ready": ("ready", "due", "ready by", "when", "deadline"),
    "batches": ("batches", "batch", "times", "how many", "amount"),
    "fresh_h": ("fresh_h", "fresh", "within", "within h"),
}
MOST_TEXT = 200_000  # characters


@dataclass(frozen=True, kw_only=True)
class BakeRow:
    """One bake that is asked for."""

    row: int  # as the file shows it
    formula: str  # by name
    ready: str  # date and time, ISO 8601
    batches: float
    fresh_h: float | None


def read_bakes(text: str) -> tuple[BakeRow, ...]:
    r"""Read a table of bakes; its columns may stand in any order and be parted by comma, semicolon or tab.

    >>> read_bakes("formula;ready;batches\nRolls;2026-11-28 14:00;1,5")[0].batches
    1.5

    Returns:
        The bakes in the order of the table.

    Raises:
        FormulaError: naming the row that cannot be read.
    """
    if len(text) > MOST_TEXT:
        raise FormulaError(
            "the list is too long", got=f"{len(text)} characters", allowed=f"up to {MOST_TEXT}", field="text"
        )
    head = text.lstrip("\ufeff").partition("\n")[0]
    parted = max(";\t,", key=head.count)
    try:
        rows = list(csv.reader(io.StringIO(text.lstrip("\ufeff"), newline=None), delimiter=parted))
    except csv.Error as error:
        raise FormulaError(
            "this file is not a table", got=str(error)[:80], remedy="save it as CSV again", field="text"
        ) from error
    known = [_column(name) for name in rows[0]] if rows else []
    if "formula" not in known or "ready" not in known:
        raise FormulaError(
            "the list has no columns for the formula and the ready time",
            got=", ".join(rows[0])[:80] if rows else "nothing",
            allowed="formula, ready, and if you like batches, fresh_h",
            remedy="name the columns in the first row",
            field="text",
        )
    bakes = [
        _read(number, dict(zip(known, (cell.strip() for cell in cells), strict=False)))
        for number, cells in enumerate(rows[1:], 2)
        if any(cell.strip() for cell in cells)
    ]
    if not 1 <= len(bakes) <= MOST_BAKES:
        raise FormulaError(
            "the number of bakes in one plan is not possible",
            got=str(len(bakes)),
            allowed=f"1 to {MOST_BAKES}",
            remedy="split the list by day",
            field="text",
        )
    return tuple(bakes)


def _column(name: str) -> str:
    plain = name.strip().lower()
    return next((key for key, names in _NAMES.items() if plain in names), "")


def _read(number: int, cells: dict[str, str]) -> BakeRow:
    ready = cells.get("ready", "").replace(" ", "T", 1)
    try:
        datetime.fromisoformat(ready)
    except ValueError:
        raise _bad(number, "the ready time is not valid", cells.get("ready", ""), "2026-11-28 14:00") from None
    batches, fresh = _number(number, cells.get("batches", "")), _number(number, cells.get("fresh_h", ""))
    if not cells.get("formula"):
        raise _bad(number, "no formula is named", "nothing", "the name of a formula")
    if batches is not None and not 0.05 <= batches <= 200:
        raise _bad(number, "too many batches", f"{batches:g}", "0.05 to 200")
    return BakeRow(
        row=number, formula=cells["formula"], ready=ready, batches=1.0 if batches is None else batches, fresh_h=fresh
    )


def _number(number: int, text: str) -> float | None:
    if not text:
        return None
    try:
        value = float(text.replace(",", "."))
    except ValueError:
        value = -1.0
    if not 0 <= value < 1e6:
        raise _bad(number, "the number cannot be read", text, "a number such as 1 or 1.5")
    return value


def _bad(number: int, what: str, got: str, allowed: str) -> FormulaError:
    return FormulaError(f"row {number}: {what}", got=got[:60], allowed=allowed, remedy="fix this row", field="text")


def write_bakes(rows: Sequence[BakeRow]) -> str:
    """Write the same table; ``read_bakes`` of it gives the same rows."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    for row in rows:
        writer.writerow([safe_cell(getattr(row, column)) for column in COLUMNS])
    return out.getvalue()
