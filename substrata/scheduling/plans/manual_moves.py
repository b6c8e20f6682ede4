"""A plan changed by hand: what stands in the way of a task that is dragged, and the plan in which one takes longer."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from substrata.base.errors import FormulaError
from substrata.base.messages.message import Message, Wording
from substrata.scheduling.plans.plan_document import Clock, Pin, Plan
from substrata.scheduling.plans.planning_case import PlanningCase
from substrata.scheduling.schedule_problem import Placed, Schedule, ScheduleProblem
from substrata.scheduling.solver.plan_check import faults


@dataclass(frozen=True, kw_only=True)
class MoveConflict:
    """Why a task cannot be where it was dragged to."""

    kind: str
    task: str  # the other; "" for none
    text: Wording


def conflicts(case: PlanningCase, placed: Mapping[str, Placed], task: str, start: int) -> tuple[MoveConflict, ...]:
    """Return what stands in the way of moving one task; what comes after it in its own bake moves along.

    Args:
        case: the plan.
        placed: where everything is.
        task: that is moved.
        start: minute it is moved to.

    Raises:
        FormulaError: when there is no such task.
    """
    problem = case.problem
    if task not in problem.task or task not in placed:
        raise FormulaError("task not found", got=task[:40], allowed="a task of the plan", field="task")
    missing = [key for key in problem.task if key not in placed]
    if missing:
        raise FormulaError(
            "the formulas changed after this plan was made",
            got=", ".join(missing)[:60],
            allowed="the plan of these formulas",
            remedy="plan it again",
            field="task",
        )
    by = start - placed[task].start
    along = _after(problem, task) if by > 0 else {task}
    moved = {
        key: Placed(start=at.start + by, end=at.end + by, oven=at.oven) if key in along else at
        for key, at in placed.items()
    }
    free = replace(problem, tasks=tuple(replace(t, fixed_start=None) for t in problem.tasks))
    before = {(fault.kind, fault.text) for fault in faults(free, Schedule(placed=dict(placed), status="feasible"))}
    by_task: dict[tuple[str, Wording], MoveConflict] = {}
    for fault in faults(free, Schedule(placed=moved, status="feasible")):
        if (fault.kind, fault.text) not in before:
            other = next((key for key in fault.tasks if key != task), "")
            by_task.setdefault(
                (fault.kind, fault.text),
                MoveConflict(kind=fault.kind, task=other, text=fault.text),
            )
    for due in problem.dues:
        over = moved[due.task].end - due.minute
        if due.task in along and over > 0:
            by_task["late", due.bake] = MoveConflict(
                kind="late", task="", text=Message("manual-moves-min-late", due_name=due.name, over=over)
            )
    return tuple(by_task.values())


def _after(problem: ScheduleProblem, task: str) -> set[str]:
    """Return a task and everything that waits for it."""
    followers, frontier = {task}, [task]
    while frontier:
        current = frontier.pop()
        for lag in problem.lags:
            if lag.before == current and lag.after not in followers:
                followers.add(lag.after)
                frontier.append(lag.after)
    return followers


def slipped(case: PlanningCase, placed: Mapping[str, Placed], task: str, minutes: int) -> Plan:
    """Return the plan in which a task takes longer: what came before it is done, what runs beside it goes on.

    Raises:
        FormulaError: when there is no such task.
    """
    if task not in case.problem.task or task not in placed:
        raise FormulaError("task not found", got=task[:40], allowed="a task of the plan", field="task")
    clock = case.clock
    now = placed[task].end
    rows = []
    for key, at in placed.items():
        if key == task:
            rows.append(Pin(task=key, start=_conflict(clock, at.start), expected=_conflict(clock, at.end + minutes)))
        elif at.end <= now:
            rows.append(Pin(task=key, start=_conflict(clock, at.start), end=_conflict(clock, at.end)))
        elif at.start < now:
            rows.append(Pin(task=key, start=_conflict(clock, at.start)))
    pins = tuple(Pin(task=key, start=_conflict(clock, at.start)) for key, at in placed.items())
    return replace(case.plan, pins=pins, happened=tuple(rows))


def _conflict(clock: Clock, minute: int) -> str:
    return clock.time(minute).isoformat()
