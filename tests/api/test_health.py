import pytest
from django.db import OperationalError, connection
from django.test import Client

from api.problems import AGAIN_S
from tests.api.conftest import Caller
from tests.conftest import sample


def away(*_args, **_kwargs):
    raise OperationalError("connection refused")


def test_an_address_or_a_method_that_is_not_there_is_told_as_a_problem(caller):
    call = caller("baker")
    for method, path, status in (("GET", "/api/nowhere", 404), ("DELETE", "/api/me", 405)):
        reply = call(method, path)
        assert (reply.status_code, reply["Content-Type"], reply.json()["status"]) == (
            status,
            "application/problem+json",
            status,
        )
    assert call("DELETE", "/api/me").json()["allowed"] == "GET"


def test_what_breaks_is_a_problem_that_tells_nothing_of_the_inside(people, kitchen, monkeypatch):
    call = Caller(people["baker"], raise_request_exception=False)
    path = f"/api/kitchens/{kitchen.pk}/formulas"

    def broken(*_args, **_kwargs):
        raise RuntimeError("secret-of-the-inside")

    monkeypatch.setattr("kitchen.services.formulas.create_formula", broken)
    reply = call("POST", path, sample())
    assert (reply.status_code, reply["Content-Type"]) == (500, "application/problem+json")
    assert "secret-of-the-inside" not in reply.content.decode()
    monkeypatch.setattr("kitchen.services.formulas.create_formula", away)
    reply = call("POST", path, sample())
    assert (reply.status_code, reply["Retry-After"], reply.json()["status"]) == (503, str(AGAIN_S), 503)


def test_ready_tells_what_is_wrong_and_turns_away_only_without_the_database(db, monkeypatch, settings):
    client = Client()
    assert (client.get("/health/live").content, client.post("/health/live").status_code) == (b"ok", 405)
    reply = client.get("/health/ready")
    assert (reply.status_code, reply.json()["ready"]) == (200, True)
    assert "no worker" in reply.json()["wrong"]["workers"]
    with connection.cursor() as cursor:
        cursor.execute("insert into procrastinate_workers default values")
    monkeypatch.setattr("api.health.LATE_S", -1.0)
    elsewhere = Client(REMOTE_ADDR="203.0.113.9").get("/health/ready").json()["wrong"]
    proxied = client.get("/health/ready", HTTP_X_FORWARDED_FOR="203.0.113.9").json()["wrong"]
    assert set(elsewhere.values()) == set(proxied.values()) == {"not well"}
    monkeypatch.undo()
    assert "workers" not in client.get("/health/ready").json()["wrong"]
    monkeypatch.setattr("api.health.FULL_BYTES", 1e18)
    assert "left" in client.get("/health/ready").json()["wrong"]["disk"]
    with monkeypatch.context() as gone:
        gone.setattr("api.health.connection.cursor", away)
        reply = client.get("/health/ready")
    assert (reply.status_code, reply.json()["wrong"]) == (503, {"database": "connection refused"})


def test_counters_are_there_when_the_setting_asks_for_them(people, settings, caller):
    assert Client().get("/metrics").status_code == 404
    settings.METRICS = True
    call = caller("baker")
    call("GET", "/api/me")
    text = Client().get("/metrics").content.decode()
    assert "substrata_queue_lag_seconds 0.0" in text
    assert 'substrata_requests_total{method="GET",status="200"}' in text


@pytest.mark.parametrize("path", ["/health/anything", "/health/", "/metrics/x"])
def test_nothing_else_hides_behind_these_addresses(db, path):
    assert Client().get(path).status_code in (200, 404)
    assert b"substrata_" not in Client().get(path).content
