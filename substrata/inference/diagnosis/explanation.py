"""``why``: what may have brought the faults of a run, in two lists: the formula as written, and the making.

What is believed of the making is told with its evidence. What a formula is by itself is a fact and no rival of a slip: it is told as
its share in what happened. Probabilities are told in words.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import log

import numpy as np

from substrata.base.tables.table_reader import constant, read_table
from substrata.evaluation.dough import Dough
from substrata.execution.bake_log import what_was_done
from substrata.execution.run_document import Done, Run, Verdict
from substrata.inference.diagnosis.cause_effects import CauseTable
from substrata.inference.diagnosis.causes import Cause, strengths
from substrata.inference.diagnosis.evidence import Logged, logged
from substrata.inference.diagnosis.posterior import HARDLY, Posterior, posterior
from substrata.inference.faults import Mechanisms, fault_table, hazards
from substrata.ingredients.library import Floats

_SHOWN, _LEAST, _SHOWN_ANYWAY = 8, 0.02, 0.1


@dataclass(frozen=True, kw_only=True)
class LikelyCause:
    """A cause of the making."""

    cause: str
    words: str
    probability: float
    probability_text: str  # likely, quite possible, possible, hardly
    scope: str  # run, habit, lot, oven
    evidence: tuple[str, ...]
    against: tuple[str, ...]


@dataclass(frozen=True, kw_only=True)
class LikelyFlaw:
    """What the formula brings by itself."""

    cause: str
    words: str
    probability: float  # its share in what happened
    probability_text: str
    evidence: tuple[str, ...]


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
    text: str


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


def _probability_words(probability: float) -> str:
    return (
        "likely"
        if probability >= 0.5
        else "quite possible"
        if probability >= 0.25
        else "possible"
        if probability >= 0.1
        else "hardly"
    )


def _making(
    dough: Dough, belief: Posterior, table: CauseTable, mechanisms: Mechanisms, log_: Mapping[str, Logged]
) -> tuple[LikelyCause, ...]:
    ids = dict.fromkeys(p.cause.id for p in table.planted)
    rises = table.rises
    by_id = {p.cause.id: p.cause for p in table.planted}
    # What the log shows and no fault comes of is a fact, and no answer to why: it stands behind what explains.
    explains = {key: _explains(key, belief.faults, mechanisms, rises[key]) for key in ids}
    ranked = sorted(
        ((belief.probability(cause), cause) for cause in ids), key=lambda pair: (not explains[pair[1]], -pair[0])
    )
    rows = []
    for probability, key in ranked[: 2 * _SHOWN]:
        if probability < _LEAST:
            break
        cause = by_id[key]
        evidence = tuple(_for(cause, belief.faults, mechanisms, rises[key], log_))
        if not evidence and probability < _SHOWN_ANYWAY:
            continue
        rows.append(
            LikelyCause(
                cause=key,
                words=cause.words,
                probability=probability,
                probability_text=_probability_words(probability),
                scope=cause.scope,
                evidence=(*evidence, *filter(None, (_known_oven(dough, cause),))),
                against=tuple(_against(cause, belief.faults, mechanisms, rises[key], log_)),
            )
        )
    return tuple(rows[:_SHOWN])


def _explains(cause: str, faults_rated: tuple[str, ...], mechanisms: Mechanisms, rise: Floats) -> bool:
    """Whether a cause brings any of the faults that were told, by this formula or by practice."""
    return not faults_rated or any(
        rise[mechanisms.faults.index(f)] >= HARDLY or strengths().get((f, cause)) for f in faults_rated
    )


def _known_oven(dough: Dough, cause: Cause) -> str:
    """Say what this oven is known to do, beside a cause that is about its heat; "" where nothing is known."""
    profile = dough.profile
    if cause.log != "oven" or not profile.bakes or dough.case.fried:
        return ""
    side = "hot" if profile.offset_k > 0 else "cool"
    return (
        f"this oven is known to run {abs(profile.offset_k):.0f} °C {side} ± {profile.half_90_k:.0f}, and the forecast counts that: "
        "here it is about being further off still"
    )


def _for(
    cause: Cause, faults_rated: tuple[str, ...], mechanisms: Mechanisms, rise: Floats, log_: Mapping[str, Logged]
) -> list[str]:
    rows = []
    logged_value = log_.get(cause.log)
    if logged_value is not None and _off(logged_value, cause):
        rows.append(f"the log: {logged_value.text}")
    explained = []
    practised = []
    for fault in faults_rated:
        place = mechanisms.faults.index(fault)
        words = fault_table()[fault].words
        if rise[place] >= HARDLY:
            explained.append(f"{words} (+{100 * rise[place]:.0f} %)")
        elif strengths().get((fault, cause.id)):
            practised.append(words)
    if explained:
        rows.append(f"in this formula it brings: {', '.join(explained)}")
    if practised:
        rows.append(f"bakers name it for: {', '.join(practised)}")
    return rows


def _off(logged_value: Logged, cause: Cause) -> bool:
    """Whether the log shows a slip on the side of this cause."""
    if logged_value.even_sd == 0:
        return bool(logged_value.value)
    off = logged_value.value - logged_value.even
    if abs(off) < 1.5 * logged_value.even_sd:
        return False
    sign = {"warmer": 1.0, "trays": 1.0, "vegetable": 1.0}.get(cause.plant)
    if sign is None:
        middle = cause.sizes[len(cause.sizes) // 2]
        nominal = logged_value.even if cause.log == "dough_c" else 0.0 if cause.log == "oven" else 1.0
        sign = 1.0 if middle > nominal else -1.0
    return off * sign > 0


def _against(
    cause: Cause, faults_rated: tuple[str, ...], mechanisms: Mechanisms, rise: Floats, log_: Mapping[str, Logged]
) -> list[str]:
    rows = []
    logged_value = log_.get(cause.log)
    if logged_value is not None and not _off(logged_value, cause):
        rows.append(f"the log: {logged_value.text}")
    unexplained = [
        fault_table()[fault].words
        for fault in faults_rated
        if rise[mechanisms.faults.index(fault)] < HARDLY and not strengths().get((fault, cause.id))
    ]
    if unexplained:
        rows.append(f"does not bring: {', '.join(unexplained)}")
    return rows


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
            material = hazard / (hazard + constant("hazard_told_from"))
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
            evidence=(f"as written: {mechanism}, which brings {fault_table()[fault].words}",),
        )
        for flaw, (share, fault, mechanism) in best.items()
        if share >= constant("flaw_told_from")
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
) -> str:
    if not faults_rated:
        return "No fault was told: nothing to explain."
    parts = []
    if flaws:
        parts.append(f"The formula itself: {flaws[0].words} ({flaws[0].probability_text})")
    if making and making[0].probability > max(nothing, 0.1):
        also = f", or {making[1].words}" if len(making) > 1 and making[1].probability > 0.1 else ""
        parts.append(f"in the making, {making[0].probability_text}: {making[0].words}{also}")
    elif not flaws:
        parts.append("chance, or the forecast itself is off for this dough: no slip explains it well")
    return f"{'; '.join(parts)}."[:1].upper() + f"{'; '.join(parts)}."[1:]
