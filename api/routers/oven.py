"""The Shape and Oven stations: pieces on trays, the simulated bake, real ovens."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from api.bench_pass import forget_pass
from api.document_schemas import FormulaDocument
from api.errors import ProblemOut
from api.heavy import heavy
from api.messages import json_bytes
from api.oven_schemas import BakeQuestion, LoggedBakeIn, OvenChange, OvenIn, OvenOut, PanDocument, PansIn
from api.person import kitchen_member
from kitchen.models import Oven
from kitchen.services import oven_readings, ovens, pans
from kitchen.services.oven_readings import BakeReadings
from kitchen.services.ovens import BakeAnswer
from substrata.evaluation import ShapePlan

router = Router(tags=["oven"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}
ALL = "/kitchens/{int:kitchen_id}/ovens"
OVEN = f"{ALL}/{{int:oven_id}}"


@router.post("/kitchens/{int:kitchen_id}/shape", response={200: ShapePlan | None, **Problems}, operation_id="shape")
def shape(request: HttpRequest, kitchen_id: int, payload: FormulaDocument) -> HttpResponse:
    """Pieces, trays and pans of a document, without keeping it."""
    plan = ovens.shape_document(kitchen_member(request, kitchen_id), payload.model_dump())
    return HttpResponse(json_bytes(plan), content_type="application/json")


@router.post("/kitchens/{int:kitchen_id}/bake", response={200: BakeAnswer, **Problems}, operation_id="bake")
@heavy
def bake(request: HttpRequest, kitchen_id: int, payload: BakeQuestion) -> HttpResponse:
    """Return the bake of a document in the oven it names, without keeping it."""
    forecast = ovens.bake_document(
        kitchen_member(request, kitchen_id), payload.document.model_dump(), payload.within_min
    )
    return HttpResponse(json_bytes(forecast), content_type="application/json")


@router.put(
    "/kitchens/{int:kitchen_id}/pans",
    response={200: list[PanDocument], 409: ProblemOut, **Problems},
    operation_id="set_pans",
)
def set_pans(request: HttpRequest, kitchen_id: int, payload: PansIn, response: HttpResponse) -> list[PanDocument]:
    """Keep the kitchen's own pans."""
    forget_pass(response)
    rows = [pan.model_dump() for pan in payload.pans]
    stored = pans.set_pans(kitchen_member(request, kitchen_id), rows, payload.seen)
    return [PanDocument(**pan) for pan in stored]


@router.get(ALL, response={200: list[OvenOut], **Problems}, operation_id="ovens")
def list_ovens(request: HttpRequest, kitchen_id: int) -> list[OvenOut]:
    """Return the kitchen's ovens with what is known of them."""
    return [OvenOut.from_service(oven, profile) for oven, profile in ovens.ovens(kitchen_member(request, kitchen_id))]


@router.post(ALL, response={201: OvenOut, **Problems}, operation_id="add_oven")
def add_oven(request: HttpRequest, kitchen_id: int, payload: OvenIn) -> tuple[int, OvenOut]:
    """Add a new oven."""
    return 201, _bake_answer(ovens.add_oven(kitchen_member(request, kitchen_id), payload.name, payload.altitude_m))


@router.patch(OVEN, response={200: OvenOut, **Problems}, operation_id="change_oven")
def change_oven(request: HttpRequest, kitchen_id: int, oven_id: int, payload: OvenChange) -> OvenOut:
    """Rename an oven, say where it stands, or put it away."""
    return _bake_answer(ovens.change_oven(kitchen_member(request, kitchen_id), oven_id, **payload.model_dump()))


@router.post(f"{OVEN}/bakes", response={201: OvenOut, **Problems}, operation_id="log_bake")
@heavy
def log_bake(request: HttpRequest, kitchen_id: int, oven_id: int, payload: LoggedBakeIn) -> tuple[int, OvenOut]:
    """Log a bake; what it teaches is worked out in the background."""
    read = BakeReadings(**payload.model_dump(exclude={"document"}))
    created = oven_readings.log_bake(kitchen_member(request, kitchen_id), oven_id, payload.document.model_dump(), read)
    return 201, _bake_answer(created.oven)


@router.delete(f"{OVEN}/bakes/{{int:logged_id}}", response={204: None, **Problems}, operation_id="delete_logged_bake")
def delete_logged_bake(request: HttpRequest, kitchen_id: int, oven_id: int, logged_id: int) -> tuple[int, None]:
    """Delete a logged bake."""
    oven_readings.delete_logged_bake(kitchen_member(request, kitchen_id), oven_id, logged_id)
    return 204, None


def _bake_answer(oven: Oven) -> OvenOut:
    return OvenOut.from_service(oven, ovens.profile_of(oven))
