"""The pantry: packs beside the reference, found, read, kept and put away."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any
from uuid import uuid4

from django.db import transaction
from django.db.models import F, QuerySet
from django.utils import timezone

from kitchen.errors import Conflict
from kitchen.models import Formula, Kitchen, Lot, Membership
from kitchen.queue import defer_refresh
from kitchen.services.access import lot_of, may, record, require
from kitchen.services.judging import all_packs, core_settings, library_of, pack_ingredient
from kitchen.services.kitchens import bump_revision
from kitchen.services.stock import receive, reserved_of
from substrata import Library, Settings, load_library, read_document
from substrata.base.settings import Convention, PolyolRule
from substrata.formula.batch.cheaper_packs import CheaperPack, cheaper_packs
from substrata.formula.batch.weighed_lines import weigh_formula
from substrata.ingredients.ingredient import Ingredient
from substrata.ingredients.labels.label_check import LabelCheck, check_lot
from substrata.ingredients.labels.pack_document import read_lot, write_lot
from substrata.ingredients.labels.pack_reading import PackFigure, contained, ingredient_of_lot, read_pack
from substrata.ingredients.pack import Lot as CoreLot
from substrata.nutrition.ingredient_comparison import Compared, compare

LONGEST_LIST = 200
MOST_COMPARED = 6
MOST_OFFERS = 300  # packs looked at for a cheaper one


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


@dataclass(frozen=True, kw_only=True)
class PantryQuery:
    """What to look for in the pantry."""

    search: str = ""  # words of the name
    role: str = ""  # only of this role
    without: str = ""  # only what has no flag starting so: "nut:", "milk"
    ingredient: str = ""  # only packs of this one
    own: bool = False  # packs only
    archived: bool = False  # packs put away instead


@dataclass(frozen=True, kw_only=True)
class PantryList:
    """A page of the pantry: packs first, then the reference."""

    packs: list[tuple[Lot, Compared]]
    references: list[Compared]
    pack_count: int
    reference_count: int


def find(member: Membership, query: PantryQuery, *, offset: int = 0, limit: int = 60) -> PantryList:
    """Find a page of what fits: a fixed number of queries, however many packs there are."""
    rows, settings = packs(member, query), core_settings(member.kitchen)
    count = rows.count()
    row = list(rows[offset : offset + limit])
    compared = compare([lot.key for lot in row], all_packs(row), settings)
    references = [] if query.own or query.archived else _references(query)
    start = max(offset - count, 0)
    page = references[start : start + limit - len(row)] if limit > len(row) else []
    plain = _compared_references(settings.convention, settings.polyol_rule)
    return PantryList(
        packs=list(zip(row, compared, strict=True)),
        references=[plain[key] for key in page],
        pack_count=count,
        reference_count=len(references),
    )


def _references(query: PantryQuery) -> list[str]:
    library = load_library()
    keys = library.names.search(query.search, len(library)) if query.search.strip() else [i.id for i in library]
    banned = set(flags_starting(query.without)) if query.without else set()
    return [
        key
        for key in keys
        if (not query.role or library[key].role == query.role)
        and not banned & library[key].flags
        and query.ingredient in ("", key)
    ]


@lru_cache(maxsize=8)
def _compared_references(convention: Convention, rule: PolyolRule) -> dict[str, Compared]:
    """Every reference ingredient as it is listed."""
    library = load_library()
    settings = Settings(convention=convention, polyol_rule=rule)
    return {compared.key: compared for compared in compare([i.id for i in library], library, settings)}


def packs(member: Membership, query: PantryQuery) -> QuerySet[Lot]:
    """Packs of the member's kitchen that fit, the last touched first."""
    rows = Lot.objects.filter(kitchen_id=member.kitchen_id, archived_at__isnull=not query.archived)
    for word in query.search.split()[:8]:
        rows = rows.filter(name__icontains=word)
    if query.role:
        rows = rows.filter(role=query.role)
    if query.ingredient:
        rows = rows.filter(ingredient=query.ingredient)
    if query.without:
        rows = rows.exclude(flags__overlap=flags_starting(query.without))
    return rows.order_by("-touched_at", "-pk")


def flags_starting(prefix: str) -> list[str]:
    """All flags of the shipped library that start so."""
    return sorted({flag for i in load_library() for flag in i.flags if flag.startswith(prefix)} | {prefix})


def packs_of(member: Membership, ingredient: str) -> QuerySet[Lot]:
    """Packs of one ingredient, in the order in which they should be used up."""
    rows = Lot.objects.filter(kitchen_id=member.kitchen_id, ingredient=ingredient, archived_at__isnull=True)
    return rows.order_by(F("use_by").asc(nulls_last=True), F("bought_on").asc(nulls_last=True), "pk")


@dataclass(frozen=True, kw_only=True)
class OpenIngredient:
    """A reference ingredient with the kitchen's packs of it."""

    ingredient: Ingredient
    compared: Compared
    packs: list[tuple[Lot, Compared]]


def open_ingredient(member: Membership, ingredient: str) -> OpenIngredient:
    """All that is known of a reference ingredient.

    Returns:
        The ingredient with its packs.

    Raises:
        UnknownIngredient: when the library has none of this id.
    """
    row = load_library()[ingredient]
    settings = core_settings(member.kitchen)
    lots = list(packs_of(member, row.id)[:LONGEST_LIST])
    compared = compare([lot.key for lot in lots], all_packs(lots), settings)
    return OpenIngredient(
        ingredient=row,
        compared=_compared_references(settings.convention, settings.polyol_rule)[row.id],
        packs=list(zip(lots, compared, strict=True)),
    )


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


def side_by_side(member: Membership, keys: list[str]) -> tuple[Compared, ...]:
    """Ingredients and packs side by side.

    Returns:
        The compared entries in the order asked for.

    Raises:
        UnknownIngredient: when one is in neither.
    """
    chosen = keys[:MOST_COMPARED]
    row = Lot.objects.filter(kitchen_id=member.kitchen_id, key__in=chosen)
    return compare(chosen, all_packs(row), core_settings(member.kitchen))


def cheaper(member: Membership, document: dict[str, Any]) -> tuple[CheaperPack, ...]:
    """Packs of the kitchen that would do the same work for less."""
    kitchen = member.kitchen
    formula, library, settings = read_document(document), library_of(kitchen, document), core_settings(kitchen)
    batch, _ = weigh_formula(formula, library, settings)
    roles = {w.ingredient.role for w in batch.lines}
    rows = packs(member, PantryQuery()).filter(role__in=roles, document__price__isnull=False)[:MOST_OFFERS]
    offers = [pack_ingredient(lot) for lot in rows]
    return cheaper_packs(batch, offers, formula.pieces, settings.currency)


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
