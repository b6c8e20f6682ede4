"""From when to when an oven is on: through a long pause nobody leaves it so."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.tables.table_reader import constant, whole_constant
from substrata.scheduling.schedule_problem import Placed, Schedule, ScheduledOven, ScheduleProblem, Task


@dataclass(frozen=True, kw_only=True)
class OvenHeat:
    """An oven over the day: corners of its temperature."""

    oven: str
    minutes: tuple[int, ...]
    degrees: tuple[float, ...]


def in_oven(problem: ScheduleProblem, plan: Schedule, oven: ScheduledOven) -> list[tuple[Placed, Task]]:
    """Return what is baked in an oven, in the order of its starts."""
    inside = [(plan.placed[t.id], t) for t in problem.tasks if t.ovens and plan.placed[t.id].oven == oven.name]
    return sorted(inside, key=lambda row: row[0].start)


def on_times(oven: ScheduledOven, inside: list[tuple[Placed, Task]]) -> list[tuple[int, int]]:
    """When it is on, with heating up.

    Switched off after its last stage for a while, it counts as cold when it is wanted again: it cools by then, or nearly.

    Args:
        oven: heats up.
        inside: its stages, in the order of their starts.

    Returns:
        Spans of minutes, first to last.
    """
    times: list[tuple[int, int]] = []
    for at, task in inside:
        begin = at.start - oven.heating(task.temp_c)
        if times and begin - times[-1][1] < whole_constant("oven_off_least_min"):
            times[-1] = times[-1][0], max(times[-1][1], at.end)
        else:
            times.append((begin, at.end))
    return times


def heat_curves(problem: ScheduleProblem, schedule: Schedule) -> tuple[OvenHeat, ...]:
    """Return the temperature of each oven that is used, as the plan wants it; off, it cools towards the room."""
    curves = []
    for oven in problem.ovens:
        inside = in_oven(problem, schedule, oven)
        minutes: list[int] = []
        degrees: list[float] = []
        for begin, end in on_times(oven, inside):
            start_c = (
                max(degrees[-1] - (begin - minutes[-1]) * oven.down_k_min, constant("cold_oven_c"))
                if minutes
                else constant("cold_oven_c")
            )
            minutes, degrees = [*minutes, begin], [*degrees, start_c]
            for at, task in inside:
                if not begin <= at.start <= end:
                    continue
                if degrees[-1] != task.temp_c:
                    since = max(minutes[-1], at.start - oven.gap(degrees[-1], task.temp_c))
                    minutes, degrees = [*minutes, since, at.start], [*degrees, degrees[-1], task.temp_c]
                minutes, degrees = [*minutes, at.end], [*degrees, task.leaves_c]
        if minutes:
            curves.append(OvenHeat(oven=oven.name, minutes=tuple(minutes), degrees=tuple(degrees)))
    return tuple(curves)
