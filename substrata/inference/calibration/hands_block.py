"""What a kitchen's runs teach of its hands: how much stiffer or softer it feels doughs; of the kitchen, the form, the formula."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from math import sqrt
from typing import Any

import numpy as np

from substrata.base.messages.message import Message
from substrata.base.tables.table_reader import constant
from substrata.evaluation.learned_biases import formula_key
from substrata.execution.feel_advice import band_middle
from substrata.execution.reading_noise import reading_noise
from substrata.execution.run_document import CRUMBLY
from substrata.inference.bake_figures import PLACE
from substrata.inference.calibration.learned_parameters import Backed, CalibrationState, Reading, Work, backed, name_of
from substrata.inference.calibration.robust_update import Residual, Updated
from substrata.process.rheology.handling_classes import band_of


def hands(read: Sequence[Reading]) -> Work:
    """How much softer or stiffer the hand feels than the forecast says: of the kitchen, the form, the formula."""
    felt = [reading for reading in read if _felt(reading) is not None]
    if not felt:
        return []
    forms_, formulas = ([*dict.fromkeys(key(reading) for reading in felt)] for key in (_form_of, _formula_of))
    names = ["kitchen", *(f"form {form}" for form in forms_), *(f"formula {formula}" for formula in formulas)]
    prior = [
        constant("hand_kitchen_sd"),
        *[constant("hand_form_sd")] * len(forms_),
        *[constant("hand_formula_sd")] * len(formulas),
    ]
    residuals = []
    for reading in felt:
        value, sd = _felt(reading) or (0.0, 1.0)
        row = np.zeros(len(names))
        row[[0, names.index(f"form {_form_of(reading)}"), names.index(f"formula {_formula_of(reading)}")]] = 1.0
        at = float(reading.forecast.figures[PLACE["consistency"]])
        residuals.append(
            Residual(
                run=reading.id,
                off=np.array([value - at]),
                slope=row[None, :],
                noise=np.array([sqrt(sd**2 + reading_noise("hand").remains ** 2)]),
            )
        )
    return [("hands", names, prior, residuals)]


def _form_of(reading: Reading) -> str:
    return reading.run.formula.form


def _formula_of(reading: Reading) -> str:
    return name_of(reading.run)


def _felt(reading: Reading) -> tuple[float, float] | None:
    """Return a felt class as a reading and its doubt; an open end says nothing further out than it begins."""
    felt = next((f for f in reversed(reading.done.felt) if f.class_name and f.class_name != CRUMBLY), None)
    if felt is None:
        return None
    band = band_of(felt.class_name, reading.dough.piece.thickness_mm)
    middle, at = band_middle(band), float(reading.forecast.figures[PLACE["consistency"]])
    if band.low < -8:
        return min(at, middle), 0.4
    if band.high > 8:
        return max(at, middle), 0.4
    return middle, sqrt((band.high - band.low) ** 2 / 12 + reading_noise("hand").sd ** 2)


def remaining_spread(updated: Updated, places: Mapping[str, int], part: str) -> float:
    """Return what is left of the house's spread for a dough of which a part is the nearest that was learned.

    Args:
        updated: the block.
        places: of its parts.
        part: the kitchen, a form or a formula.
    """
    kind, _, what = part.partition(" ")
    nearer = {"kitchen": [], "form": [part], "formula": [f"form {what.partition(':')[0]}", part]}[kind]
    known = [places[key] for key in ("kitchen", *nearer)]
    unknown = {
        "kitchen": constant("hand_form_sd") ** 2 + constant("hand_formula_sd") ** 2,
        "form": constant("hand_formula_sd") ** 2,
        "formula": 0.0,
    }[kind]
    variance = float(updated.covariance[np.ix_(known, known)].sum()) + unknown
    return min(
        sqrt(
            variance
            / (constant("hand_kitchen_sd") ** 2 + constant("hand_form_sd") ** 2 + constant("hand_formula_sd") ** 2)
        ),
        1.0,
    )


def handling_bias(state: CalibrationState, formula: Any) -> Backed:
    """By how many decades this kitchen feels a formula's dough stiffer than it is forecast, and what stands behind it.

    Args:
        state: what was learned.
        formula: whose dough it is.

    Returns:
        Decades of consistency with spread and source.
    """
    updated, places = state.blocks.get("hands"), state.places.get("hands", {})
    plain = sqrt(constant("hand_kitchen_sd") ** 2 + constant("hand_form_sd") ** 2 + constant("hand_formula_sd") ** 2)
    if updated is None:
        return Backed(value=0.0, sd=plain, same_formula=0, from_others=0, text=Message("hands-block-built-in-model"))
    keys = ["kitchen", f"form {formula.form}", f"formula {formula_key(formula)}"]
    known = [places[key] for key in keys if key in places]
    rest = sum(
        sd**2
        for key, sd in zip(
            keys, (constant("hand_kitchen_sd"), constant("hand_form_sd"), constant("hand_formula_sd")), strict=True
        )
        if key not in places
    )
    value = float(updated.mean[known].sum())
    sd = sqrt(float(updated.covariance[np.ix_(known, known)].sum()) + rest)
    return backed(state, "hands", keys[2], value, sd, plain)
