"""Salt and sweetness as the tongue meets them: per cent of the dough."""

from __future__ import annotations

from substrata.base.tables.table_reader import constant
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.propagation import Ratio


def cheese_salt_percent(batch: Batch) -> float:
    """Salt that cheese brings by itself, % of the dough: nobody can leave it out."""
    ratio = salt_ratio(batch)
    cheese = batch.grams * batch.is_role("cheese")
    return ratio.scale * float(cheese @ ratio.top[0]) / batch.dough_g if batch.dough_g else 0.0


def salt_ratio(batch: Batch) -> Ratio:
    """Salt, % of the dough: sodium × 2.5 of every line, cheese counted, leavening not.

    The sodium of baking powder and soda is in the nutrition but does not taste of salt.

    Returns:
        The ratio, % of the dough.
    """
    sodium, sodium_sd = batch.nutrient("sodium_mg")
    tasted = (1 - batch.is_role("lift", "acid")) * constant("salt_per_sodium") / 1000
    tasted = tasted * batch.inside
    return Ratio(top=(sodium * tasted, sodium_sd * tasted), bottom=(batch.inside, batch.nothing), unit="%", scale=100.0)


def sweetness_ratio(batch: Batch) -> Ratio:
    """Sweetness, % sucrose equivalent of the dough."""
    return Ratio(top=batch.behaviour("sweetness"), bottom=(batch.inside, batch.nothing), unit="% sucrose", scale=100.0)
