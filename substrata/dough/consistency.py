"""How a dough handles: consistency, cohesion and tack over resting minutes and degrees.

The phases of a dough are weighed into particles and what flows between them; particles crowd
(Krieger & Dougherty 1959), what flows is mixed of serum, oil, soft dairy, melted cheese and solid fat
(co-continuous, Davies 1971), and a dough coheres when enough of it fills the voids (Newitt &
Conway-Jones 1958). ``C`` reads as log10 Pa s at about 1 per second.

Everything is computed for all points (minutes, temperature) and all draws of the parameters at once.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache

import numpy as np

from substrata.batch.weighed import Batch
from substrata.dough.materials import Materials, materials
from substrata.pantry.library import Floats
from substrata.quantities.spread import Spread
from substrata.quantities.tables import read_table

KELVIN = 273.15
_TINY = 1e-9
_CLOSEST = 0.86  # share of its volume that no powder packs beyond
Draws = Mapping[str, Floats]  # every parameter by name, each of shape (draws, 1)
DRAWS = 24  # of the parameters; the first is the typical dough


@cache
def parameters() -> dict[str, Spread]:
    """The handling parameters by name, each with its 90 % range."""
    return {row.text("name"): row.spread() for row in read_table("handling.csv")}


@cache
def _normals(columns: int) -> Floats:
    """Standard normal draws, shape (DRAWS, columns): always the same ones, the first all zero, the others in mirrored pairs."""
    half = np.random.default_rng(20_261_125).normal(size=((DRAWS - 1) // 2, columns))
    return np.vstack((np.zeros((1, columns)), half, -half, np.zeros((DRAWS - 1 - 2 * len(half), columns))))


@cache
def drawn_parameters() -> Draws:
    """Every parameter in every draw, shape (DRAWS, 1); bounded by its range."""
    table = {}
    for column, (name, spread) in enumerate(parameters().items()):
        values = spread.value + spread.sd * _normals(len(parameters()))[:, column]
        table[name] = np.clip(values, spread.low, spread.high)[:, None]
    return table


def draws_of(values: Mapping[str, float]) -> Draws:
    """One draw: the typical dough, with some parameters replaced."""
    typical = {name: spread.value for name, spread in parameters().items()} | dict(values)
    return {name: np.array([[value]]) for name, value in typical.items()}


@cache
def typical_draw() -> Draws:
    """The typical dough alone."""
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


def handling(
    of: Batch | Materials, method: Method, minutes: Floats, temperature_c: Floats, *, draws: Draws | None = None
) -> Handling:
    """Work out how a dough handles.

    Args:
        of: the n weighed lines, or what they are made of.
        method: melted or cold cheese, pressed or stirred.
        minutes: resting time of each point, shape (points,).
        temperature_c: temperature of each point, shape (points,).
        draws: the parameters in every draw; None takes the usual draws.
    """
    p = drawn_parameters() if draws is None else draws
    result = materials(of) if isinstance(of, Batch) else of
    shared = _share_water(result, p, minutes, temperature_c)
    phases = _phases(result, method, p, shared, temperature_c)
    flow = _flow(result, p, phases, temperature_c)
    if result.paste_oil > 0:
        flow = flow + _seized(result, p, phases)
    packed = _packing(p, phases, pressed=method.pressed)
    solid = phases.particles / np.maximum(phases.particles + phases.continuous, _TINY)
    relative = _crowding(solid / packed, p["packing_exponent"], p["jam_share"])
    modulus = p["particle_modulus"] + 0.8 * (1 - shared.saturation) - p["shreds_soft"] * phases.shreds_share
    stiff = flow + relative
    # A dough cannot be stiffer than its particles; summed in a way that does not overflow.
    consistency = stiff - 0.5 * np.log10(1 + 10 ** np.minimum(2 * (stiff - modulus), 300)) + method.stiffer
    voids = ((1 - solid) / np.maximum(solid, _TINY)) / ((1 - packed) / packed)
    critical = p["critical_fill"] * (1 - 0.35 / (1 + np.exp(-1.5 * (flow - 1.5))))
    # Wet shreds cling and mat: they need not be filled up with liquid as grains do.
    critical = critical * (1 - p["shreds_cling"] * phases.shreds_share)
    wet = (phases.serum + 0.6 * phases.soft) / np.maximum(phases.particles + phases.continuous, _TINY)
    firm = np.minimum(np.maximum((5.2 - consistency) / 2.5, 0), 1)
    tack = wet * firm * (1 - 0.6 * phases.fat / np.maximum(phases.continuous, _TINY))
    return Handling(
        consistency=consistency,
        fill=voids / critical,
        tack=np.minimum(np.maximum(tack, 0), 1),
        free_water_g=shared.free,
        saturation=shared.saturation,
    )


def _packing(p: Draws, phases: _Phases, *, pressed: bool) -> Floats:
    """Volume share at which the particles touch: pressing and a mixture of sizes let them lie closer.

    Large among small packs best when about half is large (Furnas 1931); shreds lie looser, as all long things do.
    """
    coarse = phases.coarse_share
    packed = p["max_packing"] + p["coarse_packing"] * 4 * coarse * (1 - coarse)
    grains = 1 - phases.shreds_share  # shreds spring back when they are pressed
    packed = np.minimum(packed + (p["press_packing"] if pressed else 0.0) * grains, _CLOSEST)
    loose: Floats = packed * (1 - p["shreds_loose"] * phases.shreds_share)
    return loose


@dataclass(frozen=True, kw_only=True)
class _Shared:
    """Who holds the water; each of shape (draws, points), grams."""

    flours: Floats  # held in flours and shreds
    shreds: Floats  # of it, in shreds
    gel: Floats  # held as gel
    free: Floats
    saturation: Floats
    uptake: Floats  # how far each line has drunk, shape (points, n)


def _share_water(made: Materials, p: Draws, minutes: Floats, temperature_c: Floats) -> _Shared:
    known = len(parameters())
    normals = _normals(known + len(made.capacity))[: len(p["sharing"]), known:]
    could = np.maximum(made.capacity + made.capacity_sd * normals, 0.2 * made.capacity)  # (draws, n)
    slower = made.uptake_kelvin * (1 / (temperature_c[:, None] + KELVIN) - 1 / (20 + KELVIN))
    tau = np.maximum(made.uptake_minutes * np.exp(np.minimum(np.maximum(slower, -20), 20)), _TINY)
    at_once = np.where(made.is_gum, parameters()["gum_at_once"].value, parameters()["flour_at_once"].value)
    uptake = 1 - (1 - at_once) * np.exp(-minutes[:, None] / tau)
    uptake = np.where(made.is_shreds, 1.0, uptake)
    # Cells keep their water but for what a grip would still press out of them: drier matter draws that.
    in_cells = could @ made.is_shreds
    kept = np.minimum((1 - p["shreds_give"]) * in_cells[:, None], made.available)
    gel_part, water = made.gel_part, np.maximum(made.available - kept, _TINY)
    flours = (could * (1 - gel_part)) @ uptake.T - (1 - p["shreds_give"]) * in_cells[:, None]
    gels = ((could * gel_part) @ uptake.T) * _drawn_out(p, temperature_c)
    demand = np.maximum(flours + gels, _TINY)
    low, high = np.minimum(demand, water), np.maximum(demand, water)
    held = low * (1 + (low / high) ** p["sharing"]) ** (-1 / p["sharing"])
    saturation = held / demand
    return _Shared(
        flours=kept + saturation * flours,
        shreds=kept + saturation * p["shreds_give"] * in_cells[:, None],
        gel=saturation * gels,
        free=water - held,
        saturation=saturation,
        uptake=uptake,
    )


def _drawn_out(p: Draws, temperature_c: Floats) -> Floats:
    """How much more a gel draws from its powder when warm, shape (draws, points)."""
    return 1 + p["gel_yield"] * np.minimum(np.maximum(temperature_c - 40, -40), 10)[None, :]


@dataclass(frozen=True, kw_only=True)
class _Phases:
    """Volumes, mL, each of shape (draws, points)."""

    particles: Floats
    continuous: Floats
    serum: Floats
    oil: Floats
    soft: Floats
    cheese: Floats
    fat: Floats  # solid fat
    gum_x: Floats  # how many times over its overlap concentration the gum of the serum is
    gum_power: Floats
    protein_percent: Floats  # g in 100 mL serum
    shreds_share: Floats  # soft shreds, of all particles
    coarse_share: Floats  # whole seeds, nuts and grains of sweetener, of all particles


def _phases(made: Materials, method: Method, p: Draws, shared: _Shared, temperature_c: Floats) -> _Phases:
    # Nut flours give oil when worked; it does not go back.
    worked = p["oil_pressed"] if method.pressed else p["oil_mixed"]
    given = p["oil_release"] * worked * made.lubricating * np.maximum(1 + 0.01 * (temperature_c - 20), 0)[None, :]
    given = np.minimum(given, 0.6 * made.lubricating)
    sponge = (shared.uptake @ made.oil_capacity)[None, :] * (1 - shared.saturation)
    taken = made.oil * sponge / np.maximum(made.oil + sponge, _TINY)
    hard = 0.0 if method.fat_melted else made.fat
    oil = made.oil - taken + given + made.fat - hard
    dissolved = np.minimum(made.sweet, 0.5 * shared.free / 1.6)
    flowing = made.cheese * (method.melted + (1 - method.melted) * p["cold_cheese_flows"])
    gel = shared.gel + made.gum
    # A gel that finds too little water stays grains beside one another.
    starved = p["gel_starved"] * (1 - shared.saturation)
    psyllium = np.minimum(np.maximum(p["gel_particle"] + starved, 0), 1)
    particles = (
        made.dry - given + shared.flours + taken + (made.sweet - dissolved) + (made.cheese - flowing) + psyllium * gel
    )
    particles = np.maximum(particles, 0.0)
    serum = shared.free + (1 - psyllium) * gel + made.serum + dissolved
    zero = np.zeros_like(serum)
    x_each = made.gum_each * shared.uptake  # (points, n)
    x_all = x_each.sum(axis=1)
    x = x_all[None, :] * _drawn_out(p, temperature_c) / np.maximum(serum, _TINY)
    power = (x_each @ made.gum_power) / np.maximum(x_all, _TINY)
    return _Phases(
        particles=particles,
        continuous=serum + oil + made.soft + flowing + hard,
        serum=serum,
        oil=oil,
        soft=zero + made.soft,
        cheese=zero + flowing,
        fat=zero + hard,
        gum_x=x,
        gum_power=power[None, :] + zero,
        protein_percent=100 * made.protein / np.maximum(serum, _TINY),
        shreds_share=np.minimum((made.shreds + shared.shreds) / np.maximum(particles, _TINY), 1.0),
        coarse_share=np.minimum((made.coarse + made.sweet - dissolved) / np.maximum(particles, _TINY), 1.0),
    )


def _flow(made: Materials, p: Draws, v: _Phases, temperature_c: Floats) -> Floats:
    """log10 viscosity of what flows between the particles, Pa s, shape (draws, points)."""
    protein = 10 ** (-3 + 5 * np.log10(1 + np.minimum(v.protein_percent, 60) / 15))
    gum = 0.001 * np.expm1(np.minimum(v.gum_power * np.log1p(v.gum_x), 40))
    serum = np.log10(protein + gum)
    t = temperature_c[None, :]
    oil = -1.1 - 0.01 * (t - 20)
    soft = (made.soft_at_20 - made.soft_slope * (temperature_c - 20))[None, :]
    thin = v.serum + v.oil + v.soft
    mixed = (v.serum * serum + v.oil * oil + v.soft * soft) / np.maximum(thin, _TINY)
    cheese = p["cheese_60"] + p["cheese_slope"] * (60 - t)
    butter = np.interp(temperature_c, _BUTTER_C, _BUTTER)[None, :]
    whole = np.maximum(thin + v.cheese + v.fat, _TINY)
    fifth = (thin * 10 ** (mixed / 5) + v.cheese * 10 ** (cheese / 5) + v.fat * 10 ** (butter / 5)) / whole
    flow: Floats = 5 * np.log10(np.maximum(fifth, _TINY))
    return flow


def _seized(made: Materials, p: Draws, v: _Phases) -> Floats:
    """What a little water adds to the flow of a nut butter, log10 Pa s: it bridges grains that lie in oil.

    Capillary suspensions (Koos & Willenbacher 2011, Science 331:897): the lesser liquid binds, and where it is no longer the lesser
    one the paste comes loose again.
    """
    liquid = np.maximum(v.serum + v.oil, _TINY)
    share = made.paste_oil / liquid
    bridged = 1 - np.exp(-v.serum / max(0.05 * made.paste_oil, _TINY))
    seized: Floats = p["paste_seizes"] * np.minimum(share, 1.0) * bridged
    return seized


# Worked butter, log10 Pa s (from memory).
_BUTTER_C = np.array([-5.0, 5.0, 15.0, 20.0, 25.0, 30.0, 35.0, 70.0])
_BUTTER = np.array([5.6, 4.8, 3.8, 3.1, 2.3, 1.0, -1.1, -1.5])


def _crowding(x: Floats, exponent: Floats, jam: Floats) -> Floats:
    """log10 of what crowding particles multiply the flow by; beyond ``jam`` the tangent goes on."""
    free = -exponent * np.log10(1 - np.minimum(x, jam))
    slope = exponent / (np.log(10) * (1 - jam))
    crowded: Floats = free + slope * np.maximum(x - jam, 0.0)
    return crowded
