"""A plan by a plain list, backwards from the deadlines: what is there when the solver is not, and what it must never be worse than."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from itertools import permutations

from substrata.scheduling.schedule_problem import Lag, Placed, Schedule, ScheduleProblem, Task, hand_times, minutes_late

_MOST_ORDERS = 24
_LONGEST = 1440  # minutes that anything waits


def listed(problem: ScheduleProblem) -> Schedule | None:
    """Return the best of a few orders of the bakes, each placed as a block, as late as its deadline allows, else as early as it goes.

    Returns:
        A plan that can be done; None where none was found.
    """
    bakes = list(dict.fromkeys(task.bake for task in problem.tasks))
    dues = {due.bake: due.minute for due in problem.dues}
    bakes.sort(key=lambda bake: -dues.get(bake, 0))
    best: tuple[int, Schedule] | None = None
    orders: list[Sequence[str]] = [bakes, bakes[::-1]]
    if len(bakes) <= 5:
        orders += list(permutations(bakes))[:_MOST_ORDERS]
    else:
        orders += [bakes[n:] + bakes[:n] for n in range(1, len(bakes))]
    for order in orders:
        plan = _built(problem, order)
        if plan is not None:
            worth = sum(plan.late.values()) * 10_000 - sum(at.start for at in plan.placed.values()) // max(
                len(plan.placed), 1
            )
            if best is None or worth < best[0]:
                best = worth, plan
    return best[1] if best else None


@dataclass
class _Occupied:
    """What is taken already, minute by minute."""

    hands: dict[int, int] = field(default_factory=dict)
    things: dict[tuple[str, int], int] = field(default_factory=dict)
    ovens: dict[str, list[tuple[int, int, Task]]] = field(default_factory=dict)


def _built(problem: ScheduleProblem, order: Sequence[str]) -> Schedule | None:
    occupied, placed = _Occupied(), {}
    for task in problem.tasks:
        if task.fixed_start is not None:
            end = task.fixed_end if task.fixed_end is not None else task.fixed_start + task.minutes
            placed[task.id] = Placed(start=task.fixed_start, end=end, oven=task.ovens[0] if task.ovens else "")
            _take(occupied, task, placed[task.id])
    for bake in order:
        tasks = _sorted(problem, bake)
        lags = [lag for lag in problem.lags if problem.task[lag.after].bake == bake]
        due = next((d for d in problem.dues if d.bake == bake), None)
        block = _fitted(problem, occupied, tasks, lags, due.minute if due else problem.horizon, placed)
        if block is None:
            return None
        for task in tasks:
            if task.fixed_start is None:
                placed[task.id] = block[task.id]
                _take(occupied, task, block[task.id])
                _hold(problem, occupied, task, placed)
    late = minutes_late(problem, placed)
    return Schedule(placed=placed, status="feasible", late=late, by="list")


def _sorted(problem: ScheduleProblem, bake: str) -> list[Task]:
    """Return a bake's tasks, each after what it waits for."""
    tasks = [task for task in problem.tasks if task.bake == bake]
    done: list[Task] = []
    while tasks:
        ready = [
            t
            for t in tasks
            if not any(lag.after == t.id and any(o.id == lag.before for o in tasks) for lag in problem.lags)
        ]
        if not ready:
            return done + tasks
        done += ready
        tasks = [t for t in tasks if t not in ready]
    return done


def _fitted(
    problem: ScheduleProblem,
    occupied: _Occupied,
    tasks: list[Task],
    lags: list[Lag],
    due: int,
    placed: dict[str, Placed],
) -> dict[str, Placed] | None:
    """Return the bake as early as it goes from some minute on; the latest such minute that keeps the deadline, else the first that works."""
    fallback = None
    length = sum(t.minutes for t in tasks) + sum(lag.least for lag in lags)
    latest = max(due - max((t.minutes for t in tasks), default=0), problem.now)
    for begin in [*range(latest, problem.now - 1, -5), *range(max(due, problem.now), problem.horizon, 10)]:
        if begin < due - 4 * length - 600:
            break
        block = _from(problem, occupied, tasks, lags, begin, placed)
        if block is None:
            continue
        end = max((at.end for at in block.values()), default=begin)
        if end <= due:
            return block
        if fallback is None or end < max(at.end for at in fallback.values()):
            fallback = block
        elif begin > due:
            break
    return fallback


