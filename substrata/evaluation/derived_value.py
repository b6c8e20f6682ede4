"""A value of a dough that is worked out when it is first asked for, and knows which changes spoil it."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Generic, Literal, TypeVar, overload

Change = Literal["grams", "capacity", "rest", "temperature", "thickness", "oven", "loss"]
T = TypeVar("T")


class Worked(Generic[T]):
    """Like ``cached_property``; ``spoiled_by`` names the changes after which it has to be worked out anew."""

    def __init__(self, work: Callable[[Any], T], spoiled_by: frozenset[Change]) -> None:
        self.work, self.spoiled_by = work, spoiled_by
        self.name = work.__name__
        self.__doc__ = work.__doc__

    @overload
    def __get__(self, dough: None, owner: type) -> Worked[T]: ...
    @overload
    def __get__(self, dough: object, owner: type) -> T: ...
    def __get__(self, dough: object | None, owner: type) -> Worked[T] | T:
        """Return the value; kept in the dough's own dictionary, which is looked into before this is asked again."""
        if dough is None:
            return self
        value = dough.__dict__[self.name] = self.work(dough)
        return value


def worked(*spoiled_by: Change) -> Callable[[Callable[[Any], T]], Worked[T]]:
    """Make a method a value that is worked out once."""
    return lambda work: Worked(work, frozenset(spoiled_by))
