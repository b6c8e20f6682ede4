"""What a kitchen's own runs say of a formula's hands and palate: its lessons as the forecasts take them."""

from __future__ import annotations

from functools import lru_cache

from substrata.base.messages.message import Capitalized, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.settings import Lesson
from substrata.base.tables.table_reader import constant
from substrata.formula.formula import Formula
from substrata.process.rheology.handling.handling_forecast import THE_HOUSES as HOUSE_HANDS
from substrata.process.rheology.handling.handling_forecast import Hands
from substrata.process.rheology.texture_palate import THE_HOUSES as HOUSE_PALATE
from substrata.process.rheology.texture_palate import Palate


def formula_key(formula: Formula) -> str:
    """Return the key by which the bakes and lessons of a formula are known: its stable id, else its name."""
    return f"{formula.form}:{formula.uid or formula.name}"


def hand_bias(lessons: tuple[Lesson, ...], formula: Formula) -> Hands:
    """By how much this kitchen finds a formula's dough stiffer, and what that comes from."""
    return _hands(lessons, formula.form, formula_key(formula)) if lessons else HOUSE_HANDS


def palate_bias(lessons: tuple[Lesson, ...], formula: Formula) -> Palate:
    """How this kitchen scores a formula, and what that comes from."""
    return _palate(lessons, formula_key(formula)) if lessons else HOUSE_PALATE


@lru_cache(maxsize=256)
def _hands(lessons: tuple[Lesson, ...], form: str, key: str) -> Hands:
    parts = (f"formula {key}", f"form {form}", "kitchen")  # the nearest first
    mine = {lesson.part: lesson for lesson in lessons if lesson.block == "hands" and lesson.part in parts}
    stiffer = sum(lesson.value for lesson in mine.values())
    remaining = next((mine[part].left for part in parts if part in mine), 1.0)
    if abs(stiffer) < constant("least_lesson"):
        return Hands(stiffer=stiffer, remaining=remaining)
    word = "stiffer" if stiffer > 0 else "softer"
    by_formula, whole = mine.get(f"formula {key}"), mine.get("kitchen")
    return Hands(
        stiffer=stiffer,
        remaining=remaining,
        text=Message(
            "learned-biases-than-the-built-in-model",
            stiffer=Quantity(abs(stiffer), "number", digits=1),
            word=word,
            source=_source(by_formula, whole),
        ),
    )


@lru_cache(maxsize=256)
def _palate(lessons: tuple[Lesson, ...], key: str) -> Palate:
    formula_key = f"formula {key}"
    offsets: dict[str, float] = {}
    weights: dict[tuple[str, str], float] = {}
    remaining: dict[str, float] = {}
    texts: dict[str, Wording] = {}
    scores = dict.fromkeys(lesson.block.removeprefix("palate:") for lesson in lessons if lesson.block != "hands")
    for score in scores:
        parts = {lesson.part: lesson for lesson in lessons if lesson.block == f"palate:{score}"}
        offsets[score] = sum(parts[part].value for part in ("scale", formula_key) if part in parts)
        weights |= {
            (score, part.removeprefix("weight ")): lesson.value
            for part, lesson in parts.items()
            if part.startswith("weight ")
        }
        remaining[score] = next((parts[part].left for part in (formula_key, "scale") if part in parts), 1.0)
        texts[score] = Capitalized(_source(parts.get(formula_key), parts.get("scale")))
    return Palate(offsets=offsets, weights=weights, remaining=remaining, texts=texts)


def _source(lesson: Lesson | None, whole: Lesson | None) -> Wording:
    if lesson and lesson.runs:
        return Message("learned-biases-from-of-your-own-bakes", runs=lesson.runs)
    runs = whole.runs if whole else 0
    return Message("learned-biases-from-bake-of-other-doughs", runs=runs)
