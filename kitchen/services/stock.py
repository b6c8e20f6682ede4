"""What is on hand, what planned bakes have reserved, and what a bake takes away."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import date
from math import isfinite
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Exists, OuterRef, Q, QuerySet, Sum
from django.utils import timezone

from kitchen.errors import NotFound, Refused
from kitchen.models import BakePick, Lot, Membership, PlannedBake, StockMove
from kitchen.services.access import formula_of, lot_of, record, require
from kitchen.services.judging import core_settings, library_of
from substrata import load_library, read_document
from substrata.formula import weigh_formula
from substrata.ingredients import Allocation, Need, StockedLot, allocate, read_lot

MOST_G = 1_000_000.0
MOST_BATCHES = 1_000.0
MOST_BAKES = 200
PAGE = 100
_TAP_G = 50_000.0  # of water


@dataclass(frozen=True, kw_only=True)
class ShelfLot:
    """A pack on the shelf and what is reserved of it."""

    lot: Lot
    reserved_g: float

    @property
    def free_g(self) -> float:
        """Grams that no planned bake has reserved."""
        return max(self.lot.on_hand_g - self.reserved_g, 0.0)


@dataclass(frozen=True, kw_only=True)
class StockList:
    """Some of the packs on the shelf, and how many there are."""

    lots: list[ShelfLot]
    total: int


def shelf(member: Membership, *, offset: int = 0, limit: int = PAGE) -> StockList:
    """Packs with something on hand or reserved, the next to be used up first."""
    rows = _on_shelf(member)
    lots = list(rows[offset : offset + limit])
    reserved = reserved_of(lots)
    return StockList(lots=[ShelfLot(lot=lot, reserved_g=reserved.get(lot.pk, 0.0)) for lot in lots], total=rows.count())


def _on_shelf(member: Membership) -> QuerySet[Lot]:
    picked = BakePick.objects.filter(lot_id=OuterRef("pk"), bake__state=PlannedBake.State.PLANNED)
    rows = Lot.objects.filter(kitchen_id=member.kitchen_id, archived_at__isnull=True)
    return rows.filter(Q(on_hand_g__gt=0) | Exists(picked)).order_by("use_by", "bought_on", "pk")


def at_hand(kitchen_id: int) -> dict[str, float]:
    """Grams of every ingredient that a kitchen has, in packs that are not archived; water is always there."""
    rows = Lot.objects.filter(kitchen_id=kitchen_id, archived_at=None, on_hand_g__gt=0)
    grams_by_ingredient: dict[str, float] = {"water": _TAP_G}
    for ingredient, grams in rows.values_list("ingredient", "on_hand_g"):
        grams_by_ingredient[ingredient] = grams_by_ingredient.get(ingredient, 0.0) + grams
    return grams_by_ingredient


def packs_for_lines(member: Membership, document: dict[str, Any]) -> dict[str, str]:
    """For every line that goes by the reference, the pack on hand to be used up next: line id -> key of the pack.

    A label that cannot be right would spoil every figure: such a pack is taken only by hand.

    Returns:
        Pack keys by line id.
    """
    lines = read_document(document).lines
    ingredients = {line.ingredient for line in lines if not line.lot}
    rows = _on_shelf(member).filter(ingredient__in=ingredients).exclude(trouble="wrong")
    first: dict[str, str] = {}
    for ingredient, key in rows.values_list("ingredient", "key"):
        first.setdefault(ingredient, key)
    return {line.id: first[line.ingredient] for line in lines if not line.lot and line.ingredient in first}


def reserved_of(lots: Iterable[Lot]) -> dict[int, float]:
    """Grams of each pack that planned bakes have reserved."""
    picks = BakePick.objects.filter(lot__in=[lot.pk for lot in lots], bake__state=PlannedBake.State.PLANNED)
    return {row["lot"]: row["grams"] for row in picks.values("lot").annotate(grams=Sum("grams"))}


def receive(lot: Lot, grams: float, user: User) -> None:
    """Put more of a pack on the shelf.

    Raises:
        Refused: when the amount cannot be right.
    """
    _move(lot, StockMove.Kind.RECEIVED, _amount(grams, 0.0), user)


@transaction.atomic
def change_stock(member: Membership, lot_id: int, kind: str, grams: float) -> ShelfLot:
    """Receive some more of a pack, or say how much was counted.

    Returns:
        The pack with its new stock.

    Raises:
        Refused: when the amount or the kind cannot be right.
    """
    require(member, "stock.edit")
    lot = lot_of(member, lot_id, lock=True)
    if kind == StockMove.Kind.RECEIVED:
        receive(lot, grams, member.user)
    elif kind == StockMove.Kind.COUNTED:
        _move(lot, StockMove.Kind.COUNTED, _amount(grams, -1.0) - lot.on_hand_g, member.user)
    else:
        raise Refused("change of stock not found", got=kind[:20], allowed="received, counted", field="kind")
    record(member, f"stock.{kind}", lot=lot.key, grams=grams)
    return ShelfLot(lot=lot, reserved_g=reserved_of([lot]).get(lot.pk, 0.0))


def bakes(member: Membership, *, planned: bool = True) -> QuerySet[PlannedBake]:
    """Planned bakes, the next first; or those that are over, the last first."""
    rows = PlannedBake.objects.filter(kitchen_id=member.kitchen_id).prefetch_related("picks__lot")
    if planned:
        return rows.filter(state=PlannedBake.State.PLANNED).order_by("on", "pk")
    return rows.exclude(state=PlannedBake.State.PLANNED).order_by("-on", "-pk")


@transaction.atomic
def plan_bake(member: Membership, formula_id: int, batches: float, on: date) -> PlannedBake:
    """Plan a bake of a formula's draft and reserve what it takes, first in, first out.

    What no pack holds is noted as a shortage; the bake is planned all the same.

    Returns:
        The planned bake.

    Raises:
        Refused: when the number of batches cannot be right, or an ingredient has no usable weight.
    """
    require(member, "stock.edit")
    formula = formula_of(member, formula_id)
    if not isfinite(batches) or not 0 < batches <= MOST_BATCHES:
        raise Refused("too many batches", got=f"{batches:g}", allowed=f"up to {MOST_BATCHES:g}", field="batches")
    result = _allocated(member, formula.draft.document, batches, on)
    library = load_library()
    bake = PlannedBake.objects.create(
        kitchen=member.kitchen,
        formula=formula,
        name=formula.name,
        batches=batches,
        on=on,
        created_by=member.user,
        shortages=[
            {"line": s.line, "ingredient": s.ingredient, "name": library[s.ingredient].name, "grams": round(s.grams, 1)}
            for s in result.shortages
        ],
    )
    lots = {
        lot.key: lot for lot in Lot.objects.filter(kitchen_id=member.kitchen_id, key__in={p.lot for p in result.picks})
    }
    BakePick.objects.bulk_create(
        BakePick(bake=bake, lot=lots[pick.lot], line=pick.line, grams=pick.grams) for pick in result.picks
    )
    record(member, "bake.plan", formula, batches=batches, on=on.isoformat())
    return bake


@transaction.atomic
def finish_bake(member: Membership, bake_id: int) -> PlannedBake:
    """Finish a bake: its packs lose what it took.

    Returns:
        The finished bake.

    Raises:
        Refused: when it is not planned any more.
    """
    member, bake = _planned(member, bake_id)
    picks = list(bake.picks.select_related("lot").order_by("lot_id"))
    # Locked in one order, so that two finishing bakes cannot wait for each other.
    lots = {
        lot.pk: lot for lot in Lot.objects.select_for_update().filter(pk__in={p.lot_id for p in picks}).order_by("pk")
    }
    for pick in picks:
        lot = lots[pick.lot_id]
        _move(lot, StockMove.Kind.USED, -min(pick.grams, lot.on_hand_g), member.user, bake)
    bake.state = PlannedBake.State.DONE
    bake.save(update_fields=["state"])
    record(member, "bake.done", bake.formula, bake=bake.pk)
    return bake


@transaction.atomic
def cancel_bake(member: Membership, bake_id: int) -> PlannedBake:
    """Cancel a bake: its packs are free again.

    Returns:
        The cancelled bake.

    Raises:
        Refused: when it is not planned any more.
    """
    member, bake = _planned(member, bake_id)
    bake.state = PlannedBake.State.CANCELLED
    bake.save(update_fields=["state"])
    record(member, "bake.cancel", bake.formula, bake=bake.pk)
    return bake


def _planned(member: Membership, bake_id: int) -> tuple[Membership, PlannedBake]:
    require(member, "stock.edit")
    bake = PlannedBake.objects.select_for_update().filter(kitchen_id=member.kitchen_id, pk=bake_id).first()
    if bake is None:
        raise NotFound("bake not found", got=str(bake_id), remedy="choose one from the list")
    if bake.state != PlannedBake.State.PLANNED:
        raise Refused("this bake is already done", got=bake.state, allowed="a planned bake", remedy="plan another")
    return member, bake


def _allocated(member: Membership, document: dict[str, Any], batches: float, on: date) -> Allocation:
    """Packs for so many batches of a document."""
    kitchen = member.kitchen
    batch, problems = weigh_formula(read_document(document), library_of(kitchen, document), core_settings(kitchen))
    if problems:
        first = problems[0]
        raise Refused(
            "an ingredient has no usable weight", got=f"{first.line}: {first.what}", remedy="fix this ingredient first"
        )
    needs = [
        Need(line=w.line.id, ingredient=w.ingredient.id, grams=w.grams.value * batches, lot=w.line.lot)
        for w in batch.lines
    ]
    # Two plans at once must not reserve the same grams.
    rows = list(
        Lot.objects.select_for_update()
        .filter(kitchen_id=member.kitchen_id, archived_at__isnull=True, ingredient__in={n.ingredient for n in needs})
        .order_by("pk")
    )
    reserved = reserved_of(rows)
    stocked = [
        StockedLot(
            key=lot.key,
            ingredient=lot.ingredient,
            on_hand_g=lot.on_hand_g,
            reserved_g=reserved.get(lot.pk, 0.0),
            usable=read_lot(lot.document, lot.key).usable,
            use_by=lot.use_by,
            bought_on=lot.bought_on,
        )
        for lot in rows
    ]
    return allocate(needs, stocked, on)


def take_weighed(member: Membership, grams: Mapping[str, float]) -> None:
    """Packs lose what was weighed out of them, as far as they hold it; within the transaction of the run that weighed it.

    Args:
        member: whose kitchen.
        user: who weighed.
        grams: by key of the pack; unknown ones are left out.
    """
    # Locked in one order, so that two finishing runs cannot wait for each other.
    rows = Lot.objects.select_for_update().filter(kitchen_id=member.kitchen_id, key__in=list(grams)).order_by("pk")
    for lot in rows:
        portion = min(grams[lot.key], lot.on_hand_g)
        if portion > 0:
            _move(lot, StockMove.Kind.USED, -portion, member.user)


def _amount(grams: float, above: float) -> float:
    if not isfinite(grams) or not above < grams <= MOST_G:
        raise Refused("the weight cannot be right", got=f"{grams:g} g", allowed=f"up to {MOST_G:g} g", field="grams")
    return grams


def _move(lot: Lot, kind: StockMove.Kind, grams: float, user: User, bake: PlannedBake | None = None) -> None:
    lot.on_hand_g = max(lot.on_hand_g + grams, 0.0)
    lot.save(update_fields=["on_hand_g"])
    StockMove.objects.create(lot=lot, kind=kind, grams=grams, user=user, bake=bake, at=timezone.now())
