"""What is on hand, what is reserved, and which packs a bake takes from: first in, first out."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from substrata.ingredients.groups import is_group_id


@dataclass(frozen=True, kw_only=True)
class StockedLot:
    """A pack on the shelf."""

    key: str
    ingredient: str
    on_hand_g: float
    reserved_g: float  # for bakes that are planned already
    usable: float = 1.0  # share of it that reaches the bowl
    use_by: date | None = None
    bought_on: date | None = None

    @property
    def free_g(self) -> float:
        """Grams that no planned bake has reserved, as they lie in the pack."""
        return max(self.on_hand_g - self.reserved_g, 0.0)


@dataclass(frozen=True, kw_only=True)
class Need:
    """What one line of a bake wants in the bowl."""

    line: str
    ingredient: str
    grams: float
    lot: str = ""  # the pack the formula names; it goes first


@dataclass(frozen=True, kw_only=True)
class Pick:
    """Grams to take out of one pack."""

    line: str
    lot: str
    grams: float


@dataclass(frozen=True, kw_only=True)
class Shortage:
    """What no pack holds."""

    line: str
    ingredient: str
    grams: float  # missing in the bowl


@dataclass(frozen=True, kw_only=True)
class Allocation:
    """From which packs a bake takes, and what is missing."""

    picks: tuple[Pick, ...]
    shortages: tuple[Shortage, ...]
    expired: tuple[str, ...]  # packs passed over because their date will be past


def allocate(needs: Sequence[Need], lots: Sequence[StockedLot], on: date) -> Allocation:
    """Choose packs for a bake: the one a line names, then by use-by, then by age.

    A pack is never taken below nothing, a pack past its date on that day is not taken, and water is not stocked.

    Args:
        needs: what the bowl wants.
        lots: packs of the kitchen.
        on: day of the bake.

    Returns:
        What each pack gives, and what is missing.
    """
    free_g = {lot.key: lot.free_g for lot in lots}
    picks: list[Pick] = []
    shortages: list[Shortage] = []
    expired: list[str] = []
    # A line that names its pack is served before others can empty it.
    for need in sorted(needs, key=lambda n: not n.lot):
        missing = need.grams
        for lot in _in_order(need, lots):
            if missing <= 1e-9:
                break
            if lot.use_by is not None and lot.use_by < on:
                if free_g[lot.key] > 0 and lot.key not in expired:
                    expired.append(lot.key)
                continue
            portion = min(missing / lot.usable, free_g[lot.key])
            if portion > 0:
                free_g[lot.key] -= portion
                missing -= portion * lot.usable
                picks.append(Pick(line=need.line, lot=lot.key, grams=portion))
        if missing > 1e-6 and not is_group_id(need.ingredient, "water"):
            shortages.append(Shortage(line=need.line, ingredient=need.ingredient, grams=missing))
    return Allocation(picks=tuple(picks), shortages=tuple(shortages), expired=tuple(expired))


def _in_order(need: Need, lots: Sequence[StockedLot]) -> list[StockedLot]:
    fitting = [lot for lot in lots if lot.ingredient == need.ingredient]
    return sorted(
        fitting, key=lambda lot: (lot.key != need.lot, lot.use_by or date.max, lot.bought_on or date.max, lot.key)
    )
