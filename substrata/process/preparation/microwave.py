"""The microwave: melting cheese in bursts, and warming a piece again.

``η·P·t = m·c·ΔT`` and the heat that melting fat takes; η, the share of the power that reaches the food, is the
largest doubt.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

from substrata.process.preparation.preparation_constants import heat

_MOST_BURSTS = 20


@dataclass(frozen=True, kw_only=True)
class Warmed:
    """Some matter that is warmed."""

    grams: float
    j_per_k: float  # heat capacity of all of it
    fat_g: float  # of it that melts


@dataclass(frozen=True, kw_only=True)
class Burst:
    """One burst, with the temperature after stirring."""

    seconds: float
    temperature_c: float
    low_c: float
    high_c: float


@dataclass(frozen=True, kw_only=True)
class Bursts:
    """Warming in bursts."""

    bursts: tuple[Burst, ...]
    seconds: float  # in all
    low_s: float  # nine ovens in ten
    high_s: float
    start_c: float
    reached_c: float


def joules_to(matter: Warmed, start_c: float, end_c: float) -> float:
    """Heat from one temperature to another, J; the fat melts between 20 and 40 °C.

    >>> round(joules_to(Warmed(grams=100.0, j_per_k=300.0, fat_g=20.0), 5.0, 60.0))
    18100

    Returns:
        J.
    """
    return matter.j_per_k * (end_c - start_c) + matter.fat_g * heat("melting_fat").value * (
        _molten(end_c) - _molten(start_c)
    )


def _molten(temperature_c: float) -> float:
    low, high = heat("fat_melts_from").value, heat("fat_melts_to").value
    return min(max((temperature_c - low) / (high - low), 0.0), 1.0)


def warmed_by(matter: Warmed, start_c: float, joules: float) -> float:
    """Temperature after some heat, °C; by bisection, since melting fat holds it back."""
    low, high = start_c, start_c + joules / matter.j_per_k
    for _ in range(40):
        middle = (low + high) / 2
        low, high = (middle, high) if joules_to(matter, start_c, middle) < joules else (low, middle)
    return (low + high) / 2


def seconds_to(matter: Warmed, start_c: float, end_c: float, watts: float, share: float | None = None) -> float:
    """Seconds to a temperature at some power on the door."""
    reaches = heat("microwave_share").value if share is None else share
    return max(joules_to(matter, start_c, end_c), 0.0) / (reaches * watts)


def bursts(matter: Warmed, start_c: float, end_c: float, *, watts: float, burst_s: float) -> Bursts:
    """Plan bursts of equal length, the last one shorter.

    Args:
        matter: what is warmed.
        start_c: its temperature.
        end_c: wanted.
        watts: on the door.
        burst_s: length of a burst.

    Returns:
        Seconds of each burst and pause.
    """
    share = heat("microwave_share")
    whole = seconds_to(matter, start_c, end_c, watts)
    count = min(max(ceil(whole / burst_s - 1e-9), 0), _MOST_BURSTS)
    result, done = [], 0.0
    for number in range(count):
        length = min(burst_s, whole - done) if number < count - 1 else whole - done
        done += length
        result.append(
            Burst(
                seconds=length,
                temperature_c=warmed_by(matter, start_c, share.value * watts * done),
                low_c=warmed_by(matter, start_c, share.low * watts * done),
                high_c=warmed_by(matter, start_c, share.high * watts * done),
            )
        )
    return Bursts(
        bursts=tuple(result),
        seconds=whole,
        low_s=seconds_to(matter, start_c, end_c, watts, share.high),
        high_s=seconds_to(matter, start_c, end_c, watts, share.low),
        start_c=start_c,
        reached_c=end_c if count else start_c,
    )
