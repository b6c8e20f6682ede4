"""Kitchens, their people, choices and eaters."""

from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import F

from kitchen.errors import Conflict, Refused
from kitchen.models import Eater, Kitchen, Membership
from kitchen.queue import defer_refresh
from kitchen.services.access import membership, record, require
from kitchen.services.closing import keep_for_those_who_stay, staying_owners
from substrata.base import MOST_EATERS, SubstrataError, read_setting
from substrata.nutrition import budget_kinds

MOST_A_DAY = 100_000.0


@transaction.atomic
def open_kitchen(user: User, name: str) -> Membership:
    """Open a kitchen owned by a person.

    Returns:
        The owner's membership.

    Raises:
        Refused: when the name is empty or too long.
    """
    kitchen = Kitchen.objects.create(name=_name(name))
    member = Membership.objects.create(kitchen=kitchen, user=user, role=Membership.Role.OWNER)
    record(member, "kitchen.open", name=kitchen.name)
    return member


@transaction.atomic
def change_settings(member: Membership, changes: dict[str, Any]) -> Membership:
    """Change what a kitchen chose.

    Returns:
        The caller's membership with the changed kitchen.

    Raises:
        Refused: when a value is not among its choices.
    """
    require(member, "kitchen.settings")
    kitchen = member.kitchen
    for field, value in changes.items():
        if field == "name":
            kitchen.name = _name(value)
            continue
        setattr(kitchen, field, _choice(field, value))
    kitchen.save(update_fields=list(changes))
    bump_revision(kitchen)
    # The shelf shows figures by these choices: its thumbs are drawn anew in the background.
    kitchen.formulas.update(thumb_mark="")
    transaction.on_commit(defer_refresh)
    record(member, "kitchen.settings", **changes)
    return member


def bump_revision(kitchen: Kitchen) -> None:
    """Count a change of choices, packs or eaters."""
    Kitchen.objects.filter(pk=kitchen.pk).update(revision=F("revision") + 1)
    kitchen.refresh_from_db(fields=["revision"])


def _choice(field: str, value: Any) -> Any:
    """Return a value that a field of the kitchen can take.

    Raises:
        Refused: when it cannot.
    """
    try:
        return read_setting(field, value)
    except SubstrataError as error:
        raise Refused(error.what, got=error.got, allowed=error.allowed, field=field) from error


@transaction.atomic
def set_eaters(
    member: Membership, eaters: list[dict[str, Any]], base: list[dict[str, Any]] | None = None
) -> list[Eater]:
    """Keep the eaters of a kitchen, all at once.

    Args:
        member: who asks, in their kitchen.
        eaters: all of them, as they are to be.
        base: all of them as the person last saw them; None overwrites whatever is there.

    Returns:
        The stored profiles.

    Raises:
        Conflict: when they are not as they were last seen.
        Refused: when a name or a budget cannot be kept.
    """
    require(member, "diets.edit")
    Kitchen.objects.select_for_update().get(pk=member.kitchen_id)
    present = [{"name": eater.name, "budgets": eater.budgets} for eater in member.kitchen.eaters.all()]
    if base is not None and present != [_eater(entry) for entry in base]:
        raise Conflict(
            "someone else changed the diet profiles while you were editing",
            current={"eaters": present},
            remedy="review their changes, then edit again",
        )
    if len(eaters) > MOST_EATERS:
        raise Refused("too many diet profiles", got=str(len(eaters)), allowed=f"up to {MOST_EATERS}", field="eaters")
    clean = [Eater(kitchen=member.kitchen, order=order, **_eater(entry)) for order, entry in enumerate(eaters)]
    member.kitchen.eaters.all().delete()
    Eater.objects.bulk_create(clean)
    bump_revision(member.kitchen)
    record(member, "kitchen.eaters", names=[eater.name for eater in clean])
    return clean


def _eater(entry: dict[str, Any]) -> dict[str, Any]:
    name = str(entry.get("name", "")).strip()
    if not 0 < len(name) <= 40 or "\x00" in name:
        raise Refused("this profile name cannot be used", got=name[:40], allowed="1 to 40 characters", field="name")
    budgets = {}
    for key, amount in entry.get("budgets", {}).items():
        if key not in budget_kinds():
            raise Refused("unknown limit", got=str(key)[:40], allowed=", ".join(budget_kinds()), field="budgets")
        if amount is None:
            continue
        if not 0 < amount <= MOST_A_DAY:
            allowed = f"more than 0, up to {MOST_A_DAY:g}"
            raise Refused("this daily limit is not valid", got=f"{amount:g}", allowed=allowed, field=key)
        budgets[key] = float(amount)
    return {"name": name, "budgets": budgets}


@transaction.atomic
def change_role(member: Membership, person_id: int, role: str) -> Membership:
    """Change what a person of the kitchen may do.

    Returns:
        The changed membership.

    Raises:
        Refused: when the role is unknown, or the last owner would go.
    """
    require(member, "members.edit")
    changed = membership(User(pk=person_id), member.kitchen_id)
    changed.role = role_named(role)
    _keep_an_owner(changed)
    changed.save(update_fields=["role"])
    keep_for_those_who_stay(member.kitchen)
    record(member, "member.role", email=changed.user.email, role=role)
    return changed


@transaction.atomic
def remove_member(member: Membership, person_id: int) -> None:
    """Take a person out of the kitchen; anyone may go of themselves.

    Raises:
        Refused: when they are its last owner.
    """
    is_self = person_id == member.user_id
    require(member, "view" if is_self else "members.edit")
    gone = membership(User(pk=person_id), member.kitchen_id)
    email, gone.role = gone.user.email, ""
    _keep_an_owner(gone)
    record(member, "member.leave" if is_self else "member.remove", email=email)
    gone.delete()


def role_named(role: str) -> Membership.Role:
    """Return a role by its name.

    Raises:
        Refused: when there is none.
    """
    if role not in Membership.Role.values:
        raise Refused("role not found", got=role[:40], allowed=", ".join(Membership.Role.values), field="role")
    return Membership.Role(role)


def _keep_an_owner(changed: Membership) -> None:
    kitchen = Kitchen.objects.select_for_update().get(pk=changed.kitchen_id)  # an account may be about to close beside
    if changed.role == Membership.Role.OWNER or staying_owners(kitchen) - {changed.user_id}:
        return
    if kitchen.memberships.filter(role=Membership.Role.OWNER, user_id=changed.user_id).exists():
        raise Refused(
            "a kitchen needs an owner",
            got=changed.user.email,
            allowed="another owner whose account is not about to be deleted",
            remedy="make somebody else owner first",
            field="role",
        )


def _name(name: str) -> str:
    cleaned = name.strip()
    if not 0 < len(cleaned) <= 80 or "\x00" in cleaned:
        raise Refused("the name cannot be used", got=f"{len(cleaned)} characters", allowed="1 to 80", field="name")
    return cleaned
