"""How a dough handles: consistency, cohesion and tack over resting minutes and degrees.

The phases of a dough are weighed into particles and what flows between them; particles crowd
(Krieger & Dougherty 1959), what flows is mixed of serum, oil, soft dairy, melted cheese and solid fat
(co-continuous, Davies 1971), and a dough coheres when enough of it fills the voids (Newitt &
Conway-Jones 1958). ``C`` reads as log10 Pa s at about 1 per second.

Everything is computed for all points (minutes, temperature) and all draws of the parameters at once, in ``mixture``.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache

import numpy as np

from substrata.base.tables.table_reader import read_table
from substrata.base.uncertainty import Spread
from substrata.formula.batch.batch_lines import Batch
from substrata.ingredients.library import Floats
from substrata.process.rheology.handling import mixture_loops as mixture
from substrata.process.rheology.handling.materials import Materials, materials

Draws = Floats  # the parameters in the order of ``mixture.PARAMETERS``, shape (draws, parameters)
DRAWS = 24  # of the parameters; the first is the typical dough


@cache
def parameters() -> dict[str, Spread]:
    """Return the handling parameters by name, each with its 90 % range."""
    known = {row.text("name"): row.spread() for row in read_table("handling.csv")}
    return {name: known[name] for name in mixture.PARAMETERS}


@cache
def _normals(columns: int) -> Floats:
    """Return standard normal draws, shape (DRAWS, columns), always the same: the first all zero, the others in mirrored pairs."""
    half = np.random.default_rng(20_261_125).normal(size=((DRAWS - 1) // 2, columns))
    return np.vstack((np.zeros((1, columns)), half, -half, np.zeros((DRAWS - 1 - 2 * len(half), columns))))


@cache
def _capacity_draws(lines: int) -> Floats:
    """Draws of the lines' capacities, beside those of the parameters; shape (DRAWS, lines)."""
    known = len(parameters())
    return np.ascontiguousarray(_normals(known + lines)[:, known:])


@cache
def drawn_parameters() -> Draws:
    """Every parameter in every draw; bounded by its range."""
    spreads, normals = parameters().values(), _normals(len(parameters()))
    columns = [
        np.clip(spread.value + spread.sd * normals[:, column], spread.low, spread.high)
        for column, spread in enumerate(spreads)
    ]
    return np.column_stack(columns)


def draws_of(values: Mapping[str, float]) -> Draws:
    """One draw: the typical dough, with some parameters replaced."""
    return np.array([[values.get(name, spread.value) for name, spread in parameters().items()]])


@cache
def typical_draw() -> Draws:
    """Return the typical dough alone."""
    return draws_of({})


@dataclass(frozen=True, kw_only=True)
class Handling:
    """A dough at some points, in all draws; each array of shape (draws, points)."""

    consistency: Floats  # C
    fill: Floats  # void filling over the critical one: below 1 it crumbles
    tack: Floats  # 0..1
    free_water_g: Floats
    saturation: Floats  # water taken up, of what could be at that moment


@dataclass(frozen=True, kw_only=True)
class Method:
    """How it is mixed."""

    melted: float = 1.0  # share of the cheese that is melted first; the rest is stirred in cold
    pressed: bool = True  # kneaded or pressed; else only stirred
    fat_melted: bool = False  # butter goes in melted, and flows as oil does while the batter is filled
    stiffer: float = 0.0  # decades by which a kitchen's own hands find such doughs stiffer


# Worked butter, log10 Pa s (from memory).
_BUTTER_C = np.array([-5.0, 5.0, 15.0, 20.0, 25.0, 30.0, 35.0, 70.0])
_BUTTER = np.array([5.6, 4.8, 3.8, 3.1, 2.3, 1.0, -1.1, -1.5])


def handling(
    source: Batch | Materials, method: Method, minutes: Floats, temperature_c: Floats, *, draws: Draws | None = None
) -> Handling:
    """Work out how a dough handles.

    Args:
        source: the n weighed lines, or what they are made of.
        method: melted or cold cheese, pressed or stirred.
        minutes: resting time of each point, shape (points,).
        temperature_c: temperature of each point, shape (points,).
        draws: the parameters in every draw; None takes the usual draws.

    Returns:
        Consistency, cohesion and tack in all draws.
    """
    material = materials(source) if isinstance(source, Batch) else source
    mixed = mixture.mixed(
        minutes,
        temperature_c,
        np.interp(temperature_c, _BUTTER_C, _BUTTER),
        drawn_parameters() if draws is None else draws,
        _capacity_draws(len(material.lines.capacity_g)),
        material.lines,
        material.amounts,
        mixture.MixtureMethod(
            melted=float(method.melted),
            pressed=float(method.pressed),
            fat_melted=float(method.fat_melted),
            stiffer=float(method.stiffer),
        ),
    )
    return Handling(
        consistency=mixed[mixture.CONSISTENCY],
        fill=mixed[mixture.FILL],
        tack=mixed[mixture.TACK],
        free_water_g=mixed[mixture.FREE],
        saturation=mixed[mixture.SATURATION],
    )
