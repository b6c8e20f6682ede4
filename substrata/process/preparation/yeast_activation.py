"""Waking yeast: how fast it gives gas by temperature, and whether it foams."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant
from substrata.process.rheology.leavening import gas_ml_per_gram_co2
from substrata.process.rheology.yeast_kinetics import relative_rate, yeast_number


@dataclass(frozen=True, kw_only=True)
class RatePoint:
    """How fast the yeast works at one temperature."""

    temperature_c: float
    rate: float  # of the fastest, 0..1


@dataclass(frozen=True, kw_only=True)
class Waking:
    """Yeast in warm water."""

    temperature_c: float
    minutes: float
    rate: float  # of the fastest, 0..1
    gas_ml: float  # at the water's temperature
    foams: bool
    limited_by_sugar: bool
    foam_min: float | None  # when foam is seen; None when it never is
    curve: tuple[RatePoint, ...]  # rate over the degrees
    text: Wording


def waking(yeast_g: float, temperature_c: float, minutes: float, sugar_g: float) -> Waking:
    """Return what the yeast does in some water.

    Args:
        yeast_g: dry yeast.
        temperature_c: of the water.
        minutes: how long it stands.
        sugar_g: given to it.
    """
    rate = relative_rate(temperature_c)
    dead = temperature_c >= yeast_number("dies_c").value
    wakes = yeast_number("wakes_min").value
    # The rate is known at 30 degC; one gram of CO2 at the water's temperature gives so many mL.
    at_30 = yeast_number("rate_30c").value / relative_rate(30.0)
    g_per_min = 0.0 if dead else yeast_g * at_30 * rate * constant("co2_molar_mass") / 1000 / 60
    by_time, by_sugar = g_per_min * max(minutes - wakes, 0.0), sugar_g * constant("sucrose_to_co2")
    ml = gas_ml_per_gram_co2(temperature_c)
    gas, needed = min(by_time, by_sugar) * ml, yeast_number("foam_ml").value * yeast_g
    foams_at = wakes + needed / ml / g_per_min if g_per_min > 0 and by_sugar * ml >= needed else None
    return Waking(
        temperature_c=temperature_c,
        minutes=minutes,
        rate=rate,
        gas_ml=gas,
        foams=gas >= needed > 0,
        limited_by_sugar=by_sugar < by_time,
        foam_min=foams_at,
        curve=tuple(RatePoint(temperature_c=float(t), rate=relative_rate(float(t))) for t in range(0, 62, 2)),
        text=_text(temperature_c, gas >= needed > 0, foams_at, sugar_g),
    )


def _text(temperature_c: float, foams: bool, foams_at: float | None, sugar_g: float) -> Wording:
    if temperature_c >= yeast_number("dies_c").value:
        return Message("yeast-activation-use-water-at-c-c", temperature=Quantity(temperature_c, "C", digits=0))
    if temperature_c >= yeast_number("stops_c").value:
        return Message("yeast-activation-use-cooler-water-c-at", temperature=Quantity(temperature_c, "C", digits=0))
    if sugar_g <= 0:
        return Message("yeast-activation-add-a-teaspoon-of-sugar")
    if foams and foams_at is not None:
        return Message("yeast-activation-expect-foam-after-about-min", foams_at=Quantity(foams_at, "min", digits=0))
    return Message(
        "yeast-activation-no-foam-yet-longer",
        cool="yes" if temperature_c < 30 else "no",
        foams_at=f", about {foams_at:.0f} min" if foams_at else "",
    )
