"""Frozen dataclasses that are made by the hundred."""

from __future__ import annotations

from dataclasses import MISSING, fields
from typing import Any, TypeVar

T = TypeVar("T")


def in_bulk(cls: type[T]) -> type[T]:
    """Let a frozen dataclass take its fields all at once.

    Its own way sets each of them through ``object.__setattr__``, which is most of what such an object costs: an analysis has some
    four hundred. It stays frozen, and is compared, copied and written as before; the type checker still looks at every call.

    Args:
        cls: a frozen dataclass of named fields; a default that is made anew each time would be missed.

    Returns:
        The class with a fast constructor.

    Raises:
        TypeError: when a field has such a default, or need not be named.
    """
    for field in fields(cls):  # type: ignore[arg-type]  # a dataclass
        if field.default_factory is not MISSING or not field.kw_only:
            raise TypeError(f"{cls.__name__}.{field.name} must be named and have no default that is made")

    def __init__(self: T, **values: Any) -> None:  # noqa: N807 - what the dataclass itself declares
        self.__dict__.update(values)

    cls.__init__ = __init__  # type: ignore[assignment,method-assign]  # see above
    return cls
