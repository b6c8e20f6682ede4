"""Cells of a table that some spreadsheet will open."""

from __future__ import annotations

from typing import Any

_BEGINS_A_FORMULA = ("=", "+", "-", "@", "\t", "\r")


def safe_cell(value: Any) -> Any:
    """Return a value that no spreadsheet takes for a formula; nothing for None.

    >>> safe_cell("=1+1"), safe_cell(-3), safe_cell(None)
    ("'=1+1", -3, '')
    """
    if isinstance(value, str) and value[:1] in _BEGINS_A_FORMULA:
        return f"'{value}"
    return "" if value is None else value
