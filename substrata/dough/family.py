"""Which kind of dough it is: the order of work and what decides in the oven follow from that (common practice)."""

from __future__ import annotations

from typing import Literal

from substrata.batch.weighed import Batch
from substrata.dough.handling import CHEESE_DOUGH, cheese_share, is_melted
from substrata.formula.formula import Formula

Family = Literal["melted-cheese", "cold-stirred", "vegetable", "psyllium", "batter", "nut", "cookie", "doughnut"]
FAMILIES: tuple[Family, ...] = (
    "melted-cheese",
    "cold-stirred",
    "vegetable",
    "psyllium",
    "batter",
    "nut",
    "cookie",
    "doughnut",
)
_VEGETABLE = 0.3  # share of the dough from which the vegetable is the dough
_PSYLLIUM = 0.015  # share from which psyllium holds it
_BY_FORM: dict[str, Family] = {"cookie": "cookie", "doughnut": "doughnut", "tin-loaf": "batter"}


def family_of(batch: Batch, formula: Formula) -> Family:
    """The family of a dough.

    Args:
        batch: the weighed lines.
        formula: gives the form and how the cheese goes in.
    """
    whole = batch.dough_g
    if not whole:
        return "nut"
    cheesy = cheese_share(batch) >= CHEESE_DOUGH
    vegetable = float(batch.grams @ (batch.is_role("vegetable") * batch.inside)) / whole
    psyllium = sum(w.grams.value for w in batch.lines if "psyllium" in w.ingredient.flags) / whole
    if vegetable >= _VEGETABLE:
        return "vegetable"
    if cheesy:
        return "melted-cheese" if is_melted(batch, formula.mix) else "cold-stirred"
    if formula.form in _BY_FORM:
        return _BY_FORM[formula.form]
    return "psyllium" if psyllium >= _PSYLLIUM else "nut"
