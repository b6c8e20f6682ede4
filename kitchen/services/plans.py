"""Plans of a kitchen: kept, planned in the background, moved by hand, mended when they slip, shopped for, fed to calendars."""

import secrets
import time
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import date
from functools import lru_cache
from hashlib import sha256
from typing import Any

import orjson
from django.db import transaction
from django.db.models import QuerySet
from django.db.models.functions import Lower
from django.utils import timezone

from kitchen.errors import Conflict as Raced
from kitchen.errors import NotFound, Refused
from kitchen.models import Formula, Job, Membership, Oven, Plan, PlannedBake
from kitchen.services.access import record, require
from kitchen.services.jobs import Progress, job_kind, start_job
from kitchen.services.judging import core_settings, library_of
from kitchen.services.memo import MemoKey, kitchen_mark, ovens_mark, profile_mark
from kitchen.services.ovens import profile_of
from kitchen.services.stock import cancel_bake, plan_bake
from substrata.process.baking.oven_profile import OvenProfile
from substrata.scheduling.plans.bake_list import BakeRow, read_bakes, write_bakes
from substrata.scheduling.plans.plan_document import Plan as CorePlan
from substrata.scheduling.plans.plan_document import read_plan, write_plan
from substrata.scheduling.schedule_problem import Placed

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


def core_plan(member: Membership, document: Mapping[str, Any]) -> CorePlan:
    """Return the kitchen's plan as the open document: each bake with its formula's draft.

    Raises:
        FormulaError: when it cannot be read.
        NotFound: when it names a formula that the kitchen has not.
    """
    bakes = document.get("bakes")
    rows = [bake for bake in bakes if isinstance(bake, dict)] if isinstance(bakes, list) else []
    formula_ids = {bake.get("formula_id") for bake in rows}
    known = {
        formula.pk: formula
        for formula in Formula.objects.filter(
            kitchen_id=member.kitchen_id, pk__in=[w for w in formula_ids if isinstance(w, int)]
        )
        .select_related("draft")
        .only("pk", "draft__document")
    }
    filled = []
    for bake in rows:
        formula = known.get(bake.get("formula_id", 0))
        if formula is None:
            raise NotFound(
                "formula not found", got=str(bake.get("formula_id"))[:20], remedy="remove the bake from the plan"
            )
        plain = {key: value for key, value in bake.items() if key != "formula_id"}
        filled.append({**plain, "formula": formula.draft.document})
    return read_plan({**document, "bakes": filled})


@lru_cache(maxsize=16)
def _planning_case(memo_key: MemoKey) -> Any:
    from substrata.scheduling.plans.planning_case import planning_case  # loaded late, as all that knows the solver

    plan: Plan = memo_key.payload
    member = Membership.objects.select_related("kitchen").filter(kitchen_id=plan.kitchen_id).first()
    if member is None:
        raise NotFound("plan not found", got=str(plan.pk))
    core = core_plan(member, plan.document)
    documents = [{"lines": [{"lot": line.lot} for line in bake.formula.lines]} for bake in core.bakes]
    profiles = _profiles(plan.kitchen_id, [(oven.name, oven.key) for oven in core.ovens])
    return planning_case(core, library_of(plan.kitchen, *documents), core_settings(plan.kitchen), profiles)


def planning_case_of(plan: Plan) -> Any:
    """Return the plan made of its formulas, as they and the kitchen's ovens are now."""
    key = (*kitchen_mark(plan.kitchen), *ovens_mark(plan.kitchen), plan.pk, plan.lock, *_drafts(plan).items())
    return _planning_case(MemoKey(key, plan))


def _drafts(plan: Plan) -> dict[str, int]:
    """Return the state of each formula of a plan: its id and how often its draft was saved."""
    formulas = [bake.get("formula_id") for bake in plan.document.get("bakes", [])]
    rows = Formula.objects.filter(kitchen_id=plan.kitchen_id, pk__in=[f for f in formulas if isinstance(f, int)])
    return {str(pk): lock for pk, lock in rows.order_by("pk").values_list("pk", "draft__lock")}


def changed_since_planned(plan: Plan) -> list[str]:
    """Return what of a plan is other than when it was planned: names of formulas, and "ovens" where one of them is."""
    if plan.planned is None or not plan.planned_from:
        return []
    before = plan.planned_from.get("drafts", {})
    gone = [int(pk) for pk, lock in _drafts(plan).items() if before.get(pk, lock) != lock]
    names = list(Formula.objects.filter(pk__in=gone).order_by("name").values_list("name", flat=True))
    ovens = plan.planned_from.get("ovens") not in (None, _mark_of_ovens(plan))
    return [*names, *(["the oven"] if ovens else [])]


