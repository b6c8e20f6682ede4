"""How a bracket's ruler is drawn: its ends and its ticks."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from substrata.formula.form_table import Window


@dataclass(frozen=True, kw_only=True)
class Ruler:
    """What the bracket's ruler shows. It depends on the window only, so it rests while a value moves."""

    low: float
    high: float
    ticks: tuple[float, ...]


@lru_cache(maxsize=1024)
def ruler(window: Window, open_end: float) -> Ruler:
    """Return a ruler with room on both sides of the window; ``open_end`` is its end when there is none.

    >>> ruler(Window(low=0.3, high=0.6), 0.5).low.__round__(2), ruler(Window(high=4.0), 9.0).high
    (0.0, 8.0)
    """
    low, high = window.low, window.high
    if low is not None and high is not None:
        room = (high - low) or abs(high) or 1.0
        start, end = max(low - room, 0.0), high + room
    elif high is not None:
        start, end = 0.0, 2 * high or 1.0
    elif low is not None:
        start, end = 0.0, 2.5 * low or 1.0
    else:
        start, end = 0.0, open_end or 1.0
    step = _tick_step(end - start)
    first = int(start / step) + (start % step > step * 1e-6)
    ticks = []
    while (tick := first * step) <= end + step * 1e-6:
        ticks.append(round(tick, 6))
        first += 1
    return Ruler(low=start, high=end, ticks=tuple(ticks))


def open_end_for(value: float) -> float:
    """Open the next 1, 2 or 5 times a power of ten above one and a half times the value."""
    value *= 1.5
    if value <= 0:
        return 1.0
    power = 10.0 ** (len(str(int(value))) - 1) if value >= 1 else 0.1
    return next((m * power for m in (1, 2, 5, 10) if m * power >= value), 10 * power)


def _tick_step(length: float) -> float:
    power = 1e-4
    while True:
        for nice in (1, 2, 5):
            if length / (nice * power) <= 10:
                return nice * power
        power *= 10
