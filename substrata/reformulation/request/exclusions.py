"""What can be left out of a formula, and what is lost with it (``exclusions.csv``)."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache

from substrata.base.tables.table_reader import read_table
from substrata.ingredients.ingredient import Ingredient


@dataclass(frozen=True, kw_only=True)
class Exclusion:
    """Something that some eaters do not eat."""

    id: str
    name: str
    claim: str  # what can be said once it is out; "" where nothing is
    flags: frozenset[str]  # "nut:" stands for every flag that begins so
    ingredients: frozenset[str]
    lost: str  # what the dough loses with it

    def holds(self, ingredient: Ingredient) -> bool:
        """Whether an ingredient, or the pack of one, is excluded."""
        if ingredient.id in self.ingredients:
            return True
        return any(_matches(flag, has_flag) for flag in self.flags for has_flag in ingredient.flags)


def _matches(flag: str, has_flag: str) -> bool:
    return has_flag.startswith(flag) if flag.endswith(":") else has_flag == flag


@cache
def exclusions() -> dict[str, Exclusion]:
    """All exclusions by id."""
    return {
        row.text("exclusion"): Exclusion(
            id=row.text("exclusion"),
            name=row.text("name"),
            claim=row.text("claim"),
            flags=frozenset(row.text("flags").split()),
            ingredients=frozenset(row.text("ingredients").split()),
            lost=row.text("lost"),
        )
        for row in read_table("exclusions.csv")
    }


def excluded_by(ingredient: Ingredient, without: Iterable[str]) -> tuple[Exclusion, ...]:
    """Which of some exclusions an ingredient falls under."""
    return tuple(exclusions()[key] for key in without if exclusions()[key].holds(ingredient))
