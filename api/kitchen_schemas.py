"""What goes in and out of kitchens, their people and their eaters."""

from datetime import datetime

from ninja import Schema
from pydantic import Field

from api.document_schemas import Text
from kitchen.models import Membership
from kitchen.services.access import RIGHTS


class KitchenOut(Schema):
    """A kitchen as its member sees it."""

    id: int
    name: str
    role: str
    rights: list[str]  # what the role may do here, as "stock.edit"
    spoons: str
    egg_scheme: str
    convention: str
    polyol_rule: str
    units: str
    currency: str
    coconut_is_nut: bool
    xanthan_is_grain: bool
    low_salt: bool
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
            spoons=k.spoons,
            egg_scheme=k.egg_scheme,
            convention=k.convention,
            polyol_rule=k.polyol_rule,
            units=k.units,
            currency=k.currency,
            coconut_is_nut=k.coconut_is_nut,
            xanthan_is_grain=k.xanthan_is_grain,
            low_salt=k.low_salt,
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


class KitchenSettingsIn(Schema):
    """Settings to change; what is left out stays."""

    name: Text | None = None
    spoons: Text | None = None
    egg_scheme: Text | None = None
    convention: Text | None = None
    polyol_rule: Text | None = None
    units: Text | None = None
    currency: Text | None = None
    coconut_is_nut: bool | None = None
    xanthan_is_grain: bool | None = None
    low_salt: bool | None = None


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
