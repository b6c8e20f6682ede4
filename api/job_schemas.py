"""What goes in and out of background jobs: the same for every kind."""

from datetime import datetime
from typing import Literal

from ninja import Schema

from api.answer_models import answer_model
from api.balance_schemas import BeginningOut
from api.document_schemas import FormulaDocument
from api.run_schemas import LearnedOut
from kitchen.models import Job
from substrata.inference import Diagnosis
from substrata.process import BakeMap
from substrata.reformulation import BalanceAnswer, FeasibleRange, ParetoFront
from substrata.scheduling import Planned


class MapJobIn(Schema):
    """A document, and how many minutes it is baked: the map of temperature and thickness."""

    kind: Literal["oven-map"]
    document: FormulaDocument
    minutes: float


class ImportJobIn(Schema):
    """What is to be done with the rows of an import: look at all, or put the good ones into the pantry."""

    kind: Literal["import-check", "import-save"]
    import_id: int


class RowsOut(Schema):
    """What became of the rows of an import."""

    good: int
    odd: int = 0
    bad: int = 0


class JobProblem(Schema):
    """Why a job failed."""

    what: str
    got: str = ""
    allowed: str = ""
    remedy: str = ""


class JobOut(Schema):
    """A job, as far as it is."""

    id: int
    kind: str
    state: Literal["waiting", "running", "done", "failed", "stopped"]
    done: int
    total: int
    # The result, in the field of its kind.
    map: BakeMap | None = None
    rows: RowsOut | None = None
    settlement: answer_model(BalanceAnswer) | None = None  # type: ignore[valid-type]  # made here
    reach: list[FeasibleRange] | None = None
    front: answer_model(ParetoFront) | None = None  # type: ignore[valid-type]  # made here
    beginnings: list[BeginningOut] | None = None
    why: answer_model(Diagnosis) | None = None  # type: ignore[valid-type]  # made here
    learned: LearnedOut | None = None
    planned: Planned | None = None
    problem: JobProblem | None
    created_at: datetime

    @classmethod
    def from_service(cls, job: Job) -> "JobOut":
        """Build a row."""
        return cls(
            id=job.pk,
            kind=job.kind,
            state=job.state,  # type: ignore[arg-type]  # the model's own choices
            done=job.done,
            total=job.total,
            problem=job.problem,
            created_at=job.created_at,
            **{_RESULTS[job.kind]: job.result},
        )


_RESULTS = {
    "oven-map": "map",
    "import-check": "rows",
    "import-save": "rows",
    "settle": "settlement",
    "reach": "reach",
    "front": "front",
    "begin": "beginnings",
    "why": "why",
    "learn": "learned",
    "plan": "planned",
}
