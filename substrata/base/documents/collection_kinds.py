"""The kinds of values that hold others: a record, a list of records, values by name, a set of words."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from substrata.base.documents.field_kinds import AS_USUAL, Kind, Number, Where
from substrata.base.documents.records import described, read_record, record_schema, write_record


@dataclass(frozen=True, kw_only=True)
class Nested(Kind):
    """A record of its own."""

    record: type
    optional: bool = False  # null is a value of its own
    describe: Callable[[Any], str] = str  # in the words of a difference

    def read(self, value: object, where: Where) -> Any:
        """Read the record."""
        return read_record(self.record, value, where)

    def write(self, value: Any) -> Any:
        """Write the record as an object."""
        return write_record(value)

    def schema(self) -> dict[str, Any]:
        """Return an object."""
        return record_schema(self.record, open_to_nothing=self.optional)

    def plain(self) -> Any:
        """Return the record: a model of it is made where this is read."""
        return self.record | None if self.optional else self.record

    def words(self, value: Any) -> str:
        """Return the record in a few words."""
        return self.describe(value)


@dataclass(frozen=True, kw_only=True)
class Listed(Kind):
    """A list of records."""

    item: type
    most: int
    named_by: str = ""  # the key that names an entry in refusals; "" counts them
    describe: Callable[[Any], str] = str
    many: str = ""  # what a refusal calls too many of them

    def read(self, value: object, where: Where) -> tuple[Any, ...]:
        """Read the records."""
        if not isinstance(value, list):
            raise where.refusal(value, f"a list of up to {self.most}")
        if len(value) > self.most:
            raise where.refusal(str(len(value)), f"up to {self.most}", "too many", "remove some")
        return tuple(self._entry(entry, where, number) for number, entry in enumerate(value, 1))

    def _entry(self, entry: object, where: Where, number: int) -> Any:
        if not self.named_by:
            return read_record(self.item, entry, where.key(str(number)))
        unnamed = replace(where, line=f"line {number}")
        if not isinstance(entry, Mapping):
            raise unnamed.refusal(entry, "an object for each line")
        name = entry.get(self.named_by)
        return read_record(
            self.item, entry, replace(unnamed, field="", line=name if name and isinstance(name, str) else unnamed.line)
        )

    def write(self, value: Any) -> Any:
        """Write the records as objects."""
        return [write_record(entry) for entry in value]

    def schema(self) -> dict[str, Any]:
        """Return an array."""
        return {"type": "array", "maxItems": self.most, "items": record_schema(self.item)}

    def plain(self) -> Any:
        """Return a list of the records."""
        return list[self.item]  # type: ignore[name-defined]  # the record is known when this runs

    def words(self, value: Any) -> str:
        """Return the records, one after the other."""
        return ", ".join(map(self.describe, value)) or AS_USUAL


@dataclass(frozen=True, kw_only=True)
class Named(Kind):
    """Values of one kind by name."""

    item: Kind
    names: Sequence[str] | None = None  # None takes any
    blank: tuple[Any, ...] = (None,)  # values that are as if they were left out

    def read(self, value: object, where: Where) -> dict[str, Any]:
        """Read the values."""
        if not isinstance(value, Mapping):
            raise where.refusal(value, "values by name")
        strange = [str(name) for name in value if self.names is not None and name not in self.names]
        if strange:
            raise where.refusal(", ".join(strange), ", ".join(self.names or ()))
        return {
            str(name): self.item.read(entry, where.key(str(name)))
            for name, entry in value.items()
            if entry not in self.blank
        }

    def write(self, value: Any) -> Any:
        """Write the values as an object."""
        return {name: self.item.write(entry) for name, entry in value.items()}

    def schema(self) -> dict[str, Any]:
        """Return an object."""
        names = {"propertyNames": {"enum": list(self.names)}} if self.names is not None else {}
        return {"type": "object", **names, "additionalProperties": described(self.item)}

    def plain(self) -> Any:
        """Return a mapping."""
        inner = self.item.plain()
        return dict[str, inner | None if isinstance(self.item, Number) else inner]  # type: ignore[misc]  # known when this runs


@dataclass(frozen=True, kw_only=True)
class Texts(Kind):
    """Short texts: a set, or in their order."""

    most: int
    ordered: bool = False

    def read(self, value: object, where: Where) -> frozenset[str] | tuple[str, ...]:
        """Read the texts."""
        if not isinstance(value, list) or not all(isinstance(text, str) for text in value):
            raise where.refusal(value, "a list of strings")
        if len(value) > self.most:
            raise where.refusal(str(len(value)), f"up to {self.most}", "too many", "remove some")
        return tuple(value) if self.ordered else frozenset(value)

    def write(self, value: Any) -> Any:
        """In their order, a set by the alphabet."""
        return list(value) if self.ordered else sorted(value)

    def schema(self) -> dict[str, Any]:
        """Return an array of them."""
        return {"type": "array", "items": {"type": "string"}, "maxItems": self.most}

    def plain(self) -> Any:
        """Return a list."""
        return list[str]


@dataclass(frozen=True, kw_only=True)
class Words(Kind):
    """Some of a set of words."""

    options: Callable[[], Sequence[str]]

    def read(self, value: object, where: Where) -> frozenset[str]:
        """Read the words."""
        allowed = self.options()
        if not isinstance(value, list):
            raise where.refusal(value, ", ".join(allowed))
        strange = [word for word in value if word not in allowed]
        if strange:
            raise where.refusal(strange, ", ".join(allowed))
        return frozenset(value)

    def write(self, value: Any) -> Any:
        """In order."""
        return sorted(value)

    def schema(self) -> dict[str, Any]:
        """Return an array of them."""
        return {"type": "array", "items": {"enum": list(self.options())}}

    def plain(self) -> Any:
        """Return a list."""
        return list[str]
