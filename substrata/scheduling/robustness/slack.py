"""By how much each task of a plan may move while all others stay where they are."""

from __future__ import annotations

from substrata.scheduling.schedule_problem import Schedule, ScheduleProblem, hand_times

_MOST_SLACK = 240


def task_slack(problem: ScheduleProblem, schedule: Schedule) -> dict[str, int]:
    """By how much each task may move later while all others stay where they are."""
    busy = sorted((start, end, t.id) for t in problem.tasks for start, end in hand_times(t, schedule.placed[t.id]))
    slack = {}
    for task in problem.tasks:
        at = schedule.placed[task.id]
        room = [_MOST_SLACK, *(due.minute - at.end for due in problem.dues if due.task == task.id)]
        for lag in problem.lags:
            if lag.before == task.id:
                room.append(schedule.placed[lag.after].start - lag.least - at.end)
            elif lag.after == task.id and lag.most is not None:
                room.append(schedule.placed[lag.before].end + lag.most - (at.end if lag.to_end else at.start))
        for start, end in hand_times(task, at):
            others = [a for a, b, key in busy if key != task.id and b > start]
            if len(others) >= problem.people:
                room.append(sorted(others)[problem.people - 1] - end)
            room += [a - end for a, _ in problem.closed if a >= end]
        if task.ovens:
            oven = problem.oven_named(at.oven)
            for other in problem.tasks:
                placed = schedule.placed[other.id]
                if other.ovens and other is not task and placed.oven == at.oven and placed.start >= at.end:
                    gap = 0 if task.shares(other, oven.share_k) else oven.gap(task.leaves_c, other.temp_c)
                    room.append(placed.start - gap - at.end)
        slack[task.id] = 0 if task.fixed_start is not None else max(min(room), 0)
    return slack
