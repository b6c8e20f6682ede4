"""Which slip would explain a label that does not fit: try each, keep the one that mends the most.

The slips are those that bakers and importers make (common practice).
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from math import floor, log10

from substrata.base.tables.table_reader import constant
from substrata.base.units import unit
from substrata.ingredients.ingredient import Ingredient
from substrata.ingredients.labels.label_sums import KJ_PER_KCAL, distances, energy_closes, impossibilities, misfit
from substrata.ingredients.library import Library
from substrata.ingredients.printed_label import Label

FAR_SDS = 3.0  # a figure further than this from its ingredient is looked at


@dataclass(frozen=True, kw_only=True)
class Mistake:
    """A slip that would explain a label."""

    code: str
    text: str
    label: Label | None = None  # the label put right, to be offered as one press
    ingredient: str = ""  # or the ingredient it seems to be


@dataclass(frozen=True, kw_only=True)
class _Slip:
    code: str
    text: str
    mend: Callable[[Label, Ingredient], Label | None]


def likely_mistake(label: Label, ingredient: Ingredient, library: Library) -> Mistake | None:
    """Return the slip that explains a misfit best; None when the label fits or no slip explains it."""
    now = misfit(label, ingredient)
    far = max(distances(label, ingredient).values(), default=0.0) > FAR_SDS
    if not far and energy_closes(label, ingredient) and not any(impossibilities(label)):
        return None
    result = sorted(_tried(label, ingredient, library), key=lambda pair: pair[0])
    return result[0][1] if result and result[0][0] <= constant("slip_leaves_most") * now else None


def _tried(label: Label, ingredient: Ingredient, library: Library) -> Iterator[tuple[float, Mistake]]:
    for slip in _SLIPS:
        mended = slip.mend(label, ingredient)
        if mended is not None:
            text = slip.text.format(grams=f"{mended.per_g:.0f}", typed=f"{label.per_g:g}")
            yield misfit(mended, ingredient), Mistake(code=slip.code, text=text, label=mended)
    for other in library:
        if other.id != ingredient.id and other.pack is None and _akin(other, ingredient):
            text = f"The values match {other.name[0].lower()}{other.name[1:]}. Check which product this is."
            yield (
                misfit(label, other) + constant("slip_likelier"),
                Mistake(code="another-kind", text=text, ingredient=other.id),
            )


def _akin(other: Ingredient, ingredient: Ingredient) -> bool:
    """Foods that a pack could be mistaken for: the same source, or the same role when it has no marked source."""
    return bool(other.flags & ingredient.flags) if ingredient.flags else other.role == ingredient.role


def _other_style(label: Label, _: Ingredient) -> Label | None:
    return replace(label, style="eu" if label.style == "us" else "us") if "fibre_g" in label.intervals else None


def _per_100(label: Label, _: Ingredient) -> Label | None:
    return replace(label, per_g=100.0, per_digit_g=0.0) if label.per_g != 100 else None


def _per_serving(label: Label, ingredient: Ingredient) -> Label | None:
    """Return the serving whose macros would weigh what the ingredient's do."""
    if label.per_g != 100:
        return None
    keys = [k for k in ("protein_g", "fat_g", "carbohydrate_g") if label.number(k) is not None]
    have, want = sum(label.number(k) or 0 for k in keys), sum(ingredient.composition[k] for k in keys)
    grams = round(100 * have / want) if want else 0
    return replace(label, per_g=float(grams), per_digit_g=1.0) if 3 <= grams <= 70 else None


def _times(factor: float) -> Callable[[Label, Ingredient], Label | None]:
    return lambda label, _: replace(label, per_g=label.per_g * factor) if 1 <= label.per_g * factor <= 1000 else None


def _refigured(label: Label, change: Mapping[str, str | None]) -> Label:
    figures = {key: text for key, text in {**label.figures, **change}.items() if text is not None}
    return replace(label, figures=figures)


