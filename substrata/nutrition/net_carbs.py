"""Net carbohydrate by a named convention: never a bare number.

"Net carbs" has no legal definition in the United States, and "low carb" is no authorised claim in
the United States or the European Union.
"""

from __future__ import annotations

import numpy as np

from substrata.base.messages.message import Message, Wording
from substrata.base.settings import Convention, PolyolRule
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.propagation import Coefficient

CONVENTIONS: dict[Convention, Wording] = {
    "us": Message("net-carbs-total-carbohydrate-fiber-erythritol-allulose"),
    "eu": Message("net-carbs-carbohydrate-which-excludes-fiber-erythritol"),
    "total": Message("net-carbs-total-carbohydrate-nothing-taken-off"),
}


def available_per_gram(batch: Batch) -> Coefficient:
    """Carbohydrate without fibre as a European label counts it, per g of each line, value and sd, each shape (n,).

    By difference it can come out below the sugars that were measured on other samples; it holds them, so it is never less.

    Returns:
        Value and sd per g, each shape (n,).
    """
    carbohydrate, carbohydrate_sd = batch.nutrient("carbohydrate_g")
    fibre, fibre_sd = batch.nutrient("fibre_g")
    return np.maximum(carbohydrate - fibre, batch.nutrient("sugars_g")[0]), np.hypot(carbohydrate_sd, fibre_sd)


def polyols_percent(batch: Batch, baked_g: float) -> float:
    """All polyols, % of what comes out of the oven; 0 while nothing does."""
    amount = batch.nutrient("erythritol_g")[0] + batch.nutrient("polyols_g")[0]
    return 100 * float(batch.grams @ amount) / baked_g if baked_g else 0.0


def net_carbs_per_gram(batch: Batch, convention: Convention, rule: PolyolRule) -> Coefficient:
    """Net carbohydrate per g of each line, value and sd, each shape (n,).

    ``us`` starts from carbohydrate by difference, which includes fibre, so fibre is taken off.
    ``eu`` starts from a label's carbohydrate, which already excludes it; a European label counts
    allulose as a carbohydrate and it is no polyol, so it stays.

    Args:
        batch: n weighed lines.
        convention: ``us``, ``eu`` or ``total``.
        rule: other polyols count half, or 1 − kcal/4 of each is taken off.

    Returns:
        Value and sd per g, each shape (n,).
    """
    carbohydrate, carbohydrate_sd = batch.nutrient("carbohydrate_g")
    if convention == "total":
        return carbohydrate, carbohydrate_sd
    fibre, fibre_sd = batch.nutrient("fibre_g")
    off = 0.5 if rule == "half" else 1 - np.minimum(batch.behaviour("polyol_energy")[0] / 4, 1.0)
    available = available_per_gram(batch)[0] if convention == "eu" else carbohydrate - fibre
    net = available - batch.nutrient("erythritol_g")[0] - off * batch.nutrient("polyols_g")[0]
    if convention == "us":
        net = net - batch.nutrient("allulose_g")[0]
    return np.maximum(net, 0.0), np.hypot(carbohydrate_sd, fibre_sd)
