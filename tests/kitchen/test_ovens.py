"""Ovens of a kitchen: learning, maps in the queue, own pans, and whose they are."""

from dataclasses import replace
from datetime import timedelta

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from kitchen.errors import NotFound, Refused
from kitchen.models import Job, LoggedBake, Oven
from kitchen.services import files, jobs, maps, oven_readings, ovens, pans
from kitchen.services.access import membership
from kitchen.services.jobs import run_job
from kitchen.services.judging import core_settings, kitchen_library
from kitchen.services.memo import profile_mark
from kitchen.services.oven_readings import BakeReadings
from substrata import analyse, read_document
from substrata.base.errors import FormulaError
from substrata.process.baking.oven_profile import OvenProfile
from substrata.process.baking.oven_questions import bake_map
from tests.conftest import sample

LOAF = sample(almond_flour=200, psyllium_powder=25, egg=100, water=220, baking_powder=8)
TRAY = {"name": "Grey", "kind": "tray", "length_mm": 400, "width_mm": 300, "height_mm": 20}


@pytest.fixture
def oven(people, kitchen):
    return ovens.add_oven(membership(people["baker"], kitchen.pk), "Back oven")


def learn(kitchen):
    """What the worker does once a bake was logged."""
    for job in Job.objects.filter(kitchen=kitchen, kind="learn", state="waiting"):
        run_job(job.pk)


def known(people, kitchen):
    learn(kitchen)
    return ovens.ovens(membership(people["baker"], kitchen.pk))[0][1]


def test_an_oven_starts_unknown_and_learns_and_unlearns(people, kitchen, oven):
    assert known(people, kitchen).bakes == 0
    kept = oven_readings.log_bake(membership(people["baker"], kitchen.pk), oven.pk, LOAF, BakeReadings(probe_c=200))
    learned = known(people, kitchen)
    assert learned.bakes == 1
    assert learned.offset_k > 0
    assert learned.offset_sd < 12
    oven_readings.delete_logged_bake(membership(people["baker"], kitchen.pk), oven.pk, kept.pk)
    assert known(people, kitchen).offset_k == 0


def test_a_document_that_names_the_oven_is_baked_in_it(people, kitchen, oven):
    named = {**LOAF, "bake": {"oven": oven.key}}
    before = ovens.bake_document(membership(people["baker"], kitchen.pk), named).forecast
    oven_readings.log_bake(
        membership(people["baker"], kitchen.pk), oven.pk, LOAF, BakeReadings(probe_c=before.oven_c + 20)
    )
    learn(kitchen)
    after = ovens.bake_document(membership(people["baker"], kitchen.pk), named).forecast
    assert after.really_c > before.really_c
    assert after.ready_min.best < before.ready_min.best
    elsewhere = people["outsider"].memberships.get().kitchen
    strange = ovens.bake_document(membership(people["outsider"], elsewhere.pk), named).forecast
    assert "unknown" in strange.oven


def test_a_bake_that_says_nothing_and_an_oven_that_is_not_there_are_refused(people, kitchen, oven):
    with pytest.raises(Refused):
        oven_readings.log_bake(membership(people["baker"], kitchen.pk), oven.pk, LOAF, BakeReadings())
    with pytest.raises(NotFound):
        oven_readings.log_bake(membership(people["baker"], kitchen.pk), 999_999, LOAF, BakeReadings(probe_c=180))
    with pytest.raises(NotFound):
        oven_readings.delete_logged_bake(membership(people["baker"], kitchen.pk), oven.pk, 1)
    with pytest.raises(Refused):
        ovens.add_oven(membership(people["baker"], kitchen.pk), "  ")


@pytest.mark.parametrize(
    ("field", "value"),
    [("minutes", 0.001), ("minutes", float("nan")), ("before_g", -1.0), ("after_g", 1e308), ("probe_c", 1e6)],
)
def test_a_reading_that_cannot_be_is_refused_and_not_kept(people, kitchen, oven, field, value):
    whole = {"minutes": 20.0, "before_g": 500.0, "after_g": 400.0, "probe_c": 180.0} | {field: value}
    with pytest.raises(Refused) as refusal:
        oven_readings.log_bake(membership(people["baker"], kitchen.pk), oven.pk, LOAF, BakeReadings(**whole))
    assert refusal.value.field == field
    assert not LoggedBake.objects.exists()
    assert known(people, kitchen).bakes == 0


