"""A pack's label as printed, and what its rounded figures can mean per 100 g.

A label of the United States counts fibre in its carbohydrate; a European one does not. A pack must say
which it is.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from math import isfinite
from typing import Annotated, Any

from substrata.base.documents.collection_kinds import Named
from substrata.base.documents.field_kinds import Number, Text, Word
from substrata.base.errors import LabelError
from substrata.base.tables.table_reader import Row, constant, read_table
from substrata.ingredients.labels.label_rounding import STYLES, Interval, LabelStyle, read_printed, stands_for


@dataclass(frozen=True, kw_only=True)
class FigureKind:
    """A figure that a label can carry."""

    key: str
    name: str
    unit: str  # as it is written
    places: Mapping[str, int]  # its place on the label of a style, from 1; not there where the style does not print it
    part: bool  # printed as a part of the figure above it


UNITS_WRITTEN = {"kcal": "kcal", "kj": "kJ", "g": "g", "mg": "mg", "ug": "µg"}


def _figure_kind(row: Row) -> FigureKind:
    key = row.text("figure")
    places = {style: int(row.number_in(style, 0)) for style in STYLES}
    return FigureKind(
        key=key,
        name=row.text("name"),
        unit=UNITS_WRITTEN[key.rpartition("_")[2]],
        places={style: place for style, place in places.items() if place},
        part=row.text("part") == "1",
    )


FIGURE_KINDS = {row.text("figure"): _figure_kind(row) for row in read_table("label_figures.csv")}
FIGURES = {key: kind.name for key, kind in FIGURE_KINDS.items()}  # key -> name
MOST_SERVING_G = 5_000.0


@dataclass(frozen=True, kw_only=True)
class Label:
    """The nutrition label of a pack, as printed."""

    style: Annotated[
        LabelStyle, Word(options=STYLES, required=True, note="us: carbohydrate includes fiber; eu: it does not")
    ]
    # Grams that the figures are for: the serving, or 100.
    per_g: Annotated[float, Number(low=0, above=True, high=MOST_SERVING_G, unit="g", optional=False, required=True)]
    # Size of the last digit of those grams; 0 for "per 100 g".
    per_digit_g: Annotated[
        float, Number(low=0, high=100, unit="g", optional=False, note="size of the last digit of per_g")
    ] = 1.0
    serving_measure: Annotated[str, Text(most=60)] = ""  # "2 tbsp": what the serving is said to be
    # Figure -> text as printed.
    figures: Annotated[
        Mapping[str, str],
        Named(item=Text(most=40, note="as printed: 12, 0, <1"), names=tuple(FIGURES), blank=(None, "")),
    ] = field(default_factory=dict)
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document

    def __post_init__(self) -> None:
        """Refuse what no label can say.

        Raises:
            LabelError: naming the field.
        """
        if self.style not in STYLES:
            raise LabelError(
                "label style not found", got=str(self.style)[:20], allowed=", ".join(STYLES), field="style"
            )
        if not isfinite(self.per_g) or not 0 < self.per_g <= MOST_SERVING_G:
            raise LabelError(
                "the serving cannot be weighed",
                got=f"{self.per_g:g} g",
                allowed=f"more than 0, up to {MOST_SERVING_G:g} g",
                remedy="type the grams the figures are for",
                field="per_g",
            )
        strange = set(self.figures) - set(FIGURES)
        if strange:
            raise LabelError("figure not found", got=", ".join(sorted(strange))[:60], allowed=", ".join(FIGURES))

    @cached_property
    def intervals(self) -> dict[str, Interval]:
        """What each figure can stand for, in its unit per ``per_g``; blank figures are left out.

        Raises:
            LabelError: at the first figure that cannot be read.
        """
        return {key: stands_for(self.style, key, text) for key, text in self.figures.items() if text.strip()}

    @property
    def per_range_g(self) -> Interval:
        """Grams that the figures can be for: the serving is rounded too."""
        half = self.per_digit_g / 2
        return Interval(low=max(self.per_g - half, self.per_g / 2), high=self.per_g + half)

    def number(self, key: str) -> float | None:
        """Return a figure as the number printed, in its unit per ``per_g``; None when it is blank."""
        text = self.figures.get(key, "")
        return read_printed(text, key).number if text.strip() else None

    def hides(self, key: str) -> bool:
        """Return True when the printed figure is nothing or "less than" although there may be some."""
        text = self.figures.get(key, "").strip()
        if not text:
            return False
        read = read_printed(text, key)
        return read.less_than or (read.number == 0 and self.intervals[key].high > 0)

    def per_100g(self, key: str) -> Interval | None:
        """Return a figure's interval per 100 g; None when it is blank."""
        result = self.intervals.get(key)
        if result is None:
            return None
        grams = self.per_range_g
        return Interval(low=100 * result.low / grams.high, high=100 * result.high / grams.low)


def nutrient_intervals(label: Label, fibre_if_blank: float) -> dict[str, Interval]:
    """Intervals per 100 g by the names of a composition: carbohydrate includes fibre, salt is sodium.

    Args:
        label: what is printed.
        fibre_if_blank: g per 100 g to add to a European carbohydrate whose label excludes fiber.

    Returns:
        Intervals by nutrient.
    """
    table = {key: interval for key in FIGURES if (interval := label.per_100g(key)) is not None}
    for key in ("energy_kcal", "energy_kj"):
        table.pop(key, None)
    salt = table.pop("salt_g", None)
    if salt is not None and "sodium_mg" not in table:
        table["sodium_mg"] = _scaled(salt, 1000 / constant("salt_per_sodium"))
    if label.style == "eu" and "carbohydrate_g" in table:
        fibre = table.get("fibre_g", Interval(low=fibre_if_blank, high=fibre_if_blank))
        carbohydrate = table["carbohydrate_g"]
        table["carbohydrate_g"] = Interval(low=carbohydrate.low + fibre.low, high=carbohydrate.high + fibre.high)
    return table


def _scaled(interval: Interval, factor: float) -> Interval:
    return Interval(low=interval.low * factor, high=interval.high * factor)
