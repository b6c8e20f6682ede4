"""Numbers of the bench by name, each with its range (``bench_heat.csv``, ``bench_surfaces.csv``)."""

from __future__ import annotations

from functools import cache

from substrata.base.tables.table_reader import read_table
from substrata.base.uncertainty import Spread


@cache
def _table(file: str, key: str) -> dict[str, Spread]:
    return {row.text(key): row.spread() for row in read_table(file)}


def heat(name: str) -> Spread:
    """Return a number of bench heat."""
    return _table("bench_heat.csv", "name")[name]


def surfaces() -> dict[str, Spread]:
    """Heat taken by what the dough lies on, W/(m² K)."""
    return _table("bench_surfaces.csv", "surface")