def _swapped(first: str, second: str) -> Callable[[Label, Ingredient], Label | None]:
    def mend(label: Label, _: Ingredient) -> Label | None:
        a, b = label.figures.get(first), label.figures.get(second)
        return _refigured(label, {first: b, second: a}) if a and b and a != b else None

    return mend


def _rescaled(key: str, factor: float) -> Callable[[Label, Ingredient], Label | None]:
    def mend(label: Label, _: Ingredient) -> Label | None:
        number = label.number(key)
        if not number:
            return None
        scaled = number * factor
        return _refigured(label, {key: _as_printed(scaled)}) if scaled >= _LEAST_PRINTED else None

    return mend


def _as_printed(value: float) -> str:
    """Three figures as a label prints them: never as a power of ten, which nobody could read in again.

    >>> _as_printed(1234.5), _as_printed(12.345), _as_printed(0.0123)
    ('1234', '12.3', '0.0123')

    Returns:
        The text.
    """
    decimals = max(2 - floor(log10(value)), 0)
    return f"{value:.{decimals}f}"


_LEAST_PRINTED = 0.001  # no label prints less than that of anything
_SALT = constant("salt_per_sodium")
_SLIPS = (
    _Slip(code="eu-read-as-us", text="This looks like a European label entered as a US label: its carbohydrate excludes fiber.", mend=lambda l, i: _other_style(l, i) if l.style == "us" else None),
    _Slip(code="us-read-as-eu", text="This looks like a US label entered as a European label: its carbohydrate includes fiber.", mend=lambda l, i: _other_style(l, i) if l.style == "eu" else None),
    _Slip(code="figures-per-100", text="The serving says {typed} g, but the figures are per 100 g.", mend=_per_100),
    _Slip(code="figures-per-serving", text="The figures are those of a serving of about {grams} g, not of 100 g.", mend=_per_serving),
    _Slip(code="ounces-as-grams", text="The serving size looks like ounces. In grams: {grams} g.", mend=_times(unit("oz").size)),
    _Slip(code="serving-ten-times", text="The serving looks ten times too large: {grams} g would fit.", mend=_times(0.1)),
    _Slip(code="serving-a-tenth", text="The serving looks ten times too small: {grams} g would fit.", mend=_times(10)),
    _Slip(code="kj-as-kcal", text="The energy looks like kilojoules typed as kcal.", mend=_rescaled("energy_kcal", 1 / KJ_PER_KCAL)),
    _Slip(code="salt-as-sodium", text="The sodium looks like the salt figure in grams.", mend=_rescaled("sodium_mg", 1000 / _SALT)),
    _Slip(code="salt-mg-as-sodium", text="The sodium looks like salt in milligrams.", mend=_rescaled("sodium_mg", 1 / _SALT)),
    _Slip(code="sodium-g-as-mg", text="The sodium looks typed in grams.", mend=_rescaled("sodium_mg", 1000)),
    _Slip(code="sodium-as-salt", text="The salt looks like the sodium figure.", mend=_rescaled("salt_g", _SALT)),
    _Slip(code="sodium-mg-as-salt", text="The salt looks like the sodium figure in milligrams.", mend=_rescaled("salt_g", 1 / 1000 * _SALT)),
    _Slip(code="fibre-sugars-swapped", text="Fiber and sugars look swapped.", mend=_swapped("fibre_g", "sugars_g")),
    _Slip(code="fat-carbohydrate-swapped", text="Fat and carbohydrate look swapped.", mend=_swapped("fat_g", "carbohydrate_g")),
    _Slip(code="protein-carbohydrate-swapped", text="Protein and carbohydrate look swapped.", mend=_swapped("protein_g", "carbohydrate_g")),
    _Slip(code="fat-protein-swapped", text="Fat and protein look swapped.", mend=_swapped("fat_g", "protein_g")),
    _Slip(code="fat-saturates-swapped", text="Fat and saturates look swapped.", mend=_swapped("fat_g", "saturates_g")),
)  # fmt: skip
