"""A plan as iCalendar (RFC 5545) and as a table."""

from __future__ import annotations

import csv
import io
from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from typing import Any

from icalendar import Alarm, Calendar, Event

from substrata.base.tables.table_reader import constant
from substrata.formula.exchange.spreadsheet_cells import safe_cell
from substrata.scheduling.plans.plan_answer import HandsAt, PlannedTask

COLUMNS = ("start", "end", "bake", "what", "check_from", "surely_out", "oven", "temperature_c", "uses", "hands_min")


def task_rows(planned: Mapping[str, Any]) -> tuple[PlannedTask, ...]:
    """Return the tasks of an answer that was kept as JSON."""
    rows = []
    for row in planned.get("tasks", ()):
        whole: dict[str, Any] = dict(row)
        for key in ("start", "end", "check", "surely"):
            whole[key] = datetime.fromisoformat(whole[key]) if whole[key] else None
        whole["hands"] = tuple(HandsAt(**span) for span in row["hands"])
        rows.append(PlannedTask(**whole))
    return tuple(rows)


def calendar(tasks: Sequence[PlannedTask], name: str, *, key: str, stamp: datetime) -> str:
    """Return the plan's work and bakes as events; what only lies is left out.

    Args:
        tasks: of the plan.
        name: of the calendar.
        key: by which its events are known again when they move.
        stamp: when it was written.
    """
    whole = Calendar()
    whole.add("prodid", "-//Substrata//plan//EN")
    whole.add("version", "2.0")
    whole.add("x-wr-calname", name)
    for task in tasks:
        if task.hands or task.oven:
            whole.add_component(_event(task, key, stamp))
    return str(whole.to_ical().decode("utf8"))


def _event(task: PlannedTask, key: str, stamp: datetime) -> Event:
    event = Event()
    event.add("uid", f"{task.id}.{key}@substrata")
    event.add("dtstamp", stamp)
    event.add("dtstart", task.start)
    event.add("dtend", task.end if task.end > task.start else task.start + timedelta(minutes=1))
    event.add("summary", task.text)
    if task.oven:
        event.add("location", task.oven)
    if task.check and task.surely:
        event.add("description", f"Check from {task.check:%H:%M}. Take out by {task.surely:%H:%M} at the latest.")
    if task.hands:
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", task.text)
        alarm.add("trigger", timedelta(minutes=-constant("alarm_before_min")))
        event.add_component(alarm)
    return event


def table(tasks: Sequence[PlannedTask]) -> str:
    """Return the plan as CSV, one task a row."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    for task in tasks:
        row: dict[str, Any] = {
            "start": task.start.isoformat(),
            "end": task.end.isoformat(),
            "bake": task.bake,
            "what": task.text,
            "check_from": task.check.isoformat() if task.check else "",
            "surely_out": task.surely.isoformat() if task.surely else "",
            "oven": task.oven,
            "temperature_c": "" if task.temp_c is None else round(task.temp_c),
            "uses": " ".join(task.uses),
            "hands_min": sum(span.end_min - span.start_min for span in task.hands),
        }
        writer.writerow([safe_cell(row[column]) for column in COLUMNS])
    return out.getvalue()
