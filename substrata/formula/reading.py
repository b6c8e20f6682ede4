"""Reading the values of a document: finite numbers within bounds, and the one refusal that names what cannot be read."""

from __future__ import annotations

from math import isfinite

from substrata.errors import FormulaError


def unreadable(field: str, got: object, allowed: str, line: str | None = None) -> FormulaError:
    """The refusal of a value, to be raised by the caller."""
    return FormulaError(
        f"{field} cannot be read",
        got=repr(got)[:60],
        allowed=allowed,
        field=field,
        line=line,
        remedy=f"correct {field}",
    )


def finite(value: object, field: str, line: str | None = None) -> float:
    """A finite number.

    Raises:
        FormulaError: when it is anything else, a truth value included.
    """
    if isinstance(value, bool) or not isinstance(value, int | float) or not isfinite(value):
        raise unreadable(field, value, "a finite number", line)
    return float(value)


def finite_or_none(value: object, field: str, line: str | None = None) -> float | None:
    """A finite number, or nothing.

    Raises:
        FormulaError: when it is anything else.
    """
    return None if value is None else finite(value, field, line)
