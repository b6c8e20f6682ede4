"""What a dough is made of, as its handling needs it: who drinks how much and how fast, and in which phase everything lies.

Worked out once for a batch; the minutes, degrees and draws come later.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from substrata.batch.weighed import Batch
from substrata.dough.phases import PhaseName, sorted_by_phase, volumes_ml
from substrata.dough.water import available_per_gram
from substrata.pantry.library import Floats
from substrata.quantities.tables import constant

_TINY = 1e-9


@dataclass(frozen=True, kw_only=True)
class Materials:
    """The n lines of a dough; arrays of shape (n,) where nothing else is said."""

    capacity: Floats  # water that all of a line can hold, g
    capacity_sd: Floats
    gel_part: Floats  # of it, held as gel
    available: float  # water that can be drunk, g
    uptake_kelvin: Floats  # activation energy of drinking over R
    uptake_minutes: Floats  # at 20 degC
    is_gum: NDArray[np.bool_]
    is_shreds: NDArray[np.bool_]  # their water is in their cells
    shreds: float  # volume of their matter without water, mL
    oil_capacity: Floats  # g
    # Volumes, mL
    gum: float
    lubricating: float  # oil that working frees
    oil: float
    paste_oil: float  # of it, that ground nuts lie in
    sweet: float
    cheese: float
    dry: float  # particles without what they drink
    serum: float  # without the free water
    soft: float
    fat: float
    coarse: float  # whole seeds and nuts
    # What flows
    gum_each: Floats  # 100·g over its overlap concentration, when all has dissolved
    gum_power: Floats
    protein: float  # g, in the serum
    soft_at_20: float  # log10 Pa s of the soft dairy
    soft_slope: float  # its fall per degC


def materials(batch: Batch) -> Materials:
    """Sort a batch's lines into what drinks, what flows and what is stirred in."""

    def each(name: str) -> Floats:
        return batch.behaviour(name)[0]

    phases = sorted_by_phase(batch)
    lies_in = phases.lies_in
    grams, available = batch.grams, batch.grams * available_per_gram(batch)[0]
    water, fat, rest = volumes_ml(batch)
    whole = water - available + fat + rest  # water that stays where it is counts with its line
    gum = grams * each("gum_share") / 1.5

    def volume(of: Floats, phase: PhaseName) -> float:
        return float(of @ lies_in[phase])

    soft_g = float(grams @ lies_in["soft"]) or 1.0
    capacity, capacity_sd = batch.behaviour("capacity")
    shreds = batch.is_role("vegetable") * (each("water_availability") >= 1)
    return Materials(
        capacity=grams * capacity,
        capacity_sd=grams * capacity_sd,
        gel_part=each("gel_part"),
        available=max(float(available.sum()), _TINY),
        uptake_kelvin=each("uptake_energy") * 1000 / constant("gas_constant"),
        uptake_minutes=each("uptake_minutes"),
        is_gum=each("gum_share") >= 1,
        is_shreds=shreds > 0,
        shreds=float(whole @ (lies_in["particle"] * shreds)),
        oil_capacity=grams * each("oil_capacity"),
        gum=float(gum.sum()),
        lubricating=volume(fat * each("lubricates"), "particle"),
        # A nut butter is its solids in its own oil.
        oil=volume(whole, "oil") + volume(fat, "paste"),
        paste_oil=volume(fat, "paste"),
        sweet=volume(rest, "sweet"),
        cheese=volume(whole, "cheese"),
        dry=volume(whole - gum, "particle") + volume(whole - fat, "paste"),
        serum=volume(whole, "serum"),
        soft=volume(whole, "soft"),
        fat=volume(whole, "fat"),
        coarse=volume(whole * each("coarse"), "particle"),
        gum_each=100 * grams * each("gum_share") / np.maximum(each("gum_c0"), _TINY),
        gum_power=each("gum_power"),
        protein=volume(grams * batch.nutrient("protein_g")[0], "serum"),
        soft_at_20=float(grams @ phases.soft_viscosity) / soft_g,
        soft_slope=float(grams @ phases.soft_slope) / soft_g,
    )
