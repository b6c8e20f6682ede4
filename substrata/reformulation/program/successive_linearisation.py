"""Successive linearisation: solve, look at the full model, take new slopes there, until an answer repeats."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from substrata.ingredients.library import Floats
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import ModelCheck, check_by_model, rails_broken
from substrata.reformulation.program.linear_row import LinearRow
from substrata.reformulation.program.linear_rows import rows_at
from substrata.reformulation.program.linearisation import slopes_at
from substrata.reformulation.program.milp import Ask, Solved, solve

ROUNDS = 7
_TRUST = 1.0
_SHRINK = 0.75
# Price of a unit of missing a limit, when not all can be met: so much that no edit is dearer, and what makes it a dough
# is let go last.
ELASTIC: dict[str, float] = {"wish": 1e4, "window": 1e4, "handling": 1e4, "cap": 1e4}
_LAST: dict[str, float] = {**ELASTIC, "rail": 1e5, "mass": 1e5}
_ENOUGH = 1e-6
_GAP, _QUICK_GAP = 1e-3, 0.05
_FEW_USED = 1e-6


@dataclass(frozen=True, kw_only=True)
class SearchResult:
    """The best answer of some rounds."""

    verdict: ModelCheck
    met: bool  # everything wished for holds in the full model, and every rail is kept
    rounds: int


def search(
    problem: BalanceProblem,
    *,
    start: ModelCheck,
    untouched: frozenset[str] = frozenset(),
    aim: Floats | None = None,
    new_price: float | None = None,
    at: Floats | None = None,
    quick: bool = False,
) -> SearchResult:
    """Search the least change that meets the wish, or the nearest to it.

    Args:
        problem: the dough and the wish.
        start: the formula as it stands, judged.
        untouched: lines left as they are.
        aim: another objective per gram than the change, shape (n,).
        new_price: of a new ingredient; None the usual.
        at: where to look first, shape (n,); None where the formula stands.
        quick: take the first answer that meets the wish, to within a few per cent of the least change.

    Returns:
        The best point, and whether it meets every row.
    """
    present = start.figures.consistency if start.figures else None
    point = start.grams if at is None else at
    best: ModelCheck | None = None
    trust, last_new = _TRUST, None
    best_rank, best_hard = (math.inf, math.inf), True
    visited: set[tuple[float, ...]] = set()
    number = 0
    for number in range(1, ROUNDS + 1):
        rows = rows_at(problem, point, slopes_at(problem, point, present=present))
        ask = Ask(elastic={}, untouched=untouched, near=point, trust=trust, aim=aim, gap=_QUICK_GAP if quick else _GAP)
        if new_price is not None:
            ask = replace(ask, new_price=new_price)
        if last_new is None:
            last_new = used_new(problem, rows, ask)
        solved, hard = solve_or_bend(problem, rows, replace(ask, only_new=last_new))
        if solved.grams is None:
            break
        verdict = check_by_model(problem, solved.grams)
        rank = _rank(verdict, aim)
        better = (not hard, *rank) < (not best_hard, *best_rank) if best else True
        if better:
            best, best_rank, best_hard = verdict, rank, hard
        if quick and verdict.violation <= _ENOUGH and hard:
            break
        key = tuple(np.round(solved.grams, 2))
        if key in visited:
            break
        visited.add(key)
        if verdict.violation <= _ENOUGH and number > 1 and not better:
            break
        point = solved.grams if better or number == 1 else (best.grams if best else point)
        trust *= _SHRINK if not better else 1.0
    best = best or start
    feasible = best_hard or not rails_broken(rows_at(problem, best.grams, None), best.grams)
    return SearchResult(verdict=best, met=best.violation <= _ENOUGH and feasible, rounds=number)


def _rank(verdict: ModelCheck, aim: Floats | None) -> tuple[float, float]:
    if aim is None:
        return verdict.rank
    return verdict.rank[0], float(aim @ verdict.grams)


def solve_or_bend(problem: BalanceProblem, rows: Sequence[LinearRow], ask: Ask) -> tuple[Solved, bool]:
    """Solve with every row hard; where that cannot be, with the wishes and windows at a price, then with rails too."""
    solved = solve(problem, rows, ask)
    if solved.grams is not None:
        return solved, True
    for elastic in (ELASTIC, _LAST):
        solved = solve(problem, rows, replace(ask, elastic=elastic))
        if solved.grams is not None:
            return solved, False
    return solved, False


def used_new(problem: BalanceProblem, rows: Sequence[LinearRow], ask: Ask) -> frozenset[str]:
    """Return the new ingredients worth a look: those that three easy problems take up."""
    new = [slot.id for slot in problem.slots if slot.new and slot.most > 0]
    if not new:
        return frozenset()
    loose = replace(ask, whole_steps=False, elastic=_LAST)
    plain = [row for row in rows if not row.price]
    used: set[str] = set()
    for these, price in ((rows, ask.new_price), (rows, 0.1), (plain, ask.new_price)):
        solved = solve(problem, these, replace(loose, new_price=price))
        if solved.grams is not None:
            used |= {s.id for s, g in zip(problem.slots, solved.grams, strict=True) if s.new and g > _FEW_USED}
    return frozenset(used)
