"""What a formula costs: a price for every line that is taken from a priced pack."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from substrata.formula.batch.batch_lines import Batch, WeighedLine
from substrata.formula.batch.propagation import Coefficient, Ratio, total_ratio
from substrata.ingredients.groups import is_group_id


@dataclass(frozen=True, kw_only=True)
class LineCost:
    """What one line costs in the whole batch."""

    line: str
    name: str
    cost: float | None  # None when its price is not known
    share: float  # of what is priced


@dataclass(frozen=True, kw_only=True)
class Cost:
    """Cost in the kitchen's currency; lines without a price are left out and counted."""

    currency: str
    batch: float
    piece: float
    dough_100g: float
    priced_share: float  # of the dough's weight, 0..1
    unpriced: tuple[str, ...]  # lines
    lines: tuple[LineCost, ...]  # dearest first


def price_per_gram(batch: Batch) -> Coefficient:
    """Price of a gram of each line, 0 where it is not known; shape (n,). A bill has no spread."""
    return np.array([_line_price(w) or 0.0 for w in batch.lines], dtype=float), batch.nothing


def cost_ratio(batch: Batch, pieces: int) -> Ratio:
    """Cost of a piece as a ratio over the lines."""
    return total_ratio(batch, price_per_gram(batch), "per piece", 1 / pieces)


def unpriced_lines(batch: Batch) -> tuple[str, ...]:
    """Return the ids of the lines whose price is not known."""
    return tuple(w.line.id for w in batch.lines if _line_price(w) is None)


def cost(batch: Batch, pieces: int, currency: str) -> Cost:
    """Cost of a formula and of each line."""
    costs = []
    for weighed in batch.lines:
        price = _line_price(weighed)
        costs.append((weighed, None if price is None else price * weighed.grams.value))
    whole = sum(c for _, c in costs if c is not None)
    priced_g = sum(w.grams.value for w, c in costs if c is not None)
    lines = [
        LineCost(
            line=w.line.id,
            name=w.ingredient.pack.name if w.ingredient.pack else w.ingredient.name,
            cost=c,
            share=c / whole if c is not None and whole else 0.0,
        )
        for w, c in costs
    ]
    return Cost(
        currency=currency,
        batch=whole,
        piece=whole / pieces,
        dough_100g=100 * whole / batch.whole_g if batch.whole_g else 0.0,
        priced_share=priced_g / batch.whole_g if batch.whole_g else 0.0,
        unpriced=unpriced_lines(batch),
        lines=tuple(sorted(lines, key=lambda line: -(line.cost or 0.0))),
    )


def _line_price(weighed: WeighedLine) -> float | None:
    pack = weighed.ingredient.pack
    price = pack.price_per_g if pack else None
    # Water from the tap costs nothing worth writing down.
    return 0.0 if price is None and is_group_id(weighed.ingredient.id, "water") else price
