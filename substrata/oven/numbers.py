"""Numbers of the oven by name, each with its range (``oven.csv``, ``oven_families.csv``, ``bakeware.csv``)."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Literal

from substrata.quantities.spread import Spread
from substrata.quantities.tables import read_table

Criterion = Literal["colour", "core", "loss", "dry"]


@cache
def oven_numbers() -> dict[str, Spread]:
    """All numbers of ``oven.csv``."""
    return {row.text("name"): row.spread() for row in read_table("oven.csv")}


def oven_number(name: str) -> float:
    """One number of ``oven.csv``."""
    return oven_numbers()[name].value


@dataclass(frozen=True, kw_only=True)
class OvenFamily:
    """How one kind of bake browns, and what decides that it is done."""

    id: str
    name: str
    criterion: Criterion
    browning: Spread  # factor of the browning rate
    beta: float  # how far high spots lead the surface towards the air's temperature
    porosity: float
    contact: float  # share of the underside that touches
    light_ready: float  # lightness from which it is ready
    light_gold: float  # and up to which it stays gold
    light_burnt: float
    core_c: float  # core temperature that decides, or that an egg dough needs
    sorption: float  # Oswin's A at 25 degC before fat
    source: str


@cache
def oven_families() -> dict[str, OvenFamily]:
    """All families by id."""
    return {
        row.text("family"): OvenFamily(
            id=row.text("family"),
            name=row.text("name"),
            criterion=row.text("criterion"),  # type: ignore[arg-type]  # a test holds the table to the four
            browning=row.spread("browning_low", "browning", "browning_high"),
            beta=row.number_in("beta", 0, 1),
            porosity=row.number_in("porosity", 0, 0.6),
            contact=row.number_in("contact", 0, 1),
            light_ready=row.number_in("light_ready", 0, 100),
            light_gold=row.number_in("light_gold", 0, 100),
            light_burnt=row.number_in("light_burnt", 0, 100),
            core_c=row.number_in("core_c", 0, 110),
            sorption=row.number_in("sorption", 0, 1),
            source=row.text("source"),
        )
        for row in read_table("oven_families.csv")
    }


@dataclass(frozen=True, kw_only=True)
class Bakeware:
    """What the dough lies on or in."""

    id: str
    name: str
    j_per_m2k: float  # heat capacity of a square metre
    contact_h: float  # W/(m2 K) where it touches
    leak: float  # how freely vapour leaves through the touching face
    fin: float  # how well its free underside takes up heat
    emissivity: float
    top_vent: float  # how freely vapour leaves the top
    hot: bool  # it is heated with the oven


@cache
def bakeware() -> dict[str, Bakeware]:
    """All kinds by id."""
    return {
        row.text("ware"): Bakeware(
            id=row.text("ware"),
            name=row.text("name"),
            j_per_m2k=row.number_in("j_per_m2k", 0),
            contact_h=row.number_in("contact_h", 0),
            leak=row.number_in("leak", 0, 1),
            fin=row.number_in("fin", 0, 2),
            emissivity=row.number_in("emissivity", 0, 1),
            top_vent=row.number_in("top_vent", 0, 1),
            hot=row.text("hot") == "1",
        )
        for row in read_table("bakeware.csv")
    }
