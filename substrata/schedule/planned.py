"""``plan_of``: a plan document planned: clock times, lanes, how surely it holds, what is late and what would help."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from datetime import datetime

from substrata.context.dough import Dough
from substrata.errors import FormulaError
from substrata.oven.profile import OvenProfile
from substrata.pantry.library import Library
from substrata.schedule.bake_tasks import BakeTasks, tasks_of
from substrata.schedule.check import score
from substrata.schedule.effort import Effort
from substrata.schedule.listed import listed
from substrata.schedule.oven_on import OvenHeat, heat_curves
from substrata.schedule.pins import check_pins, pinned
from substrata.schedule.plan_document import Clock, Plan
from substrata.schedule.problem import MOST_TASKS, Due, Oven, Placed, Problem, Schedule, hand_times
from substrata.schedule.replan import Happened, replan
from substrata.schedule.slack import slack_of
from substrata.schedule.solve import solve
from substrata.schedule.sure import CARES, STALE, Care, Holds, Tight, careful, holds
from substrata.schedule.things import capacities, things
from substrata.schedule.words import WouldHelp, clashes, helps, pressed
from substrata.settings import Settings

_FIRST_S = 3.0  # for each step of care that comes late, before the next is tried


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
    text: str
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
    text: str
    begins: datetime
    tasks: tuple[PlannedTask, ...]
    bakes: tuple[PlannedBakeOut, ...]
    heat: tuple[OvenHeat, ...]
    late: tuple[Late, ...]
    holds: Holds
    care: str  # how carefully it is planned
    tight: tuple[Tight, ...]
    helps: tuple[WouldHelp, ...]  # what would bring it in time
    moved: tuple[MovedTask, ...]  # after what happened
    broken: tuple[str, ...]
    horizon: int


Offered = Callable[[Callable[[], "Planned"]], bool]


@dataclass(frozen=True, kw_only=True)
class Bench:
    """A plan made of its formulas."""

    plan: Plan
    clock: Clock
    bakes: tuple[BakeTasks, ...]
    problem: Problem


def bench_of(
    plan: Plan,
    library: Library,
    settings: Settings = Settings(),  # noqa: B008 - frozen
    profiles: Mapping[str, OvenProfile] | None = None,
) -> Bench:
    """Make the problem of a plan.

    Args:
        plan: what is wanted.
        library: the ingredients.
        settings: the kitchen's choices.
        profiles: what is known of its ovens, by name.

    Raises:
        FormulaError: when a formula makes no dough, or an oven does not exist.
    """
    clock = Clock(plan)
    ovens = tuple(Oven(name=o.name, trays=o.trays, share_k=o.share_k) for o in plan.ovens)
    has = capacities(plan.has)
    made: list[BakeTasks] = []
    dues = []
    for number, bake in enumerate(plan.bakes):
        if bake.oven and bake.oven not in {oven.name for oven in ovens}:
            raise FormulaError(
                "no such oven in the plan",
                got=bake.oven[:40],
                allowed=", ".join(oven.name for oven in ovens),
                remedy="name one of the plan's ovens, or none",
                field=f"bakes[{number}].oven",
            )
        profile = (profiles or {}).get(bake.oven or ovens[0].name, OvenProfile())
        key = bake.id or str(number + 1)
        if key in {one.bake for one in made}:
            raise FormulaError(
                "two bakes have one id", got=key[:40], allowed="ids of their own", field=f"bakes[{number}].id"
            )
        dough = Dough(bake.formula, library, settings, profile)
        own = tasks_of(key, dough, batches=bake.batches, ovens=ovens, oven=bake.oven, has=has)
        _there_is_one(own, has, f"bakes[{number}]")
        made.append(own)
        fresh = None if bake.fresh_h is None else round(60 * bake.fresh_h)
        minute = clock.minute(bake.due, f"bakes[{number}].due")
        dues.append(Due(bake=key, name=own.name, task=own.last, minute=minute, fresh=fresh, priority=bake.priority))
    tasks = [task for own in made for task in own.tasks]
    if len(tasks) > MOST_TASKS:
        raise FormulaError(
            "so much is not planned at once",
            got=f"{len(tasks)} tasks",
            allowed=f"up to {MOST_TASKS}",
            remedy="plan fewer bakes, or larger loads",
            field="bakes",
        )
    closed = sorted(
        (clock.minute(c.start, f"closed[{n}].start"), clock.minute(c.end, f"closed[{n}].end"))
        for n, c in enumerate(plan.closed)
    )
    problem = Problem(
        tasks=tuple(pinned(tasks, plan.pins, clock)),
        lags=tuple(lag for own in made for lag in own.lags),
        dues=tuple(dues),
        ovens=ovens,
        people=plan.people,
        capacity=has,
        holds=tuple(hold for own in made for hold in own.holds),
        closed=tuple((max(a, 0), b) for a, b in closed if b > max(a, 0)),
    )
    return Bench(plan=plan, clock=clock, bakes=tuple(made), problem=problem)


def _there_is_one(own: BakeTasks, has: Mapping[str, int], where: str) -> None:
    wanted = {thing for task in own.tasks for thing in task.uses} | {hold.thing for hold in own.holds}
    none = sorted(thing for thing in wanted if has.get(thing, 1) < 1)
    if none:
        raise FormulaError(
            "the kitchen has none of what a bake needs",
            got=f"{own.name}: {', '.join(things()[thing].name for thing in none)}",
            allowed="one or more",
            remedy="say how many there are, or plan another bake",
            field=f"{where}.formula",
        )


def plan_of(bench: Bench, *, effort: Effort = Effort(), told: Offered | None = None) -> Planned:  # noqa: B008 - frozen
    """Plan it, as carefully as its deadlines allow.

    Args:
        bench: what is wanted.
        effort: how long is sought.
        told: is offered every better plan, which is worked out only when it is called for; False stops the search.

    Raises:
        FormulaError: when it cannot be planned at all.
    """
    problem = bench.problem
    if bench.plan.happened:
        return _mended(bench, effort)
    check_pins(problem, bench.clock)
    hard = pressed(problem)
    found: tuple[Schedule, Care] | None = None
    for care in CARES:
        show = (lambda better, care=care: told(lambda: told_of(bench, better, care))) if told else None
        seconds = effort.seconds if found is None else max(effort.seconds / 3, _FIRST_S)
        schedule = solve(careful(problem, care), replace(effort, seconds=seconds), told=show)
        if not schedule.placed:
            continue
        schedule = replace(schedule, late=_late(problem, schedule))
        if found is None or sum(schedule.late.values()) < sum(found[0].late.values()):
            found = schedule, care
        # A bake whose own work is too long is late however carelessly it is planned.
        if not schedule.late or hard:
            break
    found = found or _at_all(problem, effort)
    planned = told_of(bench, *found)
    if found[0].late and effort.seconds >= 1:
        planned = replace(planned, helps=helps(problem, replace(effort, seconds=min(1.5, effort.seconds))))
    return planned


def _at_all(problem: Problem, effort: Effort) -> tuple[Schedule, Care]:
    """A plan where no careful one was found: without freshness, which is said, else by a plain list.

    Raises:
        FormulaError: when there is none.
    """
    free = replace(problem, dues=tuple(replace(due, fresh=None) for due in problem.dues))
    schedule = solve(free, effort)
    if schedule.placed:
        return replace(schedule, late=_late(problem, schedule)), STALE
    by_list = listed(problem)
    if by_list is None:
        raise FormulaError(
            "no plan was found",
            got=f"{len(problem.tasks)} tasks",
            allowed="a plan that can be done",
            remedy=clashes(problem),
        )
    return by_list, CARES[-1]


def _late(problem: Problem, schedule: Schedule) -> dict[str, int]:
    return {due.bake: m for due in problem.dues if (m := max(schedule.placed[due.task].end - due.minute, 0))}


def _mended(bench: Bench, effort: Effort) -> Planned:
    """A plan that is under way: what happened is told by its pins, what was planned by the others."""
    clock, problem = bench.clock, bench.problem
    happened = tuple(
        Happened(
            task=one.task,
            start=clock.minute(one.start, "happened.start"),
            end=clock.minute(one.end, "happened.end") if one.end else None,
            expected=clock.minute(one.expected, "happened.expected") if one.expected else None,
        )
        for one in bench.plan.happened
    )
    strange = {one.task for one in happened} - set(problem.task)
    if strange:
        raise FormulaError(
            "what happened is no task of the plan",
            got=", ".join(sorted(strange))[:80],
            allowed="tasks of the plan",
            field="happened",
        )
    unplanned = [task.id for task in problem.tasks if task.fixed_start is None]
    if unplanned:
        raise FormulaError(
            "a plan that is under way has to tell where its tasks were",
            got=f"{len(unplanned)} without a place",
            allowed="a pin for every task",
            remedy="send the plan's own times as pins",
            field="pins",
        )
    was = Schedule(
        placed={
            t.id: Placed(
                start=t.fixed_start or 0, end=(t.fixed_start or 0) + t.minutes, oven=t.ovens[0] if t.ovens else ""
            )
            for t in problem.tasks
        },
        status="feasible",
    )
    open_ = replace(problem, tasks=tuple(replace(t, fixed_start=None) for t in problem.tasks))
    now = max([*(one.end or one.start for one in happened), *(0,)])
    result = replan(open_, was, happened, now, replace(effort, seconds=min(effort.seconds, 5.0)))
    if result is None:
        raise FormulaError(
            "no way on was found in the time",
            got=f"{len(open_.tasks)} tasks",
            allowed="a plan that can be done",
            remedy="try again",
        )
    under_way = replace(bench, problem=result.problem)
    answer = told_of(under_way, replace(result.plan, late=_late(problem, result.plan)), CARES[-1])
    return replace(
        answer,
        moved=tuple(MovedTask(task=key, minutes=by) for key, by in result.moved),
        broken=result.broken,
        text=result.text,
    )


def told_of(bench: Bench, schedule: Schedule, care: Care) -> Planned:
    """A schedule as a baker reads it."""
    problem, clock = bench.problem, bench.clock
    # Where hands are kept free to look is told as it was planned.
    watched = careful(problem, care).task
    people = _people(problem, schedule)
    slack = slack_of(problem, schedule)
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
                pinned=any(pin.task == task.id for pin in bench.plan.pins),
                done=task.fixed_end is not None,
                slack=slack[task.id],
            )
        )
    sure = holds(problem, schedule)
    late = tuple(
        Late(bake=due.bake, name=due.name, minutes=max(schedule.placed[due.task].end - due.minute, 0))
        for due in problem.dues
        if schedule.placed[due.task].end > due.minute
    )
    made = {own.bake: own for own in bench.bakes}
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
                late_min=max(schedule.placed[due.task].end - due.minute, 0),
                trays=made[due.bake].trays,
                loads=made[due.bake].loads,
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


def _text(problem: Problem, schedule: Schedule, sure: Holds, late: tuple[Late, ...], clock: Clock) -> str:
    first = min(start for t in problem.tasks for start, _ in hand_times(t, schedule.placed[t.id]))
    when = f"First work at {clock.time(first):%H:%M}"
    if late:
        return f"{when}; {'; '.join(f'{one.name} {one.minutes} min late' for one in late)}"
    best = ""
    if schedule.status == "optimal":
        best = "; no better plan there is"
    elif schedule.gap is not None:
        best = f"; at most {schedule.gap:.0%} from the best"
    cost = score(problem, schedule)
    return f"{when}; all in time, {sure.text}; oven on {cost.oven_on // 60} h {cost.oven_on % 60:02d}{best}"


def _people(problem: Problem, schedule: Schedule) -> dict[str, int]:
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
