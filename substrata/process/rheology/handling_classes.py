"""The words of handling: classes from thin to stiff, and what each form is shaped at."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache, lru_cache
from math import log10

from substrata.base.tables.table_reader import constant, read_table
from substrata.formula.formula import Formula

_STIFFEST = 9.0


@dataclass(frozen=True, kw_only=True)
class ClassBand:
    """A handling class on the axis of consistency."""

    class_name: str
    low: float
    high: float


@dataclass(frozen=True, kw_only=True)
class FormHandling:
    """At what class a form is shaped, and how."""

    lowest: str
    highest: str
    cold_highest: (
        str  # of a dough that was chilled on purpose: cut from the roll, or rolled after a moment on the bench
    )
    poured: str  # the class that a batter which sets by itself may have in this form; "" where it may not be a batter
    seeded: str  # the class in which whole seeds that lie in a gel may be spread; "" where that is nothing else
    pressed: bool
    rest_min: float


@lru_cache(maxsize=512)
def classes(thickness_mm: float = 2.5) -> tuple[ClassBand, ...]:
    """Return the handling classes from thin to stiff.

    A thick piece bends where a thin sheet cracks, so it may be stiffer: ``4.4 + .9·log10(thickness / 2.5 mm)``.
    """
    rows = read_table("handling_classes.csv")
    starts = [row.number_in("from") for row in rows]
    starts[-1] += constant("stiff_per_decade") * log10(max(thickness_mm, 0.5) / 2.5)
    return tuple(
        ClassBand(class_name=row.text("class"), low=low, high=high)
        for row, low, high in zip(rows, starts, [*starts[1:], _STIFFEST], strict=True)
    )


def class_of(consistency: float, thickness_mm: float = 2.5) -> str:
    """Return the class of a consistency.

    >>> class_of(0.0), class_of(2.6), class_of(5.1), class_of(5.1, 20.0)
    ('pourable', 'tacky', 'stiff', 'rollable')
    """
    return next(band.class_name for band in reversed(classes(thickness_mm)) if consistency >= band.low)


def band_of(class_name: str, thickness_mm: float = 2.5) -> ClassBand:
    """Return the band of a class by name."""
    return next(band for band in classes(thickness_mm) if band.class_name == class_name)


@cache
def form_handling() -> dict[str, FormHandling]:
    """How each form is shaped, by id."""
    return {
        row.text("form"): FormHandling(
            lowest=row.text("lowest"),
            highest=row.text("highest"),
            cold_highest=row.text("cold_highest") or row.text("highest"),
            poured=row.text("poured"),
            seeded=row.text("seeded"),
            pressed=row.text("pressed") == "1",
            rest_min=row.number_in("rest_min", 0, 60),
        )
        for row in read_table("shapes.csv")
    }


def habit_of(formula: Formula) -> FormHandling:
    """How a formula's form is shaped; what rests in the fridge may be stiffer where its form is cut or rolled cold."""
    habit = form_handling()[formula.form]
    return replace(habit, highest=habit.cold_highest) if formula.mix.rest_in == "fridge" else habit
