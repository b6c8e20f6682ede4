"""Kitchens and their people."""

from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from kitchen.errors import Refused
from kitchen.models import Kitchen, Membership
from kitchen.queue import defer_refresh
from kitchen.services.access import membership, record


@transaction.atomic
def open_kitchen(user: User, name: str) -> Membership:
    """Open a kitchen owned by a person.

    Raises:
        Refused: when the name is empty or too long.
    """
    kitchen = Kitchen.objects.create(name=_name(name))
    member = Membership.objects.create(kitchen=kitchen, user=user, role=Membership.Role.OWNER)
    record(member, "kitchen.open", name=kitchen.name)
    return member


@transaction.atomic
def change_settings(user: User, kitchen_id: int, changes: dict[str, Any]) -> Membership:
    """Change what a kitchen chose.

    Raises:
        Refused: when a value is not among its choices.
    """
    member = membership(user, kitchen_id, Membership.Role.BAKER)
    kitchen = member.kitchen
    for field, value in changes.items():
        if field == "name":
            kitchen.name = _name(value)
            continue
        choices = [choice for choice, _ in Kitchen._meta.get_field(field).choices or ()]  # type: ignore[union-attr]  # noqa: SLF001
        if value not in choices:
            raise Refused(f"{field} cannot be that", got=str(value)[:40], allowed=", ".join(choices), field=field)
        setattr(kitchen, field, value)
    kitchen.save(update_fields=list(changes))
    # The shelf shows figures by these choices: its cards are made anew in the background.
    kitchen.formulas.update(card_mark="")
    transaction.on_commit(defer_refresh)
    record(member, "kitchen.settings", **changes)
    return member


@transaction.atomic
def add_member(user: User, kitchen_id: int, email: str, role: str) -> Membership:
    """Let a person who has signed up into the kitchen, or change their role.

    Raises:
        Refused: when nobody has signed up with the address, the role is unknown, or the last owner would go.
    """
    member = membership(user, kitchen_id, Membership.Role.OWNER)
    if role not in Membership.Role.values:
        raise Refused("no such role", got=role[:40], allowed=", ".join(Membership.Role.values), field="role")
    person = User.objects.filter(email__iexact=email.strip()).first()
    if person is None:
        raise Refused(
            "nobody has signed up with this address", got=email[:80], remedy="ask them to sign up first", field="email"
        )
    _keep_an_owner(member, person, role)
    added, _ = Membership.objects.update_or_create(kitchen=member.kitchen, user=person, defaults={"role": role})
    record(member, "member.add", email=person.email, role=role)
    return added


@transaction.atomic
def remove_member(user: User, kitchen_id: int, person_id: int) -> None:
    """Take a person out of the kitchen.

    Raises:
        Refused: when they are its last owner.
    """
    member = membership(user, kitchen_id, Membership.Role.OWNER)
    gone = membership(User(pk=person_id), kitchen_id)
    _keep_an_owner(member, gone.user, "")
    gone.delete()
    record(member, "member.remove", email=gone.user.email)


def _keep_an_owner(member: Membership, person: User, role: str) -> None:
    owners = Membership.objects.select_for_update().filter(kitchen=member.kitchen, role=Membership.Role.OWNER)
    if role != Membership.Role.OWNER and {o.user_id for o in owners} == {person.pk}:
        raise Refused(
            "a kitchen needs an owner", got=person.email, remedy="make somebody else owner first", field="role"
        )


def _name(name: str) -> str:
    cleaned = name.strip()
    if not 0 < len(cleaned) <= 80 or "\x00" in cleaned:
        raise Refused("the name cannot be used", got=f"{len(cleaned)} characters", allowed="1 to 80", field="name")
    return cleaned
