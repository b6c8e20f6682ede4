"""Plans that hold: bakes planned at their ninetieth hundredth, windows shortened by it, hands kept free to look, and how likely it holds.

Solving is easy and holding is not: a plan of usual times holds in fewer than half of simulated days. Padding alone saves deadlines and
breaks windows, for the bake is done early while the hands are elsewhere; so windows shrink by as much as the padding may spring back. A
solver fills every window to its brim, and the first work that takes a little longer breaks it: so some of each is left unused.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import ceil, exp, floor, log

import numpy as np

from substrata.base.tables.table_reader import whole_constant
from substrata.base.uncertainty import SDS_IN_HALF_90
from substrata.scheduling.schedule_problem import Lag, Placed, Schedule, ScheduleProblem, Task

_TENTH_SDS = 1.2816  # of a normal from its middle to one tenth
RUNS = 400
_SELDOM, _MOST_TIGHT = 0.02, 4  # days below which a slip is not told, and how many are
# Of a window this share is left unused, up to so many minutes: work before it takes longer, and hands are busy (house choice).
_UNUSED, _UNUSED_MOST = 0.15, 10


@dataclass(frozen=True, kw_only=True)
class Care:
    """How carefully is planned."""

    name: str
    padded: bool
    windows: bool
    watched: bool
    early: int


# From the most careful on; when a plan comes late the next is tried.
CARES = (
    Care(name="bakes at their slow end, windows shortened, hands free to look, ready early", padded=True, windows=True, watched=True, early=whole_constant("ready_early_min")),
    Care(name="bakes at their slow end, windows shortened, hands free to look", padded=True, windows=True, watched=True, early=0),
    Care(name="bakes at their slow end, windows shortened", padded=True, windows=True, watched=False, early=0),
    Care(name="usual times", padded=False, windows=False, watched=False, early=0),
)  # fmt: skip

# When freshness and all else cannot be had together.
STALE = Care(
    name="usual times, and not all of it as fresh as was wanted", padded=False, windows=False, watched=False, early=0
)


def slow(task: Task, sds: float = _TENTH_SDS) -> int:
    """Minutes that a task takes in the slowest tenth; the quick tenth with −1.2816."""
    if task.high <= task.low:
        return task.usual
    sd = log(task.high / max(task.low, 1)) / (2 * SDS_IN_HALF_90)
    minutes = task.usual * exp(sds * sd)
    return ceil(minutes - 1e-9) if sds > 0 else floor(minutes)


def careful(problem: ScheduleProblem, care: Care) -> ScheduleProblem:
    """Return the problem as it is planned: longer bakes, shorter windows, hands by the oven."""
    tasks = _watched_together(problem, tuple(_padded(task, care) for task in problem.tasks))
    lags = tuple(_shortened({t.id: t for t in tasks}, lag) for lag in problem.lags) if care.windows else problem.lags
    dues = tuple(
        replace(
            due, minute=due.minute - care.early, fresh=None if due.fresh is None else max(due.fresh - care.early, 0)
        )
        for due in problem.dues
    )
    return replace(problem, tasks=tasks, lags=lags, dues=dues)


def _padded(task: Task, care: Care) -> Task:
    if not care.padded or task.passive or task.fixed_end is not None or task.hands == "all":
        return task
    minutes = max(slow(task), task.minutes)
    watch = (
        min(max(minutes - slow(task, -_TENTH_SDS), 0), whole_constant("watch_most_min"))
        if care.watched and task.ovens
        else 0
    )
    room = minutes - task.head - task.tail
    return replace(task, minutes=minutes, watch=max(min(watch, room), 0))


def _watched_together(problem: ScheduleProblem, tasks: tuple[Task, ...]) -> tuple[Task, ...]:
    """Return what goes into the oven at once is looked at by the same eyes: hands are kept free for what is left when the rest is out.

    Each kept free for itself, two sorts of one crust that are topped and baked side by side could not be planned with care at all.
    """
    by_id = {task.id: task for task in tasks}
    beside: dict[str, list[Task]] = {}
    for lag in problem.lags:
        if lag.most is not None and lag.most <= whole_constant("follows_at_once_min") and problem.task[lag.after].ovens:
            beside.setdefault(lag.before, []).append(by_id[lag.after])
    watched = {task.id: task.watch for task in tasks}
    for group in beside.values():
        rest, last = sorted(group, key=lambda task: task.minutes)[:-1], max(group, key=lambda task: task.minutes)
        if rest:
            room = last.minutes - rest[-1].minutes - last.tail - sum(task.head + task.tail for task in rest)
            watched |= {task.id: 0 for task in rest} | {last.id: max(min(last.watch, room), 0)}
    return tuple(replace(task, watch=watched[task.id]) for task in tasks)


def _shortened(tasks: dict[str, Task], lag: Lag) -> Lag:
    """Return a window by as much shorter as the bake before it may be done early, for it is counted from when it is done; and some for busy hands."""
    if lag.most is None:
        return lag
    before = tasks[lag.before]
    spare = before.minutes - slow(before, -_TENTH_SDS) if before.ovens else 0
    if lag.to_end:  # and by the slowness of the work that must be over within it
        spare += slow(tasks[lag.after]) - tasks[lag.after].minutes if tasks[lag.after].hands == "all" else 0
    least = lag.least + (tasks[lag.after].minutes if lag.to_end else 0)
    spare = max(spare, 0) + whole_constant("plan_window_min") + round(min(_UNUSED * lag.most, _UNUSED_MOST))
    return replace(lag, most=max(lag.most - spare, least, 0))


@dataclass(frozen=True, kw_only=True)
class Tight:
    """Where a plan is tightest."""

    task: str
    share: float  # of the days on which it slips
    text: str


@dataclass(frozen=True, kw_only=True)
class Holds:
    """How likely a plan holds."""

    share: float  # nobody more than 5 min late, and no window broken by more than 2
    in_time: float
    windows: float
    tight: tuple[Tight, ...]
    text: str


def holds(problem: ScheduleProblem, plan: Schedule, *, runs: int = RUNS, seed: int = 7) -> Holds:
    """How often a plan holds when every task takes as long as it may (log-normal in its range).

    The order of the plan is kept; a bake is taken out when it is done, which interrupts other work; nothing begins before its time but
    what would miss its window.

    Args:
        problem: with the tasks' true lengths, windows and deadlines.
        plan: of it, however carefully it was planned.
        runs: simulated days.
        seed: of their chance.

    Returns:
        The share of simulated days that hold, with its causes.
    """
    days = _Days(problem, plan, runs, np.random.default_rng(seed))
    days.lived()
    windows, late = days.windows(), days.late()
    none = np.zeros(runs, bool)
    broken = np.any([none, *windows.values()], axis=0)
    missed = np.any([none, *late.values()], axis=0)
    shares = {key: float(row.mean()) for key, row in (windows | late).items() if row.mean() >= _SELDOM}
    tight = [
        Tight(task=key, share=share, text=f"{problem.task[key].text}, {_odds(share)}")
        for key, share in sorted(shares.items(), key=lambda row: -row[1])[:_MOST_TIGHT]
    ]
    share = float(np.mean(~missed & ~broken))
    return Holds(
        share=share,
        in_time=float(np.mean(~missed)),
        windows=float(np.mean(~broken)),
        tight=tuple(tight),
        text=f"holds on {about(share)} days",
    )


class _Days:
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


def about(share: float) -> str:
    """Return a share as it is said: "about 9 in 10"."""
    if share > 0.985:
        return "nearly all"
    if share > 0.93:
        return "more than 9 in 10"
    return f"about {round(10 * share)} in 10" if share >= 0.05 else "hardly any"


def _odds(share: float) -> str:
    return f"1 day in {max(round(1 / share), 1)}" if share <= 0.6 else f"{round(10 * share)} days in 10"


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
