"""Maps of temperature and thickness: what a bake of so many minutes comes to, computed in the background."""

from typing import Any

from django.db import transaction

from kitchen.errors import Refused
from kitchen.models import Job, Membership
from kitchen.services.access import require
from kitchen.services.jobs import Progress, job_kind, start_job
from kitchen.services.ovens import dough_in, named_profile
from substrata import read_document
from substrata.base import OvenError, plain
from substrata.process import MAP_SIDE, bake_map

KIND = "oven-map"
_LONGEST_MIN = 300.0


@transaction.atomic
def start_map(member: Membership, document: dict[str, Any], minutes: float) -> Job:
    """Ask for the map of a document.

    Returns:
        The started job.

    Raises:
        Refused: when the minutes cannot be.
        FormulaError: when the document cannot be read.
    """
    require(member, "ovens.edit")
    if not 0 < minutes <= _LONGEST_MIN:
        raise Refused(
            "the minutes cannot be right",
            got=f"{minutes:g}",
            allowed=f"above 0 up to {_LONGEST_MIN:g}",
            field="minutes",
        )
    read_document(document)
    return start_job(member, KIND, {"document": document, "minutes": minutes}, MAP_SIDE)


@job_kind(KIND, queue="heavy")
def run_map(job: Job, progress: Progress) -> dict[str, Any] | None:
    """Bake the map, a row at a time.

    Returns:
        The map as JSON; None where it was stopped.

    Raises:
        SubstrataError: when the dough cannot be baked.
    """
    member = Membership(kitchen=job.kitchen, user=job.created_by)
    formula = read_document(job.input["document"])
    dough = dough_in(member, formula, job.input["document"], named_profile(member, formula.bake.oven))
    if dough.batch.dough_g <= 0:
        raise OvenError("there is no dough to bake", got="no ingredients", remedy="add an ingredient")
    row = bake_map(dough.case, job.input["minutes"], step=progress.report)
    return plain(row) if row else None
