"""How much cheese there is in a dough, and how much of it is melted before it is mixed."""

from __future__ import annotations

from substrata.formula.batch.batch_lines import Batch
from substrata.formula.formula import Mix
from substrata.process.rheology.phases import sorted_by_phase

# Shares of the dough between which melting the cheese first becomes usual, and the one from which it is said to be so.
_SELDOM_MELTED, _MOSTLY_MELTED, CHEESE_DOUGH = 0.16, 0.34, 0.25
_FEW_VEGETABLES, _MUCH_VEGETABLE = 0.1, 0.3  # and between which it becomes usual to stir it in cold
MELTED_FROM = 0.5  # how much of it has to be melted for it to be said to be so


def is_melted(batch: Batch, mix: Mix) -> bool:
    """Whether the cheese is said to be melted first: as told, else when there is enough of it to be the dough."""
    return melted_share(batch, mix) >= MELTED_FROM


def melted_share(batch: Batch, mix: Mix) -> float:
    """How much of the cheese is melted first, 0..1: as told, else by degrees, for no gram makes it another dough."""
    if mix.cheese:
        return float(mix.cheese == "melted")
    cheese = _between(cheese_share(batch), _SELDOM_MELTED, _MOSTLY_MELTED)
    if not cheese:
        return 0.0
    return cheese * (1 - _between(_vegetable_share(batch), _FEW_VEGETABLES, _MUCH_VEGETABLE))


def _between(share: float, low: float, high: float) -> float:
    """How far a share has come from one to another, 0..1."""
    return min(max((share - low) / (high - low), 0.0), 1.0)


def _vegetable_share(batch: Batch) -> float:
    vegetable = batch.is_role("vegetable") * batch.inside
    return float(batch.grams @ vegetable) / batch.dough_g if batch.dough_g else 0.0


def cheese_share(batch: Batch) -> float:
    """Melting cheese, share of the dough."""
    return float(batch.grams @ sorted_by_phase(batch).lies_in["cheese"]) / batch.dough_g if batch.dough_g else 0.0
