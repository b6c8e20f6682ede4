"""What a dough is like at each point of its rest and in each draw of the parameters, compiled: plain numbers, one after the other."""

from __future__ import annotations

import numpy as np

from substrata.base.compiled_loops import entry, part

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
        lines: of each line its water capacity and that one's standard deviation, g, the share of it that is gel, the kelvins and the
            minutes of its drinking, whether it is a gum, whether shreds, its oil capacity, g, its gum over the overlap concentration
            and that one's power; shape (10, n).
        amounts: g of water that can be drunk and of protein; mL of shreds, gum, oil that working frees, oil, oil of a paste, sweet,
            cheese, dry particles, serum, soft dairy, fat and coarse matter; the soft dairy's flow at 20 degC and its fall a degree; g of the
            water that can be drunk which soft dairy brought; mL of a paste's solids, and how it
            flows dry; mL of dry matter that mats.
        method: share of the cheese that is melted, whether it is pressed, whether fat goes in melted, decades that hands find it stiffer.

    Returns:
        Shape (N_TOLD, d, p).
    """
    capacity, capacity_sd, gel_part, kelvin, slowness = lines[0], lines[1], lines[2], lines[3], lines[4]
    is_gum, is_shreds, oil_capacity, gum_each, gum_power = lines[5], lines[6], lines[7], lines[8], lines[9]
    (
        available,
        protein,
        shreds_ml,
        gum_ml,
        lubricating,
        oil_ml,
        paste_oil,
        sweet,
        cheese,
        dry,
        serum_ml,
        soft_ml,
        fat,
        coarse,
        soft_20,
        soft_fall,
        soft_water,
        paste_solids,
        paste_flow,
        matting,
    ) = amounts
    melted, pressed, fat_melted, stiffer = method
    count, n, d = len(minutes), len(capacity), len(draws)
    output = np.empty((N_OUTPUTS, d, count))
    # What hangs on the point alone.
    uptake = np.empty((count, n))
    sponges, gums, powers = np.zeros(count), np.zeros(count), np.zeros(count)
    for point in range(count):
        for line in range(n):
            slower = kelvin[line] * (1 / (degrees[point] + KELVIN) - 1 / (20 + KELVIN))
            tau = max(slowness[line] * np.exp(min(max(slower, -20.0), 20.0)), TINY)
            at_once = draws[0, GUM_AT_ONCE] if is_gum[line] else draws[0, FLOUR_AT_ONCE]
            drunk = 1.0 if is_shreds[line] else 1 - (1 - at_once) * np.exp(-minutes[point] / tau)
            uptake[point, line] = drunk
            sponges[point] += drunk * oil_capacity[line]
            gums[point] += drunk * gum_each[line]
            powers[point] += drunk * gum_each[line] * gum_power[line]
        powers[point] /= max(gums[point], TINY)
    hard = 0.0 if fat_melted else fat
    could = np.empty(n)
    for draw in range(d):
        p = draws[draw]
        in_cells = 0.0
        for line in range(n):
            could[line] = max(capacity[line] + capacity_sd[line] * normals[draw, line], 0.2 * capacity[line])
            in_cells += could[line] * is_shreds[line]
        # Cells keep their water but for what a grip would still press out of them: drier matter draws that.
        water_held = min((1 - p[SHREDS_GIVE]) * in_cells, available)
        water = max(available - water_held, TINY)
        worked = p[OIL_PRESSED] if pressed else p[OIL_MIXED]
        could_flow = cheese * (melted + (1 - melted) * p[COLD_CHEESE_FLOWS])
        for point in range(count):
            t = degrees[point]
            # Who holds the water.
            flours, gels = -(1 - p[SHREDS_GIVE]) * in_cells, 0.0
            for line in range(n):
                drinks = could[line] * uptake[point, line]
                flours += drinks * (1 - gel_part[line])
                gels += drinks * gel_part[line]
            drawn_out = 1 + p[GEL_YIELD] * min(max(t - 40, -40.0), 10.0)  # more from the same powder when it is warm
            gels *= drawn_out
            demand = max(flours + gels, TINY)
            held = water_uptake(demand, water, p[SHARING])
            saturation, free = held / demand, water - held
            # Volumes, mL. Nut flours give oil when worked; it does not go back.
            released = min(p[OIL_RELEASE] * worked * lubricating * max(1 + 0.01 * (t - 20), 0.0), 0.6 * lubricating)
            sponge = sponges[point] * (1 - saturation)
            absorbed = oil_ml * sponge / max(oil_ml + sponge, TINY)
            oil = oil_ml - absorbed + released + fat - hard
            dissolved = min(sweet, 0.5 * free / 1.6)
            gel = saturation * gels + gum_ml
            # A gel that finds too little water stays grains beside one another.
            grains = min(max(p[GEL_PARTICLE] + p[GEL_STARVED] * (1 - saturation), 0.0), 1.0)
            # What nobody draws out of a curd stays in it.
            curd = soft_ml + free * soft_water / available
            serum = free * (1 - soft_water / available) + (1 - grains) * gel + serum_ml + dissolved
            # A nut butter that is not bridged by water is a fluid of its own, its grains with it.
            smooth = 1 - bridged(paste_oil, serum) if paste_oil > 0 else 0.0
            paste_free = smooth * paste_oil * (1 - absorbed / max(oil_ml, TINY))
            fluid = paste_free + smooth * paste_solids
            thin = serum + oil + curd + smooth * paste_solids
            flowing = joined_cheese(could_flow, thin + hard)
            particles = (
                dry
                - released
                + water_held
                + saturation * flours
                + absorbed
                + (sweet - dissolved)
                + (cheese - flowing)
                + grains * gel
                + (1 - smooth) * paste_solids
            )
            particles = max(particles, 0.0)
            continuous = thin + flowing + hard
            in_shreds = water_held + saturation * p[SHREDS_GIVE] * in_cells
            shreds_share = min((shreds_ml + in_shreds) / max(particles, TINY), 1.0)
            # Grains between wet shreds lie against a few of them each: half of shreds binds three quarters.
            loose_share = max(1 - shreds_share - matting / max(particles, TINY), 0.0)
            bound_share = 1 - loose_share * loose_share
            coarse_share = min((coarse + sweet - dissolved) / max(particles, TINY), 1.0)
            # What flows: serum, oil and soft dairy side by side, then cheese and fat beside them (Davies 1971).
            watery = serum_flow(
                100 * protein / max(serum, TINY), powers[point], gums[point] * drawn_out / max(serum, TINY)
            )
            mean = (
                serum * watery
                + (oil - paste_free) * (-1.1 - 0.01 * (t - 20))
                + fluid * (paste_flow - 0.01 * (t - 20))
                + curd * (soft_20 - soft_fall * (t - 20))
            ) / max(thin, TINY)
            cheesy = p[CHEESE_60] + p[CHEESE_SLOPE] * (60 - t)
            fifth = thin * np.exp(LN_10 / 5 * mean)
            if flowing > 0:
                fifth += flowing * np.exp(LN_10 / 5 * cheesy)
            if hard > 0:
                fifth += hard * np.exp(LN_10 / 5 * butter[point])
            flow = 5 / LN_10 * np.log(max(fifth / max(thin + flowing + hard, TINY), TINY))
            if paste_oil > 0:
                flow += seized(paste_oil, serum, oil, p[PASTE_SEIZES])
            # How its particles crowd.
            press = p[PRESS_PACKING] if pressed else 0.0
            packed = packing(p[MAX_PACKING], p[COARSE_PACKING], press, p[SHREDS_LOOSE], coarse_share, shreds_share)
            solid = particles / max(particles + continuous, TINY)
            # Grains that touch hold by themselves, however thin what is between them; shreds are soft and slip.
            by_flow = flow + crowding(solid / packed, p[PACKING_EXPONENT], p[JAM_SHARE])
            rubbed = p[RUBBING] + p[RUBBING_SLOPE] * (solid / packed - p[RUBBING_FROM]) - p[SHREDS_SOFT] * shreds_share
            stiff = either(by_flow, rubbed)
            # A dough cannot be stiffer than its particles; summed in a way that does not overflow.
            modulus = p[PARTICLE_MODULUS] + 0.8 * (1 - saturation) - p[SHREDS_SOFT] * shreds_share
            consistency = stiff - 0.5 / LN_10 * np.log1p(np.exp(2 * LN_10 * min(stiff - modulus, 150.0))) + stiffer
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
