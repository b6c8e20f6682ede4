"""When a deadline cannot be: which, by how much, and what would make it possible."""

from __future__ import annotations

from dataclasses import dataclass, replace

from substrata.base.messages.message import Joined, Message, Wording
from substrata.scheduling.schedule_problem import ScheduleProblem, Task
from substrata.scheduling.solver.cp_model import Model
from substrata.scheduling.solver.search_effort import Effort


@dataclass(frozen=True, kw_only=True)
class WouldHelp:
    """Something that would bring all in time."""

    key: Wording  # people, oven, tray, earlier, without:BAKE
    text: Wording
    minutes: int  # that are late with it; 0 when all is in time


def critical_min(problem: ScheduleProblem, bake: str) -> int:
    """Return the least minutes that a bake takes from its first work to its end, whoever helps."""
    tasks = {t.id: t for t in problem.tasks if t.bake == bake}
    length: dict[str, int] = {}

    def until(task: Task, visited: frozenset[str] = frozenset()) -> int:
        if task.id in length or task.id in visited:
            return length.get(task.id, 0)
        before = [
            until(tasks[lag.before], visited | {task.id}) + lag.least
            for lag in problem.lags
            if lag.after == task.id and lag.before in tasks
        ]
        heat = min((problem.oven_named(name).heating(task.temp_c) for name in task.ovens), default=0)
        length[task.id] = max([*before, heat if problem.now == 0 else 0, 0]) + task.minutes
        return length[task.id]

    return max((until(task) for task in tasks.values()), default=0)


def pressed(problem: ScheduleProblem) -> tuple[str, ...]:
    """Bakes that cannot be in time whoever helps: their own chain of work is too long."""
    return tuple(due.bake for due in problem.dues if problem.now + critical_min(problem, due.bake) > due.minute)


def clashes(problem: ScheduleProblem) -> Wording:
    """Return what stands in the way, in a sentence."""
    names = {due.bake: due.name for due in problem.dues}
    too_long = pressed(problem)
    if too_long:
        rows = (
            Message("late-remedies-alone-takes-min", names=names[b], critical=critical_min(problem, b))
            for b in too_long
        )
        return Joined(rows, "; ")
    return Message("late-remedies-start-earlier-add-a-person")


def helps(problem: ScheduleProblem, effort: Effort) -> tuple[WouldHelp, ...]:
    """Return what would bring all in time, each tried for a moment; a try that ran out of time is not told."""
    rows: list[tuple[Wording, Wording, ScheduleProblem]] = [
        ("people", Message("late-remedies-a-second-person"), replace(problem, people=problem.people + 1)),
    ]
    if problem.ovens:
        first = problem.ovens[0]
        more = replace(first, trays=first.trays + 1)
        rows.append(
            (
                "tray",
                Message("late-remedies-one-more-tray-in", first_name=first.name),
                replace(problem, ovens=(more, *problem.ovens[1:])),
            )
        )
        second = replace(first, name="a second oven")
        both = tuple(replace(t, ovens=(*t.ovens, second.name)) if t.ovens else t for t in problem.tasks)
        rows.append(
            (
                "oven",
                Message("late-remedies-a-second-oven"),
                replace(problem, ovens=(*problem.ovens, second), tasks=both),
            )
        )
    suggestions = []
    for key, text, other in rows:
        late = _late(other, effort)
        if late == 0:
            suggestions.append(
                WouldHelp(key=key, text=Message("late-remedies-would-make-everything-ready-on", text=text), minutes=0)
            )
    earlier = _all_later(problem, effort)
    if earlier:
        suggestions.append(
            WouldHelp(
                key="earlier", text=Message("late-remedies-start-min-earlier-or-move", earlier=earlier), minutes=0
            )
        )
    for due in problem.dues:
        if len(problem.dues) > 1 and len(suggestions) < 5:
            tasks = tuple(t for t in problem.tasks if t.bake != due.bake)
            names = {t.id for t in tasks}
            other = replace(
                problem,
                tasks=tasks,
                lags=tuple(lag for lag in problem.lags if lag.before in names and lag.after in names),
                dues=tuple(d for d in problem.dues if d.bake != due.bake),
            )
            if _late(other, effort) == 0:
                suggestions.append(
                    WouldHelp(
                        key=f"without:{due.bake}",
                        text=Message("late-remedies-without-the-others-are-in", due_name=due.name),
                        minutes=0,
                    )
                )
    return tuple(suggestions)


def _late(problem: ScheduleProblem, effort: Effort) -> int | None:
    model = Model(problem)
    best = model.best(model.lateness, effort, None)
    if best is None:
        return None
    return sum(best.plan.late.values())


def _all_later(problem: ScheduleProblem, effort: Effort) -> int | None:
    """By how many minutes all would have to be later together; None when it was not found."""
    model = Model(problem)
    best = model.best(model.common_delay(), effort, None)
    return None if best is None else round(best.value)
