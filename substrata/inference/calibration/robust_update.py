"""A robust linear update: what readings of several runs say of what they share.

``y = y0 + A·θ + e``; each run is one vector of readings, and its weight is that of Student's t (Lange, Little & Taylor 1989): one
run gone wrong moves nothing. The state is always worked out anew from all runs.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import pi, sqrt

import numpy as np

from substrata.ingredients.library import Floats

_NU, _PASSES = 4.0, 6  # degrees of freedom; rounds of reweighing
_WIDEST = 1e3  # standard deviation of what says nothing, in the reading's own unit

Read = tuple[Floats, Floats]  # readings and their noise


@dataclass(frozen=True, kw_only=True)
class Residual:
    """The readings of one run, about a forecast."""

    run: str  # its id
    off: Floats  # reading minus forecast, (n,)
    slope: Floats  # of each reading by each parameter, (n, p)
    noise: Floats  # standard deviations, (n,)
    end: Floats | None = None  # (n,): 1 where a scale ends and the truth may lie further up, -1 down, else 0

    @property
    def ends(self) -> Floats:
        """Which readings are the end of a scale, and on which side."""
        return np.zeros(len(self.off)) if self.end is None else self.end


@dataclass(frozen=True, kw_only=True)
class Updated:
    """What is known then."""

    mean: Floats  # (p,)
    covariance: Floats  # (p, p)
    trust: dict[str, float]  # of each run, 0 to 1: how far it was believed

    @property
    def sd(self) -> Floats:
        """Standard deviation of each parameter."""
        result: Floats = np.sqrt(np.maximum(np.diag(self.covariance), 0.0))
        return result


def update(prior_sd: Floats, residuals: Sequence[Residual]) -> Updated:
    """Return a normal prior about 0 and the runs together.

    Args:
        prior_sd: of each parameter, shape (p,).
        residuals: the runs.
    """
    return update_together([(prior_sd, residuals)])[0]


def update_together(problems: Sequence[tuple[Floats, Sequence[Residual]]]) -> list[Updated]:
    """Several such updates that share no parameter but the runs: one that is odd in most of them is odd in all.

    Args:
        problems: of each, the prior's standard deviations and the runs.

    Returns:
        The posterior of each problem.
    """
    trust = {run.run: 1.0 for _, residuals in problems for run in residuals}
    posteriors: list[tuple[Floats, Floats]] = []
    values = [[(run.off, run.noise) for run in residuals] for _, residuals in problems]
    for _ in range(_PASSES):
        posteriors = [
            _weighed(prior, residuals, measured, trust)
            for (prior, residuals), measured in zip(problems, values, strict=True)
        ]
        values = [
            [_beyond(run, measured, *state) for run, measured in zip(residuals, before, strict=True)]
            for (_, residuals), before, state in zip(problems, values, posteriors, strict=True)
        ]
        far: dict[str, float] = dict.fromkeys(trust, 0.0)
        count: dict[str, int] = dict.fromkeys(trust, 0)
        for (_, residuals), (mean, covariance) in zip(problems, posteriors, strict=True):
            for run in residuals:
                deviation = (run.off - run.slope @ mean) / run.noise
                deviation = np.where(
                    run.ends * deviation < 0, 0.0, deviation
                )  # beyond the end of a scale nothing is odd
                # What is not known of the parameters themselves is no oddity of the run.
                free = np.sqrt(1 + np.einsum("ij,jk,ik->i", run.slope, covariance, run.slope) / run.noise**2)
                far[run.run] += float(np.sum((deviation / free) ** 2))
                count[run.run] += len(run.off)
        trust = {run: min((_NU + count[run]) / (_NU + far[run]), 1.0) for run in trust}
    return [
        Updated(mean=mean, covariance=covariance, trust={run.run: trust[run.run] for run in residuals})
        for (_, residuals), (mean, covariance) in zip(problems, posteriors, strict=True)
    ]


def _beyond(run: Residual, value: Read, mean: Floats, covariance: Floats) -> Read:
    """Return what the ends of scales say, as readings: the first two moments of what lies beyond them are kept (Minka 2001).

    Args:
        run: its readings.
        value: each reading and its noise as they stood.
        mean: of the parameters, with these.
        covariance: of them.
    """
    from scipy.special import erfcx  # late: whoever learns nothing does not load it

    if run.end is None:
        return value
    off, noise = value[0].copy(), value[1].copy()
    for n in np.flatnonzero(run.end):
        at, var = float(run.slope[n] @ mean), float(run.slope[n] @ covariance @ run.slope[n])
        if var <= 0:
            continue  # nothing that is asked for moves it
        # Without this reading itself.
        free = 1 / max(1 / var - 1 / noise[n] ** 2, 1 / _WIDEST**2)
        at = free * (at / var - off[n] / noise[n] ** 2)
        whole = sqrt(free + run.noise[n] ** 2)
        z = run.end[n] * (at - run.off[n]) / whole
        ratio = sqrt(2 / pi) / float(erfcx(-z / sqrt(2)))  # density over chance, of a normal; exact however far out
        variance = free * (1 - free * ratio * (z + ratio) / whole**2)
        middle = at + run.end[n] * free * ratio / whole
        tells = max(1 / variance - 1 / free, 1 / _WIDEST**2)
        off[n], noise[n] = (middle / variance - at / free) / tells, 1 / sqrt(tells)
    return off, noise


def _weighed(
    prior_sd: Floats, residuals: Sequence[Residual], values: Sequence[Read], trust: dict[str, float]
) -> tuple[Floats, Floats]:
    """Mean and covariance with each run weighed by how far it is believed."""
    inverse, right = np.diag(1 / prior_sd**2), np.zeros(len(prior_sd))
    for run, (off, noise) in zip(residuals, values, strict=True):
        weight = trust[run.run] / noise**2
        inverse += run.slope.T @ (weight[:, None] * run.slope)
        right += run.slope.T @ (weight * off)
    covariance: Floats = np.linalg.inv(inverse).astype(float)
    return covariance @ right, covariance
