"""What happened in a kitchen and with an account: kept for a time, shown to those whom it concerns, newest first."""

from django.contrib.auth.models import User
from django.core.cache import cache
from django.db.models import QuerySet

from kitchen.models import AuditRow, Membership
from kitchen.services.access import require
from kitchen.services.trace import client

PAGE = 100
WORDS = {
    "account.close": "asked to end the account",
    "account.keep": "keeps the account",
    "bake.cancel": "took a planned bake off",
    "bake.done": "baked as planned",
    "bake.plan": "planned a bake",
    "email.change": "changed the address",
    "file.take": "took a file in",
    "formula.archive": "put away",
    "formula.create": "began",
    "formula.share": "shared the card of",
    "formula.unshare": "shares no longer",
    "import.start": "began an import",
    "import.stop": "stopped an import",
    "invitation.accept": "came in",
    "invitation.revoke": "took an invitation back",
    "invitation.send": "asked in",
    "kitchen.close": "asked to end the kitchen",
    "kitchen.eaters": "changed the eaters",
    "kitchen.keep": "keeps the kitchen",
    "kitchen.learning": "changed what forecasts learn from",
    "kitchen.open": "opened the kitchen",
    "kitchen.pans": "changed the pans",
    "kitchen.settings": "changed what the kitchen goes by",
    "lot.archive": "put a pack away",
    "lot.create": "added a pack",
    "lot.save": "changed a pack",
    "member.leave": "left",
    "member.remove": "took out",
    "member.role": "changed the role",
    "oven.add": "added an oven",
    "oven.bake": "logged a bake",
    "oven.change": "changed an oven",
    "password.change": "changed the password",
    "plan.create": "began a plan",
    "plan.delete": "threw a plan away",
    "plan.feed": "changed a plan's feed",
    "plan.slip": "told that a step took longer",
    "refused": "was refused",
    "run.delete": "threw a run away",
    "run.finish": "finished a run",
    "run.photo": "added a photo",
    "run.start": "began a run",
    "run.verdict": "gave a verdict",
    "second-factor.add": "added a second factor",
    "second-factor.remove": "took a second factor away",
    "sign-in": "signed in",
    "sign-out": "signed out",
    "stock.counted": "counted stock",
    "version.save": "kept a version",
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
        done = "gave a wrong password"
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
