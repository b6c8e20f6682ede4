"""A plan as the planner works it out: its document with the formulas and ovens of the kitchen."""

from collections.abc import Iterable, Mapping
from dataclasses import replace
from functools import lru_cache
from hashlib import sha256
from typing import Any

from kitchen.errors import NotFound, Refused
from kitchen.models import Formula, Membership, Oven, Plan
from kitchen.services.judging import core_settings, library_of
from kitchen.services.memo import MemoKey, kitchen_mark, ovens_mark, profile_mark
from kitchen.services.ovens import profile_of
from substrata.process import OvenProfile
from substrata.scheduling import Placed, read_plan
from substrata.scheduling import Plan as CorePlan


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
    from substrata.scheduling import planning_case

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
    key = (*kitchen_mark(plan.kitchen), *ovens_mark(plan.kitchen), plan.pk, plan.lock, *draft_documents(plan).items())
    return _planning_case(MemoKey(key, plan))


def draft_documents(plan: Plan) -> dict[str, int]:
    """Return the state of each formula of a plan: its id and how often its draft was saved."""
    formulas = [bake.get("formula_id") for bake in plan.document.get("bakes", [])]
    rows = Formula.objects.filter(kitchen_id=plan.kitchen_id, pk__in=[f for f in formulas if isinstance(f, int)])
    return {str(pk): lock for pk, lock in rows.order_by("pk").values_list("pk", "draft__lock")}


def changed_since_planned(plan: Plan) -> list[str]:
    """Return what of a plan is other than when it was planned: names of formulas, and "ovens" where one of them is."""
    if plan.planned is None or not plan.planned_from:
        return []
    before = plan.planned_from.get("drafts", {})
    gone = [int(pk) for pk, lock in draft_documents(plan).items() if before.get(pk, lock) != lock]
    names = list(Formula.objects.filter(pk__in=gone).order_by("name").values_list("name", flat=True))
    ovens = plan.planned_from.get("ovens") not in (None, mark_of_ovens(plan))
    return [*names, *(["the oven"] if ovens else [])]


def mark_of_ovens(plan: Plan) -> str:
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


def placed_tasks(plan: Plan) -> dict[str, Placed]:
    """Return start and end in minutes, and the oven, of each task of a planned plan, by task id.

    Raises:
        Refused: when the plan has no times yet.
    """
    if plan.planned is None:
        raise Refused("not planned yet", got=plan.name, allowed="a plan with its times", remedy="plan it first")
    return {
        task["id"]: Placed(start=task["start_min"], end=task["end_min"], oven=task["oven"])
        for task in plan.planned["tasks"]
    }
