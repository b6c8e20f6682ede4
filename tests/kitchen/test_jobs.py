import os
import subprocess
import sys
from pathlib import Path

import pytest
from django.db import connection
from procrastinate.contrib.django.models import ProcrastinateJob

from kitchen.errors import Refused
from kitchen.models import Formula
from kitchen.queue import defer_refresh
from kitchen.services import formulas, jobs, kitchens, maps
from kitchen.services.access import membership
from kitchen.tasks import refresh_shelf
from tests.conftest import sample

ROOT = Path(__file__).parents[2]


@pytest.mark.django_db(transaction=True)
def test_a_changed_convention_reaches_the_shelf_through_the_queue(people, kitchen):
    formulas.create_formula(membership(people["baker"], kitchen.pk), sample())
    kitchens.change_settings(membership(people["baker"], kitchen.pk), {"convention": "total"})
    assert Formula.objects.get().thumb["convention"] == "us"
    # The same command that ./start runs, on the test's database, until the queue is empty.
    subprocess.run(
        [sys.executable, "manage.py", "procrastinate", "worker", "--one-shot"],
        cwd=ROOT,
        env=os.environ | {"SUBSTRATA_DB_NAME": connection.settings_dict["NAME"]},
        check=True,
        capture_output=True,
    )
    assert Formula.objects.get().thumb["convention"] == "total"
    assert not ProcrastinateJob.objects.filter(task_name=refresh_shelf.name).exists(), "done and taken away"


@pytest.mark.django_db(transaction=True)
def test_asking_twice_while_one_waits_leaves_one_job():
    defer_refresh()
    defer_refresh()
    assert ProcrastinateJob.objects.filter(status="todo").count() == 1


def test_who_asks_for_much_stands_behind_who_asks_for_little(people, kitchen, transactional_db):
    elsewhere = people["outsider"].memberships.get().kitchen
    many = [maps.start_map(membership(people["baker"], kitchen.pk), sample(), minutes) for minutes in (10, 11, 12)]
    one = maps.start_map(membership(people["outsider"], elsewhere.pk), sample(), 10)
    with connection.cursor() as cursor:
        cursor.execute(
            "select (args->>'job_id')::bigint from procrastinate_jobs where status = 'todo' order by priority desc, id"
        )
        turn = [job for (job,) in cursor.fetchall() if job in {one.pk, *(m.pk for m in many)}]
    assert turn == [many[0].pk, one.pk, many[1].pk, many[2].pk]


def test_a_kitchen_has_so_many_jobs_under_way_at_most(people, kitchen, monkeypatch):
    monkeypatch.setattr(jobs, "MOST_UNDER_WAY", 2)
    started = [maps.start_map(membership(people["baker"], kitchen.pk), sample(), minutes) for minutes in (10, 11)]
    with pytest.raises(Refused, match="very much under way"):
        maps.start_map(membership(people["baker"], kitchen.pk), sample(), 12)
    jobs.stop_job(membership(people["baker"], kitchen.pk), started[0].pk)
    maps.start_map(membership(people["baker"], kitchen.pk), sample(), 12)


def test_thumbs_are_made_a_few_at_a_time_behind_what_is_waited_for(people, kitchen, monkeypatch):
    monkeypatch.setattr("kitchen.tasks._BATCH", 2)
    asked = []
    monkeypatch.setattr("kitchen.tasks.defer_refresh", lambda: asked.append(1))
    for n in range(3):
        formulas.create_formula(membership(people["baker"], kitchen.pk), sample(name=f"Rolls {n}"))
    Formula.objects.update(thumb_mark="")
    assert [refresh_shelf(), len(asked)] == [2, 1]
    assert [refresh_shelf(), len(asked)] == [1, 1]
