"""Plan: several bakes, few hands, one oven; shopping and calendars."""

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router

from api.errors import ProblemOut
from api.person import kitchen_member
from api.plan_schemas import (
    BakesIn,
    FeedIn,
    MoveIn,
    MoveOut,
    NamedBakeOut,
    PlanDocument,
    PlanFileOut,
    PlanOut,
    PlanRow,
    PlanSaveIn,
    PlansPage,
    PlansQuery,
    ReserveIn,
    ShoppingOut,
    SlipIn,
    TickIn,
)
from kitchen.errors import NotFound
from kitchen.services import plan_files, plan_shopping, plans

router = Router(tags=["plans"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 413: ProblemOut, 422: ProblemOut}
ALL = "/kitchens/{int:kitchen_id}/plans"
PLAN = f"{ALL}/{{int:plan_id}}"


@router.get(ALL, response={200: PlansPage, **Problems}, operation_id="plans")
def list_plans(request: HttpRequest, kitchen_id: int, query: Query[PlansQuery]) -> PlansPage:
    """List the kitchen's plans, the latest day first."""
    page = plans.plans(kitchen_member(request, kitchen_id), offset=query.offset)
    return PlansPage(rows=[PlanRow.from_service(plan) for plan in page.rows], total=page.total)


@router.post(ALL, response={201: PlanOut, **Problems}, operation_id="create_plan")
def create_plan(request: HttpRequest, kitchen_id: int, payload: PlanDocument) -> tuple[int, PlanOut]:
    """Create a new plan."""
    return 201, PlanOut.from_service(plans.create_plan(kitchen_member(request, kitchen_id), payload.model_dump()))


@router.post(f"{ALL}/read", response={200: list[NamedBakeOut], **Problems}, operation_id="read_bakes")
def read_bakes(request: HttpRequest, kitchen_id: int, payload: BakesIn) -> list[NamedBakeOut]:
    """Read a list of bakes as a table of text, with the formulas that it names; nothing is kept."""
    return [
        NamedBakeOut.from_service(bake) for bake in plans.named_bakes(kitchen_member(request, kitchen_id), payload.text)
    ]


@router.get(PLAN, response={200: PlanOut, **Problems}, operation_id="open_plan")
def open_plan(request: HttpRequest, kitchen_id: int, plan_id: int) -> PlanOut:
    """One plan with its last answer."""
    return PlanOut.from_service(plans.open_plan(kitchen_member(request, kitchen_id), plan_id))


@router.put(PLAN, response={200: PlanOut, **Problems}, operation_id="save_plan")
def save_plan(request: HttpRequest, kitchen_id: int, plan_id: int, payload: PlanSaveIn) -> PlanOut:
    """Keep a plan."""
    saved = plans.save_plan(kitchen_member(request, kitchen_id), plan_id, payload.document.model_dump(), payload.lock)
    return PlanOut.from_service(saved)


@router.delete(PLAN, response={204: None, **Problems}, operation_id="delete_plan")
def delete_plan(request: HttpRequest, kitchen_id: int, plan_id: int) -> tuple[int, None]:
    """Take it away for good."""
    plans.delete_plan(kitchen_member(request, kitchen_id), plan_id)
    return 204, None


@router.post(f"{PLAN}/move", response={200: MoveOut, **Problems}, operation_id="try_move")
def try_move(request: HttpRequest, kitchen_id: int, plan_id: int, payload: MoveIn) -> MoveOut:
    """Return what stands in the way of moving a task; nothing is changed."""
    conflicts = plans.try_move(kitchen_member(request, kitchen_id), plan_id, payload.task, payload.start_min)
    return MoveOut(conflicts=list(conflicts))


@router.post(f"{PLAN}/slip", response={200: PlanOut, **Problems}, operation_id="slip_plan")
def slip_plan(request: HttpRequest, kitchen_id: int, plan_id: int, payload: SlipIn) -> PlanOut:
    """Lengthen a task that took longer and replan the rest."""
    return PlanOut.from_service(plans.slip(kitchen_member(request, kitchen_id), plan_id, payload.task, payload.minutes))


@router.get(f"{PLAN}/shopping", response={200: ShoppingOut, **Problems}, operation_id="plan_shopping")
def get_plan_shopping(request: HttpRequest, kitchen_id: int, plan_id: int) -> ShoppingOut:
    """Return what its bakes take together, less what is on the shelf."""
    plan, rows = plan_shopping.shopping_list(kitchen_member(request, kitchen_id), plan_id)
    priced = [row.price for row in rows if row.price is not None and row.short_g > 0]
    currency = next((row.currency for row in rows if row.currency), "")
    return ShoppingOut(
        rows=list(rows),
        ticked=plan.ticked,
        reserved=bool(plan.reserved),
        price=sum(priced) if priced else None,
        currency=currency,
    )


@router.post(f"{PLAN}/tick", response={200: PlanRow, **Problems}, operation_id="tick_shopping")
def tick_shopping(request: HttpRequest, kitchen_id: int, plan_id: int, payload: TickIn) -> PlanRow:
    """Tick something off the shopping list."""
    return PlanRow.from_service(
        plan_shopping.tick(kitchen_member(request, kitchen_id), plan_id, payload.ingredient, done=payload.done)
    )


@router.post(f"{PLAN}/reserve", response={200: PlanRow, **Problems}, operation_id="reserve_plan")
def reserve_plan(request: HttpRequest, kitchen_id: int, plan_id: int, payload: ReserveIn) -> PlanRow:
    """Hold packs for its bakes, or let them go."""
    return PlanRow.from_service(plans.reserve(kitchen_member(request, kitchen_id), plan_id, on=payload.on))


@router.post(f"{PLAN}/feed", response={200: PlanOut, **Problems}, operation_id="change_feed")
def change_feed(request: HttpRequest, kitchen_id: int, plan_id: int, payload: FeedIn) -> PlanOut:
    """Open or close the private address of its calendar."""
    return PlanOut.from_service(plan_files.change_feed(kitchen_member(request, kitchen_id), plan_id, on=payload.on))


@router.get(f"{PLAN}/files/{{style}}", response={200: PlanFileOut, **Problems}, operation_id="plan_file")
def plan_file(request: HttpRequest, kitchen_id: int, plan_id: int, style: str) -> PlanFileOut:
    """Write a plan as a file: ics, csv (its tasks), bakes (a list that can be read in again) or json."""
    name, text = plan_files.written_plan(kitchen_member(request, kitchen_id), plan_id, style)
    return PlanFileOut(name=name, text=text)


def calendar_feed(request: HttpRequest, key: str) -> HttpResponse:
    """Return the calendar behind a private address."""
    try:
        text = plan_files.feed(key)
    except NotFound:
        return HttpResponse("calendar not found", status=404, content_type="text/plain; charset=utf-8")
    response = HttpResponse(text, content_type="text/calendar; charset=utf-8")
    response["Cache-Control"] = "private, no-store"
    response["X-Robots-Tag"] = "noindex"
    return response
