"""Gas the leavening can give, the balance of soda and acid, and how much of the gas the dough can hold."""

from __future__ import annotations

from dataclasses import dataclass
from math import exp

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.propagation import Coefficient, Estimate, Ratio, Sheet
from substrata.ingredients.groups import is_in_group
from substrata.ingredients.library import Floats
from substrata.ingredients.thermal_properties import matter_densities_20c
from substrata.process.rheology.yeast_kinetics import alive


@dataclass(frozen=True, kw_only=True)
class Leavening:
    """The rising power of a dough."""

    gas: Estimate  # mL gas per 100 mL dough, at the boiling point
    gas_ml: float
    dough_ml: float
    soda_g: float  # bare soda in the dough
    soda_excess_g: float  # soda that no acid neutralises
    acid_excess_g: float  # acid beyond the soda, as the soda it could still neutralise
    yeast_g: float
    sugar_for_yeast_g: float
    rise: float  # expected volume after / before, ± 30 %
    strain: float  # void the gas asks for over void the set dough can hold: above 1 it may sink


def gas_ml_per_gram_co2(temperature_c: float) -> float:
    """Volume of 1 g CO₂ as an ideal gas at atmospheric pressure, mL.

    >>> round(gas_ml_per_gram_co2(20.0)), round(gas_ml_per_gram_co2(100.0))
    (547, 696)

    Source: ideal gas law with the CODATA gas constant.

    Returns:
        mL/g.
    """
    moles = 1 / constant("co2_molar_mass")
    return 1e6 * moles * constant("gas_constant") * (temperature_c + 273.15) / constant("standard_pressure")


def co2_per_gram_soda() -> float:
    """Grams of CO₂ of 1 g neutralised sodium bicarbonate: NaHCO₃ + H⁺ → Na⁺ + H₂O + CO₂.

    >>> round(co2_per_gram_soda(), 4)
    0.5239

    Returns:
        g/g.
    """
    return constant("co2_molar_mass") / constant("soda_molar_mass")


def dough_volume_per_gram(batch: Batch) -> Coefficient:
    """Volume in mL per g of each line without pores, by the true densities of its parts; shape (n,).

    Source: Choi & Okos 1986 at 20 °C; alcohol and acid are counted as water.

    Returns:
        mL/g, shape (n,).
    """
    return (1 / matter_densities_20c()) @ batch.matter_rows() * batch.inside, batch.nothing


def expected_rise(binder_load: float, gas_per_dough: float) -> float:
    """Volume after over volume before (rule of thumb, ± 30 %).

    Args:
        binder_load: egg equivalents per 100 g weighted dry base.
        gas_per_dough: volume of gas over volume of dough.

    >>> expected_rise(0.0, 2.0), round(expected_rise(4.0, 1.5), 2)
    (1.0, 1.52)

    Returns:
        A ratio of volumes.
    """
    retained = constant("retained_gas") * (1 - exp(-binder_load))
    largest_void = constant("largest_void") * (1 - exp(-binder_load / 2))
    void = retained * gas_per_dough / (1 + retained * gas_per_dough)
    return 1 / (1 - min(largest_void, void))


def void_strain(binder_load: float, gas_per_dough: float, set_share: float, least: float) -> float:
    """Void that the gas asks for over the void that the crumb can hold when it cools (rule of thumb).

    Args:
        binder_load: egg equivalents per 100 g weighted dry base.
        gas_per_dough: volume of gas over volume of dough.
        set_share: how much of the binding stands after baking, 0..1.
        least: share that the form wants.

    >>> void_strain(4.0, 1.5, 0.5, 0.25) < 1 < void_strain(4.0, 4.0, 0.1, 0.25)
    True

    Returns:
        A ratio; above 1 the crumb cannot hold it.
    """
    retained = constant("retained_gas") * (1 - exp(-binder_load))
    fraction = retained * gas_per_dough / (1 + retained * gas_per_dough)
    held = constant("largest_void") * (1 - exp(-binder_load / 2)) * (min(set_share / least, 1.0) if least else 1.0)
    return fraction / held if held > 0 else 0.0


