"""A value with its 90 % range."""

from __future__ import annotations

from dataclasses import dataclass

# Half-width of a central 90 % range in standard deviations of a normal distribution.
SDS_IN_HALF_90 = 1.6448536269514722


@dataclass(frozen=True, kw_only=True)
class Spread:
    """A value and the range that holds it nine times in ten.

    >>> Spread(value=100.0, low=92.0, high=108.0).sd.__round__(2)
    4.86
    """

    value: float  # best estimate
    low: float  # 5th percentile
    high: float  # 95th percentile

    @property
    def sd(self) -> float:
        """Standard deviation of the normal distribution with this 90 % width."""
        return (self.high - self.low) / (2 * SDS_IN_HALF_90)

    @classmethod
    def around(cls, value: float, half: float) -> Spread:
        """Make a symmetric spread, not reaching below zero for a positive value."""
        low = value - half
        return cls(value=value, low=max(low, 0.0) if value >= 0 else low, high=value + half)

    def scaled(self, factor: float) -> Spread:
        """Multiply all three by a non-negative factor."""
        return Spread(value=self.value * factor, low=self.low * factor, high=self.high * factor)
