"""A robust linear update: what readings of several runs say of what they share.

``y = y0 + A·θ + e``; each run is one vector of readings, and its weight is that of Student's t (Lange, Little & Taylor 1989): one
run gone wrong moves nothing. The state is always worked out anew from all runs.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from substrata.pantry.library import Floats

_NU, _PASSES = 4.0, 6  # degrees of freedom; rounds of reweighing


@dataclass(frozen=True, kw_only=True)
class Seen:
    """The readings of one run, about a forecast."""

    run: str  # its id
    off: Floats  # reading minus forecast, (n,)
    slope: Floats  # of each reading by each parameter, (n, p)
    noise: Floats  # standard deviations, (n,)


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


def update(prior_sd: Floats, seen: Sequence[Seen]) -> Updated:
    """A normal prior about 0 and the runs together.

    Args:
        prior_sd: of each parameter, shape (p,).
        seen: the runs.
    """
    return update_together([(prior_sd, seen)])[0]


def update_together(problems: Sequence[tuple[Floats, Sequence[Seen]]]) -> list[Updated]:
    """Several such updates that share no parameter but the runs: one that is odd in most of them is odd in all.

    Args:
        problems: of each, the prior's standard deviations and the runs.
    """
    trust = {run.run: 1.0 for _, seen in problems for run in seen}
    found: list[tuple[Floats, Floats]] = []
    for _ in range(_PASSES):
        found = [_weighed(prior, seen, trust) for prior, seen in problems]
        far: dict[str, float] = dict.fromkeys(trust, 0.0)
        count: dict[str, int] = dict.fromkeys(trust, 0)
        for (_, seen), (mean, covariance) in zip(problems, found, strict=True):
            for run in seen:
                left = (run.off - run.slope @ mean) / run.noise
                # What is not known of the parameters themselves is no oddity of the run.
                free = np.sqrt(1 + np.einsum("ij,jk,ik->i", run.slope, covariance, run.slope) / run.noise**2)
                far[run.run] += float(np.sum((left / free) ** 2))
                count[run.run] += len(run.off)
        trust = {run: min((_NU + count[run]) / (_NU + far[run]), 1.0) for run in trust}
    return [
        Updated(mean=mean, covariance=covariance, trust={run.run: trust[run.run] for run in seen})
        for (_, seen), (mean, covariance) in zip(problems, found, strict=True)
    ]


def _weighed(prior_sd: Floats, seen: Sequence[Seen], trust: dict[str, float]) -> tuple[Floats, Floats]:
    """Mean and covariance with each run weighed by how far it is believed."""
    inverse, right = np.diag(1 / prior_sd**2), np.zeros(len(prior_sd))
    for run in seen:
        weight = trust[run.run] / run.noise**2
        inverse += run.slope.T @ (weight[:, None] * run.slope)
        right += run.slope.T @ (weight * run.off)
    covariance: Floats = np.linalg.inv(inverse).astype(float)
    return covariance @ right, covariance