def _from(
    problem: ScheduleProblem,
    occupied: _Occupied,
    tasks: list[Task],
    lags: list[Lag],
    begin: int,
    placed: dict[str, Placed],
) -> dict[str, Placed] | None:
    block: dict[str, Placed] = {}
    mine = _Occupied(dict(occupied.hands), dict(occupied.things), {k: list(v) for k, v in occupied.ovens.items()})
    for task in tasks:
        if task.fixed_start is not None:
            continue
        known = placed | block
        into = [lag for lag in lags if lag.after == task.id and lag.before in known]
        earliest = max([begin, problem.now, *(known[lag.before].end + lag.least for lag in into)])
        latest = min(
            (
                _until(problem, known, block, lag) + lag.most - (task.minutes if lag.to_end else 0)
                for lag in into
                if lag.most is not None
            ),
            default=earliest + _LONGEST,
        )
        at = next(
            (
                put
                for start in range(earliest, latest + 1)
                if (put := _fits(problem, mine, task, start, known)) is not None
            ),
            None,
        )
        if at is None:
            return None
        # What lies before it may lie until it begins.
        for lag in into:
            was = known[lag.before]
            if lag.most is not None and at.start > was.end + lag.most and lag.before in block:
                block[lag.before] = Placed(start=was.start, end=at.start - lag.most, oven=was.oven)
        block[task.id] = at
        _take(mine, task, at)
        _hold(problem, mine, task, placed | block)
    return block


def _until(problem: ScheduleProblem, known: dict[str, Placed], block: dict[str, Placed], lag: Lag) -> int:
    """When what goes before may end at the latest: what lies may lie longer."""
    before, was = problem.task[lag.before], known[lag.before]
    if before.passive and lag.before in block:
        return was.start + (before.longest if before.longest is not None else _LONGEST)
    return was.end


def _fits(
    problem: ScheduleProblem, occupied: _Occupied, task: Task, start: int, known: Mapping[str, Placed]
) -> Placed | None:
    end = start + task.minutes
    for hold in problem.holds:
        if hold.until == task.id and (hold.since in known or hold.since == task.id):
            since = start if hold.since == task.id else known[hold.since].start
            most = problem.capacity.get(hold.thing, 1) - hold.count
            if any(occupied.things.get((hold.thing, m), 0) > most for m in range(since, end)):
                return None
    for name in task.ovens or ("",):
        at = Placed(start=start, end=end, oven=name)
        minutes = [m for a, b in hand_times(task, at) for m in range(a, b)]
        if any(occupied.hands.get(m, 0) >= problem.people for m in minutes):
            return None
        if any(a <= m < b for a, b in problem.closed for m in minutes):
            return None
        if any(
            occupied.things.get((use, m), 0) >= problem.capacity.get(use, 1)
            for use in task.uses
            for m in range(start, end)
        ):
            return None
        if not name or _oven_free(problem, occupied, task, at):
            return at
    return None


def _oven_free(problem: ScheduleProblem, occupied: _Occupied, task: Task, at: Placed) -> bool:
    oven, rows = problem.oven_named(at.oven), occupied.ovens.get(at.oven, [])
    if at.start < problem.now + oven.heating(task.temp_c) and not any(t.fixed_start is not None for _, _, t in rows):
        return False
    for start, end, other in rows:
        if not task.shares(other, oven.share_k):
            if at.start < end + oven.gap(other.leaves_c, task.temp_c) and start < at.end + oven.gap(
                task.leaves_c, other.temp_c
            ):
                return False
        elif start < at.end and at.start < end:
            quiet, theirs = range(at.start + 1, at.start + task.shut), range(start + 1, start + other.shut)
            if start in quiet or end - 1 in quiet or at.start in theirs or at.end - 1 in theirs:
                return False
    moments = {at.start, *(start for start, _, _ in rows if at.start <= start < at.end)}
    return all(sum(t.trays for s, e, t in rows if s <= m < e) + task.trays <= oven.trays for m in moments)


def _hold(problem: ScheduleProblem, occupied: _Occupied, task: Task, known: Mapping[str, Placed]) -> None:
    """Occupy what a hold takes until the end of a task that now has its place."""
    for hold in problem.holds:
        if hold.until == task.id:
            for minute in range(known[hold.since].start, known[task.id].end):
                occupied.things[hold.thing, minute] = occupied.things.get((hold.thing, minute), 0) + hold.count


def _take(occupied: _Occupied, task: Task, at: Placed) -> None:
    if task.fixed_end is None:
        for a, b in hand_times(task, at):
            for minute in range(a, b):
                occupied.hands[minute] = occupied.hands.get(minute, 0) + 1
    for use in task.uses:
        for minute in range(at.start, at.end):
            occupied.things[use, minute] = occupied.things.get((use, minute), 0) + 1
    if at.oven:
        occupied.ovens.setdefault(at.oven, []).append((at.start, at.end, task))
