"""What one logged bake says of its oven: the offset at which the forecast meets the clock, the scale or a probe."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from substrata.oven.case import BakeCase
from substrata.oven.numbers import oven_number
from substrata.oven.profile import OffsetReading
from substrata.oven.questions import COARSE, many
from substrata.oven.stages import run

_TRIED_K = np.linspace(-25.0, 25.0, 7)
_PROBE_SD = 3.0  # of a probe left in an empty oven (assumed)
_WIDEST = 60.0  # a reading less certain than this says nothing


@dataclass(frozen=True, kw_only=True)
class BakeSeen:
    """What a baker saw."""

    minutes: float | None = None  # when it was done
    before_g: float | None = None
    after_g: float | None = None
    probe_c: float | None = None  # the empty oven's air, by a probe, at the dial's setting


def readings(case: BakeCase, seen: BakeSeen) -> tuple[OffsetReading, ...]:
    """Readings of the offset from one bake; none when it says nothing.

    Args:
        case: the bake as it is forecast, with no offset.
        seen: what was seen.
    """
    rows = []
    if seen.probe_c is not None:
        rows.append(OffsetReading(offset_k=seen.probe_c - case.oven_c, sd_k=_PROBE_SD))
    plain = replace(case, offset_k=0.0)
    if seen.minutes is not None:
        tried = [replace(plain, offset_k=float(k)) for k in _TRIED_K]
        times = np.array([np.nan if d.ready is None else d.ready for d in many(tried)])
        rows += _crossed(times, seen.minutes, oven_number("noise_clock") * seen.minutes)
        if seen.before_g and seen.after_g is not None:
            lost = 1 - seen.after_g / seen.before_g
            minutes = seen.minutes
            losses = np.array([run(c, until_min=minutes, cells=COARSE, keep_s=60.0).loss[-1] for c in tried])
            rows += _crossed(losses, lost, oven_number("noise_weight"))
    return tuple(rows)


def _crossed(values: np.ndarray, seen: float, noise: float) -> list[OffsetReading]:
    """The offset at which a curve over offsets meets what was seen, with the noise turned into kelvin by its slope."""
    known = np.isfinite(values)
    if known.sum() < 3:
        return []
    slope, level = np.polyfit(_TRIED_K[known], values[known], 1)
    if abs(slope) < 1e-9:
        return []
    at, order = values[known], np.argsort(values[known])
    inside = at.min() <= seen <= at.max()
    offset = float(np.interp(seen, at[order], _TRIED_K[known][order])) if inside else float((seen - level) / slope)
    sd = float(noise / abs(slope))
    return [OffsetReading(offset_k=float(np.clip(offset, -60, 60)), sd_k=sd)] if sd < _WIDEST else []
