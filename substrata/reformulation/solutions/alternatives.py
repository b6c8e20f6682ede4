"""Different answers to one wish, each named by what it is best at."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import partial

import numpy as np

from substrata.base.messages.message import Joined, Message, Wording
from substrata.evaluation.analysis.phrasing import short_name
from substrata.formula.batch.cost import price_per_gram
from substrata.ingredients.library import Floats
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import ModelCheck, check_by_model
from substrata.reformulation.program.piece_changes import Shaped, shape_name
from substrata.reformulation.program.successive_linearisation import SearchResult, search

_FORBIDDEN = 2  # dearest edits of the first way that are forbidden in turn
_APART = 0.35  # of both changes: ways nearer than this are one
_NO_NEW = 120.0  # price of a new ingredient in the search for a way without any
_HALF_SD = 0.5
_MOST_DEARER = 3.0  # a surer way may take so many times the change
_LEAST_G = 1e-6
Progress = Callable[[float], object]


@dataclass(frozen=True, kw_only=True)
class Answer:
    """One answer, and the pieces that it is for."""

    shaped: Shaped
    verdict: ModelCheck
    met: bool = True

    @property
    def problem(self) -> BalanceProblem:
        """What it was settled on."""
        return self.shaped.problem

    @property
    def cost(self) -> float:
        """Of all that it changes, in grams of flour."""
        return self.verdict.cost + self.shaped.price


def settled_in(shaped: Shaped, *, quick: bool = False) -> SearchResult:
    """Return the least change of the grams in these pieces; none where they fit already."""
    if not shaped.start.missed:
        return SearchResult(verdict=shaped.start, met=True, rounds=0)
    return search(shaped.problem, start=shaped.start, quick=quick)


def in_other_shapes(shapes: Sequence[Shaped]) -> list[Answer]:
    """Return the best answer in each of them, whether it meets all or not."""
    solved = ((shaped, settled_in(shaped, quick=True)) for shaped in shapes)
    return [Answer(shaped=shaped, verdict=pair.verdict, met=pair.met) for shaped, pair in solved]


def different_ways(shaped: Shaped, solved: SearchResult, most: int, on_progress: Progress) -> list[Answer]:
    """Different answers in the same pieces: forbid the dearest edits of the first in turn, bring in less, be surer."""
    problem, start = shaped.problem, shaped.start
    answers = [solved.verdict]
    tries: list[Callable[[], ModelCheck | None]] = []
    if most > 1:
        tries += [partial(_untouched, problem, start, slot) for slot in _dearest(problem, solved.verdict)]
        tries += [partial(_without_new, problem, start)] if _new(problem, solved.verdict) else []
        tries += [partial(_surer_way, problem, solved.verdict)] if problem.targets and not problem.wish.margin else []
    for number, attempt in enumerate(tries):
        verdict = attempt()
        on_progress(0.35 + 0.5 * (number + 1) / len(tries))
        if verdict is not None:
            answers.append(verdict)
    return [Answer(shaped=shaped, verdict=verdict) for verdict in answers]


def _untouched(problem: BalanceProblem, start: ModelCheck, slot: str) -> ModelCheck | None:
    return _met(search(problem, start=start, untouched=frozenset((slot,)), quick=True))


def _without_new(problem: BalanceProblem, start: ModelCheck) -> ModelCheck | None:
    return _met(search(problem, start=start, new_price=_NO_NEW, quick=True))


def _met(solved: SearchResult) -> ModelCheck | None:
    return solved.verdict if solved.met else None


def _dearest(problem: BalanceProblem, verdict: ModelCheck) -> list[str]:
    moved = [
        (slot.step.weight * abs(float(g) - slot.start) + (8.0 if slot.new else 0.0), slot.id)
        for slot, g in zip(problem.slots, verdict.grams, strict=True)
        if abs(float(g) - slot.start) > _LEAST_G and not slot.gone
    ]
    return [key for _, key in sorted(moved, reverse=True)[:_FORBIDDEN]]


def _new(problem: BalanceProblem, verdict: ModelCheck) -> int:
    return sum(1 for s, g in zip(problem.slots, verdict.grams, strict=True) if s.new and g > _LEAST_G)


def _surer_way(problem: BalanceProblem, plain: ModelCheck) -> ModelCheck | None:
    """Return an answer that keeps half a standard deviation away from its targets, if that does not take much more."""
    surer = _with_margin(problem, _HALF_SD)
    surer_solution = search(surer, start=check_by_model(surer, surer.start), at=plain.grams, quick=True)
    verdict = check_by_model(problem, surer_solution.verdict.grams)
    return (
        verdict
        if surer_solution.met and not verdict.missed and verdict.cost <= _MOST_DEARER * max(plain.cost, 10.0)
        else None
    )


def _with_margin(problem: BalanceProblem, margin: float) -> BalanceProblem:
    return BalanceProblem(
        problem.original.formula,
        problem.library,
        problem.settings,
        problem.wish.with_changes(margin=margin),
        saved=problem.reference.formula,
    )


def named(answers: Sequence[Answer], most: int) -> list[tuple[Wording, Answer]]:
    """Distinct answers, the least change first, each named by what it is best at."""
    distinct: list[Answer] = []
    for answer in sorted(answers, key=lambda a: a.cost):
        if all(_apart(answer, other) for other in distinct):
            distinct.append(answer)
    distinct = distinct[:most]
    targets = bool(distinct[0].problem.targets)
    fewest = min(distinct, key=lambda a: (_new(a.problem, a.verdict), a.cost))
    cheapest = min(distinct, key=_money)
    surest = max(distinct, key=_inside) if targets else distinct[0]
    rows = []
    for number, answer in enumerate(distinct):
        names: list[Wording] = [Message("alternatives-least-change")] if number == 0 else []
        names += [shape_name(answer.shaped)] if answer.shaped.changes else []
        if number and answer is fewest:
            names += [
                Message("alternatives-no-new-ingredients")
                if not _new(answer.problem, answer.verdict)
                else Message("alternatives-fewest-new-ingredients")
            ]
        names += ["cheapest"] if _money(answer) and number and answer is cheapest else []
        names += ["surest"] if targets and number and answer is surest else []
        rows.append((Joined(names, " · ") if names else _without_text(distinct[0], answer), answer))
    return rows


def _without_text(first: Answer, answer: Answer) -> Wording:
    """Return what the way leaves alone that the first one changes."""
    if first.shaped.changes != answer.shaped.changes:
        return Message("alternatives-the-pieces-as-they-are")
    removed = [
        (abs(float(a) - s.start) * s.step.weight, short_name(s.name))
        for s, a, b in zip(first.problem.slots, first.verdict.grams, answer.verdict.grams, strict=True)
        if abs(float(a) - s.start) > _LEAST_G and abs(float(b) - s.start) <= _LEAST_G
    ]
    return (
        Message("alternatives-without-touching-the", removed=max(removed)[1])
        if removed
        else Message("alternatives-another-option")
    )


def _money(answer: Answer) -> float:
    prices: Floats = price_per_gram(answer.problem.base.batch)[0][: answer.problem.count]
    return float(prices @ answer.verdict.grams)


def _inside(answer: Answer) -> float:
    """Return by how many standard deviations the nearest target is met."""
    problem = answer.problem
    dough = problem.at(answer.verdict.grams)
    depths = []
    for key in problem.targets:
        if key in dough.ratios_of:
            estimate, window = dough.bracketed.one_estimate(key), problem.targets[key]
            sd = max(estimate.high - estimate.value, 1e-9)
            depths += [(window.high - estimate.value) / sd] if window.high is not None else []
            depths += [(estimate.value - window.low) / sd] if window.low is not None else []
    return min(depths, default=0.0)


def _apart(a: Answer, b: Answer) -> bool:
    if a.shaped.changes != b.shaped.changes:
        return True
    weights = np.array([slot.step.weight for slot in a.problem.slots])
    between = float(weights @ np.abs(a.verdict.grams - b.verdict.grams))
    changes = [float(weights @ np.abs(each.verdict.grams - a.problem.start)) for each in (a, b)]
    return between > _APART * min(changes)
