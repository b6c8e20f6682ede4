"""A bought pack of an ingredient: what its label, its bill and the baker's own measurements say."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date

from substrata.pantry.label import Label


@dataclass(frozen=True, kw_only=True)
class Lot:
    """One pack, or several of one delivery. What it leaves open the ingredient answers."""

    key: str  # unlike any other kitchen's, so that a formula that travels never meets a stranger's pack
    ingredient: str  # id of the reference it is a pack of
    name: str  # brand and kind, as the baker calls it
    label: Label | None = None
    price: float | None = None  # of one pack, in the kitchen's currency
    pack_g: float | None = None  # net weight of one pack
    usable: float = 1.0  # share that is left after trimming, peeling, what sticks to the bag
    bought_on: date | None = None
    use_by: date | None = None
    measures: Mapping[str, float] = field(default_factory=dict)  # own weighings: cup, tbsp, tsp, piece -> g
    capacity: float | None = None  # own measurement, g water a g
    contains: frozenset[str] = frozenset()  # flags that the pack adds to the ingredient's
    may_contain: frozenset[str] = frozenset()  # "may contain traces of"
    certificates: frozenset[str] = frozenset()  # claims printed on the pack: gluten-free …
    statement: str = ""  # its own ingredient list, for the sub-ingredients of a card
    husk: str = ""  # colour of the husk or flour, which colours the crumb
    notes: str = ""

    @property
    def price_per_g(self) -> float | None:
        """Price of a gram that reaches the bowl; None when price or weight is not known."""
        if self.price is None or not self.pack_g:
            return None
        return self.price / self.pack_g / self.usable
