"""A plan as it is told: clock times, lanes, how surely it holds, what is late and what would help."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime

from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.messages.quantity import in_percent
from substrata.scheduling.plans.late_remedies import WouldHelp
from substrata.scheduling.plans.plan_document import Clock
from substrata.scheduling.plans.planning_case import PlanningCase
from substrata.scheduling.robustness.robust_plan import Care, Holds, Tight, careful, holds
from substrata.scheduling.robustness.slack import task_slack
from substrata.scheduling.schedule_problem import Schedule, ScheduleProblem, hand_times, minutes_late
from substrata.scheduling.solver.plan_check import score
from substrata.scheduling.tasks.oven_on_times import OvenHeat, heat_curves


@dataclass(frozen=True, kw_only=True)
class HandsAt:
    """From when to when a task takes a pair of hands."""

    start_min: int
    end_min: int


@dataclass(frozen=True, kw_only=True)
class MovedTask:
    """A task that had to move."""

    task: str
    minutes: int  # later; below 0: sooner


@dataclass(frozen=True, kw_only=True)
class PlannedTask:
    """A task with its times of day."""

    id: str
    bake: str
    kind: str
    text: Wording
    start: datetime
    end: datetime
    start_min: int
    end_min: int
    check: datetime | None  # look from here, of what bakes
    surely: datetime | None  # and it is surely out by here
    hands: tuple[HandsAt, ...]
    person: int  # who does it; -1 for nobody
    oven: str
    temp_c: float | None
    uses: tuple[str, ...]
    steps: tuple[str, ...]
    pinned: bool
    done: bool
    slack: int  # minutes by which it may move later and nothing else has to


@dataclass(frozen=True, kw_only=True)
class PlannedBakeOut:
    """How a bake comes out."""

    id: str
    name: str
    due: datetime
    ready: datetime
    late_min: int
    trays: int
    loads: int


@dataclass(frozen=True, kw_only=True)
class Late:
    """What comes late, by how much."""

    bake: str
    name: str
    minutes: int


@dataclass(frozen=True, kw_only=True)
class Planned:
    """The answer."""

    status: str
    gap: float | None
    text: Wording
    begins: datetime
    tasks: tuple[PlannedTask, ...]
    bakes: tuple[PlannedBakeOut, ...]
    heat: tuple[OvenHeat, ...]
    late: tuple[Late, ...]
    holds: Holds
    care: Wording  # how carefully it is planned
    tight: tuple[Tight, ...]
    helps: tuple[WouldHelp, ...]  # what would bring it in time
    moved: tuple[MovedTask, ...]  # after what happened
    broken: tuple[Wording, ...]
    horizon: int


Offered = Callable[[Callable[[], "Planned"]], bool]


def plan_answer(case: PlanningCase, schedule: Schedule, care: Care) -> Planned:
    """Return a schedule as a baker reads it."""
    problem, clock = case.problem, case.clock
    # Where hands are kept free to look is told as it was planned.
    watched = careful(problem, care).task
    people = _people(problem, schedule)
    slack = task_slack(problem, schedule)
    rows = []
    for task in sorted(problem.tasks, key=lambda t: (schedule.placed[t.id].start, t.id)):
        at = schedule.placed[task.id]
        bakes = bool(task.ovens)
        rows.append(
            PlannedTask(
                id=task.id,
                bake=task.bake,
                kind=task.kind,
                text=task.text,
                start=clock.time(at.start),
                end=clock.time(at.end),
                start_min=at.start,
                end_min=at.end,
                check=clock.time(at.start + min(task.low, at.end - at.start)) if bakes else None,
                surely=clock.time(at.start + max(task.high, task.minutes)) if bakes else None,
                hands=tuple(HandsAt(start_min=a, end_min=b) for a, b in hand_times(watched[task.id], at)),
                person=people.get(task.id, -1),
                oven=at.oven,
                temp_c=task.temp_c if bakes else None,
                uses=task.uses,
                steps=task.steps,
                pinned=any(pin.task == task.id for pin in case.plan.pins),
                done=task.fixed_end is not None,
                slack=slack[task.id],
            )
        )
    sure = holds(problem, schedule)
    behind = minutes_late(problem, schedule.placed)
    late = tuple(
        Late(bake=due.bake, name=due.name, minutes=behind[due.bake]) for due in problem.dues if due.bake in behind
    )
    by_bake = {bake_tasks.bake: bake_tasks for bake_tasks in case.bakes}
    return Planned(
        status="late" if late else schedule.status,
        gap=schedule.gap,
        text=_text(problem, schedule, sure, late, clock),
        begins=clock.time(0),
        tasks=tuple(rows),
        bakes=tuple(
            PlannedBakeOut(
                id=due.bake,
                name=due.name,
                due=clock.time(due.minute),
                ready=clock.time(schedule.placed[due.task].end),
                late_min=behind.get(due.bake, 0),
                trays=by_bake[due.bake].trays,
                loads=by_bake[due.bake].loads,
            )
            for due in problem.dues
        ),
        heat=heat_curves(problem, schedule),
        late=late,
        holds=sure,
        care=care.name,
        tight=sure.tight,
        helps=(),
        moved=(),
        broken=(),
        horizon=max(*(at.end for at in schedule.placed.values()), *(due.minute for due in problem.dues)),
    )


def _text(problem: ScheduleProblem, schedule: Schedule, sure: Holds, late: tuple[Late, ...], clock: Clock) -> Wording:
    first = min(start for t in problem.tasks for start, _ in hand_times(t, schedule.placed[t.id]))
    when = Message("plan-answer-first-work-at", time=f"{clock.time(first):%H:%M}")
    if late:
        rows = [Message("plan-answer-bake-late", bake=bake.name, minutes=bake.minutes) for bake in late]
        return Message("plan-answer-parts", when=when, late=Joined(rows, "; "))
    best: Wording = ""
    if schedule.status == "optimal":
        best = Message("plan-answer-this-is-the-best-possible")
    elif schedule.gap is not None:
        best = Message("plan-answer-within-of-the-best-possible", gap=in_percent(schedule.gap))
    oven_on = score(problem, schedule).oven_on
    return Message(
        "plan-answer-everything-is-ready-on-time",
        when=when,
        sure=sure.text,
        hours=oven_on // 60,
        minutes=f"{oven_on % 60:02d}",
        best=best,
    )


def _people(problem: ScheduleProblem, schedule: Schedule) -> dict[str, int]:
    """Who does what: intervals that each take one are coloured with as many colours as ever overlap."""
    rows = sorted(
        (start, end, task.id) for task in problem.tasks for start, end in hand_times(task, schedule.placed[task.id])
    )
    free = [0] * problem.people
    who: dict[str, int] = {}
    for start, end, task in rows:
        mine = who.get(task)
        if mine is not None and free[mine] <= start:
            person = mine
        else:
            person = next((n for n, until in enumerate(free) if until <= start), 0)
        free[person] = max(free[person], end)
        who.setdefault(task, person)
    return who
