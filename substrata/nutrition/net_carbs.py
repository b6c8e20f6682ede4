"""Net carbohydrate by a named convention: never a bare number.

"Net carbs" has no legal definition in the United States, and "low carb" is no authorised claim in
the United States or the European Union.
"""

from __future__ import annotations

import numpy as np

from substrata.base.messages.message import Message, Wording
from substrata.base.settings import Convention, PolyolRule
from substrata.base.tables.table_reader import constant
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.propagation import Coefficient
from substrata.ingredients.library import Floats

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
    carbohydrate, fibre = batch.nutrient("carbohydrate_g")[0], batch.nutrient("fibre_g")[0]
    return np.maximum(carbohydrate - fibre, batch.nutrient("sugars_g")[0]), difference_sd(batch)


def difference_sd(batch: Batch) -> Floats:
    """Return the sd of carbohydrate without fibre, g per g of each line, shape (n,).

    Fibre is a part of the carbohydrate: where one pack has more of it, it has more of both, and the difference moves less than
    either. Two figures that a label rounds to 1 g of a serving of 28 g leave 1.46 g in 100 g (computed), and the packs of some
    flours differ by more than that (``pack_net_sd``, from memory).

    Returns:
        Standard deviations, g/g.
    """
    total, total_sd = batch.nutrient("carbohydrate_g")
    fibre, fibre_sd = batch.nutrient("fibre_g")
    packs = batch.behaviour("pack_net_sd")[0] / 100
    least = np.minimum(np.maximum(constant("label_difference_sd") / 100, packs), total)
    shared = np.sqrt(np.maximum(total_sd**2 - fibre_sd**2, least**2))
    result: Floats = np.where(fibre > 0, shared, np.maximum(total_sd, packs))
    return result


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
    fibre = batch.nutrient("fibre_g")[0]
    off = 0.5 if rule == "half" else 1 - np.minimum(batch.behaviour("polyol_energy")[0] / 4, 1.0)
    available = available_per_gram(batch)[0] if convention == "eu" else carbohydrate - fibre
    net = available - batch.nutrient("erythritol_g")[0] - off * batch.nutrient("polyols_g")[0]
    if convention == "us":
        net = net - batch.nutrient("allulose_g")[0]
    return np.maximum(net, 0.0), difference_sd(batch)
