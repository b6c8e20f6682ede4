"""Trays and pans: standard ones of the United States and Europe, and the kitchen's own."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from math import pi
from typing import Annotated, Literal, get_args

from substrata.base.documents.field_kinds import Number, Text, Word
from substrata.base.errors import FormulaError
from substrata.base.tables.table_reader import read_table

PanKind = Literal["tray", "round", "square", "tin"]


@dataclass(frozen=True, kw_only=True)
class Pan:
    """Something to bake on or in; inner measures."""

    id: Annotated[str, Text(most=60)] = ""
    name: Annotated[str, Text(least=1, most=80, required=True)]
    kind: Annotated[PanKind, Word(options=get_args(PanKind), required=True)]
    region: Annotated[str, Text(most=10, note="US, EU or empty")] = ""
    # Diameter of a round one.
    length_mm: Annotated[float, Number(low=1, high=2000, optional=False, unit="mm", required=True)]
    width_mm: Annotated[float, Number(low=1, high=2000, optional=False, unit="mm", required=True)]
    height_mm: Annotated[float, Number(low=1, high=500, optional=False, unit="mm", required=True)]
    taper: Annotated[
        float, Number(low=0.3, high=1, optional=False, note="mean cross section over the one at the rim")
    ] = 1.0
    source: Annotated[str, Text(most=200)] = ""

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
