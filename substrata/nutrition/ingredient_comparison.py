"""Ingredients and packs side by side: what they are made of, what they do, what that costs."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from substrata.base.messages.message import Message, Wording
from substrata.base.settings import Settings
from substrata.base.tables.table_reader import constant
from substrata.base.uncertainty import SDS_IN_HALF_90, Spread
from substrata.base.units import unit
from substrata.formula.batch.batch_lines import Batch, WeighedLine
from substrata.formula.batch.propagation import Coefficient, Estimate
from substrata.formula.formula import Line
from substrata.ingredients.composition import Composition
from substrata.ingredients.ingredient import Ingredient
from substrata.ingredients.library import Library
from substrata.nutrition.energy import energy_kcal
from substrata.nutrition.net_carbs import net_carbs_per_gram


@dataclass(frozen=True, kw_only=True)
class Layer:
    """One stratum of 100 g."""

    key: str  # water, protein, fat, sugars, fibre, polyols, other
    name: Wording
    grams: float


@dataclass(frozen=True, kw_only=True)
class FunctionPrice:
    """Price of what an ingredient is bought for; None when it has no price or does not do it."""

    protein_100g: float | None  # of 100 g protein
    water_100g: float | None  # of holding 100 g water
    egg_equivalent: float | None  # of the binding of one egg


@dataclass(frozen=True, kw_only=True)
class Compared:
    """One ingredient or pack, per 100 g."""

    key: str
    ingredient: str
    name: str
    pack: str  # "" for the reference
    role: str
    layers: tuple[Layer, ...]  # add up to about 100 g
    net_carbs: Estimate
    protein: Estimate
    fat: Estimate
    fibre: Estimate
    energy_kcal: float
    capacity: Spread  # g water a g
    binding: Spread  # eggs per 100 g
    g_per_cup: float | None
    price_100g: float | None
    function_price: FunctionPrice
    flags: tuple[str, ...]
    source: str


def compare(keys: Sequence[str], library: Library, settings: Settings) -> tuple[Compared, ...]:
    """Look at several things side by side, in the order asked for.

    Returns:
        The compared entries.

    Raises:
        UnknownIngredient: when one of them is not in the library.
    """
    rows = [library[key] for key in keys]
    grams = Spread(value=100.0, low=100.0, high=100.0)
    lines = [WeighedLine(line=Line(id=i.key, ingredient=i.id), ingredient=i, grams=grams, role=i.role) for i in rows]
    batch = Batch(lines, library)
    net_carbs = net_carbs_per_gram(batch, settings.convention, settings.polyol_rule)
    figures = {"net_carbs": net_carbs} | {key: batch.nutrient(f"{key}_g") for key in ("protein", "fat", "fibre")}
    return tuple(
        _compared(ingredient, {key: _per_100g(per_gram, row) for key, per_gram in figures.items()})
        for row, ingredient in enumerate(rows)
    )


def _per_100g(per_gram: Coefficient, row: int) -> Estimate:
    value, half = 100 * float(per_gram[0][row]), 100 * SDS_IN_HALF_90 * float(per_gram[1][row])
    return Estimate(value=value, low=max(value - half, 0.0), high=value + half, unit="g")


def _compared(ingredient: Ingredient, figures: Mapping[str, Estimate]) -> Compared:
    composition, pack = ingredient.composition, ingredient.pack
    price = pack.price_per_g if pack else None
    capacity, binding = ingredient.parameter("capacity"), ingredient.parameter("binding")
    density = ingredient.bulk_density
    return Compared(
        key=ingredient.key,
        ingredient=ingredient.id,
        name=ingredient.name,
        pack=pack.name if pack else "",
        role=ingredient.role,
        layers=layers_of(composition),
        net_carbs=figures["net_carbs"],
        protein=figures["protein"],
        fat=figures["fat"],
        fibre=figures["fibre"],
        energy_kcal=energy_kcal(composition),
        capacity=capacity,
        binding=binding.scaled(100),
        g_per_cup=None if density is None else density.value * unit("cup").size,
        price_100g=None if price is None else 100 * price,
        function_price=FunctionPrice(
            protein_100g=_per(price, composition["protein_g"] / 100, 0.05, 100),
            water_100g=_per(price, capacity.value, constant("least_capacity"), 100),
            egg_equivalent=_per(price, binding.value, constant("least_binding"), 1),
        ),
        flags=tuple(sorted(ingredient.flags)),
        source=ingredient.source,
    )


def layers_of(composition: Composition) -> tuple[Layer, ...]:
    """Return the strata of 100 g: by matter, so that they add up whatever convention net carbs go by."""
    polyols = composition["erythritol_g"] + composition["polyols_g"] + composition["allulose_g"]
    matter: dict[str, tuple[Wording, float]] = {
        "water": ("Water", composition["water_g"]),
        "protein": ("Protein", composition["protein_g"]),
        "fat": ("Fat", composition["fat_g"]),
        "sugars": (
            Message("ingredient-comparison-sugars-starch"),
            max(composition["carbohydrate_g"] - composition["fibre_g"] - polyols, 0.0),
        ),
        "fibre": ("Fiber", composition["fibre_g"]),
        "polyols": (Message("ingredient-comparison-polyols-allulose"), polyols),
    }
    matter["other"] = (
        Message("ingredient-comparison-ash-acids"),
        max(100 - sum(grams for _, grams in matter.values()), 0.0),
    )
    return tuple(Layer(key=key, name=name, grams=grams) for key, (name, grams) in matter.items())


def _per(price: float | None, function_per_g: float, least: float, amount: float) -> float | None:
    """Price of some amount of a function; None below what anybody would buy it for."""
    return amount * price / function_per_g if price is not None and function_per_g >= least else None
