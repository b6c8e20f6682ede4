"""``plan_of``: a plan document planned, by as much care as leaves nobody late, or mended where it is under way."""

from __future__ import annotations

from dataclasses import replace

from substrata.base.errors import FormulaError
from substrata.scheduling.plans.late_remedies import clashes, helps, pressed
from substrata.scheduling.plans.pinned_tasks import check_pins
from substrata.scheduling.plans.plan_answer import MovedTask, Offered, Planned, plan_answer
from substrata.scheduling.plans.planning_case import PlanningCase
from substrata.scheduling.plans.replanning import Happened, replan
from substrata.scheduling.robustness.robust_plan import CARES, STALE, Care, careful
from substrata.scheduling.schedule_problem import Placed, Schedule, ScheduleProblem, minutes_late
from substrata.scheduling.solver.list_schedule import listed
from substrata.scheduling.solver.search_effort import Effort
from substrata.scheduling.solver.solve import solve

_FIRST_S = 3.0  # for each step of care that comes late, before the next is tried


def make_plan(case: PlanningCase, *, effort: Effort = Effort(), on_better: Offered | None = None) -> Planned:  # noqa: B008 - frozen
    """Plan it, as carefully as its deadlines allow.

    Args:
        case: what is wanted.
        effort: search time limit.
        on_better: is offered every better plan, which is worked out only when it is called for; False stops the search.

    Returns:
        The plan with its robustness.

    Raises:
        FormulaError: when it cannot be planned at all.
    """
    problem = case.problem
    if case.plan.happened:
        return _replanned(case, effort)
    check_pins(problem, case.clock)
    hard = pressed(problem)
    best: tuple[Schedule, Care] | None = None
    for care in CARES:
        show = (lambda better, care=care: on_better(lambda: plan_answer(case, better, care))) if on_better else None
        seconds = effort.seconds if best is None else max(effort.seconds / 3, _FIRST_S)
        schedule = solve(careful(problem, care), replace(effort, seconds=seconds), on_better=show)
        if not schedule.placed:
            continue
        schedule = replace(schedule, late=minutes_late(problem, schedule.placed))
        if best is None or sum(schedule.late.values()) < sum(best[0].late.values()):
            best = schedule, care
        # A bake whose own work is too long is late however carelessly it is planned.
        if not schedule.late or hard:
            break
    best = best or _at_all(problem, effort)
    planned = plan_answer(case, *best)
    if best[0].late and effort.seconds >= 1:
        planned = replace(planned, helps=helps(problem, replace(effort, seconds=min(1.5, effort.seconds))))
    return planned


def _at_all(problem: ScheduleProblem, effort: Effort) -> tuple[Schedule, Care]:
    """Return a plan where no careful one was found: without freshness, which is said, else by a plain list.

    Raises:
        FormulaError: when there is none.
    """
    free = replace(problem, dues=tuple(replace(due, fresh=None) for due in problem.dues))
    schedule = solve(free, effort)
    if schedule.placed:
        return replace(schedule, late=minutes_late(problem, schedule.placed)), STALE
    by_list = listed(problem)
    if by_list is None:
        raise FormulaError(
            "no plan was found",
            got=f"{len(problem.tasks)} tasks",
            allowed="a plan that can be done",
            remedy=str(clashes(problem)),
        )
    return by_list, CARES[-1]


def _replanned(case: PlanningCase, effort: Effort) -> Planned:
    """Return a plan that is under way: what happened is told by its pins, what was planned by the others."""
    clock, problem = case.clock, case.problem
    happened = tuple(
        Happened(
            task=event.task,
            start=clock.minute(event.start, "happened.start"),
            end=clock.minute(event.end, "happened.end") if event.end else None,
            expected=clock.minute(event.expected, "happened.expected") if event.expected else None,
        )
        for event in case.plan.happened
    )
    strange = {event.task for event in happened} - set(problem.task)
    if strange:
        raise FormulaError(
            "the event does not belong to a task of this plan",
            got=", ".join(sorted(strange))[:80],
            allowed="tasks of the plan",
            field="happened",
        )
    unplanned = [task.id for task in problem.tasks if task.fixed_start is None]
    if unplanned:
        raise FormulaError(
            "a plan in progress needs the current time of every task",
            got=f"{len(unplanned)} tasks could not be scheduled",
            allowed="a pin for every task",
            remedy="send the plan's own times as pins",
            field="pins",
        )
    was = Schedule(
        placed={
            t.id: Placed(
                start=t.fixed_start or 0, end=(t.fixed_start or 0) + t.minutes, oven=t.ovens[0] if t.ovens else ""
            )
            for t in problem.tasks
        },
        status="feasible",
    )
    open_ = replace(problem, tasks=tuple(replace(t, fixed_start=None) for t in problem.tasks))
    now = max([*(event.end or event.start for event in happened), *(0,)])
    result = replan(open_, was, happened, now, replace(effort, seconds=min(effort.seconds, 5.0)))
    if result is None:
        raise FormulaError(
            "no plan found in the time allowed",
            got=f"{len(open_.tasks)} tasks",
            allowed="a plan that can be done",
            remedy="try again",
        )
    under_way = replace(case, problem=result.problem)
    answer = plan_answer(under_way, replace(result.plan, late=minutes_late(problem, result.plan.placed)), CARES[-1])
    return replace(
        answer,
        moved=tuple(MovedTask(task=key, minutes=by) for key, by in result.moved),
        broken=result.broken,
        text=result.text,
    )
