"""The Card: what is handed on with the food."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from api.document_schemas import FormulaDocument
from api.errors import ProblemOut
from api.heavy import heavy
from api.messages import json_bytes
from api.person import kitchen_member
from kitchen.services.ovens import card_document
from substrata.publishing import Card

router = Router(tags=["card"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}


@router.post("/kitchens/{int:kitchen_id}/card", response={200: Card, **Problems}, operation_id="card")
@heavy
def card(request: HttpRequest, kitchen_id: int, payload: FormulaDocument) -> HttpResponse:
    """Return the card of a document, without keeping it."""
    panels = card_document(kitchen_member(request, kitchen_id), payload.model_dump())
    return HttpResponse(json_bytes(panels), content_type="application/json")
