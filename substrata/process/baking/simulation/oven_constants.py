"""Numbers of the oven by name, each with its range (``oven.csv``, ``baking.csv``, ``bakeware.csv``)."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Literal

from substrata.base.tables.table_reader import read_table
from substrata.base.uncertainty import Spread


@cache
def oven_numbers() -> dict[str, Spread]:
    """All numbers of ``oven.csv``."""
    return {row.text("name"): row.spread() for row in read_table("oven.csv")}


def oven_number(name: str) -> float:
    """One number of ``oven.csv``."""
    return oven_numbers()[name].value


@dataclass(frozen=True, kw_only=True)
class BakeForm:
    """How a form lies in the oven, what is asked of it when it is done, and its usual stages (common practice)."""

    id: str
    contact: float  # share of the underside that touches
    face: Literal["top", "rim"]  # whose colour is looked at
    asks_colour: bool
    asks_pliable: bool  # taken out while it bends, pale or not
    asks_dry: bool
    asks_gel: bool  # a psyllium crumb has to dry
    stages: tuple[str, ...]
    cools_min: float  # after the oven until it is weighed or packed; 0 for what is stacked under a cloth at once


@cache
def bake_forms() -> dict[str, BakeForm]:
    """All forms by id."""
    return {
        row.text("form"): BakeForm(
            id=row.text("form"),
            contact=row.number_in("contact", 0, 1),
            face=row.text("face"),  # type: ignore[arg-type]  # a test holds the table to the two
            asks_colour=row.text("colour") == "1",
            asks_pliable=row.text("pliable") == "1",
            asks_dry=row.text("dry") == "1",
            asks_gel=row.text("gel") == "1",
            stages=tuple(row.text("stages").split()),
            cools_min=row.number_in("cools_min", 0, 240),
        )
        for row in read_table("baking.csv")
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
