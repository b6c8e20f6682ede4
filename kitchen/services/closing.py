"""Ending a kitchen or an account: announced, after a time of grace, with everything that hangs on it."""

from datetime import datetime, timedelta

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Count
from django.utils import timezone

from kitchen.errors import Refused
from kitchen.models import AuditRow, Closing, Kitchen, Membership
from kitchen.services.access import record, record_account, require

GRACE = timedelta(days=14)
HISTORY_RETENTION = timedelta(days=400)
UNPROVED_RETENTION = timedelta(days=14)


@transaction.atomic
def close_kitchen(member: Membership, *, on: bool, name: str = "") -> Membership:
    """Announce the end of a kitchen, or keep it after all.

    Returns:
        The caller's membership, with the kitchen's day.

    Raises:
        Refused: when its name was not repeated.
    """
    require(member, "kitchen.close")
    kitchen = member.kitchen
    if on and name.strip() != kitchen.name:
        raise Refused(
            "the kitchen name does not match",
            got=name[:80],
            allowed=kitchen.name,
            remedy="type the kitchen name",
            field="name",
        )
    kitchen.erased_at = timezone.now() + GRACE if on else None
    kitchen.closed_with = None
    kitchen.save(update_fields=["erased_at", "closed_with"])
    record(member, "kitchen.close" if on else "kitchen.keep")
    return member


@transaction.atomic
def close_account(user: User, *, on: bool) -> datetime | None:
    """Announce the end of an account, or keep it after all; returns its day.

    Returns:
        The day on which it ends; None where it is kept.

    Raises:
        Refused: when others would be left in a kitchen without an owner.
    """
    if not on:
        Kitchen.objects.filter(closed_with=user).update(erased_at=None, closed_with=None)
        Closing.objects.filter(user=user).delete()
        record_account(user, "account.keep")
        return None
    owned = Membership.objects.filter(user=user, role=Membership.Role.OWNER).values("kitchen_id")
    # Nobody else's going or coming may change the answer before it is kept.
    kitchens = Kitchen.objects.select_for_update().filter(pk__in=owned).order_by("pk")
    orphaned = next((kitchen for kitchen in kitchens if _would_lose_its_owner(kitchen, user)), None)
    if orphaned is not None:
        raise Refused(
            "the other members would have no owner",
            got=orphaned.name,
            remedy="first make another member the owner, or remove the other members",
        )
    day = timezone.now() + GRACE
    Closing.objects.update_or_create(user=user, defaults={"erased_at": day})
    # Kitchens whose end was announced by themselves keep their own day.
    Kitchen.objects.filter(pk__in=_alone_in(user), erased_at=None).update(erased_at=day, closed_with=user)
    record_account(user, "account.close")
    return day


def staying_owners(kitchen: Kitchen) -> set[int]:
    """Return the people who own a kitchen and whose account is not about to end."""
    owners = kitchen.memberships.filter(role=Membership.Role.OWNER, user__closing=None)
    return set(owners.values_list("user_id", flat=True))


def keep_for_those_who_stay(kitchen: Kitchen) -> None:
    """Take back the end of a kitchen that was to end with an account, once somebody else owns it too."""
    if kitchen.closed_with_id is not None and staying_owners(kitchen):
        Kitchen.objects.filter(pk=kitchen.pk).update(erased_at=None, closed_with=None)


def _would_lose_its_owner(kitchen: Kitchen, user: User) -> bool:
    others = kitchen.memberships.exclude(user=user)
    return others.exists() and not staying_owners(kitchen) - {user.pk}


def _alone_in(user: User) -> list[int]:
    rows = Membership.objects.filter(user=user).annotate(people=Count("kitchen__memberships", distinct=True))
    return list(rows.filter(people=1).values_list("kitchen_id", flat=True))


def erase_what_is_due() -> dict[str, int]:
    """Erase kitchens and accounts whose day has come, and what is kept no longer; returns how many of each."""
    now = timezone.now()
    kitchens = Kitchen.objects.filter(erased_at__lte=now)
    # Who signed up and never proved that the address is theirs: a stranger's, it may be.
    unproved = User.objects.filter(
        date_joined__lt=now - UNPROVED_RETENTION, last_login=None, emailaddress__verified=False
    ).exclude(emailaddress__verified=True)
    people = {*User.objects.filter(closing__erased_at__lte=now), *unproved}
    erased = [*kitchens, *Kitchen.objects.filter(pk__in=[pk for user in unproved for pk in _alone_in(user)])]
    for row in (*erased, *people):
        row.delete()
    history, _ = AuditRow.objects.filter(at__lt=now - HISTORY_RETENTION).delete()
    return {"kitchens": len(erased), "people": len(people), "history": history}
