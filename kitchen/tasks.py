"""Background work in the PostgreSQL queue. The worker looks for tasks in a module of this name."""

from procrastinate.contrib.django import app

from kitchen.services import balancing, imports, maps, plans, trials
from kitchen.services.formulas import refresh_thumbs
from kitchen.services.jobs import run_job

_BATCH = 200
JOBS_OF = (balancing, imports, maps, plans, trials)  # the services that register kinds of jobs


@app.task(name="kitchen.refresh_shelf", queueing_lock="refresh_shelf", queue="quick")  # type: ignore[untyped-decorator]  # the library ships no types
def refresh_shelf() -> int:
    """Bring every thumb on the shelf up to the present science, a batch at a time."""
    renewed = 0
    while done := refresh_thumbs(_BATCH):
        renewed += done
    return renewed


@app.task(name="kitchen.run_job")  # type: ignore[untyped-decorator]
def work(job_id: int) -> None:
    """Do a job."""
    run_job(job_id)
