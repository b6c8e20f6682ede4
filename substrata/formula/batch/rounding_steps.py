"""The steps in which a kitchen changes an amount (common practice)."""

from __future__ import annotations

from substrata.base.settings import Settings
from substrata.ingredients.egg_sizes import EGG_PARTS, egg_grams
from substrata.ingredients.ingredient import Ingredient


def to_the_scale(grams: float) -> float:
    """Round to what a kitchen weighs: tenths to 20 g, halves to 60 g, else whole grams.

    >>> to_the_scale(4.26), to_the_scale(41.3), to_the_scale(126.4)
    (4.3, 41.5, 126.0)

    Returns:
        Grams.
    """
    step = 0.1 if abs(grams) < 20 else 0.5 if abs(grams) < 60 else 1.0
    return round(round(grams / step) * step, 1)


def kitchen_step(ingredient: Ingredient, grams: float, settings: Settings) -> float:
    """Grams by which one arrow key changes a line: one egg, half a gram of a gum, 5 g of a flour.

    Args:
        ingredient: what the line holds.
        grams: its present weight.
        settings: the kitchen's egg size.

    Returns:
        Grams.
    """
    if ingredient.id in EGG_PARTS:
        return round(egg_grams(EGG_PARTS[ingredient.id], settings.egg_size, settings.egg_scheme).value, 1)
    if ingredient.role in ("lift", "salt", "acid", "flavour", "binder"):
        return 0.5
    return 1.0 if grams < 40 else 5.0
