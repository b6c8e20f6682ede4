"""One row of the linear problem, and how it is made.

Every row reads ``coefficients · grams ≤ bound``, scaled so that one unit of missing it is as much as the bound itself
(of a ratio), a whole class of handling (of consistency) or a point (of texture).
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from substrata.formula.batch.propagation import Ratio
from substrata.formula.form_table import Window
from substrata.ingredients.library import Floats
from substrata.reformulation.program.balance_problem import BalanceProblem

# What a row stands for, in the order in which a clash lets go of it.
Kind = Literal["rail", "mass", "cap", "window", "handling", "wish", "soft"]
Side = Literal["low", "high"]
TINY = 1e-9


@dataclass(frozen=True, kw_only=True)
class LinearRow:
    """One limit."""

    key: str
    kind: Kind
    side: Side
    coefficients: Floats  # shape (n,)
    bound: float
    limit: float  # in the quantity's own unit
    price: float = 0.0  # of a unit beyond it, for what is soft; 0 where it must hold

    def over(self, grams: Floats) -> float:
        """By how much it is missed, 0 inside."""
        return max(float(self.coefficients @ grams) - self.bound, 0.0)


def ratio_rows(
    problem: BalanceProblem,
    ratio: Ratio,
    key: str,
    kind: Kind,
    window: Window,
    grams: Floats,
    *,
    price: float = 0.0,
    margin: float = 0.0,
) -> Iterator[LinearRow]:
    """Yield the rows of a window on a ratio."""
    top, bottom = problem.per_line(ratio.top[0]) * ratio.scale, problem.per_line(ratio.bottom[0])
    below = ratio.offset + float(grams @ bottom)
    for side, limit in (("high", window.high), ("low", window.low)):
        if limit is None:
            continue
        aim = limit * (1 - margin) if side == "high" else limit * (1 + margin)
        size = max(abs(limit) * below, TINY) if limit else max(float(grams @ top), 1.0)
        sign = 1.0 if side == "high" else -1.0
        yield LinearRow(
            key=key,
            kind=kind,
            side=side,  # type: ignore[arg-type]  # one of the two
            coefficients=sign * (top - aim * bottom) / size,
            bound=sign * aim * ratio.offset / size,
            limit=limit,
            price=price,
        )


def share_row(key: str, kind: Kind, side: Side, counted: Floats, total: Floats, share: float, size: float) -> LinearRow:
    """Return a row: ``counted · g`` at most (at least) a share of ``total · g``."""
    sign = 1.0 if side == "high" else -1.0
    return LinearRow(
        key=key, kind=kind, side=side, coefficients=sign * (counted - share * total) / size, bound=0.0, limit=share
    )


def total_row(
    key: str,
    kind: Kind,
    side: Side,
    counted: Floats,
    limit: float,
    *,
    size: float,
    price: float = 0.0,
) -> LinearRow:
    """Return a row: ``counted · g`` at most (at least) a limit."""
    sign = 1.0 if side == "high" else -1.0
    return LinearRow(
        key=key,
        kind=kind,
        side=side,
        coefficients=sign * counted / size,
        bound=sign * limit / size,
        limit=limit,
        price=price,
    )
