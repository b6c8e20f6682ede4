"""What 100 g of an ingredient is made of."""

from __future__ import annotations

from dataclasses import dataclass

# Column order of every composition vector: per 100 g, unit in the name.
NUTRIENTS = (
    "water_g",
    "protein_g",
    "fat_g",
    "saturates_g",
    "carbohydrate_g",
    "fibre_g",
    "sugars_g",
    "erythritol_g",
    "allulose_g",
    "polyols_g",
    "ash_g",
    "alcohol_g",
    "acid_g",
    "sodium_mg",
    "cholesterol_mg",
    "calcium_mg",
    "iron_mg",
    "potassium_mg",
    "vitamin_d_ug",
    "trans_g",
    "added_sugars_g",
)
# carbohydrate_g is by difference and so includes fibre, polyols and allulose;
# polyols_g are those other than erythritol.

# The nutrients whose spread is known; the others are carried without one.
SPREADS = {
    "water_g": "water_sd",
    "protein_g": "protein_sd",
    "fat_g": "fat_sd",
    "saturates_g": "saturates_sd",
    "carbohydrate_g": "carbohydrate_sd",
    "fibre_g": "fibre_sd",
    "sugars_g": "sugars_sd",
    "sodium_mg": "sodium_sd",
}

PROXIMATES = ("water_g", "protein_g", "fat_g", "carbohydrate_g", "ash_g", "alcohol_g", "acid_g")
CLOSING_TOLERANCE_G = 1.0  # proximates sum to 100 within this


@dataclass(frozen=True, kw_only=True)
class Composition:
    """Amounts per 100 g, in the order of ``NUTRIENTS``, with standard deviations."""

    values: tuple[float, ...]
    sds: tuple[float, ...]

    def __getitem__(self, nutrient: str) -> float:
        """Amount per 100 g of a nutrient by name."""
        return self.values[NUTRIENTS.index(nutrient)]

    @property
    def closes_at(self) -> float:
        """Sum of water, protein, fat, carbohydrate, ash, alcohol and acid: 100 when nothing is missing."""
        return sum(self[part] for part in PROXIMATES)
