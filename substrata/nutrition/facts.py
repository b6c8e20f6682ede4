"""What a formula holds per piece, per serving and per 100 g, before and after the oven."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from substrata.formula.form import form_of
from substrata.formula.formula import Formula
from substrata.formula.propagate import Coefficient, Estimate, total_ratio
from substrata.formula.weighed import Batch
from substrata.nutrition.energy import energy_per_gram
from substrata.nutrition.net_carbs import net_carbs_per_gram
from substrata.quantities.spread import SDS_IN_HALF_90, Spread
from substrata.settings import Convention, Settings


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


def per_gram(key: str, batch: Batch, settings: Settings) -> tuple[Coefficient, str]:
    """Per gram of each line, and the unit, of a figure of ``Facts`` by name.

    Raises:
        KeyError: when ``Facts`` has no such figure.
    """
    if key == "net_carbs":
        return net_carbs_per_gram(batch, settings.convention, settings.polyol_rule), "g"
    if key == "energy":
        return energy_per_gram(batch), "kcal"
    column = _NUTRIENTS[key]
    return batch.nutrient(column), column.rpartition("_")[2]


def nutrition(formula: Formula, batch: Batch, whole: dict[str, Estimate], settings: Settings) -> Nutrition:
    """Scale the figures of the whole dough to every amount.

    Args:
        formula: gives pieces, serving and form.
        batch: its weighed lines.
        whole: figures of the whole dough by name, as of ``whole_dough``.
        settings: the polyol rule.
    """
    loss = form_of(formula.form).bake_loss
    dough = batch.dough_g
    sd = float(np.sqrt((batch.grams_sd**2).sum()))
    raw = Estimate(value=dough, low=dough - SDS_IN_HALF_90 * sd, high=dough + SDS_IN_HALF_90 * sd, unit="g")
    baked = _baked(raw, loss)
    piece = 1 / formula.pieces

    def convention(key: Convention) -> Estimate:
        return total_ratio(batch, net_carbs_per_gram(batch, key, settings.polyol_rule), "g", piece).estimate(batch)

    per_dough = 100 / dough if dough else 0.0
    return Nutrition(
        piece=_facts(baked, whole, piece),
        serving=_facts(baked, whole, piece * formula.serving_pieces),
        dough_100g=_facts(raw, whole, per_dough, exact_grams=100.0),
        baked_100g=_per_100_baked(whole, dough, loss),
        net_carbs_us=convention("us"),
        net_carbs_eu=convention("eu"),
        net_carbs_total=convention("total"),
    )


def whole_dough(batch: Batch, settings: Settings) -> dict[str, Estimate]:
    """Every figure of ``Facts`` but its grams, for the whole dough."""
    keys = (*_NUTRIENTS, "net_carbs", "energy")
    return {key: total_ratio(batch, *per_gram(key, batch, settings)).estimate(batch) for key in keys}


def scaled(estimate: Estimate, factor: float) -> Estimate:
    """An estimate times an exact, non-negative factor."""
    return Estimate(
        value=estimate.value * factor, low=estimate.low * factor, high=estimate.high * factor, unit=estimate.unit
    )


def _baked(raw: Estimate, loss: Spread) -> Estimate:
    left = 1 - loss.value
    half = float(np.hypot((raw.high - raw.low) / 2 * left, raw.value * (loss.high - loss.low) / 2))
    return Estimate(value=raw.value * left, low=raw.value * left - half, high=raw.value * left + half, unit="g")


def _facts(grams: Estimate, whole: dict[str, Estimate], factor: float, exact_grams: float | None = None) -> Facts:
    weight = (
        Estimate(value=exact_grams, low=exact_grams, high=exact_grams, unit="g")
        if exact_grams is not None
        else scaled(grams, factor)
    )
    return Facts(grams=weight, **{name: scaled(estimate, factor) for name, estimate in whole.items()})


def _per_100_baked(whole: dict[str, Estimate], dough: float, loss: Spread) -> Facts:
    """Per 100 g baked: what the oven takes is water, and how much of it is uncertain too."""

    def widened(estimate: Estimate) -> Estimate:
        if not dough:
            return scaled(estimate, 0.0)
        factor = 100 / (dough * (1 - loss.value))
        relative = (loss.high - loss.low) / 2 / (1 - loss.value)
        middle = estimate.value * factor
        below = float(np.hypot((estimate.value - estimate.low) * factor, middle * relative))
        above = float(np.hypot((estimate.high - estimate.value) * factor, middle * relative))
        return Estimate(value=middle, low=max(middle - below, 0.0), high=middle + above, unit=estimate.unit)

    exact = Estimate(value=100.0, low=100.0, high=100.0, unit="g")
    return Facts(grams=exact, **{name: widened(estimate) for name, estimate in whole.items()})
