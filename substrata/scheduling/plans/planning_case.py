"""What a plan document asks of a kitchen, as plain numbers: its bakes turned into tasks, and who and what there is."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from substrata.base.errors import FormulaError
from substrata.base.settings import Settings
from substrata.evaluation.dough import Dough
from substrata.ingredients.library import Library
from substrata.process.baking.oven_profile import OvenProfile
from substrata.scheduling.plans.pinned_tasks import pinned
from substrata.scheduling.plans.plan_document import Clock, Plan
from substrata.scheduling.schedule_problem import MOST_TASKS, Due, ScheduledOven, ScheduleProblem
from substrata.scheduling.tasks.bake_tasks import BakeTasks, bake_tasks
from substrata.scheduling.tasks.kitchen_things import capacities, things


@dataclass(frozen=True, kw_only=True)
class PlanningCase:
    """A plan made of its formulas."""

    plan: Plan
    clock: Clock
    bakes: tuple[BakeTasks, ...]
    problem: ScheduleProblem


def planning_case(
    plan: Plan,
    library: Library,
    settings: Settings = Settings(),  # noqa: B008 - frozen
    profiles: Mapping[str, OvenProfile] | None = None,
) -> PlanningCase:
    """Make the problem of a plan.

    Args:
        plan: what is wanted.
        library: the ingredients.
        settings: the kitchen's choices.
        profiles: what is known of its ovens, by name.

    Returns:
        The problem.

    Raises:
        FormulaError: when a formula makes no dough, or an oven does not exist.
    """
    clock = Clock(plan)
    ovens = tuple(ScheduledOven(name=o.name, trays=o.trays, share_k=o.share_k) for o in plan.ovens)
    has = capacities(plan.has)
    all_tasks: list[BakeTasks] = []
    dues = []
    for number, bake in enumerate(plan.bakes):
        if bake.oven and bake.oven not in {oven.name for oven in ovens}:
            raise FormulaError(
                "oven not found",
                got=bake.oven[:40],
                allowed=", ".join(oven.name for oven in ovens),
                remedy="name one of the plan's ovens, or none",
                field=f"bakes[{number}].oven",
            )
        profile = (profiles or {}).get(bake.oven or ovens[0].name, OvenProfile())
        key = bake.id or str(number + 1)
        if key in {bake_tasks.bake for bake_tasks in all_tasks}:
            raise FormulaError(
                "two bakes have one id", got=key[:40], allowed="a different id for each", field=f"bakes[{number}].id"
            )
        dough = Dough(bake.formula, library, settings, profile)
        bake_tasks_here = bake_tasks(key, dough, batches=bake.batches, ovens=ovens, oven=bake.oven, has=has)
        _check_things(bake_tasks_here, has, f"bakes[{number}]")
        all_tasks.append(bake_tasks_here)
        fresh = None if bake.fresh_h is None else round(60 * bake.fresh_h)
        minute = clock.minute(bake.due, f"bakes[{number}].due")
        dues.append(
            Due(
                bake=key,
                name=bake_tasks_here.name,
                task=bake_tasks_here.last,
                minute=minute,
                fresh=fresh,
                priority=bake.priority,
            )
        )
    tasks = [task for bake_tasks_here in all_tasks for task in bake_tasks_here.tasks]
    if len(tasks) > MOST_TASKS:
        raise FormulaError(
            "too many tasks for one plan",
            got=f"{len(tasks)} tasks",
            allowed=f"up to {MOST_TASKS}",
            remedy="plan fewer bakes, or larger loads",
            field="bakes",
        )
    closed = sorted(
        (clock.minute(c.start, f"closed[{n}].start"), clock.minute(c.end, f"closed[{n}].end"))
        for n, c in enumerate(plan.closed)
    )
    problem = ScheduleProblem(
        tasks=tuple(pinned(tasks, plan.pins, clock)),
        lags=tuple(lag for bake_tasks_here in all_tasks for lag in bake_tasks_here.lags),
        dues=tuple(dues),
        ovens=ovens,
        people=plan.people,
        capacity=has,
        holds=tuple(hold for bake_tasks_here in all_tasks for hold in bake_tasks_here.holds),
        closed=tuple((max(a, 0), b) for a, b in closed if b > max(a, 0)),
    )
    return PlanningCase(plan=plan, clock=clock, bakes=tuple(all_tasks), problem=problem)


def _check_things(bake: BakeTasks, has: Mapping[str, int], where: str) -> None:
    needed = {thing for task in bake.tasks for thing in task.uses} | {hold.thing for hold in bake.holds}
    none = sorted(thing for thing in needed if has.get(thing, 1) < 1)
    if none:
        raise FormulaError(
            "a bake needs equipment that this plan does not have",
            got=f"{bake.name}: {', '.join(things()[thing].name for thing in none)}",
            allowed="one or more",
            remedy="enter how many you have, or remove the bake",
            field=f"{where}.formula",
        )
