"""Which fat to fry in: its smoke point against the oil's temperature."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.tables.table_reader import constant, read_table


@dataclass(frozen=True, kw_only=True)
class FryingFat:
    """One fat at one oil temperature."""

    ingredient: str
    name: str
    smoke_c: float
    low_c: float
    high_c: float
    margin_c: float  # of its smoke point over the oil
    verdict: str  # good, near or smokes
    taste: str
    source: str


def frying_fats(fry_c: float, names: dict[str, str]) -> tuple[FryingFat, ...]:
    """All fats, the safest first.

    Args:
        fry_c: temperature of the oil.
        names: name of each ingredient by id.

    Returns:
        The fats, the safest first.
    """
    rows = []
    for row in read_table("frying_fats.csv"):
        smoke = row.spread()
        verdict = (
            "good" if smoke.low - fry_c >= constant("smoke_margin_k") else "near" if smoke.value > fry_c else "smokes"
        )
        rows.append(
            FryingFat(
                ingredient=row.text("ingredient"),
                name=names[row.text("ingredient")],
                smoke_c=smoke.value,
                low_c=smoke.low,
                high_c=smoke.high,
                margin_c=smoke.value - fry_c,
                verdict=verdict,
                taste=row.text("taste"),
                source=row.text("source"),
            )
        )
    order = ("good", "near", "smokes")
    return tuple(sorted(rows, key=lambda f: (order.index(f.verdict), -f.margin_c)))
