"""The matter that is baked, by its composition: what heat and water find in it."""

from __future__ import annotations

from dataclasses import dataclass
from math import exp

import numpy as np

from substrata.formula.batch.batch_lines import FLESH, Batch
from substrata.ingredients.library import Floats
from substrata.ingredients.thermal_properties import MATTERS, property_choi_okos
from substrata.process.baking.simulation.oven_constants import oven_number

_AT_C = 60.0  # specific heat of the solids is read here, so that T(h) inverts exactly
_WARM_C = 80.0  # and their conductivity and density here


@dataclass(frozen=True, kw_only=True)
class BakeMatter:
    """A dough or a topping before the oven."""

    water: float  # kg per kg dry solids (fat is a solid)
    fat: float  # share of the dry solids
    c_s: float  # J/(kg K) of the dry solids
    k_s: float  # W/(m K) of them
    v_s: float  # m3 per kg of them, without pores
    density: float  # kg/m3 of the whole, without pores
    sorption: float  # Oswin's A at 25 degC


def bake_matter(batch: Batch, rows: Floats, sorption: float) -> BakeMatter:
    """Return the matter of some lines.

    Args:
        batch: the n weighed lines.
        rows: 1.0 for the lines that belong to it, shape (n,).
        sorption: Oswin's A at 25 °C, before its fat is taken off.
    """
    grams = batch.grams * rows
    amounts = {m: float(grams @ share) for m, share in batch.matters().items()}
    solids = sum(amounts[m] for m in MATTERS if m != "water")
    dry = max(solids, 1e-9)
    shares = {m: amounts[m] / dry for m in MATTERS if m != "water"}
    if not solids:  # water alone, or what the tables give no solids of: ash keeps the equations alive
        shares["ash"] = 1.0
    volume = {m: s / property_choi_okos("density", m, _WARM_C) for m, s in shares.items()}
    v_s = sum(volume.values())
    k_s = sum(v * property_choi_okos("conductivity", m, _WARM_C) for m, v in volume.items()) / v_s
    # A dough without any water would have no sorption to speak of; a trace keeps the equations alive.
    water = max(amounts["water"] / dry, 0.01)
    return BakeMatter(
        water=water,
        fat=shares["fat"],
        c_s=sum(s * property_choi_okos("specific_heat", m, _AT_C) for m, s in shares.items()),
        k_s=k_s,
        v_s=v_s,
        density=(1 + water) / (v_s + water / property_choi_okos("density", "water", 20.0)),
        sorption=sorption * (1 - shares["fat"]),
    )


def _psyllium_share(batch: Batch) -> float:
    psyllium = np.array([float("psyllium" in w.ingredient.flags and w.in_dough) for w in batch.lines])
    return float(batch.grams @ psyllium) / batch.dough_g if batch.dough_g else 0.0


def dough_sorption(batch: Batch) -> float:
    """Oswin's A of a dough before its fat: gums and mucilages hold water more tightly than flours do (assumed)."""
    gum = float((batch.grams * batch.inside) @ batch.behaviour("gum_share")[0])
    counts = 1 - exp(-gum / batch.dough_g / oven_number("gel_share")) if batch.dough_g else 0.0
    return oven_number("sorption_flour") + oven_number("sorption_gel") * counts


def gum_browning(batch: Batch) -> float:
    """Return the factor by which gums and mucilages slow the browning of a dough: what browns is thinned by what cannot."""
    grams, parts = batch.grams * batch.inside, batch.matters()
    lean = float(grams @ (1 - parts["water"] - parts["fat"]))
    gum = float(grams @ batch.behaviour("gum_share")[0])
    return exp(-oven_number("gum_browning") * min(gum / max(lean, 1e-9), 1.0))


def sugar_browning(batch: Batch) -> float:
    """Return the factor by which added reducing sugars hasten browning: sucrose and polyols have no part in it."""
    grams, parts = batch.grams * batch.inside, batch.matters()
    lean = float(grams @ (1 - parts["water"] - parts["fat"]))
    reducing = float(grams @ batch.behaviour("reducing")[0])
    return 1 + oven_number("sugar_browning") * reducing / max(lean, 1e-9)


def alkali_browning(batch: Batch) -> float:
    """Return the factor by which soda that no acid takes up hastens browning."""
    soda = float(batch.grams @ batch.behaviour("soda")[0])
    acid = float(batch.grams @ batch.behaviour("neutralising")[0]) / 100
    excess = 100 * max(soda - acid, 0.0) / max(batch.dough_g, 1e-9)
    raised = oven_number("alkali_most") * (
        1 - exp(-excess / oven_number("alkali_percent") / oven_number("alkali_most"))
    )
    return float(oven_number("alkali_browning") ** raised)


def held_water(batch: Batch) -> float:
    """Return the water that a bent wrap may keep because something holds it, as a share.

    It is what flours, fibres and gels can drink, and an egg's own, which sets with it. Cheese weeps, and a vegetable's cells count elsewhere (common practice: a psyllium tortilla and
    a thin egg pancake bend from the moment they are set).
    """
    grams, water = batch.grams * batch.inside, batch.matters()["water"]
    sets = batch.is_role("egg", FLESH)
    drinks = batch.behaviour("capacity")[0] * (batch.is_role("vegetable", "egg", "cheese", FLESH) < 1)
    held = min(float(grams @ (drinks + water * sets)), float(grams @ water))
    dry = float(grams @ (1 - water))
    return held / max(held + dry, 1e-9)


_TRACE = 1e-4  # share of the dough from which psyllium is there at all


def gel_water(batch: Batch, wet: float) -> float | None:
    """Return the most water that a psyllium crumb may keep and not be gummy, share of it; None without psyllium.

    Flours hold what they can, cheese, meat and vegetables their own water, and the gel its part; egg's water does not count as held. A
    little psyllium asks for little, and less where an egg sets a crumb of its own. Rests on few doughs (assumed).

    Args:
        batch: the weighed lines.
        wet: water of the dough as it goes in, share.
    """
    share = _psyllium_share(batch)
    if share < _TRACE:
        return None
    inside, grams = batch.inside, batch.grams
    water = batch.matters()["water"]
    drinks = (
        batch.behaviour("capacity")[0]
        * (batch.behaviour("gum_share")[0] < 1)
        * (batch.is_role("vegetable", "egg", FLESH) < 1)
    )
    bound = water * batch.is_role("cheese", "vegetable", FLESH)
    gel = np.array([float("psyllium" in w.ingredient.flags) for w in batch.lines]) * oven_number("gel_water")
    held = float((grams * inside) @ (drinks + bound + gel))
    dry = float((grams * inside) @ (1 - water))
    psyllium = share * batch.dough_g
    egg = float((grams * inside * batch.is_role("egg")) @ (1 - water))
    counts = 1 - exp(-share / oven_number("gel_share"))
    counts *= psyllium / (psyllium + oven_number("gel_egg") * egg)
    # A balance of water on dry matter: shares of the whole cannot be mixed where most of it is water.
    whole = wet / max(1 - wet, _TRACE)
    water_kg = whole + counts * (min(held / max(dry, _TRACE), whole) - whole)
    return water_kg / (1 + water_kg)
