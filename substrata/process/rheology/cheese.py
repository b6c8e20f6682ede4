"""How much cheese there is in a dough, and how much of it is melted before it is mixed."""

from __future__ import annotations

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.formula import Mix
from substrata.process.rheology.phases import sorted_by_phase


def is_melted(batch: Batch, mix: Mix) -> bool:
    """Whether the cheese is said to be melted first: as told, else when there is enough of it to be the dough."""
    return melted_share(batch, mix) >= constant("melted_from")


def melted_share(batch: Batch, mix: Mix) -> float:
    """How much of the cheese is melted first, 0..1: as told, else by degrees, for no gram makes it another dough."""
    if mix.cheese:
        return float(mix.cheese == "melted")
    cheese = _between(cheese_share(batch), constant("cheese_seldom_melted"), constant("cheese_mostly_melted"))
    if not cheese:
        return 0.0
    return cheese * (
        1
        - _between(_vegetable_share(batch), constant("cold_stir_few_vegetables"), constant("cold_stir_much_vegetable"))
    )


def _between(share: float, low: float, high: float) -> float:
    """How far a share has come from one to another, 0..1."""
    return min(max((share - low) / (high - low), 0.0), 1.0)


def _vegetable_share(batch: Batch) -> float:
    vegetable = batch.is_role("vegetable") * batch.inside
    return float(batch.grams @ vegetable) / batch.dough_g if batch.dough_g else 0.0


def cheese_share(batch: Batch) -> float:
    """Return how much of the dough is cheese that melts, share; one that hardly melts counts by as much as it does."""
    if not batch.dough_g:
        return 0.0
    carries = np.minimum(batch.behaviour("melt")[0] / constant("melts_enough"), 1.0)
    return float(batch.grams @ (sorted_by_phase(batch).lies_in["cheese"] * carries)) / batch.dough_g


def runny_cheese_share(batch: Batch) -> float:
    """Return how much of the dough is cheese that runs or oils out on a hot tray, share: hard grating cheese too."""
    if not batch.dough_g:
        return 0.0
    runs = np.minimum(batch.behaviour("melt")[0] / constant("oils_out"), 1.0)
    return float((batch.grams * batch.inside) @ (batch.is_role("cheese") * runs)) / batch.dough_g
