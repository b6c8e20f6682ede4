"""Limits for computations of tens of milliseconds or more: how many run at once, and a budget of seconds for each person.

Light requests never wait for heavy ones, and nobody's hunger is everybody's wait.
Both are kept by each process of the server for itself: with two processes a person has twice as much.
"""

from collections.abc import Callable
from functools import wraps
from threading import BoundedSemaphore, Lock
from time import monotonic, perf_counter, thread_time
from typing import Any, ParamSpec, TypeVar

from django.http import HttpRequest

from kitchen.errors import KitchenError

AT_ONCE, MOST_WAITING, LONGEST_WAIT_S = 2, 8, 10.0
# What a person may use up at once, and how fast it comes back.
BUDGET_S, BACK_PER_S = 60.0, 0.5
_REMEMBERED = 2000  # people

P = ParamSpec("P")
T = TypeVar("T")


class Busy(KitchenError):  # noqa: N818
    """Too much is being worked out, by all or by one."""

    status = 429


class _Budgets:
    """Computing seconds left by person, as of a moment."""

    def __init__(self) -> None:
        self._remaining: dict[int, tuple[float, float]] = {}
        self._lock = Lock()

    def remaining(self, person: int) -> float:
        """Seconds that a person has left."""
        seconds, at = self._remaining.get(person, (BUDGET_S, 0.0))
        return min(seconds + BACK_PER_S * (monotonic() - at), BUDGET_S)

    def spend(self, person: int, seconds: float) -> None:
        """Take what was used."""
        with self._lock:
            if len(self._remaining) > _REMEMBERED:
                self._remaining.clear()
            self._remaining[person] = (self.remaining(person) - seconds, monotonic())

    def forget(self) -> None:
        """Everybody has all of it."""
        self._remaining.clear()


budgets = _Budgets()
_slots = BoundedSemaphore(AT_ONCE)
_waiting = BoundedSemaphore(AT_ONCE + MOST_WAITING)


def heavy(endpoint: Callable[P, T]) -> Callable[P, T]:
    """Return an endpoint that works something out.

    Raises:
        Busy: when too many wait already, the wait was too long, or the person has used up their budget.
    """

    @wraps(endpoint)
    def worked(*args: P.args, **kwargs: P.kwargs) -> T:
        person = _person(args[0] if args else kwargs["request"])
        if budgets.remaining(person) <= 0:
            raise Busy(
                "too many requests at the same time",
                allowed=f"{BUDGET_S:.0f} s of computing, {60 * BACK_PER_S:.0f} s of it back each minute",
                remedy="wait a little",
            )
        if not _waiting.acquire(blocking=False):
            raise Busy("the server is busy", remedy="try again in a moment")
        try:
            if not _slots.acquire(timeout=LONGEST_WAIT_S):
                raise Busy("the server is busy", remedy="try again in a moment")
            started, used = perf_counter(), thread_time()
            try:
                return endpoint(*args, **kwargs)
            finally:
                _slots.release()
                budgets.spend(person, min(thread_time() - used, perf_counter() - started))
        finally:
            _waiting.release()

    return worked


def _person(request: Any) -> int:
    user = getattr(request, "user", None) if isinstance(request, HttpRequest) else None
    return user.pk or 0 if user is not None else 0
