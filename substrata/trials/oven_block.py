"""What a kitchen's runs teach of its ovens: offset, convection, thickness and browning in one joint update, one reading a bake."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from math import exp, log

import numpy as np

from substrata.oven.numbers import oven_number
from substrata.oven.profile import FLOOR_K, OvenProfile
from substrata.pantry.library import Floats
from substrata.trials.learned import Reading, State, Work, name_of
from substrata.trials.linear import Seen, update
from substrata.trials.making import Making
from substrata.trials.run_figures import PLACE, run_figures

# Priors: one standard deviation (trials.csv would hold no more than these; assumed).
OVEN = (("offset", "K", 12.0), ("convection", "ln", 0.15), ("thickness", "ln", 0.12), ("browning", "ln", 0.25))
# What one run adds by itself.
_LOSS_SD, _CHIP_L, _CHIP_SD, _PHOTO_SD, _CORE_SD = 0.014, 6.0, 0.8, 3.5, 3.0
_LAST_CHIP = 2  # it stands for all that is darker, or paler, too
_REMAIN = {"loss": 0.012, "top": 2.5, "core": 1.5}
_STEP = (6.0, 0.1, 0.08, 0.15)
_HOUSE: Floats = np.zeros(len(OVEN))


def ovens(read: Sequence[Reading]) -> Work:
    """One update for each oven: offset, convection, thickness, browning, and what is left of each formula."""
    work: Work = []
    for oven in dict.fromkeys(one.oven for one in read):
        own = [one for one in read if one.oven == oven and not one.dough.case.fried]
        formulas = list(dict.fromkeys(name_of(one.run) for one in own))
        names = [name for name, *_ in OVEN]
        prior = [sd for *_, sd in OVEN]
        for formula in formulas:
            for figure, sd in _REMAIN.items():
                names.append(f"{figure} of {formula}")
                prior.append(sd)
        seen = [s for one in own if (s := _oven_seen(one, names)) is not None]
        if seen:
            about = update(np.array(prior), seen).mean[: len(OVEN)]
            if np.any(np.abs(about) > _STEP):
                # Far from the house's oven the slopes are others: once more about what was found.
                seen = [s for one in own if (s := _oven_seen(one, names, about)) is not None]
            work.append((f"oven:{oven}" if oven else "oven", names, prior, seen))
    return work


def _colour_seen(one: Reading) -> list[tuple[str, float, float, int]]:
    """What a verdict says of the face: a lightness read off a photo, else the chip beside the colour that was wished for.

    The outermost chip is where the scale ends, half a chip before it.
    """
    verdict, case = one.run.verdict, one.dough.case
    if verdict and verdict.lightness is not None:
        return [("top", verdict.lightness, _PHOTO_SD, 0)]
    if not verdict or verdict.colour is None or not case.form.asks_colour:
        return []
    gold = oven_number("dough_light") * exp(-oven_number("gold_dose") * case.wish_factor)
    end = 0 if abs(verdict.colour) < _LAST_CHIP else 1 if verdict.colour < 0 else -1
    return [("top", gold - _CHIP_L * (verdict.colour + 0.5 * end), _CHIP_L * _CHIP_SD, end)]


def _oven_seen(one: Reading, names: list[str], about: Floats = _HOUSE) -> Seen | None:
    """The readings of a run, as straight lines about an oven: what it does, and how that goes with its offset, convection, thickness
    and browning.
    """
    done = one.done
    found = _colour_seen(one)
    if done.weight_in_g and done.weight_out_g is not None and 0 < done.weight_out_g <= done.weight_in_g:
        found.append(("loss", 1 - done.weight_out_g / done.weight_in_g, _LOSS_SD, 0))
    if done.core_c is not None and one.forecast.marks.crumb:
        found.append(("core", done.core_c, _CORE_SD, 0))
    probe = done.probe_c is not None
    if not found and not probe and done.thickness_mm is None:
        return None
    making = _in(one.forecast.making, about)
    base = run_figures(one.dough, making, one.forecast.marks) if found and np.any(about) else one.forecast.figures
    slopes = _oven_slopes(one, making) if found else {}
    offs, rows, noise = [], [], []
    ends = [end for *_, end in found]
    for figure, value, sd, _ in found:
        row = np.zeros(len(names))
        row[: len(OVEN)] = slopes[figure]
        if done.thickness_mm is not None:
            row[2] = 0.0  # it was measured, and is in the forecast already
        row[names.index(f"{figure} of {name_of(one.run)}")] = 1.0
        offs.append(value - float(base[PLACE[figure]]) + float(row[: len(OVEN)] @ about))
        rows.append(row)
        noise.append(sd)
    if done.probe_c is not None:
        row = np.zeros(len(names))
        row[0] = 1.0
        dial = done.oven_c if done.oven_c is not None else one.dough.case.oven_c
        offs.append(done.probe_c - dial)
        rows.append(row)
        noise.append(5.0)
        ends.append(0)
    if done.thickness_mm is not None:
        row = np.zeros(len(names))
        row[2] = 1.0
        offs.append(log(done.thickness_mm / one.dough.piece.thickness_mm))
        rows.append(row)
        noise.append(0.08)
        ends.append(0)
    return Seen(
        run=one.id, off=np.array(offs), slope=np.array(rows), noise=np.array(noise), end=np.array(ends, dtype=float)
    )


def _in(making: Making, about: Floats) -> Making:
    """A making in an oven that differs from the house's, by offset, convection, thickness and browning."""
    oven, air, thick, brown = about.tolist()
    return replace(
        making,
        oven_k=making.oven_k + oven,
        convection=making.convection * exp(air),
        thickness=making.thickness * exp(thick),
        browning=making.browning * exp(brown),
    )


def _oven_slopes(one: Reading, making: Making) -> dict[str, Floats]:
    """How loss, lightness and core go with offset, convection, thickness and browning."""
    rows = []
    for n, step in enumerate(_STEP):
        aside = step * np.eye(len(_STEP))[n]
        up, down = (run_figures(one.dough, _in(making, side), one.forecast.marks) for side in (aside, -aside))
        rows.append((up - down) / (2 * step))
    whole = np.array(rows)
    return {figure: whole[:, PLACE[figure]] for figure in _REMAIN}


def oven_of(state: State, oven: str = "", name: str = "this oven") -> OvenProfile:
    """An oven as its runs tell it."""
    updated = state.blocks.get(f"oven:{oven}" if oven else "oven")
    if updated is None:
        return OvenProfile(name=name)
    return OvenProfile(
        name=name,
        offset_k=float(updated.mean[0]),
        offset_sd=max(float(updated.sd[0]), FLOOR_K),
        browning=exp(float(updated.mean[3])),
        bakes=len(updated.trust),
    )
