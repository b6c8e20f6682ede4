"""A request waits for the database for so long and no longer."""

import json
from concurrent.futures import ThreadPoolExecutor

import pytest
from django.db import OperationalError, connection, connections

from api.problems import problem_of
from config.serve import bound_waiting


@pytest.fixture
def bounded(transactional_db, monkeypatch):
    monkeypatch.setitem(connections.settings["default"], "OPTIONS", dict(connections.settings["default"]["OPTIONS"]))
    bound_waiting(statement_s=0.3, lock_s=0.1)

    def asked(*statements):
        """In a thread, and so on a connection, of its own; the problem that is told."""

        def ask():
            try:
                with connections["default"].cursor() as cursor:
                    for statement in statements:
                        cursor.execute(statement)
            except OperationalError as error:
                return problem_of(error)
            finally:
                connections["default"].close()

        with ThreadPoolExecutor(1) as pool:
            return pool.submit(ask).result(timeout=10)

    return asked


def test_a_question_that_takes_too_long_is_given_up_and_told(bounded):
    assert bounded("select pg_sleep(0.01)") is None
    told = bounded("select pg_sleep(5)")
    assert told.status_code == 503
    assert json.loads(told.content)["title"] == "this took too long and was stopped"
    assert told["Retry-After"]


def test_whoever_waits_for_a_row_that_another_holds_is_told(bounded):
    with connection.cursor() as cursor:
        cursor.execute("begin")
        cursor.execute("lock table kitchen_formula in access exclusive mode")
        told = bounded("select count(*) from kitchen_formula")
        cursor.execute("rollback")
    assert told.status_code == 503
    assert "too long" in json.loads(told.content)["title"]
