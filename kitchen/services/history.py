"""What happened in a kitchen and with an account: kept for a time, shown to those whom it concerns, newest first."""

from django.contrib.auth.models import User
from django.core.cache import cache
from django.db.models import QuerySet

from kitchen.models import AuditRow, Membership
from kitchen.services.access import require
from kitchen.services.trace import client

PAGE = 100
WORDS = {
    "account.close": "requested account deletion",
    "account.keep": "canceled account deletion",
    "bake.cancel": "canceled a planned bake",
    "bake.done": "marked a planned bake as baked",
    "bake.plan": "planned a bake",
    "email.change": "changed the email address",
    "file.take": "imported a file",
    "formula.archive": "archived",
    "formula.create": "began",
    "formula.share": "shared the card of",
    "formula.unshare": "stopped sharing",
    "import.start": "began an import",
    "import.stop": "stopped an import",
    "invitation.accept": "joined the kitchen",
    "invitation.revoke": "canceled an invitation",
    "invitation.send": "invited",
    "kitchen.close": "requested kitchen deletion",
    "kitchen.eaters": "changed the diet profiles",
    "kitchen.keep": "canceled kitchen deletion",
    "kitchen.learning": "changed what forecasts learn from",
    "kitchen.open": "created the kitchen",
    "kitchen.pans": "changed the pans",
    "kitchen.settings": "changed the kitchen settings",
    "lot.archive": "archived a pack",
    "lot.create": "added a pack",
    "lot.save": "changed a pack",
    "member.leave": "left",
    "member.remove": "removed",
    "member.role": "changed the role",
    "oven.add": "added an oven",
    "oven.bake": "logged a bake",
    "oven.change": "changed an oven",
    "password.change": "changed the password",
    "plan.create": "began a plan",
    "plan.delete": "threw a plan away",
    "plan.feed": "changed a plan's calendar link",
    "plan.slip": "reported a delay",
    "refused": "was denied access",
    "run.delete": "deleted a bake",
    "run.finish": "finished a bake",
    "run.photo": "added a photo",
    "run.start": "started a bake",
    "run.verdict": "rated a bake",
    "second-factor.add": "turned on two-step verification",
    "second-factor.remove": "turned off two-step verification",
    "sign-in": "signed in",
    "sign-out": "signed out",
    "stock.counted": "counted stock",
    "version.save": "saved a version",
}
_DETAIL_KEYS = ("name", "email", "role", "kind", "asked", "note")  # of a row's details, in this order
# A person who is refused again and again leaves one row a minute.
_REFUSED_ONCE_IN_S = 60


def kitchen_history(member: Membership, before: int = 0) -> list[AuditRow]:
    """Return a page of what happened in a kitchen, from a row on (0: from the newest).

    Raises:
        Forbidden: to all but owners.
    """
    require(member, "history.read")
    return _page(AuditRow.objects.filter(kitchen_id=member.kitchen_id), before)


def account_history_page(user: User, before: int = 0) -> list[AuditRow]:
    """Return a page of what happened with one's own account."""
    return _page(AuditRow.objects.filter(user=user, kitchen=None), before)


def text_of(row: AuditRow) -> str:
    """Return what happened, in words."""
    done = WORDS.get(row.action, row.action.replace(".", " ").replace("-", " "))
    if row.refused and row.action == "sign-in":
        done = "entered a wrong password"
    about = row.formula.name if row.formula else ""
    parts = [
        str(row.detail[key])
        for key in _DETAIL_KEYS
        if isinstance(row.detail.get(key), str) and row.detail[key] != about
    ]
    return " · ".join([f"{done} {about}".strip(), *filter(None, parts)])


def _page(rows: QuerySet[AuditRow], before: int) -> list[AuditRow]:
    if before:
        rows = rows.filter(pk__lt=before)
    return list(rows.select_related("user", "formula").order_by("-pk")[:PAGE])


def record_refusal(user: User, kitchen_id: int, action: str) -> None:
    """Leave a row that somebody of the kitchen was refused what their role does not allow."""
    if not cache.add(f"refused {user.pk} {kitchen_id} {action}"[:200].replace(" ", "-"), 1, _REFUSED_ONCE_IN_S):
        return
    AuditRow.objects.create(
        kitchen_id=kitchen_id, user=user, action="refused", detail={"asked": action}, place=client.get(), refused=True
    )
