"""What a plan takes from the shop, what is ticked, and the packs that are held for it."""

from django.db import transaction

from kitchen.errors import Refused
from kitchen.models import BakePick, Lot, Membership, Plan, PlannedBake
from kitchen.services.access import require
from kitchen.services.judging import core_settings, library_of
from kitchen.services.plan_cases import core_plan
from kitchen.services.plans import stored_plan
from kitchen.services.stock import reserved_of
from substrata import load_library
from substrata.evaluation import Dough
from substrata.ingredients import read_lot
from substrata.scheduling import Pack, ShoppingRow, shopping


def shopping_list(member: Membership, plan_id: int) -> tuple[Plan, tuple[ShoppingRow, ...]]:
    """Return what the plan's bakes take together, less what is free on the shelf, in whole packs."""
    plan = stored_plan(member, plan_id)
    core = core_plan(member, plan.document)
    documents = [{"lines": [{"lot": line.lot} for line in bake.formula.lines]} for bake in core.bakes]
    library, settings = library_of(member.kitchen, *documents), core_settings(member.kitchen)
    doughs = [(bake.formula.name, Dough(bake.formula, library, settings), bake.batches) for bake in core.bakes]
    by_key = {lot.key: lot.ingredient for lot in Lot.objects.filter(kitchen_id=member.kitchen_id)}
    return plan, shopping(
        doughs, load_library(), _packs(member, plan), pack_names=by_key, due=[bake.due for bake in core.bakes]
    )


def _packs(member: Membership, plan: Plan) -> dict[str, Pack]:
    """Of each ingredient the pack that was bought last, and what is free of all of them, or held for this plan."""
    lots = list(Lot.objects.filter(kitchen_id=member.kitchen_id, archived_at=None).order_by("bought_on", "pk"))
    reserved = reserved_of(lots)
    for held in BakePick.objects.filter(bake__in=plan.reserved, bake__state=PlannedBake.State.PLANNED):
        reserved[held.lot_id] = reserved.get(held.lot_id, 0.0) - held.grams
    packs: dict[str, Pack] = {}
    for lot in lots:
        read = read_lot(lot.document, lot.key)
        before = packs.get(lot.ingredient)
        packs[lot.ingredient] = Pack(
            name=lot.name,
            grams=read.pack_g or (before.grams if before else None),
            price=read.price if read.pack_g else (before.price if before else None),
            currency=member.kitchen.currency,
            on_hand_g=(before.on_hand_g if before else 0.0) + max(lot.on_hand_g - reserved.get(lot.pk, 0.0), 0.0),
        )
    return packs


@transaction.atomic
def tick(member: Membership, plan_id: int, ingredient: str, *, done: bool) -> Plan:
    """Tick something off the shopping list, or take the tick away; two people shop without undoing each other."""
    require(member, "plans.edit")
    plan = stored_plan(member, plan_id, lock=True)
    if ingredient not in load_library():
        raise Refused("ingredient not found", got=ingredient[:40], allowed="a row of the list", field="ingredient")
    plan.ticked = sorted(
        {*plan.ticked, ingredient}
        if done
        else {ingredient_key for ingredient_key in plan.ticked if ingredient_key != ingredient}
    )
    plan.save(update_fields=["ticked", "touched_at"])
    return plan
