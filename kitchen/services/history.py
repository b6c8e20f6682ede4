"""What happened in a kitchen and with an account: kept for a time, shown to those whom it concerns, newest first."""

from django.contrib.auth.models import User
from django.core.cache import cache
from django.db.models import QuerySet

from kitchen.models import AuditRow, Membership
from kitchen.services.access import membership
from kitchen.services.trace import client

PAGE = 100
# A person who is refused again and again leaves one row a minute.
_REFUSED_ONCE_IN_S = 60


def kitchen_history(user: User, kitchen_id: int, before: int = 0) -> list[AuditRow]:
    """A page of what happened in a kitchen, from a row on (0: from the newest).

    Raises:
        Forbidden: to all but owners.
    """
    member = membership(user, kitchen_id, Membership.Role.OWNER)
    return _page(AuditRow.objects.filter(kitchen_id=member.kitchen_id), before)


def own_history(user: User, before: int = 0) -> list[AuditRow]:
    """A page of what happened with one's own account."""
    return _page(AuditRow.objects.filter(user=user, kitchen=None), before)


def _page(rows: QuerySet[AuditRow], before: int) -> list[AuditRow]:
    if before:
        rows = rows.filter(pk__lt=before)
    return list(rows.select_related("user", "formula").order_by("-pk")[:PAGE])


def record_refusal(user: User, kitchen_id: int, asked: str) -> None:
    """Leave a row that somebody of the kitchen was refused what their role does not allow."""
    if not cache.add(f"refused {user.pk} {kitchen_id} {asked}"[:200].replace(" ", "-"), 1, _REFUSED_ONCE_IN_S):
        return
    AuditRow.objects.create(
        kitchen_id=kitchen_id, user=user, action="refused", detail={"asked": asked}, place=client.get(), refused=True
    )
