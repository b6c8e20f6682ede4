"""The kinds of single values that a field of a document may hold: text, number, count, switch, word, day."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date
from math import isfinite
from typing import Any

from substrata.base.errors import FormulaError, SubstrataError

AS_USUAL = "as usual"


@dataclass(frozen=True, kw_only=True)
class Where:
    """The place of a value in a document, for the refusal that names it."""

    field: str = ""  # dotted: "bake.stages.2.minutes"
    line: str | None = None  # id of the formula's line it stands in
    error: type[SubstrataError] = FormulaError

    def key(self, name: str) -> Where:
        """Return the place of a key inside this one."""
        field = f"{self.field}.{name}" if self.field else name
        return Where(field=field, line=self.line, error=self.error)

    def refusal(self, got: object, allowed: str, what: str = "cannot be read", remedy: str = "") -> SubstrataError:
        """Return the refusal of a value, to be raised by the caller."""
        return self.error(
            f"{self.field} {what}",
            got=got[:60] if isinstance(got, str) else repr(got)[:60],
            allowed=allowed,
            field=self.field,
            line=self.line,
            remedy=remedy or f"correct {self.field}",
        )


@dataclass(frozen=True, kw_only=True)
class Kind:
    """What a field may hold. A null is read as if the key were left out."""

    label: str = ""  # its name in the words of a difference; "" for a field whose changes are told elsewhere
    note: str = ""  # its description in the schema
    required: bool = False  # the schema wants the key
    sparse: bool = False  # left out of the written document while it has its default
    group: str = ""  # object of the document that it stands in, where the record is flat
    key: str = ""  # its key there; "" for the field's own name
    formerly: str = ""  # a key it had in older documents, which is still read
    field: str = ""  # what refusals call it; "" for its place

    def read(self, value: object, where: Where) -> Any:
        """Read the value of a document.

        Raises:
            SubstrataError: of the place's kind, when it cannot be.
        """
        raise NotImplementedError

    def write(self, value: Any) -> Any:
        """Return the value as a document holds it."""
        return value

    def schema(self) -> dict[str, Any]:
        """Its JSON Schema (2020-12)."""
        raise NotImplementedError

    def plain(self) -> Any:
        """Return the Python type of its JSON, for a model that leaves the values to the reader."""
        raise NotImplementedError

    def words(self, value: Any) -> str:
        """Return the value in the words of a difference."""
        return str(value) if value not in (None, "") else AS_USUAL


@dataclass(frozen=True, kw_only=True)
class Text(Kind):
    """Text without control characters that no database keeps."""

    most: int = 120
    least: int = 0

    def read(self, value: object, where: Where) -> str:
        """Read the text."""
        if not isinstance(value, str) or len(value) < self.least:
            raise where.refusal(value, "text" if not self.least else "a short text")
        if "\x00" in value:
            raise where.refusal(value, "text without control characters")
        if len(value) > self.most:
            raise where.refusal(f"{len(value)} characters", f"up to {self.most}", "is too long", "shorten it")
        return value

    def schema(self) -> dict[str, Any]:
        """Return a string."""
        return {"type": "string", **({"minLength": self.least} if self.least else {}), "maxLength": self.most}

    def plain(self) -> Any:
        """Return a string."""
        return str


def is_number(value: object) -> bool:
    """Whether a value of a document is a finite number; a truth value is none."""
    if isinstance(value, bool) or not isinstance(value, int | float):
        return False
    try:
        return isfinite(value)
    except OverflowError:  # more digits than any scale has
        return False


@dataclass(frozen=True, kw_only=True)
class Number(Kind):
    """A finite number between bounds."""

    low: float | None = None
    high: float | None = None
    unit: str = ""
    above: bool = False  # the low bound itself is not reached
    soft: bool = False  # what lies outside is kept here, and told where it is used
    optional: bool = True  # null is a value of its own

    @property
    def allowed(self) -> str:
        """The bounds in words."""
        unit = f" {self.unit}" if self.unit else ""
        if self.low is None or self.high is None or self.soft:
            return f"a finite number{f' of{unit}' if unit else ''}"
        return f"{f'more than {self.low:g}, up to' if self.above else f'{self.low:g} to'} {self.high:g}{unit}"

    def read(self, value: object, where: Where) -> float:
        """Read the number."""
        if not is_number(value):
            raise where.refusal(value, self.allowed)
        number = float(value)  # type: ignore[arg-type]  # is_number has looked
        if not self.soft and self._outside(number):
            raise where.refusal(value, self.allowed)
        return number

    def _outside(self, number: float) -> bool:
        too_low = self.low is not None and (number <= self.low if self.above else number < self.low)
        return too_low or (self.high is not None and number > self.high)

    def schema(self) -> dict[str, Any]:
        """Return a number."""
        bounds: dict[str, Any] = {"type": ["number", "null"] if self.optional else "number"}
        if self.low is not None:
            bounds["exclusiveMinimum" if self.above else "minimum"] = self.low
        return bounds | ({"maximum": self.high} if self.high is not None else {})

    def plain(self) -> Any:
        """Return a number or nothing."""
        return float | None if self.optional else float

    def words(self, value: Any) -> str:
        """Return the number with its unit."""
        return AS_USUAL if value is None else f"{value:g} {self.unit}".rstrip()


@dataclass(frozen=True, kw_only=True)
class Whole(Kind):
    """A count."""

    low: int
    high: int
    optional: bool = False

    def read(self, value: object, where: Where) -> int:
        """Read the count; 6.0 is 6."""
        if not is_number(value) or value not in range(self.low, self.high + 1):
            raise where.refusal(
                value,
                f"a whole number from {self.low} to {self.high}",
                "cannot be counted",
                "enter a number",
            )
        return int(value)  # type: ignore[call-overload,no-any-return]  # is_number has looked

    def schema(self) -> dict[str, Any]:
        """Return an integer."""
        kind = ["integer", "null"] if self.optional else "integer"
        return {"type": kind, "minimum": self.low, "maximum": self.high}

    def plain(self) -> Any:
        """Return a number: what is no count is refused by the reader."""
        return int | float | None if self.optional else int | float


@dataclass(frozen=True, kw_only=True)
class Flag(Kind):
    """On or off."""

    optional: bool = False  # null is a value of its own: as before

    def read(self, value: object, where: Where) -> bool:
        """Read the switch."""
        if not isinstance(value, bool):
            raise where.refusal(value, "true, false, or empty" if self.optional else "true or false")
        return value

    def schema(self) -> dict[str, Any]:
        """Return a boolean."""
        return {"type": ["boolean", "null"] if self.optional else "boolean"}

    def plain(self) -> Any:
        """Return a boolean."""
        return bool | None if self.optional else bool

    def words(self, value: Any) -> str:
        """On, off, or as usual."""
        return AS_USUAL if value is None else "on" if value else "off"


@dataclass(frozen=True, kw_only=True)
class Word(Kind):
    """One of some words; the empty word leaves it open."""

    options: Sequence[str] | Callable[[], Sequence[str]]
    what: str = ""  # what a refusal says is wrong with a word that is none of them

    @property
    def choices(self) -> tuple[str, ...]:
        """The words."""
        return tuple(self.options() if callable(self.options) else self.options)

    def read(self, value: object, where: Where) -> str:
        """Read the word."""
        if value not in self.choices:
            allowed = [word or "nothing" for word in self.choices]
            raise where.refusal(value, ", ".join(sorted(allowed, key="nothing".__eq__)), self.what or "cannot be read")
        return str(value)

    def schema(self) -> dict[str, Any]:
        """Return an enumeration."""
        return {"enum": list(self.choices)}

    def plain(self) -> Any:
        """Return a string."""
        return str


@dataclass(frozen=True, kw_only=True)
class Day(Kind):
    """A day, or nothing."""

    def read(self, value: object, where: Where) -> date | None:
        """Read the day; an empty text is none."""
        if value == "":
            return None
        try:
            return date.fromisoformat(value)  # type: ignore[arg-type]  # what is no text is a TypeError
        except (TypeError, ValueError):
            raise where.refusal(value, "a date such as 2026-04-30") from None

    def write(self, value: Any) -> Any:
        """As ISO 8601."""
        return value and value.isoformat()

    def schema(self) -> dict[str, Any]:
        """Return a date."""
        return {"type": ["string", "null"], "format": "date"}

    def plain(self) -> Any:
        """Return a string or nothing."""
        return str | None
