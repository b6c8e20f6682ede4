"""Where water boils."""

from __future__ import annotations

from functools import lru_cache

from substrata.base.roots import root
from substrata.process.baking.simulation.cell_properties import saturation_pressure


@lru_cache(maxsize=64)
def boiling_c(pressure_pa: float) -> float:
    """Boiling point of water, °C, under a pressure of 10 to 200 kPa; the inverse of IAPWS-IF97's saturation line.

    >>> round(boiling_c(101325.0), 2)
    99.97

    Returns:
        °C.
    """
    formula = saturation_pressure.py_func
    return root(lambda t: formula(t) - pressure_pa, 40.0, 121.0, exact=1e-6)
