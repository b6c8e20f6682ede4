"""What goes in and out of plans."""

from datetime import date, datetime
from typing import Literal

from ninja import Schema
from pydantic import Field

from api.document_schemas import Text, model_of
from kitchen.models import Plan
from kitchen.services.plan_cases import changed_since_planned
from kitchen.services.plans import NamedBake
from substrata.scheduling import MOST_TEXT, MoveConflict, Planned, PlannedBake, PlannedOven, ShoppingRow
from substrata.scheduling import Plan as CorePlan


class PlanBakeIn(model_of(PlannedBake, leave=("formula",))):  # type: ignore[misc]  # made of the declaration
    """A formula of the kitchen, how much of it, and when it is wanted."""

    formula_id: int


class PlanDocument(model_of(CorePlan, bakes=list[PlanBakeIn])):  # type: ignore[misc]  # made of the declaration
    """A plan as the page keeps it: docs/formats/plan.schema.json, with formulas by their ids."""

    name: Text = "Plan"
    ovens: list[model_of(PlannedOven)] = Field(max_length=12)  # type: ignore[valid-type]  # made of the declaration
    has: dict[str, float] = Field(default_factory=dict)


class PlanSaveIn(Schema):
    """A plan, and the lock that it was opened with."""

    document: PlanDocument
    lock: int


class PlanRow(Schema):
    """A plan in the list."""

    id: int
    name: str
    on: date
    bakes: int
    touched_at: datetime

    @classmethod
    def from_service(cls, plan: Plan) -> "PlanRow":
        """Build a row."""
        count = len(plan.document.get("bakes", []))
        return cls(id=plan.pk, name=plan.name, on=plan.on, bakes=count, touched_at=plan.touched_at)


class PlansPage(Schema):
    """Some plans."""

    rows: list[PlanRow]
    total: int


class PlansQuery(Schema):
    """Which."""

    offset: int = Field(default=0, ge=0, le=1_000_000)


class PlanOut(Schema):
    """A plan with its last answer."""

    id: int
    name: str
    on: date
    document: PlanDocument
    lock: int
    planned: Planned | None
    stale: bool  # the answer is of an older plan
    changed: list[str]  # formulas of it, and ovens, that are other than when it was planned
    feed: str  # private address of its calendar; "" for none

    @classmethod
    def from_service(cls, plan: Plan) -> "PlanOut":
        """Build a row."""
        return cls(
            id=plan.pk,
            name=plan.name,
            on=plan.on,
            document=PlanDocument.model_validate(plan.document),
            lock=plan.lock,
            planned=plan.planned,
            changed=changed_since_planned(plan),
            stale=plan.planned is not None and plan.planned_lock != plan.lock,
            feed=f"/feed/{plan.feed}.ics" if plan.feed else "",
        )


class MoveIn(Schema):
    """A task that is dragged, and where to."""

    task: str = Field(max_length=120)
    start_min: int = Field(ge=-100_000, le=100_000)


class MoveOut(Schema):
    """What stands in the way."""

    conflicts: list[MoveConflict]


class SlipIn(Schema):
    """A task took so many minutes longer."""

    task: str = Field(max_length=120)
    minutes: int = Field(ge=1, le=600)


class ShoppingOut(Schema):
    """What is to be bought, and what is in the bag."""

    rows: list[ShoppingRow]
    ticked: list[str]
    reserved: bool  # packs are held for it
    price: float | None
    currency: str


class TickIn(Schema):
    """A row of the list."""

    ingredient: str = Field(max_length=60)
    done: bool


class ReserveIn(Schema):
    """Whether packs are held for the plan."""

    on: bool


class FeedIn(Schema):
    """Whether the calendar has a private address."""

    on: bool


class PlanFileOut(Schema):
    """A plan as a file."""

    name: str
    text: str


class PlanJobIn(Schema):
    """A plan that is to be planned."""

    kind: Literal["plan"]
    plan_id: int


class BakesIn(Schema):
    """A table of bakes: formula, ready, batches, fresh_h."""

    text: str = Field(max_length=MOST_TEXT)


class NamedBakeOut(Schema):
    """One bake of it."""

    formula_id: int  # 0 where the kitchen has none of that name
    name: str
    due: str
    batches: float
    fresh_h: float | None

    @classmethod
    def from_service(cls, bake: NamedBake) -> "NamedBakeOut":
        """Build the row as the page takes it."""
        row = bake.row
        return cls(
            formula_id=bake.formula_id, name=row.formula, due=row.ready, batches=row.batches, fresh_h=row.fresh_h
        )
