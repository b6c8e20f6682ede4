"""The price of a replanned schedule: lateness, broken time limits, stretched tasks and tasks that move."""

from __future__ import annotations

from typing import Any

from substrata.scheduling.schedule_problem import Schedule, ScheduleProblem
from substrata.scheduling.solver.cp_model import Model

_LATE, _WINDOW, _STRETCH, _MOVED = 2000, 3000, 500, 100
STILL_MIN = 2  # minutes by which nobody would say that it moved


def replan_price(model: Model, problem: ScheduleProblem, plan: Schedule) -> Any:
    """Return what a replanned schedule costs, as an expression of its model.

    Args:
        model: of the rest of the plan, without its time limits.
        problem: as it was planned, with its time limits.
        plan: the schedule so far.

    Returns:
        The expression to be minimised.
    """
    m, later = model.model, model.problem
    price = _LATE * model.lateness
    for lag in problem.lags:
        after = later.task[lag.after]
        if lag.most is None or after.fixed_start is not None:
            continue
        over = m.new_int_var(0, later.horizon * 2, "")
        until = model.end[lag.after] if lag.to_end else model.start[lag.after]
        m.add(over >= until - model.end[lag.before] - lag.most)
        broken = m.new_bool_var("")
        m.add(over == 0).only_enforce_if(~broken)
        price += _WINDOW * broken + 20 * over
    for task in later.tasks:
        was = plan.placed.get(task.id)
        if was is None:
            continue
        if task.fixed_start is not None:
            if task.fixed_end is None:
                price += _STRETCH * (model.end[task.id] - task.fixed_start - task.minutes)
            continue
        off = m.new_int_var(0, later.horizon * 2, "")
        m.add_abs_equality(off, model.start[task.id] - was.start)
        moved = m.new_bool_var("")
        m.add(off <= STILL_MIN).only_enforce_if(~moved)
        price += _MOVED * moved + off
    return price
