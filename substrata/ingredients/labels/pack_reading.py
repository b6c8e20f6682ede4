"""What a pack's label means per 100 g, merged with the ingredient where the label is silent.

Each rounded figure is an interval. Within it the reference ingredient is the best guess (a normal
distribution cut to the interval); the further the reference lies outside, the less it pulls.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import lru_cache
from math import erf, exp, hypot, pi, sqrt
from types import MappingProxyType
from typing import Literal

from substrata.base.amounts import parse_amount
from substrata.base.errors import AmountError
from substrata.base.tables.table_reader import constant
from substrata.base.uncertainty import SDS_IN_HALF_90, Spread
from substrata.base.units import unit
from substrata.ingredients.composition import NUTRIENTS, Composition
from substrata.ingredients.ingredient import Ingredient, Measure, Parameter
from substrata.ingredients.labels.label_rounding import Interval
from substrata.ingredients.labels.statement_facts import statement_facts
from substrata.ingredients.pack import Lot
from substrata.ingredients.printed_label import Label, nutrient_intervals

Origin = Literal["label", "reference", "closing"]

# A part follows its whole when the label names only the whole.
_PARTS_OF = {
    "saturates_g": "fat_g",
    "trans_g": "fat_g",
    "fibre_g": "carbohydrate_g",
    "sugars_g": "carbohydrate_g",
    "added_sugars_g": "carbohydrate_g",
    "erythritol_g": "carbohydrate_g",
    "allulose_g": "carbohydrate_g",
    "polyols_g": "carbohydrate_g",
}
_SOLIDS = ("protein_g", "fat_g", "carbohydrate_g", "ash_g", "alcohol_g", "acid_g")


@dataclass(frozen=True, kw_only=True)
class PackFigure:
    """One nutrient of a pack per 100 g."""

    nutrient: str
    value: float
    sd: float
    origin: Origin
    bounds: Interval | None  # what the rounded figure can stand for; None when the label is silent
    reference: Spread  # of the ingredient
    spread: Spread  # the value with its 90 % range


def cut_normal(mean: float, sd: float, interval: Interval) -> tuple[float, float]:
    """Mean and standard deviation of a normal distribution cut to an interval.

    >>> [round(x, 3) for x in cut_normal(0.0, 1e6, Interval(low=1.0, high=3.0))]  # flat: the middle, width / √12
    [2.0, 0.577]

    Returns:
        Mean and standard deviation.
    """
    low, high = interval.low, interval.high
    if sd <= 0 or high - low < 1e-12:
        return min(max(mean, low), high), 0.0
    a, b = (low - mean) / sd, (high - mean) / sd
    mass = (erf(b / sqrt(2)) - erf(a / sqrt(2))) / 2
    if mass < 1e-9 or b - a < 1e-3:
        return interval.middle, (high - low) / sqrt(12)
    density_a, density_b = (exp(-z * z / 2) / sqrt(2 * pi) for z in (a, b))
    shift = (density_a - density_b) / mass
    variance = 1 + (a * density_a - b * density_b) / mass - shift * shift
    return mean + sd * shift, sd * sqrt(max(variance, 0.0))


def estimate(reference: Spread, interval: Interval) -> tuple[float, float]:
    """Value and standard deviation of a figure that is known to lie in an interval.

    A reference that lies outside is widened to its distance, so it pulls the less the further off it is.

    Returns:
        Value and standard deviation.
    """
    outside = max(interval.low - reference.value, reference.value - interval.high, 0.0)
    value, sd = cut_normal(reference.value, max(reference.sd, outside), interval)
    # A pack keeps to its label only so well.
    return value, hypot(sd, constant("label_error") * value / SDS_IN_HALF_90)


def read_pack(label: Label, ingredient: Ingredient) -> tuple[PackFigure, ...]:
    """Every nutrient of a pack per 100 g, in the order of ``NUTRIENTS``.

    Args:
        label: as printed.
        ingredient: the reference that answers what the label leaves open.

    Returns:
        The figures in the order of ``NUTRIENTS``.

    Raises:
        LabelError: when a figure cannot be read.
    """
    reference = _references(ingredient.composition)
    intervals = _split_polyols(nutrient_intervals(label, reference["fibre_g"].value), reference)
    table: dict[str, PackFigure] = {}
    for nutrient in sorted(NUTRIENTS, key=lambda n: n in _PARTS_OF):  # wholes before their parts
        interval = intervals.get(nutrient)
        if interval is not None:
            value, sd = estimate(reference[nutrient], interval)
            table[nutrient] = _figure(nutrient, value, sd, "label", reference, interval)
        else:
            factor = _follow(nutrient, table, reference)
            was = reference[nutrient]
            table[nutrient] = _figure(nutrient, was.value * factor, was.sd * factor, "reference", reference)
    table["water_g"] = _closing_water(table, reference)
    return tuple(table[n] for n in NUTRIENTS)


def reference_figures(ingredient: Ingredient) -> tuple[PackFigure, ...]:
    """Every nutrient of a reference ingredient per 100 g, in the order of ``NUTRIENTS``."""
    reference = _references(ingredient.composition)
    return tuple(_figure(n, was.value, was.sd, "reference", reference) for n, was in reference.items())


@lru_cache(maxsize=512)
def _references(composition: Composition) -> Mapping[str, Spread]:
    """Each nutrient of a reference; a file of products asks for the same one again and again."""
    rows = zip(NUTRIENTS, composition.values, composition.sds, strict=True)
    return MappingProxyType({n: Spread.around(value, SDS_IN_HALF_90 * sd) for n, value, sd in rows})


def _figure(
    nutrient: str,
    value: float,
    sd: float,
    origin: Origin,
    reference: Mapping[str, Spread],
    bounds: Interval | None = None,
) -> PackFigure:
    return PackFigure(
        nutrient=nutrient,
        value=value,
        sd=sd,
        origin=origin,
        bounds=bounds,
        reference=reference[nutrient],
        spread=Spread.around(value, SDS_IN_HALF_90 * sd),
    )


def _follow(nutrient: str, figures: Mapping[str, PackFigure], reference: Mapping[str, Spread]) -> float:
    """By what factor a part follows its whole."""
    whole = _PARTS_OF.get(nutrient)
    if whole is None or figures[whole].origin != "label":
        return 1.0
    return figures[whole].value / reference[whole].value if reference[whole].value > 0 else 1.0


def _split_polyols(intervals: dict[str, Interval], reference: Mapping[str, Spread]) -> dict[str, Interval]:
    """Split a label's polyols hold its erythritol; a composition keeps the two apart."""
    whole = intervals.get("polyols_g")
    if whole is None:
        return intervals
    named = intervals.get("erythritol_g")
    if named is None:
        erythritol, others = reference["erythritol_g"].value, reference["polyols_g"].value
        # Unknown polyols are taken for the kind that counts half: never less carbohydrate than there may be.
        share = erythritol / (erythritol + others) if erythritol + others > 0 else 0.0
        named = Interval(low=whole.low * share, high=whole.high * share)
        rest = Interval(low=whole.low - named.low, high=whole.high - named.high)
    else:
        rest = Interval(low=max(whole.low - named.high, 0.0), high=max(whole.high - named.low, 0.0))
    return intervals | {"erythritol_g": named, "polyols_g": rest}


