"""The live bake: what clock, scale, probe and eye say while it bakes moves the window of the forecast.

Bakes with other ovens, colours, convections and thicknesses are run once (an ensemble); a reading is laid over what each of them
had at that minute, and the moment of done follows by their common scatter (a linear update of an ensemble, Evensen 1994). A
reading far from all of them counts less: one wrong number does not move the bake.
"""

from __future__ import annotations

from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from math import exp, hypot
from typing import Literal

import numpy as np

from substrata.base.errors import FormulaError
from substrata.base.messages.message import Capitalized, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.uncertainty import SDS_IN_HALF_90
from substrata.execution.reading_noise import reading_noise
from substrata.ingredients.library import Floats
from substrata.process.baking.bake_case import BakeCase
from substrata.process.baking.bake_simulation import run
from substrata.process.baking.doneness import doneness
from substrata.process.baking.oven_questions import COARSE, varied
from substrata.process.baking.simulation.bake_curves import Ran
from substrata.process.baking.simulation.oven_constants import oven_number

MEMBERS = 48
_READINGS_PER_KIND = 6  # readings that are used: close ones say the same
_BEYOND = 2.5  # standard deviations from which a reading counts less
ReadingKind = Literal["weight", "core", "oven", "colour"]
KINDS: tuple[ReadingKind, ...] = ("weight", "core", "oven", "colour")
_NOISE_OF = {"weight": "loss", "core": "core", "oven": "air", "colour": "chip"}  # kinds of ``readings_noise.csv``


@dataclass(frozen=True, kw_only=True)
class BakeReading:
    """Something seen while it bakes."""

    minute: float
    kind: ReadingKind
    value: float  # share lost; °C; or colour from −2 (far too pale) to 2 (far too dark), 0 as wanted


@dataclass(frozen=True, kw_only=True)
class LiveForecast:
    """The window as it stands."""

    minute: float
    ready_min: float | None
    low_min: float | None
    high_min: float | None
    remaining_min: float | None  # until it is done
    before_min: float | None  # what was forecast before the first reading
    before_low_min: float | None
    before_high_min: float | None
    check_min: float | None  # when to look next
    offset_k: float  # of the oven over its dial, by this bake
    offset_sd: float
    odd: tuple[int, ...]  # readings that hardly fit, by their number
    text: Wording


class LiveBake:
    """A bake and its like: worked out once, asked again with every reading."""

    def __init__(self, case: BakeCase, form: str) -> None:
        self.case = case
        normals = _normals()
        cases = varied(case, form, normals)
        with ThreadPoolExecutor(2) as pool:
            runs = list(pool.map(_one, cases))
        known = [n for n, (_, ready) in enumerate(runs) if ready]
        self.runs: list[Ran] = [runs[n][0] for n in known]
        self.cases: list[BakeCase] = [cases[n] for n in known]
        self.ready: Floats = np.log([runs[n][1] or 1.0 for n in known])
        self.offsets: Floats = np.array([c.offset_k for c in self.cases])
        self.knows = len(known) >= MEMBERS // 2

    def forecast(self, minute: float, readings: Sequence[BakeReading] = ()) -> LiveForecast:
        """Return the window after some readings.

        Args:
            minute: now, from when it went in.
            readings: what was seen so far, in any order.

        Raises:
            FormulaError: when a reading cannot be meant.
        """
        for reading in readings:
            check_reading(reading)
        if not self.knows:
            return self._unknown(minute)
        thinned = _thinned(readings)
        states = np.column_stack((self.ready, self.offsets))
        before = states.mean(axis=0)
        mean, sd, odd = self._updated(states, thinned)
        # What the model misses by itself is not seen before it is done: it stays, but what is left of the bake shrinks.
        remaining_share = max(1 - minute / exp(mean[0]), 0.15)
        spread = hypot(float(sd[0]), oven_number("model_error") * (remaining_share if thinned else 1.0))
        first = hypot(float(self.ready.std()), oven_number("model_error"))
        ready = exp(float(mean[0]))
        low, high = ready * exp(-SDS_IN_HALF_90 * spread), ready * exp(SDS_IN_HALF_90 * spread)
        check = max(min(0.75 * ready, low), minute + 0.25 * max(ready - minute, 0.0))
        return LiveForecast(
            minute=minute,
            ready_min=ready,
            low_min=low,
            high_min=high,
            remaining_min=ready - minute,
            before_min=exp(float(before[0])),
            before_low_min=exp(float(before[0]) - SDS_IN_HALF_90 * first),
            before_high_min=exp(float(before[0]) + SDS_IN_HALF_90 * first),
            check_min=check,
            offset_k=float(mean[1]),
            offset_sd=float(sd[1]),
            odd=tuple(readings.index(thinned[n]) for n in odd),
            text=_text(ready, minute, exp(float(before[0])), float(mean[1]), bool(thinned)),
        )

    def _updated(self, states: Floats, readings: list[BakeReading]) -> tuple[Floats, Floats, list[int]]:
        """Mean and standard deviation of (ln ready, offset) after the readings, and which hardly fit."""
        mean, sds = states.mean(axis=0), states.std(axis=0)
        if not readings:
            return mean, sds, []
        predicted = np.array([[self._predicted(n, reading) for reading in readings] for n in range(len(self.runs))])
        noise = np.array([reading_noise(_NOISE_OF[reading.kind]).sd for reading in readings])
        off = np.array([reading.value for reading in readings]) - predicted.mean(axis=0)
        surprise = np.abs(off) / np.hypot(predicted.std(axis=0), noise)
        # A reading beyond what any like bake has counts as much less as it is beyond.
        noise = noise * np.maximum(surprise / _BEYOND, 1.0) ** 2
        anomalies, about = states - mean, predicted - predicted.mean(axis=0)
        count = len(self.runs) - 1
        both = about.T @ about / count + np.diag(noise**2)
        gain = np.linalg.solve(both, about.T @ anomalies / count).T
        covariance = (anomalies.T @ anomalies / count) - gain @ (about.T @ anomalies / count)
        odd = [n for n, far in enumerate(surprise.tolist()) if far > 2 * _BEYOND]
        return mean + gain @ off, np.sqrt(np.maximum(np.diag(covariance), 1e-6)), odd

    def _predicted(self, member: int, reading: BakeReading) -> float:
        ran, case = self.runs[member], self.cases[member]
        if reading.kind == "oven":
            return case.oven_c + case.offset_k
        if reading.kind == "colour":
            light = float(np.interp(reading.minute, ran.minutes, ran.light_top))
            gold = case.light * exp(-case.gold_dose * case.wish_factor)
            return (gold - light) / oven_number("chip_lightness")
        curve = ran.loss if reading.kind == "weight" else ran.core_c
        return float(np.interp(reading.minute, ran.minutes, curve))

    def _unknown(self, minute: float) -> LiveForecast:
        nothing = dict.fromkeys(
            (
                "ready_min",
                "low_min",
                "high_min",
                "remaining_min",
                "before_min",
                "before_low_min",
                "before_high_min",
                "check_min",
            )
        )
        return LiveForecast(
            minute=minute,
            **nothing,
            offset_k=self.case.offset_k,
            offset_sd=self.case.offset_sd,
            odd=(),
            text=Message("live-forecast-the-end-of-this-bake"),
        )


