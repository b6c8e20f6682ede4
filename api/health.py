"""Whether it lives, whether it can work, and how it does: for whoever runs the server, and for the page while it waits."""

import os
import shutil
from collections.abc import Callable
from time import perf_counter
from typing import Any

from django.conf import settings
from django.db import DatabaseError, connection
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.views.decorators.http import require_safe
from prometheus_client import CONTENT_TYPE_LATEST, CollectorRegistry, Counter, Histogram, generate_latest
from prometheus_client.core import GaugeMetricFamily
from prometheus_client.multiprocess import MultiProcessCollector

# From when on something is told as wrong.
LATE_S, FULL_BYTES = 60.0, 500_000_000
ANSWERS = Counter("substrata_requests", "Requests answered", ["method", "status"])
SECONDS = Histogram(
    "substrata_request_seconds",
    "Time until an answer",
    ["method"],
    buckets=(0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5),
)
# The oldest work that waits, and the work of workers that have not told for a while that they live.
_LAG = """
select coalesce(extract(epoch from now() - min(e.at)), 0)::float, count(*)
from procrastinate_jobs j join procrastinate_events e on e.job_id = j.id and e.type = 'deferred'
where j.status = 'todo' and (j.scheduled_at is null or j.scheduled_at <= now())
"""
_WORKERS = "select count(*) from procrastinate_workers where last_heartbeat > now() - interval '30 seconds'"


def checks() -> dict[str, str]:
    """Return what is looked at and what is wrong with it; "" where it is well."""
    results = {"database": "", "workers": "", "queue": "", "disk": "", "oven": ""}
    try:
        with connection.cursor() as cursor:
            cursor.execute(_LAG)
            lag, waiting = cursor.fetchone()
            cursor.execute(_WORKERS)
            (workers,) = cursor.fetchone()
    except DatabaseError as error:
        results["database"] = str(error).partition("\n")[0][:200]
        return results
    if not workers:
        results["workers"] = "no worker has told for 30 s that it lives"
    if lag > LATE_S:
        results["queue"] = f"{waiting} pieces of work wait, the oldest for {lag:.0f} s"
    free = shutil.disk_usage(settings.LOCAL).free
    if free < FULL_BYTES:
        results["disk"] = f"{free / 1e6:.0f} MB left"
    if not any(os.scandir(os.environ.get("NUMBA_CACHE_DIR", settings.LOCAL))):
        results["oven"] = "not compiled: the first bake takes half a minute"
    return results


@require_safe
def live(request: HttpRequest) -> HttpResponse:
    """Answer that the process is alive; nothing else is checked."""
    return HttpResponse("ok", content_type="text/plain")


@require_safe
def ready(request: HttpRequest) -> HttpResponse:
    """Whether work can be done here: 200, or 503 without the database. What is only poor is told and no reason to turn away.

    The page asks too, while it waits; why something is wrong is told to this machine alone.

    Returns:
        The response: 200, or 503 without the database.
    """
    results = checks()
    status = 503 if results["database"] else 200
    here = request.META.get("REMOTE_ADDR") in ("127.0.0.1", "::1") and "X-Forwarded-For" not in request.headers
    poor = {name: wrong if here else "not well" for name, wrong in results.items() if wrong}
    return JsonResponse({"ready": status == 200, "wrong": poor, "looked_at": list(results)}, status=status)


class _Queue:
    """What the database knows of the work."""

    def collect(self) -> Any:
        with connection.cursor() as cursor:
            cursor.execute(_LAG)
            lag, waiting = cursor.fetchone()
            cursor.execute("select state, count(*) from kitchen_job group by state")
            states = cursor.fetchall()
        yield GaugeMetricFamily("substrata_queue_lag_seconds", "Age of the oldest work that waits", value=lag)
        yield GaugeMetricFamily("substrata_queue_waiting", "Work that waits", value=waiting)
        jobs = GaugeMetricFamily("substrata_jobs", "Jobs by state", labels=["state"])
        for state, number in states:
            jobs.add_metric([state], number)
        yield jobs


@require_safe
def metrics(request: HttpRequest) -> HttpResponse:
    """Counters in Prometheus' text format; not there unless the setting asks for it."""
    if not settings.METRICS:
        return HttpResponse("not found", status=404, content_type="text/plain")
    registry = CollectorRegistry()
    if os.environ.get("PROMETHEUS_MULTIPROC_DIR"):
        MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
    else:
        registry.register(ANSWERS)
        registry.register(SECONDS)
    registry.register(_Queue())
    return HttpResponse(generate_latest(registry), content_type=CONTENT_TYPE_LATEST)


def measured(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Count what is answered, and how long it took."""

    def counted(request: HttpRequest) -> HttpResponse:
        started = perf_counter()
        response = get_response(request)
        method = request.method if request.method in ("GET", "POST", "PUT", "PATCH", "DELETE") else "other"
        ANSWERS.labels(method, response.status_code).inc()
        SECONDS.labels(method).observe(perf_counter() - started)
        return response

    return counted if settings.METRICS else get_response
