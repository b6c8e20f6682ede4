"""Ending a kitchen or an account: announced, after a time of grace, with everything that hangs on it."""

from datetime import datetime, timedelta

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Count, Q
from django.utils import timezone

from kitchen.errors import Refused
from kitchen.models import AuditRow, Closing, Kitchen, Membership
from kitchen.services.access import membership, record, record_account

GRACE = timedelta(days=14)
HISTORY_KEPT = timedelta(days=400)
UNPROVED_KEPT = timedelta(days=14)


@transaction.atomic
def close_kitchen(user: User, kitchen_id: int, *, on: bool, name: str = "") -> Membership:
    """Announce the end of a kitchen, or keep it after all.

    Raises:
        Refused: when its name was not repeated.
    """
    member = membership(user, kitchen_id, Membership.Role.OWNER)
    kitchen = member.kitchen
    if on and name.strip() != kitchen.name:
        raise Refused(
            "the kitchen's name is not repeated", got=name[:80], allowed=kitchen.name, remedy="type it", field="name"
        )
    kitchen.erased_at = timezone.now() + GRACE if on else None
    kitchen.save(update_fields=["erased_at"])
    record(member, "kitchen.close" if on else "kitchen.keep")
    return member


@transaction.atomic
def close_account(user: User, *, on: bool) -> datetime | None:
    """Announce the end of an account, or keep it after all; returns its day.

    Raises:
        Refused: when others would be left in a kitchen without an owner.
    """
    if not on:
        Closing.objects.filter(user=user).delete()
        Kitchen.objects.filter(pk__in=_alone_in(user)).update(erased_at=None)
        record_account(user, "account.keep")
        return None
    owned = Membership.objects.filter(user=user, role=Membership.Role.OWNER).values("kitchen_id")
    left = (
        Kitchen.objects.filter(pk__in=owned)
        .annotate(
            owners=Count("memberships", filter=Q(memberships__role=Membership.Role.OWNER)), people=Count("memberships")
        )
        .filter(owners=1, people__gt=1)
        .first()
    )
    if left is not None:
        raise Refused(
            "others would be left without an owner",
            got=left.name,
            remedy="make somebody else its owner, or take the others out, first",
        )
    day = timezone.now() + GRACE
    Closing.objects.update_or_create(user=user, defaults={"erased_at": day})
    Kitchen.objects.filter(pk__in=_alone_in(user)).update(erased_at=day)
    record_account(user, "account.close")
    return day


def _alone_in(user: User) -> list[int]:
    rows = Membership.objects.filter(user=user).annotate(people=Count("kitchen__memberships", distinct=True))
    return list(rows.filter(people=1).values_list("kitchen_id", flat=True))


def erase_what_is_due() -> dict[str, int]:
    """Erase kitchens and accounts whose day has come, and what is kept no longer; returns how many of each."""
    now = timezone.now()
    kitchens = Kitchen.objects.filter(erased_at__lte=now)
    # Who signed up and never proved that the address is theirs: a stranger's, it may be.
    unproved = User.objects.filter(
        date_joined__lt=now - UNPROVED_KEPT, last_login=None, emailaddress__verified=False
    ).exclude(emailaddress__verified=True)
    people = {*User.objects.filter(closing__erased_at__lte=now), *unproved}
    erased = [*kitchens, *Kitchen.objects.filter(pk__in=[pk for user in unproved for pk in _alone_in(user)])]
    for row in (*erased, *people):
        row.delete()
    history, _ = AuditRow.objects.filter(at__lt=now - HISTORY_KEPT).delete()
    return {"kitchens": len(erased), "people": len(people), "history": history}
