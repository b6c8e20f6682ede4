"""What a formula holds per piece, per serving and per 100 g, before and after the oven."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import hypot
from types import MappingProxyType

import numpy as np

from substrata.base.bulk_dataclass import in_bulk
from substrata.base.settings import Settings
from substrata.base.uncertainty import SDS_IN_HALF_90
from substrata.formula.batch.baked_weight import Baked
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.propagation import Estimate, Ratio, Sheet, total_ratio
from substrata.formula.formula import Formula
from substrata.nutrition.energy import energy_per_gram
from substrata.nutrition.net_carbs import CONVENTIONS, net_carbs_per_gram


@in_bulk
@dataclass(frozen=True, kw_only=True)
class Facts:
    """Figures of one amount of food."""

    grams: Estimate
    net_carbs: Estimate
    total_carbs: Estimate
    fibre: Estimate
    sugars: Estimate
    protein: Estimate
    fat: Estimate
    saturates: Estimate
    energy: Estimate
    sodium: Estimate


@dataclass(frozen=True, kw_only=True)
class Nutrition:
    """The same food by four amounts, and net carbs of a piece by all three conventions."""

    piece: Facts
    serving: Facts
    dough_100g: Facts
    baked_100g: Facts
    net_carbs_us: Estimate
    net_carbs_eu: Estimate
    net_carbs_total: Estimate


_NUTRIENTS = {
    "total_carbs": "carbohydrate_g",
    "fibre": "fibre_g",
    "sugars": "sugars_g",
    "protein": "protein_g",
    "fat": "fat_g",
    "saturates": "saturates_g",
    "sodium": "sodium_mg",
}
FIGURES = ("net_carbs", *_NUTRIENTS, "energy")


def piece_ratio(key: str, batch: Batch, formula: Formula, settings: Settings) -> Ratio:
    """Return a figure of ``Facts`` a piece, as a ratio over the lines.

    Raises:
        KeyError: when ``Facts`` has no such figure.
    """
    if key == "net_carbs":
        return total_ratio(
            batch, net_carbs_per_gram(batch, settings.convention, settings.polyol_rule), "g", 1 / formula.pieces
        )
    if key == "energy":
        return total_ratio(batch, energy_per_gram(batch), "kcal", 1 / formula.pieces)
    column = _NUTRIENTS[key]
    return total_ratio(batch, batch.nutrient(column), column.rpartition("_")[2], 1 / formula.pieces)


def nutrition_ratios(
    batch: Batch, formula: Formula, settings: Settings, known: Mapping[str, Ratio] = MappingProxyType({})
) -> dict[str, Ratio]:
    """All that ``nutrition`` reads from a sheet, a piece each.

    Args:
        batch: the weighed lines.
        formula: gives the pieces.
        settings: the convention of net carbs, and how polyols are counted.
        known: what is a ratio already.

    Returns:
        Ratios by name.
    """
    table = {key: known.get(key) or piece_ratio(key, batch, formula, settings) for key in FIGURES}
    for convention in CONVENTIONS:
        name, same = f"net_carbs_{convention}", convention == settings.convention
        per_gram = None if same else net_carbs_per_gram(batch, convention, settings.polyol_rule)
        table[name] = total_ratio(batch, per_gram, "g", 1 / formula.pieces) if per_gram else table["net_carbs"]
    return table


def nutrition(formula: Formula, sheet: Sheet, after: Baked) -> Nutrition:
    """Scale the figures of a piece to every amount.

    Args:
        formula: gives pieces, serving and form.
        sheet: holds what ``nutrition_ratios`` names.
        after: what the oven leaves.

    Returns:
        The figures by amount.
    """
    batch, dough = sheet.batch, sheet.batch.whole_g
    half = SDS_IN_HALF_90 * float(np.sqrt((batch.grams_sd**2).sum()))
    raw = Estimate(value=dough, low=dough - half, high=dough + half, unit="g")
    weight = scaled(_baked(raw, after), 1 / formula.pieces)
    piece = {key: sheet.estimate(key) for key in FIGURES}
    per_dough = 100 * formula.pieces / dough if dough else 0.0
    return Nutrition(
        piece=_facts(weight, piece, 1.0),
        serving=_facts(weight, piece, formula.serving_pieces),
        dough_100g=_facts(raw, piece, per_dough, exact_grams=100.0),
        baked_100g=_per_100_baked(piece, per_dough, after),
        net_carbs_us=sheet.estimate("net_carbs_us"),
        net_carbs_eu=sheet.estimate("net_carbs_eu"),
        net_carbs_total=sheet.estimate("net_carbs_total"),
    )


def scaled(estimate: Estimate, factor: float) -> Estimate:
    """Return an estimate times an exact, non-negative factor."""
    return Estimate(
        value=estimate.value * factor, low=estimate.low * factor, high=estimate.high * factor, unit=estimate.unit
    )


def _baked(raw: Estimate, after: Baked) -> Estimate:
    loss = after.loss
    half = float(hypot((raw.high - raw.low) / 2 * after.remaining, raw.value * (loss.high - loss.low) / 2))
    middle = after.bake_to_g
    return Estimate(value=middle, low=max(middle - half, 0.0), high=middle + half, unit="g")


def _facts(grams: Estimate, whole: dict[str, Estimate], factor: float, exact_grams: float | None = None) -> Facts:
    weight = (
        Estimate(value=exact_grams, low=exact_grams, high=exact_grams, unit="g")
        if exact_grams is not None
        else scaled(grams, factor)
    )
    return Facts(grams=weight, **{name: scaled(estimate, factor) for name, estimate in whole.items()})


def _per_100_baked(piece: dict[str, Estimate], per_dough: float, after: Baked) -> Facts:
    """Per 100 g baked: what the oven takes is water, and how much of it is uncertain too."""
    factor, relative = per_dough * after.whole_per_baked, after.relative

    def widened(estimate: Estimate) -> Estimate:
        middle = estimate.value * factor
        below = hypot((estimate.value - estimate.low) * factor, middle * relative)
        above = hypot((estimate.high - estimate.value) * factor, middle * relative)
        return Estimate(value=middle, low=max(middle - below, 0.0), high=middle + above, unit=estimate.unit)

    exact = Estimate(value=100.0, low=100.0, high=100.0, unit="g")
    return Facts(grams=exact, **{name: widened(estimate) for name, estimate in piece.items()})
