"""Tasks that a baker has put somewhere: taken over, and looked at before anything is planned around them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from substrata.base.errors import FormulaError
from substrata.scheduling.plans.plan_document import Clock, Pin
from substrata.scheduling.schedule_problem import Placed, ScheduleProblem, Task, hand_times


def pinned(tasks: Sequence[Task], pins: Sequence[Pin], clock: Clock) -> list[Task]:
    """Return the tasks, those with a pin held where it says.

    Raises:
        FormulaError: when a pin names no task.
    """
    where = {pin.task: clock.minute(pin.start, "pins.start") for pin in pins}
    strange = set(where) - {task.id for task in tasks}
    if strange:
        raise FormulaError(
            "a pin names no task of the plan",
            got=", ".join(sorted(strange))[:80],
            allowed=", ".join(task.id for task in tasks)[:200],
            remedy="remove the pin",
            field="pins",
        )
    return [replace(task, fixed_start=max(where[task.id], 0)) if task.id in where else task for task in tasks]


def check_pins(problem: ScheduleProblem, clock: Clock) -> None:
    """Refuse pins that cannot be, whatever else is planned: before what they wait for, or two at once for one pair of hands.

    Raises:
        FormulaError: naming the pin, and the earliest time at which it could be.
    """
    earliest = _earliest(problem)
    for task in problem.tasks:
        if task.fixed_start is not None and task.fixed_start < earliest[task.id]:
            raise FormulaError(
                f"“{task.text}” cannot start so early",
                got=f"{clock.time(task.fixed_start):%H:%M}",
                allowed=f"from {clock.time(earliest[task.id]):%a %H:%M} on",
                remedy="pin it to a later time, or unpin it",
                field="pins",
            )
    _hands(problem, clock)


def _earliest(problem: ScheduleProblem) -> dict[str, int]:
    """Return the minute at which each task can begin at the earliest, by what it waits for; a pinned one counts from where it stands."""
    known: dict[str, int] = {}
    into: dict[str, list[tuple[str, int]]] = {task.id: [] for task in problem.tasks}
    for lag in problem.lags:
        into[lag.after].append((lag.before, lag.least))

    def begin(key: str) -> int:
        if key not in known:
            task = problem.task[key]
            known[key] = problem.now + _heated(problem, task)
            known[key] = max([known[key], *(_over(problem.task[before]) + least for before, least in into[key])])
        return known[key]

    def _over(task: Task) -> int:
        start = begin(task.id) if task.fixed_start is None else task.fixed_start
        return start + task.minutes

    for task in problem.tasks:
        begin(task.id)
    return known


def _heated(problem: ScheduleProblem, task: Task) -> int:
    if not task.ovens or problem.hot:
        return 0
    return min(problem.oven_named(name).heating(task.temp_c) for name in task.ovens)


def _hands(problem: ScheduleProblem, clock: Clock) -> None:
    spans = [
        (start, end, task)
        for task in problem.tasks
        if task.fixed_start is not None
        for start, end in hand_times(task, Placed(start=task.fixed_start, end=task.fixed_start + task.minutes))
    ]
    spans.sort(key=lambda span: span[:2])
    for n, (start, _, task) in enumerate(spans):
        busy = [other for earlier_span, end, other in spans[:n] if end > start and other is not task]
        if len(busy) >= problem.people:
            raise FormulaError(
                f"“{task.text}” and “{busy[-1].text}” are pinned to the same time",
                got=f"{clock.time(start):%H:%M}",
                allowed=f"{problem.people} at a time, with {problem.people} people",
                remedy="unpin one of them",
                field="pins",
            )
