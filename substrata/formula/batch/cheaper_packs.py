"""A cheaper pack that would do the same work: a hint, never a change."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from substrata.base.tables.table_reader import constant
from substrata.formula.batch.batch_lines import Batch, WeighedLine
from substrata.ingredients.ingredient import Ingredient

# How alike two foods must be to stand in for each other gram for gram (house choice).
_NEAR = {"capacity": (0.25, 0.2), "binding": (0.25, 0.005)}  # behaviour -> relative, absolute
_NEAR_G = {"protein_g": 8.0, "fat_g": 8.0, "carbohydrate_g": 8.0, "fibre_g": 8.0, "water_g": 8.0}  # g per 100 g
_LEAST_SAVING_PIECE = 0.005  # in the currency; less would print as nothing


@dataclass(frozen=True, kw_only=True)
class CheaperPack:
    """A pack of the kitchen that would save money on one line."""

    line: str
    name: str  # of what is used now
    lot: str
    pack: str  # name of the cheaper one
    ingredient: str
    same_ingredient: bool
    saves_a_piece: float  # in the kitchen's currency
    text: str


def cheaper_packs(batch: Batch, offers: Sequence[Ingredient], pieces: int, currency: str) -> tuple[CheaperPack, ...]:
    """Return the best offer for every line that has one, the largest saving first.

    Args:
        batch: the weighed lines.
        offers: priced packs of the kitchen.
        pieces: into how many pieces the dough is divided.
        currency: ISO 4217, for the sentence.
    """
    rows = [best for weighed in batch.lines if (best := _best(weighed, offers, pieces, currency))]
    return tuple(sorted(rows, key=lambda offer: -offer.saves_a_piece))


def _best(weighed: WeighedLine, offers: Sequence[Ingredient], pieces: int, currency: str) -> CheaperPack | None:
    now = weighed.ingredient.pack.price_per_g if weighed.ingredient.pack else None
    if not now:
        return None
    fitting = [(price, offer) for offer, price in _priced(offers) if equivalent(weighed.ingredient, offer)]
    if not fitting:
        return None
    price, offer = min(fitting, key=lambda pair: pair[0])
    saving = (now - price) * weighed.grams.value / pieces
    if offer.pack is None or price > now * (1 - constant("saving_least_share")) or saving < _LEAST_SAVING_PIECE:
        return None
    return CheaperPack(
        line=weighed.line.id,
        name=weighed.ingredient.pack.name if weighed.ingredient.pack else weighed.ingredient.name,
        lot=offer.pack.key,
        pack=offer.pack.name,
        ingredient=offer.id,
        same_ingredient=offer.id == weighed.ingredient.id,
        saves_a_piece=saving,
        text=f"{offer.pack.name} would save {saving:.2f} {currency} per piece.",
    )


def _priced(offers: Sequence[Ingredient]) -> Iterator[tuple[Ingredient, float]]:
    for offer in offers:
        price = offer.pack.price_per_g if offer.pack else None
        if price is not None:
            yield offer, price


def equivalent(used: Ingredient, offer: Ingredient) -> bool:
    """Whether an offer does the same work gram for gram and brings no allergen or fact that is not there already."""
    if offer.key == used.key:
        return False
    if not offer.flags <= used.flags:
        return False
    if offer.id == used.id:
        return True
    if offer.role != used.role:
        return False
    for name, (relative, absolute) in _NEAR.items():
        a, b = used.parameter(name).value, offer.parameter(name).value
        if abs(a - b) > max(relative * a, absolute):
            return False
    return all(abs(used.composition[n] - offer.composition[n]) <= room for n, room in _NEAR_G.items())
