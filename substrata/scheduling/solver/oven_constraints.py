"""What an oven asks of a day: trays, one temperature at a time, a door, and heating up.

Stages in one oven are ordered with the minutes its temperature needs between them (a study of five ways to write this found it the
quickest to good plans).
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from substrata.base.tables.table_reader import constant, whole_constant
from substrata.scheduling.schedule_problem import ScheduledOven, Task
from substrata.scheduling.solver.cost_bounds import least_on

if TYPE_CHECKING:
    from substrata.scheduling.solver.day_model import DayModel

_MOST_OFF = 3  # pauses in which an oven is off that are looked for
_DOOR = 9  # more than any oven is opened for at once


@dataclass(frozen=True)
class _Pause:
    """In which an oven may be off."""

    off: Any
    until: Any
    minutes: Any


def oven_minutes(day: DayModel, name: str) -> Any:
    """Constrain one oven's trays, temperatures and door.

    Args:
        day: the model.
        name: of the oven.

    Returns:
        For how long it is on, an expression of the model.
    """
    m, oven = day.model, day.problem.oven_named(name)
    rows = [t for t in day.problem.tasks if name in t.ovens]
    if not rows:
        return 0
    here = {t.id: day.inside[t.id, name] for t in rows}
    boxes = {
        t.id: m.new_optional_fixed_size_interval_var(day.start[t.id], t.minutes, here[t.id], f"{t.id} {name}")
        if t.fixed_end is None and not t.passive
        else m.new_optional_interval_var(day.start[t.id], day.size[t.id], day.end[t.id], here[t.id], f"{t.id} {name}")
        for t in rows
    }
    m.add_cumulative(list(boxes.values()), [t.trays for t in rows], oven.trays)
    for n, row in enumerate(rows):
        for other in rows[n + 1 :]:
            if not row.shares(other, oven.share_k):
                both, first = [here[row.id], here[other.id]], m.new_bool_var("")
                m.add(day.start[other.id] >= day.end[row.id] + oven.gap(row.leaves_c, other.temp_c)).only_enforce_if(
                    [*both, first]
                )
                m.add(day.start[row.id] >= day.end[other.id] + oven.gap(other.leaves_c, row.temp_c)).only_enforce_if(
                    [*both, ~first]
                )
    _door(day, rows, here)
    hot = day.problem.hot or any(t.fixed_start is not None for t in rows)
    begin = m.new_int_var(0, day.horizon, f"{name} on")
    stop = m.new_int_var(0, day.horizon * 2, f"{name} off")
    for t in rows:
        heat = oven.heating(t.temp_c)
        if t.fixed_start is None and not hot:
            m.add(day.start[t.id] >= day.problem.now + heat + day.slid).only_enforce_if(here[t.id])
        m.add(begin <= day.start[t.id] - (0 if hot else heat)).only_enforce_if(here[t.id])
        m.add(stop >= day.end[t.id]).only_enforce_if(here[t.id])
    used = m.new_int_var(0, day.horizon * 2, f"{name} minutes")
    pauses = _offs(day, oven, rows, here, begin, stop)
    m.add(used >= stop - begin - sum((pause.minutes for pause in pauses), start=0))
    if len(day.problem.ovens) == 1 and not hot:
        # Each pause costs heating up once more, at least to the coolest stage.
        again = oven.heating(max(min(task.temp_c for task in rows) - oven.share_k, constant("cold_oven_c")))
        m.add(used >= least_on(oven, rows) + again * sum((pause.off for pause in pauses), start=0))
    # An oven that nothing is baked in is off.
    some = m.new_bool_var("")
    m.add_max_equality(some, list(here.values()))
    m.add(begin == 0).only_enforce_if(~some)
    m.add(stop == 0).only_enforce_if(~some)
    return used


def _offs(
    day: DayModel, oven: ScheduledOven, rows: list[Task], here: Mapping[str, Any], begin: Any, stop: Any
) -> list[_Pause]:
    """Pauses in which the oven may be off, whether and for how long: all stages lie before or behind, and it heats up anew for those behind."""
    m, pauses = day.model, list[_Pause]()
    for n in range(min(sum(end > day.problem.now for _, end in day.problem.closed) + 1, _MOST_OFF)):
        off, since = m.new_bool_var(f"{oven.name} off {n}"), m.new_int_var(0, day.horizon * 2, "")
        until, minutes = m.new_int_var(0, day.horizon * 2, ""), m.new_int_var(0, day.horizon * 2, "")
        m.add(minutes <= until - since).only_enforce_if(off)
        m.add(minutes >= whole_constant("oven_off_least_min")).only_enforce_if(off)
        m.add(minutes == 0).only_enforce_if(~off)
        m.add(since >= begin).only_enforce_if(off)
        m.add(until <= stop).only_enforce_if(off)
        if pauses:
            m.add_implication(off, pauses[-1].off)
            m.add(since >= pauses[-1].until).only_enforce_if(off)
        for t in rows:
            before = m.new_bool_var("")
            m.add(day.end[t.id] <= since).only_enforce_if([off, here[t.id], before])
            m.add(day.start[t.id] >= until + oven.heating(t.temp_c)).only_enforce_if([off, here[t.id], ~before])
        pauses.append(_Pause(off, until, minutes))
    return pauses


def _door(day: DayModel, rows: list[Task], here: Mapping[str, Any]) -> None:
    if not any(t.shut > 1 for t in rows):
        return
    m, boxes, wants = day.model, [], []
    for t in rows:
        start, end, present = day.start[t.id], day.end[t.id], here[t.id]
        if t.shut > 1:
            boxes.append(m.new_optional_fixed_size_interval_var(start + 1, t.shut - 1, present, ""))
            wants.append(_DOOR)
        boxes += [
            m.new_optional_fixed_size_interval_var(start, 1, present, ""),
            m.new_optional_fixed_size_interval_var(end - 1, 1, present, ""),
        ]
        wants += [1, 1]
    m.add_cumulative(boxes, wants, _DOOR)
