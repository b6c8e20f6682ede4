"""``why``: what may have brought the faults of a run, in two lists: the formula as written, and the making.

What is believed of the making is told with its evidence. What a formula is by itself is a fact and no rival of a slip: it is told as
its share in what happened. Probabilities are told in words.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import log

import numpy as np

from substrata.base.messages.message import Capitalized, Joined, Message, Wording
from substrata.base.tables.table_reader import constant, read_table
from substrata.evaluation.dough import Dough
from substrata.execution.bake_log import what_was_done
from substrata.execution.run_document import Done, Run, Verdict
from substrata.inference.diagnosis.cause_arguments import evidence_against, evidence_for, is_explained, known_oven_text
from substrata.inference.diagnosis.cause_effects import CauseTable
from substrata.inference.diagnosis.evidence import Logged, logged
from substrata.inference.diagnosis.posterior import Posterior, posterior
from substrata.inference.faults import Mechanisms, fault_table, hazards

_SHOWN, _LEAST, _SHOWN_ANYWAY = 8, 0.02, 0.1


@dataclass(frozen=True, kw_only=True)
class LikelyCause:
    """A cause of the making."""

    cause: str
    words: str
    probability: float
    probability_text: Wording  # likely, possible, less likely, unlikely
    scope: str  # run, habit, lot, oven
    evidence: tuple[Wording, ...]
    against: tuple[Wording, ...]


@dataclass(frozen=True, kw_only=True)
class LikelyFlaw:
    """What the formula brings by itself."""

    cause: str
    words: str
    probability: float  # its share in what happened
    probability_text: Wording
    evidence: tuple[Wording, ...]


@dataclass(frozen=True, kw_only=True)
class Question:
    """What would tell causes apart, and what its answer would tell."""

    cause: str
    text: str
    gain: float  # nats


@dataclass(frozen=True, kw_only=True)
class Why:
    """The answer."""

    faults: tuple[str, ...]
    formula: tuple[LikelyFlaw, ...]
    making: tuple[LikelyCause, ...]
    nothing: float  # probability that nothing went otherwise
    questions: tuple[Question, ...]
    text: Wording


def why(dough: Dough, table: CauseTable, run: Run, *, proven: bool = False) -> Why:
    """Return what may have brought the faults of a run.

    Args:
        dough: the formula as it was written.
        table: its causes, planted.
        run: what was done, and the verdict.
        proven: this version was good before.
    """
    verdict, done = run.verdict or Verdict(), what_was_done(run)
    belief = posterior(dough, table, done, verdict, logged(dough, done, table.written.marks.minutes), proven=proven)
    return explain(dough, table, done, verdict, belief)


def explain(dough: Dough, table: CauseTable, done: Done, verdict: Verdict, belief: Posterior) -> Why:
    """Return a belief in words.

    Args:
        dough: the formula as it was written.
        table: its causes, planted.
        done: what was really done.
        verdict: what was said of it.
        belief: what is believed.
    """
    log_ = logged(dough, done, table.written.marks.minutes)
    mechanisms = table.mechanisms
    making = _making(dough, belief, table, mechanisms, log_)
    flaws = _flaws(belief, table, mechanisms)
    nothing = float(belief.weights[0].sum())
    return Why(
        faults=belief.faults,
        formula=flaws,
        making=making,
        nothing=nothing,
        questions=_questions(belief, log_, verdict),
        text=_text(belief.faults, making, flaws, nothing),
    )


def _probability_words(probability: float) -> Wording:
    return (
        "likely"
        if probability >= 0.5
        else "possible"
        if probability >= 0.25
        else Message("explanation-less-likely")
        if probability >= 0.1
        else "unlikely"
    )


def _making(
    dough: Dough, belief: Posterior, table: CauseTable, mechanisms: Mechanisms, log_: Mapping[str, Logged]
) -> tuple[LikelyCause, ...]:
    ids = dict.fromkeys(p.cause.id for p in table.planted)
    rises = table.rises
    by_id = {p.cause.id: p.cause for p in table.planted}
    # What the log shows and no fault comes of is a fact, and no answer to why: it stands behind what explains.
    explains = {key: is_explained(key, belief.faults, mechanisms, rises[key]) for key in ids}
    ranked = sorted(
        ((belief.probability(cause), cause) for cause in ids), key=lambda pair: (not explains[pair[1]], -pair[0])
    )
    rows = []
    for probability, key in ranked[: 2 * _SHOWN]:
        if probability < _LEAST:
            break
        cause = by_id[key]
        evidence = tuple(evidence_for(cause, belief.faults, mechanisms, rises[key], log_))
        if not evidence and probability < _SHOWN_ANYWAY:
            continue
        rows.append(
            LikelyCause(
                cause=key,
                words=cause.words,
                probability=probability,
                probability_text=_probability_words(probability),
                scope=cause.scope,
                evidence=(*evidence, *(text for text in (known_oven_text(dough, cause),) if text)),
                against=tuple(evidence_against(cause, belief.faults, mechanisms, rises[key], log_)),
            )
        )
    return tuple(rows[:_SHOWN])


def _flaws(belief: Posterior, table: CauseTable, mechanisms: Mechanisms) -> tuple[LikelyFlaw, ...]:
    """Return the share of each flaw in what happened: its hazard as written over all hazards as they were."""
    if not belief.faults:
        return ()
    base, marks = table.written.figures, table.written.marks
    as_written = hazards(base + belief.spread, base, marks, mechanisms)  # (k, m)
    x = base + belief.changes[:, None, :] + belief.spread[None, :, :]
    happened = hazards(x, base, marks, mechanisms)  # (h, k, m)
    words = {row.text("flaw"): row.text("words") for row in read_table("flaws.csv")}
    best: dict[str, tuple[float, str, str]] = {}
    for fault in belief.faults:
        place = mechanisms.faults.index(fault)
        rows = np.flatnonzero(mechanisms.membership[:, place])
        whole = happened[:, :, rows].sum(axis=-1)  # (h, k)
        for m in rows.tolist():
            flaw = mechanisms.flaws[m]
            if not flaw:
                continue
            hazard = as_written[:, m]
            material = hazard / (hazard + constant("hazard_shown_from"))
            share = float(
                (belief.weights * np.minimum(hazard[None, :] / np.maximum(whole, 1e-9), 1.0) * material[None, :]).sum()
            )
            if share > best.get(flaw, (0.0, "", ""))[0]:
                best[flaw] = share, fault, mechanisms.words[m]
    flaws = [
        LikelyFlaw(
            cause=flaw,
            words=words[flaw],
            probability=share,
            probability_text=_probability_words(share),
            evidence=(Message("explanation-which-causes", mechanism=mechanism, words=fault_table()[fault].words),),
        )
        for flaw, (share, fault, mechanism) in best.items()
        if share >= constant("flaw_shown_from")
    ]
    return tuple(sorted(flaws, key=lambda flaw: -flaw.probability))


def _questions(belief: Posterior, log_: Mapping[str, Logged], verdict: Verdict) -> tuple[Question, ...]:
    """Return what is not known yet and would tell most: the entropy of its answer, as far as an answer can be trusted."""
    groups: dict[str, tuple[str, float]] = {}
    for p in {p.cause.id: p.cause for h in belief.hypotheses for p in h.causes}.values():
        if p.log in log_ or p.id in verdict.asked or not p.asks:
            continue
        first, chance = groups.get(p.asks, (p.id, 0.0))
        groups[p.asks] = first, chance + belief.probability(p.id)
    rows = [
        Question(cause=cause, text=text, gain=entropy(min(chance, 1.0)))
        for text, (cause, chance) in groups.items()
        if chance > _LEAST
    ]
    return tuple(sorted(rows, key=lambda q: -q.gain)[:4])


def entropy(p: float) -> float:
    """Of a yes or no, nats.

    >>> round(entropy(0.5), 3), entropy(0.0)
    (0.693, 0.0)

    Returns:
        Entropy, nats.
    """
    return sum(-share * log(share) for share in (p, 1 - p) if share > 0)


def _text(
    faults_rated: tuple[str, ...], making: tuple[LikelyCause, ...], flaws: tuple[LikelyFlaw, ...], nothing: float
) -> Wording:
    if not faults_rated:
        return Message("explanation-no-faults-reported-so-there")
    parts = []
    if flaws:
        parts.append(
            Message("explanation-in-the-formula", words=flaws[0].words, probability_text=flaws[0].probability_text)
        )
    if making and making[0].probability > max(nothing, 0.1):
        also = (
            Message("explanation-or", words=making[1].words) if len(making) > 1 and making[1].probability > 0.1 else ""
        )
        parts.append(
            Message(
                "explanation-in-how-it-was-made",
                words=making[0].words,
                probability_text=making[0].probability_text,
                also=also,
            )
        )
    elif not flaws:
        parts.append(Message("explanation-no-mistake-explains-it-well"))
    return Capitalized(Joined((Joined(parts, "; "), "."), ""))
