"""Plans of a kitchen: kept under a lock, planned by a job, moved, mended, shopped for, and fed to a calendar."""

from datetime import date, timedelta

import pytest
from icalendar import Calendar

from kitchen.errors import Conflict, Forbidden, NotFound, Refused
from kitchen.models import Formula, Job, Plan
from kitchen.services import formulas, oven_readings, ovens, packs, plan_cases, plan_files, plan_shopping, plans
from kitchen.services.access import membership
from kitchen.services.jobs import run_job
from substrata.base.errors import FormulaError
from substrata.scheduling.plans.plan_document import read_plan
from tests.conftest import sample

ROLLS = sample(almond_flour=160, psyllium_powder=36, water=420, baking_powder=14, cider_vinegar=10, salt=8)
START = "2026-06-06T06:00"


@pytest.fixture
def formula(people, kitchen):
    return formulas.create_formula(membership(people["baker"], kitchen.pk), ROLLS).formula


def document(formula, due="2026-06-06T14:00", **more):
    bake = {"formula_id": formula.pk, "id": "1", "due": due, "batches": 2}
    return {"name": "Market", "start": START, "ovens": [{"name": "Back oven", "trays": 2}], "bakes": [bake], **more}


@pytest.fixture
def plan(people, kitchen, formula):
    return plans.create_plan(membership(people["baker"], kitchen.pk), document(formula))


@pytest.fixture
def planned(people, kitchen, plan, monkeypatch):
    monkeypatch.setattr(plans, "_SECONDS", 1.5)
    job = plans.start_plan(membership(people["baker"], kitchen.pk), plan.pk)
    run_job(job.pk)
    plan.refresh_from_db()
    return plan


def test_a_plan_is_planned_by_a_job_and_kept_with_its_answer(planned):
    job = Job.objects.get(kind="plan")
    assert job.state == Job.State.DONE
    assert planned.planned == job.result
    assert planned.planned_lock == planned.lock
    assert planned.on == date(2026, 6, 6)
    assert job.result["late"] == []
    assert "Everything is ready on time" in job.result["text"]
    kinds = [task["kind"] for task in job.result["tasks"]]
    assert kinds[0] == "weigh"
    assert {"mix", "shape", "bake", "cool"} <= set(kinds)


def test_two_people_do_not_overwrite_each_other(people, kitchen, formula, plan):
    saved = plans.save_plan(membership(people["baker"], kitchen.pk), plan.pk, document(formula, people=2), plan.lock)
    with pytest.raises(Conflict) as raced:
        plans.save_plan(membership(people["baker"], kitchen.pk), plan.pk, document(formula, people=3), plan.lock)
    assert raced.value.current["document"]["people"] == 2
    assert saved.lock == plan.lock + 1


def test_an_answer_to_an_older_plan_is_not_kept(people, kitchen, formula, plan, monkeypatch):
    monkeypatch.setattr(plans, "_SECONDS", 0.5)
    job = plans.start_plan(membership(people["baker"], kitchen.pk), plan.pk)
    plans.save_plan(membership(people["baker"], kitchen.pk), plan.pk, document(formula, people=2), plan.lock)
    run_job(job.pk)
    plan.refresh_from_db()
    assert plan.planned is None


def test_a_move_is_tried_and_a_slip_plans_the_rest_anew(people, kitchen, planned, monkeypatch):
    baker = people["baker"]
    bake = next(task for task in planned.planned["tasks"] if task["kind"] == "bake")
    told = plans.try_move(membership(baker, kitchen.pk), planned.pk, bake["id"], bake["start_min"] + 300)
    assert any(conflict.kind == "late" for conflict in told)
    assert plans.try_move(membership(baker, kitchen.pk), planned.pk, bake["id"], bake["start_min"]) == ()
    mix = next(task for task in planned.planned["tasks"] if task["kind"] == "mix")
    slipped = plans.slip(membership(baker, kitchen.pk), planned.pk, mix["id"], 12)
    run_job(plans.start_plan(membership(baker, kitchen.pk), slipped.pk).pk)
    slipped.refresh_from_db()
    after = {task["id"]: task for task in slipped.planned["tasks"]}
    assert after[mix["id"]]["start_min"] == mix["start_min"]
    assert after[mix["id"]]["end_min"] >= mix["end_min"] + 12
    assert "deadline" in slipped.planned["text"] or "late" in slipped.planned["text"]


def test_an_unplanned_plan_has_nothing_to_move(people, kitchen, plan):
    with pytest.raises(Refused, match="not planned yet"):
        plans.try_move(membership(people["baker"], kitchen.pk), plan.pk, "1:mix", 10)
    with pytest.raises(Refused, match="not planned yet"):
        plan_files.written_plan(membership(people["baker"], kitchen.pk), plan.pk, "ics")


