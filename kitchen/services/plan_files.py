"""A plan handed on: as a calendar, a table, and a feed that a calendar program follows."""

import secrets

import orjson
from django.db import transaction
from django.utils import timezone

from kitchen.errors import NotFound, Refused
from kitchen.models import Membership, Plan
from kitchen.services.access import record, require
from kitchen.services.plan_cases import core_plan, placed_tasks
from kitchen.services.plans import stored_plan
from substrata.scheduling import BakeRow, write_bakes, write_plan


@transaction.atomic
def change_feed(member: Membership, plan_id: int, *, on: bool) -> Plan:
    """Open or close the private address of a plan's calendar; a new one each time."""
    require(member, "plans.edit")
    plan = stored_plan(member, plan_id, lock=True)
    plan.feed = secrets.token_urlsafe(30) if on else ""
    plan.save(update_fields=["feed", "touched_at"])
    record(member, "plan.feed", plan=plan.pk, on=on)
    return plan


def feed(key: str) -> str:
    """Return the calendar behind a private address; whoever has it may read it.

    Raises:
        NotFound: when nothing is there (any more).
    """
    plan = Plan.objects.filter(feed=key).first() if 20 <= len(key) <= 48 else None
    if plan is None or plan.planned is None:
        raise NotFound("calendar not found", got="this address", remedy="ask for a new one")
    return plan_file(plan, "ics")


def written_plan(member: Membership, plan_id: int, style: str) -> tuple[str, str]:
    """Return a plan as a file: iCalendar, its tasks or its bakes as CSV, or the open plan document.

    Returns:
        Its name and text.

    Raises:
        Refused: when the style is unknown, or not planned yet.
    """
    plan = stored_plan(member, plan_id)
    if style == "json":
        text = orjson.dumps(write_plan(core_plan(member, plan.document)), option=orjson.OPT_INDENT_2).decode()
        return f"plan-{plan.on}.plan.json", text
    if style == "bakes":
        bakes = core_plan(member, plan.document).bakes
        rows = [
            BakeRow(row=n, formula=b.formula.name, ready=b.due, batches=b.batches, fresh_h=b.fresh_h)
            for n, b in enumerate(bakes, 2)
        ]
        return f"bakes-{plan.on}.csv", write_bakes(rows)
    if style not in ("ics", "csv"):
        raise Refused("file not found", got=style[:20], allowed="ics, csv, bakes, json", field="style")
    placed_tasks(plan)
    return f"plan-{plan.on}.{style}", plan_file(plan, style)


def plan_file(plan: Plan, style: str) -> str:
    """Return a planned plan as iCalendar or CSV."""
    from substrata.publishing import calendar, table, task_rows

    tasks = task_rows(plan.planned or {})
    if style == "csv":
        return table(tasks)
    return calendar(tasks, plan.name, key=f"plan-{plan.pk}", stamp=timezone.now())
