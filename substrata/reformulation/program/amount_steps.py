"""By how much a kitchen changes a line at a time, what a change of it costs, and what may be brought in."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from substrata.base.settings import Settings
from substrata.base.tables.table_reader import read_table
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.form_table import form_of
from substrata.ingredients.egg_sizes import EGG_PARTS, egg_grams
from substrata.ingredients.ingredient import Ingredient
from substrata.ingredients.library import Library

# A class that somebody may not eat: what the formula does not hold already is never brought in unasked.
_CLASSES = ("nut", "egg", "milk", "soy", "lupin", "sesame", "peanut", "grain", "fish", "celery", "mustard", "meat", "animal")  # fmt: skip
NEW = 8.0  # what a new ingredient costs, in grams of flour (house choice)
TOUCHED = 0.5  # what each changed line costs besides
_GRAM_STEP = 1.0


@dataclass(frozen=True, kw_only=True)
class Step:
    """How a line is changed."""

    grams: float
    weight: float  # cost of a gram, a gram of flour being 1


@dataclass(frozen=True, kw_only=True)
class Candidate:
    """An ingredient that may be brought in."""

    ingredient: str
    most_percent: float  # of the dough
    liking: float  # times the cost of a gram: how strongly it tastes
    never_forms: frozenset[str]
    stands_for: str  # role


@cache
def _steps() -> dict[str, Step]:
    return {
        row.text("matches"): Step(grams=row.number_in("step_g", 0), weight=row.number_in("weight", 0))
        for row in read_table("settle_steps.csv")
    }


def step_of(ingredient: Ingredient, role: str, settings: Settings, *, in_grams: bool = False) -> Step:
    """Return the step of a line.

    Args:
        ingredient: what it holds.
        role: what it does.
        settings: the size of the kitchen's eggs.
        in_grams: whether the kitchen weighs to the gram.
    """
    step = _steps().get(ingredient.id) or _steps().get(f"role:{role}") or Step(grams=5.0, weight=1.0)
    if ingredient.id in EGG_PARTS:
        grams = egg_grams(EGG_PARTS[ingredient.id], settings.egg_size, settings.egg_scheme).value
        return Step(grams=round(grams, 1), weight=step.weight)
    return Step(grams=min(step.grams, _GRAM_STEP), weight=step.weight) if in_grams else step


@cache
def candidates() -> tuple[Candidate, ...]:
    """Return what a settle may bring in, in the order in which a baker reaches for it."""
    return tuple(
        Candidate(
            ingredient=row.text("ingredient"),
            most_percent=row.number_in("most_percent", 0, 100),
            liking=row.number_in("liking", 0),
            never_forms=frozenset(row.text("never_forms").split()),
            stands_for=row.text("stands_for"),
        )
        for row in read_table("settle_candidates.csv")
    )


def classes_of(ingredient: Ingredient) -> frozenset[str]:
    """Return the classes that somebody may not eat, of an ingredient."""
    return frozenset(flag.partition(":")[0] for flag in ingredient.flags) & frozenset(_CLASSES)


def may_be_brought(batch: Batch, form: str, library: Library, *, sweet: bool) -> tuple[Candidate, ...]:
    """Return the candidates that a dough does not hold and that bring nothing in that somebody may not eat.

    Args:
        batch: the dough.
        form: what is baked.
        library: the ingredients.
        sweet: whether it is sweet: then nothing that tastes of savoury baking.
    """
    here = {w.ingredient.id for w in batch.lines}
    held: frozenset[str] = frozenset().union(*(classes_of(w.ingredient) for w in batch.lines))
    lifted = any(w.role == "lift" for w in batch.lines) or form_of(form).gas.low is not None
    fatty = any(w.role == "fat" for w in batch.lines)
    soda = any(w.ingredient.parameter("soda").value for w in batch.lines)

    def may(candidate: Candidate) -> bool:
        if candidate.ingredient in here or form in candidate.never_forms:
            return False
        if candidate.stands_for == "lift" and not lifted:
            return False
        if candidate.stands_for == "acid" and not soda:
            return False
        if candidate.stands_for == "fat" and not fatty:
            return False
        if sweet and candidate.stands_for == "cheese":
            return False
        return classes_of(library[candidate.ingredient]) <= held

    return tuple(candidate for candidate in candidates() if may(candidate))
