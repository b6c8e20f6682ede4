"""In which steps a kitchen turns its dial and rolls its dough: by degrees Celsius and millimetres, or by degrees Fahrenheit and inches."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from substrata.base.settings import Units

_INCH_MM, _FOOT_M, _KELVIN = 25.4, 0.3048, 1 / 1.8  # NIST SP 811 appendix B.8


@dataclass(frozen=True, kw_only=True)
class SettingSteps:
    """One step of each kind, and how it is said."""

    dial_k: float  # between temperatures that are offered
    oil_k: float
    on_dial: Callable[[float], float]  # the nearest setting of the dial, °C
    cooler: tuple[float, str]  # K
    fan: tuple[float, str]  # K lower with a fan
    thin: tuple[float, str]  # mm, of what is thin
    thick: tuple[float, str]
    altitude: tuple[float, str]  # m


def _fahrenheit_dial(celsius: float) -> float:
    return (25 * round((1.8 * celsius + 32) / 25) - 32) / 1.8


_STEPS: dict[Units, SettingSteps] = {
    "metric": SettingSteps(
        dial_k=10,
        oil_k=4,
        on_dial=lambda celsius: celsius,
        cooler=(10, "10 °C"),
        fan=(20, "20 °C"),
        thin=(1, "1 mm"),
        thick=(5, "5 mm"),
        altitude=(1500, "1500 m"),
    ),
    "us": SettingSteps(
        dial_k=25 * _KELVIN,
        oil_k=10 * _KELVIN,
        on_dial=_fahrenheit_dial,
        cooler=(25 * _KELVIN, "25 °F"),
        fan=(25 * _KELVIN, "25 °F"),
        thin=(_INCH_MM / 16, "1/16 in"),
        thick=(_INCH_MM / 4, "1/4 in"),
        altitude=(5000 * _FOOT_M, "5000 ft"),
    ),
}


def steps_in(units: Units) -> SettingSteps:
    """Return the steps of a kitchen that measures so."""
    return _STEPS[units]
