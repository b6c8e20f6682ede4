"""The next trial: the change that is expected to help most, two only where each pays, and checks that need no bake.

Greedy expected improvement: ``U(a) = E[bad | same again] − E[bad | a] − effort(a)``, bad being the severities of the faults that are
likely next time. Slips of one run come again now and then; lots, habits and ovens stay. "The same again" is a proposal too: it is the
best where the doubt is about doing and not about the formula.
"""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, replace
from itertools import combinations

import numpy as np

from substrata.base.messages.message import Capitalized, Joined, Message, Wording
from substrata.base.tables.table_reader import Row, constant, read_table
from substrata.base.tables.table_texts import table_text
from substrata.evaluation.dough import Dough
from substrata.formula.formula import Formula
from substrata.inference.bake_figures import run_figures
from substrata.inference.diagnosis.cause_effects import CauseTable
from substrata.inference.diagnosis.causes import causes
from substrata.inference.diagnosis.explanation import entropy
from substrata.inference.diagnosis.posterior import Hypothesis, Posterior, with_practice
from substrata.inference.diagnosis.proposed_making import edited, making_of
from substrata.inference.faults import fault_table, hazards, likely, mechanisms
from substrata.ingredients.library import Floats

_SHOWN, _PAIRED = 4, 8
_SAMPLES = 192  # picks that stand for what is believed


@dataclass(frozen=True, kw_only=True)
class Proposal:
    """Something to do otherwise next time."""

    actions: tuple[str, ...]  # none for the same again
    text: Wording
    edits: tuple[Wording, ...]  # what changes in the document, in words
    formula: Formula | None  # with its edits; None where only the doing changes
    gain: float  # of severity, beside the same again
    before: float  # severity expected of the same again
    after: float


@dataclass(frozen=True, kw_only=True)
class Check:
    """Something that tells causes apart without a bake."""

    check: str
    text: Wording
    gain: float  # nats
    causes: tuple[str, ...]


def next_tests(dough: Dough, table: CauseTable, belief: Posterior) -> tuple[Proposal, ...]:
    """Return what to do next time, the best first.

    Args:
        dough: the formula as it was written.
        table: its causes, planted.
        belief: what is believed after the verdict.
    """
    judge = _Judge(dough, table, belief)
    same = judge.bad()
    single = []
    for row in _actions(table.kinds):
        change = judge.change(row)
        if row.text("kind") == "shift" and change is None:
            continue
        after = judge.bad((row,))
        single.append((same - after - row.number_in("effort", 0, 1), (row,), after))
    single.sort(key=lambda entry: -entry[0])
    best: dict[str, float] = {rows[0].text("action"): gain for gain, rows, _ in single}
    double = []
    for (_, a, _), (_, b, _) in combinations(single[:_PAIRED], 2):
        if _clash(a[0], b[0]):
            continue
        after = judge.bad((*a, *b))
        effort = a[0].number_in("effort", 0, 1) + b[0].number_in("effort", 0, 1)
        gain = same - after - effort
        if gain - max(best[a[0].text("action")], best[b[0].text("action")]) >= constant("pair_gain_each"):
            double.append((gain, (*a, *b), after))
    ranked = sorted((*single, *double), key=lambda entry: -entry[0])
    worth = [entry for entry in ranked if entry[0] >= constant("change_worth")][:_SHOWN]
    proposals = [_proposal(dough, rows, gain, same, after) for gain, rows, after in worth]
    again = Proposal(
        actions=(),
        text=Message("next-test-repeat-the-same-formula-with"),
        edits=(),
        formula=None,
        gain=0.0,
        before=same,
        after=same,
    )
    return (*proposals, again)


def checks(belief: Posterior, known: Collection[str] = ()) -> tuple[Check, ...]:
    """Return what would tell causes apart without a bake, by what its answer would tell.

    Args:
        belief: what is believed.
        known: fields that the log of the run tells already.
    """
    rows = []
    for row in read_table("checks.csv"):
        ids = tuple(row.text("causes").split())
        if any(causes()[cause].log in known for cause in ids):
            continue
        chance = min(sum(belief.probability(cause) for cause in ids), 1.0)
        gain = _information(chance, row.number_in("sure", 0.5, 1))
        if gain >= constant("check_worth"):
            rows.append(Check(check=row.text("check"), text=row.text("words"), gain=gain, causes=ids))
    return tuple(sorted(rows, key=lambda check: -check.gain))


def _information(chance: float, sure: float) -> float:
    """Nats that a yes or no tells, which is right so often.

    >>> round(_information(0.5, 1.0), 3), round(_information(0.5, 0.5), 3)
    (0.693, 0.0)

    Returns:
        Expected information, nats.
    """
    yes = chance * sure + (1 - chance) * (1 - sure)
    return max(entropy(yes) - entropy(sure), 0.0)


