"""Read the shipped CSV tables of ``substrata/data``, each row with its line number.

Numbers that are knowledge live in those files with unit, source and note; code reads them by name.
"""

from __future__ import annotations

import csv
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from math import isfinite

from substrata.base.errors import LibraryError
from substrata.base.uncertainty import Spread


@dataclass(frozen=True, kw_only=True)
class Row:
    """One line of a table."""

    table: str  # file name
    number: int  # line number in the file, header = 1
    cells: dict[str, str]

    def text(self, column: str) -> str:
        """Return the cell as text.

        Raises:
            LibraryError: when the column is missing from this line.
        """
        value = self.cells.get(column)
        if value is None:
            raise self.error(f"column {column} is missing", got="a short line")
        return value.strip()

    def number_in(self, column: str, low: float = float("-inf"), high: float = float("inf")) -> float:
        """Return the cell as a finite number within ``low .. high``.

        Raises:
            LibraryError: when it is no number, not finite or outside the bounds.
        """
        text = self.text(column)
        try:
            value = float(text)
        except ValueError:
            raise self.error(f"{column} is not a number", got=repr(text)) from None
        if not isfinite(value) or not low <= value <= high:
            raise self.error(f"{column} is out of range", got=text, allowed=f"{low:g} to {high:g}")
        return value

    def spread(self, low: str = "low", value: str = "typical", high: str = "high") -> Spread:
        """Three cells as an ordered spread.

        Returns:
            Low, best and high in order.

        Raises:
            LibraryError: when low <= value <= high does not hold.
        """
        result = Spread(low=self.number_in(low), value=self.number_in(value), high=self.number_in(high))
        if not result.low <= result.value <= result.high:
            raise self.error(
                "the range is not ordered",
                got=f"{result.low:g}, {result.value:g}, {result.high:g}",
                allowed=f"{low} <= {value} <= {high}",
            )
        return result

    def error(self, what: str, *, got: str = "", allowed: str = "") -> LibraryError:
        """Return a refusal that names this file and line."""
        return LibraryError(
            f"{self.table} line {self.number}: {what}",
            got=got,
            allowed=allowed,
            remedy="correct the line in the table",
        )


def rows_of(text: str, table: str) -> list[Row]:
    """Split CSV text into rows with line numbers (a quoted cell may span lines)."""
    reader = csv.DictReader(text.splitlines(keepends=True))
    return [Row(table=table, number=reader.line_num, cells=cells) for cells in reader]


@cache
def read_table(name: str) -> tuple[Row, ...]:
    """Read a shipped table by file name."""
    text = files("substrata").joinpath("data", name).read_text(encoding="utf8")
    return tuple(rows_of(text, name))


@cache
def constant(name: str) -> float:
    """Return a named constant from ``constants.csv``.

    Raises:
        LibraryError: when no constant has this name.
    """
    for row in read_table("constants.csv"):
        if row.text("name") == name:
            return row.spread(value="value").value
    raise LibraryError(f"constants.csv: no constant named {name}", remedy="add it to the table")


def whole_constant(name: str) -> int:
    """Return a named constant that counts things or minutes, as a whole number.

    Raises:
        LibraryError: when no constant has this name, or it is not whole.
    """
    value = constant(name)
    if value != int(value):
        raise LibraryError(
            f"constants.csv: {name} is not whole", got=f"{value:g}", remedy="correct the line in the table"
        )
    return int(value)
