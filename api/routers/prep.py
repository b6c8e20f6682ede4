"""The Prep station: what is to be done before and while mixing."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from api.bench_pass import BenchAuth, choices, hand_out
from api.document_schemas import PrepIn
from api.errors import ProblemOut
from api.messages import json_bytes
from kitchen.services.judging import Prepared, kitchen_library, packs_named, prepare

router = Router(tags=["prep"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}


@router.post(
    "/kitchens/{int:kitchen_id}/prep", response={200: Prepared, **Problems}, operation_id="prep", auth=BenchAuth()
)
def prep(request: HttpRequest, kitchen_id: int, payload: PrepIn) -> HttpResponse:
    """Return the cards of a document, and what a change did, without keeping either."""
    held, new = choices(request, kitchen_id)
    document = payload.document.model_dump()
    before = payload.before.model_dump() if payload.before else None
    library = kitchen_library(kitchen_id, held.revision, packs_named(document) | packs_named(before or {}))
    created = prepare(library, held.settings, document, before)
    response = HttpResponse(json_bytes(created), content_type="application/json")
    if new:
        hand_out(request, response, held)
    return response
