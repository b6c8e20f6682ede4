"""Background jobs of every kind: asked for, looked at, stopped."""

from django.http import HttpRequest
from ninja import Router

from api.errors import ProblemOut
from api.job_schemas import ImportJobIn, JobOut, MapJobIn
from api.person import person
from kitchen.services import imports, jobs, maps

router = Router(tags=["jobs"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}
ALL = "/kitchens/{int:kitchen_id}/jobs"
ONE = f"{ALL}/{{int:job_id}}"


@router.post(ALL, response={201: JobOut, **Problems}, operation_id="start_job")
def start_job(request: HttpRequest, kitchen_id: int, payload: MapJobIn | ImportJobIn) -> tuple[int, JobOut]:
    """Ask for work in the background."""
    user = person(request)
    if isinstance(payload, MapJobIn):
        return 201, JobOut.of(maps.start_map(user, kitchen_id, payload.document.model_dump(), payload.minutes))
    start = imports.start_check if payload.kind == imports.CHECK else imports.start_save
    return 201, JobOut.of(start(user, kitchen_id, payload.import_id))


@router.get(ONE, response={200: JobOut, **Problems}, operation_id="open_job")
def open_job(request: HttpRequest, kitchen_id: int, job_id: int) -> JobOut:
    """A job, as far as it is."""
    return JobOut.of(jobs.open_job(person(request), kitchen_id, job_id))


@router.post(f"{ONE}/stop", response={200: JobOut, **Problems}, operation_id="stop_job")
def stop_job(request: HttpRequest, kitchen_id: int, job_id: int) -> JobOut:
    """Stop a job."""
    return JobOut.of(jobs.stop_job(person(request), kitchen_id, job_id))