def _closing_water(figures: Mapping[str, PackFigure], reference: Mapping[str, Spread]) -> PackFigure:
    """Water is what the solids leave of 100 g; when the label names no solid, the reference's water stands."""
    if not any(figures[s].origin == "label" for s in _SOLIDS):
        return figures["water_g"]
    remainder = max(100 - sum(figures[s].value for s in _SOLIDS), 0.0)
    sd = min(hypot(*(figures[s].sd for s in _SOLIDS)), max(reference["water_g"].sd, 1.0) * 2)
    return _figure("water_g", remainder, sd, "closing", reference)


def composition_of(label: Label, ingredient: Ingredient) -> Composition:
    """Return a pack's composition per 100 g.

    Raises:
        LabelError: when a figure cannot be read.
    """
    figures = read_pack(label, ingredient)
    return Composition(values=tuple(f.value for f in figures), sds=tuple(f.sd for f in figures))


def ingredient_of_lot(lot: Lot, reference: Ingredient) -> Ingredient:
    """Return the ingredient that a pack is: its own numbers where it has them, the reference's elsewhere.

    Raises:
        LabelError: when a figure of its label cannot be read.
    """
    composition = composition_of(lot.label, reference) if lot.label else reference.composition
    behaviour = dict(reference.behaviour)
    if lot.capacity is not None:
        spread = Spread.around(lot.capacity, lot.capacity * constant("own_capacity_error"))
        behaviour["capacity"] = Parameter(spread=spread, unit="g/g", source="measured by the kitchen")
    return replace(
        reference,
        flags=reference.flags | contained(lot),
        composition=composition,
        behaviour=behaviour,
        measures=measures_of_lot(lot, reference),
        source=f"pack label ({lot.name})" if lot.label else reference.source,
        note=lot.notes,
        pack=replace(lot, may_contain=lot.may_contain | statement_facts(lot.statement).may_contain),
    )


def measures_of_lot(lot: Lot, reference: Ingredient) -> dict[str, Measure]:
    """Return what a spoon, a cup or a piece of a pack weighs: by the kitchen's own scale, else by its label, else as of its kind."""
    return dict(reference.measures) | _serving_measure(lot.label) | _pack_measures(lot)


def contained(lot: Lot) -> frozenset[str]:
    """Return the flags that a pack adds to its ingredient's: those ticked and those its ingredient list names."""
    return lot.contains | statement_facts(lot.statement).contains


def _pack_measures(lot: Lot) -> dict[str, Measure]:
    error = constant("own_measure_error")
    return {
        key: Measure(grams=Spread.around(grams, grams * error), source="weighed by the kitchen")
        for key, grams in lot.measures.items()
    }


def _serving_measure(label: Label | None) -> dict[str, Measure]:
    """Return the household measure of the serving, as grams of one; nothing when it cannot be read."""
    if label is None or not label.serving_measure.strip():
        return {}
    try:
        (term,) = parse_amount(label.serving_measure).terms
    except (AmountError, ValueError):
        return {}
    if not term.unit or not term.number or unit(term.unit).kind != "volume":
        return {}
    grams = label.per_g / term.number
    half = hypot(grams * constant("serving_measure_error"), label.per_digit_g / 2 / term.number)
    return {term.unit: Measure(grams=Spread.around(grams, half), source="serving on the pack")}