def test_the_shopping_list_takes_off_what_is_there_in_whole_packs(people, kitchen, plan):
    baker = people["baker"]
    pack = {"ingredient": "almond-flour", "name": "Blanched, fine", "price": 9.0, "pack_g": 250.0}
    packs.create_lot(membership(baker, kitchen.pk), pack, 100.0)
    _, rows = plan_shopping.shopping_list(membership(baker, kitchen.pk), plan.pk)
    almond = next(row for row in rows if row.ingredient == "almond-flour")
    # Two batches take 320 g, 100 are there: one pack of 250 g.
    assert (almond.needed_g, almond.short_g, almond.packs, almond.price) == (320.0, 220.0, 1, 9.0)
    assert "water" not in {row.ingredient for row in rows}
    assert plan_shopping.tick(membership(baker, kitchen.pk), plan.pk, "almond-flour", done=True).ticked == [
        "almond-flour"
    ]
    assert plan_shopping.tick(membership(baker, kitchen.pk), plan.pk, "salt", done=True).ticked == [
        "almond-flour",
        "salt",
    ]
    assert plan_shopping.tick(membership(baker, kitchen.pk), plan.pk, "almond-flour", done=False).ticked == ["salt"]
    with pytest.raises(Refused, match="ingredient not found"):
        plan_shopping.tick(membership(baker, kitchen.pk), plan.pk, "sand", done=True)


def test_the_calendar_is_read_back_by_another_library(people, kitchen, planned):
    name, text = plan_files.written_plan(membership(people["baker"], kitchen.pk), planned.pk, "ics")
    assert name == "plan-2026-06-06.ics"
    events = Calendar.from_ical(text).walk("VEVENT")
    worked = [task for task in planned.planned["tasks"] if task["hands"] or task["oven"]]
    assert len(events) == len(worked)
    assert [str(event["summary"]) for event in events] == [task["text"] for task in worked]
    assert all(event["dtend"].dt > event["dtstart"].dt for event in events)
    bake = next(event for event in events if "Bake" in event["summary"])
    assert bake["location"] == "Back oven"
    assert "Check from" in bake["description"]
    table = plan_files.written_plan(membership(people["baker"], kitchen.pk), planned.pk, "csv")[1]
    assert len(table.splitlines()) == len(planned.planned["tasks"]) + 1


def test_the_open_document_of_a_plan_is_read_again(people, kitchen, planned):
    import orjson

    text = plan_files.written_plan(membership(people["baker"], kitchen.pk), planned.pk, "json")[1]
    again = read_plan(orjson.loads(text))
    assert again.name == "Market"
    assert again.bakes[0].formula.lines[0].ingredient == "almond-flour"


def test_a_private_address_opens_and_closes(client, people, kitchen, planned):
    opened = plan_files.change_feed(membership(people["baker"], kitchen.pk), planned.pk, on=True)
    answer = client.get(f"/feed/{opened.feed}.ics")
    assert answer.status_code == 200
    assert answer["Content-Type"].startswith("text/calendar")
    assert "no-store" in answer["Cache-Control"]
    plan_files.change_feed(membership(people["baker"], kitchen.pk), planned.pk, on=False)
    assert client.get(f"/feed/{opened.feed}.ics").status_code == 404
    assert client.get("/feed/.ics").status_code in (404, 302, 200)
    assert client.get("/feed/x.ics").status_code == 404
    again = plan_files.change_feed(membership(people["baker"], kitchen.pk), planned.pk, on=True)
    assert again.feed != opened.feed


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"due": "2026-06-05T14:00"}, "before the plan starts"),
        ({"due": "never"}, "cannot be read"),
        ({"due": "2026-09-05T14:00"}, "too far away"),
        ({"oven": "Moon"}, None),
        ({"batches": -1}, "cannot be read"),
    ],
)
def test_what_cannot_be_is_refused_in_words(people, kitchen, formula, change, words):
    wrong = document(formula)
    wrong["bakes"][0] |= change
    if words is None:
        plan = plans.create_plan(membership(people["baker"], kitchen.pk), wrong)
        run_job(plans.start_plan(membership(people["baker"], kitchen.pk), plan.pk).pk)
        assert Job.objects.get(kind="plan").problem["what"] == "oven not found"
        return
    with pytest.raises(FormulaError) as refused:
        plans.create_plan(membership(people["baker"], kitchen.pk), wrong)
    assert words in str(refused.value)
    assert not Plan.objects.exists()


def test_plans_belong_to_their_kitchen(people, kitchen, formula, plan):
    with pytest.raises(NotFound):
        plans.open_plan(membership(people["outsider"], kitchen.pk), plan.pk)
    with pytest.raises(Forbidden):
        plans.create_plan(membership(people["viewer"], kitchen.pk), document(formula))
    with pytest.raises(NotFound, match="formula not found"):
        plans.create_plan(
            membership(people["baker"], kitchen.pk),
            document(formula) | {"bakes": [{"formula_id": 0, "due": "2026-06-06T14:00"}]},
        )
    assert plans.plans(membership(people["viewer"], kitchen.pk)).total == 1
    plans.delete_plan(membership(people["baker"], kitchen.pk), plan.pk)
    assert plans.plans(membership(people["viewer"], kitchen.pk)).total == 0


