"""Questions a bake answers: at which temperature, how thick in so many minutes, and the map of both."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from math import exp

import numpy as np

from substrata.base.settings import Units
from substrata.base.uncertainty import SDS_IN_HALF_90
from substrata.ingredients.library import Floats
from substrata.process.baking.bake_case import BakeCase
from substrata.process.baking.bake_simulation import run
from substrata.process.baking.doneness import Doneness, doneness
from substrata.process.baking.setting_steps import steps_in
from substrata.process.baking.simulation.bake_curves import Ran
from substrata.process.baking.simulation.dough_column import CELLS
from substrata.process.baking.simulation.oven_constants import oven_number, oven_numbers
from substrata.process.shaping.piece import shape_forms

COARSE = 25  # cells
MAP_SIDE = 20


def judged(case: BakeCase, *, cells: int = CELLS, keep_s: float = 15.0) -> tuple[Doneness, Ran]:
    """Return a bake that was run, and the moments read off it; of a form whose rim is looked at, the rim is baked too."""
    ran = run(case, cells=cells, keep_s=keep_s)
    rim = run(case.rim(), cells=COARSE, keep_s=keep_s) if case.form.face == "rim" else None
    return doneness(case, ran, rim), ran


def coarse(case: BakeCase) -> Doneness:
    """Return the moments of a bake on a coarse column: for comparing bakes, not for telling one."""
    return judged(case, cells=COARSE, keep_s=4.0 if case.fried else 20.0)[0]


def many(cases: list[BakeCase]) -> list[Doneness]:
    """Several bakes; the compiled part runs beside Python's lock."""
    with ThreadPoolExecutor(2) as pool:
        return list(pool.map(coarse, cases))


def varied(case: BakeCase, form: str, draws: Floats) -> list[BakeCase]:
    """Return the same bake by other parameters: oven, colour, convection, heat pipe, thickness.

    Args:
        case: the bake.
        form: whose pieces are shaped more or less evenly.
        draws: standard deviations of each of the five, shape (n, 5).
    """
    numbers = oven_numbers()
    h, heat_pipe = numbers["h_static"], numbers["heat_pipe"]
    thin = shape_forms()[form].thickness_tolerance / SDS_IN_HALF_90
    rows = []
    for oven, brown, air, pipe, thick in draws.tolist():
        other = replace(
            case,
            offset_k=case.offset_k + (0.0 if case.fried else case.offset_sd * oven),
            browning=case.browning * exp(brown * oven_number("browning_sd")),
            h_factor=case.h_factor * max(1 + air * h.sd / h.value, 0.3),
            pipe_factor=max(1 + pipe * heat_pipe.sd / heat_pipe.value, 0.3),
        )
        rows.append(other.with_thickness(case.piece.thickness_mm * min(max(1 + thin * thick, 0.5), 1.6)))
    return rows


@dataclass(frozen=True, kw_only=True)
class OvenSetting:
    """One temperature for the present thickness."""

    oven_c: float
    ready_min: float | None
    window_min: float  # between ready and too dark
    loss_percent: float | None
    best: bool


def settings_of(case: BakeCase, units: Units = "metric") -> tuple[OvenSetting, ...]:
    """Return the settings of the dial around what is usual; the best has the widest window within half again the shortest time."""
    steps, most = steps_in(units), 2 if case.fried else 3
    if case.fried:
        degrees = [case.oven_c + n * steps.oil_k for n in range(-most, most + 1)]
    else:
        degrees = [steps.on_dial(case.oven_c) + n * steps.dial_k for n in range(-most, most + 1)]
    result = many([replace(case, heat=replace(case.heat, oven_c=t)) for t in degrees])
    windows = [_window(d) for d in result]
    times = [d.ready for d in result if d.ready is not None]
    fast = 1.5 * min(times) if times else 0.0
    fit = [w if d.ready is not None and d.ready <= fast else -1.0 for w, d in zip(windows, result, strict=True)]
    best = int(np.argmax(fit)) if times else -1
    return tuple(
        OvenSetting(
            oven_c=t,
            ready_min=d.ready,
            window_min=w,
            loss_percent=None if d.loss is None else 100 * d.loss,
            best=n == best,
        )
        for n, (t, d, w) in enumerate(zip(degrees, result, windows, strict=True))
    )


