"""What else the same dough may become: its sorts, what was tried beside it, and a few ways to season it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cache
from typing import Literal

from substrata.base.errors import SubstrataError
from substrata.base.messages.message import Joined, Listing, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant, read_table
from substrata.evaluation.dough import Dough
from substrata.evaluation.varieties import variety_figures
from substrata.execution.feel_advice import as_poured
from substrata.formula.batch.weighed_lines import weigh_line
from substrata.formula.exchange.formula_difference import differences
from substrata.formula.formula import Formula, Line

VariantKind = Literal["sort", "tried", "seasoning"]
_SEASONINGS = 3  # are told of a dough
_TRIED = 6
_CHANGES = 5  # of a tried one; more is another dough


@dataclass(frozen=True, kw_only=True)
class Variant:
    """One of them."""

    kind: VariantKind
    name: str
    text: Wording


@dataclass(frozen=True, kw_only=True)
class _Seasoning:
    name: str
    taste: str
    shares: tuple[tuple[str, float], ...]  # ingredient, g in 100 g of dough


@cache
def _seasonings() -> tuple[_Seasoning, ...]:
    rows = []
    for row in read_table("seasonings.csv"):
        parts = (part.partition(":") for part in row.text("lines").split())
        shares = tuple((ingredient, float(share)) for ingredient, _, share in parts)
        rows.append(_Seasoning(name=row.text("seasoning"), taste=row.text("taste"), shares=shares))
    return tuple(rows)


def variants_of(dough: Dough, tried: Sequence[Formula] = (), *, batches: float = 1.0) -> tuple[Variant, ...]:
    """Return the variants of a dough, those of its own first.

    Args:
        dough: as it is handed on.
        tried: formulas that were made of it, or that it was made of, the last touched first.
        batches: by which every weight is told.
    """
    return (*_sorts(dough, batches), *_tried(dough, tried), *_seasoned(dough, batches))


def _sorts(dough: Dough, batches: float) -> Iterator[Variant]:
    try:
        figures = variety_figures(dough)
    except SubstrataError:  # they do not add up, and are told as such where they are set
        return
    line_ids = {sort.name: sort.lines for sort in dough.formula.sorts}
    for sort in figures:
        lines = [
            Message(
                "variants-g",
                as_poured=Quantity(as_poured(w.grams.value * batches), "g", digits=-1),
                small=_small(w.ingredient.name),
            )
            for w in dough.batch.lines
            if w.line.id in line_ids[sort.name]
        ]
        with_ = Message("variants-with", lines=Joined(lines, ", ")) if lines else Message("variants-as-they-are")
        yield Variant(
            kind="sort",
            name=sort.name,
            text=Message(
                "variants-g-net-carbs-each",
                pieces=Quantity(sort.pieces * batches, "number", digits=-1),
                additions=with_,
                net_carbs=Quantity(sort.net_carbs, "nutrient", digits=1),
            ),
        )


def _tried(dough: Dough, tried: Sequence[Formula]) -> Iterator[Variant]:
    for other in tried[:_TRIED]:
        changes = [
            change.text
            for change in differences(dough.formula, other, dough.library, dough.settings)
            if change.kind in ("added", "removed", "grams", "swapped")
        ]
        if changes and other.name:
            more = Message("variants-and-more", changes=len(changes) - _CHANGES) if len(changes) > _CHANGES else ""
            yield Variant(kind="tried", name=other.name, text=Joined((Joined(changes[:_CHANGES], "; "), more, "."), ""))


def _seasoned(dough: Dough, batches: float) -> Iterator[Variant]:
    """Sweet ones for a sweet dough; none of what is in it already."""
    here = {w.ingredient.id for w in dough.batch.lines}
    taste = "sweet" if dough.bracketed.value("sweetness") >= constant("sweet_from") else "savoury"
    fitting = [s for s in _seasonings() if s.taste == taste and not here & {ingredient for ingredient, _ in s.shares}]
    for seasoning in fitting[:_SEASONINGS]:
        lines = tuple(
            Line(id=f"season-{ingredient}", ingredient=ingredient, grams=share * dough.inside.dough_g / 100)
            for ingredient, share in seasoning.shares
        )
        weighed = [weigh_line(line, dough.library, dough.settings) for line in lines]
        words = Listing(
            Message(
                "variants-g",
                as_poured=Quantity(as_poured(w.grams.value * batches), "g", digits=-1),
                small=_small(w.ingredient.name),
            )
            for w in weighed
        )
        formula = replace(dough.formula, lines=(*dough.formula.lines, *lines))
        more = Dough(formula, dough.library, dough.settings).bracketed.value("net_carbs") - dough.bracketed.value(
            "net_carbs"
        )
        carbs = (
            Message("variants-adds-g-net-carbs-per", more=Quantity(more, "nutrient", digits=1))
            if more >= constant("visible_carbs_g")
            else ""
        )
        yield Variant(
            kind="seasoning",
            name=seasoning.name,
            text=Message("variants-mixed-into-the-dry-ingredients", words=words, carbs=carbs),
        )


def _small(name: str) -> str:
    return name[:1].lower() + name[1:]
