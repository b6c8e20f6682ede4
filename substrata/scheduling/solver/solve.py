"""A plan by constraint programming: first nobody late, then the oven short, then hands and freshness."""

from __future__ import annotations

import time
from dataclasses import replace

from substrata.scheduling.schedule_problem import Schedule, ScheduleProblem
from substrata.scheduling.solver.case_proofs import Cases
from substrata.scheduling.solver.cost_bounds import movable
from substrata.scheduling.solver.cp_model import Model, OnBetter, Solution
from substrata.scheduling.solver.day_proofs import Spend, prove
from substrata.scheduling.solver.search_effort import Effort

_FOR_THE_REST = 0.15  # of the time: changing the best plan further
_HELD_S = 1.0  # enough, however slow the machine, for what takes a hundredth
_AT_LEAST_S = 0.05  # of each phase: what is sought for less finds nothing


def solve(
    problem: ScheduleProblem,
    effort: Effort = Effort(),  # noqa: B008 - frozen
    *,
    hint: Schedule | None = None,
    on_better: OnBetter | None = None,
) -> Schedule:
    """Return the best plan that is found in a time.

    Args:
        problem: what is to be planned.
        effort: search time limit.
        hint: a plan to begin with.
        on_better: is shown every better plan; False stops the search.
    """
    model = Model(problem)
    started, stopped = time.monotonic(), False

    def shown(plan: Schedule) -> bool:
        nonlocal stopped
        stopped = stopped or (on_better is not None and not on_better(plan))
        return not stopped

    def spend(part: float, keep: float = 0.0) -> Effort:
        """Return a part of what there is, as far as it is left and not kept for later; hardly any once it is to stop."""
        if stopped:
            return replace(effort, seconds=_AT_LEAST_S)
        if effort.steady:
            return replace(effort, seconds=effort.seconds * part)
        seconds_remaining = effort.seconds - keep * effort.seconds - (time.monotonic() - started)
        return replace(effort, seconds=max(min(effort.seconds * part, seconds_remaining), _AT_LEAST_S))

    watch = shown if on_better else None
    # Nobody late; stops at once when that is proven.
    first = model.best(model.lateness, spend(0.25), hint, watch)
    if first is None:
        return Schedule(placed={}, status=model.status)
    model.keep(model.lateness, first.value)
    if first.value or not movable(problem):
        begin = prove(model, first, spend, watch)
    else:
        begin = _by_cases(model, first, spend, watch)
    second = model.best(model.price, spend(0.5 if effort.steady else 1.0, keep=0.04), begin, watch, how="both")
    best = second or begin
    proven = second is not None and model.status == "optimal"
    gap = None
    if second is not None:
        price = second.value
        model.keep(model.price, price)
        best = model.best(model.polish, spend(1.0 if effort.steady else 0.2), second, watch) or second
        gap = max(price - second.bound, 0.0) / max(abs(price), 1.0)
    return replace(best.plan, status="optimal" if proven else "feasible", gap=0.0 if proven else gap)


def _by_cases(model: Model, first: Solution, spend: Spend, watch: OnBetter | None) -> Solution:
    """Tell a model what its price is at least, and find a good plan to begin with."""
    model.one_at_its_due()
    effort = spend(1.0)
    cases = Cases(model.problem, replace(first, value=first.evaluate(model.price)), effort, watch)
    part = 0.3 if effort.steady else 1.0
    cases.smaller(spend(part, _FOR_THE_REST).seconds)
    cases.whole(spend(part, _FOR_THE_REST).seconds)
    model.at_least(model.price, cases.bound)
    model.keep(model.price, cases.price)
    # All of a solution is told: with the starts alone the solver may end with nothing. A plan that was shown is never lost.
    best = model.best(model.price, replace(effort, seconds=_HELD_S), cases.best, how="hold")
    return best or replace(first, plan=cases.best)
