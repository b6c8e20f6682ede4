"""Energy by a stated method, from the factors of ``energy.csv``.

What the app shows uses EU 1169/2011 Annex XIV (available carbohydrate 4, fibre 2, polyols 2.4, erythritol 0,
protein 4, fat 9, alcohol 7, organic acids 3 kcal/g) with allulose .4 kcal/g (FDA 2020). The panels of the
United States and the European Union each use their own law's factors.
"""

from __future__ import annotations

from functools import cache
from typing import Literal

import numpy as np

from substrata.base.tables.table_reader import read_table
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.propagation import Coefficient
from substrata.ingredients.composition import NUTRIENTS, Composition
from substrata.ingredients.library import Floats

METHOD = (
    "4/4/9 with fibre 2, polyols 2.4, erythritol 0, allulose .4, alcohol 7, acids 3 kcal/g (EU 1169/2011 Annex XIV)"
)
Method = Literal["shown_kcal", "us_kcal", "eu_kcal", "eu_kj"]
_IN_CARBOHYDRATE = ("fibre_g", "polyols_g", "erythritol_g", "allulose_g")


@cache
def _table(method: Method) -> dict[str, float]:
    return {row.text("nutrient"): row.number_in(method, 0) for row in read_table("energy.csv")}


@cache
def _factors(method: Method) -> Floats:
    """Energy per g of each nutrient in the order of ``NUTRIENTS``, shape (nutrients,).

    Carbohydrate is by difference, so what lies inside it adds only its difference from carbohydrate.

    Returns:
        kcal per g, shape (nutrients,).
    """
    factors = _table(method)
    carbohydrate = factors["carbohydrate_g"]
    inside = {key: factors[key] - carbohydrate for key in _IN_CARBOHYDRATE}
    return np.array([(factors | inside).get(nutrient, 0.0) for nutrient in NUTRIENTS])


def energy_kcal(composition: Composition) -> float:
    """Energy of 100 g, kcal, as the app shows it.

    >>> from substrata.ingredients.library import load_library
    >>> round(energy_kcal(load_library()["olive-oil"].composition))
    900

    Returns:
        kcal per 100 g.
    """
    return float(np.array(composition.values) @ _factors("shown_kcal"))


def energy_per_gram(batch: Batch, method: Method = "shown_kcal") -> Coefficient:
    """Energy per g of each line in the unit of the method, value and sd, each shape (n,)."""
    values, sds = batch.composition
    factors = _factors(method)
    value, variance = values @ factors, sds**2 @ factors**2
    if method != "us_kcal":
        return value, np.sqrt(variance)
    # 21 CFR 101.9(c)(1)(i)(C): soluble fibre gives 2 kcal/g, insoluble none, each polyol has its own factor.
    fibre, fibre_sd = batch.nutrient("fibre_g")
    soluble, soluble_sd = batch.behaviour("soluble_fibre")
    each = _table(method)["soluble_fibre_g"]
    excess = batch.behaviour("polyol_energy")[0] - _table(method)["polyols_g"]
    value = value + each * fibre * soluble + batch.nutrient("polyols_g")[0] * excess
    return value, np.sqrt(variance + each**2 * ((fibre_sd * soluble) ** 2 + (fibre * soluble_sd) ** 2))
