"""How a label rounds, both ways: an amount to what is printed, and what is printed to all it can stand for.

United States: 21 CFR 101.9(c). European Union: the Commission's guidance on tolerances (December 2012),
table 4. One table serves the panels that are printed and the packs that are read.
"""

from __future__ import annotations

import re
from collections import defaultdict
from dataclasses import dataclass
from functools import cache, lru_cache
from math import floor, inf
from typing import Literal

from substrata.base.errors import LabelError
from substrata.base.tables.table_reader import read_table

LabelStyle = Literal["us", "eu"]
STYLES: tuple[LabelStyle, ...] = ("us", "eu")

_TINY = 1e-9  # so that a half that a binary fraction misses by a hair still rounds up
_NUMBER = re.compile(r"^(<|less than|under|~|about)?\s*(\d+(?:[.,]\d+)?|[.,]\d+)\s*([a-zµμ]*)$", re.IGNORECASE)
_TO_UNIT = {
    ("mg", "g"): 1e-3,
    ("g", "mg"): 1e3,
    ("mg", "ug"): 1e3,
    ("g", "ug"): 1e6,
    ("ug", "mg"): 1e-3,
    ("iu", "ug"): 1 / 40,
}
_UNIT_NAMES = {
    "mcg": "ug",
    "µg": "ug",
    "μg": "ug",
    "cal": "kcal",
    "calories": "kcal",
    "gr": "g",
    "grams": "g",
    "gram": "g",
}


@dataclass(frozen=True, kw_only=True)
class Band:
    """Amounts from ``low`` up to ``high`` print in one way."""

    low: float
    high: float
    inclusive: bool  # the upper bound itself belongs here
    step: float  # amounts print to the nearest multiple of it; 0 when ``prints`` stands for all
    prints: str


@dataclass(frozen=True, kw_only=True)
class Interval:
    """Every amount that a printed figure can stand for."""

    low: float
    high: float

    @property
    def middle(self) -> float:
        """The middle of the interval."""
        return (self.low + self.high) / 2


@cache
def bands(style: LabelStyle, figure: str) -> tuple[Band, ...]:
    """Return the rounding bands of a figure, from zero upwards; empty when the rule leaves it open."""
    return _all_bands()[style, figure]


@cache
def _all_bands() -> dict[tuple[str, str], tuple[Band, ...]]:
    result: dict[tuple[str, str], list[Band]] = defaultdict(list)
    for row in read_table("rounding.csv"):
        for figure in row.text("figures").split():
            rows = result[row.text("style"), figure]
            rows.append(
                Band(
                    low=rows[-1].high if rows else 0.0,
                    high=row.number_in("below", 0) if row.text("below") else inf,
                    inclusive=row.text("inclusive") == "1",
                    step=row.number_in("step", 0) if row.text("step") else 0.0,
                    prints=row.text("prints"),
                )
            )
    return defaultdict(tuple, {key: tuple(rows) for key, rows in result.items()})


def printed(style: LabelStyle, figure: str, amount: float) -> str:
    """Return what a label prints for an amount.

    Args:
        style: ``us`` or ``eu``.
        figure: such as ``fat_g``; its unit ends its name.
        amount: in that unit, 0 or more.

    >>> printed("us", "energy_kcal", 47.4), printed("us", "carbohydrate_g", 0.7), printed("eu", "salt_g", 1.24)
    ('45', '<1', '1.2')
    """
    for band in bands(style, figure):
        if amount < band.high or (band.inclusive and amount == band.high):
            return band.prints or _to_step(amount, band.step)
    return f"{amount:.1f}"


def _to_step(amount: float, step: float) -> str:
    """Return the nearest multiple of a step, halves up, with no more decimals than the step has."""
    decimals = len(f"{step:g}".partition(".")[2])
    text = f"{floor(amount / step + 0.5 + _TINY) * step:.{decimals}f}"
    return text.removesuffix(".0") if step == 0.5 else text  # halves: 3, 3.5


@dataclass(frozen=True, kw_only=True)
class Printed:
    """A figure as it stands on a label."""

    number: float  # in the unit of the figure
    less_than: bool
    last_digit: float  # size of the last digit, in the unit of the figure
    converted: bool  # it was printed in another unit than the rule's


def read_printed(text: str, figure: str) -> Printed:
    """Read a figure as printed: ``0``, ``<1 g``, ``less than 5mg``, ``0,5``.

    Returns:
        The printed value with its unit and sign.

    Raises:
        LabelError: when it is no figure.
    """
    match = _NUMBER.match(text.strip())
    if not match:
        raise LabelError(
            "the figure cannot be read",
            got=text.strip()[:40],
            allowed="a number as printed: 12, 0, <1, 0.5",
            field=figure,
        )
    less, digits, unit = match.groups()
    figure_unit = figure.rpartition("_")[2]
    unit = _UNIT_NAMES.get(unit.lower(), unit.lower()) or figure_unit
    factor = 1.0 if unit == figure_unit else _TO_UNIT.get((unit, figure_unit))
    if factor is None:
        raise LabelError("the unit does not fit", got=unit, allowed=figure_unit, field=figure)
    plain = digits.replace(",", ".")
    return Printed(
        number=float(plain) * factor,
        less_than=less is not None and less.lower() in ("<", "less than", "under"),
        last_digit=10.0 ** -len(plain.partition(".")[2]) * factor,
        converted=unit != figure_unit,
    )


@lru_cache(maxsize=8192)
def stands_for(style: LabelStyle, figure: str, text: str) -> Interval:
    """All amounts that print so.

    A figure printed finer than the rule asks for is taken at its word, to half its last digit.

    Returns:
        The interval of amounts.

    Raises:
        LabelError: when it is no figure.

    >>> stands_for("us", "carbohydrate_g", "0"), stands_for("us", "fat_g", "5")
    (Interval(low=0.0, high=0.5), Interval(low=4.75, high=5.5))
    """
    read = read_printed(text, figure)
    rules = () if read.converted else bands(style, figure)
    if read.less_than:
        return next(
            (Interval(low=b.low, high=b.high) for b in rules if b.prints == f"<{read.number:g}"),
            Interval(low=0.0, high=read.number),
        )
    if read.number == 0 and rules and rules[0].prints:
        return Interval(low=0.0, high=rules[0].high)
    hits = [piece for band in rules if (piece := _within(band, read.number))]
    if hits:
        return Interval(low=min(h.low for h in hits), high=max(h.high for h in hits))
    half = read.last_digit / 2
    return Interval(low=max(read.number - half, 0.0), high=read.number + half)


def _on(number: float, step: float) -> bool:
    return abs(number / step - round(number / step)) < 1e-6


def _within(band: Band, number: float) -> Interval | None:
    """Amounts of one band that round to a number."""
    if not band.step or not _on(number, band.step):
        return None
    low, high = max(number - band.step / 2, band.low), min(number + band.step / 2, band.high)
    return Interval(low=low, high=high) if low <= high else None
