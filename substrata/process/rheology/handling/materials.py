"""What a dough is made of, as its handling needs it: who drinks how much and how fast, and in which phase everything lies.

Worked out once for a batch; the minutes, degrees and draws come later.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.formula.batch.batch_lines import Batch
from substrata.ingredients.library import Floats
from substrata.process.rheology.handling.mixture_loops import TINY, MixtureAmounts, MixtureLines
from substrata.process.rheology.phases import PhaseName, sorted_by_phase, volumes_ml
from substrata.process.rheology.water_fill import available_per_gram


@dataclass(frozen=True, kw_only=True)
class Materials:
    """The n lines of a dough."""

    lines: MixtureLines
    amounts: MixtureAmounts
    melts: bool  # whether it has cheese or fat that warmth softens


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

    def volume(volumes: Floats, phase: PhaseName) -> float:
        return float(volumes @ lies_in[phase])

    soft_g = float(grams @ lies_in["soft"]) or 1.0
    capacity, capacity_sd = batch.behaviour("capacity")
    shreds = batch.is_role("vegetable") * (each("water_availability") >= 1)
    lines = MixtureLines(
        capacity_g=grams * capacity,
        capacity_sd_g=grams * capacity_sd,
        gel_part=each("gel_part"),
        drinking_k=each("uptake_energy") * 1000 / constant("gas_constant"),
        drinking_min=each("uptake_minutes"),
        is_gum=(each("gum_share") >= 1).astype(float),
        is_shreds=(shreds > 0).astype(float),
        oil_capacity_g=grams * each("oil_capacity"),
        gum_concentration=100 * grams * each("gum_share") / np.maximum(each("gum_c0"), TINY),
        gum_power=each("gum_power"),
    )
    amounts = MixtureAmounts(
        drinkable_g=max(float(available.sum()), TINY),
        protein_g=volume(grams * batch.nutrient("protein_g")[0], "serum"),
        shreds_ml=float(whole @ (lies_in["particle"] * shreds)),
        gum_ml=float(gum.sum()),
        freed_oil_ml=volume(fat * each("lubricates"), "particle"),
        # A nut butter is its solids in its own oil.
        oil_ml=volume(whole, "oil") + volume(fat, "paste"),
        paste_oil_ml=volume(fat, "paste"),
        sweet_ml=volume(rest, "sweet"),
        cheese_ml=volume(whole, "cheese"),
        dry_ml=volume(whole - gum, "particle"),
        serum_ml=volume(whole, "serum"),
        soft_ml=volume(whole, "soft"),
        fat_ml=volume(whole, "fat"),
        coarse_ml=volume(whole * each("coarse"), "particle"),
        soft_flow_20c=float(grams @ phases.soft_viscosity) / soft_g,
        soft_flow_fall=float(grams @ phases.soft_slope) / soft_g,
        soft_water_g=volume(available, "soft"),
        paste_solids_ml=volume(whole - fat, "paste"),
        paste_flow=float(fat @ phases.paste_viscosity) / (volume(fat, "paste") or 1.0),
        matting_ml=volume(whole * each("mats"), "particle"),
    )
    melts = volume(whole, "fat") + volume(whole, "cheese") > 0
    # One block of plain numbers, so that the compiled loops meet one type of array.
    return Materials(lines=MixtureLines(*np.array(lines, dtype=float)), amounts=amounts, melts=melts)
