"""One real oven: how far it runs over its dial and how fast it colours, learned from its logged bakes.

Prior N(0, 12 K). A logged bake says the time at which it was done, the weight that came out, or a probe's reading; each is an
observation of the offset with a noise of its own. Weight tells about twice as much as the clock. Colour is fitted only after
the offset, since the two are confounded.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt

from substrata.oven.numbers import oven_number
from substrata.quantities.spread import SDS_IN_HALF_90

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


def learned(
    name: str, readings: Sequence[OffsetReading], bakes: int, *, browning: float = 1.0, altitude_m: float = 0.0
) -> OvenProfile:
    """Prior and readings together: normal with normal.

    Args:
        name: of the oven.
        readings: of all its bakes; none leaves the prior.
        bakes: how many bakes they come from.
        browning: factor of colour.
        altitude_m: where it stands.
    """
    prior = oven_number("oven_offset_sd")
    weight, pull = 1 / prior**2, 0.0
    for reading in readings:
        weight += 1 / reading.sd_k**2
        pull += reading.offset_k / reading.sd_k**2
    sd = sqrt(1 / weight)
    return OvenProfile(
        name=name,
        offset_k=pull / weight,
        offset_sd=max(sd, FLOOR_K) if readings else sd,
        browning=browning,
        bakes=bakes,
        altitude_m=altitude_m,
    )
