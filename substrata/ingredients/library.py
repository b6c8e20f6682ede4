"""The shipped library of ingredients: loading, checking, looking up."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from copy import copy
from functools import cache

import numpy as np
from numpy.typing import NDArray

from substrata.base.errors import LibraryError, UnknownIngredient
from substrata.base.tables.table_reader import Row, read_table
from substrata.ingredients.composition import CLOSING_TOLERANCE_G, NUTRIENTS, SPREADS, Composition
from substrata.ingredients.ingredient import BEHAVIOURS, Ingredient, Measure, Parameter
from substrata.ingredients.ingredient_search import NameIndex

Floats = NDArray[np.float64]


class Library:
    """All ingredients, with their numbers also stacked as arrays for fast sums.

    Attributes:
        values: composition, per g, shape (ingredients, nutrients).
        sds: its standard deviations, same shape.
        behaviour: behaviour parameters, shape (ingredients, behaviours).
        behaviour_sds: their standard deviations, same shape.
    """

    def __init__(self, ingredients: Iterable[Ingredient], names: NameIndex | None = None) -> None:
        self._by_id: dict[str, Ingredient] = {i.key: i for i in ingredients}
        self.index = {key: row for row, key in enumerate(self._by_id)}
        every = list(self._by_id.values())
        self.values: Floats = np.array([i.composition.values for i in every]) / 100
        self.sds: Floats = np.array([i.composition.sds for i in every]) / 100
        entries = [[i.parameter(name) for name in BEHAVIOURS] for i in every]
        self.behaviour: Floats = np.array([[p.value for p in row] for row in entries])
        self.behaviour_sds: Floats = np.array([[p.sd for p in row] for row in entries])
        self.names = names or NameIndex(
            {i.id: (i.name, *i.aliases) for i in every},
            {i.id: frozenset((f"id:{i.id}", f"role:{i.role}", *(f"flag:{flag}" for flag in i.flags))) for i in every},
        )

    def with_packs(self, packs: Iterable[Ingredient]) -> Library:
        """Return this library with some packs added, found by their keys and not by name."""
        every = [pack for pack in packs if pack.key not in self]
        if not every:
            return self
        beside, joined = Library(every, names=self.names), copy(self)
        joined._by_id = {i.key: i for i in (*self, *every)}  # noqa: SLF001 - its own kind
        joined.index = {key: row for row, key in enumerate(joined._by_id)}  # noqa: SLF001
        # Stacked rather than made anew: a formula is judged with its packs many times a second.
        for name in ("values", "sds", "behaviour", "behaviour_sds"):
            setattr(joined, name, np.vstack((getattr(self, name), getattr(beside, name))))
        return joined

    def pack_or_ingredient(self, key: str, lot: str) -> Ingredient:
        """Return the pack of an ingredient when it is here, else the ingredient.

        Raises:
            UnknownIngredient: when neither is.
        """
        pack = self._by_id.get(lot) if lot else None
        return pack if pack is not None and pack.id == key else self[key]

    def __len__(self) -> int:
        return len(self._by_id)

    def __iter__(self) -> Iterator[Ingredient]:
        return iter(self._by_id.values())

    def __contains__(self, key: str) -> bool:
        return key in self._by_id

    def __getitem__(self, key: str) -> Ingredient:
        """Return the ingredient of this id.

        Raises:
            UnknownIngredient: with the nearest ids as remedy.
        """
        try:
            return self._by_id[key]
        except KeyError:
            near = ", ".join(self.names.nearest(key.replace("-", " "), 3))
            raise UnknownIngredient(
                "unknown ingredient",
                got=key[:80],
                allowed="an ingredient of the pantry",
                field="ingredient",
                remedy=f"did you mean {near}?" if near else "choose one from the pantry",
            ) from None


@cache
def load_library() -> Library:
    """Read and check the shipped tables (once).

    Returns:
        The library.

    Raises:
        LibraryError: at the first row that cannot be true, by file and line.
    """
    return build_library(
        read_table("composition.csv"),
        read_table("behaviour.csv"),
        read_table("measures.csv"),
        read_table("aliases.csv"),
    )


def build_library(
    composition: Sequence[Row], behaviour: Sequence[Row], measures: Sequence[Row], aliases: Sequence[Row]
) -> Library:
    """Make a library of table rows; every row is checked.

    Returns:
        The library.

    Raises:
        LibraryError: see ``load_library``.
    """
    flags = {row.text("flag") for row in read_table("allergens.csv")}
    roles = {row.text("role") for row in read_table("roles.csv")}
    ids = _ids(composition)
    behaviours = _behaviours(behaviour, ids)
    weights = _measures(measures, ids)
    names = _aliases(aliases, ids)
    ingredients = []
    for row in composition:
        key = row.text("id")
        strange = set(row.text("flags").split()) - flags
        if strange:
            raise row.error("unknown flag", got=", ".join(strange), allowed="a flag of allergens.csv")
        if row.text("role") not in roles:
            raise row.error("unknown role", got=row.text("role"), allowed="a role of roles.csv")
        ingredients.append(_ingredient(row, behaviours.get(key, {}), weights.get(key, {}), names.get(key, ())))
    return Library(ingredients)


def _ids(rows: Sequence[Row]) -> set[str]:
    result: set[str] = set()
    for row in rows:
        key = row.text("id")
        if key in result:
            raise row.error("the ingredient appears twice", got=key)
        result.add(key)
    return result


def _ingredient(
    row: Row, behaviour: Mapping[str, Parameter], measures: Mapping[str, Measure], aliases: Sequence[str]
) -> Ingredient:
    source = " ".join(filter(None, (row.text("dataset"), row.text("food_id"), row.text("food_name"))))
    return Ingredient(
        id=row.text("id"),
        name=row.text("name"),
        role=row.text("role"),
        flags=frozenset(row.text("flags").split()),
        composition=_composition(row),
        behaviour=behaviour,
        measures=measures,
        aliases=tuple(aliases),
        source=source,
        spread_source=row.text("spread_source"),
        note=row.text("note"),
    )


def _composition(row: Row) -> Composition:
    values = tuple(row.number_in(n, low=0, high=100 if n.endswith("_g") else 60_000) for n in NUTRIENTS)
    sds = tuple(row.number_in(SPREADS[n], low=0) if n in SPREADS else 0.0 for n in NUTRIENTS)
    result = Composition(values=values, sds=sds)
    if abs(result.closes_at - 100) > CLOSING_TOLERANCE_G:
        raise row.error(
            "water, protein, fat, carbohydrate, and ash do not add up to 100 g",
            got=f"{result.closes_at:.2f} g",
            allowed="100 ± 1 g",
        )
    parts = result["fibre_g"] + result["erythritol_g"] + result["allulose_g"] + result["polyols_g"]
    for part, whole in ((parts, "carbohydrate_g"), (result["saturates_g"], "fat_g")):
        if part > result[whole] + 0.05:
            raise row.error(f"more parts than {whole}", got=f"{part:g}", allowed=f"up to {result[whole]:g}")
    return result


def _known(row: Row, column: str, ids: set[str]) -> str:
    key = row.text(column)
    if key not in ids:
        raise row.error("unknown ingredient", got=key, allowed="an id of composition.csv")
    return key


def _behaviours(rows: Sequence[Row], ids: set[str]) -> dict[str, dict[str, Parameter]]:
    result: dict[str, dict[str, Parameter]] = defaultdict(dict)
    for row in rows:
        name = row.text("parameter")
        if name not in BEHAVIOURS:
            raise row.error("unknown behaviour", got=name, allowed=", ".join(BEHAVIOURS))
        spread = row.spread()
        if spread.low < 0:
            raise row.error("a behaviour below zero", got=f"{spread.low:g}", allowed="0 or more")
        result[_known(row, "ingredient", ids)][name] = Parameter(
            spread=spread, unit=row.text("unit"), source=row.text("source"), note=row.text("note")
        )
    return result


def _measures(rows: Sequence[Row], ids: set[str]) -> dict[str, dict[str, Measure]]:
    result: dict[str, dict[str, Measure]] = defaultdict(dict)
    for row in rows:
        grams = row.spread(value="grams")
        if grams.low <= 0:
            raise row.error("a measure weighs nothing", got=f"{grams.low:g} g", allowed="more than 0 g")
        result[_known(row, "ingredient", ids)][row.text("measure")] = Measure(grams=grams, source=row.text("source"))
    return result


def _aliases(rows: Sequence[Row], ids: set[str]) -> dict[str, list[str]]:
    result: dict[str, list[str]] = defaultdict(list)
    owner: dict[str, str] = {}
    for row in rows:
        alias, key = row.text("alias"), _known(row, "ingredient", ids)
        if owner.setdefault(alias, key) != key:
            raise row.error("an alias of two ingredients", got=alias, allowed=owner[alias])
        result[key].append(alias)
    return result


__all__ = ["Library", "LibraryError", "build_library", "load_library"]
