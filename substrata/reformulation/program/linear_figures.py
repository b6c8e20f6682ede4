"""Every quantity that can be wished for, as a ratio over the lines."""

from __future__ import annotations

from dataclasses import replace

from substrata.evaluation.dough import Dough
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.propagation import Ratio, total_ratio
from substrata.nutrition.nutrition_facts import FIGURES, piece_ratio
from substrata.reformulation.request.balance_request import PER_100_G

_UNITS = {"sodium": "mg per piece", "cheese": "g per piece"}


def ratio_of(key: str, dough: Dough, batch: Batch | None = None) -> Ratio:
    """Return the ratio of a quantity, a piece or (with ``_100g`` behind its key) per 100 g baked.

    Args:
        key: of the quantity.
        dough: gives the formula and how much the oven leaves.
        batch: of the same lines at other weights; None takes the dough's own.

    Raises:
        KeyError: when there is no such quantity.
    """
    batch = dough.batch if batch is None else batch
    if key in dough.ratios_of:
        return dough.ratios_of[key](batch)
    plain = key.removesuffix(PER_100_G)
    if plain == "cheese":
        result = total_ratio(batch, (batch.is_role("cheese"), batch.nothing), "g", 1 / dough.formula.pieces)
    elif plain in FIGURES:
        result = piece_ratio(plain, batch, dough.formula, dough.settings)
    else:
        raise KeyError(key)
    if plain == key:
        return result
    # What the oven takes is water: the whole weighs less by its share, and what frying brings is in it already.
    ones = batch.nothing + 1.0
    baked_share = 1 / dough.baked.whole_per_baked
    scale = result.scale * dough.formula.pieces * 100
    return replace(result, bottom=(ones * baked_share, batch.nothing), offset=0.0, scale=scale)


def unit_of(key: str, dough: Dough) -> str:
    """Return the unit of a quantity that has no bracket of its own."""
    return "g per 100 g" if key.endswith(PER_100_G) else _UNITS.get(key, ratio_of(key, dough).unit)
