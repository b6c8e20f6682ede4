"""Invitations, what happened, ending an account, and the letters where no mail server is."""

from allauth.mfa.adapter import get_adapter
from allauth.mfa.totp.internal.auth import get_totp_secret
from django.conf import settings
from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse
from django.utils.safestring import SafeString
from ninja import Router

from api.account_schemas import (
    AcceptedOut,
    AccountClosingIn,
    AccountClosingOut,
    HistoryOut,
    InvitationIn,
    InvitationOut,
    InvitationPreview,
    LetterOut,
)
from api.errors import ProblemOut
from api.person import kitchen_member, person
from kitchen.accounts.mail import outbox
from kitchen.accounts.proof import prove_by_password
from kitchen.errors import NotFound
from kitchen.services import closing, history, invitations

router = Router(tags=["accounts"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 422: ProblemOut}


@router.get(
    "/kitchens/{int:kitchen_id}/invitations",
    response={200: list[InvitationOut], **Problems},
    operation_id="invitations",
)
def open_invitations(request: HttpRequest, kitchen_id: int) -> list[InvitationOut]:
    """Who is asked in and has not come yet; for owners."""
    member = kitchen_member(request, kitchen_id, "members.edit")
    return [InvitationOut.from_service(row) for row in member.kitchen.invitations.all()]


@router.post("/kitchens/{int:kitchen_id}/invitations", response={200: InvitationOut, **Problems}, operation_id="invite")
def invite(request: HttpRequest, kitchen_id: int, payload: InvitationIn) -> InvitationOut:
    """Ask somebody in by a letter, or once more."""
    return InvitationOut.from_service(
        invitations.invite(kitchen_member(request, kitchen_id), payload.email, payload.role)
    )


@router.delete(
    "/kitchens/{int:kitchen_id}/invitations/{int:invitation_id}",
    response={204: None, **Problems},
    operation_id="take_back_invitation",
)
def take_back(request: HttpRequest, kitchen_id: int, invitation_id: int) -> tuple[int, None]:
    """Take an invitation back."""
    invitations.take_back(kitchen_member(request, kitchen_id), invitation_id)
    return 204, None


@router.get(
    "/invitations/{key}", response={200: InvitationPreview, 404: ProblemOut}, auth=None, operation_id="see_invitation"
)
def see_invitation(request: HttpRequest, key: str) -> InvitationPreview:
    """Return what an invitation is about: who has its link need not be signed in."""
    return InvitationPreview.from_service(
        invitations.invitation_at(key), request.user.email if isinstance(request.user, User) else ""
    )


@router.post("/invitations/{key}", response={200: AcceptedOut, **Problems}, operation_id="accept_invitation")
def accept_invitation(request: HttpRequest, key: str) -> AcceptedOut:
    """Come in."""
    return AcceptedOut.from_service(invitations.accept(person(request), key))


@router.get(
    "/kitchens/{int:kitchen_id}/history", response={200: HistoryOut, **Problems}, operation_id="kitchen_history"
)
def kitchen_history(request: HttpRequest, kitchen_id: int, before: int = 0) -> HistoryOut:
    """Return what happened in the kitchen, and what was refused; for owners."""
    return HistoryOut.from_service(history.kitchen_history(kitchen_member(request, kitchen_id), before), history.PAGE)


@router.get("/account/history", response={200: HistoryOut, 401: ProblemOut}, operation_id="account_history")
def account_history(request: HttpRequest, before: int = 0) -> HistoryOut:
    """Return what happened with one's own account."""
    return HistoryOut.from_service(history.account_history_page(person(request), before), history.PAGE)


@router.put("/account/closing", response={200: AccountClosingOut, **Problems}, operation_id="close_account")
def close_account(request: HttpRequest, payload: AccountClosingIn) -> AccountClosingOut:
    """Announce the end of one's account, or keep it after all."""
    user = person(request)
    if payload.on:
        prove_by_password(request, user, payload.password)
    return AccountClosingOut(erased_at=closing.close_account(user, on=payload.on))


@router.get("/account/second-factor.svg", include_in_schema=False)
def second_factor_picture(request: HttpRequest) -> HttpResponse:
    """Return the secret that an authenticator is to learn, as a picture that it reads."""
    adapter = get_adapter()
    url = adapter.build_totp_url(person(request), get_totp_secret(regenerate=False))
    return HttpResponse(SafeString(adapter.build_totp_svg(url)), content_type="image/svg+xml")


@router.get("/outbox", response={200: list[LetterOut], 404: ProblemOut}, auth=None, operation_id="outbox")
def letters(request: HttpRequest) -> list[LetterOut]:
    """List everybody's letters, where a folder on one's own machine stands in for a mail server."""
    if not settings.OUTBOX_PAGE:
        raise NotFound("this server has no outbox", remedy="check your email")
    return [LetterOut.model_validate(row) for row in outbox()]
