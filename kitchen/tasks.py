"""Background work in the PostgreSQL queue. The worker looks for tasks in a module of this name."""

from procrastinate.contrib.django import app

from kitchen.accounts.mail import carry_letters, forget_old_letters
from kitchen.accounts.tries import forget_old_tries
from kitchen.queue import defer_refresh
from kitchen.services import balancing, imports, maps, plans, trials
from kitchen.services.closing import erase_what_is_due
from kitchen.services.formulas import refresh_thumbs
from kitchen.services.jobs import run_job, take_up_stalled

_BATCH = 50
JOB_SERVICES = (balancing, imports, maps, plans, trials)  # the services that register kinds of jobs


@app.task(name="kitchen.refresh_shelf", queueing_lock="refresh_shelf", queue="quick")  # type: ignore[untyped-decorator]  # the library ships no types
def refresh_shelf() -> int:
    """Bring some thumbs on the shelf up to the present science, and ask for the next ones: others' work comes in between."""
    renewed = refresh_thumbs(_BATCH)
    if renewed == _BATCH:
        defer_refresh()
    return renewed


@app.task(name="kitchen.run_job")  # type: ignore[untyped-decorator]
def work(job_id: int) -> None:
    """Do a job."""
    run_job(job_id)


@app.task(name="kitchen.carry_letters", queueing_lock="carry_letters", queue="mail")  # type: ignore[untyped-decorator]
def carry() -> int:
    """Hand letters on."""
    return carry_letters()


@app.periodic(cron="* * * * * */10")  # type: ignore[untyped-decorator]
@app.task(name="kitchen.each_while", queueing_lock="each_while", queue="mail")  # type: ignore[untyped-decorator]
def each_while(timestamp: int) -> None:  # noqa: ARG001 - the queue's signature
    """Try again what was not taken: letters, and jobs whose worker is gone."""
    carry_letters()
    take_up_stalled()


@app.periodic(cron="17 * * * *")  # type: ignore[untyped-decorator]
@app.task(name="kitchen.each_hour", queueing_lock="each_hour", queue="mail")  # type: ignore[untyped-decorator]
def each_hour(timestamp: int) -> None:  # noqa: ARG001
    """Erase and forget what is due."""
    erase_what_is_due()
    forget_old_letters()
    forget_old_tries()
