"""What is usually done otherwise than written: rests and pours."""

from __future__ import annotations

from collections.abc import Sequence
from math import log

import numpy as np

from substrata.base.messages.message import Message
from substrata.inference.calibration.learned_parameters import Learned, Reading, factor
from substrata.inference.calibration.robust_update import Residual, update
from substrata.process.rheology.handling.handling_forecast import rest_of


def habits(read: Sequence[Reading]) -> list[Learned]:
    """Return what is usually done otherwise than written: rests, pours, cuts warm."""
    rows = []
    pours = [(reading.id, _pour(reading)) for reading in read]
    rests = [(reading.id, _rest(reading)) for reading in read]
    for key, words, values, sd in (
        ("habits.pour", Message("habits-weights-compared-with-the-formula"), pours, 0.03),
        ("habits.rest", Message("habits-rest-times-compared-with-the"), rests, 0.25),
    ):
        known = [(run, value) for run, value in values if value is not None]
        if not known:
            continue
        residuals = [
            Residual(run=run, off=np.array([value]), slope=np.ones((1, 1)), noise=np.array([sd]))
            for run, value in known
        ]
        updated = update(np.array([sd]), residuals)
        rows.append(
            factor(
                "habits", key, words, float(updated.mean[0]), float(updated.sd[0]), sd, tuple(run for run, _ in known)
            )
        )
    return rows


def _pour(reading: Reading) -> float | None:
    here = {w.line.id: w.grams.value for w in reading.dough.batch.lines if w.grams.value > 0}
    known = [line for line in reading.done.grams if line in here]
    if not known:
        return None
    poured, written = sum(reading.done.grams[line] for line in known), sum(here[line] for line in known)
    return log(max(poured, 0.01) / written)


def _rest(reading: Reading) -> float | None:
    usual = rest_of(reading.dough.inside, reading.run.formula)
    return log(max(reading.done.rest_min, 0.1) / usual) if reading.done.rest_min is not None and usual else None
