"""A bought pack of an ingredient: what its label, its bill and the baker's own measurements say.

Each field says what the open pack document may hold there.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date
from functools import cache
from typing import Annotated, Any

from substrata.base.documents.collection_kinds import Named, Nested, Words
from substrata.base.documents.field_kinds import Day, Number, Text
from substrata.base.tables.table_reader import read_table
from substrata.ingredients.printed_label import Label

PACK_MEASURES = ("cup", "tbsp", "tsp", "piece")


@cache
def printed_claims() -> tuple[str, ...]:
    """Claims that a pack can print."""
    return tuple(row.text("claim") for row in read_table("claims.csv"))


@cache
def pack_flags() -> tuple[str, ...]:
    """Return the flags that a pack can add: every allergen, and the facts that claims need."""
    return tuple(row.text("flag") for row in read_table("allergens.csv"))


@dataclass(frozen=True, kw_only=True)
class Lot:
    """One pack, or several of one delivery. What it leaves open the ingredient answers."""

    # Unlike any other kitchen's, so that a formula that travels never meets a stranger's pack. No document carries it.
    key: str
    ingredient: Annotated[str, Text(required=True)]  # id of the reference it is a pack of
    name: Annotated[str, Text(required=True)]  # brand and kind, as the baker calls it
    label: Annotated[Label | None, Nested(record=Label, optional=True)] = None
    # Of one pack, in the kitchen's currency.
    price: Annotated[float | None, Number(low=0, high=1_000_000)] = None
    # Net weight of one pack.
    pack_g: Annotated[float | None, Number(low=0, above=True, high=1_000_000, unit="g")] = None
    # Share that is left after trimming, peeling, what sticks to the bag.
    usable: Annotated[float, Number(low=0, above=True, high=1)] = 1.0
    bought_on: Annotated[date | None, Day()] = None
    use_by: Annotated[date | None, Day()] = None
    # Own weighings: cup, tbsp, tsp, piece -> g.
    measures: Annotated[
        Mapping[str, float],
        Named(item=Number(low=0, above=True, high=5_000, unit="g", optional=False), names=PACK_MEASURES),
    ] = field(default_factory=dict)
    # Own measurement, g water a g.
    capacity: Annotated[float | None, Number(low=0, above=True, high=200, unit="g/g")] = None
    # Flags that the pack adds to the ingredient's.
    contains: Annotated[frozenset[str], Words(options=pack_flags)] = frozenset()
    may_contain: Annotated[frozenset[str], Words(options=pack_flags)] = frozenset()  # "may contain traces of"
    # Claims printed on the pack: gluten-free …
    certificates: Annotated[frozenset[str], Words(options=printed_claims)] = frozenset()
    # Its own ingredient list, for the sub-ingredients of a card.
    statement: Annotated[str, Text(most=2_000)] = ""
    # Of the husk or flour, which colours the crumb.
    colour: Annotated[str, Text(most=60, formerly="husk")] = ""
    notes: Annotated[str, Text(most=2_000)] = ""
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document

    @property
    def price_per_g(self) -> float | None:
        """Price of a gram that reaches the bowl; None when price or weight is not known."""
        if self.price is None or not self.pack_g:
            return None
        return self.price / self.pack_g / self.usable
