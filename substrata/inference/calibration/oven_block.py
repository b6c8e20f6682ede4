"""What a kitchen's bakes teach of its ovens: offset, convection, thickness and browning in one joint update, one reading a bake.

The only learner of an oven. It starts from what was read (a weight before and after, a core, a color, a photo, a thermometer in the
oven, the minute at which a bake was called done), so that another release of the model learns anew from the same readings.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from math import exp, log
from types import MappingProxyType

import numpy as np

from substrata.base.messages.message import Message, Wording
from substrata.base.tables.table_reader import constant
from substrata.execution.reading_noise import reading_noise
from substrata.inference.bake_figures import PLACE, run_figures
from substrata.inference.calibration.learned_parameters import CalibrationState, Reading, Work, name_of
from substrata.inference.calibration.robust_update import Residual, update
from substrata.inference.making import Making, baked_case, make
from substrata.ingredients.library import Floats
from substrata.process.baking.oven_profile import OvenProfile
from substrata.process.baking.oven_questions import coarse
from substrata.process.baking.simulation.oven_constants import oven_number

# Parameters, their unit and the number of ``oven.csv`` that is one standard deviation of the prior.
OVEN = (
    ("offset", "K", "oven_offset_sd"),
    ("convection", "ln", "convection_sd"),
    ("thickness", "ln", "thickness_sd"),
    ("browning", "ln", "browning_sd"),
)
_LAST_CHIP = 2  # it stands for all that is darker, or paler, too
_FIGURES = ("loss", "top", "core", "ready")
_STEP = (6.0, 0.1, 0.08, 0.15)
_HOUSE: Floats = np.zeros(len(OVEN))
_LEAST_MIN = 0.5  # of a bake that says anything


@dataclass(frozen=True, kw_only=True)
class _Observation:
    """One figure that was read off a bake."""

    figure: str  # loss, top, core, or ready: the logarithm of the minutes at which it was done
    value: float
    sd: float
    end: int = 0  # of a scale that ends: 1 where the truth may lie further up, -1 further down


def ovens(
    read: Sequence[Reading], offsets: Mapping[str, Sequence[tuple[str, float, float]]] = MappingProxyType({})
) -> Work:
    """Set up one update for each oven: its four parameters, and what is left of each formula.

    Args:
        read: the bakes of a kitchen.
        offsets: readings of an offset itself, by oven: of which bake, K, and one standard deviation.

    Returns:
        The updates by oven.
    """
    work: Work = []
    for oven in dict.fromkeys((*(reading.oven for reading in read), *offsets)):
        baked = [reading for reading in read if reading.oven == oven and not reading.dough.case.fried]
        formulas = list(dict.fromkeys(name_of(reading.run) for reading in baked))
        names = [name for name, *_ in OVEN]
        prior = [oven_number(sd) for *_, sd in OVEN]
        for formula in formulas:
            for figure, sd in _remains().items():
                names.append(f"{figure} of {formula}")
                prior.append(sd)
        direct = [_direct(names, *row) for row in offsets.get(oven, ())]
        residuals = [*direct, *(s for reading in baked if (s := _evidence(reading, names)) is not None)]
        if residuals:
            about = update(np.array(prior), residuals).mean[: len(OVEN)]
            if np.any(np.abs(about) > _STEP):
                # Far from the model's oven the slopes are others: once more about what came out.
                residuals = [*direct, *(s for reading in baked if (s := _evidence(reading, names, about)) is not None)]
            work.append((f"oven:{oven}" if oven else "oven", names, prior, residuals))
    return work


def _remains() -> dict[str, float]:
    """Return what each formula differs by itself, one standard deviation by figure."""
    face, loss, core = (reading_noise(kind).remains for kind in ("lightness", "loss", "core"))
    return {"loss": loss, "top": face, "core": core, "ready": oven_number("model_error")}


def _direct(names: list[str], bake: str, offset_k: float, sd_k: float) -> Residual:
    """Return a reading of the offset itself; no reading is closer than a thermometer's."""
    sd = max(sd_k, reading_noise("air").sd)
    return Residual(run=bake, off=np.array([offset_k]), slope=_unit(len(names), 0)[None, :], noise=np.array([sd]))


def _color(reading: Reading) -> list[_Observation]:
    """Read the face: a lightness off a photo, else the chip beside the color that was wished for.

    The outermost chip is where the scale ends, half a chip before it.

    Returns:
        Observations of browning, none or one.
    """
    verdict, case = reading.run.verdict, reading.dough.case
    if verdict and verdict.lightness is not None:
        return [_Observation(figure="top", value=verdict.lightness, sd=reading_noise("lightness").sd)]
    if not verdict or verdict.colour is None or not case.form.asks_colour:
        return []
    gold = oven_number("dough_light") * exp(-oven_number("gold_dose") * case.wish_factor)
    end = 0 if abs(verdict.colour) < _LAST_CHIP else 1 if verdict.colour < 0 else -1
    step = oven_number("chip_lightness")
    lightness = gold - step * (verdict.colour + 0.5 * end)
    return [_Observation(figure="top", value=lightness, sd=step * reading_noise("chip").sd, end=end)]


def _clock(reading: Reading) -> list[_Observation]:
    """Read the clock: the minutes of a bake that was called done as it was wanted, where no color says it better."""
    verdict, minutes = reading.run.verdict, reading.done.minutes
    if minutes is None or minutes < _LEAST_MIN or not verdict or verdict.liked != "good":
        return []
    if verdict.colour is not None or verdict.lightness is not None:
        return []
    return [_Observation(figure="ready", value=log(minutes), sd=reading_noise("ready").sd)]