def test_the_list_asks_the_database_as_often_for_many_as_for_one(people, kitchen, formula, django_assert_num_queries):
    for n in range(30):
        plans.create_plan(membership(people["baker"], kitchen.pk), document(formula, due=f"2026-06-06T{10 + n % 9}:00"))
    with django_assert_num_queries(3):
        page = plans.plans(membership(people["viewer"], kitchen.pk))
    assert page.total == len(page.rows) == 30
    assert timedelta(0) == page.rows[0].on - page.rows[-1].on


def test_packs_are_held_for_a_plan_once_and_let_go(people, kitchen, plan):
    baker = people["baker"]
    lot = packs.create_lot(
        membership(baker, kitchen.pk), {"ingredient": "almond-flour", "name": "Fine", "pack_g": 250.0}, 300.0
    ).lot

    def short():
        rows = plan_shopping.shopping_list(membership(baker, kitchen.pk), plan.pk)[1]
        return next(row for row in rows if row.ingredient == "almond-flour")

    assert (short().short_g, short().by) == (20.0, "2026-06-06T14:00")
    for _ in range(2):
        held = plans.reserve(membership(baker, kitchen.pk), plan.pk, on=True)
        assert kitchen.bakes.filter(state="planned").count() == len(held.reserved) == 1
    # What is held for this plan is there for it, and for no other.
    assert short().short_g == 20.0
    other = plans.create_plan(membership(baker, kitchen.pk), plan.document)
    rows = plan_shopping.shopping_list(membership(baker, kitchen.pk), other.pk)[1]
    assert next(row for row in rows if row.ingredient == "almond-flour").short_g == 320.0
    plans.delete_plan(membership(baker, kitchen.pk), plan.pk)
    assert not kitchen.bakes.filter(state="planned").exists()
    assert lot.picks.filter(bake__state="planned").count() == 0


def test_a_list_of_bakes_goes_out_and_names_its_formulas_when_it_comes_in(people, kitchen, planned):
    name, text = plan_files.written_plan(membership(people["baker"], kitchen.pk), planned.pk, "bakes")
    assert name.endswith(".csv")
    found = plans.named_bakes(
        membership(people["baker"], kitchen.pk), text.replace(planned_name(planned), planned_name(planned).upper(), 1)
    )
    assert [one.formula_id for one in found] == [bake["formula_id"] for bake in planned.document["bakes"]]
    assert [one.row.ready[:16] for one in found] == [bake["due"][:16] for bake in planned.document["bakes"]]
    odd = plans.named_bakes(membership(people["viewer"], kitchen.pk), "formula,ready\nMoon pies,2026-11-28 14:00")
    assert [one.formula_id for one in odd] == [0]


def planned_name(plan):
    return Formula.objects.get(pk=plan.document["bakes"][0]["formula_id"]).name


def minutes_in(plan):
    """Minutes of the first bake of a plan as its tasks are now."""
    plan = Plan.objects.select_related("kitchen").get(pk=plan.pk)
    return next(task.usual for task in plan_cases.planning_case_of(plan).problem.tasks if task.kind == "bake")


def learn(kitchen):
    for job in Job.objects.filter(kitchen=kitchen, kind="learn", state=Job.State.WAITING):
        run_job(job.pk)


def test_a_plan_follows_its_oven_by_id_and_says_what_has_changed(people, kitchen, formula, monkeypatch):
    """An oven that is learned changes the minutes; a rename, or another oven of its name, changes nothing."""
    baker = people["baker"]
    oven = ovens.add_oven(membership(baker, kitchen.pk), "Back oven")
    plan = plans.create_plan(membership(baker, kitchen.pk), document(formula))
    assert plan.document["ovens"][0]["key"] == oven.key
    monkeypatch.setattr(plans, "_SECONDS", 0.5)
    run_job(plans.start_plan(membership(baker, kitchen.pk), plan.pk).pk)
    plan.refresh_from_db()
    unknown = minutes_in(plan)
    assert plan_cases.changed_since_planned(plan) == []
    for _ in range(3):
        oven_readings.log_bake(membership(baker, kitchen.pk), oven.pk, ROLLS, oven_readings.BakeReadings(probe_c=215))
    learn(kitchen)
    hot = minutes_in(plan)
    assert hot < unknown
    assert plan_cases.changed_since_planned(plan) == ["the oven"]
    ovens.add_oven(membership(baker, kitchen.pk), "Back oven")
    ovens.change_oven(membership(baker, kitchen.pk), oven.pk, name="Old faithful")
    assert minutes_in(plan) == hot
    ovens.change_oven(membership(baker, kitchen.pk), oven.pk, altitude_m=2500.0)
    learn(kitchen)
    assert minutes_in(plan) != hot
    draft = formula.draft
    formulas.save_draft(membership(baker, kitchen.pk), formula.pk, draft.document | {"notes": "wetter"}, draft.lock)
    assert plan_cases.changed_since_planned(plan) == [formula.name, "the oven"]
