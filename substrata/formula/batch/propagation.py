"""Sums and ratios over the lines of a batch, with their spread and every line's share of both.

First-order propagation of independent errors: the weight of each line, and each ingredient's own
numbers, which all lines of that ingredient share.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from math import sqrt

import numpy as np

from substrata.base.bulk_dataclass import in_bulk
from substrata.base.uncertainty import SDS_IN_HALF_90
from substrata.formula.batch.batch_lines import Batch
from substrata.ingredients.library import Floats

Coefficient = tuple[Floats, Floats]  # per g of each line: value, standard deviation


@in_bulk
@dataclass(frozen=True, kw_only=True)
class Estimate:
    """A computed figure with its 90 % range."""

    value: float
    low: float
    high: float
    unit: str


@in_bulk
@dataclass(frozen=True, kw_only=True)
class Contribution:
    """What one line brings to a figure and to its spread."""

    line: str
    name: str
    amount: float  # in the figure's unit
    share: float  # of the value (of a ratio: of its numerator), 0..1
    against: float  # of a ratio's denominator, 0..1: what the line holds or weighs; 0 in a plain total
    spread_share: float  # of the variance, 0..1


@in_bulk
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
        """Return the ratio at some weights, shape (n,); 0 when the denominator is not positive."""
        below = self.offset + float(grams @ self.bottom[0])
        return self.scale * float(grams @ self.top[0]) / below if below > 0 else 0.0

    def grams_to_reach(self, grams: Floats, target: float, top: float, bottom: float) -> float | None:
        """Grams to add of a matter with these per-gram coefficients so that the ratio is ``target``.

        Args:
            grams: present weights, shape (n,).
            target: value of the ratio, in its unit.
            top: numerator of 1 g of the added matter.
            bottom: denominator of 1 g of it.

        Returns:
            Grams, negative to take away; None when the matter cannot move the ratio there.
        """
        aim = target / self.scale
        above, below = float(grams @ self.top[0]), self.offset + float(grams @ self.bottom[0])
        pull = top - aim * bottom
        return (aim * below - above) / pull if abs(pull) > 1e-12 else None


def total_ratio(batch: Batch, per_gram: Coefficient, unit: str, scale: float = 1.0) -> Ratio:
    """Return a plain total as a ratio over 1."""
    return Ratio(top=per_gram, bottom=(batch.nothing, batch.nothing), unit=unit, scale=scale, offset=1.0)


class Sheet:
    """Many ratios over one batch, evaluated together with their spread.

    Attributes:
        batch: the n weighed lines.
        ratios: the k ratios by name.
    """

    def __init__(self, batch: Batch, ratios: Mapping[str, Ratio]) -> None:
        self.batch = batch
        self.ratios = dict(ratios)
        self._row = {key: row for row, key in enumerate(self.ratios)}
        k, n, every = len(self.ratios), len(batch.lines), self.ratios.values()
        # Each of shape (k, n).
        self._top = np.array([r.top[0] for r in every]).reshape(k, n)
        self._bottom = np.array([r.bottom[0] for r in every]).reshape(k, n)
        self._below = np.array([r.offset for r in every]) + self._bottom @ batch.grams
        self._over = np.divide(1.0, self._below, where=self._below > 0, out=np.zeros(k))[:, None]
        self._scale = np.array([r.scale for r in every])
        self._plain = (self._top @ batch.grams)[:, None] * self._over
        self._values: list[float] = (self._plain[:, 0] * self._scale).tolist()

    @cached_property
    def _variances(self) -> Floats:
        return self._variances_of(slice(None), tuple(self.ratios.values()))

    def _variances_of(self, rows: slice, ratios: Sequence[Ratio]) -> Floats:
        """Return what each line adds to the variance of some of the ratios, shape (rows, n)."""
        top, bottom, over, plain = self._top[rows], self._bottom[rows], self._over[rows], self._plain[rows]
        top_sd = np.array([r.top[1] for r in ratios]).reshape(top.shape)
        bottom_sd = np.array([r.bottom[1] for r in ratios]).reshape(top.shape)
        weights = self.batch.grams * over
        # An ingredient's own numbers are shared by all its lines: their weights add before they are squared.
        together = weights @ self.batch.same
        result: Floats = (
            ((top - plain * bottom) * over * self.batch.grams_sd) ** 2
            + weights * together * (top_sd**2 + (plain * bottom_sd) ** 2)
        )  # fmt: skip
        return result

    @cached_property
    def _halves(self) -> list[float]:
        result: list[float] = (SDS_IN_HALF_90 * np.sqrt(self._variances.sum(axis=1)) * self._scale).tolist()
        return result

    def value(self, key: str) -> float:
        """Return a ratio's value; 0 when its denominator is not positive."""
        return self._values[self._row[key]]

    def estimate(self, key: str) -> Estimate:
        """Return a ratio with its 90 % range, which does not reach below zero."""
        return self._estimate(key, self._halves[self._row[key]])

    def one_estimate(self, key: str) -> Estimate:
        """Return the same for one who asks of this ratio alone: no other's range is worked out."""
        row = self._row[key]
        variance = float(self._variances_of(slice(row, row + 1), (self.ratios[key],)).sum())
        return self._estimate(key, SDS_IN_HALF_90 * sqrt(variance) * self.ratios[key].scale)

    def _estimate(self, key: str, half: float) -> Estimate:
        ratio, value = self.ratios[key], self.value(key)
        return Estimate(value=value, low=max(value - half, 0.0), high=min(value + half, ratio.most), unit=ratio.unit)

    @cached_property
    def _shares(self) -> list[tuple[list[float], ...]]:
        """Of each ratio: what each line brings, and its shares of the value, of the denominator and of the variance, with a minus."""
        parts, held = self.batch.grams * self._over * self._top * self._scale[:, None], self.batch.grams * self._bottom
        columns = parts, _minus_share(np.abs(parts)), _minus_share(held), _minus_share(self._variances)
        return list(zip(*(column.tolist() for column in columns), strict=True))

    def figure(self, key: str) -> Figure:
        """Return a ratio with its range and every line's contribution."""
        row = self._row[key]
        contributions = _contributions(self.batch, *self._shares[row]) if self._below[row] > 0 else ()
        return Figure(estimate=self.estimate(key), contributions=contributions)


def _minus_share(amounts: Floats) -> Floats:
    """Each line's share of its row, with a minus; shape (k, n)."""
    whole = amounts.sum(axis=1, keepdims=True)
    result: Floats = amounts / -np.where(whole == 0, 1.0, whole)
    return result


def _contributions(
    batch: Batch, amounts: list[float], shares: list[float], against: list[float], spread: list[float]
) -> tuple[Contribution, ...]:
    names = batch.once(_names)
    # Sorted as plain numbers, the line last: every figure of an analysis is sorted so.
    return tuple(
        Contribution(
            line=names[n][0], name=names[n][1], amount=amounts[n], share=-share, against=-held, spread_share=-variance
        )
        for share, held, variance, n in sorted(zip(shares, against, spread, range(len(amounts)), strict=True))
        if share or variance
    )


def _names(batch: Batch) -> tuple[tuple[str, str], ...]:
    """Id and name of each line."""
    return tuple((w.line.id, w.ingredient.name) for w in batch.lines)
