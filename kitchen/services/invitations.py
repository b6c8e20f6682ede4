"""Asking people into a kitchen: by a letter with a link, to accept or not, until it runs out or is taken back.

Whether an address has an account is told to nobody: the answer and the letter are the same either way.
"""

from datetime import timedelta
from hashlib import sha256
from secrets import token_urlsafe

from allauth.account.models import EmailAddress
from django.conf import settings
from django.contrib.auth.models import User
from django.core.exceptions import ValidationError
from django.core.mail import EmailMessage
from django.core.validators import validate_email
from django.db import transaction
from django.template.loader import render_to_string
from django.utils import timezone

from kitchen.errors import Forbidden, NotFound, Refused
from kitchen.models import Invitation, Membership
from kitchen.services.access import record, require
from kitchen.services.closing import keep_for_those_who_stay
from kitchen.services.kitchens import role_named

VALID_FOR = timedelta(days=7)
MOST_OPEN = 50


@transaction.atomic
def invite(member: Membership, email: str, role: str) -> Invitation:
    """Ask somebody in, or ask again: the former letter's link is then no longer good.

    Returns:
        The invitation with its new link.

    Raises:
        Refused: when the address cannot be one, the role is unknown, they are in already, or too many are asked.
    """
    require(member, "members.edit")
    address = email.strip().lower()
    try:
        validate_email(address)
    except ValidationError:
        raise Refused(
            "this is not a valid email address", got=email[:80], allowed="name@place", field="email"
        ) from None
    if member.kitchen.memberships.filter(user__email__iexact=address).exists():
        raise Refused("this person is already a member", got=address, remedy="change their role", field="email")
    if member.kitchen.invitations.exclude(email=address).count() >= MOST_OPEN:
        raise Refused(
            "too many invitations are open", got=str(MOST_OPEN), remedy="cancel some invitations", field="email"
        )
    key = token_urlsafe(32)
    row, _ = Invitation.objects.update_or_create(
        kitchen=member.kitchen,
        email=address,
        defaults={
            "role": role_named(role),
            "key_hash": _hashed(key),
            "invited_by": member.user,
            "valid_until": timezone.now() + VALID_FOR,
        },
    )
    record(member, "invitation.send", email=address, role=role)
    _write(row, key)
    return row


@transaction.atomic
def take_back(member: Membership, invitation_id: int) -> None:
    """Take an invitation back.

    Raises:
        NotFound: when there is none.
    """
    require(member, "members.edit")
    row = member.kitchen.invitations.filter(pk=invitation_id).first()
    if row is None:
        raise NotFound("invitation not found", got=str(invitation_id), remedy="it may have been accepted")
    record(member, "invitation.revoke", email=row.email)
    row.delete()


def invitation_at(key: str) -> Invitation:
    """Return the invitation behind a link.

    Raises:
        NotFound: when it was taken back, used, has run out, or never was.
    """
    rows = Invitation.objects.select_related("kitchen", "invited_by")
    row = rows.filter(key_hash=_hashed(key), valid_until__gt=timezone.now()).first()
    if row is None:
        raise NotFound(
            "this invitation is no longer valid",
            allowed=f"valid once, within {VALID_FOR.days} days, unless canceled",
            remedy="ask for a new one",
        )
    return row


@transaction.atomic
def accept(user: User, key: str) -> Membership:
    """Come in.

    Returns:
        The new membership.

    Raises:
        Forbidden: when it was written to another address, or theirs is not verified.
        NotFound: when it is not good any more.
    """
    row = invitation_at(key)
    if not EmailAddress.objects.filter(user=user, email__iexact=row.email, verified=True).exists():
        raise Forbidden(
            "this invitation is for somebody else",
            got=f"you are signed in as {user.email}",
            allowed=f"whoever signs in as {masked(row.email)}",
            remedy="sign out, then sign in with the invited address",
        )
    member, _ = Membership.objects.get_or_create(kitchen=row.kitchen, user=user, defaults={"role": row.role})
    keep_for_those_who_stay(row.kitchen)
    record(member, "invitation.accept", email=row.email, role=member.role)
    row.delete()
    return member


def masked(email: str) -> str:
    """Return an address that its owner knows again and nobody else learns."""
    name, _, place = email.partition("@")
    return f"{name[:1]}…@{place}"


def _hashed(key: str) -> str:
    return sha256(key.encode()).hexdigest()


def _write(row: Invitation, key: str) -> None:
    words = {
        "kitchen": row.kitchen.name,
        "by": row.invited_by.email if row.invited_by else "",
        "role": row.role,
        "link": f"{settings.PUBLIC_ADDRESS}/invitation/{key}",
        "until": row.valid_until,
        "house": "Substrata",
    }
    text = render_to_string("kitchen/invitation.txt", words)
    subject = f"You are invited to the kitchen “{row.kitchen.name}”"
    EmailMessage(" ".join(subject.split()), text, settings.DEFAULT_FROM_EMAIL, [row.email]).send()
