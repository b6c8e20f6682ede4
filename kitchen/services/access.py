"""Who may do what in which kitchen."""

from typing import Any

from django.contrib.auth.models import User

from kitchen.errors import Forbidden, NotFound
from kitchen.models import AuditRow, Formula, Lot, Membership, Run
from kitchen.services.trace import client

_VIEWER = frozenset({"view"})
_BAKER = _VIEWER | {
    "formulas.edit", "formulas.share", "packs.edit", "stock.edit", "ovens.edit", "bakes.edit", "plans.edit", "devices.use",
    "diets.edit", "kitchen.settings", "kitchen.import",
}  # fmt: skip
# What each role may do: the one table of roles and rights, told to the page as ``rights``.
RIGHTS: dict[Membership.Role, frozenset[str]] = {
    Membership.Role.VIEWER: _VIEWER,
    Membership.Role.BAKER: _BAKER,
    Membership.Role.OWNER: _BAKER | {"members.edit", "history.read", "kitchen.close"},
}


def may(member: Membership, right: str) -> bool:
    """Return True when a member's role has a right of ``RIGHTS``."""
    return right in RIGHTS[Membership.Role(member.role)]


def membership(user: User, kitchen_id: int, right: str = "view") -> Membership:
    """Return the person's membership of a kitchen.

    Args:
        user: the person.
        kitchen_id: the kitchen.
        right: what they want to do, as ``stock.edit``.

    Returns:
        The membership with its kitchen.

    Raises:
        NotFound: for an outsider: a kitchen that is not theirs looks like none.
        Forbidden: when their role does not allow it.
    """
    row = Membership.objects.select_related("kitchen", "user").filter(kitchen_id=kitchen_id, user_id=user.pk).first()
    if row is None:
        raise NotFound("kitchen not found", got=str(kitchen_id), remedy="choose one of your kitchens")
    return require(row, right)


def require(member: Membership, right: str) -> Membership:
    """Return the member when their role has a right of ``RIGHTS``.

    Raises:
        Forbidden: when it has not.
    """
    if not may(member, right):
        roles = " or ".join(role.value for role, rights in RIGHTS.items() if right in rights)
        raise Forbidden("your role does not allow this", got=member.role, allowed=roles, remedy="ask the owner")
    return member


def formula_of(member: Membership, formula_id: int, *, lock: bool = False) -> Formula:
    """Return a formula of the member's kitchen.

    Raises:
        NotFound: when the kitchen has no such formula.
    """
    rows = Formula.objects.filter(kitchen_id=member.kitchen_id)
    if lock:
        rows = rows.select_for_update()
    row = rows.filter(pk=formula_id).first()
    if row is None:
        raise NotFound("formula not found", got=str(formula_id), remedy="choose one from the formula list")
    return row


def lot_of(member: Membership, lot_id: int, *, lock: bool = False) -> Lot:
    """Return a pack of the member's kitchen.

    Raises:
        NotFound: when the kitchen has no such pack.
    """
    rows = Lot.objects.filter(kitchen_id=member.kitchen_id).select_related("kitchen", "updated_by")
    if lock:
        rows = rows.select_for_update(of=("self",))
    row = rows.filter(pk=lot_id).first()
    if row is None:
        raise NotFound("pack not found", got=str(lot_id), remedy="choose one from the pantry")
    return row


def run_of(member: Membership, run_id: int, *, lock: bool = False) -> Run:
    """Return a run of the member's kitchen.

    Raises:
        NotFound: when the kitchen has no such run.
    """
    rows = Run.objects.filter(kitchen_id=member.kitchen_id)
    if lock:
        rows = rows.select_for_update(of=("self",))
    row = rows.select_related("formula").filter(pk=run_id).first()
    if row is None:
        raise NotFound("bake not found", got=str(run_id), remedy="choose one from the list")
    return row


def record(member: Membership, action: str, formula: Formula | None = None, **detail: Any) -> None:
    """Leave an audit row."""
    AuditRow.objects.create(
        kitchen_id=member.kitchen_id,
        user_id=member.user_id,
        action=action,
        formula=formula,
        detail=detail,
        place=client.get(),
    )


def record_account(user: User, action: str, *, refused: bool = False, **detail: Any) -> None:
    """Leave an audit row about an account itself."""
    AuditRow.objects.create(user=user, action=action, detail=detail, place=client.get(), refused=refused)
