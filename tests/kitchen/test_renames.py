"""Everything that can be renamed is renamed, and nothing else changes: identity goes by stable ids, never by a name."""

import pytest

from kitchen.models import Formula, Job, Plan
from kitchen.services import formulas, kitchens, oven_readings, ovens, pans, plan_cases, plans, runs
from kitchen.services.access import membership
from kitchen.services.jobs import run_job
from kitchen.services.judging import core_settings
from kitchen.services.oven_readings import BakeReadings
from tests.conftest import sample

ROLLS = sample(almond_flour=160, psyllium_powder=36, water=420, baking_powder=14, cider_vinegar=10, salt=8)
TRAY = {"name": "Grey", "kind": "tray", "length_mm": 400, "width_mm": 300, "height_mm": 20}


def work_through(kitchen):
    for job in Job.objects.filter(kitchen=kitchen, state=Job.State.WAITING):
        run_job(job.pk)


@pytest.fixture
def whole(people, kitchen, monkeypatch):
    """A kitchen with an oven that is learned, a pan, a formula with two versions, a run, a plan and its answer."""
    monkeypatch.setattr(plans, "_SECONDS", 0.5)
    baker = people["baker"]
    oven = ovens.add_oven(membership(baker, kitchen.pk), "Back oven")
    pans.set_pans(membership(baker, kitchen.pk), [TRAY])
    document = ROLLS | {"bake": {"oven": oven.key}, "name": "Rolls"}
    formula = formulas.create_formula(membership(baker, kitchen.pk), document).formula
    formulas.save_version(membership(baker, kitchen.pk), formula.pk, formula.draft.lock, "first")
    for _ in range(3):
        oven_readings.log_bake(membership(baker, kitchen.pk), oven.pk, document, BakeReadings(probe_c=210))
    run = runs.start_run(membership(baker, kitchen.pk), formula.pk, "device-1")
    felt = {"id": "e1", "at": "2026-06-06T08:10:00+00:00", "kind": "felt", "word": "stiff"}
    runs.write_entries(membership(baker, kitchen.pk), run.pk, [felt])
    runs.finish_run(membership(baker, kitchen.pk), run.pk)
    runs.give_verdict(membership(baker, kitchen.pk), run.pk, {"liked": "good"})
    work_through(kitchen)
    plan = plans.create_plan(
        membership(baker, kitchen.pk),
        {
            "name": "Market",
            "start": "2026-06-06T06:00",
            "ovens": [{"name": "Back oven", "trays": 2}],
            "bakes": [{"formula_id": formula.pk, "id": "1", "due": "2026-06-06T14:00"}],
        },
    )
    run_job(plans.start_plan(membership(baker, kitchen.pk), plan.pk).pk)
    return {"oven": oven, "formula": formula, "run": run, "plan": Plan.objects.get(pk=plan.pk)}


def state(people, kitchen, whole):
    """What is known and forecast, without any name."""
    baker = people["baker"]
    kitchen.refresh_from_db()
    draft = Formula.objects.get(pk=whole["formula"].pk).draft
    document = draft.document
    plan = Plan.objects.select_related("kitchen").get(pk=whole["plan"].pk)
    baked = ovens.bake_document(membership(baker, kitchen.pk), document).forecast
    profiles = {row.pk: profile for row, profile in ovens.ovens(membership(baker, kitchen.pk))}
    return {
        "offset": profiles[whole["oven"].pk].offset_k,
        "bakes": profiles[whole["oven"].pk].bakes,
        "minutes": baked.ready_min,
        "weight": baked.bake_to_g,
        "lessons": core_settings(kitchen).lessons,
        "plan": [(task.kind, task.usual) for task in plan_cases.planning_case_of(plan).problem.tasks],
        "runs": [row.formula_id for row in runs.runs_of(membership(baker, kitchen.pk))],
    }


def rename_kitchen(people, kitchen, whole):
    kitchens.change_settings(membership(people["owner"], kitchen.pk), {"name": "Another corner"})


def rename_oven(people, kitchen, whole):
    ovens.change_oven(membership(people["baker"], kitchen.pk), whole["oven"].pk, name="Old faithful")


def rename_formula(people, kitchen, whole):
    draft = Formula.objects.get(pk=whole["formula"].pk).draft
    formulas.save_draft(
        membership(people["baker"], kitchen.pk),
        whole["formula"].pk,
        draft.document | {"name": "Saturday rolls"},
        draft.lock,
    )


def rename_pan(people, kitchen, whole):
    pans.set_pans(membership(people["baker"], kitchen.pk), [{**TRAY, "id": kitchen.pans[0]["id"], "name": "Silver"}])


def rename_plan(people, kitchen, whole):
    plan = Plan.objects.get(pk=whole["plan"].pk)
    plans.save_plan(membership(people["baker"], kitchen.pk), plan.pk, plan.document | {"name": "Saturday"}, plan.lock)


def rename_oven_of_the_plan(people, kitchen, whole):
    plan = Plan.objects.get(pk=whole["plan"].pk)
    (row,) = plan.document["ovens"]
    plans.save_plan(
        membership(people["baker"], kitchen.pk), plan.pk, plan.document | {"ovens": [row | {"name": "deck"}]}, plan.lock
    )


RENAMES = [rename_kitchen, rename_oven, rename_formula, rename_pan, rename_plan, rename_oven_of_the_plan]


@pytest.mark.parametrize("renames", [[one] for one in RENAMES] + [RENAMES], ids=[r.__name__ for r in RENAMES] + ["all"])
def test_a_new_name_changes_nothing_that_is_known_or_forecast(people, kitchen, whole, renames):
    before = state(people, kitchen, whole)
    assert before["bakes"] >= 3
    assert before["lessons"]
    for rename in renames:
        rename(people, kitchen, whole)
    work_through(kitchen)
    assert state(people, kitchen, whole) == before
    if rename_formula not in renames:
        assert plan_cases.changed_since_planned(Plan.objects.get(pk=whole["plan"].pk)) == []
