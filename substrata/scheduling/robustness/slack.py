"""By how much each task of a plan may move while all others stay where they are."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from substrata.scheduling.schedule_problem import Schedule, ScheduleProblem, Task, hand_times

_MOST_SLACK = 240


def task_slack(problem: ScheduleProblem, schedule: Schedule) -> dict[str, int]:
    """Compute by how many minutes each task may move later while all others stay where they are.

    Args:
        problem: the tasks and what binds them.
        schedule: where each lies.

    Returns:
        Minutes by task, at most four hours; none for a task that is fixed.
    """
    busy = sorted((start, end, t.id) for t in problem.tasks for start, end in hand_times(t, schedule.placed[t.id]))
    return {
        task.id: max(
            min(
                (
                    _MOST_SLACK,
                    *_before_due(task, problem, schedule),
                    *_before_lags(task, problem, schedule),
                    *_before_hands(task, problem, schedule, busy),
                    *_before_oven(task, problem, schedule),
                )
            ),
            0,
        )
        if task.fixed_start is None
        else 0
        for task in problem.tasks
    }


def _before_due(task: Task, problem: ScheduleProblem, schedule: Schedule) -> Iterator[int]:
    for due in problem.dues:
        if due.task == task.id:
            yield due.minute - schedule.placed[task.id].end


def _before_lags(task: Task, problem: ScheduleProblem, schedule: Schedule) -> Iterator[int]:
    """Yield the minutes to what follows it, and until it is too late after what it follows."""
    at = schedule.placed[task.id]
    for lag in problem.lags:
        if lag.before == task.id:
            yield schedule.placed[lag.after].start - lag.least - at.end
        elif lag.after == task.id and lag.most is not None:
            yield schedule.placed[lag.before].end + lag.most - (at.end if lag.to_end else at.start)


def _before_hands(
    task: Task, problem: ScheduleProblem, schedule: Schedule, busy: Sequence[tuple[int, int, str]]
) -> Iterator[int]:
    """Yield the minutes until nobody is free for it, and until nobody works."""
    for start, end in hand_times(task, schedule.placed[task.id]):
        others = [a for a, b, key in busy if key != task.id and b > start]
        if len(others) >= problem.people:
            yield sorted(others)[problem.people - 1] - end
        yield from (a - end for a, _ in problem.closed if a >= end)


def _before_oven(task: Task, problem: ScheduleProblem, schedule: Schedule) -> Iterator[int]:
    """Yield the minutes until its oven is wanted for something else."""
    if not task.ovens:
        return
    at = schedule.placed[task.id]
    oven = problem.oven_named(at.oven)
    for other in problem.tasks:
        placed = schedule.placed[other.id]
        if other.ovens and other is not task and placed.oven == at.oven and placed.start >= at.end:
            gap = 0 if task.shares(other, oven.share_k) else oven.gap(task.leaves_c, other.temp_c)
            yield placed.start - gap - at.end
