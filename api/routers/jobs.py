"""Background jobs of every kind: asked for, looked at, stopped."""

from django.http import HttpRequest
from ninja import Router

from api.balance_schemas import BeginJobIn, FrontJobIn, ReachJobIn, SettleJobIn
from api.errors import ProblemOut
from api.job_schemas import ImportJobIn, JobOut, MapJobIn
from api.person import kitchen_member
from api.plan_schemas import PlanJobIn
from api.run_schemas import LearnJobIn, WhyJobIn
from kitchen.models import Job, Membership
from kitchen.services import balancing, imports, jobs, maps, plans, trials

router = Router(tags=["jobs"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}
JobRequest = (
    MapJobIn | ImportJobIn | SettleJobIn | ReachJobIn | FrontJobIn | BeginJobIn | WhyJobIn | LearnJobIn | PlanJobIn
)
ALL = "/kitchens/{int:kitchen_id}/jobs"
JOB = f"{ALL}/{{int:job_id}}"


@router.post(ALL, response={201: JobOut, **Problems}, operation_id="start_job")
def start_job(request: HttpRequest, kitchen_id: int, payload: JobRequest) -> tuple[int, JobOut]:
    """Ask for work in the background."""
    return 201, JobOut.from_service(_started(kitchen_member(request, kitchen_id), payload))


def _started(member: Membership, job_request: JobRequest) -> Job:
    if isinstance(job_request, ImportJobIn):
        start = imports.start_check if job_request.kind == imports.CHECK else imports.start_save
        return start(member, job_request.import_id)
    if isinstance(job_request, PlanJobIn):
        return plans.start_plan(member, job_request.plan_id)
    if isinstance(job_request, BeginJobIn):
        return balancing.start_begin(member, job_request.model_dump(exclude={"kind"}))
    if isinstance(job_request, WhyJobIn | LearnJobIn):
        return _start_diagnosis(member, job_request)
    return _start_document_job(member, job_request)


def _start_diagnosis(member: Membership, job_request: WhyJobIn | LearnJobIn) -> Job:
    if isinstance(job_request, WhyJobIn):
        return trials.start_why(member, job_request.run_id)
    return trials.start_learn(member)


def _start_document_job(member: Membership, job_request: MapJobIn | SettleJobIn | ReachJobIn | FrontJobIn) -> Job:
    document = job_request.document.model_dump()
    if isinstance(job_request, MapJobIn):
        return maps.start_map(member, document, job_request.minutes)
    if isinstance(job_request, SettleJobIn):
        return balancing.start_settle(member, document, job_request.wish.model_dump(), job_request.formula_id)
    if isinstance(job_request, ReachJobIn):
        return balancing.start_reach(member, document, job_request.keys, job_request.formula_id)
    return balancing.start_front(member, document, (job_request.x, job_request.y), job_request.formula_id)


@router.get(JOB, response={200: JobOut, **Problems}, operation_id="open_job")
def open_job(request: HttpRequest, kitchen_id: int, job_id: int) -> JobOut:
    """Return a job with its present state."""
    return JobOut.from_service(jobs.open_job(kitchen_member(request, kitchen_id), job_id))


@router.post(f"{JOB}/stop", response={200: JobOut, **Problems}, operation_id="stop_job")
def stop_job(request: HttpRequest, kitchen_id: int, job_id: int) -> JobOut:
    """Stop a job."""
    return JobOut.from_service(jobs.stop_job(kitchen_member(request, kitchen_id), job_id))
