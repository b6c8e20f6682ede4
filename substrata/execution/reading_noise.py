"""How far a reading of a bake may be off, from ``readings_noise.csv``: the one table for learning, diagnosis and the live bake."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from math import hypot

from substrata.base.errors import LibraryError
from substrata.base.tables.table_reader import read_table


@dataclass(frozen=True, kw_only=True)
class ReadingNoise:
    """Standard deviations of a kind of reading, in the unit of the table."""

    sd: float  # of the instrument, or of the hand and the eye that stand for one
    remains: float  # of the forecast that it is laid beside: what one formula differs by itself

    @property
    def total(self) -> float:
        """Both together, for who lays one reading beside a forecast and learns nothing of the formula."""
        return hypot(self.sd, self.remains)


@cache
def _readings() -> dict[str, ReadingNoise]:
    return {
        row.text("reading"): ReadingNoise(sd=row.number_in("sd", 0), remains=row.number_in("remains", 0))
        for row in read_table("readings_noise.csv")
    }


def reading_noise(kind: str) -> ReadingNoise:
    """Return the noise of a kind of reading.

    Raises:
        LibraryError: when the table has no such kind.
    """
    noise = _readings().get(kind)
    if noise is None:
        raise LibraryError("readings_noise.csv has no such reading", got=kind, allowed=", ".join(_readings()))
    return noise
