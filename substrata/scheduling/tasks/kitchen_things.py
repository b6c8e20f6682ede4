"""What a kitchen has besides hands and ovens, and how many of each (``plan_things.csv``)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache

from substrata.base.errors import FormulaError
from substrata.base.tables.table_reader import read_table

MIXER, FRIDGE, PROOF, TIN, TRAY, COUNTER = "mixer", "fridge", "proof", "tin", "tray", "counter"


@dataclass(frozen=True, kw_only=True)
class Thing:
    """Something that a task takes up."""

    id: str
    name: str
    lane: str  # what it is called beside its lane of a day
    usual: int | None  # how many there are where nothing is said; None: as many as are wanted


@cache
def things() -> dict[str, Thing]:
    """All of them by id."""
    return {
        row.text("thing"): Thing(
            id=row.text("thing"),
            name=row.text("name"),
            lane=row.text("lane"),
            usual=round(row.number_in("usual", 0)) if row.text("usual") else None,
        )
        for row in read_table("plan_things.csv")
    }


def capacities(has: Mapping[str, float]) -> dict[str, int]:
    """How many there are of each: as told, else as usual; what there is enough of is left out.

    Returns:
        Counts by thing.

    Raises:
        FormulaError: when something is told of that no task takes up.
    """
    strange = set(has) - set(things())
    if strange:
        raise FormulaError(
            "no task takes this up",
            got=", ".join(sorted(strange))[:60],
            allowed=", ".join(things()),
            remedy="leave it out, or name one of these",
            field="has",
        )
    usual = {thing.id: thing.usual for thing in things().values() if thing.usual is not None}
    return usual | {key: round(value) for key, value in has.items()}
