"""Background work: asked for by a member, done by a worker, looked at and stopped by whoever may.

What a kind of job does is registered by the service it belongs to (``job_kind``). Heavy kinds wait in a queue of their own, so
that fifty maps do not hold up an import.
"""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import timedelta
from typing import Any, Literal

from django.db import transaction
from django.db.models import F
from django.utils import timezone

from kitchen.errors import KitchenError, NotFound, Refused
from kitchen.models import Job, Membership
from kitchen.queue import defer_job, end_stalled
from kitchen.services.access import require
from substrata.base import Reader, SubstrataError, plain, reading

Queue = Literal["quick", "heavy"]
State = Job.State
RETENTION = timedelta(days=7)
MOST_TRIES = 3
MOST_UNDER_WAY = 100  # jobs of one kitchen
_WORKER_DIED = {
    "what": "this task failed repeatedly",
    "got": f"{MOST_TRIES} times",
    "remedy": "ask for less",
}
_UNEXPECTED = {"what": "something went wrong", "remedy": "try again"}


class Progress:
    """How a running job tells how far it is, and hears that it should stop."""

    def __init__(self, job: Job) -> None:
        self._running = Job.objects.filter(pk=job.pk, state=State.RUNNING, stop_asked=False)

    def report(self, done: int) -> bool:
        """Keep how much is done; False when the job is to stop."""
        return bool(self._running.update(done=done))


@dataclass(frozen=True)
class _Kind:
    queue: Queue
    run: Callable[[Job, Progress], Any]


_KINDS: dict[str, _Kind] = {}


def job_kind(name: str, *, queue: Queue) -> Callable[[Callable[[Job, Progress], Any]], Callable[[Job, Progress], Any]]:
    """Register what a kind of job does: it answers with a result that JSON can hold, or None when it was stopped."""

    def register(run: Callable[[Job, Progress], Any]) -> Callable[[Job, Progress], Any]:
        _KINDS[name] = _Kind(queue, run)
        return run

    return register


def start_job(member: Membership, kind: str, job_input: dict[str, Any], total: int) -> Job:
    """Ask for work in the background. Called inside the transaction of the service that checks what is given."""
    now = timezone.now()
    Job.objects.filter(kitchen_id=member.kitchen_id, kept_until__lt=now).exclude(state__in=Job.UNDER_WAY).delete()
    under_way = Job.objects.filter(kitchen_id=member.kitchen_id, state__in=Job.UNDER_WAY).count()
    if under_way >= MOST_UNDER_WAY:
        raise Refused(
            "this kitchen has very much under way",
            got=f"{under_way} jobs",
            allowed=f"up to {MOST_UNDER_WAY}",
            remedy="wait for some of them, or stop them",
        )
    job = Job.objects.create(
        kitchen_id=member.kitchen_id,
        kind=kind,
        input=job_input,
        total=total,
        created_by_id=member.user_id,
        kept_until=now + RETENTION,
    )
    transaction.on_commit(lambda: defer_job(job.pk, _KINDS[kind].queue, behind=under_way))
    return job


def answered_job(member: Membership, kind: str, job_input: dict[str, Any]) -> Job | None:
    """Return a job of the kitchen that was done for the very same question, the newest; None where it has to be done."""
    rows = Job.objects.filter(kitchen_id=member.kitchen_id, kind=kind, state=State.DONE, input=job_input)
    return rows.order_by("-pk").first()


def open_job(member: Membership, job_id: int) -> Job:
    """Return a job of the kitchen with its present state.

    Raises:
        NotFound: when there is none.
    """
    job = Job.objects.filter(kitchen_id=member.kitchen_id, pk=job_id).first()
    if job is None:
        raise NotFound("task not found", got=str(job_id), remedy="start it again")
    return job


@transaction.atomic
def stop_job(member: Membership, job_id: int) -> Job:
    """Stop a job that waits, or ask one that runs to stop at its next step.

    Returns:
        The job in its new state.

    Raises:
        NotFound: when there is none.
    """
    require(member, "formulas.edit")
    rows = Job.objects.filter(kitchen_id=member.kitchen_id, pk=job_id, state__in=Job.UNDER_WAY)
    rows.update(stop_asked=True, state=State.STOPPED)
    return open_job(member, job_id)


def run_job(job_id: int) -> None:
    """Run a job in the worker; a job that is over or missing is left alone."""
    if not Job.objects.filter(pk=job_id, state=State.WAITING).update(state=State.RUNNING, tries=F("tries") + 1):
        return
    job = Job.objects.select_related("kitchen", "created_by").get(pk=job_id)
    running = Job.objects.filter(pk=job_id, state=State.RUNNING)
    try:
        with reading(Reader(units=job.kitchen.units)):
            result = plain(_KINDS[job.kind].run(job, Progress(job)))
    except (SubstrataError, KitchenError) as error:
        problem = {"what": error.what, "got": error.got, "allowed": error.allowed, "remedy": error.remedy}
        running.update(state=State.FAILED, problem=problem)
    except Exception:
        running.update(state=State.FAILED, problem=_UNEXPECTED)
        raise
    else:
        running.update(state=State.DONE if result is not None else State.STOPPED, result=result)


@transaction.atomic
def take_up_stalled() -> int:
    """Ask again for jobs whose worker died in the middle; returns how many.

    A job that has ended its worker so often is likely the cause: it is told as failed and not begun again.

    Returns:
        How many were queued again.
    """
    requeued = 0
    for number in end_stalled():
        rows = Job.objects.filter(pk=number, state=State.RUNNING)
        failed = rows.filter(tries__gte=MOST_TRIES).update(state=State.FAILED, problem=_WORKER_DIED)
        job = rows.first()
        if not failed and job is not None and rows.update(state=State.WAITING):
            defer_job(job.pk, _KINDS[job.kind].queue)
            requeued += 1
    return requeued
