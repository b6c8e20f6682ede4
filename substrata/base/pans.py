"""Trays and pans: standard ones of the United States and Europe, and the kitchen's own."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from math import pi
from typing import Literal

from substrata.base.errors import FormulaError
from substrata.base.tables.table_reader import read_table

PanKind = Literal["tray", "round", "square", "tin"]


@dataclass(frozen=True, kw_only=True)
class Pan:
    """Something to bake on or in; inner measures."""

    id: str
    name: str
    kind: PanKind
    region: str  # US, EU or ""
    length_mm: float  # diameter of a round one
    width_mm: float
    height_mm: float
    taper: float  # mean cross section over the one at the rim
    source: str

    @property
    def area_cm2(self) -> float:
        """Floor of the pan."""
        if self.kind == "round":
            return pi / 4 * self.length_mm**2 / 100
        return self.length_mm * self.width_mm / 100

    @property
    def volume_ml(self) -> float:
        """To the rim."""
        return self.area_cm2 * self.taper * self.height_mm / 10


@cache
def pans() -> dict[str, Pan]:
    """Return the shipped pans and trays by id."""
    return {
        row.text("pan"): Pan(
            id=row.text("pan"),
            name=row.text("name"),
            kind=row.text("kind"),  # type: ignore[arg-type]  # a test holds the table to the four
            region=row.text("region"),
            length_mm=row.number_in("length_mm", 1, 2000),
            width_mm=row.number_in("width_mm", 1, 2000),
            height_mm=row.number_in("height_mm", 1, 500),
            taper=row.number_in("taper", 0.3, 1),
            source=row.text("source"),
        )
        for row in read_table("pans.csv")
    }


def pan_of(key: str, kitchen_pans: tuple[Pan, ...] = ()) -> Pan:
    """Return a pan by id, the kitchen's own first.

    Raises:
        FormulaError: when there is none.
    """
    for pan in kitchen_pans:
        if pan.id == key:
            return pan
    if key not in pans():
        raise FormulaError(
            "unknown pan",
            got=key[:60],
            allowed=", ".join(pans()),
            remedy="choose one, or enter your own",
            field="size.pan",
        )
    return pans()[key]