def _actions(kinds: frozenset[str]) -> tuple[Row, ...]:
    return tuple(
        row
        for row in read_table("actions.csv")
        if row.text("kind") != "same" and frozenset(row.text("needs").split()) <= kinds
    )


def _clash(a: Row, b: Row) -> bool:
    """Whether two changes are of the same thing."""
    first, second = a.text("change").rpartition(":")[0], b.text("change").rpartition(":")[0]
    if first and first == second:
        return True
    return {a.text("action"), b.text("action")} <= {"longer", "shorter", "oven_up", "oven_down"} and a.text(
        "change"
    ).partition(":")[0] == b.text("change").partition(":")[0]


class _Judge:
    """What is expected of the next run."""

    def __init__(self, dough: Dough, table: CauseTable, belief: Posterior) -> None:
        self.dough, self.table, self.belief = dough, table, belief
        self.of = mechanisms(dough.formula.form)
        severities = np.array([fault_table()[fault].severity for fault in self.of.faults])
        weights = np.array(
            [1.0 if fault in belief.faults else constant("unseen_fault_weight") for fault in self.of.faults]
        )
        self.severity: Floats = severities * weights
        # As many pairs of a cause and an ordinary spread as stand for what is believed, each as likely as the other.
        flat = np.cumsum(belief.weights.ravel())
        picks = np.searchsorted(flat, (np.arange(_SAMPLES) + 0.5) / _SAMPLES * flat[-1])
        self.places, draws = np.divmod(np.minimum(picks, flat.size - 1), belief.weights.shape[1])
        self.spread: Floats = belief.spread[draws]
        self.changes: dict[str, Floats | None] = {}

    def change(self, row: Row) -> Floats | None:
        """Return what an action does to the figures; None where it changes nothing of them."""
        key = row.text("action")
        if key not in self.changes:
            making = making_of(self.dough, row.text("change"))
            self.changes[key] = (
                None
                if making is None
                else run_figures(self.dough, making, self.table.written.marks) - self.table.written.figures
            )
        return self.changes[key]

    def bad(self, rows: tuple[Row, ...] = ()) -> float:
        """Severity to be expected next time, after some actions."""
        shift = np.zeros_like(self.table.written.figures)
        removed: set[str] = set()
        for row in rows:
            change = self.change(row)
            if change is not None:
                shift = shift + change
            removed |= set(row.text("takes").split())
        lasting, once = self._without(frozenset(removed), run=False), self._without(frozenset(removed), run=True)
        good = self._bad_of(lasting, shift)
        slipped = [
            n for n, (some, more) in enumerate(zip(lasting, once, strict=True)) if len(more.causes) > len(some.causes)
        ]
        if slipped:
            worse = self._bad_of([once[n] for n in slipped], shift, slipped)
            good[slipped] = (1 - constant("slip_again")) * good[slipped] + constant("slip_again") * worse
        return float(good.mean())

    def _without(self, removed: frozenset[str], *, run: bool) -> list[Hypothesis]:
        """Return what of each pick's causes is still there: those that no action takes, with or without those of one run."""
        rows = {}
        for place in set(self.places.tolist()):
            hypothesis = self.belief.hypotheses[place]
            causes_remaining = tuple(
                p for p in hypothesis.causes if p.cause.id not in removed and (run or p.cause.scope != "run")
            )
            rows[place] = replace(hypothesis, causes=causes_remaining)
        return [rows[place] for place in self.places.tolist()]

    def _bad_of(self, hypotheses: list[Hypothesis], shift: Floats, places: list[int] | None = None) -> Floats:
        """Severity of each pick, shape (picks,)."""
        base, marks = self.table.written.figures, self.table.written.marks
        none = np.zeros_like(base)
        changes = np.array([sum((p.change for p in h.causes), none) for h in hypotheses])
        x = base + changes + (self.spread if places is None else self.spread[places]) + shift
        p = likely(hazards(x, base, marks, self.of), self.of)[:, None, :]
        result: Floats = with_practice(p, hypotheses, self.table, self.of)[:, 0, :] @ self.severity
        return result


def _proposal(dough: Dough, rows: tuple[Row, ...], gain: float, before: float, after: float) -> Proposal:
    formula, edits = dough.formula, []
    for row in rows:
        formula, texts = edited(dough, formula, row.text("change"))
        edits += texts
    words = [
        table_text(row.text("words") if row.text("kind") == "shift" else row.text("text") or row.text("words"))
        for row in rows
    ]
    return Proposal(
        actions=tuple(row.text("action") for row in rows),
        text=Capitalized(Joined(words, " and ")),
        edits=tuple(edits),
        formula=formula if formula != dough.formula else None,
        gain=gain,
        before=before,
        after=after,
    )
