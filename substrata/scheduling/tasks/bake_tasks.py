"""The tasks of one bake, from the stations' own answers: prep, mixing, rest, shape, loads and stages of the oven, cooling."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from substrata.base.errors import OvenError
from substrata.base.messages.message import Message
from substrata.evaluation.dough import Dough
from substrata.evaluation.forecasts.bake_forecast import BakeForecast, forecast_bake
from substrata.evaluation.forecasts.shape_forecast import plan_shape
from substrata.execution.protocol import bake_protocol
from substrata.execution.protocol_step import RunPlan
from substrata.scheduling.schedule_problem import Hold, Lag, ScheduledOven, Task
from substrata.scheduling.tasks.oven_loads import OvenLoads
from substrata.scheduling.tasks.preparation_tasks import PreparationTasks
from substrata.scheduling.tasks.shaping_tasks import ShapingTasks
from substrata.scheduling.tasks.task_list import TaskList


@dataclass(frozen=True, kw_only=True)
class BakeTasks:
    """One bake, ready to be planned."""

    bake: str
    name: str
    tasks: tuple[Task, ...]
    lags: tuple[Lag, ...]
    holds: tuple[Hold, ...]  # of tins and trays, where the plan has so many
    last: str  # task that it is ready after
    run: RunPlan
    trays: int
    loads: int


def bake_tasks(
    bake: str,
    dough: Dough,
    *,
    batches: float,
    ovens: Sequence[ScheduledOven],
    oven: str = "",
    has: Mapping[str, int] | None = None,
) -> BakeTasks:
    """Return what is to be done for a bake.

    Args:
        bake: its id.
        dough: what is made, with the oven it is baked in.
        batches: how much of it.
        ovens: of the plan.
        oven: name of the one it is baked in; "" for any.
        has: how many tins, trays and places there are; as many as are wanted of what is not in it.

    Raises:
        FormulaError: when there is no dough to make.
    """
    usable = [o for o in ovens if not oven or o.name == oven] or list(ovens)
    tasks = TaskList(bake, dough, batches, bake_protocol(dough, batches=batches))
    loads = OvenLoads(tasks, plan_shape(dough), _forecast(dough), usable, has or {})
    mix = PreparationTasks(tasks).add()
    last = ShapingTasks(tasks, loads, has or {}).add(mix)
    _add_cooling(tasks, last)
    return BakeTasks(
        bake=bake,
        name=dough.formula.name,
        tasks=tuple(tasks.tasks),
        lags=tuple(tasks.lags),
        holds=tuple(tasks.holds),
        last=tasks.tasks[-1].id,
        run=tasks.run,
        trays=loads.trays,
        loads=loads.loads,
    )


def _forecast(dough: Dough) -> BakeForecast | None:
    try:
        return forecast_bake(dough, further=False)
    except OvenError:
        return None


def _add_cooling(tasks: TaskList, last: Sequence[str]) -> None:
    """Add the cooling: it begins the moment the last load is out; earlier ones have cooled by then."""
    cool = next(step for step in tasks.run.steps if step.group == "cool")
    minutes = max(round(cool.minutes or 0), 1)
    tasks.add("cool", "cool", cool.text, minutes, minutes, minutes, steps=(cool.id,))
    for task in last:
        most = 0 if task == last[-1] else None
        tasks.lag(task, tasks.task_id("cool"), most=most, reason=Message("bake-tasks-cooling-starts-when-it-leaves"))
