"""The bench-cooling clock: how long a warm dough stays in its workable window.

A lump that cools evenly, slowed by what its inside holds back: ``T = room + (T₀ − room)·e^(−t/τ)`` with
``τ = ρc·V / (A·h)·(1 + Bi/m)``; m is 3 for a sheet, 4 for a rope and 5 for a ball (lumped capacity with the
parabolic profile's correction; Incropera & DeWitt, from memory).
"""

from __future__ import annotations

from dataclasses import dataclass
from math import exp, log, pi
from typing import Literal

from substrata.process.preparation.preparation_constants import heat, surfaces

Lying = Literal["ball", "sheet", "rope"]
_PROFILE = {"sheet": 3.0, "rope": 4.0, "ball": 5.0}
_TOUCHES = {"rope": 0.2, "ball": 0.12}  # share of its skin that lies on the bench (assumed)


@dataclass(frozen=True, kw_only=True)
class CoolingPoint:
    """Temperature at one moment."""

    minutes: float
    temperature_c: float


@dataclass(frozen=True, kw_only=True)
class Cooling:
    """A dough that cools on the bench."""

    start_c: float
    room_c: float
    until_c: float | None  # where it turns brittle
    minutes: float | None  # until then; None when it never gets there
    low_min: float | None
    high_min: float | None
    curve: tuple[CoolingPoint, ...]


def time_constant_s(shape: Lying, thickness_mm: float, surface: str, j_per_m3k: float, *, side: int = 0) -> float:
    """Time constant τ, s.

    Args:
        shape: sheet, rope or ball.
        thickness_mm: of the sheet, or diameter.
        surface: what it lies on.
        j_per_m3k: heat capacity of a cubic metre.
        side: 0 typical, 1 the slow end of the ranges, -1 the quick end.

    Returns:
        Seconds.
    """
    air, bench = (pick(s.value, s.high, s.low, side) for s in (heat("air"), surfaces()[surface]))
    d = thickness_mm / 1000
    if shape == "sheet":
        h, volume_per_area = air + bench, d
    else:
        touch = _TOUCHES[shape]
        h, volume_per_area = air * (1 - touch) + bench * touch, d / (4 if shape == "rope" else 6)
    biot = (h / 2 if shape == "sheet" else h) * (d / 2) / heat("dough_conductivity").value
    return float(j_per_m3k * volume_per_area / h * (1 + biot / _PROFILE[shape]))


def pick(value: float, high: float, low: float, side: int) -> float:
    """Return a coefficient of a range; the quick end takes the large one."""
    return value if side == 0 else low if side > 0 else high


def minutes_to(start_c: float, room_c: float, until_c: float, tau_s: float) -> float | None:
    """Minutes until a temperature; 0 when it is there already, None when the room is warmer.

    >>> round(minutes_to(60.0, 22.0, 35.0, 450.0), 1), minutes_to(60.0, 36.0, 35.0, 450.0)
    (8.0, None)

    Returns:
        Minutes; None when the room is warmer.
    """
    if start_c <= until_c:
        return 0.0
    return float(tau_s) * float(log((start_c - room_c) / (until_c - room_c))) / 60 if until_c > room_c else None


def cooling(
    shape: Lying,
    thickness_mm: float,
    surface: str,
    j_per_m3k: float,
    *,
    start_c: float,
    room_c: float,
    until_c: float | None,
) -> Cooling:
    """Return the clock of a dough on the bench."""
    taus = [time_constant_s(shape, thickness_mm, surface, j_per_m3k, side=side) for side in (0, -1, 1)]
    times = [None if until_c is None else minutes_to(start_c, room_c, until_c, tau) for tau in taus]
    span = max(3 * taus[0] / 60, 2.0)
    points = [span * k / 24 for k in range(25)]
    return Cooling(
        start_c=start_c,
        room_c=room_c,
        until_c=until_c,
        minutes=times[0],
        low_min=times[1],
        high_min=times[2],
        curve=tuple(
            CoolingPoint(minutes=t, temperature_c=room_c + (start_c - room_c) * exp(-60 * t / taus[0])) for t in points
        ),
    )


def ball_mm(grams: float, g_per_ml: float) -> float:
    """Diameter of a ball, mm.

    >>> round(ball_mm(100.0, 1.05), 1)
    56.7

    Returns:
        mm.
    """
    return 10 * float((6 * grams / g_per_ml / pi) ** (1 / 3))
