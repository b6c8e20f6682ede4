"""Ovens of a kitchen: readings of their bakes, what was learned of them, and the bake of a formula in one of them."""

from dataclasses import dataclass
from math import isfinite
from typing import Any

from django.db import transaction
from django.dispatch import Signal
from django.utils.text import slugify

from kitchen.errors import NotFound, Refused
from kitchen.models import Kitchen, Membership, Oven
from kitchen.services.access import record, require
from kitchen.services.judging import core_settings, library_of
from kitchen.services.kitchens import bump_revision
from substrata import read_document
from substrata.evaluation import BakeForecast, Dough, ShapePlan, forecast_bake, plan_shape
from substrata.formula import Formula
from substrata.inference import CalibrationState, oven_of
from substrata.process import OvenProfile, thickest_in
from substrata.publishing import Card, card_of

bakes_changed = Signal()  # with the membership: what the kitchen's ovens were taught has changed
MOST_OVENS = 50


@dataclass(frozen=True, kw_only=True)
class BakeAnswer:
    """A forecast, and the answer to "how thick in so many minutes" when it was asked."""

    forecast: BakeForecast | None
    thickest_mm: float | None


def profile_of(oven: Oven) -> OvenProfile:
    """Return what is known of an oven: what was last learned, with where it stands now."""
    learned = {key: oven.learned[key] for key in _LEARNED if key in oven.learned}
    return OvenProfile(name=oven.name, altitude_m=oven.altitude_m, **learned)


_LEARNED = ("offset_k", "offset_sd", "convection", "thickness", "browning", "bakes")


def keep_learned(kitchen: Kitchen, state: CalibrationState) -> bool:
    """Keep what the bakes of a kitchen say of each of its ovens; returns whether anything is other than before."""
    changed = False
    for oven in Oven.objects.filter(kitchen_id=kitchen.pk):
        profile = oven_of(state, oven.key)
        learned = {key: round(getattr(profile, key), 4) for key in _LEARNED} if profile.bakes else {}
        if learned != oven.learned:
            oven.learned, changed = learned, True
            oven.save(update_fields=["learned"])
    return changed


def ovens(member: Membership) -> list[tuple[Oven, OvenProfile]]:
    """Return the kitchen's ovens with what is known of them; a constant number of queries."""
    rows = Oven.objects.filter(kitchen_id=member.kitchen_id, archived=False).prefetch_related("bakes")
    return [(oven, profile_of(oven)) for oven in rows]


@transaction.atomic
def add_oven(member: Membership, name: str, altitude_m: float = 0.0) -> Oven:
    """Add a new oven.

    Returns:
        The new oven.

    Raises:
        Refused: when it has no name, or there are too many.
    """
    require(member, "ovens.edit")
    oven_name = name.strip()[:80]
    if not oven_name:
        raise Refused("the oven has no name", got="nothing", allowed="a name", field="name")
    checked_altitude(altitude_m)
    count = Oven.objects.filter(kitchen_id=member.kitchen_id).count()
    if count >= MOST_OVENS:
        raise Refused("too many ovens", got=str(count), allowed=f"up to {MOST_OVENS}", remedy="archive one")
    base = slugify(oven_name)[:30] or "oven"
    in_use = set(Oven.objects.filter(kitchen_id=member.kitchen_id).values_list("key", flat=True))
    key = next(k for k in (base, *(f"{base}-{n}" for n in range(2, MOST_OVENS + 3))) if k not in in_use)
    created = Oven.objects.create(kitchen_id=member.kitchen_id, key=key, name=oven_name, altitude_m=altitude_m)
    record(member, "oven.add", oven=created.name)
    return created


@transaction.atomic
def change_oven(
    member: Membership,
    oven_id: int,
    *,
    name: str | None = None,
    altitude_m: float | None = None,
    archived: bool | None = None,
) -> Oven:
    """Rename an oven, say where it stands, or put it away.

    Returns:
        The changed oven.

    Raises:
        NotFound: when the kitchen has no such oven.
    """
    require(member, "ovens.edit")
    oven = stored_oven(member, oven_id)
    if name is not None and name.strip():
        oven.name = name.strip()[:80]
    if altitude_m is not None:
        oven.altitude_m = checked_altitude(altitude_m)
    if archived is not None:
        oven.archived = archived
    oven.save()
    bump_revision(member.kitchen)
    record(member, "oven.change", oven=oven.name)
    if altitude_m is not None:
        bakes_changed.send(Oven, member=member)  # its bakes were read by the boil of another height
    return oven


def checked_altitude(altitude_m: float) -> float:
    """Return a height above the sea that can be.

    Raises:
        Refused: when it cannot.
    """
    low, high = _ALTITUDE_M
    if not (isfinite(altitude_m) and low <= altitude_m <= high):
        raise Refused(
            "the altitude cannot be right",
            got=f"{altitude_m:g} m",
            allowed=f"{low:g} to {high:g} m",
            field="altitude_m",
        )
    return altitude_m


_ALTITUDE_M = (-400.0, 5000.0)


def bake_document(member: Membership, document: dict[str, Any], within_min: float | None = None) -> BakeAnswer:
    """Return the forecast of a document in the oven it names.

    Raises:
        FormulaError: when the document cannot be read.
    """
    formula = read_document(document)
    dough = dough_in(member, formula, document, named_profile(member, formula.bake.oven))
    forecast = forecast_bake(dough)
    thickest = thickest_in(dough.case, within_min) if forecast is not None and within_min is not None else None
    return BakeAnswer(forecast=forecast, thickest_mm=thickest)


def card_document(member: Membership, document: dict[str, Any]) -> Card:
    """Return the panels of a document, with the forecast of the oven it names.

    Raises:
        FormulaError: when the document cannot be read.
    """
    formula = read_document(document)
    return card_of(dough_in(member, formula, document, named_profile(member, formula.bake.oven)).as_baked())


def shape_document(member: Membership, document: dict[str, Any]) -> ShapePlan | None:
    """Pieces, trays and pans of a document.

    Returns:
        The plan of shapes; None while there is no dough.

    Raises:
        FormulaError: when the document cannot be read.
    """
    return plan_shape(dough_in(member, read_document(document), document, OvenProfile()))


def named_profile(member: Membership, key: str) -> OvenProfile:
    """Return what is known of the oven a document names; another kitchen's oven is an unknown one."""
    oven = Oven.objects.filter(kitchen_id=member.kitchen_id, key=key).first() if key else None
    return profile_of(oven) if oven else OvenProfile()


def dough_in(member: Membership, formula: Formula, document: dict[str, Any], profile: OvenProfile) -> Dough:
    """Return the dough of a document in a kitchen: its packs, its choices, one of its ovens."""
    kitchen = member.kitchen
    return Dough(formula, library_of(kitchen, document), core_settings(kitchen), profile)


def stored_oven(member: Membership, oven_id: int) -> Oven:
    """Return an oven of the member's kitchen, whether it is put away or not.

    Raises:
        NotFound: when the kitchen has no such oven.
    """
    row = Oven.objects.filter(kitchen_id=member.kitchen_id, pk=oven_id).first()
    if row is None:
        raise NotFound("oven not found", got=str(oven_id), remedy="choose one of the kitchen's ovens")
    return row