def _window(done: Doneness) -> float:
    """Minutes between ready and the first of too dark and burnt; 0 when it burns first."""
    if done.ready is None:
        return 0.0
    ends = [m for m in (done.gold_until, done.burnt) if m is not None]
    return max(min(ends) - done.ready, 0.0) if ends else 60.0


def thickest_in(case: BakeCase, minutes: float) -> float | None:
    """How thick the same piece may be to be done in so many minutes, mm; by bisection. None when even a thin one is not."""
    low, high = 0.3 * case.piece.thickness_mm, 3.0 * case.piece.thickness_mm

    def in_time(thick: float) -> bool:
        ready = coarse(case.with_thickness(thick)).ready
        return ready is not None and ready <= minutes

    if not in_time(low):
        return None
    if in_time(high):
        return high
    for _ in range(9):
        middle = (low + high) / 2
        low, high = (middle, high) if in_time(middle) else (low, middle)
    return low


@dataclass(frozen=True, kw_only=True)
class BakeMap:
    """Temperature across, thickness down: what a bake of so many minutes comes to."""

    minutes: float
    oven_c: tuple[float, ...]
    thickness_mm: tuple[float, ...]
    regions: tuple[tuple[str, ...], ...]  # [thickness][temperature]: raw, pale (safe, not done), done, dry, burnt
    ready_min: tuple[tuple[float | None, ...], ...]


def map_axes(case: BakeCase, side: int = MAP_SIDE) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """Temperatures and thicknesses of a map around a bake."""
    span = 14.0 if case.fried else 45.0
    degrees = np.linspace(case.oven_c - span, case.oven_c + span, side)
    thick = case.piece.thickness_mm * np.geomspace(0.5, 2.0, side)
    return tuple(degrees.round(1).tolist()), tuple(thick.round(2).tolist())


def map_rows(
    case: BakeCase, minutes: float, side: int = MAP_SIDE
) -> Iterator[tuple[tuple[str, ...], tuple[float | None, ...]]]:
    """Yield the map row by row, so that work can be reported and stopped."""
    degrees, thick = map_axes(case, side)
    for mm in thick:
        thicker = case.with_thickness(mm)
        result = many([replace(thicker, heat=replace(case.heat, oven_c=t)) for t in degrees])
        yield tuple(region(case, d, minutes) for d in result), tuple(d.ready for d in result)


def bake_map(
    case: BakeCase, minutes: float, side: int = MAP_SIDE, step: Callable[[int], bool] | None = None
) -> BakeMap | None:
    """Return the whole map; None when ``step`` (told how many rows are done) says to stop."""
    degrees, thick = map_axes(case, side)
    regions, ready = [], []
    for number, (row, moments) in enumerate(map_rows(case, minutes, side), 1):
        regions.append(row)
        ready.append(moments)
        if step is not None and not step(number):
            return None
    return BakeMap(minutes=minutes, oven_c=degrees, thickness_mm=thick, regions=tuple(regions), ready_min=tuple(ready))


def region(case: BakeCase, done: Doneness, minutes: float) -> str:
    """Return what a bake of so many minutes has come to."""
    if done.burnt is not None and done.burnt <= minutes:
        return "burnt"
    if done.ready is None or done.ready > minutes:
        safe = case.safe_c is None or (done.safe is not None and done.safe <= minutes)
        return "pale" if safe else "raw"
    late = minutes > 1.25 * done.ready
    dark = done.gold_until is not None and done.gold_until <= minutes and case.form.asks_colour
    return "dry" if dark or late else "done"
