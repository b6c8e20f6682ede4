"""The guard rails: without each of them a solver has cheated (``rails.csv``)."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from math import inf

from substrata.base.tables.table_reader import read_table


@dataclass(frozen=True, kw_only=True)
class GuardLimit:
    """One rail: multiples of what the dough had between which it stays."""

    id: str
    low: float
    high: float
    price: float  # of a unit beyond it; 0 where it must hold
    text: str


@cache
def guard_limits() -> dict[str, GuardLimit]:
    """All rails by id."""
    return {
        row.text("rail"): GuardLimit(
            id=row.text("rail"),
            low=float(row.text("low") or 0.0),
            high=float(row.text("high") or inf),
            price=row.number_in("price", 0),
            text=row.text("text"),
        )
        for row in read_table("rails.csv")
    }


def balance_keeps() -> list[str]:
    """Return in words what every balance keeps until the baker switches that limit off."""
    return [limit.text for limit in guard_limits().values() if limit.price == 0]
