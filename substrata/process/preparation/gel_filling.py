"""Gel fillings: how much of which gum for some water, and how to disperse it."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.messages.message import Wording
from substrata.base.tables.table_reader import read_table
from substrata.base.tables.table_texts import table_text


@dataclass(frozen=True, kw_only=True)
class Gel:
    """One way to set a filling."""

    ingredient: str
    grams: float
    low_g: float
    high_g: float
    percent: float  # of the water
    within: bool  # whether the percentage is in its usual range
    how: Wording
    source: str


def gels(water_g: float, percent: float | None = None) -> tuple[Gel, ...]:
    """All gelling matters for some water.

    Args:
        water_g: of the filling.
        percent: of the water; None takes each one's usual share.

    Returns:
        The gelling agents with their grams.
    """
    rows = []
    for row in read_table("gels.csv"):
        usual = row.spread()
        share = usual.value if percent is None else percent
        rows.append(
            Gel(
                ingredient=row.text("ingredient"),
                grams=water_g * share / 100,
                low_g=water_g * usual.low / 100,
                high_g=water_g * usual.high / 100,
                percent=share,
                within=usual.low <= share <= usual.high,
                how=table_text(row.text("how")),
                source=row.text("source"),
            )
        )
    return tuple(rows)
