"""Plans of a kitchen: kept, planned in the background, moved by hand, mended when they slip, shopped for, fed to calendars."""

import time
from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import date
from typing import Any

from django.db import transaction
from django.db.models import QuerySet
from django.db.models.functions import Lower

from kitchen.errors import Conflict as Raced
from kitchen.errors import NotFound
from kitchen.models import Formula, Job, Membership, Oven, Plan, PlannedBake
from kitchen.services.access import record, require
from kitchen.services.jobs import Progress, job_kind, start_job
from kitchen.services.plan_cases import core_plan, draft_documents, mark_of_ovens, placed_tasks, planning_case_of
from kitchen.services.stock import cancel_bake, plan_bake
from substrata.base import plain
from substrata.scheduling import BakeRow, read_bakes, write_plan

PLAN = "plan"
PAGE = 50
_SECONDS = 12.0  # of search, shown as it goes
_SHOWN_EVERY_S = 0.5


@dataclass(frozen=True, kw_only=True)
class PlanPage:
    """Some of a kitchen's plans."""

    rows: list[Plan]
    total: int


def plans(member: Membership, *, offset: int = 0) -> PlanPage:
    """Return a kitchen's plans, the latest day first."""
    rows = Plan.objects.filter(kitchen_id=member.kitchen_id).defer("planned")
    return PlanPage(rows=list(rows[offset : offset + PAGE]), total=rows.count())


def open_plan(member: Membership, plan_id: int) -> Plan:
    """One plan.

    Returns:
        The plan.

    Raises:
        NotFound: when the kitchen has no such plan.
    """
    return stored_plan(member, plan_id)


def stored_plan(member: Membership, plan_id: int, *, lock: bool = False) -> Plan:
    """Return a plan of the member's kitchen.

    Raises:
        NotFound: when the kitchen has no such plan.
    """
    rows: QuerySet[Plan] = Plan.objects.filter(kitchen_id=member.kitchen_id)
    row = (rows.select_for_update() if lock else rows).filter(pk=plan_id).first()
    if row is None:
        raise NotFound("plan not found", got=str(plan_id), remedy="choose one from the list")
    return row


@transaction.atomic
def create_plan(member: Membership, document: dict[str, Any]) -> Plan:
    """Create a new plan.

    Returns:
        The new plan.

    Raises:
        FormulaError: when it cannot be read.
        NotFound: when it names a formula that the kitchen has not.
    """
    require(member, "plans.edit")
    plan = Plan(kitchen=member.kitchen, updated_by=member.user)
    _written(member, plan, document)
    plan.save()
    record(member, "plan.create", plan=plan.pk, name=plan.name)
    return plan


@dataclass(frozen=True, kw_only=True)
class NamedBake:
    """A row of a list with the formula that it names; 0 where the kitchen has none of that name."""

    formula_id: int
    row: BakeRow


def named_bakes(member: Membership, text: str) -> list[NamedBake]:
    """Read a list of bakes and find its formulas by their names, small and capital letters alike.

    Returns:
        The bakes, each with its formula or None.

    Raises:
        FormulaError: when a row cannot be read.
    """
    rows = read_bakes(text)
    named = Formula.objects.filter(kitchen_id=member.kitchen_id, archived_at=None).annotate(plain=Lower("name"))
    # Of two with one name the one that was touched last.
    formulas = dict(
        named.filter(plain__in={row.formula.lower() for row in rows}).order_by("touched_at").values_list("plain", "pk")
    )
    return [NamedBake(formula_id=formulas.get(row.formula.lower(), 0), row=row) for row in rows]


@transaction.atomic
def save_plan(member: Membership, plan_id: int, document: dict[str, Any], lock: int) -> Plan:
    """Keep a plan.

    Returns:
        The stored plan.

    Raises:
        Raced: when somebody else kept it meanwhile.
    """
    require(member, "plans.edit")
    plan = stored_plan(member, plan_id, lock=True)
    if plan.lock != lock:
        raise Raced(
            "somebody else has changed the plan",
            got=str(lock),
            remedy="review their changes",
            current={"document": plan.document, "lock": plan.lock},
        )
    _written(member, plan, document)
    plan.lock += 1
    plan.updated_by = member.user
    plan.save()
    return plan


def _written(member: Membership, plan: Plan, document: dict[str, Any]) -> None:
    _name_ovens_by_id(member, document)
    core = core_plan(member, document)
    plan.document = document
    plan.name = core.name.strip() or "Plan"
    plan.on = date.fromisoformat(min(bake.due for bake in core.bakes)[:10])


