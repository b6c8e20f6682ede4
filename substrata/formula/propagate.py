"""Sums and ratios over the lines of a batch, with their spread and every line's share of both.

First-order propagation of independent errors: the weight of each line, and each ingredient's own
numbers, which all lines of that ingredient share.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from substrata.formula.weighed import Batch
from substrata.pantry.library import Floats
from substrata.quantities.spread import SDS_IN_HALF_90

Coefficient = tuple[Floats, Floats]  # per g of each line: value, standard deviation


@dataclass(frozen=True, kw_only=True)
class Estimate:
    """A computed figure with its 90 % range."""

    value: float
    low: float
    high: float
    unit: str


@dataclass(frozen=True, kw_only=True)
class Contribution:
    """What one line brings to a figure and to its spread."""

    line: str
    name: str
    amount: float  # in the figure's unit
    share: float  # of the value, 0..1
    spread_share: float  # of the variance, 0..1


@dataclass(frozen=True, kw_only=True)
class Figure:
    """A figure and where it comes from, largest contribution first."""

    estimate: Estimate
    contributions: tuple[Contribution, ...]


@dataclass(frozen=True, kw_only=True)
class Ratio:
    """``scale · Σ m·top / (offset + Σ m·bottom)`` over the n lines of a batch."""

    top: Coefficient
    bottom: Coefficient
    unit: str
    scale: float = 1.0
    offset: float = 0.0  # 1 turns the ratio into a plain total
    most: float = float("inf")  # a share cannot pass 1

    def value(self, grams: Floats) -> float:
        """The ratio at some weights, shape (n,); 0 when the denominator is not positive."""
        below = self.offset + float(grams @ self.bottom[0])
        return self.scale * float(grams @ self.top[0]) / below if below > 0 else 0.0

    def estimate(self, batch: Batch) -> Estimate:
        """The ratio with its spread; zero when the denominator is zero."""
        return self._estimate(*self._variances(batch))

    def figure(self, batch: Batch) -> Figure:
        """The ratio with spread and contributions; all zero when the denominator is zero."""
        shown, variances = self._variances(batch)
        parts = self._parts(batch)
        return Figure(
            estimate=self._estimate(shown, variances),
            contributions=_contributions(batch, parts, variances) if len(variances) else (),
        )

    def _estimate(self, shown: float, variances: Floats) -> Estimate:
        half = SDS_IN_HALF_90 * float(variances.sum()) ** 0.5 * self.scale
        return Estimate(value=shown, low=max(shown - half, 0.0), high=min(shown + half, self.most), unit=self.unit)

    def _parts(self, batch: Batch) -> Floats:
        """What each line brings, in the ratio's unit; shape (n,)."""
        below = self.offset + float(batch.grams @ self.bottom[0])
        return batch.grams * self.top[0] * (self.scale / below if below > 0 else 0.0)

    def _variances(self, batch: Batch) -> tuple[float, Floats]:
        """The ratio in its unit, and every line's part of its unscaled variance, shape (n,) or (0,)."""
        m, sd_m = batch.grams, batch.grams_sd
        (top, top_sd), (bottom, bottom_sd) = self.top, self.bottom
        below = self.offset + float(m @ bottom)
        if below <= 0:
            return 0.0, np.zeros(0)
        value = float(m @ top) / below
        by_weight = ((top - value * bottom) / below * sd_m) ** 2
        variances = by_weight + _shared(batch, m / below, top_sd) + _shared(batch, value * m / below, bottom_sd)
        return value * self.scale, variances

    def grams_to_reach(self, grams: Floats, wanted: float, top: float, bottom: float) -> float | None:
        """Grams to add of a matter with these per-gram coefficients so that the ratio is ``wanted``.

        Args:
            grams: present weights, shape (n,).
            wanted: value of the ratio, in its unit.
            top: numerator of 1 g of the added matter.
            bottom: denominator of 1 g of it.

        Returns:
            Grams, negative to take away; None when the matter cannot move the ratio there.
        """
        aim = wanted / self.scale
        above, below = float(grams @ self.top[0]), self.offset + float(grams @ self.bottom[0])
        pull = top - aim * bottom
        return (aim * below - above) / pull if abs(pull) > 1e-12 else None


def total_ratio(batch: Batch, per_gram: Coefficient, unit: str, scale: float = 1.0) -> Ratio:
    """A plain total as a ratio over 1."""
    nothing = (np.zeros(len(batch.grams)), np.zeros(len(batch.grams)))
    return Ratio(top=per_gram, bottom=nothing, unit=unit, scale=scale, offset=1.0)


def _shared(batch: Batch, weights: Floats, sds: Floats) -> Floats:
    """Variance of an ingredient's number over all its lines, dealt out to them by weight; shape (n,)."""
    if not sds.any():
        return np.zeros(len(weights))
    together = np.bincount(batch.groups, weights=weights)[batch.groups]
    return weights * together * sds**2


def _contributions(batch: Batch, parts: Floats, variances: Floats) -> tuple[Contribution, ...]:
    whole, spread = sum(map(abs, parts.tolist())) or 1.0, float(variances.sum()) or 1.0
    found = [
        Contribution(
            line=w.line.id,
            name=w.ingredient.name,
            amount=amount,
            share=abs(amount) / whole,
            spread_share=variance / spread,
        )
        for w, amount, variance in zip(batch.lines, parts.tolist(), variances.tolist(), strict=True)
        if amount or variance
    ]
    return tuple(sorted(found, key=lambda c: (-c.share, -c.spread_share)))
