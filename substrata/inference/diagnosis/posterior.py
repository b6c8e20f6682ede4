"""What is believed of a run: every possible cause is a hypothesis, scored by the whole verdict and the run's own log, and normalised (Bayes).

Probabilities rest on thresholds of common practice.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from itertools import combinations
from math import erf, hypot, log, sqrt

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.execution.reading_noise import reading_noise
from substrata.execution.run_document import CRUMBLY, Done, Verdict
from substrata.inference.bake_figures import PLACE
from substrata.inference.diagnosis.cause_effects import CauseTable, Planted
from substrata.inference.diagnosis.causes import Cause, strengths
from substrata.inference.diagnosis.evidence import Logged, answer_evidence, log_evidence
from substrata.inference.faults import Mechanisms, hazards, likely, mechanisms
from substrata.ingredients.library import Floats
from substrata.process.baking.simulation.oven_constants import oven_number
from substrata.process.rheology.handling_classes import band_of

DRAWS = 64  # of the ordinary spread
HARDLY = 0.05  # rise of a fault's probability from which the core moves for a cause
_PAIRED = 8  # causes that are tried two at a time
_RHO = {3: 0.5, 2: 0.3, 1: 0.15}  # what practice's strength brings where the core hardly moves


@dataclass(frozen=True, kw_only=True)
class Hypothesis:
    """One way in which it may have come."""

    causes: tuple[Planted, ...]  # none: nothing went otherwise
    prior: float


@dataclass(frozen=True, kw_only=True)
class Posterior:
    """What is left to believe: h hypotheses by k draws of ordinary spread."""

    hypotheses: tuple[Hypothesis, ...]
    weights: Floats  # (h, k), summing to 1
    changes: Floats  # (h, figures)
    spread: Floats  # (k, figures)
    faults: tuple[str, ...]  # faults told

    def probability(self, cause: str) -> float:
        """Probability that a cause was at work."""
        rows = [n for n, h in enumerate(self.hypotheses) if any(p.cause.id == cause for p in h.causes)]
        return float(self.weights[rows].sum()) if rows else 0.0


@cache
def _draws(parameters: int) -> Floats:
    """Return standard normal draws in mirrored pairs, shape (DRAWS, parameters), always the same."""
    half = np.random.default_rng(20_261_127).normal(size=(DRAWS // 2, parameters))
    return np.vstack((half, -half))


def posterior(
    dough: Dough, table: CauseTable, done: Done, verdict: Verdict, log_: Mapping[str, Logged], *, proven: bool = False
) -> Posterior:
    """Return what is left to believe after a verdict and a log.

    Args:
        dough: the formula as it was written.
        table: its causes, planted.
        done: what was really done.
        verdict: what was said of it.
        log_: what the log tells.
        proven: this version was good before.
    """
    faults_rated = tuple(f.id for f in verdict.faults if f.id in mechanisms(dough.formula.form).faults)
    spread = _draws(len(table.parameters)) @ table.spread
    singles = _singles(table, done, proven=proven)
    logs = _scored(dough, table, singles, spread, faults_rated, done, verdict, log_)
    best = _weights(logs)
    order = np.argsort(-best.sum(axis=1))
    top: dict[str, Planted] = {}
    for n in order.tolist():
        for p in singles[n].causes:
            if p.cause.id not in top and len(top) < _PAIRED:
                top[p.cause.id] = p
    prior = {p.cause.id: _prior_of(singles, p.cause.id) for p in top.values()}
    pairs = [
        Hypothesis(causes=(a, b), prior=constant("pair_rarer") * prior[a.cause.id] * prior[b.cause.id])
        for a, b in combinations(top.values(), 2)
        if a.cause.plant != b.cause.plant
    ]
    every = (*singles, *pairs)
    both = np.vstack((logs, _scored(dough, table, pairs, spread, faults_rated, done, verdict, log_))) if pairs else logs
    changes = np.array([_change(h, table) for h in every])
    return Posterior(hypotheses=every, weights=_weights(both), changes=changes, spread=spread, faults=faults_rated)


def _singles(table: CauseTable, done: Done, *, proven: bool) -> list[Hypothesis]:
    none = constant("no_slip_proven") if proven else constant("no_slip")
    ids = {p.cause.id: _with_bags(p.cause, done) for p in table.planted}
    whole = sum(ids.values()) or 1.0
    nothing = Hypothesis(causes=(), prior=none)
    slips = (Hypothesis(causes=(p,), prior=(1 - none) * ids[p.cause.id] / whole * p.weight) for p in table.planted)
    return [nothing, *slips]


def _with_bags(cause: Cause, done: Done) -> float:
    """Return the prior of a cause; a new pack makes its lot suspect, an old one clears it."""
    if cause.scope != "lot" or not done.new_packs:
        return cause.prior
    return cause.prior * (constant("new_bag_odds") if any(done.new_packs.values()) else constant("old_bag_odds"))


def _prior_of(singles: Sequence[Hypothesis], cause: str) -> float:
    return sum(h.prior for h in singles if h.causes and h.causes[0].cause.id == cause)


def _change(hypothesis: Hypothesis, table: CauseTable) -> Floats:
    result: Floats = np.zeros_like(table.written.figures)
    for p in hypothesis.causes:
        result = result + p.change
    return result


def _weights(logs: Floats) -> Floats:
    best = np.exp(logs - logs.max())
    result: Floats = best / best.sum()
    return result


def _scored(
    dough: Dough,
    table: CauseTable,
    hypotheses: Sequence[Hypothesis],
    spread: Floats,
    faults_rated: tuple[str, ...],
    done: Done,
    verdict: Verdict,
    log_: Mapping[str, Logged],
) -> Floats:
    """Log of prior times likelihood of everything that is known, shape (h, k)."""
    base, marks, mechanisms_ = table.written.figures, table.written.marks, mechanisms(dough.formula.form)
    changes = np.array([_change(h, table) for h in hypotheses])
    x = base + changes[:, None, :] + spread[None, :, :]
    p = with_practice(likely(hazards(x, base, marks, mechanisms_), mechanisms_), hypotheses, table, mechanisms_)
    q = constant("fault_reported") * p + constant("fault_by_chance")
    is_rated = np.array([fault in faults_rated for fault in mechanisms_.faults])
    # Without any verdict on faults nothing is said by their absence.
    judged = bool(faults_rated) or verdict.liked == "good"
    score = np.where(is_rated, np.log(q), np.log1p(-q)).sum(axis=-1) if judged else np.zeros(x.shape[:-1])
    top = float(base[PLACE["top"]])
    score = score + _hand_score(dough, x, done) + _bake_score(x, done, verdict, target=top, crumb=marks.crumb)
    whole = np.array(
        [log(max(h.prior, 1e-12)) + _log_weight(h, log_, base) + _answered(h, verdict) for h in hypotheses]
    )
    result: Floats = score + whole[:, None]
    return result


def _log_weight(hypothesis: Hypothesis, log_: Mapping[str, Logged], base: Floats) -> float:
    """Of two causes each tells its own field, and all else is as written."""
    if not hypothesis.causes:
        return log_evidence(None, 0.0, log_)
    fields = {p.cause.log for p in hypothesis.causes}
    total = log_evidence(None, 0.0, {key: logged_value for key, logged_value in log_.items() if key not in fields})
    for p in hypothesis.causes:
        cause_log = {key: logged_value for key, logged_value in log_.items() if key == p.cause.log}
        warm = float(base[PLACE["temperature"]] + p.change[PLACE["temperature"]]) if p.cause.log == "dough_c" else None
        total += log_evidence(p.cause, p.size, cause_log, warm)
    return total


def _answered(hypothesis: Hypothesis, verdict: Verdict) -> float:
    if not hypothesis.causes:
        return answer_evidence(None, verdict)
    each = [answer_evidence(p.cause, verdict) for p in hypothesis.causes]
    if len(each) == 1:
        return each[0]
    # A question is answered by whichever of the two it is about.
    total = 0.0
    for question, yes in verdict.asked.items():
        answer = Verdict(asked={question: yes})
        scores = [answer_evidence(p.cause, answer) for p in hypothesis.causes]
        total += max(scores) if yes else min(scores)
    return total


def with_practice(p: Floats, hypotheses: Sequence[Hypothesis], table: CauseTable, mechanisms_: Mechanisms) -> Floats:
    """Where practice names a cause and the core hardly moves for it, practice's strength speaks.

    Args:
        p: probability of each fault, shape (h, k, f).
        hypotheses: the h hypotheses.
        table: the causes as they were planted.
        mechanisms_: the mechanisms.

    Returns:
        Probabilities, the shape of ``p``.
    """
    rises = table.rises
    result = p.copy()
    for n, hypothesis in enumerate(hypotheses):
        for planted in hypothesis.causes:
            for place, fault in enumerate(mechanisms_.faults):
                strength = strengths().get((fault, planted.cause.id))
                if strength and rises[planted.cause.id][place] < HARDLY:
                    result[n, :, place] = 1 - (1 - result[n, :, place]) * (1 - _RHO[strength])
    return result


def _hand_score(dough: Dough, x: Floats, done: Done) -> Floats:
    """Of the felt class at shaping, shape (h, k)."""
    felt = next((f for f in reversed(done.felt) if f.class_name), None)
    if felt is None:
        return np.zeros(x.shape[:-1])
    if felt.class_name == CRUMBLY:
        filled = x[..., PLACE["filled"]]
        chance = 1 / (1 + np.exp(np.clip((filled - 1) / 0.05, -60, 60)))
        result: Floats = np.log(constant("hand_elsewhere") / 7 + (1 - constant("hand_elsewhere")) * chance)
        return result
    band = band_of(felt.class_name, dough.piece.thickness_mm)
    at = x[..., PLACE["consistency"]]
    sd = reading_noise("hand").total
    chance = _phi((band.high - at) / sd) - _phi((band.low - at) / sd)
    log_probability: Floats = np.log(
        constant("hand_elsewhere") / 7 + (1 - constant("hand_elsewhere")) * np.maximum(chance, 0)
    )
    return log_probability


_phi = np.vectorize(lambda z: 0.5 * (1 + erf(z / sqrt(2))), otypes=[float])


def _bake_score(x: Floats, done: Done, verdict: Verdict, *, target: float, crumb: bool) -> Floats:
    """Of weight, colour and core, shape (h, k); each with heavy tails, so that one odd number does not decide."""
    total = np.zeros(x.shape[:-1])
    if done.weight_in_g and done.weight_out_g is not None and done.weight_out_g <= done.weight_in_g:
        lost = 1 - done.weight_out_g / done.weight_in_g
        total = total + _tailed((lost - x[..., PLACE["loss"]]) / reading_noise("loss").total)
    if verdict.lightness is not None:
        total = total + _tailed((verdict.lightness - x[..., PLACE["top"]]) / reading_noise("lightness").total)
    elif verdict.colour is not None:
        step = oven_number("chip_lightness")
        sd = hypot(reading_noise("chip").sd, reading_noise("lightness").remains / step)
        total = total + _tailed((verdict.colour - (target - x[..., PLACE["top"]]) / step) / sd)
    if done.core_c is not None and crumb:
        total = total + _tailed((done.core_c - x[..., PLACE["core"]]) / reading_noise("core").total)
    return total


def _tailed(z: Floats) -> Floats:
    """Log density of Student's t with 4 degrees of freedom, without its constant."""
    result: Floats = -2.5 * np.log1p(z**2 / 4)
    return result