@pytest.mark.parametrize(
    "broken",
    [
        {"readings": [[1, 0]]}, {"readings": [[1e308, 1]]}, {"readings": "x"}, {"readings": [["a", 1]]},
        {"minutes": 0.001, "document": LOAF}, {"minutes": "5", "document": LOAF}, {"probe_c": [], "document": LOAF},
    ],
)  # fmt: skip
def test_a_file_is_held_to_what_the_endpoint_is_held_to(people, kitchen, broken):
    bake = {"formula_name": "Loaf", "readings": [], **broken}
    content = {"substrata_file": 1, "kitchen": {}, "ovens": [{"key": "deck", "name": "Deck", "bakes": [bake]}]}
    if broken.get("readings") == [[1, 0]]:
        files.take_file(membership(people["owner"], kitchen.pk), content | {"formulas": []}, settings=True)
        assert LoggedBake.objects.get().readings == [[1.0, 1.0]], "a doubt of nothing is floored"
        assert known(people, kitchen).bakes == 1
        return
    with pytest.raises((Refused, FormulaError)):
        files.take_file(membership(people["owner"], kitchen.pk), content | {"formulas": []}, settings=True)
    assert not Oven.objects.filter(kitchen=kitchen).exists()


def test_an_oven_that_is_renamed_is_the_same_and_two_of_one_name_are_two(people, kitchen, oven):
    oven_readings.log_bake(membership(people["baker"], kitchen.pk), oven.pk, LOAF, BakeReadings(probe_c=200))
    before = known(people, kitchen)
    twin = ovens.add_oven(membership(people["baker"], kitchen.pk), "Back oven")
    ovens.change_oven(membership(people["baker"], kitchen.pk), oven.pk, name="Front oven")
    learn(kitchen)
    rows = {row.pk: profile for row, profile in ovens.ovens(membership(people["baker"], kitchen.pk))}
    assert rows[oven.pk].offset_k == before.offset_k > 0
    assert rows[twin.pk].bakes == 0


def test_every_part_of_an_oven_is_in_its_mark(people, kitchen, oven):
    plain = OvenProfile()
    for change in (
        {"offset_k": 3.0},
        {"convection": 1.1},
        {"thickness": 0.9},
        {"browning": 1.2},
        {"altitude_m": 900.0},
    ):
        assert profile_mark(replace(plain, **change)) != profile_mark(plain)


def test_ovens_of_one_name_have_keys_of_their_own_and_the_list_asks_a_constant_number_of_times(people, kitchen, oven):
    assert ovens.add_oven(membership(people["baker"], kitchen.pk), "Back oven").key == "back-oven-2"
    with CaptureQueriesContext(connection) as few:
        ovens.ovens(membership(people["baker"], kitchen.pk))
    for number in range(4):
        more = ovens.add_oven(membership(people["baker"], kitchen.pk), f"Oven {number}")
        oven_readings.log_bake(membership(people["baker"], kitchen.pk), more.pk, LOAF, BakeReadings(probe_c=180))
    with CaptureQueriesContext(connection) as many:
        assert len(ovens.ovens(membership(people["baker"], kitchen.pk))) == 6
    assert len(many) == len(few)
    ovens.change_oven(membership(people["baker"], kitchen.pk), oven.pk, archived=True)
    assert Oven.objects.filter(kitchen=kitchen).count() == len(ovens.ovens(membership(people["baker"], kitchen.pk))) + 1


def test_an_oven_in_the_mountains_boils_cooler_unless_the_formula_stands_elsewhere(people, kitchen, oven):
    def core(**said):
        document = LOAF | {"bake": {"oven": oven.key} | said}
        series = ovens.bake_document(membership(people["viewer"], kitchen.pk), document).forecast.series
        return next(c for m, c in zip(series.minutes, series.core_c, strict=True) if m >= 30)

    low = core()
    ovens.change_oven(membership(people["baker"], kitchen.pk), oven.pk, altitude_m=2400.0)
    # Water boils 8 K lower there (steam tables and barometric formula); a core that is still moist follows most of the way.
    assert 4 < low - core() < 9
    assert core(altitude_m=1.0) == pytest.approx(low, abs=0.3)


def worked(job):
    """The job after a worker has had it."""
    run_job(job.pk)
    job.refresh_from_db()
    return job


def test_a_map_is_baked_in_the_background_a_row_at_a_time(people, kitchen, monkeypatch):
    monkeypatch.setattr(
        "kitchen.services.maps.bake_map", lambda case, minutes, step: bake_map(case, minutes, side=4, step=step)
    )
    asked = maps.start_map(membership(people["baker"], kitchen.pk), LOAF, 30)
    assert (asked.state, asked.done) == ("waiting", 0)
    job = worked(asked)
    assert (job.state, job.done, len(job.result["regions"])) == ("done", 4, 4)
    assert worked(job).done == 4  # a job that is over is left alone


@pytest.mark.parametrize(
    ("document", "what"),
    [
        (sample(almond_flour=3, psyllium_powder=1, water=900), "cannot be baked as a dough"),
        (sample() | {"lines": []}, "no dough to bake"),
    ],
)
def test_a_map_that_cannot_be_baked_fails_and_says_why(people, kitchen, document, what):
    job = worked(maps.start_map(membership(people["baker"], kitchen.pk), document, 30))
    assert job.state == "failed"
    assert what in job.problem["what"]


