from .allergens import allergen_words
from .claims import claim_kinds
from .daily_limits import budget_kinds
from .ingredient_comparison import Compared, Layer, compare
from .ingredient_statement import StatementPart
from .net_carbs import CONVENTIONS

__all__ = [
    "CONVENTIONS",
    "Compared",
    "Layer",
    "StatementPart",
    "allergen_words",
    "budget_kinds",
    "claim_kinds",
    "compare",
]
