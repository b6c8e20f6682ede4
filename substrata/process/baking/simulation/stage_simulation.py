"""A bake as a chain of stages over one column of cells; arrays in, named arrays out."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from substrata.base.errors import OvenError
from substrata.ingredients.library import Floats
from substrata.process.baking.simulation import bake_equations as equations
from substrata.process.baking.simulation import bake_integrator as integrator
from substrata.process.baking.simulation.boiling_point import boiling_c
from substrata.process.baking.simulation.dough_column import KELVIN, Column, Series
from substrata.process.baking.simulation.oven_constants import Bakeware, oven_number


@dataclass(frozen=True, kw_only=True)
class Surroundings:
    """What surrounds the dough."""

    air_c: float
    wall_c: float
    h: float  # W/(m2 K), convection
    emissivity: float
    pressure_pa: float
    vapour_pa: float  # of the oven's air
    frying: bool = False


@dataclass(frozen=True, kw_only=True)
class Support:
    """How the dough lies."""

    ware: Bakeware
    contact: float  # share of the underside that touches
    side_per_m: float = 0.0  # perimeter over area of a piece whose rim takes heat too, 1/m


@dataclass(frozen=True, kw_only=True)
class Browning:
    """How the faces brown."""

    factor: float
    beta_top: float
    beta_bottom: float


@dataclass(frozen=True, kw_only=True)
class Steps:
    """How finely time is cut."""

    tolerance: float = 0.5  # of a step's error, in units of 1 K and of 2 % of a cell's water
    most_s: float = 20.0


def bake_stage(
    dough: Column,
    heat: Surroundings,
    support: Support,
    browning: Browning,
    seconds: float,
    *,
    keep_s: float = 15.0,
    steps: Steps = Steps(),
    pipe_factor: float = 1.0,
) -> Series:
    """Bake for some time; the column is changed in place.

    Returns:
        The stage over time, from its first moment to its last.

    Raises:
        OvenError: when what is baked is no dough, and the steps become too small.
    """
    n = len(dough.cells)
    rows = int(seconds / keep_s) + 3
    series = np.zeros((rows, 10 + 2 * n))
    colour = np.array([browning.factor, browning.beta_top, browning.beta_bottom, heat.air_c])
    written, step_count = integrator.run_stage(
        dough.state,
        dough.cells,
        _around(heat, support),
        float(seconds),
        oven_number("vapour_factor"),
        oven_number("heat_pipe") * pipe_factor,
        colour,
        dough.light,
        float(keep_s),
        steps.tolerance,
        steps.most_s,
        series,
    )
    if step_count < 0 or not np.isfinite(dough.state).all():
        raise OvenError(
            "this bake cannot be simulated",
            got=f"{float(np.mean(dough.state[1:, 1])):.1f} g water to each gram of dry matter",
            allowed="a dough",
            remedy="check the weights: the dough may be far too wet or the piece far too small",
        )
    s = series[:written]
    scorched = _scorched(dough, heat, browning, s)
    result = Series(
        seconds=s[:, 0] + dough.seconds,
        tray_c=s[:, 1],
        top_c=s[:, 2],
        bottom_c=s[:, 3],
        core_c=s[:, 4],
        water=s[:, 5],
        heat=s[:, 6],
        vapour=s[:, 7],
        light_top=s[:, 8],
        light_bottom=s[:, 9],
        scorch_top=scorched[:, 0],
        scorch_bottom=scorched[:, 1],
        temperatures=s[:, 10 : 10 + n],
        waters=s[:, 10 + n :],
        steps=step_count,
    )
    dough.seconds += seconds
    dough.past.append(result)
    return result


def _scorched(dough: Column, heat: Surroundings, browning: Browning, s: Floats) -> Floats:
    """Minutes at 180 °C that each face has had at each kept moment, shape (k, 2); the column's own are brought up to date.

    High spots lead a face towards the air's temperature, as they do where it browns.

    Returns:
        Minutes, shape (k, 2).
    """
    faces = s[:, 2:4] + np.array([browning.beta_top, browning.beta_bottom]) * (heat.air_c - s[:, 2:4])
    rate = np.exp(-oven_number("scorch_kelvin") * (1 / (faces + KELVIN) - 1 / (180.0 + KELVIN)))
    steps = np.diff(s[:, 0])[:, None] / 60 * (rate[1:] + rate[:-1]) / 2
    result: Floats = dough.scorch + np.vstack((np.zeros((1, 2)), np.cumsum(steps, axis=0)))
    dough.scorch = result[-1].copy()
    return result


def _around(heat: Surroundings, support: Support) -> Floats:
    ware, frying, side_per_m = support.ware, heat.frying, support.side_per_m
    result = np.zeros(equations.N_AROUND)
    result[equations.AIR_C], result[equations.WALL_C] = heat.air_c, heat.wall_c
    result[equations.TOP_AIR_C] = oven_number("over_oil_c") if frying else heat.air_c
    # A piece swims: its upper face meets the warm steam over the oil.
    result[equations.H_TOP], result[equations.EPS_TOP] = (
        (oven_number("h_over_oil") if frying else heat.h),
        heat.emissivity,
    )
    result[equations.VENT_TOP] = ware.top_vent
    below = 1.0 if frying else oven_number("below_tray")
    result[equations.H_BOTTOM], result[equations.EPS_BOTTOM] = below * heat.h, below * heat.emissivity
    result[equations.CONTACT], result[equations.H_CONTACT] = support.contact, ware.contact_h
    result[equations.LEAK], result[equations.TRAY_J] = ware.leak, ware.j_per_m2k
    result[equations.TRAY_FIN], result[equations.TRAY_EPS] = ware.fin, ware.emissivity
    result[equations.FRYING] = float(frying)
    result[equations.PRESSURE], result[equations.VAPOUR] = heat.pressure_pa, heat.vapour_pa
    result[equations.BOIL] = boiling_c(heat.pressure_pa)
    if side_per_m > 0:
        # Heat from the rim has to cross half the piece: perimeter over area is 4 over the diameter of a disc.
        skin = 1 / (heat.h + heat.emissivity * oven_number("radiant_per_k"))
        result[equations.SIDE] = side_per_m / (
            skin + 4 / side_per_m / oven_number("across") / oven_number("side_conductivity")
        )
    return result


def cooled(heat: Surroundings, room_c: float) -> Surroundings:
    """Return the surroundings after the oven: a room's air."""
    return replace(
        heat, air_c=room_c, wall_c=room_c, h=oven_number("h_room"), vapour_pa=oven_number("room_vapour"), frying=False
    )
