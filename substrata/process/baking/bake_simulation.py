"""Run the stages of a bake: the fixed ones as they are told, the last hot one until it is certainly burnt or dry."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from math import log

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.formula.bake_settings import BakeStage, Heat, is_moment
from substrata.ingredients.library import Floats
from substrata.process.baking.bake_case import BakeCase
from substrata.process.baking.doneness import doneness
from substrata.process.baking.simulation.bake_curves import Ran, StageMark
from substrata.process.baking.simulation.dough_column import CELLS, Column, Series, column, fill, flip, top
from substrata.process.baking.simulation.oven_constants import bakeware, oven_number
from substrata.process.baking.simulation.stage_simulation import Steps, Support, Surroundings, bake_stage, cooled

_IN_THE_ROOM = Steps(most_s=120.0)  # nothing changes fast there
LONGEST_MIN = 180.0
_ENOUGH = 1.6  # of the time at which it is done: the picture goes no further
_CHARRED = 1.5  # of the time at which it is burnt: nobody goes on
_CHUNKS = (8.0, 8.0, 14.0, 20.0, 30.0, 40.0, 60.0)  # the open stage goes on by these until it is burnt


def run(
    case: BakeCase,
    *,
    until_min: float | None = None,
    keep_s: float = 15.0,
    rest: bool = False,
    cells: int = CELLS,
    beyond: float = _ENOUGH,
) -> Ran:
    """Bake.

    Args:
        case: what is baked.
        until_min: when it is taken out; None draws the last hot stage out until it is burnt or bone dry.
        keep_s: seconds between two kept moments.
        rest: let it cool afterwards, as long as its form does.
        cells: of the column.
        beyond: how far the last hot stage is drawn out, of the time at which it is done.

    Returns:
        The curves of the bake and where its stages lie.
    """
    ware_c = case.oven_c if case.ware.hot or case.fried else constant("room_temperature")
    dough = column(
        case.matter,
        case.body,
        porosity=case.porosity,
        start_c=case.dough_c,
        ware_c=ware_c,
        light=case.light,
        cells=cells,
    )
    if case.filling is not None:
        fill(dough, case.filling.matter, case.filling.thickness_mm, start_c=oven_number("topping_c"))
    bare = _Bare(cells=len(dough.cells), dry=dough.dry, water=dough.water)
    pieces: list[Series] = []
    marks: list[StageMark] = []
    heat, opened = case.heat, False  # whether the door has just been open
    # The oven is heated without the dough, and the rest follows what is decided here.
    stages = [s for s in case.stages if s.kind not in ("preheat", "rest")]
    if all(is_moment(s.kind) for s in stages):
        stages.append(BakeStage(kind="bake"))  # turned and topped, but never told to bake
    last = max(n for n, s in enumerate(stages) if not is_moment(s.kind))
    open_from = 0.0
    added = 0.0
    for number, stage in enumerate(stages):
        heat = heat.after(stage)
        now = dough.seconds / 60
        if is_moment(stage.kind):
            added += _moment(dough, stage, case)
            marks.append(StageMark(kind=stage.kind, start_min=now, end_min=now, heat=heat))
            if stage.kind in ("flip", "door", "rotate"):
                opened = True
            continue
        if number == last:
            open_from = now
            joined = partial(_so_far, tuple(pieces), now, bare, added, dough)
            pieces += _open_stage(dough, case, heat, until_min, keep_s, joined, beyond, opened=opened)
        else:
            minutes = stage.minutes if stage.minutes is not None else _usual_minutes(case, dough, heat, keep_s)
            pieces += _heated(dough, case, heat, minutes, keep_s, opened=opened)
        marks.append(StageMark(kind=stage.kind, start_min=now, end_min=dough.seconds / 60, heat=heat))
        opened = False
    if rest:
        now = dough.seconds / 60
        pieces += _cooling(dough, case, heat, keep_s)
        room = Heat(oven_c=constant("room_temperature"))
        marks.append(StageMark(kind="rest", start_min=now, end_min=dough.seconds / 60, heat=room))
    return _joined(pieces, tuple(marks), open_from, bare, added, dough)


def _cooling(dough: Column, case: BakeCase, heat: Heat, keep_s: float) -> list[Series]:
    """Return the time after the oven: as it lies at first, then on a rack, where the underside gives off steam too."""
    room = cooled(case.surroundings(Heat(oven_c=heat.oven_c)), constant("room_temperature"))
    on_rack = Support(ware=bakeware()["rack"], contact=0.0, side_per_m=case.support.side_per_m)
    lies = oven_number("carry_over_min")
    parts = [(case.support, lies), (on_rack, case.form.cools_min - lies)]
    return [
        bake_stage(dough, room, support, case.brown, 60 * minutes, keep_s=max(keep_s, 60.0), steps=_IN_THE_ROOM)
        for support, minutes in parts
        if minutes > 0
    ]


@dataclass(frozen=True, kw_only=True)
class _Bare:
    """The dough as it went in, before any topping; kg per m2 of face."""

    cells: int
    dry: float
    water: float


def _moment(dough: Column, stage: BakeStage, case: BakeCase) -> float:
    """Return what happens at once; returns the mass laid on, kg per m2."""
    if stage.kind == "flip":
        flip(dough)
    elif stage.kind == "top" and case.topping is not None and case.body.power == 0:
        before = dough.dry + dough.water
        top(
            dough,
            case.topping.matter,
            case.topping.thickness_mm,
            start_c=oven_number("topping_c"),
            light=oven_number("topping_light"),
        )
        return dough.dry + dough.water - before
    return 0.0


def _heated(dough: Column, case: BakeCase, heat: Heat, minutes: float, keep_s: float, *, opened: bool) -> list[Series]:
    """Return a stage at one setting; after an opened door the air comes back slowly."""
    full = case.surroundings(heat)
    rows = []
    remaining_s = minutes * 60
    if opened and not case.fried and remaining_s > 0:
        back, drop = oven_number("door_back_s"), oven_number("door_drop")
        for part in range(3):
            span = min(back * 0.7, remaining_s)
            missing = drop * np.exp(-(part + 0.5) * 0.7)
            rows.append(_bake(dough, case, _cooler(full, float(missing)), span, keep_s))
            remaining_s -= span
            if remaining_s <= 0:
                return rows
    if remaining_s > 0:
        rows.append(_bake(dough, case, full, remaining_s, keep_s))
    return rows


def _cooler(heat: Surroundings, by_k: float) -> Surroundings:
    return Surroundings(
        air_c=heat.air_c - by_k,
        wall_c=heat.wall_c,
        h=heat.h,
        emissivity=heat.emissivity,
        pressure_pa=heat.pressure_pa,
        vapour_pa=heat.vapour_pa,
        frying=heat.frying,
    )


def _bake(dough: Column, case: BakeCase, heat: Surroundings, seconds: float, keep_s: float) -> Series:
    return bake_stage(
        dough,
        heat,
        case.support,
        case.brown,
        seconds,
        keep_s=keep_s,
        pipe_factor=case.pipe_factor,
    )


def _open_stage(
    dough: Column,
    case: BakeCase,
    heat: Heat,
    until_min: float | None,
    keep_s: float,
    joined: Callable[[list[Series]], Ran],
    beyond: float,
    *,
    opened: bool,
) -> list[Series]:
    if until_min is not None:
        return _heated(dough, case, heat, max(until_min - dough.seconds / 60, 0.0), keep_s, opened=opened)
    rows: list[Series] = []
    shorter = 0.1 if case.fried else 1.0
    for chunk in _CHUNKS:
        rows += _heated(dough, case, heat, chunk * shorter, keep_s, opened=opened)
        opened = False
        now = dough.seconds / 60
        done = doneness(case, joined(rows))
        over = done.ready is not None and now > beyond * done.ready and (done.gold_until or beyond < _ENOUGH)
        charred = done.burnt is not None and now > _CHARRED * done.burnt
        if charred or over or now > LONGEST_MIN:
            break
    return rows


def _usual_minutes(case: BakeCase, dough: Column, heat: Heat, keep_s: float) -> float:
    """Minutes of an early stage that is told without any.

    In oil until the underside is gold; in the oven until three fifths of the wanted loss are gone.

    Returns:
        Minutes.
    """
    trial = dough.copy()
    start = trial.dry + trial.water
    full = case.surroundings(heat)
    step = 10.0 if case.fried else 60.0
    for steps in range(1, 61):
        _bake(trial, case, full, step, max(keep_s, step))
        gold = log(case.light / trial.light[1]) >= case.gold_dose
        lost = 1 - (trial.dry + trial.water) / start >= constant("turned_at_loss") * case.loss_usual
        if gold if case.fried else lost:
            return steps * step / 60
    return step


def _joined(
    pieces: list[Series], marks: tuple[StageMark, ...], open_from: float, bare: _Bare, added: float, dough: Column
) -> Ran:
    """All stages as one; each begins with the moment the one before ended with, which is kept once."""

    def chain(name: str) -> Floats:
        result: Floats = np.concatenate([getattr(p, name) for p in pieces])
        return result

    seconds = chain("seconds")
    keep = np.concatenate(([True], np.diff(seconds) > 1e-6))
    topped = np.concatenate([np.full(len(p.seconds), p.temperatures.shape[1] > bare.cells) for p in pieces])
    mass = np.where(topped, dough.dry, bare.dry) + chain("water")
    loss = 1 - mass / (bare.dry + bare.water + np.where(topped, added, 0.0))
    temperatures = [row for p in pieces for row in p.temperatures]
    waters = [row for p in pieces for row in p.waters]
    return Ran(
        minutes=seconds[keep] / 60,
        core_c=chain("core_c")[keep],
        loss=loss[keep],
        light_top=chain("light_top")[keep],
        light_bottom=chain("light_bottom")[keep],
        scorch=np.maximum(chain("scorch_top"), chain("scorch_bottom"))[keep],
        topping_c=np.where(topped, _coldest(pieces, bare.cells), np.nan)[keep],
        temperatures=tuple(row for row, k in zip(temperatures, keep, strict=True) if k),
        waters=tuple(row for row, k in zip(waters, keep, strict=True) if k),
        marks=marks,
        open_from=open_from,
    )


def _so_far(
    before: tuple[Series, ...], open_from: float, bare: _Bare, added: float, dough: Column, rows: list[Series]
) -> Ran:
    """Return the bake up to now, while its open stage goes on."""
    return _joined([*before, *rows], (), open_from, bare, added, dough)


def _coldest(pieces: list[Series], cells: int) -> Floats:
    """Of the cells above the dough's own, at each moment of all stages; 0 where there are none."""
    temperatures = [p.temperatures[:, cells:] for p in pieces]
    return np.concatenate([t.min(axis=1) if t.shape[1] else np.zeros(len(t)) for t in temperatures])
