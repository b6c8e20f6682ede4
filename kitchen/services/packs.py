"""Packs of a kitchen: read, added, changed, put away."""

from dataclasses import dataclass
from typing import Any
from uuid import uuid4

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from kitchen.errors import Conflict
from kitchen.models import Formula, Kitchen, Lot, Membership
from kitchen.queue import defer_refresh
from kitchen.services.access import lot_of, may, record, require
from kitchen.services.judging import core_settings
from kitchen.services.kitchens import bump_revision
from kitchen.services.pantry import LONGEST_LIST
from kitchen.services.stock import receive, reserved_of
from substrata import Library, load_library
from substrata.ingredients import (
    LabelCheck,
    PackFigure,
    check_lot,
    contained,
    ingredient_of_lot,
    read_lot,
    read_pack,
    write_lot,
)
from substrata.ingredients import Lot as CoreLot
from substrata.nutrition import Compared, compare


@dataclass(frozen=True, kw_only=True)
class PackReading:
    """What a pack's document means: figures per 100 g, findings, strata."""

    figures: tuple[PackFigure, ...]  # empty when it has no label
    check: LabelCheck
    compared: tuple[Compared, Compared]  # the pack, the reference


@dataclass(frozen=True, kw_only=True)
class OpenLot:
    """A pack with what it means and where it is used."""

    lot: Lot
    reading: PackReading
    uses: list[Formula]
    reserved_g: float
    may_edit: bool


def read(member: Membership, document: dict[str, Any]) -> PackReading:
    """Return what a pack would mean, before it is kept.

    Raises:
        LabelError, UnknownIngredient: when the document cannot be read.
    """
    return _reading(read_lot(document, "new"), member.kitchen)


@transaction.atomic
def create_lot(member: Membership, document: dict[str, Any], on_hand_g: float = 0.0) -> OpenLot:
    """Put a pack into the pantry.

    Returns:
        The new pack, opened.

    Raises:
        LabelError, UnknownIngredient: when the document cannot be read.
    """
    require(member, "packs.edit")
    lot = described(Lot(kitchen=member.kitchen, key=new_key(), updated_by=member.user), document)
    lot.save()
    if on_hand_g:
        receive(lot, on_hand_g, member.user)
    bump_revision(member.kitchen)
    record(member, "lot.create", lot=lot.key, name=lot.name)
    return _opened(lot, member)


def open_lot(member: Membership, lot_id: int) -> OpenLot:
    """Open a pack with what it means."""
    return _opened(lot_of(member, lot_id), member)


@transaction.atomic
def save_lot(member: Membership, lot_id: int, document: dict[str, Any], lock: int) -> OpenLot:
    """Change a pack.

    Returns:
        The changed pack, opened.

    Raises:
        Conflict: when somebody saved in between; carries what they saved.
        LabelError, UnknownIngredient: when the document cannot be read.
    """
    require(member, "packs.edit")
    lot = lot_of(member, lot_id, lock=True)
    if lot.lock != lock and lot.document != write_lot(read_lot(document, lot.key)):
        raise Conflict(
            "someone else saved this pack while you were editing",
            remedy="review their changes, then save again",
            current={"document": lot.document, "lock": lot.lock, "by": lot.updated_by.email if lot.updated_by else ""},
        )
    described(lot, document)
    lot.lock, lot.updated_by = lot.lock + 1, member.user
    lot.save()
    bump_revision(member.kitchen)
    _refresh_uses(lot)
    record(member, "lot.save", lot=lot.key, name=lot.name)
    return _opened(lot, member)


@transaction.atomic
def archive_lot(member: Membership, lot_id: int, *, archived: bool) -> Lot:
    """Put a pack away, or back. Formulas that use it keep its numbers."""
    require(member, "packs.edit")
    lot = lot_of(member, lot_id, lock=True)
    lot.archived_at = timezone.now() if archived else None
    lot.save(update_fields=["archived_at"])
    record(member, "lot.archive" if archived else "lot.restore", lot=lot.key, name=lot.name)
    return lot


def new_key() -> str:
    """Return a key unlike any other kitchen's."""
    return uuid4().hex[:16]


def described(lot: Lot, document: dict[str, Any], library: Library | None = None) -> Lot:
    """Fill a row from a pack's document; it is not saved yet.

    Returns:
        The filled row.

    Raises:
        LabelError, UnknownIngredient: when the document cannot be read.
    """
    return filled(lot, read_lot(document, lot.key), library or load_library())


def filled(lot: Lot, read_as: CoreLot, library: Library, *, trouble: str | None = None) -> Lot:
    """Fill a row from a pack; it is not saved yet.

    Args:
        lot: the row.
        read_as: the pack.
        library: the ingredients.
        trouble: of its label, where that was looked at before.

    Returns:
        The filled row.

    Raises:
        LabelError, UnknownIngredient: when a figure cannot be read, or it is a pack of nothing known.
    """
    reference = library[read_as.ingredient]
    lot.document, lot.ingredient, lot.name = write_lot(read_as), reference.id, read_as.name
    lot.role, lot.flags = reference.role, sorted(reference.flags | contained(read_as))
    lot.use_by, lot.bought_on = read_as.use_by, read_as.bought_on
    lot.trouble = _worst(check_lot(read_as, reference, library)) if trouble is None else trouble
    lot.touched_at = timezone.now()
    return lot


def _worst(check: LabelCheck) -> str:
    severities = {finding.severity for finding in check.findings} | ({"wrong"} if check.mistake else set())
    return next((s for s in ("wrong", "odd") if s in severities), "")


def _reading(lot: CoreLot, kitchen: Kitchen) -> PackReading:
    library = load_library()
    reference = library[lot.ingredient]
    with_it = library.with_packs([ingredient_of_lot(lot, reference)])
    pack, plain = compare([lot.key, reference.id], with_it, core_settings(kitchen))
    return PackReading(
        figures=read_pack(lot.label, reference) if lot.label else (),
        check=check_lot(lot, reference, library),
        compared=(pack, plain),
    )


def _opened(lot: Lot, member: Membership) -> OpenLot:
    return OpenLot(
        lot=lot,
        reading=_reading(read_lot(lot.document, lot.key), member.kitchen),
        uses=list(uses(lot)[:LONGEST_LIST]),
        reserved_g=reserved_of([lot]).get(lot.pk, 0.0),
        may_edit=may(member, "packs.edit"),
    )


def uses(lot: Lot) -> QuerySet[Formula]:
    """Formulas whose draft takes from a pack."""
    holding = {"lines": [{"lot": lot.key}]}
    return Formula.objects.filter(
        kitchen_id=lot.kitchen_id, archived_at__isnull=True, draft__document__contains=holding
    ).order_by("name")


def _refresh_uses(lot: Lot) -> None:
    """Redraw in the background the list pictures of formulas made with this pack."""
    ids = list(uses(lot).values_list("pk", flat=True))
    if ids:
        Formula.objects.filter(pk__in=ids).update(thumb_mark="")
        transaction.on_commit(defer_refresh)
