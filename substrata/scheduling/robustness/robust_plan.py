"""Plans that hold: bakes planned at their ninetieth hundredth, windows shortened by it, hands kept free to look, and how likely it holds.

Solving is easy and holding is not: a plan of usual times holds in fewer than half of simulated days. Padding alone saves deadlines and
breaks windows, for the bake is done early while the hands are elsewhere; so windows shrink by as much as the padding may spring back. A
solver fills every window to its brim, and the first work that takes a little longer breaks it: so some of each is left unused.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import ceil, exp, floor, log

import numpy as np

from substrata.base.messages.message import Message, Wording
from substrata.base.tables.table_reader import whole_constant
from substrata.base.uncertainty import SDS_IN_HALF_90
from substrata.scheduling.robustness.simulated_days import Days
from substrata.scheduling.schedule_problem import Lag, Schedule, ScheduleProblem, Task

_TENTH_SDS = 1.2816  # of a normal from its middle to one tenth
RUNS = 400
_SELDOM, _MOST_TIGHT = 0.02, 4  # days below which a slip is not told, and how many are
# Of a window this share is left unused, up to so many minutes: work before it takes longer, and hands are busy (house choice).
_UNUSED, _UNUSED_MOST = 0.15, 10


@dataclass(frozen=True, kw_only=True)
class Care:
    """How carefully is planned."""

    name: Wording
    padded: bool
    windows: bool
    watched: bool
    early: int


# From the most careful on; when a plan comes late the next is tried.
CARES = (
    Care(name=Message("robust-plan-planned-with-slow-baking-times"), padded=True, windows=True, watched=True, early=whole_constant("ready_early_min")),
    Care(name=Message("robust-plan-planned-with-slow-baking-times-2"), padded=True, windows=True, watched=True, early=0),
    Care(name=Message("robust-plan-planned-with-slow-baking-times-3"), padded=True, windows=True, watched=False, early=0),
    Care(name=Message("robust-plan-planned-with-usual-times"), padded=False, windows=False, watched=False, early=0),
)  # fmt: skip

# When freshness and all else cannot be had together.
STALE = Care(
    name=Message("robust-plan-planned-with-usual-times-not"),
    padded=False,
    windows=False,
    watched=False,
    early=0,
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
    text: Wording


@dataclass(frozen=True, kw_only=True)
class Holds:
    """How likely a plan holds."""

    share: float  # nobody more than 5 min late, and no window broken by more than 2
    in_time: float
    windows: float
    tight: tuple[Tight, ...]
    text: Wording


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
    days = Days(problem, plan, runs, np.random.default_rng(seed))
    days.lived()
    windows, late = days.windows(), days.late()
    none = np.zeros(runs, bool)
    broken = np.any([none, *windows.values()], axis=0)
    missed = np.any([none, *late.values()], axis=0)
    shares = {key: float(row.mean()) for key, row in (windows | late).items() if row.mean() >= _SELDOM}
    tight = [
        Tight(task=key, share=share, text=Message("robust-plan-parts", text=problem.task[key].text, odds=_odds(share)))
        for key, share in sorted(shares.items(), key=lambda row: -row[1])[:_MOST_TIGHT]
    ]
    share = float(np.mean(~missed & ~broken))
    return Holds(
        share=share,
        in_time=float(np.mean(~missed)),
        windows=float(np.mean(~broken)),
        tight=tuple(tight),
        text=Message("robust-plan-works-on-days-counted-on", about=about(share), runs=runs),
    )


def about(share: float) -> Wording:
    """Return a share as it is said: "about 9 in 10"."""
    if share > 0.985:
        return Message("robust-plan-nearly-all")
    if share > 0.93:
        return Message("robust-plan-more-than-in")
    return (
        Message("robust-plan-about-in", share=round(10 * share)) if share >= 0.05 else Message("robust-plan-hardly-any")
    )


def _odds(share: float) -> Wording:
    return (
        Message("robust-plan-day-in", share=max(round(1 / share), 1))
        if share <= 0.6
        else Message("robust-plan-days-in", share=round(10 * share))
    )
