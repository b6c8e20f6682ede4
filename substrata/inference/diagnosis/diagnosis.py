"""A run's verdict explained, and what to do next: the whole answer, from one table of planted causes."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.messages.message import Message, Wording
from substrata.evaluation.dough import Dough
from substrata.execution.bake_log import what_was_done
from substrata.execution.run_document import Run, Verdict
from substrata.inference.diagnosis.cause_effects import CauseTable, cause_table
from substrata.inference.diagnosis.evidence import logged
from substrata.inference.diagnosis.explanation import LikelyCause, LikelyFlaw, Question, explain
from substrata.inference.diagnosis.next_test import Check, Proposal, checks, next_tests
from substrata.inference.diagnosis.posterior import posterior

RESTS_ON = Message("diagnosis-causes-are-ranked-from-this")


@dataclass(frozen=True, kw_only=True)
class Diagnosis:
    """Why, and what next."""

    faults: tuple[str, ...]
    formula: tuple[LikelyFlaw, ...]
    making: tuple[LikelyCause, ...]
    nothing: float
    questions: tuple[Question, ...]
    next: tuple[Proposal, ...]
    checks: tuple[Check, ...]
    text: Wording
    rests_on: Wording = RESTS_ON


def diagnose(dough: Dough, run: Run, *, table: CauseTable | None = None, proven: bool = False) -> Diagnosis:
    """Explain a verdict. A pure function.

    Args:
        dough: the formula as it was written.
        run: what was done, and the verdict.
        table: its causes, planted; None plants them now.
        proven: this version was good before.

    Returns:
        Causes, flaws, questions, checks and next tests.
    """
    planted = table or cause_table(dough)
    done, verdict = what_was_done(run), run.verdict or Verdict()
    log_ = logged(dough, done, planted.written.marks.minutes)
    belief = posterior(dough, planted, done, verdict, log_, proven=proven)
    explanation = explain(dough, planted, done, verdict, belief)
    return Diagnosis(
        faults=explanation.faults,
        formula=explanation.formula,
        making=explanation.making,
        nothing=explanation.nothing,
        questions=explanation.questions,
        next=next_tests(dough, planted, belief),
        checks=checks(belief, log_),
        text=explanation.text,
    )
