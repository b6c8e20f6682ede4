"""What goes in and out of the stock: packs on hand, bakes that reserve them."""

from datetime import date

from ninja import Schema
from pydantic import Field

from api.document_schemas import Text
from kitchen.models import PlannedBake
from kitchen.services.stock import PAGE, ShelfLot


class StockOut(Schema):
    """A pack on the shelf."""

    id: int
    key: str
    name: str
    ingredient: str
    on_hand_g: float
    reserved_g: float
    free_g: float
    use_by: date | None
    trouble: str

    @classmethod
    def from_service(cls, shelved: ShelfLot) -> "StockOut":
        """Build a pack of the services."""
        lot = shelved.lot
        return cls(
            id=lot.pk,
            key=lot.key,
            name=lot.name,
            ingredient=lot.ingredient,
            on_hand_g=lot.on_hand_g,
            reserved_g=shelved.reserved_g,
            free_g=shelved.free_g,
            use_by=lot.use_by,
            trouble=lot.trouble,
        )


class StockQuery(Schema):
    """Which of the packs on the shelf."""

    offset: int = Field(0, ge=0, le=1_000_000)
    limit: int = Field(PAGE, ge=1, le=500)


class StockPage(Schema):
    """Some packs on the shelf, and how many there are."""

    items: list[StockOut]
    total: int


class StockIn(Schema):
    """A change of stock: so much came in, or so much was counted."""

    kind: Text
    grams: float


class PickOut(Schema):
    """Grams out of one pack."""

    lot_id: int
    name: str
    grams: float


class ShortageOut(Schema):
    """What no pack holds."""

    line: str
    ingredient: str
    name: str
    grams: float


class BakeOut(Schema):
    """A planned bake, or one that is over."""

    id: int
    name: str
    formula_id: int | None
    batches: float
    on: date
    state: str
    picks: list[PickOut]
    shortages: list[ShortageOut]

    @classmethod
    def from_service(cls, bake: PlannedBake) -> "BakeOut":
        """Build a row of bakes."""
        return cls(
            id=bake.pk,
            name=bake.name,
            formula_id=bake.formula_id,
            batches=bake.batches,
            on=bake.on,
            state=bake.state,
            picks=[PickOut(lot_id=p.lot_id, name=p.lot.name, grams=p.grams) for p in bake.picks.all()],
            shortages=[ShortageOut(**s) for s in bake.shortages],
        )


class BakeIn(Schema):
    """A bake to plan."""

    formula_id: int
    batches: float = 1.0
    on: date
