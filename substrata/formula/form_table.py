"""The forms (what is baked) and the roles (what a line does), with the house windows of each form."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Annotated

from substrata.base.documents.field_kinds import Number
from substrata.base.errors import FormulaError
from substrata.base.tables.table_reader import Row, read_table
from substrata.base.tables.table_relations import check_relations
from substrata.base.uncertainty import Spread


@dataclass(frozen=True, kw_only=True)
class Window:
    """Wanted bounds of a quantity; None leaves that side open."""

    low: Annotated[float | None, Number()] = None
    high: Annotated[float | None, Number()] = None


@dataclass(frozen=True, kw_only=True)
class Form:
    """What is baked, and what a sound dough for it looks like (house windows, assumed)."""

    id: str
    name: str
    water_fill: Window  # water held / water the dry matter could hold
    gas: Window  # mL gas per 100 mL dough at the boiling point
    salt: Window  # % of the dough
    binder: Window  # whole-egg equivalents per 100 g weighted dry base
    heat_set_least: float  # least share of the binder load that sets in the oven
    bake_loss: Spread  # share of the dough that leaves as vapour, until the oven computes it
    dried_to: float | None  # % water the piece is dried to; None where the loss is the habit
    thickness_mm: float  # usual, before baking
    oven_c: float  # usual oven, or oil
    fat_absorbed: Spread  # share of the dough's weight taken up as frying fat, when it is fried
    net_carbs: Window  # g a piece: a starting target
    protein: Window  # g a piece: a starting target
    dough_kind: str  # of every dough of this form; "" where what is in it decides
    filled: bool  # a filling is usual
    piece_most_g: float | None  # from which it is another thing: a bun of 500 g is a loaf
    traits: frozenset[
        str
    ]  # crumb, crumb-core, sheet, thin-sheet, crisp-sheet, dry, short: what work and faults hang on
    source: str
    note: str


@dataclass(frozen=True, kw_only=True)
class Role:
    """What a line does in the dough."""

    id: str
    code: str  # two letters, shown with the hatch
    name: str
    order: int  # mix order of the core, from the top
    dry_base: bool  # counts as 100 % of the baker's percentages
    in_dough: bool  # is part of the dough; else it lies in, on or around it


@cache
def forms() -> dict[str, Form]:
    """All forms by id.

    Returns:
        Forms by id, in the order of the table.

    Raises:
        LibraryError: when a table that every form needs a row in has none; see ``check_relations``.
    """
    check_relations()
    table = {}
    for row in read_table("forms.csv"):
        number = row.number_in
        table[row.text("form")] = Form(
            id=row.text("form"),
            name=row.text("name"),
            water_fill=_window(row, "water_fill"),
            gas=_window(row, "gas"),
            salt=_window(row, "salt"),
            binder=_window(row, "binder"),
            heat_set_least=number("heat_set_least", 0, 1),
            bake_loss=row.spread("bake_loss_low", "bake_loss", "bake_loss_high").scaled(0.01),
            dried_to=number("dried_to", 0, 100) if row.text("dried_to") else None,
            thickness_mm=number("thickness_mm", 0, 500),
            oven_c=number("oven_c", 0, 400),
            fat_absorbed=row.spread("fat_taken_low", "fat_taken", "fat_taken_high").scaled(0.01),
            net_carbs=Window(high=number("piece_net_carbs")),
            protein=Window(low=number("piece_protein") or None),
            dough_kind=row.text("dough_kind"),
            filled=row.text("filled") == "1",
            piece_most_g=number("piece_most_g", 1) if row.text("piece_most_g") else None,
            traits=frozenset(row.text("traits").split()),
            source=row.text("source"),
            note=row.text("note"),
        )
    return table


def _window(row: Row, key: str) -> Window:
    """Return what works of a quantity; an empty cell leaves that side open."""
    low, high = f"{key}_low", f"{key}_high"
    return Window(
        low=row.number_in(low) if row.text(low) else None, high=row.number_in(high) if row.text(high) else None
    )


@cache
def roles() -> dict[str, Role]:
    """All roles by id, in mix order."""
    return {
        row.text("role"): Role(
            id=row.text("role"),
            code=row.text("code"),
            name=row.text("name"),
            order=int(row.number_in("order")),
            dry_base=row.text("dry_base") == "1",
            in_dough=row.text("in_dough") == "1",
        )
        for row in read_table("roles.csv")
    }


def form_of(key: str) -> Form:
    """Return the form of this id.

    Raises:
        FormulaError: when there is none.
    """
    if key not in forms():
        raise FormulaError(
            "unknown form", got=key[:60], allowed=", ".join(forms()), remedy="choose a form", field="form"
        )
    return forms()[key]
