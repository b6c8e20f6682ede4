"""Who am I, my kitchens, their people and choices."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from api.bench_pass import forget_pass
from api.errors import ProblemOut
from api.kitchen_schemas import (
    ClosingIn,
    EaterDocument,
    EatersIn,
    KitchenIn,
    KitchenOut,
    KitchenSettingsIn,
    MemberOut,
    MeOut,
    RoleIn,
)
from api.person import kitchen_member, person
from kitchen.models import Closing, Membership
from kitchen.services import closing as closings
from kitchen.services import kitchens

router = Router(tags=["kitchens"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 422: ProblemOut}


@router.get("/me", response={200: MeOut, 401: ProblemOut}, operation_id="me")
def me(request: HttpRequest) -> MeOut:
    """Return the person signed in, with their kitchens."""
    rows = Membership.objects.filter(user_id=person(request).pk).select_related("kitchen").order_by("kitchen_id")
    closing = Closing.objects.filter(user_id=person(request).pk).first()
    return MeOut(
        id=person(request).pk,
        email=person(request).email,
        kitchens=[KitchenOut.from_service(m) for m in rows],
        erased_at=closing.erased_at if closing else None,
    )


@router.post("/kitchens", response={201: KitchenOut, **Problems}, operation_id="open_kitchen")
def open_kitchen(request: HttpRequest, payload: KitchenIn) -> tuple[int, KitchenOut]:
    """Open a kitchen of one's own."""
    return 201, KitchenOut.from_service(kitchens.open_kitchen(person(request), payload.name))


@router.patch("/kitchens/{int:kitchen_id}", response={200: KitchenOut, **Problems}, operation_id="change_settings")
def change_settings(
    request: HttpRequest, kitchen_id: int, payload: KitchenSettingsIn, response: HttpResponse
) -> KitchenOut:
    """Change spoons, egg sizes, convention, units or name."""
    changes = payload.model_dump(exclude_none=True)
    forget_pass(response)
    return KitchenOut.from_service(kitchens.change_settings(kitchen_member(request, kitchen_id), changes))


@router.get("/kitchens/{int:kitchen_id}/members", response={200: list[MemberOut], **Problems}, operation_id="members")
def members(request: HttpRequest, kitchen_id: int) -> list[MemberOut]:
    """Return the people of a kitchen."""
    member = kitchen_member(request, kitchen_id)
    return [MemberOut.from_service(m) for m in member.kitchen.memberships.select_related("user").order_by("pk")]


@router.patch(
    "/kitchens/{int:kitchen_id}/members/{int:person_id}",
    response={200: MemberOut, **Problems},
    operation_id="change_role",
)
def change_role(request: HttpRequest, kitchen_id: int, person_id: int, payload: RoleIn) -> MemberOut:
    """Change what a person may do."""
    return MemberOut.from_service(kitchens.change_role(kitchen_member(request, kitchen_id), person_id, payload.role))


@router.delete(
    "/kitchens/{int:kitchen_id}/members/{int:person_id}", response={204: None, **Problems}, operation_id="remove_member"
)
def remove_member(request: HttpRequest, kitchen_id: int, person_id: int) -> tuple[int, None]:
    """Take a person out, or go oneself."""
    kitchens.remove_member(kitchen_member(request, kitchen_id), person_id)
    return 204, None


@router.put("/kitchens/{int:kitchen_id}/closing", response={200: KitchenOut, **Problems}, operation_id="close_kitchen")
def close_kitchen(request: HttpRequest, kitchen_id: int, payload: ClosingIn) -> KitchenOut:
    """Announce the end of a kitchen, or keep it after all."""
    return KitchenOut.from_service(
        closings.close_kitchen(kitchen_member(request, kitchen_id), on=payload.on, name=payload.name)
    )


@router.get("/kitchens/{int:kitchen_id}/eaters", response={200: list[EaterDocument], **Problems}, operation_id="eaters")
def eaters(request: HttpRequest, kitchen_id: int) -> list[EaterDocument]:
    """Whose daily budgets are kept."""
    member = kitchen_member(request, kitchen_id)
    return [EaterDocument(name=eater.name, budgets=eater.budgets) for eater in member.kitchen.eaters.all()]


@router.put(
    "/kitchens/{int:kitchen_id}/eaters",
    response={200: list[EaterDocument], 409: ProblemOut, **Problems},
    operation_id="set_eaters",
)
def set_eaters(request: HttpRequest, kitchen_id: int, payload: EatersIn, response: HttpResponse) -> list[EaterDocument]:
    """Keep the eaters of a kitchen."""
    forget_pass(response)
    eaters_in, base = (
        [e.model_dump() for e in some] if some is not None else None for some in (payload.eaters, payload.seen)
    )
    stored = kitchens.set_eaters(kitchen_member(request, kitchen_id), eaters_in or [], base)
    return [EaterDocument(name=eater.name, budgets=eater.budgets) for eater in stored]
