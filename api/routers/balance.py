"""The balance: remedies for what is out, and a line swept. What takes longer is a job."""

from django.http import HttpRequest
from ninja import Router

from api.balance_schemas import FormulaJobIn, LeanIn, MixIn, MixOut, SweepIn
from api.document_schemas import FormulaDocument
from api.errors import ProblemOut
from api.heavy import heavy
from api.person import kitchen_member
from kitchen.services import balancing
from substrata import read_document, write_document
from substrata.reformulation import QuickFix, Sweep
from substrata.reformulation import blend as mixed

router = Router(tags=["balance"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}


@router.post("/kitchens/{int:kitchen_id}/remedies", response={200: list[QuickFix], **Problems}, operation_id="remedies")
@heavy
def remedies(request: HttpRequest, kitchen_id: int, payload: FormulaJobIn) -> list[QuickFix]:
    """Return what to do about everything that is out, each checked against all else."""
    document = payload.document.model_dump()
    return list(balancing.remedies_for(kitchen_member(request, kitchen_id), document, payload.formula_id))


@router.post("/kitchens/{int:kitchen_id}/what-if", response={200: Sweep | None, **Problems}, operation_id="what_if")
@heavy
def what_if(request: HttpRequest, kitchen_id: int, payload: SweepIn) -> Sweep | None:
    """One line's weight, and how every figure answers."""
    return balancing.sweep_line(kitchen_member(request, kitchen_id), payload.document.model_dump(), payload.line)


@router.post("/kitchens/{int:kitchen_id}/mix", response={200: MixOut, **Problems}, operation_id="mix")
def blend(request: HttpRequest, kitchen_id: int, payload: MixIn) -> MixOut:
    """One line of a group moved, the others give; nothing is kept."""
    kitchen_member(request, kitchen_id)
    formula = read_document(payload.document.model_dump())
    document = write_document(mixed(formula, payload.group, payload.line, payload.grams))
    return MixOut(document=FormulaDocument.model_validate(document))


@router.post("/kitchens/{int:kitchen_id}/lean", response={200: MixOut, **Problems}, operation_id="lean")
def lean(request: HttpRequest, kitchen_id: int, payload: LeanIn) -> MixOut:
    """Shift a group towards one end of a quality (mild, sharp, cheap, dear) at the same total; nothing is stored."""
    document = balancing.leaning(
        kitchen_member(request, kitchen_id), payload.document.model_dump(), payload.group, payload.by, payload.towards
    )
    return MixOut(document=FormulaDocument.model_validate(document))
