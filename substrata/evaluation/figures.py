"""The figures of a dough without words, contributions or drawings: what a solver asks for hundreds of times."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from substrata.evaluation.dough import Dough
from substrata.evaluation.target_ranges import NO_TARGET, State, state_of
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.formula import Formula
from substrata.process.rheology.handling.consistency import handling as handle
from substrata.process.rheology.handling.consistency import typical_draw
from substrata.process.rheology.handling.handling_forecast import bowl_of
from substrata.process.rheology.handling_classes import class_of


@dataclass(frozen=True, kw_only=True)
class Figures:
    """A dough in numbers."""

    dough_g: float
    piece_g: float  # of dough
    thickness_mm: float
    values: Mapping[str, float]  # of each bracketed quantity, in its unit
    states: Mapping[str, State]  # where it stands to its window
    consistency: float  # log10 Pa s at shaping, of the typical dough
    class_name: str  # handling class at shaping
    coheres: float  # filling of the voids over what is needed: below 1 it crumbles
    fits: bool  # shaped as its form wants
    texture: Mapping[str, float]  # scores 0..10, by key


def _state(dough: Dough, key: str, value: float, defined: bool) -> State:
    def doubt() -> tuple[float, float]:
        estimate = dough.bracketed.one_estimate(key)
        return estimate.low, estimate.high

    return state_of(value, dough.windows.get(key, NO_TARGET), doubt, defined=defined)


def shaped_at(
    batch: Batch, formula: Formula, *, rest_min: float | None = None, stiffer: float = 0.0
) -> tuple[float, float]:
    """Consistency of the typical dough at shaping, log10 Pa s, and the filling of its voids over what is needed.

    Args:
        batch: the lines of the dough, two or more.
        formula: gives the form, the temperature and the method.
        rest_min: before it is shaped; None takes the form's usual.
        stiffer: decades by which the kitchen's own hands find it stiffer.

    Returns:
        Consistency, log10 Pa s, and filling of the voids, 0..1.
    """
    bowl, _ = bowl_of(batch, formula, rest_min=rest_min, stiffer=stiffer)
    at = np.array([bowl.rest_min]), np.array([bowl.shaped_c])
    shaped = handle(bowl.materials, bowl.method, *at, draws=typical_draw())
    return float(shaped.consistency[0, 0]), float(shaped.fill[0, 0])


def figures(dough: Dough) -> Figures | None:
    """Return the figures of a dough; None while there is none to speak of.

    Raises:
        FormulaError: when the form is unknown.
    """
    if dough.batch.dough_g <= 0 or len(dough.inside.lines) < 2:
        return None
    values = {key: dough.bracketed.value(key) for key in dough.ratios_of}
    defined = dough.batch.dry_base_g > 0
    states = {key: _state(dough, key, value, defined or value > 0) for key, value in values.items()}
    thick = dough.piece.thickness_mm
    consistency, coheres = shaped_at(dough.inside, dough.formula, rest_min=dough.rest_min, stiffer=dough.hands.stiffer)
    target = dough.target_handling
    return Figures(
        dough_g=dough.batch.dough_g,
        piece_g=dough.piece.dough_g,
        thickness_mm=thick,
        values=values,
        states=states,
        consistency=consistency,
        class_name=class_of(consistency, thick),
        coheres=coheres,
        fits=target.low <= consistency < target.high and coheres >= 1,
        texture=dough.scores(),
    )