def _mark_of_ovens(plan: Plan) -> str:
    """Return what tells one state of the plan's ovens from another: what is known of them, and never a name."""
    listed = [(str(row.get("name", "")), str(row.get("key", ""))) for row in plan.document.get("ovens", [])]
    known = _profiles(plan.kitchen_id, listed)
    marks = [profile_mark(replace(known[name], name="")) if name in known else () for name, _ in listed]
    return sha256(repr(marks).encode()).hexdigest()[:16]


def _profiles(kitchen_id: int, listed: Iterable[tuple[str, str]]) -> dict[str, OvenProfile]:
    """Return what is known of a plan's ovens, by their names in the plan.

    Args:
        kitchen_id: whose ovens they are.
        listed: name and key of each oven of the plan; one of an old plan has no key and goes by its name.

    Returns:
        The profiles of those that the kitchen has.
    """
    rows = list(Oven.objects.filter(kitchen_id=kitchen_id, archived=False).order_by("pk"))
    by_key, by_name = {row.key: row for row in rows}, {row.name: row for row in reversed(rows)}
    matched = {name: by_key.get(key) or by_name.get(name) for name, key in listed}
    return {name: profile_of(row) for name, row in matched.items() if row is not None}


@transaction.atomic
def start_plan(member: Membership, plan_id: int) -> Job:
    """Ask for it to be planned; better plans are shown as they are found."""
    require(member, "plans.edit")
    plan = stored_plan(member, plan_id)
    return start_job(member, PLAN, {"plan": plan.pk, "lock": plan.lock}, 100)


@job_kind(PLAN, queue="heavy")
def run_plan(job: Job, progress: Progress) -> dict[str, Any] | None:
    """Plan it, as carefully as its deadlines allow."""
    from substrata.scheduling.plans.planning import make_plan
    from substrata.scheduling.solver.search_effort import Effort

    plan = Plan.objects.select_related("kitchen").filter(pk=job.input["plan"], kitchen_id=job.kitchen_id).first()
    if plan is None:
        return None
    problem = planning_case_of(plan)
    planned_from = {"drafts": _drafts(plan), "ovens": _mark_of_ovens(plan)}
    started = shown = time.monotonic()

    def store_better(better: Callable[[], Any]) -> bool:
        nonlocal shown
        now = time.monotonic()
        if now - shown < _SHOWN_EVERY_S:
            return True
        shown = now
        Job.objects.filter(pk=job.pk).update(result=_json(better()))
        return progress.report(min(round(100 * (now - started) / _SECONDS), 99))

    answer = make_plan(problem, effort=Effort(seconds=_SECONDS, workers=2), on_better=store_better)
    result = _json(answer)
    Plan.objects.filter(pk=plan.pk, lock=job.input["lock"]).update(
        planned=result, planned_lock=job.input["lock"], planned_from=planned_from
    )
    progress.report(100)
    return result


def _json(answer: Any) -> dict[str, Any]:
    plain: dict[str, Any] = orjson.loads(orjson.dumps(answer))
    return plain


def _placed(plan: Plan) -> dict[str, Placed]:
    if plan.planned is None:
        raise Refused("not planned yet", got=plan.name, allowed="a plan with its times", remedy="plan it first")
    return {
        task["id"]: Placed(start=task["start_min"], end=task["end_min"], oven=task["oven"])
        for task in plan.planned["tasks"]
    }


def try_move(member: Membership, plan_id: int, task: str, start_min: int) -> tuple[Any, ...]:
    """Return what stands in the way of moving a task; nothing is changed.

    Raises:
        Refused: when not planned yet.
    """
    from substrata.scheduling.plans.manual_moves import conflicts

    plan = open_plan(member, plan_id)
    return conflicts(planning_case_of(plan), _placed(plan), task, start_min)


@transaction.atomic
def slip(member: Membership, plan_id: int, task: str, minutes: int) -> Plan:
    """Lengthen a task that took longer and mark the rest for replanning.

    Returns:
        The plan with the longer task.

    Raises:
        Refused: when not planned yet.
    """
    from substrata.scheduling.plans.manual_moves import slipped

    require(member, "plans.edit")
    plan = stored_plan(member, plan_id, lock=True)
    document = write_plan(replace(slipped(planning_case_of(plan), _placed(plan), task, minutes), bakes=()))
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
    _placed(plan)
    return f"plan-{plan.on}.{style}", plan_file(plan, style)


def plan_file(plan: Plan, style: str) -> str:
    """Return a planned plan as iCalendar or CSV."""
    from substrata.publishing.plan_calendar import calendar, table, task_rows

    tasks = task_rows(plan.planned or {})
    if style == "csv":
        return table(tasks)
    return calendar(tasks, plan.name, key=f"plan-{plan.pk}", stamp=timezone.now())