def _name_ovens_by_id(member: Membership, document: dict[str, Any]) -> None:
    """Give each oven of a plan the id of the kitchen's oven of that name, where it has none yet: a rename changes nothing then."""
    listed = document.get("ovens")
    rows = [oven for oven in listed if isinstance(oven, dict)] if isinstance(listed, list) else []
    known = dict(
        Oven.objects.filter(kitchen_id=member.kitchen_id, archived=False).order_by("-pk").values_list("name", "key")
    )
    for oven in rows:
        name = oven.get("name")
        if not oven.get("key") and isinstance(name, str) and name in known:
            oven["key"] = known[name]


@transaction.atomic
def delete_plan(member: Membership, plan_id: int) -> None:
    """Take a plan away for good."""
    require(member, "plans.edit")
    plan = stored_plan(member, plan_id, lock=True)
    reserve(member, plan_id, on=False)  # what was held for it is free again
    record(member, "plan.delete", plan=plan.pk, name=plan.name)
    plan.delete()


@transaction.atomic
def start_plan(member: Membership, plan_id: int) -> Job:
    """Ask for it to be planned; better plans are shown as they are found."""
    require(member, "plans.edit")
    plan = stored_plan(member, plan_id)
    return start_job(member, PLAN, {"plan": plan.pk, "lock": plan.lock}, 100)


@job_kind(PLAN, queue="heavy")
def run_plan(job: Job, progress: Progress) -> dict[str, Any] | None:
    """Plan it, as carefully as its deadlines allow."""
    from substrata.scheduling import Effort, make_plan

    plan = Plan.objects.select_related("kitchen").filter(pk=job.input["plan"], kitchen_id=job.kitchen_id).first()
    if plan is None:
        return None
    problem = planning_case_of(plan)
    planned_from = {"drafts": draft_documents(plan), "ovens": mark_of_ovens(plan)}
    started = shown = time.monotonic()

    def store_better(better: Callable[[], Any]) -> bool:
        nonlocal shown
        now = time.monotonic()
        if now - shown < _SHOWN_EVERY_S:
            return True
        shown = now
        Job.objects.filter(pk=job.pk).update(result=plain(better()))
        return progress.report(min(round(100 * (now - started) / _SECONDS), 99))

    answer = make_plan(problem, effort=Effort(seconds=_SECONDS, workers=2), on_better=store_better)
    result: dict[str, Any] = plain(answer)
    Plan.objects.filter(pk=plan.pk, lock=job.input["lock"]).update(
        planned=result, planned_lock=job.input["lock"], planned_from=planned_from
    )
    progress.report(100)
    return result


def try_move(member: Membership, plan_id: int, task: str, start_min: int) -> tuple[Any, ...]:
    """Return what stands in the way of moving a task; nothing is changed.

    Raises:
        Refused: when not planned yet.
    """
    from substrata.scheduling import conflicts

    plan = open_plan(member, plan_id)
    return conflicts(planning_case_of(plan), placed_tasks(plan), task, start_min)


@transaction.atomic
def slip(member: Membership, plan_id: int, task: str, minutes: int) -> Plan:
    """Lengthen a task that took longer and mark the rest for replanning.

    Returns:
        The plan with the longer task.

    Raises:
        Refused: when not planned yet.
    """
    from substrata.scheduling import slipped

    require(member, "plans.edit")
    plan = stored_plan(member, plan_id, lock=True)
    document = write_plan(replace(slipped(planning_case_of(plan), placed_tasks(plan), task, minutes), bakes=()))
    plan.document = {**plan.document, "pins": document["pins"], "happened": document["happened"]}
    plan.lock += 1
    plan.updated_by = member.user
    plan.save()
    record(member, "plan.slip", plan=plan.pk, task=task, minutes=minutes)
    return plan


@transaction.atomic
def reserve(member: Membership, plan_id: int, *, on: bool) -> Plan:
    """Hold packs for the plan's bakes, first in, first out, or let them go; what no pack holds stays on the shopping list."""
    require(member, "plans.edit")
    plan = stored_plan(member, plan_id, lock=True)
    held = PlannedBake.objects.filter(
        kitchen_id=member.kitchen_id, pk__in=plan.reserved, state=PlannedBake.State.PLANNED
    )
    for pk in list(held.values_list("pk", flat=True)):
        cancel_bake(member, pk)
    plan.reserved = []
    if on:
        core = core_plan(member, plan.document)
        rows = zip(plan.document["bakes"], core.bakes, strict=True)
        plan.reserved = [
            plan_bake(member, row["formula_id"], bake.batches, date.fromisoformat(bake.due[:10])).pk
            for row, bake in rows
        ]
    plan.save(update_fields=["reserved", "touched_at"])
    return plan
