"""Grams as a kitchen measures them: spoons, cups and whole eggs, and when a measure is not good enough."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.amounts import parse_amount
from substrata.base.errors import AmountError
from substrata.base.settings import Settings
from substrata.base.tables.table_reader import constant
from substrata.formula.batch.batch_lines import WeighedLine
from substrata.ingredients.amount_to_grams import weigh
from substrata.ingredients.egg_sizes import EGG_PARTS

_PARTS = {"": 0.0, "⅛": 1 / 8, "¼": 1 / 4, "⅓": 1 / 3, "½": 1 / 2, "⅔": 2 / 3, "¾": 3 / 4}
# Of which unit which parts are measured, from how much on and up to how much (common practice).
_UNITS = (
    ("cup", ("", "¼", "⅓", "½", "⅔", "¾"), 0.25, 12.0),
    ("tbsp", ("", "½"), 1.0, 4.0),
    ("tsp", ("", "⅛", "¼", "½", "¾"), 0.125, 3.0),
)
_SQUEEZED = "vegetable"  # a cup says nothing of what is pressed out


@dataclass(frozen=True, kw_only=True)
class KitchenMeasure:
    """A weight as a kitchen measures it."""

    text: str  # "1½ cups", "3 eggs", "about 2 tsp"; "" where no measure tells it
    half_g: float  # how far off it may be, nine times in ten
    filled: str = ""  # what a cup or a spoon is filled to, as it can be typed: "2 tsp"; "" where neither tells it


def kitchen_measure(line: WeighedLine, grams: float, settings: Settings) -> KitchenMeasure:
    """Return the measure nearest to a weight.

    Args:
        line: what is measured.
        grams: how much.
        settings: whose spoons and eggs.
    """
    nothing = KitchenMeasure(text="", half_g=0.0)
    if grams <= 0:
        return nothing
    if line.ingredient.id.partition("@")[0] in EGG_PARTS or line.line.ingredient in EGG_PARTS:
        return _eggs(line, grams, settings) or nothing
    if line.role == _SQUEEZED:
        return nothing
    for name, parts, least, most in _UNITS:
        spoons = _spooned(line, grams, settings, name, parts, least, most)
        if spoons is not None:
            return spoons
    return nothing


def _eggs(line: WeighedLine, grams: float, settings: Settings) -> KitchenMeasure | None:
    try:
        each = weigh(parse_amount("1"), line.ingredient, settings)
    except AmountError:
        return None
    number = grams / each.value
    if round(number) < 1 or abs(number - round(number)) > constant("egg_near") * max(number, 1):
        return None
    whole = round(number)
    word = {"egg": "egg", "egg-white": "white", "egg-yolk": "yolk"}.get(
        EGG_PARTS.get(line.line.ingredient, "egg"), "egg"
    )
    about = "" if abs(number - whole) < 0.03 * number else "about "
    return KitchenMeasure(
        text=f"{about}{whole} {settings.egg_size} {word}{'s' if whole > 1 else ''}",
        half_g=(each.high - each.low) / 2 * whole,
    )


def _spooned(
    line: WeighedLine, grams: float, settings: Settings, name: str, parts: tuple[str, ...], least: float, most: float
) -> KitchenMeasure | None:
    try:
        each = weigh(parse_amount(f"1 {name}"), line.ingredient, settings)
    except AmountError:
        return None
    number = grams / each.value
    if not least * (1 - constant("measure_near")) <= number <= most:
        return None
    whole = int(number)
    near = min(
        ((w, p) for w in (whole, whole + 1) for p in parts),
        key=lambda candidate: abs(candidate[0] + _PARTS[candidate[1]] - number),
    )
    volume = near[0] + _PARTS[near[1]]
    if volume <= 0 or abs(volume - number) > 3 * constant("measure_near") * number:
        return None
    about = "about " if abs(volume - number) > constant("measure_near") * number else ""
    words = f"{near[0] or ''}{near[1]}"
    plural = "s" if name == "cup" and volume > 1 else ""
    half = (each.high - each.low) / 2 * volume
    filled = f"{words} {name}{plural}"
    return KitchenMeasure(text=about + filled, filled=filled, half_g=half + abs(volume - number) * each.value)
