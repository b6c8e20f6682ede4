"""Where a dough rests before it is shaped: what that makes of its temperature, and for how long its yeast works."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

import numpy as np

from substrata.base.tables.table_reader import constant, read_table
from substrata.formula.formula import Formula, Mix
from substrata.ingredients.library import Floats
from substrata.process.rheology.yeast_kinetics import relative_rate

_MOMENTS = 40  # of a rest, at which the yeast is looked at


@dataclass(frozen=True, kw_only=True)
class RestPlace:
    """Somewhere to rest a dough."""

    id: str  # as the document has it
    name: str
    where: str  # in a sentence: "in the fridge"
    degrees: float | None  # °C, usually; None where the dough keeps its own, covered on the bench
    setting: str  # choice of the Prep station that says otherwise; "" where none does
    thing: str  # of a plan: what of the kitchen it takes up; "" where nothing


@cache
def rest_places() -> dict[str, RestPlace]:
    """All of them by id (``rest_places.csv``)."""
    return {
        row.text("place"): RestPlace(
            id=row.text("place"),
            name=row.text("name"),
            where=row.text("where"),
            degrees=constant(row.text("constant")) if row.text("constant") else None,
            setting=row.text("told"),
            thing=row.text("thing"),
        )
        for row in read_table("rest_places.csv")
    }


def place_of(mix: Mix) -> RestPlace:
    """Where a dough rests; on the bench, where nothing is said."""
    return rest_places()[mix.rest_in or "bench"]


def place_c(formula: Formula) -> float | None:
    """How warm it is where a formula's dough rests, °C: as the kitchen has said, else as usual; None on the bench."""
    place = place_of(formula.mix)
    chosen = formula.prep.get(place.setting) if place.setting else None
    return place.degrees if chosen is None else float(chosen)


def after(minutes: Floats, start_c: float, place_c: float | None) -> Floats:
    """Temperature of a dough that has lain somewhere for some minutes, °C, shape (points,).

    Newton's cooling with the time constant of a wrapped disc or a shallow bowl; a dough that stands on the bench keeps its own for the
    minutes that doughs stand there.

    Returns:
        °C, shape (points,).
    """
    if place_c is None:
        return np.full(len(minutes), start_c)
    result: Floats = place_c + (start_c - place_c) * np.exp(-minutes / constant("dough_cools_minutes"))
    return result


def yeast_minutes(formula: Formula, start_c: float) -> float:
    """For how many minutes at 30 °C the yeast does as much as in the proof, and in the rest before it where one is told."""
    proof, rest = constant("proof_minutes"), formula.mix.rest_min  # it proofs shaped, as always
    if rest is None:
        return proof
    moments = (np.arange(_MOMENTS) + 0.5) * rest / _MOMENTS
    rates = [relative_rate(float(c)) for c in after(moments, start_c, place_c(formula))]
    return proof + float(np.mean(rates)) / relative_rate(constant("yeast_rate_at_c")) * rest
