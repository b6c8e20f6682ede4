"""What is done with a declared record: read it, write it, tell its schema, and what differs between two."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import MISSING, dataclass, fields
from functools import cache, cached_property
from typing import Any, TypeVar, get_args, get_type_hints

from substrata.base.documents.field_kinds import Kind, Where

R = TypeVar("R")
EXTRA = "extra"  # the field of a record that keeps the keys it does not know


@dataclass(frozen=True, kw_only=True)
class Declared:
    """A field of a record."""

    name: str  # of the attribute
    key: str  # in the document
    kind: Kind
    default: Any  # a value, or a callable for a mutable one; MISSING when it must be told
    fresh: bool  # the default is made anew each time

    @cached_property
    def keys(self) -> tuple[str, ...]:
        """What it is called in a document: its key, and the one it had before."""
        return (self.key, self.kind.formerly) if self.kind.formerly else (self.key,)

    @property
    def usual(self) -> Any:
        """The value where a document says nothing."""
        return self.default() if self.fresh else self.default


def _declared(record: Any) -> tuple[Declared, ...]:
    """Return the fields of a record that its document holds, in order.

    Raises:
        TypeError: when it has none.
    """
    hints = get_type_hints(record, include_extras=True)
    rows = []
    for field in fields(record):
        kinds = [part for part in get_args(hints[field.name])[1:] if isinstance(part, Kind)]
        if kinds:
            result = field.default_factory is not MISSING
            default = field.default_factory if result else field.default
            rows.append(
                Declared(name=field.name, key=kinds[0].key or field.name, kind=kinds[0], default=default, fresh=result)
            )
    if not rows:
        raise TypeError(f"{record.__name__} declares nothing")
    return tuple(rows)


declared: Callable[[Any], tuple[Declared, ...]] = cache(_declared)


def _groups_of(record: Any) -> tuple[str, ...]:
    return tuple(dict.fromkeys(f.kind.group for f in declared(record) if f.kind.group))


_groups: Callable[[Any], tuple[str, ...]] = cache(_groups_of)


def read_record(record: type[R], entry: object, where: Where, **beside: Any) -> R:
    """Make a record of an object of a document; keys that it does not know are kept in ``extra``.

    Args:
        record: a declared dataclass.
        entry: the object.
        where: its place in the document.
        beside: fields that no document holds.

    Returns:
        The record.

    Raises:
        SubstrataError: naming the field that cannot be read.
    """
    if not isinstance(entry, Mapping):
        raise where.refusal(entry, "an object with " + ", ".join(f.key for f in declared(record) if not f.kind.group))
    groups = {name: _group(entry, name, where) for name in _groups(record)}
    values: dict[str, Any] = {}
    for field in declared(record):
        home = groups[field.kind.group] if field.kind.group else entry
        value = next((home[key] for key in field.keys if key in home), None)
        # Most of a document is left out: its place is told only where something is read.
        usual = value is None and field.default is not MISSING
        values[field.name] = field.usual if usual else field.kind.read(value, where.key(field.kind.field or field.key))
    unknown = _unknown(record, entry, "") | {name: _unknown(record, home, name) for name, home in groups.items()}
    if _keeps_unknown(record):
        values[EXTRA] = unknown
    elif unknown:
        raise where.refusal(
            ", ".join(unknown), ", ".join(f.key for f in declared(record)), "has keys that are not known"
        )
    return record(**values, **beside)


def _group(entry: Mapping[str, Any], name: str, where: Where) -> Mapping[str, Any]:
    result = entry.get(name)
    if not isinstance(result, Mapping):
        raise where.key(name).refusal(result, "an object")
    return result


def _known_keys(record: Any, group: str) -> frozenset[str]:
    here = [f for f in declared(record) if f.kind.group == group]
    return frozenset(key for f in here for key in f.keys) | (frozenset(_groups(record)) if not group else frozenset())


_known: Callable[[Any, str], frozenset[str]] = cache(_known_keys)


def _unknown(record: type, entry: Mapping[str, Any], group: str) -> dict[str, Any]:
    known = _known(record, group)
    return {str(key): value for key, value in entry.items() if key not in known}


def _has_extra(record: Any) -> bool:
    """Whether a record keeps the keys that it does not know: documents of bakers do, requests refuse them."""
    return any(field.name == EXTRA for field in fields(record))


_keeps_unknown: Callable[[Any], bool] = cache(_has_extra)


def write_record(value: Any) -> dict[str, Any]:
    """Write a record as ``read_record`` reads it, with the keys that were not known."""
    record = type(value)
    extra = dict(value.extra) if _keeps_unknown(record) else {}
    written: dict[str, Any] = {}
    for field in declared(record):
        field_value = getattr(value, field.name)
        if field.kind.sparse and field.default is not MISSING and field_value == field.usual:
            continue
        home = written.setdefault(field.kind.group, {}) if field.kind.group else written
        home[field.key] = None if field_value is None else field.kind.write(field_value)
    for group in _groups(record):
        written[group] |= extra.pop(group, {})
    return written | extra


def described(kind: Kind) -> dict[str, Any]:
    """Return the schema of a kind with what is noted about it."""
    return kind.schema() | ({"description": kind.note} if kind.note else {})


def record_schema(record: type, *, open_to_nothing: bool = False) -> dict[str, Any]:
    """JSON Schema (2020-12) of a record: an object that may hold further keys."""
    top = _object_schema(record, "")
    for group in _groups(record):
        top["properties"][group] = _object_schema(record, group)
        top["required"] = [*top.get("required", ()), group]
    return top | {"type": ["object", "null"]} if open_to_nothing else top


def _object_schema(record: type, group: str) -> dict[str, Any]:
    here = [f for f in declared(record) if f.kind.group == group]
    required = [f.key for f in here if f.kind.required]
    properties = {f.key: described(f.kind) for f in here}
    table: dict[str, Any] = {"type": "object", "additionalProperties": True, "properties": properties}
    return table | ({"required": required} if required else {})


def described_differences(before: Any, after: Any) -> Iterator[str]:
    """Yield what is set otherwise in one of two records of a kind: ``oven as usual → 200 °C``."""
    for field in declared(type(before)):
        was, now = getattr(before, field.name), getattr(after, field.name)
        if field.kind.label and was != now:
            yield f"{field.kind.label} {field.kind.words(was)} → {field.kind.words(now)}"
