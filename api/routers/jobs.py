"""Background jobs of every kind: asked for, looked at, stopped."""

from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja import Router

from api.balance_schemas import BeginJobIn, FrontJobIn, ReachJobIn, SettleJobIn
from api.errors import ProblemOut
from api.job_schemas import ImportJobIn, JobOut, MapJobIn
from api.person import person
from api.plan_schemas import PlanJobIn
from api.run_schemas import LearnJobIn, WhyJobIn
from kitchen.models import Job
from kitchen.services import balancing, imports, jobs, maps, plans, trials

router = Router(tags=["jobs"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}
Asked = MapJobIn | ImportJobIn | SettleJobIn | ReachJobIn | FrontJobIn | BeginJobIn | WhyJobIn | LearnJobIn | PlanJobIn
ALL = "/kitchens/{int:kitchen_id}/jobs"
ONE = f"{ALL}/{{int:job_id}}"


@router.post(ALL, response={201: JobOut, **Problems}, operation_id="start_job")
def start_job(request: HttpRequest, kitchen_id: int, payload: Asked) -> tuple[int, JobOut]:
    """Ask for work in the background."""
    return 201, JobOut.of(_started(person(request), kitchen_id, payload))


def _started(user: User, kitchen_id: int, asked: Asked) -> Job:
    if isinstance(asked, ImportJobIn):
        start = imports.start_check if asked.kind == imports.CHECK else imports.start_save
        return start(user, kitchen_id, asked.import_id)
    if isinstance(asked, PlanJobIn):
        return plans.start_plan(user, kitchen_id, asked.plan_id)
    if isinstance(asked, BeginJobIn):
        return balancing.start_begin(user, kitchen_id, asked.model_dump(exclude={"kind"}))
    if isinstance(asked, WhyJobIn | LearnJobIn):
        return _of_trials(user, kitchen_id, asked)
    return _of_a_document(user, kitchen_id, asked)


def _of_trials(user: User, kitchen_id: int, asked: WhyJobIn | LearnJobIn) -> Job:
    if isinstance(asked, WhyJobIn):
        return trials.start_why(user, kitchen_id, asked.run_id)
    return trials.start_learn(user, kitchen_id)


def _of_a_document(user: User, kitchen_id: int, asked: MapJobIn | SettleJobIn | ReachJobIn | FrontJobIn) -> Job:
    document = asked.document.model_dump()
    if isinstance(asked, MapJobIn):
        return maps.start_map(user, kitchen_id, document, asked.minutes)
    if isinstance(asked, SettleJobIn):
        return balancing.start_settle(user, kitchen_id, document, asked.wish.model_dump(), asked.formula_id)
    if isinstance(asked, ReachJobIn):
        return balancing.start_reach(user, kitchen_id, document, asked.keys, asked.formula_id)
    return balancing.start_front(user, kitchen_id, document, (asked.x, asked.y), asked.formula_id)


@router.get(ONE, response={200: JobOut, **Problems}, operation_id="open_job")
def open_job(request: HttpRequest, kitchen_id: int, job_id: int) -> JobOut:
    """A job, as far as it is."""
    return JobOut.of(jobs.open_job(person(request), kitchen_id, job_id))


@router.post(f"{ONE}/stop", response={200: JobOut, **Problems}, operation_id="stop_job")
def stop_job(request: HttpRequest, kitchen_id: int, job_id: int) -> JobOut:
    """Stop a job."""
    return JobOut.of(jobs.stop_job(person(request), kitchen_id, job_id))
