"""What a kitchen's verdicts teach of its palate: its own scale of each score, and the weight of what makes one."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from math import sqrt
from typing import Any

import numpy as np

from substrata.base.messages.message import Message
from substrata.base.tables.table_reader import constant
from substrata.evaluation.learned_biases import formula_key
from substrata.execution.reading_noise import reading_noise
from substrata.inference.bake_figures import PLACE
from substrata.inference.calibration.learned_parameters import Backed, CalibrationState, Reading, Work, backed, name_of
from substrata.inference.calibration.robust_update import Residual, Updated
from substrata.inference.making import moist_after
from substrata.process.rheology.texture import MOST, Texture, texture, texture_keys
from substrata.process.rheology.texture_palate import Eaten


def palates(read: Sequence[Reading]) -> Work:
    """How this kitchen scores: its own scale of each axis, and the weight of what makes a score."""
    work: Work = []
    for axis in texture_keys():
        scored = [reading for reading in read if reading.run.verdict and axis in reading.run.verdict.scores]
        if not scored:
            continue
        textures = [_texture_of(reading) for reading in scored]
        terms = sorted({t.what for whole in textures if whole for s in whole.scores if s.key == axis for t in s.terms})
        formulas = list(dict.fromkeys(name_of(reading.run) for reading in scored))
        names = ["scale", *(f"weight {what}" for what in terms), *(f"formula {formula}" for formula in formulas)]
        prior = [
            constant("palate_sd"),
            *[constant("palate_weight_sd")] * len(terms),
            *[constant("palate_score_sd")] * len(formulas),
        ]
        residuals = []
        for reading, whole in zip(scored, textures, strict=True):
            if whole is None or reading.run.verdict is None:
                continue
            score = next(s for s in whole.scores if s.key == axis)
            row = np.zeros(len(names))
            row[0] = 1.0
            for term in score.terms:
                row[names.index(f"weight {term.what}")] = term.amount
            row[names.index(f"formula {name_of(reading.run)}")] = 1.0
            scores = reading.run.verdict.scores[axis]
            # A score at the end of the scale says nothing of how far beyond it would be.
            at = score.value
            scores = min(at, scores) if scores <= 0 else max(at, scores) if scores >= MOST else scores
            residuals.append(
                Residual(
                    run=reading.id,
                    off=np.array([scores - at]),
                    slope=row[None, :],
                    noise=np.array([reading_noise("score").sd]),
                )
            )
        work.append((f"palate:{axis}", names, prior, residuals))
    return work


def _texture_of(reading: Reading) -> Texture | None:
    """Return the texture forecast at the moisture that was really weighed, where it was."""
    done, dough = reading.done, reading.dough
    loss = float(reading.forecast.figures[PLACE["loss"]])
    if done.weight_in_g and done.weight_out_g is not None and 0 < done.weight_out_g <= done.weight_in_g:
        loss = 1 - done.weight_out_g / done.weight_in_g
    after = moist_after(dough, dough.case, loss)
    eaten = Eaten(
        moisture=after.moisture_percent,
        moisture_low=after.moisture_percent,
        moisture_high=after.moisture_percent,
        thickness_mm=max(done.thickness_mm or dough.piece.thickness_mm, 0.2),
        oven_c=dough.case.oven_c,
        binder_load=float(reading.forecast.figures[PLACE["load"]]),
        rise=float(reading.forecast.figures[PLACE["rise"]]),
    )
    return texture(dough.batch, after, eaten)


def remaining_spread(updated: Updated, places: Mapping[str, int], part: str) -> float:
    """Return what is left of the house's spread for what is eaten, where a part is the nearest that was learned.

    Args:
        updated: the block of one score.
        places: of its parts.
        part: the scale of the kitchen, a formula, or the weight of one thing, which leaves it as it was.
    """
    kind = part.partition(" ")[0]
    if kind == "weight":
        return 1.0
    known = [places[key] for key in dict.fromkeys(("scale", part))]
    unknown = constant("palate_score_sd") ** 2 if kind == "scale" else 0.0
    variance = float(updated.covariance[np.ix_(known, known)].sum()) + unknown
    return min(sqrt(variance / (constant("palate_sd") ** 2 + constant("palate_score_sd") ** 2)), 1.0)


def palate(state: CalibrationState, formula: Any, whole: Texture) -> dict[str, Backed]:
    """Every score as this kitchen would give it.

    Args:
        state: what was learned.
        formula: what is eaten.
        whole: the house's texture forecast.

    Returns:
        Score shifts with spread and source, by key.
    """
    biases = {}
    for score in whole.scores:
        block = f"palate:{score.key}"
        updated, places = state.blocks.get(block), state.places.get(block, {})
        terms = {f"weight {t.what}": t.amount for t in score.terms}
        formula_part = f"formula {formula_key(formula)}"
        row = {"scale": 1.0, **terms, formula_part: 1.0}
        priors = {"scale": constant("palate_sd"), formula_part: constant("palate_score_sd")}
        plain = sqrt(sum((amount * priors.get(key, constant("palate_weight_sd"))) ** 2 for key, amount in row.items()))
        if updated is None:
            biases[score.key] = Backed(
                value=score.value, sd=plain, same_formula=0, from_others=0, text=Message("palate-block-built-in-model")
            )
            continue
        slope = np.zeros(len(places))
        rest = 0.0
        for key, amount in row.items():
            if key in places:
                slope[places[key]] = amount
            else:
                rest += (amount * priors.get(key, constant("palate_weight_sd"))) ** 2
        value = min(max(score.value + float(slope @ updated.mean), 0.0), MOST)
        sd = sqrt(float(slope @ updated.covariance @ slope) + rest)
        biases[score.key] = backed(state, block, formula_part, value, sd, plain)
    return biases