def check_reading(reading: BakeReading) -> None:
    """Refuse a reading that cannot be meant.

    Raises:
        FormulaError: naming what is allowed.
    """
    allowed = {"weight": (-0.5, 0.95), "core": (-30.0, 150.0), "oven": (-30.0, 400.0), "colour": (-2.0, 2.0)}
    if reading.kind not in allowed:
        raise FormulaError(
            "reading not found", got=str(reading.kind)[:40], allowed=", ".join(allowed), remedy="choose one of these"
        )
    low, high = allowed[reading.kind]
    if not low <= reading.value <= high or not 0 <= reading.minute <= 600:
        raise FormulaError(
            "this reading is not plausible",
            got=f"{reading.kind} {reading.value:g} at {reading.minute:g} min",
            allowed=f"{low:g} to {high:g}, within 600 min",
            remedy="measure again",
            field=reading.kind,
        )


def _normals() -> Floats:
    """Return standard normal draws in mirrored pairs, shape (MEMBERS, 5), always the same."""
    half = np.random.default_rng(20_261_126).normal(size=(MEMBERS // 2, 5))
    return np.vstack((half, -half))


def _one(case: BakeCase) -> tuple[Ran, float | None]:
    ran = run(case, cells=COARSE, keep_s=10.0)
    rim = run(case.rim(), cells=COARSE, keep_s=10.0) if case.form.face == "rim" else None
    return ran, doneness(case, ran, rim).ready


def _thinned(readings: Sequence[BakeReading]) -> list[BakeReading]:
    """Of each kind the newest and some before it, evenly spread: two probes a second apart are one."""
    thinned: list[BakeReading] = []
    for kind in KINDS:
        same_kind = sorted((r for r in readings if r.kind == kind), key=lambda r: r.minute)
        if len(same_kind) > _READINGS_PER_KIND:
            places = np.unique(np.linspace(0, len(same_kind) - 1, _READINGS_PER_KIND).round().astype(int))
            same_kind = [same_kind[place] for place in places.tolist()]
        thinned += same_kind
    return thinned


def _text(ready: float, minute: float, before: float, offset: float, has_readings: bool) -> Wording:
    remaining = ready - minute
    when = (
        Message("live-forecast-about-min-left", remaining=Quantity(remaining, "min", digits=0))
        if remaining >= 1.5
        else Message("live-forecast-check-it-now")
        if remaining > -2
        else Message("live-forecast-take-it-out-now")
    )
    if not has_readings:
        return Message(
            "live-forecast-done-at-about-min-of", when=Capitalized(when), ready=Quantity(ready, "min", digits=0)
        )
    moved = ready - before
    how = (
        Message("live-forecast-as-forecast")
        if abs(moved) < 0.04 * before
        else Message(
            "live-forecast-min-than-forecast",
            moved=Quantity(abs(moved), "min", digits=0),
            later="yes" if moved > 0 else "no",
        )
    )
    oven = (
        Message(
            "live-forecast-this-oven-runs-about-c",
            offset=Quantity(abs(offset), "K", digits=0),
            hot="yes" if offset > 0 else "no",
        )
        if abs(offset) >= 6
        else ""
    )
    return Message("live-forecast-parts", when=Capitalized(when), how=how, oven=oven)
