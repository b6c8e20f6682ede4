"""From an amount to grams of an ingredient, with its 90 % range."""

from __future__ import annotations

from functools import lru_cache
from math import exp, hypot

from substrata.base.amount_scanner import Term
from substrata.base.amounts import Amount
from substrata.base.errors import AmountError
from substrata.base.settings import Lesson, Settings
from substrata.base.tables.table_reader import constant
from substrata.base.uncertainty import Spread
from substrata.base.units import Unit, unit
from substrata.ingredients.egg_sizes import EGG_PARTS, egg_grams
from substrata.ingredients.ingredient import Ingredient

_PARTS_OF_AN_EGG = {"white": "egg-white", "yolk": "egg-yolk"}


def weigh(amount: Amount, ingredient: Ingredient, settings: Settings) -> Spread:
    """Grams of an amount of an ingredient.

    A mass is read from a scale; a volume goes by the ingredient's own bulk density; eggs go by size class.

    Args:
        amount: what was typed.
        ingredient: what it is an amount of.
        settings: the kitchen's spoons and egg sizes.

    Returns:
        Grams; the half-range adds the terms' in quadrature.

    Raises:
        AmountError: when a term cannot be weighed for this ingredient.
    """
    spreads = [_term_grams(term, ingredient, settings) for term in amount.terms]
    half = hypot(*((s.high - s.low) / 2 for s in spreads))
    return Spread.around(sum(s.value for s in spreads), half)


def _term_grams(term: Term, ingredient: Ingredient, settings: Settings) -> Spread:
    result = unit(term.unit or "piece", settings.spoons)
    if result.kind == "mass":
        return Spread.around(term.number * result.size, mass_half(term))
    each = (
        _volume(result, ingredient, settings) if result.kind == "volume" else _count(result, term, ingredient, settings)
    )
    value, half = term.number * each.value, term.number * (each.high - each.low) / 2
    return Spread.around(value, _with_range(term, value, half))


def mass_half(term: Term) -> float:
    """Half-range of a mass, g: what the scale cannot tell, and the range that was typed."""
    result = unit(term.unit)
    fine = term.decimal or result.key == "mg"
    half = constant("fine_scale_resolution" if fine else "scale_resolution")
    return _with_range(term, term.number * result.size, half)


def _with_range(term: Term, value: float, half: float) -> float:
    in_range = value / term.number * (term.high - term.low) / 2 if term.number else 0.0
    return hypot(half, in_range, value * term.extra_percent / 100)


def _volume(volume_unit: Unit, ingredient: Ingredient, settings: Settings) -> Spread:
    """Grams of one unit of volume: by its own weighed measure, else by bulk density; as this kitchen's own runs found it filled."""
    measure = ingredient.measures.get(volume_unit.key)
    if measure is not None:
        each = measure.grams.scaled(volume_unit.size / unit(volume_unit.key).size)
    else:
        density = ingredient.bulk_density
        if density is None:
            raise _cannot(volume_unit.key, ingredient)
        each = density.scaled(volume_unit.size)
    by_hand = each.value * volume_unit.spread_percent / 100
    half = max(by_hand, (each.high - each.low) / 2)
    bias = _measure_biases(settings.lessons).get(ingredient.id.partition("@")[0]) if settings.lessons else None
    if bias is None:
        return Spread.around(each.value, half)
    value = each.value * exp(bias.value)
    return Spread.around(value, half * bias.left)


@lru_cache(maxsize=64)
def _measure_biases(lessons: tuple[Lesson, ...]) -> dict[str, Lesson]:
    """Return what a kitchen's runs have taught of how it fills its measures, by ingredient."""
    return {lesson.part: lesson for lesson in lessons if lesson.block == "measures"}


def _count(unit: Unit, term: Term, ingredient: Ingredient, settings: Settings) -> Spread:
    """Grams of one piece: an egg by size, else a measure of the ingredient."""
    if ingredient.id in EGG_PARTS:
        part = EGG_PARTS[ingredient.id]
        # "2 eggs" on a line of whites means the whites of two eggs; a white on a line of eggs is another thing.
        if unit.key in ("piece", "egg") or _PARTS_OF_AN_EGG.get(unit.key) == ingredient.id:
            return egg_grams(part, term.size or settings.egg_size, settings.egg_scheme)
        raise _cannot(unit.key, ingredient)
    sized = {"head": f"head-{term.size}"} if term.size else {}
    for key in (sized.get(unit.key), unit.key, term.size, "piece", "medium", "head"):
        generic = key in ("piece", "medium", "head") and unit.key not in ("piece", key)
        if key and not generic and key in ingredient.measures:
            return ingredient.measures[key].grams
    raise _cannot(term.size or unit.key, ingredient)


def _cannot(problem: str, ingredient: Ingredient) -> AmountError:
    known = ", ".join(ingredient.measures) or "weights only"
    return AmountError(
        f"no weight is known for a {problem} of {ingredient.name}",
        got=problem,
        allowed=f"grams, ounces, {known}",
        remedy="enter grams",
        field="entered",
    )
