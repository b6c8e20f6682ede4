"""What goes in and out of kitchens, their people and their eaters."""

from datetime import datetime

from ninja import Schema
from pydantic import Field, create_model

from api.document_schemas import Text, settings_fields
from kitchen.models import Membership
from kitchen.services.access import RIGHTS


class KitchenOut(create_model("KitchenChoices", __base__=Schema, **settings_fields(patch=False))):  # type: ignore[misc]  # made here
    """A kitchen as its member sees it."""

    id: int
    name: str
    role: str
    rights: list[str]  # what the role may do here, as "stock.edit"
    devices: str  # which scale and thermometers it reads: "", here, simulated
    revision: int  # of its choices, packs and eaters
    lessons_off: list[str]  # blocks of what was learned that its forecasts leave alone
    learns_from: datetime | None  # runs before it teach nothing
    erased_at: datetime | None  # its owner wants it to end then

    @classmethod
    def from_service(cls, member: Membership) -> "KitchenOut":
        """Build a membership as a kitchen."""
        k = member.kitchen
        return cls(
            id=k.pk,
            name=k.name,
            role=member.role,
            rights=sorted(RIGHTS[Membership.Role(member.role)]),
            **{name: getattr(k, name) for name in k.SETTINGS},
            devices=k.devices,
            revision=k.revision,
            lessons_off=k.lessons_off,
            learns_from=k.learns_from,
            erased_at=k.erased_at,
        )


class MeOut(Schema):
    """Who is signed in, and where they may go."""

    id: int
    email: str
    kitchens: list[KitchenOut]
    erased_at: datetime | None  # the account is to end then


class KitchenIn(Schema):
    """A new kitchen."""

    name: Text


class KitchenSettingsIn(create_model("KitchenChanges", __base__=Schema, **settings_fields(patch=True))):  # type: ignore[misc]  # made here
    """Settings to change; what is left out stays."""

    name: Text | None = None


class DevicesIn(Schema):
    """Which scale and thermometers the kitchen reads from now on."""

    devices: str = Field(max_length=12)


class RoleIn(Schema):
    """What a person may do from now on."""

    role: Text


class ClosingIn(Schema):
    """Whether a kitchen is to end, and its name once more, so that it is not ended by mistake."""

    on: bool
    name: Text = ""


class MemberOut(Schema):
    """A person of a kitchen."""

    id: int
    email: str
    role: str

    @classmethod
    def from_service(cls, member: Membership) -> "MemberOut":
        """Build a membership as a person."""
        return cls(id=member.user_id, email=member.user.email, role=member.role)


class EaterDocument(Schema):
    """Somebody's daily budgets."""

    name: Text
    budgets: dict[str, float | None] = Field(default_factory=dict)


class EatersIn(Schema):
    """All eaters of a kitchen."""

    eaters: list[EaterDocument]
    seen: list[EaterDocument] | None = None  # as they were when they were last looked at
