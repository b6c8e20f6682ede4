"""How far the water fills what the dry matter could hold.

Available water ``W = Σ m·w·a`` against the demand ``D = Σ m·c``; the *water fill* is ``W/D``. Sharing
is a smooth minimum, ``U = (D⁻ⁿ + W⁻ⁿ)^(−1/n)``, so some water always stays free.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.propagation import Coefficient, Estimate, Ratio, Sheet


@dataclass(frozen=True, kw_only=True)
class Water:
    """Water in the dough, grams."""

    fill: Estimate  # W / D
    available_g: float  # W
    demand_g: float  # D
    held_g: float  # U
    free_g: float  # W − U
    total_percent: float  # all water, % of the dough


def available_per_gram(batch: Batch) -> Coefficient:
    """Water that other matter can drink, per g of each line: value and sd, each shape (n,)."""
    return batch.once(_available)


def _available(batch: Batch) -> Coefficient:
    water, water_sd = batch.nutrient("water_g")
    share, share_sd = batch.behaviour("water_availability")
    return water * share, np.hypot(water_sd * share, water * share_sd)


def fill_ratio(batch: Batch) -> Ratio:
    """Water fill as a ratio over the lines."""
    return Ratio(top=available_per_gram(batch), bottom=batch.behaviour("capacity"), unit="")


def held_water(available: float, demand: float) -> float:
    """Smooth minimum of the water there is and the water that could be held, g.

    >>> round(held_water(570.0, 843.0))
    464
    >>> held_water(100.0, 0.0)
    0.0

    Returns:
        Grams.
    """
    if available <= 0 or demand <= 0:
        return 0.0
    n = constant("sharing_exponent")
    low, high = sorted((available, demand))
    # Written with the ratio of the two, so that tiny amounts do not overflow.
    return float(low * (1 + (low / high) ** n) ** (-1 / n))


def water(sheet: Sheet) -> Water:
    """Water fill and free water; the sheet holds ``water_fill``."""
    batch = sheet.batch
    supply = available_per_gram(batch)
    capacity = batch.behaviour("capacity")
    available = float(batch.grams @ supply[0])
    demand = float(batch.grams @ capacity[0])
    held = held_water(available, demand)
    whole = float(batch.grams @ batch.nutrient("water_g")[0])
    return Water(
        fill=sheet.estimate("water_fill"),
        available_g=available,
        demand_g=demand,
        held_g=held,
        free_g=available - held,
        total_percent=100 * whole / batch.dough_g if batch.dough_g else 0.0,
    )
