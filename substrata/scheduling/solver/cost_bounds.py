"""What a plan costs at least, whatever its order: what the solver does not see by itself."""

from __future__ import annotations

from dataclasses import replace
from math import ceil

from substrata.base.tables.table_reader import constant
from substrata.scheduling.schedule_problem import ScheduledOven, ScheduleProblem, Task

TIED_MIN = 60  # minutes that may lie between what is tied to an oven and the oven


def least_on(oven: ScheduledOven, rows: list[Task]) -> int:
    """Minutes that an oven is on at least: what cannot share it comes one after the other, and it has to get as hot as the hottest.

    Stages that may share it, be it through others, are one group; a group takes as long as its longest, and as its trays one beside
    the other. Stages no two of which can be in it at once take as long as all of them. However they are ordered, all heating up
    together is at least from the room to the hottest stage.

    Returns:
        Minutes.
    """
    hottest = max(task.temp_c for task in rows)
    apart = sum(task.minutes for task in _sequential(oven, rows))
    return max(_in_groups(oven, rows), apart) + oven.heating(max(hottest - oven.share_k, constant("cold_oven_c")))


def _sequential(oven: ScheduledOven, rows: list[Task]) -> list[Task]:
    """Stages no two of which can be in an oven at once, taken by their length."""
    chosen: list[Task] = []
    for task in sorted(rows, key=lambda t: (-t.minutes, t.id)):
        if all(task.trays + other.trays > oven.trays or not task.shares(other, oven.share_k) for other in chosen):
            chosen.append(task)
    return chosen


def _in_groups(oven: ScheduledOven, rows: list[Task]) -> int:
    remaining, least = list(rows), 0
    while remaining:
        group = [remaining.pop()]
        for task in group:  # grows while it is gone through
            near = [other for other in remaining if task.shares(other, oven.share_k)]
            group += near
            remaining = [other for other in remaining if other not in near]
        filled = ceil(sum(task.minutes * task.trays for task in group) / oven.trays)
        least += max(filled, *(task.minutes for task in group))
    return least


def tied(problem: ScheduleProblem, most: int = TIED_MIN) -> ScheduleProblem:
    """Return what is tied to the ovens: their stages, all that comes after one, and what has to be done so soon before.

    What may be done long before is left out. Every plan of the whole is one of this, so that what this costs at least the whole does too.

    Args:
        problem: the whole of it.
        most: minutes, the longest greatest lag that ties one task to the next.
    """
    before: dict[str, list[str]] = {}
    after: dict[str, list[str]] = {}
    for lag in problem.lags:
        after.setdefault(lag.before, []).append(lag.after)
        if lag.most is not None and lag.most <= most:
            before.setdefault(lag.after, []).append(lag.before)
    task_ids = [task.id for task in problem.tasks if task.ovens]
    for neighbours in (after, before):
        for key in task_ids:  # grows while it is gone through
            task_ids += [other for other in neighbours.get(key, ()) if other not in task_ids]
    task_ids += [due.task for due in problem.dues if due.task not in task_ids]
    names = set(task_ids)
    return replace(
        problem,
        tasks=tuple(task for task in problem.tasks if task.id in names),
        lags=tuple(lag for lag in problem.lags if lag.before in names and lag.after in names),
        holds=tuple(hold for hold in problem.holds if hold.since in names and hold.until in names),
    )


def work(problem: ScheduleProblem) -> int:
    """Minutes of hands that are still to come."""
    return sum(
        task.minutes if task.hands == "all" else task.head + task.tail + task.watch
        for task in problem.tasks
        if task.hands != "none" and task.fixed_end is None
    )


def anchors(problem: ScheduleProblem) -> frozenset[str]:
    """Bakes that hold a day in its place once one of them is at its due: those in an oven, or all where there is none."""
    dues = {due.bake for due in problem.dues}
    return frozenset({task.bake for task in problem.tasks if task.ovens} & dues or dues)


def movable(problem: ScheduleProblem) -> bool:
    """Whether a day can begin later as a whole: nobody sleeps in it, nothing has begun or is pinned."""
    return not problem.hot and not problem.closed and all(task.fixed_start is None for task in problem.tasks)
