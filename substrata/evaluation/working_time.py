"""How long a warm cheese dough can be shaped on the work surface before it cracks.

The clock is that of the lump from which pieces are taken (unless the baker sets a sheet): it cools slowly, a piece that is rolled
thin within a minute or two.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.preparation_choices import prep_choices
from substrata.process.preparation.dough_cooling import Cooling, Lying, ball_mm, cooling, time_constant_s
from substrata.process.preparation.preparation_inputs import number_set, word_set
from substrata.process.rheology.handling.consistency import handling as handling_at
from substrata.process.rheology.handling.consistency import typical_draw
from substrata.process.rheology.leavening import dough_volume_per_gram

_GRID_MIN = np.concatenate((np.linspace(0.0, 10.0, 21), np.linspace(12.0, 120.0, 37)))  # minutes that are looked at


def forecast_surface_cooling(dough: Dough) -> Cooling | None:
    """Forecast how a melted-cheese dough cools on the work surface; None for a dough that does not crack when it is cool.

    Args:
        dough: as it is mixed; what the baker sets on the Prep station (room, surface, shape) counts.

    Returns:
        The cooling curve; None for a dough that does not crack.
    """
    handling = dough.handling
    if handling is None or handling.brittle_below_c is None:
        return None
    inside, formula = dough.inside, dough.formula
    shape: Lying = word_set(formula, "cool_shape")  # type: ignore[assignment]  # the document allows no other word
    density, surface = dough_density(inside), word_set(formula, "cool_on")
    thick, held = (
        number_set(formula, "cool_mm", usual_thickness(dough)),
        handling.heat.j_per_k / inside.dough_g * density * 1e6,
    )
    start, room = handling.temperature_c, number_set(formula, "room_c")
    taus = (time_constant_s(shape, thick, surface, held, side=side) for side in (0, -1, 1))
    likely, quick, slow = (_minutes_to_crack(dough, start, room, tau) for tau in taus)
    plain = cooling(shape, thick, surface, held, start_c=start, room_c=room, until_c=None)
    cracks_at = handling.brittle_below_c
    if likely:
        minutes, degrees = [p.minutes for p in plain.curve], [p.temperature_c for p in plain.curve]
        cracks_at = float(np.interp(likely, minutes, degrees))
    return replace(plain, until_c=cracks_at, minutes=likely, low_min=quick, high_min=slow)


def _minutes_to_crack(dough: Dough, start_c: float, room_c: float, tau_s: float) -> float | None:
    """Find when a dough that cools and goes on drinking becomes too stiff to bend; None within two hours of it.

    Args:
        dough: as it is mixed.
        start_c: its temperature after mixing.
        room_c: of the room.
        tau_s: time constant of its cooling, s.

    Returns:
        Minutes; None within two hours.
    """
    bowl = dough.bowl()
    temperatures = room_c + (start_c - room_c) * np.exp(-60 * _GRID_MIN / tau_s)
    consistency = handling_at(bowl.materials, bowl.method, _GRID_MIN, temperatures, draws=typical_draw()).consistency[0]
    stiff = min(dough.target_handling.high, constant("brittle_cheese"))
    if consistency[0] >= stiff:
        return 0.0
    over = np.flatnonzero(consistency >= stiff)
    if not len(over):
        return None
    at = int(over[0])
    share = (stiff - consistency[at - 1]) / (consistency[at] - consistency[at - 1])
    return float(_GRID_MIN[at - 1] + share * (_GRID_MIN[at] - _GRID_MIN[at - 1]))


def working_minutes(dough: Dough) -> float | None:
    """Return the minutes from mixing until the dough cracks; None where it never does."""
    result = dough.surface_cooling
    return None if result is None else result.minutes


def short_working_minutes(dough: Dough) -> float | None:
    """Return the working time where it is too short to shape all pieces in one go, else None."""
    minutes = working_minutes(dough)
    return minutes if minutes is not None and minutes < constant("short_working_time") else None


def usual_thickness(dough: Dough) -> float:
    """Return what lies on the surface by default: the dough of a batch as one ball, or a piece's sheet; mm."""
    row = prep_choices()["cool_mm"]
    ball = word_set(dough.formula, "cool_shape") == "ball"
    thick = ball_mm(dough.inside.dough_g, dough_density(dough.inside)) if ball else dough.piece.thickness_mm
    return round(min(max(thick, row.number_in("low")), row.number_in("high")), 1)


def dough_density(batch: Batch) -> float:
    """Return the density of a dough without pores, g/mL."""
    return batch.dough_g / float(batch.grams @ dough_volume_per_gram(batch)[0])
