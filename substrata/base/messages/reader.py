"""Who reads: the language and the units in which messages are rendered."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass

SOURCE_LANGUAGE = "en-US"


@dataclass(frozen=True, kw_only=True)
class Reader:
    """A person's language and a kitchen's units."""

    language: str = SOURCE_LANGUAGE
    units: str = "metric"  # or "us", as the kitchen's setting


_READER: ContextVar[Reader] = ContextVar("reader", default=Reader())  # noqa: B039 - frozen


def current_reader() -> Reader:
    """Return for whom messages are rendered here and now."""
    return _READER.get()


def read_by(reader: Reader) -> None:
    """Render messages for this reader from here on, in this thread or task."""
    _READER.set(reader)


@contextmanager
def reading(reader: Reader) -> Iterator[None]:
    """Render messages for this reader within a block.

    >>> with reading(Reader(units="us")):
    ...     current_reader().units
    'us'

    Yields:
        Nothing.
    """
    token = _READER.set(reader)
    try:
        yield
    finally:
        _READER.reset(token)
