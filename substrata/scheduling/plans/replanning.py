"""When it slips: the rest of the plan with as few moves as possible. What is done stays, what runs may stretch, windows may break and say so."""

from __future__ import annotations

from dataclasses import dataclass, replace

from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.tables.table_reader import whole_constant
from substrata.scheduling.schedule_problem import Schedule, ScheduleProblem, Task
from substrata.scheduling.solver.cp_model import Model
from substrata.scheduling.solver.replan_price import STILL_MIN, replan_price
from substrata.scheduling.solver.search_effort import Effort


@dataclass(frozen=True, kw_only=True)
class Happened:
    """What is known of a task now."""

    task: str
    start: int
    end: int | None = None  # None while it runs
    expected: int | None = None  # when it will be over, as it looks now


@dataclass(frozen=True, kw_only=True)
class Replanned:
    """The plan from now on."""

    plan: Schedule
    problem: ScheduleProblem  # with what has happened
    moved: tuple[tuple[str, int], ...]  # task, minutes later (below 0: sooner)
    broken: tuple[Wording, ...]  # windows, in words
    text: Wording


def replan(
    problem: ScheduleProblem,
    plan: Schedule,
    happened: tuple[Happened, ...],
    now: int,
    effort: Effort = Effort(seconds=4),  # noqa: B008 - frozen
) -> Replanned | None:
    """Mend a plan; None when nothing was found in the time.

    Args:
        problem: as it was planned.
        plan: that is under way.
        happened: what has begun, is done or takes longer.
        now: minute of the plan.
        effort: search time limit.

    Returns:
        The replanned schedule; None when nothing was found.
    """
    events = {what.task: what for what in happened}
    tasks = tuple(
        _where_it_is(_as_it_is(task, events[task.id]), plan) if task.id in events else task for task in problem.tasks
    )
    # Greatest lags are no rows of the model any more: a broken window is a fact, and costs.
    later = replace(
        problem, tasks=tasks, now=now, hot=True, lags=tuple(replace(lag, most=None) for lag in problem.lags)
    )
    model = Model(later)
    price = replan_price(model, problem, plan)
    best = model.best(price, effort, plan)
    if best is None:
        return None
    moved_tasks = tuple(
        (task.id, best.plan.placed[task.id].start - plan.placed[task.id].start)
        for task in later.tasks
        if task.fixed_start is None and abs(best.plan.placed[task.id].start - plan.placed[task.id].start) > STILL_MIN
    )
    broken_words = tuple(_broken(problem, best.plan, later))
    late = [due for due in problem.dues if best.plan.placed[due.task].end > due.minute]
    deadline = (
        Message("replanning-all-deadlines-are-still-met")
        if not late
        else Joined(
            (Message("replanning-min-late", name=d.name, end=best.plan.placed[d.task].end - d.minute) for d in late),
            "; ",
        )
    )
    things = (
        Message("replanning-no-tasks-move")
        if not moved_tasks
        else Message(
            "replanning-task-move",
            moved_tasks=len(moved_tasks),
        )
    )
    text = Joined((Message("replanning-parts", things=things, deadline=deadline), *broken_words), "; ")
    return Replanned(plan=best.plan, problem=later, moved=moved_tasks, broken=broken_words, text=text)


def _where_it_is(task: Task, plan: Schedule) -> Task:
    """Return what is in an oven stays in that one."""
    at = plan.placed.get(task.id)
    return replace(task, ovens=(at.oven,)) if at is not None and at.oven in task.ovens else task


def _as_it_is(task: Task, event: Happened) -> Task:
    if event.end is not None:
        return replace(task, fixed_start=event.start, fixed_end=max(event.end, event.start))
    length = max((event.expected or event.start + task.minutes) - event.start, 1)
    # What is in the oven may be left a little longer than it needs, when nobody has a hand free.
    return replace(
        task,
        fixed_start=event.start,
        minutes=length,
        passive=bool(task.ovens),
        longest=length + whole_constant("left_in_longer_min"),
    )


def _broken(problem: ScheduleProblem, plan: Schedule, later: ScheduleProblem) -> list[Wording]:
    rows: list[Wording] = []
    for lag in problem.lags:
        after = later.task[lag.after]
        if lag.most is None or after.fixed_start is not None:
            continue
        over = (
            (plan.placed[lag.after].end if lag.to_end else plan.placed[lag.after].start)
            - plan.placed[lag.before].end
            - lag.most
        )
        if over > 0:
            rows.append(Message("replanning-min-after-its-time", after_text=after.text, over=over, reason=lag.reason))
    return rows
