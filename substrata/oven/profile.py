"""One real oven: how far it runs over its dial and how fast it colours, learned from its logged bakes.

Prior N(0, 12 K). A logged bake says the time at which it was done, the weight that came out, or a probe's reading; together they
are one reading of the offset, with what differs from bake to bake added. Colour is fitted only after the offset, since the two
are confounded.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import hypot, sqrt

from substrata.oven.numbers import oven_number
from substrata.quantities.spread import SDS_IN_HALF_90

_ROUNDS = 30  # of reweighing; it settles in a dozen
FLOOR_K = 5.0  # no logging brings a domestic oven closer than this (assumed)


@dataclass(frozen=True, kw_only=True)
class OvenProfile:
    """What is known of an oven."""

    name: str = "an unknown oven"
    offset_k: float = 0.0  # really, over the dial
    offset_sd: float = 12.0
    browning: float = 1.0  # factor of colour
    bakes: int = 0  # that stand behind it
    altitude_m: float = 0.0  # where it stands

    @property
    def half_90_k(self) -> float:
        """90 % half-range of the offset, K."""
        return SDS_IN_HALF_90 * self.offset_sd

    @property
    def text(self) -> str:
        """The oven in words."""
        if not self.bakes:
            return f"{self.name}: unknown, ± {self.half_90_k:.0f} °C"
        side = "hot" if self.offset_k > 0 else "cool"
        bakes = "1 bake" if self.bakes == 1 else f"{self.bakes} bakes"
        return f"{self.name}: {abs(self.offset_k):.0f} °C {side} ± {self.half_90_k:.0f}, from {bakes}"


@dataclass(frozen=True, kw_only=True)
class OffsetReading:
    """What one bake says of the offset."""

    offset_k: float  # at which the forecast meets what was seen
    sd_k: float  # its noise, in kelvin of offset

    @property
    def half_90_k(self) -> float:
        """90 % half-range, K."""
        return SDS_IN_HALF_90 * self.sd_k


def one_reading(readings: Sequence[OffsetReading]) -> OffsetReading | None:
    """What a whole bake says: its clock, weight and probe are of one bake, and count once; None when it says nothing.

    Args:
        readings: of one bake.
    """
    if not readings:
        return None
    weights = [1 / reading.sd_k**2 for reading in readings]
    mean = sum(w * reading.offset_k for w, reading in zip(weights, readings, strict=True)) / sum(weights)
    return OffsetReading(offset_k=mean, sd_k=hypot(min(r.sd_k for r in readings), oven_number("bake_noise")))


def learned(
    name: str,
    bakes: Sequence[Sequence[OffsetReading]],
    *,
    browning: float = 1.0,
    altitude_m: float = 0.0,
) -> OvenProfile:
    """Prior and bakes together: a normal prior, and Student's t for each bake, so that one bad bake is held for what it is.

    Args:
        name: of the oven.
        bakes: the readings of each bake; none leaves the prior.
        browning: factor of colour.
        altitude_m: where it stands.
    """
    seen = [reading for bake in bakes if (reading := one_reading(bake)) is not None]
    prior, nu = oven_number("oven_offset_sd"), oven_number("bake_trust")
    offset, weight = 0.0, 1 / prior**2
    for _ in range(_ROUNDS if seen else 0):
        # The weights of the t-distribution as a scale mixture of normals (Lange, Little & Taylor 1989).
        trusts = [(nu + 1) / (nu + ((r.offset_k - offset) / r.sd_k) ** 2) / r.sd_k**2 for r in seen]
        weight = 1 / prior**2 + sum(trusts)
        offset = sum(t * r.offset_k for t, r in zip(trusts, seen, strict=True)) / weight
    sd = sqrt(1 / weight)
    return OvenProfile(
        name=name,
        offset_k=offset,
        offset_sd=max(sd, FLOOR_K) if seen else sd,
        browning=browning,
        bakes=len(bakes),
        altitude_m=altitude_m,
    )
