"""Groups of ingredients that act alike in one respect, from ``groups.csv``: gums, whey powders, eggs, tap water."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from substrata.base.errors import LibraryError
from substrata.base.tables.table_reader import read_table
from substrata.ingredients.ingredient import Ingredient


@dataclass(frozen=True, kw_only=True)
class IngredientGroup:
    """The members of a group: single ingredients, and all that have one of its flags."""

    ingredients: frozenset[str]
    flags: frozenset[str]


@cache
def _groups() -> dict[str, IngredientGroup]:
    return {
        row.text("group"): IngredientGroup(
            ingredients=frozenset(row.text("ingredients").split()), flags=frozenset(row.text("flags").split())
        )
        for row in read_table("groups.csv")
    }


def ingredient_group(name: str) -> IngredientGroup:
    """Return a group by its name.

    Raises:
        LibraryError: when the table has no such group.
    """
    group = _groups().get(name)
    if group is None:
        raise LibraryError(
            "groups.csv has no such group", got=name, allowed=", ".join(_groups()), remedy="add a row to the table"
        )
    return group


def is_in_group(ingredient: Ingredient, name: str) -> bool:
    """Whether an ingredient belongs to a group.

    Args:
        ingredient: with or without a pack of its own.
        name: of the group.

    Returns:
        True where its id or one of its flags is listed.
    """
    group = ingredient_group(name)
    return ingredient.id in group.ingredients or not group.flags.isdisjoint(ingredient.flags)


def is_group_id(ingredient: str, name: str) -> bool:
    """Whether an ingredient's id is one of the ids that a group lists."""
    return ingredient in ingredient_group(name).ingredients
