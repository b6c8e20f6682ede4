"""What a formula was forecast to be, given how it was really made: the figures that a run's readings are held against."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.errors import OvenError
from substrata.evaluation.dough import Dough
from substrata.execution.run_document import Done
from substrata.inference.bake_figures import Marks, run_figures, written
from substrata.inference.making import Making, dough_temperature
from substrata.ingredients.library import Floats
from substrata.process.rheology.handling.handling_forecast import rest_of

_LEAST, _MOST = 0.02, 20.0  # factors that are taken for what they say


@dataclass(frozen=True, kw_only=True)
class AsDone:
    """A run's making as far as its log tells it, and the figures forecast for it."""

    making: Making
    marks: Marks
    figures: Floats


def as_done(dough: Dough, done: Done) -> AsDone | None:
    """Return the forecast of a run as it was really made; None where there is nothing to bake.

    Args:
        dough: the formula as it was written.
        done: what was really done; what is not logged is as written.
    """
    try:
        dough.case  # noqa: B018 - asked whether there is a bake
    except OvenError:
        return None
    marks = written(dough, done.minutes).marks
    making = making_of_log(dough, done)
    return AsDone(making=making, marks=marks, figures=run_figures(dough, making, marks))


def making_of_log(dough: Dough, done: Done) -> Making:
    """How a formula was made, as far as the log tells."""
    here = {w.line.id: w for w in dough.batch.lines}
    grams, amounts = {}, {}
    for line, value in done.grams.items():
        if line not in here or here[line].grams.value <= 0:
            continue
        factor = min(max(value / here[line].grams.value, _LEAST), _MOST)
        if here[line].role in ("topping", "filling"):
            amounts[here[line].role] = factor
        elif here[line].in_dough:
            grams[line] = factor
    vegetable = sum(w.grams.value for w in dough.batch.lines if w.role == "vegetable")
    wet = max(done.squeezed_g - vegetable, 0.0) if done.squeezed_g is not None and vegetable else 0.0
    usual = rest_of(dough.inside, dough.formula)
    thick = dough.piece.thickness_mm
    oven = 0.0
    if done.oven_c is not None:
        oven = done.oven_c - dough.case.oven_c
    return Making(
        grams=grams,
        amounts=amounts,
        water_g=wet,
        rest=max(done.rest_min / usual, 0.0) if done.rest_min is not None and usual else 1.0,
        dough_c=done.dough_c if done.dough_c is not None and done.dough_c > dough_temperature(dough) - 60 else None,
        thickness=min(max(done.thickness_mm / thick, 0.3), 3.0) if done.thickness_mm else 1.0,
        oven_k=oven,
        two_trays=bool(done.trays and done.trays > dough.formula.bake.trays),
        pressed=done.steps.get("press", True),
        unflipped=not done.steps.get("flip", True),
    )
