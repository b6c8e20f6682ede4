"""How the simulated scale and probe behave: noise, drift and creep of a load cell; lag and noise of a probe.

Plain sums over time, so that a test can turn the clock itself.
"""

from __future__ import annotations

import random
from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass, field
from math import exp

CAPACITY_G = 5000.0
_STEP_G = 0.1
_NOISE_G, _DRIFT_G, _CREEP = 0.04, 0.15, 0.0004  # sd of a reading; wander in ten minutes; share that settles late
_CREEP_S, _SETTLES_S = 40.0, 0.5
_STABLE_G, _STABLE_S = 0.15, 0.8  # so little change for so long is called stable
_LAG_S = {"core": 7.0, "oven": 4.0}
_NOISE_C = 0.3


@dataclass
class ScalePhysics:
    """A scale with a bowl on it."""

    seed: int = 1
    load_g: float = 0.0  # true, on the pan
    tare_g: float = 0.0
    _shown: float = 0.0
    _creep: float = 0.0
    _drift: float = 0.0
    _quiet_s: float = 0.0
    _pour: list[tuple[float, float]] = field(default_factory=list)  # grams per second, seconds left
    _random: random.Random = field(init=False)

    def __post_init__(self) -> None:
        self._random = random.Random(self.seed)  # noqa: S311 - noise, no secret

    def pour(self, grams: float, seconds: float) -> None:
        """Let so much fall into the bowl, evenly."""
        self._pour.append((grams / max(seconds, 0.1), max(seconds, 0.1)))

    def tare(self) -> None:
        """Count what lies on the scale now as nothing."""
        self.tare_g = self.load_g

    def empty(self) -> None:
        """Take everything off."""
        self.load_g, self._pour = 0.0, []

    def step(self, seconds: float) -> None:
        """Let time pass."""
        before = self._shown
        pending: list[tuple[float, float]] = []
        for rate, rest in self._pour:
            flows = min(rest, seconds)
            self.load_g += rate * flows
            if rest > seconds:
                pending.append((rate, rest - seconds))
        self._pour = pending
        self._creep += (self.load_g * _CREEP - self._creep) * (1 - exp(-seconds / _CREEP_S))
        self._drift += self._random.gauss(0, _DRIFT_G) * (seconds / 600) ** 0.5
        aim = self.load_g - self.tare_g + self._creep + self._drift
        self._shown += (aim - self._shown) * (1 - exp(-seconds / _SETTLES_S))
        still = abs(self._shown - before) < _STABLE_G * seconds and not self._pour
        self._quiet_s = self._quiet_s + seconds if still else 0.0

    def line(self) -> str:
        """Return what it prints."""
        if self.load_g > CAPACITY_G:
            return "OL"
        grams = round((self._shown + self._random.gauss(0, _NOISE_G)) / _STEP_G) * _STEP_G
        state = "ST" if self._quiet_s >= _STABLE_S else "US"
        return f"{state},{'NT' if self.tare_g else 'GS'},{'-' if grams < 0 else '+'}{abs(grams):8.1f} g"


@dataclass
class ProbePhysics:
    """A probe in a crumb and one in the oven's air; both follow curves over seconds."""

    seed: int = 2
    core: Sequence[tuple[float, float]] = ((0.0, 21.0),)  # (second, °C)
    oven: Sequence[tuple[float, float]] = ((0.0, 21.0),)
    plugged: bool = True
    _at: float = 0.0
    _felt: dict[str, float] = field(default_factory=lambda: {"core": 21.0, "oven": 21.0})
    _random: random.Random = field(init=False)

    def __post_init__(self) -> None:
        self._random = random.Random(self.seed)  # noqa: S311 - noise, no secret

    def follow(self, core: Sequence[tuple[float, float]], oven: Sequence[tuple[float, float]]) -> None:
        """Follow these curves from now on."""
        self.core, self.oven, self._at = core, oven, 0.0

    def step(self, seconds: float) -> None:
        """Let time pass."""
        self._at += seconds
        for channel, curve in (("core", self.core), ("oven", self.oven)):
            true = _on(curve, self._at)
            self._felt[channel] += (true - self._felt[channel]) * (1 - exp(-seconds / _LAG_S[channel]))

    def lines(self) -> tuple[str, str]:
        """Return what it prints, a line a channel."""
        if not self.plugged:
            return "CORE ----", "OVEN ----"
        core, oven = (self._felt[c] + self._random.gauss(0, _NOISE_C) for c in ("core", "oven"))
        return f"CORE {core:.1f} C", f"OVEN {oven:.1f} C"


def _on(curve: Sequence[tuple[float, float]], second: float) -> float:
    """Return a curve between its points; its ends go on."""
    place = bisect_right([s for s, _ in curve], second)
    if place == 0:
        return curve[0][1]
    if place == len(curve):
        return curve[-1][1]
    (a, low), (b, high) = curve[place - 1], curve[place]
    return low + (high - low) * (second - a) / (b - a)
