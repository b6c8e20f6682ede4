"""Numbers with their units, written as a reader's kitchen measures."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fluent.runtime.types import FluentType

from substrata.base.messages.reader import current_reader

# g: what a scale weighs; oven: a setting, in the steps of a dial; nutrient: grams of a label, which stay grams everywhere;
# share: a fraction, written in per cent;
# K: a difference of temperatures; min: minutes; number: a bare figure.
Unit = Literal["g", "nutrient", "%", "share", "C", "oven", "K", "mm", "cm", "cm2", "m", "ml", "min", "number"]

_GRAMS_PER_OUNCE = 28.349523125  # international avoirdupois ounce, NIST Handbook 44, appendix C
_MM_PER_INCH = 25.4  # NIST Handbook 44, appendix C
_FEET_PER_M = 1 / 0.3048  # NIST Handbook 44, appendix C
_SIGNS = {"g": "g", "nutrient": "g", "%": "%", "share": "%", "C": "°C", "oven": "°C", "K": "°C", "mm": "mm", "cm": "cm", "cm2": "cm²", "m": "m",
          "ml": "ml", "min": "min", "number": ""}  # fmt: skip
_US_SIGNS = {"g": "oz", "C": "°F", "oven": "°F", "K": "°F", "mm": "in", "cm": "in", "cm2": "sq in", "m": "ft"}
_DIAL_F = 5  # steps of an oven's dial (common practice)
_TWO_COUNT = -2
_SMALL = 20.0  # below it, grams and millimeters are written in tenths


@dataclass(frozen=True)
class Quantity(FluentType):
    """A value, or a range, with its unit.

    Attributes:
        value: in the unit named; of a range its low end.
        unit: what it is measured in.
        high: the high end of a range; None for a single value.
        digits: decimals in metric units; None for what the unit usually has, -1 for as many as the value has, -2 for two that count.
        bare: without its unit, which stands with a figure beside it.
    """

    value: float
    unit: Unit
    high: float | None = None
    digits: int | None = None
    bare: bool = False

    def format(self, locale: object = None) -> str:  # noqa: ARG002 - Fluent's signature
        """Return the figure, or the range, with its unit, in the current reader's units."""
        us = current_reader().units == "us"
        written = _figure(self.value, self.unit, self.digits, us=us)
        if self.high is not None:
            high = _figure(self.high, self.unit, self.digits, us=us)
            written = written if high == written else f"{written}–{high}"
        if self.bare:
            return written
        sign = _US_SIGNS.get(self.unit, _SIGNS[self.unit]) if us else _SIGNS[self.unit]
        return f"{written} {sign}" if sign else written

    def __str__(self) -> str:
        return self.format()


def _figure(value: float, unit: Unit, digits: int | None, *, us: bool) -> str:
    """Return a value as it is written in its unit, without the unit."""
    if us and unit in _US_SIGNS:
        return _us_figure(value, unit)
    if unit == "share":
        value = 100 * value
    if digits is None:
        digits = 1 if unit in ("g", "nutrient", "mm") and abs(value) < _SMALL else 0
        text = f"{value:.{digits}f}"
        return text.removesuffix(".0")
    return f"{value:.{digits}f}" if digits >= 0 else f"{value:.2g}" if digits == _TWO_COUNT else f"{value:g}"


def _us_figure(value: float, unit: Unit) -> str:
    """Return a metric value in US units: ounces and inches in hundredths while they are small."""
    if unit == "g":
        ounces = value / _GRAMS_PER_OUNCE
        return f"{ounces:.2f}" if ounces < 10 else f"{ounces:.1f}"
    if unit in ("mm", "cm"):
        mm = 10 * value if unit == "cm" else value
        return f"{mm / _MM_PER_INCH:.2f}" if mm < 50 else f"{mm / _MM_PER_INCH:.1f}"
    if unit == "cm2":
        return f"{value * 100 / _MM_PER_INCH**2:.0f}"
    if unit == "m":
        return f"{round(value * _FEET_PER_M / 100) * 100}"
    if unit == "oven":
        return f"{round((value * 9 / 5 + 32) / _DIAL_F) * _DIAL_F}"
    return f"{value * 9 / 5 + (32 if unit == 'C' else 0):.0f}"


def in_grams(grams: float, digits: int | None = None) -> Quantity:
    """Return grams as a scale weighs them.

    >>> str(in_grams(4.26)), str(in_grams(126.4))
    ('4.3 g', '126 g')
    """
    return Quantity(grams, "g", digits=digits)


def in_percent(fraction: float) -> Quantity:
    """Return a fraction in whole per cent.

    >>> str(in_percent(0.418))
    '42 %'
    """
    return Quantity(fraction, "share")


def quantity(value: float | Quantity, unit: Unit = "number", high: float | None = None) -> Quantity:
    """Return the quantity of a message's ``QUANTITY(…)``: a value of the message, or figures that stand in its text."""
    if isinstance(value, Quantity):
        return value
    return Quantity(float(value), str(unit), high=None if high is None else float(high), digits=-1)  # type: ignore[arg-type]
