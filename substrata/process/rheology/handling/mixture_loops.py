"""What a dough is like at each point of its rest and in each draw of the parameters, compiled: plain numbers, one after the other."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from substrata.base.compiled_loops import entry, part
from substrata.ingredients.library import Floats

KELVIN = 273.15
TINY = 1e-9
LN_10 = 2.302585092994046
CLOSEST = 0.86  # share of its volume that no powder packs beyond
# The parameters, in the order of their columns.
PARAMETERS = (
    "max_packing", "press_packing", "packing_exponent", "jam_share", "flour_at_once", "gum_at_once", "oil_release", "oil_mixed", "oil_pressed",
    "cheese_60", "cheese_slope", "cold_cheese_flows", "particle_modulus", "critical_fill", "sharing", "gel_particle", "gel_yield", "coarse_packing",
    "shreds_give", "shreds_soft", "shreds_cling", "shreds_loose", "gel_starved", "paste_seizes", "rubbing", "rubbing_slope", "rubbing_from",
)  # fmt: skip
(
    MAX_PACKING, PRESS_PACKING, PACKING_EXPONENT, JAM_SHARE, FLOUR_AT_ONCE, GUM_AT_ONCE, OIL_RELEASE, OIL_MIXED, OIL_PRESSED,
    CHEESE_60, CHEESE_SLOPE, COLD_CHEESE_FLOWS, PARTICLE_MODULUS, CRITICAL_FILL, SHARING, GEL_PARTICLE, GEL_YIELD, COARSE_PACKING,
    SHREDS_GIVE, SHREDS_SOFT, SHREDS_CLING, SHREDS_LOOSE, GEL_STARVED, PASTE_SEIZES, RUBBING, RUBBING_SLOPE, RUBBING_FROM,
) = range(len(PARAMETERS))  # fmt: skip
# What is told, in the order of the rows.
CONSISTENCY, FILL, TACK, FREE, SATURATION = range(5)
N_OUTPUTS = 5


class MixtureLines(NamedTuple):
    """What each of the n lines of a dough drinks and gives; arrays of shape (n,)."""

    capacity_g: Floats  # water that it can hold
    capacity_sd_g: Floats
    gel_part: Floats  # share of its capacity that is held as gel
    drinking_k: Floats  # activation energy of its drinking over the gas constant, K
    drinking_min: Floats  # time constant of its drinking at 20 degC
    is_gum: Floats  # 1 or 0
    is_shreds: Floats  # 1 or 0
    oil_capacity_g: Floats
    gum_concentration: Floats  # g of gum over its overlap concentration
    gum_power: Floats


class MixtureAmounts(NamedTuple):
    """In which phase everything lies."""

    drinkable_g: float  # water that can be drunk
    protein_g: float  # in the serum
    shreds_ml: float
    gum_ml: float
    freed_oil_ml: float  # oil that working frees from nut flours
    oil_ml: float  # liquid, with a paste's own
    paste_oil_ml: float
    sweet_ml: float
    cheese_ml: float
    dry_ml: float  # particles
    serum_ml: float
    soft_ml: float  # soft dairy
    fat_ml: float
    coarse_ml: float
    soft_flow_20c: float  # log10 Pa s
    soft_flow_fall: float  # of it, a degree
    soft_water_g: float  # of the drinkable water, what soft dairy brought
    paste_solids_ml: float
    paste_flow: float  # of a dry paste at 20 degC, log10 Pa s
    matting_ml: float  # dry matter that mats


class MixtureMethod(NamedTuple):
    """How it is mixed, as plain numbers."""

    melted: float  # share of the cheese
    pressed: float  # 1 or 0
    fat_melted: float  # 1 or 0
    stiffer: float  # decades that hands find it stiffer


@part
def crowding(x: float, exponent: float, jam: float) -> float:
    """log10 of what crowding particles multiply the flow by; beyond ``jam`` the tangent goes on."""
    return exponent / LN_10 * (max(x - jam, 0.0) / (1 - jam) - np.log(1 - min(x, jam)))


@part
def either(first: float, second: float) -> float:
    """Return the larger of two consistencies, log10 Pa s, without an edge between them."""
    low, high = min(first, second), max(first, second)
    return high + 0.5 / LN_10 * np.log1p(np.exp(2 * LN_10 * max(low - high, -50.0)))


@part
def packing(
    max_packing: float, coarse_packing: float, press: float, loose: float, coarse: float, shreds: float
) -> float:
    """Volume share at which the particles touch: pressing and a mixture of sizes let them lie closer.

    Large among small packs best when about half is large (Furnas 1931); shreds lie looser, as all long things do, and spring back
    when they are pressed.

    Returns:
        Volume share, 0..1.
    """
    packed = max_packing + coarse_packing * 4 * coarse * (1 - coarse) + press * (1 - shreds)
    return min(packed, CLOSEST) * (1 - loose * shreds)


@part
def water_uptake(demand: float, water: float, sharing: float) -> float:
    """Smooth minimum of the water there is and what could be held, g; written so that tiny amounts do not overflow."""
    low, high = min(demand, water), max(demand, water)
    # As logarithms: two powers cost more than all the rest.
    return low * np.exp(-np.log1p(np.exp(sharing * np.log(low / high))) / sharing)


@part
def bridged(paste_oil: float, serum: float) -> float:
    """How far water bridges the grains of a nut butter, 0..1: dry, it is a smooth paste of its own flow."""
    return 1 - np.exp(-serum / max(0.05 * paste_oil, TINY))


@part
def seized(paste_oil: float, serum: float, oil: float, most: float) -> float:
    """Return what a little water adds to the flow of a nut butter, log10 Pa s: it bridges grains that lie in oil.

    Capillary suspensions (Koos & Willenbacher 2011, Science 331:897): the lesser liquid binds, and where it is no longer the lesser
    one the paste comes loose again.
    """
    share = min(paste_oil / max(serum + oil, TINY), 1.0)
    return most * share * bridged(paste_oil, serum)


@part
def joined_cheese(cheese: float, beside: float) -> float:
    """How much of a cheese that could flow hangs together through the dough, mL; the rest lies in it as lumps.

    Of a random mixture a sixth has to be of one kind before it hangs together (Scher & Zallen 1970, from memory); from half on
    all of it does (assumed).

    Returns:
        mL.
    """
    share = cheese / max(cheese + beside, TINY)
    return cheese * min(max((share - 0.16) / 0.34, 0.0), 1.0)


@part
def serum_flow(protein_percent: float, gum_power: float, gum_x: float) -> float:
    """log10 viscosity of the water phase, Pa s: its protein and its gum."""
    protein = 0.001 * (1 + min(protein_percent, 60.0) / 15) ** 5
    gum = 0.001 * np.expm1(min(gum_power * np.log1p(gum_x), 40.0)) if gum_x > 0 else 0.0
    return np.log(protein + gum) / LN_10


@entry
def mixed(minutes, degrees, butter, draws, normals, lines, amounts, method):
    """Work out a dough at p points in d draws.

    Args:
        minutes: of rest, shape (p,).
        degrees: degC, shape (p,).
        butter: how butter flows there, log10 Pa s, shape (p,).
        draws: the parameters, shape (d, parameters).
        normals: of each line's capacity, shape (d, n).
        lines: what each line drinks and gives, a MixtureLines.
        amounts: in which phase everything lies, a MixtureAmounts.
        method: a MixtureMethod.

    Returns:
        Shape (N_OUTPUTS, d, p): consistency, filling of the voids, tack, free water, saturation.
    """
    count, n, d = len(minutes), len(lines.capacity_g), len(draws)
    output = np.empty((N_OUTPUTS, d, count))
    # What hangs on the point alone.
    uptake = np.empty((count, n))
    sponges, gums, powers = np.zeros(count), np.zeros(count), np.zeros(count)
    for point in range(count):
        for line in range(n):
            slower = lines.drinking_k[line] * (1 / (degrees[point] + KELVIN) - 1 / (20 + KELVIN))
            tau = max(lines.drinking_min[line] * np.exp(min(max(slower, -20.0), 20.0)), TINY)
            at_once = draws[0, GUM_AT_ONCE] if lines.is_gum[line] else draws[0, FLOUR_AT_ONCE]
            drunk = 1.0 if lines.is_shreds[line] else 1 - (1 - at_once) * np.exp(-minutes[point] / tau)
            uptake[point, line] = drunk
            sponges[point] += drunk * lines.oil_capacity_g[line]
            gums[point] += drunk * lines.gum_concentration[line]
            powers[point] += drunk * lines.gum_concentration[line] * lines.gum_power[line]
        powers[point] /= max(gums[point], TINY)
    hard = 0.0 if method.fat_melted else amounts.fat_ml
    could = np.empty(n)
    for draw in range(d):
        p = draws[draw]
        in_cells = 0.0
        for line in range(n):
            could[line] = max(
                lines.capacity_g[line] + lines.capacity_sd_g[line] * normals[draw, line], 0.2 * lines.capacity_g[line]
            )
            in_cells += could[line] * lines.is_shreds[line]
        # Cells keep their water but for what a grip would still press out of them: drier matter draws that.
        water_held = min((1 - p[SHREDS_GIVE]) * in_cells, amounts.drinkable_g)
        water = max(amounts.drinkable_g - water_held, TINY)
        worked = p[OIL_PRESSED] if method.pressed else p[OIL_MIXED]
        could_flow = amounts.cheese_ml * (method.melted + (1 - method.melted) * p[COLD_CHEESE_FLOWS])
        for point in range(count):
            t = degrees[point]
            # Who holds the water.
            flours, gels = -(1 - p[SHREDS_GIVE]) * in_cells, 0.0
            for line in range(n):
                drinks = could[line] * uptake[point, line]
                flours += drinks * (1 - lines.gel_part[line])
                gels += drinks * lines.gel_part[line]
            drawn_out = 1 + p[GEL_YIELD] * min(max(t - 40, -40.0), 10.0)  # more from the same powder when it is warm
            gels *= drawn_out
            demand = max(flours + gels, TINY)
            held = water_uptake(demand, water, p[SHARING])
            saturation, free = held / demand, water - held
            # Volumes, mL. Nut flours give oil when worked; it does not go back.
            released = min(
                p[OIL_RELEASE] * worked * amounts.freed_oil_ml * max(1 + 0.01 * (t - 20), 0.0),
                0.6 * amounts.freed_oil_ml,
            )
            sponge = sponges[point] * (1 - saturation)
            absorbed = amounts.oil_ml * sponge / max(amounts.oil_ml + sponge, TINY)
            oil = amounts.oil_ml - absorbed + released + amounts.fat_ml - hard
            dissolved = min(amounts.sweet_ml, 0.5 * free / 1.6)
            gel = saturation * gels + amounts.gum_ml
            # A gel that finds too little water stays grains beside one another.
            grains = min(max(p[GEL_PARTICLE] + p[GEL_STARVED] * (1 - saturation), 0.0), 1.0)
            # What nobody draws out of a curd stays in it.
            curd = amounts.soft_ml + free * amounts.soft_water_g / amounts.drinkable_g
            serum = (
                free * (1 - amounts.soft_water_g / amounts.drinkable_g)
                + (1 - grains) * gel
                + amounts.serum_ml
                + dissolved
            )
            # A nut butter that is not bridged by water is a fluid of its own, its grains with it.
            smooth = 1 - bridged(amounts.paste_oil_ml, serum) if amounts.paste_oil_ml > 0 else 0.0
            paste_free = smooth * amounts.paste_oil_ml * (1 - absorbed / max(amounts.oil_ml, TINY))
            fluid = paste_free + smooth * amounts.paste_solids_ml
            thin = serum + oil + curd + smooth * amounts.paste_solids_ml
            flowing = joined_cheese(could_flow, thin + hard)
            particles = (
                amounts.dry_ml
                - released
                + water_held
                + saturation * flours
                + absorbed
                + (amounts.sweet_ml - dissolved)
                + (amounts.cheese_ml - flowing)
                + grains * gel
                + (1 - smooth) * amounts.paste_solids_ml
            )
            particles = max(particles, 0.0)
            continuous = thin + flowing + hard
            in_shreds = water_held + saturation * p[SHREDS_GIVE] * in_cells
            shreds_share = min((amounts.shreds_ml + in_shreds) / max(particles, TINY), 1.0)
            # Grains between wet shreds lie against a few of them each: half of shreds binds three quarters.
            loose_share = max(1 - shreds_share - amounts.matting_ml / max(particles, TINY), 0.0)
            bound_share = 1 - loose_share * loose_share
            coarse_share = min((amounts.coarse_ml + amounts.sweet_ml - dissolved) / max(particles, TINY), 1.0)
            # What flows: serum, oil and soft dairy side by side, then cheese and fat beside them (Davies 1971).
            watery = serum_flow(
                100 * amounts.protein_g / max(serum, TINY), powers[point], gums[point] * drawn_out / max(serum, TINY)
            )
            mean = (
                serum * watery
                + (oil - paste_free) * (-1.1 - 0.01 * (t - 20))
                + fluid * (amounts.paste_flow - 0.01 * (t - 20))
                + curd * (amounts.soft_flow_20c - amounts.soft_flow_fall * (t - 20))
            ) / max(thin, TINY)
            cheesy = p[CHEESE_60] + p[CHEESE_SLOPE] * (60 - t)
            fifth = thin * np.exp(LN_10 / 5 * mean)
            if flowing > 0:
                fifth += flowing * np.exp(LN_10 / 5 * cheesy)
            if hard > 0:
                fifth += hard * np.exp(LN_10 / 5 * butter[point])
            flow = 5 / LN_10 * np.log(max(fifth / max(thin + flowing + hard, TINY), TINY))
            if amounts.paste_oil_ml > 0:
                flow += seized(amounts.paste_oil_ml, serum, oil, p[PASTE_SEIZES])
            # How its particles crowd.
            press = p[PRESS_PACKING] if method.pressed else 0.0
            packed = packing(p[MAX_PACKING], p[COARSE_PACKING], press, p[SHREDS_LOOSE], coarse_share, shreds_share)
            solid = particles / max(particles + continuous, TINY)
            # Grains that touch hold by themselves, however thin what is between them; shreds are soft and slip.
            by_flow = flow + crowding(solid / packed, p[PACKING_EXPONENT], p[JAM_SHARE])
            rubbed = p[RUBBING] + p[RUBBING_SLOPE] * (solid / packed - p[RUBBING_FROM]) - p[SHREDS_SOFT] * shreds_share
            stiff = either(by_flow, rubbed)
            # A dough cannot be stiffer than its particles; summed in a way that does not overflow.
            modulus = p[PARTICLE_MODULUS] + 0.8 * (1 - saturation) - p[SHREDS_SOFT] * shreds_share
            consistency = (
                stiff - 0.5 / LN_10 * np.log1p(np.exp(2 * LN_10 * min(stiff - modulus, 150.0))) + method.stiffer
            )
            # And whether enough flows to fill the voids. Wet shreds cling and mat: they need not be filled up as grains do.
            voids = ((1 - solid) / max(solid, TINY)) / ((1 - packed) / packed)
            critical = (
                p[CRITICAL_FILL] * (1 - 0.35 / (1 + np.exp(-1.5 * (flow - 1.5)))) * (1 - p[SHREDS_CLING] * bound_share)
            )
            wet = (serum + 0.6 * curd) / max(particles + continuous, TINY)
            firm = min(max((5.2 - consistency) / 2.5, 0.0), 1.0)
            output[CONSISTENCY, draw, point] = consistency
            output[FILL, draw, point] = voids / critical
            output[TACK, draw, point] = min(max(wet * firm * (1 - 0.6 * hard / max(continuous, TINY)), 0.0), 1.0)
            output[FREE, draw, point] = free
            output[SATURATION, draw, point] = saturation
    return output