def standing_share(sheet: Sheet) -> float:
    """Share of the binding that stands: what heat sets, and the gel of psyllium that dries into a frame.

    Without the gel's part every psyllium bun was said to sink, and they do not (common practice).

    Returns:
        A share, 0..1.
    """
    batch = sheet.batch
    power = batch.grams * batch.behaviour("binding")[0]
    gel = np.array([float("psyllium" in w.ingredient.flags) for w in batch.lines])
    whole = float(power.sum())
    return sheet.value("heat_set") + (constant("gel_frame") * float(power @ gel) / whole if whole else 0.0)


def rise_of(sheet: Sheet) -> float:
    """Volume after over volume before; the sheet holds ``lift`` and ``binder_load``."""
    return expected_rise(sheet.value("binder_load"), sheet.value("lift") / 100)


def lift(sheet: Sheet, heat_set_least: float = 0.0) -> Leavening:
    """Gas, acid balance and rise; the sheet holds ``lift``, ``binder_load`` and ``heat_set``."""
    batch = sheet.batch
    soda = float(batch.grams @ batch.behaviour("soda")[0])
    acid = float(batch.grams @ batch.behaviour("neutralising")[0]) / 100
    neutralised = min(soda, acid)
    yeast, sugar, _ = _yeast(batch)
    gas = sheet.estimate("lift")
    dough_ml = float(batch.grams @ dough_volume_per_gram(batch)[0])
    return Leavening(
        gas=gas,
        gas_ml=gas.value * dough_ml / 100,
        dough_ml=dough_ml,
        soda_g=soda,
        soda_excess_g=soda - neutralised,
        acid_excess_g=acid - neutralised,
        yeast_g=yeast,
        sugar_for_yeast_g=sugar,
        rise=rise_of(sheet),
        strain=void_strain(sheet.value("binder_load"), gas.value / 100, standing_share(sheet), heat_set_least),
    )


def gas_ratio(batch: Batch, warm_c: float = 30.0, yeast_min: float | None = None) -> Ratio:
    """Gas over dough as a ratio over the lines, at the present balance of soda and acid.

    Args:
        batch: the n weighed lines.
        warm_c: of the dough after mixing: heat kills yeast.
        yeast_min: minutes at 30 °C for which the yeast works; None takes the usual.

    Returns:
        The ratio.
    """
    soda = float(batch.grams @ batch.behaviour("soda")[0])
    acid = float(batch.grams @ batch.behaviour("neutralising")[0]) / 100
    powder, powder_sd = batch.behaviour("co2")
    share = min(soda, acid) / soda if soda else 0.0
    co2 = (
        powder + co2_per_gram_soda() * share * batch.behaviour("soda")[0] + alive(warm_c) * _yeast(batch, yeast_min)[2]
    )
    ml = gas_ml_per_gram_co2(constant("gas_temperature"))
    return Ratio(top=(co2 * ml, powder_sd * ml), bottom=dough_volume_per_gram(batch), unit="mL / 100 mL", scale=100.0)


def _yeast(batch: Batch, minutes: float | None = None) -> tuple[float, float, Floats]:
    """Yeast and fermentable sugar in g, and CO₂ per g of each line: by time or by sugar, the lesser."""
    rate = batch.behaviour("yeast_rate")[0]
    grams = float(batch.grams @ (rate > 0))
    if not grams:
        return 0.0, 0.0, np.zeros(len(batch.grams))
    # What no row tells apart: a plant's own sugars are mostly such as yeast eats; milk's is not.
    plant = np.array([float(not is_in_group(w.ingredient, "animal-food")) for w in batch.lines]) * batch.inside
    sugar_g = constant("own_sugar_fermented") * batch.nutrient("sugars_g")[0] * plant
    sugar = float(batch.grams @ np.maximum(batch.behaviour("fermentable")[0], sugar_g))
    worked = constant("proof_minutes") if minutes is None else minutes
    by_time = float(batch.grams @ rate) / 1000 * constant("co2_molar_mass") * worked / 60
    by_sugar = sugar * constant("sucrose_to_co2")
    # A dough without gluten about doubles in its proof: what is made beyond that escapes.
    whole_ml = float(batch.grams @ dough_volume_per_gram(batch)[0])
    held = constant("proof_held") / 100 * whole_ml / gas_ml_per_gram_co2(constant("proof_gas_at_c"))
    co2 = min(by_time, by_sugar)
    result = co2 / (1 + (co2 / held) ** 4) ** 0.25 if held else 0.0
    return grams, sugar, rate * (result / float(batch.grams @ rate))
