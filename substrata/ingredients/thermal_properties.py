"""Thermal properties of the six matters a food is made of, and of a food by its composition.

Every property is ``a + b·T + c·T²`` with T in °C (``choi_okos.csv``), good from -40 to 150 °C.
"""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache
from typing import Literal, overload

import numpy as np
from numpy.typing import NDArray

from substrata.base.tables.table_reader import read_table

Matter = Literal["water", "protein", "fat", "carbohydrate", "fibre", "ash"]
MATTERS: tuple[Matter, ...] = ("water", "protein", "fat", "carbohydrate", "fibre", "ash")
Floats = NDArray[np.float64]


@cache
def _polynomials() -> dict[tuple[str, str], tuple[float, float, float]]:
    return {
        (row.text("property"), row.text("matter")): (row.number_in("a"), row.number_in("b"), row.number_in("c"))
        for row in read_table("choi_okos.csv")
    }


@overload
def property_choi_okos(name: str, matter: Matter, temperature_c: float) -> float: ...
@overload
def property_choi_okos(name: str, matter: Matter, temperature_c: Floats) -> Floats: ...
def property_choi_okos(name: str, matter: Matter, temperature_c: float | Floats) -> float | Floats:
    """Return a property of one matter.

    Args:
        name: ``conductivity`` in W/(m K), ``specific_heat`` in J/(kg K) or ``density`` in kg/m³.
        matter: which.
        temperature_c: any shape.

    Returns:
        Same shape as the temperature.

    Raises:
        KeyError: when there is no such property.

    Source: Choi & Okos (1986).

    >>> property_choi_okos("specific_heat", "water", 20.0).__round__(1), property_choi_okos("density", "fat", 20.0).__round__(1)
    (4176.6, 917.2)
    """
    a, b, c = _polynomials()[name, matter]
    return a + b * temperature_c + c * temperature_c * temperature_c


@cache
def densities_20c() -> dict[Matter, float]:
    """Density of each matter at 20 °C, g/mL."""
    return {matter: property_choi_okos("density", matter, 20.0) / 1000 for matter in MATTERS}


@cache
def matter_densities_20c() -> Floats:
    """Return the same in the order of ``MATTERS``, shape (6,)."""
    return np.array(list(densities_20c().values()))


def specific_heat(parts: Mapping[Matter, float], temperature_c: float) -> float:
    """Specific heat of a food, J/(g K), the mass-weighted sum of its matters'.

    Args:
        parts: grams of each matter in 1 g of the food.
        temperature_c: at which.

    >>> specific_heat({"water": 1.0}, 20.0).__round__(2)
    4.18

    Returns:
        J/(g K).
    """
    return sum(share * property_choi_okos("specific_heat", m, temperature_c) for m, share in parts.items()) / 1000
