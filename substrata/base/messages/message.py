"""A message: what is to be said, as a key of the catalog with typed values."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from functools import lru_cache
from typing import Any

from fluent.runtime.types import FluentType

from substrata.base.messages.catalog import rendered
from substrata.base.messages.quantity import Quantity
from substrata.base.messages.reader import Reader, current_reader


class Message(FluentType):
    """A sentence or a part of one, rendered when it is read.

    Two messages are equal when key and values are. ``str(message)`` renders it for the current reader.

    >>> str(Message("list-last", most="egg, water", last="oil"))
    'egg, water and oil'

    Args:
        key: in the catalog.
        **values: names, counts, quantities, lists, other messages.
    """

    __slots__ = ("key", "values")

    def __init__(self, key: str, /, **values: Value) -> None:
        self.key = key
        self.values = tuple(values.items())

    def __str__(self) -> str:
        return _rendered(self, current_reader())

    def format(self, locale: object = None) -> str:  # noqa: ARG002 - Fluent's signature
        """Return the message inside another one."""
        return str(self)

    def __format__(self, spec: str) -> str:
        return format(str(self), spec)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Message) and (self.key, self.values) == (other.key, other.values)

    def __hash__(self) -> int:
        return hash((self.key, self.values))

    def __repr__(self) -> str:
        return f"Message({self.key!r}, {', '.join(f'{name}={value!r}' for name, value in self.values)})"


class Listing(FluentType):
    """Names as a sentence lists them: "egg, water, and oil".

    Args:
        names: words or messages, in their order.
    """

    __slots__ = ("names",)

    def __init__(self, names: Iterable[str | Message]) -> None:
        self.names = tuple(names)

    def __str__(self) -> str:
        return listed([str(name) for name in self.names])

    def format(self, locale: object = None) -> str:  # noqa: ARG002 - Fluent's signature
        """Return the names inside a message."""
        return str(self)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Listing) and self.names == other.names

    def __hash__(self) -> int:
        return hash(self.names)


class Joined(Message):
    """Texts one after the other, with a separator that no language changes.

    Args:
        parts: words or messages; empty ones are left out.
        separator: what stands between two.
    """

    __slots__ = ("parts", "separator")

    def __init__(self, parts: Iterable[str | Message], separator: str = " ") -> None:
        self.parts = tuple(part for part in parts if part != "")
        self.separator = separator
        super().__init__("joined")

    def __str__(self) -> str:
        return self.separator.join(filter(None, map(str, self.parts)))

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Joined) and (self.parts, self.separator) == (other.parts, other.separator)

    def __hash__(self) -> int:
        return hash((self.parts, self.separator))

    def __bool__(self) -> bool:
        return bool(self.parts)


Value = str | int | float | Quantity | Listing | Message
Wording = str | Message  # words for people: a message, or a name that is written as it is


def listed(names: Sequence[str]) -> str:
    """Join names as the current reader's language lists them.

    >>> listed(["salt"]), listed(["egg", "water", "oil"])
    ('salt', 'egg, water and oil')

    Returns:
        The names with commas, and the word of the catalog before the last.
    """
    if len(names) < 2:
        return "".join(names)
    return str(Message("list-last", most=", ".join(names[:-1]), last=names[-1]))


@lru_cache(maxsize=8192)
def _rendered(message: Message, reader: Reader) -> str:
    """Return a message in the reader's words; what was rendered before is not worked out again."""
    values: dict[str, Any] = dict(message.values)
    return rendered(message.key, values, reader.language)


class Capitalized(Message):
    """A text with a capital first letter, where it begins a sentence.

    Args:
        text: word or message.
    """

    __slots__ = ("text",)

    def __init__(self, text: Wording) -> None:
        self.text = text
        super().__init__("capitalized")

    def __str__(self) -> str:
        text = str(self.text)
        return text[:1].upper() + text[1:]

    def __eq__(self, other: object) -> bool:
        return type(other) is type(self) and self.text == other.text

    def __hash__(self) -> int:
        return hash((type(self), self.text))


class Uncapitalized(Capitalized):
    """A text with a small first letter, where it stands inside a sentence."""

    __slots__ = ()

    def __str__(self) -> str:
        text = str(self.text)
        return text[:1].lower() + text[1:]


class Unstopped(Capitalized):
    """A sentence without its full stop, where it heads a row."""

    __slots__ = ()

    def __str__(self) -> str:
        return str(self.text).rstrip(".")
