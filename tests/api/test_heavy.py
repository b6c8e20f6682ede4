import threading
import time

import pytest
from django.test import RequestFactory

from api import heavy as limits
from api.heavy import Busy, heavy
from tests.conftest import sample


class Person:
    def __init__(self, pk):
        self.pk = pk


def asking(pk=1):
    request = RequestFactory().get("/")
    request.user = Person(pk)
    return request


@pytest.fixture(autouse=True)
def _fresh():
    limits.budgets.forget()
    yield
    limits.budgets.forget()


def test_so_many_at_once_and_the_rest_wait_their_turn():
    most, now, lock = [0], [0], threading.Lock()

    @heavy
    def work(request):
        with lock:
            now[0] += 1
            most[0] = max(most[0], now[0])
        time.sleep(0.02)
        with lock:
            now[0] -= 1

    threads = [threading.Thread(target=work, args=(asking(n),)) for n in range(8)]
    [t.start() for t in threads]
    [t.join() for t in threads]
    assert most[0] == limits.AT_ONCE


def test_too_many_are_turned_away_at_once_and_the_slots_come_back():
    opened, refused = threading.Event(), []

    @heavy
    def work(request):
        opened.wait(10)

    def ask(n):
        try:
            work(asking(n))
        except Busy as busy:
            refused.append(busy.status)

    threads = [threading.Thread(target=ask, args=(n,)) for n in range(limits.AT_ONCE + limits.MOST_WAITING + 3)]
    [t.start() for t in threads]
    deadline = time.monotonic() + 10
    while len(refused) < 3 and time.monotonic() < deadline:
        time.sleep(0.01)
    opened.set()
    [t.join() for t in threads]
    assert refused == [429] * 3
    work(asking())


def test_a_person_who_has_used_up_their_budget_waits_and_another_does_not(monkeypatch):
    monkeypatch.setattr(limits, "thread_time", iter([0.0, limits.BUDGET_S + 1, 0.0, 1.0]).__next__)
    monkeypatch.setattr(limits, "perf_counter", iter([0.0, limits.BUDGET_S + 1, 0.0, 1.0]).__next__)

    @heavy
    def work(request):
        return "done"

    assert work(asking(1)) == "done"
    with pytest.raises(Busy, match="too many requests"):
        work(asking(1))
    assert work(asking(2)) == "done"
    monkeypatch.setattr(limits, "BACK_PER_S", 1e9)
    assert limits.budgets.remaining(1) == limits.BUDGET_S


def test_a_refusal_gives_its_slot_back():
    @heavy
    def broken(request):
        raise RuntimeError

    for _ in range(limits.AT_ONCE + limits.MOST_WAITING + 1):
        with pytest.raises(RuntimeError):
            broken(asking())


def test_a_bake_is_such_a_sum_and_is_told_as_a_problem(caller, kitchen, monkeypatch):
    call = caller("baker")
    path = f"/api/kitchens/{kitchen.pk}/bake"
    assert call("POST", path, {"document": sample()}).status_code == 200
    monkeypatch.setattr(limits.budgets, "remaining", lambda *_: 0.0)
    reply = call("POST", path, {"document": sample()})
    assert (reply.status_code, reply["Content-Type"]) == (429, "application/problem+json")
    assert "wait" in reply.json()["remedy"]
