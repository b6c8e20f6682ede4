"""Energy by one stated method: the conversion factors of EU 1169/2011 Annex XIV.

Available carbohydrate 4, fibre 2, polyols 2.4, erythritol 0, protein 4, fat 9, alcohol 7, organic
acids 3 kcal/g; allulose .4 kcal/g (FDA 2020).
"""

from __future__ import annotations

from functools import cache

import numpy as np

from substrata.formula.propagate import Coefficient
from substrata.formula.weighed import Batch
from substrata.pantry.composition import NUTRIENTS, Composition
from substrata.pantry.library import Floats
from substrata.quantities.tables import constant

METHOD = (
    "4/4/9 with fibre 2, polyols 2.4, erythritol 0, allulose .4, alcohol 7, acids 3 kcal/g (EU 1169/2011 Annex XIV)"
)


@cache
def _factors() -> Floats:
    """Energy in kcal per g of each nutrient in the order of ``NUTRIENTS``, shape (nutrients,).

    Carbohydrate is by difference, so what lies inside it adds only its difference from 4.
    """
    carbohydrate = constant("energy_carbohydrate")
    added = {
        "carbohydrate_g": carbohydrate,
        "protein_g": constant("energy_protein"),
        "fat_g": constant("energy_fat"),
        "alcohol_g": constant("energy_alcohol"),
        "acid_g": constant("energy_acid"),
        "fibre_g": constant("energy_fibre") - carbohydrate,
        "polyols_g": constant("energy_polyol") - carbohydrate,
        "erythritol_g": constant("energy_erythritol") - carbohydrate,
        "allulose_g": constant("energy_allulose") - carbohydrate,
    }
    return np.array([added.get(nutrient, 0.0) for nutrient in NUTRIENTS])


def energy_kcal(composition: Composition) -> float:
    """Energy of 100 g, kcal.

    >>> from substrata.pantry.library import load_library
    >>> round(energy_kcal(load_library()["olive-oil"].composition))
    900
    """
    return float(np.array(composition.values) @ _factors())


def energy_per_gram(batch: Batch) -> Coefficient:
    """Energy in kcal per g of each line, value and sd, each shape (n,)."""
    values, sds = batch.composition
    return values @ _factors(), np.sqrt(sds**2 @ _factors() ** 2)
