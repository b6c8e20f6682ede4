import pytest
from procrastinate.contrib.django import app
from procrastinate.contrib.django.models import ProcrastinateJob

from kitchen.models import Formula
from kitchen.queue import defer_refresh
from kitchen.services import formulas, kitchens
from tests.conftest import sample


@pytest.mark.django_db(transaction=True)
def test_a_changed_convention_reaches_the_shelf_through_the_queue(people, kitchen):
    formulas.create_formula(people["baker"], kitchen.pk, sample())
    kitchens.change_settings(people["baker"], kitchen.pk, {"convention": "total"})
    assert Formula.objects.get().card["convention"] == "us"
    worker = app.with_connector(app.connector.get_worker_connector())
    worker.run_worker(wait=False, install_signal_handlers=False, listen_notify=False)
    assert Formula.objects.get().card["convention"] == "total"
    assert ProcrastinateJob.objects.get().status == "succeeded"


@pytest.mark.django_db(transaction=True)
def test_asking_twice_while_one_waits_leaves_one_job():
    defer_refresh()
    defer_refresh()
    assert ProcrastinateJob.objects.filter(status="todo").count() == 1
