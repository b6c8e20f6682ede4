"""What can be set on the Prep station: the choices of a table, each a number between bounds or one of some words."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any

from substrata.base.documents.field_kinds import Kind, Number, Where, Word
from substrata.base.tables.table_reader import Row, read_table

_MOST_WORD = 200
_MOST_KEY = 60


@cache
def prep_choices() -> dict[str, Row]:
    """Return what can be set on the Prep station, by name."""
    return {row.text("choice"): row for row in read_table("prep_choices.csv")}


@cache
def choice_kind(key: str) -> Kind | None:
    """Return what a choice may hold; None for one that is not known."""
    row = prep_choices().get(key)
    if row is None:
        return None
    if row.text("words"):
        return Word(options=row.text("words").split())
    return Number(low=row.number_in("low"), high=row.number_in("high"), unit=row.text("unit"), optional=False)


@dataclass(frozen=True, kw_only=True)
class PrepChoices(Kind):
    """Choices by name; unknown names are kept as they are if they are numbers or words."""

    def read(self, value: object, where: Where) -> dict[str, float | str]:
        """Read the choices."""
        if not isinstance(value, Mapping):
            raise where.refusal(value, "an object of choices")
        return {
            str(k)[:_MOST_KEY]: _choice(str(k), entry, where.key(str(k)))
            for k, entry in value.items()
            if entry is not None
        }

    def write(self, value: Any) -> Any:
        """As an object."""
        return dict(value)

    def schema(self) -> dict[str, Any]:
        """Return an object."""
        return {"type": "object", "additionalProperties": True}

    def plain(self) -> Any:
        """Numbers and words by name."""
        return dict[str, float | str]


def _choice(key: str, value: object, where: Where) -> float | str:
    kind = choice_kind(key)
    if kind is None and isinstance(value, str) and len(value) <= _MOST_WORD:
        return value
    result: float | str = (kind or Number()).read(value, where)
    return result
