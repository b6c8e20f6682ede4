"""What a dough is made of, as its handling needs it: who drinks how much and how fast, and in which phase everything lies.

Worked out once for a batch; the minutes, degrees and draws come later.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.formula.batch.batch_lines import Batch
from substrata.ingredients.library import Floats
from substrata.process.rheology.handling.mixture_loops import TINY
from substrata.process.rheology.phases import PhaseName, sorted_by_phase, volumes_ml
from substrata.process.rheology.water_fill import available_per_gram


@dataclass(frozen=True, kw_only=True)
class Materials:
    """The n lines of a dough."""

    lines: Floats  # what each drinks and gives, as ``mixture.mixed`` takes it, shape (10, n)
    amounts: tuple[float, ...]  # and what lies in which phase
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
    line_values = (
        grams * capacity,
        grams * capacity_sd,
        each("gel_part"),
        each("uptake_energy") * 1000 / constant("gas_constant"),
        each("uptake_minutes"),
        each("gum_share") >= 1,
        shreds > 0,
        grams * each("oil_capacity"),
        100 * grams * each("gum_share") / np.maximum(each("gum_c0"), TINY),
        each("gum_power"),
    )
    amounts = (
        max(float(available.sum()), TINY),
        volume(grams * batch.nutrient("protein_g")[0], "serum"),
        float(whole @ (lies_in["particle"] * shreds)),
        float(gum.sum()),
        volume(fat * each("lubricates"), "particle"),
        # A nut butter is its solids in its own oil.
        volume(whole, "oil") + volume(fat, "paste"),
        volume(fat, "paste"),
        volume(rest, "sweet"),
        volume(whole, "cheese"),
        volume(whole - gum, "particle"),
        volume(whole, "serum"),
        volume(whole, "soft"),
        volume(whole, "fat"),
        volume(whole * each("coarse"), "particle"),
        float(grams @ phases.soft_viscosity) / soft_g,
        float(grams @ phases.soft_slope) / soft_g,
        volume(available, "soft"),
        volume(whole - fat, "paste"),
        float(fat @ phases.paste_viscosity) / (volume(fat, "paste") or 1.0),
        volume(whole * each("mats"), "particle"),
    )
    melts = volume(whole, "fat") + volume(whole, "cheese") > 0
    return Materials(lines=np.array(line_values), amounts=amounts, melts=melts)
