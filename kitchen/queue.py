"""Hand work to the queue by its name, so that services need not know the worker."""

from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued


def defer_refresh() -> None:
    """Ask for fresh thumbs on the shelf; once is enough while a request is waiting."""
    try:
        app.configure_task("kitchen.refresh_shelf", queueing_lock="refresh_shelf", queue="quick").defer()
    except AlreadyEnqueued:
        return


def defer_job(job_id: int, queue: str) -> None:
    """Ask for a job, in the queue of its weight."""
    app.configure_task("kitchen.run_job", lock=f"job {job_id}", queue=queue).defer(job_id=job_id)
