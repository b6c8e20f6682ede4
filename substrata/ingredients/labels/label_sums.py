"""What a label adds up to, and how far it lies from an ingredient."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from math import hypot

from substrata.base.tables.table_reader import constant
from substrata.ingredients.composition import NUTRIENTS
from substrata.ingredients.ingredient import Ingredient
from substrata.ingredients.labels.label_rounding import Interval
from substrata.ingredients.printed_label import Label, nutrient_intervals

COMPARED = ("protein_g", "fat_g", "saturates_g", "carbohydrate_g", "fibre_g", "sugars_g", "sodium_mg")
KJ_PER_KCAL = 4.184  # EU 1169/2011 Annex XIV rounds it so
_WORST = 6.0  # sds; a distance beyond says no more
# kcal per g that a lawful method may count: lowest and highest of the general factors and the specific
# Atwater factors for nuts and eggs (USDA Handbook 74). A United States label may count fibre as carbohydrate.
_PROTEIN, _FAT, _CARBOHYDRATE = (3.47, 4.36), (8.37, 9.02), (3.57, 4.12)
_POLYOLS, _FIBRE_US = (0.0, 3.0), (0.0, 4.0)
# A European label counts by one lawful list (EU 1169/2011 Annex XIV), so that less is forgiven: figures of analyses are rounded.
_EU_PROTEIN, _EU_FAT, _EU_CARBOHYDRATE, _EU_FIBRE = 4.0, 9.0, 4.0, 2.0
KCAL_PER_G = {"fat_g": _EU_FAT, "carbohydrate_g": _EU_CARBOHYDRATE, "protein_g": _EU_PROTEIN, "fibre_g": _EU_FIBRE}


def inclusive_carbohydrate(label: Label, key: str = "carbohydrate_g") -> Interval:
    """Carbohydrate with fibre in it, g per ``per_g``; nothing when the label leaves it out."""
    none = Interval(low=0.0, high=0.0)
    whole, fibre = label.intervals.get(key, none), label.intervals.get("fibre_g", none)
    if label.style == "us":
        return whole
    return Interval(low=whole.low + fibre.low, high=whole.high + fibre.high)


def energy_range(label: Label, ingredient: Ingredient) -> Interval | None:
    """Energy in kcal per ``per_g`` that the label's own macros can give by a lawful method.

    None when fat, carbohydrate or protein is left out. Alcohol, acids, unnamed polyols and allulose are
    taken from the ingredient.

    Returns:
        kcal per ``per_g``; None where a macro is missing.
    """
    got = label.intervals
    if not {"fat_g", "carbohydrate_g", "protein_g"} <= set(got):
        return None
    none = Interval(low=0.0, high=0.0)
    carbohydrate, fibre = inclusive_carbohydrate(label), got.get("fibre_g", none)
    per = label.per_g / 100
    known = ingredient.composition
    unnamed = (known["erythritol_g"] + known["polyols_g"] + known["allulose_g"]) * per
    polyols = got.get("polyols_g", Interval(low=0.0, high=unnamed))
    # Matter that counts little: the more of the carbohydrate it is, the less the energy.
    full_low = max(carbohydrate.low - fibre.high - polyols.high, 0.0)
    full_high = max(carbohydrate.high - fibre.low - polyols.low, 0.0)
    fibre_factor = _FIBRE_US
    other = (7 * known["alcohol_g"] + 3 * known["acid_g"]) * per
    if label.style == "eu":
        return _european(got, fibre, polyols, other)
    low = got["protein_g"].low * _PROTEIN[0] + got["fat_g"].low * _FAT[0] + full_low * _CARBOHYDRATE[0]
    high = (
        got["protein_g"].high * _PROTEIN[1]
        + got["fat_g"].high * _FAT[1]
        + full_high * _CARBOHYDRATE[1]
        + polyols.high * _POLYOLS[1]
        + fibre.high * fibre_factor[1]
        + other
    )
    return Interval(low=low * (1 - constant("label_energy_off")), high=high * (1 + constant("label_energy_off")))


def _european(got: Mapping[str, Interval], fibre: Interval, polyols: Interval, other: float) -> Interval:
    """Return the energy of a European label in kcal per ``per_g``; its carbohydrate has its polyols in it, and no fibre."""
    fat, carbohydrate, protein = (got[key] for key in ("fat_g", "carbohydrate_g", "protein_g"))
    whole = [
        _EU_FAT * fat_g + _EU_PROTEIN * protein_g + _EU_CARBOHYDRATE * carbohydrate_g + _EU_FIBRE * fibre_g
        for fat_g, protein_g, carbohydrate_g, fibre_g in (
            (fat.low, protein.low, carbohydrate.low, fibre.low),
            (fat.high, protein.high, carbohydrate.high, fibre.high),
        )
    ]
    # A polyol is counted with 2.4 kcal where it is no erythritol, which has none: as little as nothing, as much as the rest.
    low = max(whole[0] - _EU_CARBOHYDRATE * polyols.high, 0.0)
    return Interval(
        low=low * (1 - constant("label_energy_off_eu")), high=(whole[1] + other) * (1 + constant("label_energy_off_eu"))
    )


def _slips(value: float) -> Iterator[float]:
    """Yield what a figure may have been meant to be: two digits that changed places, or a point a place off."""
    digits = f"{value:g}"
    for n in range(len(digits) - 1):
        if digits[n].isdigit() and digits[n + 1].isdigit() and digits[n] != digits[n + 1]:
            yield float(digits[:n] + digits[n + 1] + digits[n] + digits[n + 2 :])
    yield value / 10
    yield value * 10


def figure_that_would_close(label: Label, ingredient: Ingredient) -> tuple[str, float] | None:
    """Find the one figure that, printed otherwise, would make the energy add up: its key and what it would have to be, g per ``per_g``.

    Of several the one whose change brings it nearest to the ingredient; None where none does.

    Returns:
        The figure's key and its closing value; None where no single one does.
    """
    lawful, printed = energy_range(label, ingredient), label.number("energy_kcal")
    if lawful is None or printed is None:
        return None
    off = (lawful.low + lawful.high) / 2 - printed
    candidates: list[tuple[float, str, float]] = []
    for key, factor in KCAL_PER_G.items():
        value = label.number(key)
        if value is None:
            continue
        closing = value - off / factor
        reference = ingredient.composition[key] * label.per_g / 100
        slip = next(
            (s for s in _slips(value) if abs(s - closing) <= constant("near_slip") * max(abs(closing - value), 1.0)),
            None,
        )
        if slip is not None:
            return key, slip
        if 0 <= closing <= label.per_g:
            candidates.append((abs(closing - reference) - abs(value - reference), key, closing))
    best = min(candidates, default=None)
    return (best[1], best[2]) if best is not None and best[0] < 0 else None


def parts_g(label: Label) -> float:
    """Least weight that fat, carbohydrate with fibre, protein and salt can have, g per ``per_g``."""
    got = label.intervals
    salt = got["salt_g"].low if "salt_g" in got else 0.0
    if "sodium_mg" in got:
        salt = got["sodium_mg"].low * constant("salt_per_sodium") / 1000
    macros = sum(got[key].low for key in ("fat_g", "protein_g") if key in got)
    return macros + inclusive_carbohydrate(label).low + salt


def distances(label: Label, ingredient: Ingredient) -> dict[str, float]:
    """How many standard deviations each figure lies from the ingredient; 0 when it can be the same."""
    composition = ingredient.composition
    table = {}
    for key, interval in nutrient_intervals(label, composition["fibre_g"]).items():
        if key in COMPARED:
            row = NUTRIENTS.index(key)
            reference = composition.values[row]
            # Between packs no figure is steadier than this (house choice).
            least = max(150.0, 0.3 * reference) if key == "sodium_mg" else max(1.0, 0.08 * reference)
            gap = max(interval.low - reference, reference - interval.high, 0.0)
            table[key] = gap / hypot(composition.sds[row], least)
    return table


def impossibilities(label: Label) -> Iterator[tuple[str, tuple[str, ...]]]:
    """Yield what cannot be, as (code, figures)."""
    got = label.intervals
    if parts_g(label) > label.per_range_g.high:
        yield "parts-over-whole", ("fat_g", "carbohydrate_g", "protein_g")
    for part, whole in (
        ("fibre_g", "carbohydrate_g" if label.style == "us" else ""),
        ("sugars_g", "carbohydrate_g"),
        ("polyols_g", "carbohydrate_g"),
        ("added_sugars_g", "sugars_g"),
        ("saturates_g", "fat_g"),
        ("trans_g", "fat_g"),
    ):
        if part in got and whole in got and got[part].low > got[whole].high:
            yield f"{part.rpartition('_')[0]}-over-whole".replace("_", "-"), (part, whole)


def energy_closes(label: Label, ingredient: Ingredient) -> bool:
    """Whether the printed energy is one that the macros can give; true when there is nothing to compare."""
    printed, lawful = label.intervals.get("energy_kcal"), energy_range(label, ingredient)
    return printed is None or lawful is None or (printed.high >= lawful.low and printed.low <= lawful.high)


def misfit(label: Label, ingredient: Ingredient) -> float:
    """How badly a label fits in itself and beside an ingredient: a sum of squared distances, 0 at best."""
    wrong = sum(1 for _ in impossibilities(label)) + (not energy_closes(label, ingredient))
    return wrong * _WORST**2 + sum(min(z, _WORST) ** 2 for z in distances(label, ingredient).values())
