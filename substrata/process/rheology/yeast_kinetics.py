"""Yeast by temperature: how fast it works, and how much of it lives.

Rate by temperature: the cardinal temperature model with inflection (Rosso, Lobry & Flandrois 1993).
"""

from __future__ import annotations

from functools import cache

from substrata.base.tables.table_reader import read_table
from substrata.base.uncertainty import Spread
from substrata.formula.batch.batch_lines import Batch, WeighedLine


@cache
def _numbers() -> dict[str, Spread]:
    return {row.text("name"): row.spread() for row in read_table("yeast.csv")}


def yeast_number(name: str) -> Spread:
    """Return a number of yeast (``yeast.csv``)."""
    return _numbers()[name]


def yeast_lines(batch: Batch) -> tuple[WeighedLine, ...]:
    """Return the lines whose yeast raises the dough; yeast that is there for its taste is none of them."""
    return tuple(w for w in batch.lines if "yeast" in w.ingredient.flags and w.role == "lift")


def relative_rate(temperature_c: float) -> float:
    """Rate of gas over the fastest, 0..1.

    >>> relative_rate(36.0), relative_rate(60.0), relative_rate(0.0)
    (1.0, 0.0, 0.0)

    Returns:
        A share, 0..1.
    """
    low, best, high = (yeast_number(n).value for n in ("slowest_c", "best_c", "stops_c"))
    t = temperature_c
    if not low < t < high:
        return 0.0
    top = (t - high) * (t - low) ** 2
    below = (best - low) * ((best - low) * (t - best) - (best - high) * (best + low - 2 * t))
    return max(top / below, 0.0)


def alive(temperature_c: float) -> float:
    """Share of the yeast that lives through being mixed into a dough so warm, 0..1: all below where it stops, none where it dies.

    >>> alive(40.0), alive(49.0) < 1.0, alive(60.0)
    (1.0, True, 0.0)

    Returns:
        A share, 0..1.
    """
    stops, dies = yeast_number("stops_c").low, yeast_number("dies_c").value
    return min(max((dies - temperature_c) / (dies - stops), 0.0), 1.0)
