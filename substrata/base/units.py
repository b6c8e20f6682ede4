"""The units of the kitchen, by name and by spoon system."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Literal

from substrata.base.tables.table_reader import read_table

Kind = Literal["mass", "volume", "count"]
Spoons = Literal["us", "metric", "australian"]  # whose cup and spoons a typed volume means


@dataclass(frozen=True, kw_only=True)
class Unit:
    """A unit of mass (grams), volume (millilitres) or count (each)."""

    key: str
    kind: Kind
    size: float  # grams, millilitres or 1
    spread_percent: float  # 90 % half-range of filling it by hand


@cache
def unit_names() -> dict[str, str]:
    """Every written name of a unit → its key. One-letter names keep their case (T and t differ)."""
    names: dict[str, str] = {}
    for row in read_table("units.csv"):
        for name in row.text("names").split(";"):
            if name:
                names[name if len(name) == 1 else name.lower()] = row.text("unit")
    return names | {"C": "cup", "L": "l"}


@cache
def _units() -> dict[tuple[str, str], Unit]:
    kinds: dict[str, Kind] = {"mass": "mass", "volume": "volume", "count": "count"}
    return {
        (row.text("unit"), row.text("system")): Unit(
            key=row.text("unit"),
            kind=kinds[row.text("kind")],
            size=row.number_in("size", low=0),
            spread_percent=row.number_in("spread_percent", low=0, high=100),
        )
        for row in read_table("units.csv")
    }


def unit(key: str, spoons: Spoons = "us") -> Unit:
    """Return the unit of this key in a spoon system.

    >>> unit("tbsp", "australian").size
    20.0
    >>> unit("oz").size
    28.349523125

    Raises:
        KeyError: when no unit has this key.
    """
    units = _units()
    return units.get((key, spoons)) or units[(key, "any")]
