"""Water activity of a food from its composition: the isotherm of its solids and the solutes in its water."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from math import exp, log

from substrata.base.tables.table_reader import constant, read_table

_WATER_MOLES_PER_GRAM = 1 / 18.015
_DRY = 1e-9


@dataclass(frozen=True, kw_only=True)
class Solute:
    """A substance that lowers the water activity of the water it is dissolved in."""

    nutrient: str  # column of the composition that holds it
    grams_per_unit: float  # of that column
    molar_mass: float  # g/mol
    particles: int  # that one molecule gives
    norrish_k: float
    solubility: float  # g per g of water at 25 °C; what is over it lies there as crystals


@cache
def solutes() -> tuple[Solute, ...]:
    """Read the solutes of ``solutes.csv``."""
    return tuple(
        Solute(
            nutrient=row.text("nutrient"),
            grams_per_unit=row.number_in("grams_per_unit", 0),
            molar_mass=row.number_in("molar_mass", 1),
            particles=int(row.number_in("particles", 1)),
            norrish_k=row.number_in("norrish_k"),
            solubility=row.number_in("solubility", 0) / 100,
        )
        for row in read_table("solutes.csv")
    )


def water_activity_norrish(solute: Solute, grams: float, water_g: float) -> float:
    """Compute the water activity of a solution of one solute: ``x_w · exp(-K · x_s²)``.

    Args:
        solute: what is dissolved.
        grams: of it; what does not dissolve counts for nothing.
        water_g: grams of water, above 0.

    Returns:
        Water activity, 0 to 1.

    Source: Norrish, J Food Technol 1 (1966) 25; ions count as particles.

    >>> salt = next(s for s in solutes() if s.nutrient == "sodium_mg")
    >>> round(water_activity_norrish(salt, 58.44, 1000.0), 3)
    0.964
    """
    dissolved = min(grams, solute.solubility * water_g)
    particles = solute.particles * dissolved / solute.molar_mass
    share = particles / (particles + water_g * _WATER_MOLES_PER_GRAM)
    return (1 - share) * exp(-solute.norrish_k * share * share)


def water_activity_oswin(water_g: float, sorbing_g: float, sorption: float) -> float:
    """Compute the water activity of solids at 25 °C: ``1 / (1 + (A / W)^(1/n))``.

    Args:
        water_g: grams of water.
        sorbing_g: grams of dry matter without its fat.
        sorption: Oswin's A, g water per g of that matter at a water activity of one half.

    Returns:
        Water activity, 0 to 1.

    >>> water_activity_oswin(12.0, 100.0, 0.12)
    0.5
    """
    if water_g <= _DRY:
        return 0.0
    ratio = sorption * max(sorbing_g, _DRY) / water_g
    return 1 / (1 + exp(log(ratio) / constant("oswin_exponent"))) if ratio > 0 else 1.0


def water_activity_ross(water_g: float, sorbing_g: float, sorption: float, amounts: Mapping[str, float]) -> float:
    """Compute the water activity of a food: the product of its solids' and of each solute's.

    Args:
        water_g: grams of water.
        sorbing_g: grams of dry matter without fat and without what dissolves.
        sorption: Oswin's A of that matter.
        amounts: of each solute, in the unit of its nutrient.

    Returns:
        Water activity, 0 to 1.

    Source: Ross, Food Technol 29(3) (1975) 26.
    """
    result: float = water_activity_oswin(water_g, sorbing_g, sorption)
    if water_g <= _DRY:
        return result
    for solute in solutes():
        grams = amounts.get(solute.nutrient, 0.0) * solute.grams_per_unit
        result *= water_activity_norrish(solute, grams, water_g)
    return result
