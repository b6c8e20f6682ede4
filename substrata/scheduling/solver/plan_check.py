"""Whether a plan can be done, and what it costs: by stepping through its minutes, and free of all that made it."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from itertools import pairwise

from substrata.base.messages.message import Message, Wording
from substrata.scheduling.schedule_problem import Schedule, ScheduledOven, ScheduleProblem, Task, hand_times
from substrata.scheduling.tasks.oven_on_times import in_oven, on_times

# Prices, in minutes of somebody's patience (house choice, as the study of plans had them).
LATE, A_LATE_BAKE, OVEN_ON, HANDS, EARLY = 2000, 60, 20, 3, 1


@dataclass(frozen=True, kw_only=True)
class PlanFault:
    """Where a plan cannot be done."""

    kind: str  # missing, length, before, lag, hands, asleep, uses, trays, heat, door, early
    tasks: tuple[str, ...]
    minute: int
    text: Wording


def faults(problem: ScheduleProblem, plan: Schedule, *, soft_lags: bool = False) -> tuple[PlanFault, ...]:
    """Everything that is wrong with a plan; lateness is no fault.

    Args:
        problem: what was to be planned.
        plan: what was planned.
        soft_lags: greatest lags may be broken, as in a plan that was mended.

    Returns:
        The faults; none for a plan that can be done.
    """
    missing = [task.id for task in problem.tasks if task.id not in plan.placed]
    if missing:
        return (
            PlanFault(
                kind="missing",
                tasks=tuple(missing),
                minute=0,
                text=Message("plan-check-not-planned", missing=", ".join(missing)),
            ),
        )
    all_faults = [
        *_each(problem, plan),
        *_between(problem, plan, soft_lags),
        *_minutes(problem, plan),
        *_ovens(problem, plan),
    ]
    return tuple(all_faults)


def _each(problem: ScheduleProblem, plan: Schedule) -> list[PlanFault]:
    faults_here = []
    for task in problem.tasks:
        at = plan.placed[task.id]
        length = at.end - at.start
        longest = task.longest if task.passive else task.minutes
        open_ = task.fixed_end is None and task.fixed_start is None
        if open_ and (length < task.minutes or (longest is not None and length > longest)):
            faults_here.append(
                PlanFault(
                    kind="length",
                    tasks=(task.id,),
                    minute=at.start,
                    text=Message("plan-check-takes-min", task_text=task.text, length=length),
                )
            )
        if open_ and at.start < problem.now:
            faults_here.append(
                PlanFault(
                    kind="before",
                    tasks=(task.id,),
                    minute=at.start,
                    text=Message("plan-check-starts-in-the-past", task_text=task.text),
                )
            )
        if task.fixed_start is not None and at.start != task.fixed_start:
            faults_here.append(
                PlanFault(
                    kind="before",
                    tasks=(task.id,),
                    minute=at.start,
                    text=Message("plan-check-was-moved", task_text=task.text),
                )
            )
        if task.ovens and at.oven not in task.ovens:
            faults_here.append(
                PlanFault(
                    kind="trays",
                    tasks=(task.id,),
                    minute=at.start,
                    text=Message("plan-check-has-no-oven", task_text=task.text),
                )
            )
    for due in problem.dues:
        end = plan.placed[due.task].end
        if due.fresh is not None and end < due.minute - due.fresh:
            faults_here.append(
                PlanFault(
                    kind="early",
                    tasks=(due.task,),
                    minute=end,
                    text=Message("plan-check-is-ready-too-early", due_name=due.name),
                )
            )
    return faults_here


def _between(problem: ScheduleProblem, plan: Schedule, soft: bool) -> list[PlanFault]:
    faults_here = []
    for lag in problem.lags:
        first, other = plan.placed[lag.before], plan.placed[lag.after]
        if other.start < first.end + lag.least:
            faults_here.append(
                PlanFault(
                    kind="lag",
                    tasks=(lag.before, lag.after),
                    minute=other.start,
                    text=Message("plan-check-too-soon-after", text=problem.task[lag.before].text),
                )
            )
        if lag.most is not None and not soft and (other.end if lag.to_end else other.start) > first.end + lag.most:
            faults_here.append(
                PlanFault(
                    kind="lag",
                    tasks=(lag.before, lag.after),
                    minute=other.start,
                    text=Message("plan-check-too-late-after", text=problem.task[lag.before].text, reason=lag.reason),
                )
            )
    return faults_here


def _minutes(problem: ScheduleProblem, plan: Schedule) -> list[PlanFault]:
    """Hands and things, minute by minute."""
    hands: Counter[int] = Counter()
    things: dict[str, Counter[int]] = {name: Counter() for name in problem.capacity}
    for task in problem.tasks:
        at = plan.placed[task.id]
        if task.fixed_end is None:  # what is done takes nobody's hands any more
            for start, end in hand_times(task, at):
                hands.update(range(start, end))
        for name in task.uses:
            things.setdefault(name, Counter()).update(range(at.start, at.end))
    for hold in problem.holds:
        occupied_from, occupied_to = plan.placed[hold.since].start, plan.placed[hold.until].end
        things.setdefault(hold.thing, Counter()).update(
            dict.fromkeys(range(occupied_from, max(occupied_to, occupied_from)), hold.count)
        )
    faults_here = [
        PlanFault(kind="hands", tasks=(), minute=minute, text=Message("plan-check-people-are-needed", busy=busy))
        for minute, busy in hands.items()
        if busy > problem.people
    ]
    faults_here += [
        PlanFault(kind="asleep", tasks=(), minute=minute, text=Message("plan-check-work-during-closed-hours"))
        for start, end in problem.closed
        for minute in range(start, end)
        if hands[minute] and minute >= problem.now
    ]
    faults_here += [
        PlanFault(kind="uses", tasks=(), minute=minute, text=Message("plan-check-of-needed", busy=busy, name=name))
        for name, counted in things.items()
        for minute, busy in counted.items()
        if busy > problem.capacity.get(name, 1)
    ]
    return faults_here


def _ovens(problem: ScheduleProblem, plan: Schedule) -> list[PlanFault]:
    faults_here = []
    for oven in problem.ovens:
        inside = [t for t in problem.tasks if t.ovens and plan.placed[t.id].oven == oven.name]
        inside.sort(key=lambda t: plan.placed[t.id].start)
        trays: Counter[int] = Counter()
        for task in inside:
            at = plan.placed[task.id]
            trays.update(dict.fromkeys(range(at.start, at.end), task.trays))
            heat = _heats(problem, oven.heating(task.temp_c)) if task is inside[0] else 0
            if task.fixed_start is None and at.start < problem.now + heat:
                faults_here.append(
                    PlanFault(
                        kind="heat",
                        tasks=(task.id,),
                        minute=at.start,
                        text=Message("plan-check-is-not-hot-yet", oven_name=oven.name),
                    )
                )
        faults_here += [
            PlanFault(
                kind="trays",
                tasks=(),
                minute=minute,
                text=Message("plan-check-trays-in", trays_in=trays_in, oven_name=oven.name),
            )
            for minute, trays_in in trays.items()
            if trays_in > oven.trays
        ]
        for n, placed_task in enumerate(inside):
            for other in inside[n + 1 :]:
                faults_here += _temperatures(plan, oven, placed_task, other)
            faults_here += _door(plan, placed_task, inside)
    return faults_here


def _temperatures(plan: Schedule, oven: ScheduledOven, task: Task, other: Task) -> list[PlanFault]:
    """Two bakes of one oven, the first begun first."""
    a, b = plan.placed[task.id], plan.placed[other.id]
    if task.shares(other, oven.share_k) or b.start >= a.end + oven.gap(task.leaves_c, other.temp_c):
        return []
    text = (
        Message("plan-check-two-temperatures-at-the-same")
        if b.start < a.end
        else Message("plan-check-is-not-available-yet", oven_name=oven.name)
    )
    return [PlanFault(kind="heat", tasks=(task.id, other.id), minute=b.start, text=text)]


def _door(plan: Schedule, task: Task, inside: list[Task]) -> list[PlanFault]:
    at = plan.placed[task.id]
    quiet = range(at.start + 1, at.start + task.shut)
    return [
        PlanFault(
            kind="door", tasks=(task.id, other.id), minute=at.start, text=Message("plan-check-the-oven-door-opens-too")
        )
        for other in inside
        if other is not task and (plan.placed[other.id].start in quiet or plan.placed[other.id].end - 1 in quiet)
    ]


def _heats(problem: ScheduleProblem, minutes: int) -> int:
    """Return a plan that is under way has its oven hot already."""
    return 0 if problem.hot or any(task.fixed_start is not None and task.ovens for task in problem.tasks) else minutes


@dataclass(frozen=True, kw_only=True)
class Score:
    """What a plan costs."""

    late: int  # minutes, of all bakes
    late_bakes: int
    oven_on: int  # minutes, with heating up
    changes: int  # of an oven's temperature
    hands: int  # minutes from the first work to the last, of each day
    early: int  # minutes that bakes are ready before they are wanted
    price: int


def score(problem: ScheduleProblem, plan: Schedule) -> Score:
    """Return what a plan costs, counted from the plan alone."""
    late = {due.bake: max(plan.placed[due.task].end - due.minute, 0) for due in problem.dues}
    early = sum(max(due.minute - plan.placed[due.task].end, 0) for due in problem.dues)
    on = changes = 0
    for oven in problem.ovens:
        inside = in_oven(problem, plan, oven)
        if inside:
            on += sum(end - begin for begin, end in on_times(oven, inside))
            changes += sum(not first.shares(other, oven.share_k) for (_, first), (_, other) in pairwise(inside))
    days: dict[int, list[int]] = {}
    for task in problem.tasks:
        for start, end in hand_times(task, plan.placed[task.id]):
            days.setdefault(sum(closed <= start for closed, _ in problem.closed), []).extend((start, end))
    hands = sum(max(times) - min(times) for times in days.values())
    result = Score(
        late=sum(late.values()),
        late_bakes=sum(1 for minutes in late.values() if minutes),
        oven_on=on,
        changes=changes,
        hands=hands,
        early=early,
        price=0,
    )
    price = (
        LATE * result.late + A_LATE_BAKE * LATE * result.late_bakes // 60 + OVEN_ON * on + HANDS * hands + EARLY * early
    )
    return Score(**{**vars(result), "price": price})