def _observations(reading: Reading) -> list[_Observation]:
    """List what a bake's readings say of what came out."""
    done = reading.done
    rows = _color(reading) + _clock(reading)
    if done.weight_in_g and done.weight_out_g is not None and 0 < done.weight_out_g <= done.weight_in_g:
        loss = 1 - done.weight_out_g / done.weight_in_g
        rows.append(_Observation(figure="loss", value=loss, sd=reading_noise("loss").sd))
    if done.core_c is not None and reading.forecast.marks.crumb:
        rows.append(_Observation(figure="core", value=done.core_c, sd=reading_noise("core").sd))
    return rows


def _evidence(reading: Reading, names: list[str], about: Floats = _HOUSE) -> Residual | None:
    """Linearise the readings of a bake about an oven; None where it says nothing.

    Args:
        reading: the bake with its forecast.
        names: of the parameters, (p,).
        about: the oven that slopes are taken at: offset, convection, thickness, browning.

    Returns:
        The residual with its slope; None where it says nothing.
    """
    done = reading.done
    rows = _observations(reading)
    if not rows and done.probe_c is None and done.thickness_mm is None:
        return None
    making = _in(reading.forecast.making, about)
    clocked = any(row.figure == "ready" for row in rows)
    base = _figures(reading, making, clocked=clocked) if rows else {}
    slopes = _slopes(reading, making, clocked=clocked) if rows else {}
    offs, matrix, noise, ends = [], [], [], []

    def add(off: float, slope: Floats, sd: float, end: int = 0) -> None:
        offs.append(off)
        matrix.append(slope)
        noise.append(sd)
        ends.append(end)

    for row in rows:
        slope = np.zeros(len(names))
        if not np.isfinite(base[row.figure]) or not np.all(np.isfinite(slopes[row.figure])):
            continue
        slope[: len(OVEN)] = slopes[row.figure]
        if done.thickness_mm is not None:
            slope[2] = 0.0  # it was measured, and is in the forecast already
        slope[names.index(f"{row.figure} of {name_of(reading.run)}")] = 1.0
        add(row.value - base[row.figure] + float(slope[: len(OVEN)] @ about), slope, row.sd, row.end)
    if done.probe_c is not None:
        setting = done.oven_c if done.oven_c is not None else reading.dough.case.oven_c
        add(done.probe_c - setting, _unit(len(names), 0), reading_noise("air").sd)
    if done.thickness_mm is not None:
        thicker = log(done.thickness_mm / reading.dough.piece.thickness_mm)
        add(thicker, _unit(len(names), 2), reading_noise("thickness").sd)
    if not offs:
        return None
    return Residual(
        run=reading.id,
        off=np.array(offs),
        slope=np.array(matrix),
        noise=np.array(noise),
        end=np.array(ends, dtype=float),
    )


def _unit(length: int, place: int) -> Floats:
    """Return a unit row, shape (length,)."""
    row: Floats = np.zeros(length)
    row[place] = 1.0
    return row


def _in(making: Making, about: Floats) -> Making:
    """Return a making in an oven that differs from the model's, by offset, convection, thickness and browning."""
    oven, air, thick, brown = about.tolist()
    return replace(
        making,
        oven_k=making.oven_k + oven,
        convection=making.convection * exp(air),
        thickness=making.thickness * exp(thick),
        browning=making.browning * exp(brown),
    )


def _figures(reading: Reading, making: Making, *, clocked: bool) -> dict[str, float]:
    """Compute loss, lightness and core at the end of a bake, and the logarithm of its minutes where the clock was read."""
    whole = run_figures(reading.dough, making, reading.forecast.marks)
    forecast = {figure: float(whole[PLACE[figure]]) for figure in _FIGURES if figure != "ready"}
    ready = coarse(baked_case(make(reading.dough, making), making)).ready if clocked else None
    return {**forecast, "ready": log(ready) if ready else float("nan")}


def _slopes(reading: Reading, making: Making, *, clocked: bool) -> dict[str, Floats]:
    """Compute how each figure goes with offset, convection, thickness and browning, each of shape (4,)."""
    columns: dict[str, list[float]] = {figure: [] for figure in _FIGURES}
    for n, step in enumerate(_STEP):
        aside = step * np.eye(len(_STEP))[n]
        up, down = (_figures(reading, _in(making, side), clocked=clocked) for side in (aside, -aside))
        for figure, column in columns.items():
            column.append((up[figure] - down[figure]) / (2 * step))
    return {figure: np.array(column) for figure, column in columns.items()}


_THIS_OVEN = Message("oven-block-this-oven")


def oven_of(
    state: CalibrationState, oven: str = "", name: Wording = _THIS_OVEN, altitude_m: float = 0.0
) -> OvenProfile:
    """Return an oven as its bakes tell it.

    Args:
        state: what was learned.
        oven: its key.
        name: that is shown.
        altitude_m: where it stands.
    """
    updated = state.blocks.get(f"oven:{oven}" if oven else "oven")
    if updated is None:
        return OvenProfile(name=name, altitude_m=altitude_m)
    offset, air, thick, brown = updated.mean[: len(OVEN)].tolist()
    return OvenProfile(
        name=name,
        offset_k=offset,
        offset_sd=max(float(updated.sd[0]), constant("oven_known_best_k")),
        convection=exp(air),
        thickness=exp(thick),
        browning=exp(brown),
        bakes=len(updated.trust),
        altitude_m=altitude_m,
    )
