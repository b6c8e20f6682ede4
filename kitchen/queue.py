"""Hand work to the queue by its name, so that services need not know the worker."""

import json

from django.db import connection
from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued
from procrastinate.sql import queries

STALLED_AFTER_S = 20
_LAST = -10_000  # priority


def defer_refresh() -> None:
    """Ask for fresh thumbs on the shelf, behind all that somebody waits for; once is enough while a request is waiting."""
    try:
        app.configure_task(
            "kitchen.refresh_shelf", queueing_lock="refresh_shelf", queue="quick", priority=_LAST
        ).defer()
    except AlreadyEnqueued:
        return


def end_stalled() -> list[int]:
    """End what workers have begun and, being gone, will not end; returns the jobs among it, to be asked for again.

    A worker tells every few seconds that it lives; one that has not for twenty is taken for dead.

    Returns:
        Ids of the jobs to be queued again.
    """
    rows = []
    with connection.cursor() as cursor:
        cursor.execute(
            queries["select_stalled_jobs_by_heartbeat"],
            {"queue": None, "task_name": None, "seconds_since_heartbeat": STALLED_AFTER_S},
        )
        columns = [column.name for column in cursor.description]
        for values in cursor.fetchall():
            row = dict(zip(columns, values, strict=True))
            cursor.execute(queries["finish_job"], {"job_id": row["id"], "status": "failed", "delete_job": False})
            arguments = row["args"] if isinstance(row["args"], dict) else json.loads(row["args"])
            if "job_id" in arguments:
                rows.append(arguments["job_id"])
    return rows


def defer_letters() -> None:
    """Ask for the letters that wait to be carried; once is enough while a request is waiting."""
    try:
        app.configure_task("kitchen.carry_letters", queueing_lock="carry_letters", queue="mail").defer()
    except AlreadyEnqueued:
        return


def defer_job(job_id: int, queue: str, *, behind: int = 0) -> None:
    """Ask for a job, in the queue of its weight; the more its kitchen has under way, the further behind others' it stands."""
    app.configure_task("kitchen.run_job", lock=f"job {job_id}", queue=queue, priority=-behind).defer(job_id=job_id)