def test_a_stopped_map_stays_stopped(people, kitchen):
    asked = maps.start_map(membership(people["baker"], kitchen.pk), LOAF, 30)
    jobs.stop_job(membership(people["baker"], kitchen.pk), asked.pk)
    assert worked(asked).state == "stopped"
    with pytest.raises(Refused):
        maps.start_map(membership(people["baker"], kitchen.pk), LOAF, 0)
    run_job(999_999)


def test_a_running_map_stops_at_its_next_row_and_one_whose_worker_died_is_taken_up_again(people, kitchen, monkeypatch):
    def stopped_meanwhile(case, minutes, step):
        assert step(1)
        jobs.stop_job(membership(people["baker"], kitchen.pk), asked.pk)
        return None if not step(2) else pytest.fail("it went on")

    monkeypatch.setattr("kitchen.services.maps.bake_map", stopped_meanwhile)
    asked = maps.start_map(membership(people["baker"], kitchen.pk), LOAF, 30)
    assert worked(asked).state == "stopped"
    Job.objects.filter(pk=asked.pk).update(state="running", stop_asked=False)
    monkeypatch.setattr("kitchen.services.jobs.end_stalled", lambda: [asked.pk])
    assert jobs.take_up_stalled() == 1
    asked.refresh_from_db()
    assert asked.state == "waiting"
    Job.objects.filter(pk=asked.pk).update(state="running", tries=jobs.MOST_TRIES)
    assert jobs.take_up_stalled() == 0
    asked.refresh_from_db()
    assert (asked.state, asked.problem["what"]) == ("failed", "this task failed repeatedly")


def test_what_a_dead_worker_had_begun_is_found_by_its_missing_sign_of_life(people, kitchen, transactional_db):
    asked = maps.start_map(membership(people["baker"], kitchen.pk), LOAF, 30)
    with connection.cursor() as cursor:
        cursor.execute(
            "insert into procrastinate_workers (last_heartbeat) values (now() - interval '1 hour') returning id"
        )
        worker = cursor.fetchone()[0]
        cursor.execute(
            "delete from procrastinate_jobs where status <> 'todo' or (args->>'job_id')::bigint is distinct from %s",
            [asked.pk],
        )
        cursor.execute("update procrastinate_jobs set status = 'doing', worker_id = %s", [worker])
    Job.objects.filter(pk=asked.pk).update(state="running")
    assert jobs.take_up_stalled() == 1
    with connection.cursor() as cursor:
        cursor.execute("select status from procrastinate_jobs order by id")
        assert [status for (status,) in cursor.fetchall()] == ["failed", "todo"]
    assert jobs.take_up_stalled() == 0


def test_jobs_are_forgotten_after_a_week_but_not_while_they_are_under_way(people, kitchen):
    old, waiting = (maps.start_map(membership(people["baker"], kitchen.pk), LOAF, 30) for _ in range(2))
    Job.objects.update(kept_until=timezone.now() - timedelta(days=1))
    Job.objects.filter(pk=old.pk).update(state="done")
    new = maps.start_map(membership(people["baker"], kitchen.pk), LOAF, 30)
    assert set(Job.objects.values_list("pk", flat=True)) == {waiting.pk, new.pk}


def test_own_pans_join_the_shipped_ones_and_wrong_ones_are_refused(people, kitchen):
    kept = pans.set_pans(
        membership(people["baker"], kitchen.pk),
        [TRAY, TRAY, {**TRAY, "name": "Deep", "kind": "round", "width_mm": None}],
    )
    assert [p["id"] for p in kept] == ["own-grey", "own-grey-2", "own-deep"]
    assert kept[2]["width_mm"] == 400
    plan = ovens.shape_document(
        membership(people["baker"], kitchen.pk),
        {**LOAF, "form": {"kind": "cracker", "pieces": 20, "size": {"tray": "own-grey"}}},
    )
    assert plan.tray.name == "Grey"
    for wrong in ({**TRAY, "kind": "bucket"}, {**TRAY, "name": " "}, {**TRAY, "length_mm": 9000}):
        with pytest.raises(Refused):
            pans.set_pans(membership(people["baker"], kitchen.pk), [wrong])
    with pytest.raises(Refused):
        pans.set_pans(membership(people["baker"], kitchen.pk), [TRAY] * 61)
    kitchen.refresh_from_db()
    assert core_settings(kitchen).pans[0].name == "Grey"
    named = {**LOAF, "form": {"kind": "tin-loaf", "pieces": 8, "size": {"pan": "own-grey"}}}
    assert analyse(read_document(named), kitchen_library(kitchen.pk, 1, frozenset()), core_settings(kitchen)).texture
