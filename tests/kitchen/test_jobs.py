import os
import subprocess
import sys
from pathlib import Path

import pytest
from django.db import connection
from procrastinate.contrib.django.models import ProcrastinateJob

from kitchen.models import Formula
from kitchen.queue import defer_refresh
from kitchen.services import formulas, kitchens
from tests.conftest import sample

ROOT = Path(__file__).parents[2]


@pytest.mark.django_db(transaction=True)
def test_a_changed_convention_reaches_the_shelf_through_the_queue(people, kitchen):
    formulas.create_formula(people["baker"], kitchen.pk, sample())
    kitchens.change_settings(people["baker"], kitchen.pk, {"convention": "total"})
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
    assert not ProcrastinateJob.objects.exists(), "done and taken away"


@pytest.mark.django_db(transaction=True)
def test_asking_twice_while_one_waits_leaves_one_job():
    defer_refresh()
    defer_refresh()
    assert ProcrastinateJob.objects.filter(status="todo").count() == 1
