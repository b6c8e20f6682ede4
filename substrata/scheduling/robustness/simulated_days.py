"""Days as they may go: each task with a length of its own, in the order of the plan."""

from __future__ import annotations

from math import log

import numpy as np

from substrata.base.tables.table_reader import whole_constant
from substrata.base.uncertainty import SDS_IN_HALF_90
from substrata.scheduling.schedule_problem import Placed, Schedule, ScheduleProblem, Task


class Days:
    """Many days of one plan, each with lengths of its own; every array has one number a day."""

    def __init__(self, problem: ScheduleProblem, plan: Schedule, runs: int, rng: np.random.Generator) -> None:
        self.problem, self.plan, self.runs = problem, plan, runs
        self.lengths = {task.id: _drawn(rng, task, runs) for task in problem.tasks}
        self.free = np.full((runs, problem.people), float(problem.now))
        self.start: dict[str, np.ndarray] = {}
        self.end: dict[str, np.ndarray] = {}
        self.into = {task.id: [lag for lag in problem.lags if lag.after == task.id] for task in problem.tasks}
        self.baked: list[tuple[Task, Placed]] = []

    def lived(self) -> None:
        """From the first work to the last."""
        for moment, task in _moments(self.problem, self.plan):
            if moment == "out":
                _served(self.free, self.end[task.id], task.tail)
            else:
                self._begin(task)

    def _begin(self, task: Task) -> None:
        at, length = self.plan.placed[task.id], self.lengths[task.id]
        begin = np.full(self.runs, float(self.problem.now))
        for lag in self.into[task.id]:
            begin = np.maximum(begin, self.end[lag.before] + lag.least)
        # At its time, or before its window closes when what went before was quick.
        starts = np.full(self.runs, float(at.start))
        for lag in self.into[task.id]:
            if lag.most is not None:
                starts = np.minimum(starts, self.end[lag.before] + lag.most - (length if lag.to_end else 0))
        begin = np.maximum(begin, starts)
        if task.ovens:
            begin = np.maximum(begin, _oven_ready(self.problem, task, at, self.baked, self.end, self.runs))
            self.baked.append((task, at))
        if task.fixed_start is not None:
            begin = np.full(self.runs, float(task.fixed_start))
        elif task.hands == "all":
            begin = _worked(self.free, begin, length)
        elif task.hands == "ends" and task.head:
            begin = _worked(self.free, begin, np.full(self.runs, float(task.head)))
        end = begin + length
        if task.passive:
            end = np.maximum(end, float(at.end))
        if task.fixed_end is not None:
            end = np.full(self.runs, float(task.fixed_end))
        self.start[task.id], self.end[task.id] = begin, end

    def windows(self) -> dict[str, np.ndarray]:
        """On which days a task comes after its time."""
        by_task: dict[str, np.ndarray] = {}
        for lag in self.problem.lags:
            if lag.most is not None and self.problem.task[lag.after].fixed_start is None:
                when = (self.end if lag.to_end else self.start)[lag.after]
                over = when - self.end[lag.before] - lag.most > whole_constant("plan_window_min")
                by_task[lag.after] = by_task.get(lag.after, np.zeros(self.runs, bool)) | over
        return by_task

    def late(self) -> dict[str, np.ndarray]:
        """And on which a bake is late."""
        return {
            due.task: self.end[due.task] - due.minute > whole_constant("plan_late_min") for due in self.problem.dues
        }


def _drawn(rng: np.random.Generator, task: Task, runs: int) -> np.ndarray:
    if task.fixed_end is not None or task.high <= task.low or task.passive:
        return np.full(runs, float(task.usual if not task.passive else task.minutes))
    sd = log(task.high / max(task.low, 1)) / (2 * SDS_IN_HALF_90)
    return np.asarray(task.usual * np.exp(sd * rng.standard_normal(runs)))


def _moments(problem: ScheduleProblem, plan: Schedule) -> list[tuple[str, Task]]:
    """Beginnings, and takings out of the oven, in the order of the plan; of what begins together, what waits comes last."""
    rows = [(plan.placed[t.id].start, 1, "in", t) for t in problem.tasks]
    rows += [
        (plan.placed[t.id].end - t.tail, 0, "out", t)
        for t in problem.tasks
        if t.hands == "ends" and t.tail and t.fixed_end is None
    ]
    depth = {t.id: 0 for t in problem.tasks}
    for _ in problem.tasks:
        for lag in problem.lags:
            depth[lag.after] = max(depth[lag.after], min(depth[lag.before] + 1, len(problem.tasks)))
    rows.sort(key=lambda row: (row[0], row[1], depth[row[3].id]))
    # What waits for another is never looked at before it.
    return [(kind, task) for _, _, kind, task in rows]


def _served(free: np.ndarray, at: np.ndarray, minutes: int) -> None:
    """Somebody takes it out at once, and what they do takes so much longer."""
    runs = np.arange(len(free))
    who = free.argmin(axis=1)
    free[runs, who] = np.maximum(free[runs, who], at) + minutes


def _worked(free: np.ndarray, begin: np.ndarray, minutes: np.ndarray) -> np.ndarray:
    """Return the first who is free begins; returns when."""
    runs = np.arange(len(free))
    who = free.argmin(axis=1)
    begin = np.maximum(begin, free[runs, who])
    free[runs, who] = begin + minutes
    return begin


def _oven_ready(
    problem: ScheduleProblem,
    task: Task,
    at: Placed,
    before: list[tuple[Task, Placed]],
    end: dict[str, np.ndarray],
    runs: int,
) -> np.ndarray:
    """When an oven is empty enough and has its temperature."""
    oven = problem.oven_named(at.oven)
    ready = np.full(runs, 0.0 if before else float(at.start))
    for other, previous in before:
        if previous.oven != at.oven or other.id not in end:
            continue
        if not task.shares(other, oven.share_k):
            ready = np.maximum(ready, end[other.id] + oven.gap(other.leaves_c, task.temp_c))
        elif previous.end <= at.start and other.trays + task.trays > oven.trays:
            ready = np.maximum(ready, end[other.id])
    return ready
