"""What has to be bought for a plan."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from math import ceil

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import read_table
from substrata.evaluation.dough import Dough
from substrata.formula.batch.batch_lines import FRYING
from substrata.ingredients.groups import is_group_id
from substrata.ingredients.library import Library


@cache
def _sections() -> dict[str, str]:
    """Where a shop has what is of a role."""
    return {row.text("role"): row.text("section") for row in read_table("shop_sections.csv")}


@dataclass(frozen=True, kw_only=True)
class Pack:
    """A pack as it is sold, and what of it is there."""

    name: str
    grams: float | None = None  # in one pack; None when nobody knows
    price: float | None = None
    currency: str = ""
    on_hand_g: float = 0.0


@dataclass(frozen=True, kw_only=True)
class ShoppingRow:
    """One thing to buy."""

    ingredient: str
    name: str
    section: str
    needed_g: float
    on_hand_g: float
    short_g: float
    packs: int | None  # to buy; None when the size of a pack is not known
    pack_g: float | None
    price: float | None
    currency: str
    bakes: tuple[str, ...]
    by: str  # when the first of them is wanted, as its plan writes it; "" where nobody said
    text: Wording


def shopping(
    doughs: Sequence[tuple[str, Dough, float]],
    library: Library,
    packs: Mapping[str, Pack] | None = None,
    pack_names: Mapping[str, str] | None = None,
    due: Sequence[str] = (),
) -> tuple[ShoppingRow, ...]:
    """Return what the doughs take together, less what is there, in whole packs; by the shop's sections.

    Args:
        doughs: name, dough and batches of each bake.
        library: the ingredients.
        packs: how each ingredient is sold and what is there, by its id.
        pack_names: ingredient of each of the kitchen's own packs, by key.
        due: when each bake is wanted, in their order.
    """
    needed_g: dict[str, float] = {}
    roles: dict[str, str] = {}
    where: dict[str, list[str]] = {}
    by: dict[str, str] = {}
    for number, (name, dough, batches) in enumerate(doughs):
        when = due[number] if number < len(due) else ""
        for line in dough.batch.lines:
            key = (pack_names or {}).get(line.line.lot, line.line.ingredient)
            needed_g[key] = needed_g.get(key, 0.0) + line.grams.value * batches
            roles.setdefault(key, "fat" if line.role == FRYING else line.role)
            where.setdefault(key, [])
            by[key] = min(filter(None, (by.get(key), when)), default="")
            if name not in where[key]:
                where[key].append(name)
    rows = [
        _row(key, grams, roles[key], tuple(where[key]), by[key], library, (packs or {}).get(key))
        for key, grams in needed_g.items()
    ]
    rows = [row for row in rows if not is_group_id(row.ingredient, "water")]
    return tuple(sorted(rows, key=lambda row: (row.section, row.name)))


def _row(
    key: str, grams: float, role: str, bakes: tuple[str, ...], by: str, library: Library, pack: Pack | None
) -> ShoppingRow:
    name = library[key].name if key in library else key
    on_hand = pack.on_hand_g if pack else 0.0
    short = max(grams - on_hand, 0.0)
    size = pack.grams if pack else None
    number = ceil(short / size - 1e-9) if size else None
    price = number * pack.price if pack and pack.price is not None and number is not None else None
    if not short:
        text = Message("purchasing-there-is-enough", name=name)
    elif number and size:
        text = Message(
            "purchasing-g-for-g",
            name=name,
            number=number,
            size=Quantity(size, "g", digits=-1),
            short=Quantity(short, "g", digits=0),
        )
    else:
        text = Message("purchasing-g", name=name, short=Quantity(short, "g", digits=0))
    return ShoppingRow(
        ingredient=key, name=name, section=_sections().get(role, "other"), needed_g=round(grams, 1), on_hand_g=on_hand,
        short_g=round(short, 1), packs=number, pack_g=size, price=price, currency=pack.currency if pack else "", bakes=bakes, by=by, text=text,
    )  # fmt: skip
