"""How far a quantity can go with everything else kept."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from substrata.base.settings import Settings
from substrata.formula.batch.propagation import Ratio
from substrata.formula.formula import Formula
from substrata.ingredients.library import Floats, Library
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import check_by_model
from substrata.reformulation.program.linear_figures import ratio_of
from substrata.reformulation.program.linear_row import LinearRow
from substrata.reformulation.program.linear_rows import rows_at
from substrata.reformulation.program.linearisation import slopes_at
from substrata.reformulation.program.milp import Ask, solve
from substrata.reformulation.program.successive_linearisation import ELASTIC
from substrata.reformulation.request.balance_request import Wish, check_wish

_AT_REST_G = 2.0  # so little the point moves when it has come to rest
_ROUNDS = 4
_DINKELBACH = 4  # repetitions in which a ratio's own denominator is followed (Dinkelbach 1967, from memory)
_ENOUGH = 1e-6


@dataclass(frozen=True, kw_only=True)
class FeasibleRange:
    """The two ends of a quantity; None where no dough was found that keeps all else."""

    key: str
    now: float
    low: float | None
    high: float | None


def feasible_ranges(
    formula: Formula,
    library: Library,
    settings: Settings,
    keys: tuple[str, ...],
    wish: Wish = Wish(),  # noqa: B008 - frozen
    *,
    saved: Formula | None = None,
) -> tuple[FeasibleRange, ...]:
    """Return the ends of some quantities with every other window, the handling and all rails kept.

    Args:
        formula: as it stands.
        library: the ingredients.
        settings: the kitchen's choices.
        keys: the quantities.
        wish: what else is wanted.
        saved: the last saved version.

    Raises:
        FormulaError: when the wish cannot be meant.
    """
    check_wish(wish.with_changes(targets=dict(wish.targets)), [line.id for line in formula.lines])
    problem = BalanceProblem(formula, library, settings, wish, saved=saved)
    if problem.original.batch.dough_g <= 0 or len(problem.original.inside.lines) < 2:
        return ()
    start = check_by_model(problem, problem.start)
    present = start.figures.consistency if start.figures else None
    return tuple(_one_range(problem, key, present) for key in keys)


def _one_range(problem: BalanceProblem, key: str, present: float | None) -> FeasibleRange:
    dough = problem.original
    now = ratio_of(key, dough).value(dough.batch.grams)
    low, high = (_end(problem, key, sign, present) for sign in (1.0, -1.0))
    ends = [end for end in (low, high) if end is not None]
    return FeasibleRange(
        key=key, now=now, low=min([*ends, now]) if ends else None, high=max([*ends, now]) if ends else None
    )


def _end(problem: BalanceProblem, key: str, sign: float, present: float | None) -> float | None:
    """Return the least (or with a sign of -1 the most) of a quantity, by rounds of new slopes."""
    point, best = problem.start, None
    for _ in range(_ROUNDS):
        every = rows_at(problem, point, slopes_at(problem, point, present=present))
        rows = [replace(row, price=0.0) for row in every if _counts(problem, row, key)]
        # By whole steps of the kitchen only where it comes to rest: where that is does not hang on them.
        grams = _best_of(problem, rows, key, sign, point, whole_steps=False)
        if grams is not None and np.allclose(grams, point, atol=_AT_REST_G):
            grams = _best_of(problem, rows, key, sign, point, whole_steps=True)
        if grams is None:
            break
        verdict = check_by_model(problem, grams)
        others = sum(miss for missed, miss in verdict.missed.items() if missed != key)
        dough = problem.at(grams)
        value = ratio_of(key, dough).value(dough.batch.grams)
        if others <= _ENOUGH and (best is None or sign * value < sign * best):
            best = value
        if np.allclose(grams, point, atol=0.05):
            break
        point = grams
    return best


def _counts(problem: BalanceProblem, row: LinearRow, key: str) -> bool:
    """All rows but those of the quantity itself; what is only kept near counts where the formula keeps it."""
    if row.key in (key, f"rail:{key}", f"soft:{key}"):
        return False
    return not row.price or row.over(problem.start) <= _ENOUGH


def _best_of(
    problem: BalanceProblem, rows: list[LinearRow], key: str, sign: float, near: Floats, *, whole_steps: bool
) -> Floats | None:
    ratio = ratio_of(key, problem.base, problem.batch_at(near))
    point = near
    for _ in range(_DINKELBACH if ratio.offset == 0 else 1):
        ask = Ask(
            elastic={}, whole_steps=whole_steps, near=near, trust=1.0, aim=sign * _aim(problem, ratio, point), gap=0.01
        )
        solved = solve(problem, rows, ask)
        if solved.grams is None:
            solved = solve(problem, rows, replace(ask, elastic=ELASTIC))
        if solved.grams is None:
            return None
        if np.allclose(solved.grams, point):
            break
        point = solved.grams
    return point


def _aim(problem: BalanceProblem, ratio: Ratio, point: Floats) -> Floats:
    """Return what to make small: the numerator, less the ratio's present value times its denominator; per gram, scaled to one."""
    batch = problem.batch_at(point)
    top, bottom = problem.per_line(ratio.top[0]) * ratio.scale, problem.per_line(ratio.bottom[0])
    aim = top - ratio.value(batch.grams) * bottom
    size = float(np.abs(aim).max())
    return aim / size if size else aim
