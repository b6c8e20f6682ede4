"""When each sort of a dough is done: a laden top takes longer than cheese alone."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.errors import FormulaError
from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.evaluation.varieties import variety_doughs
from substrata.process.baking.forecast_interval import Between, ready_between
from substrata.process.baking.oven_questions import judged


@dataclass(frozen=True, kw_only=True)
class VarietyBake:
    """The bake of one sort."""

    name: str
    pieces: int
    ready_min: Between
    topped_min: float | None  # when its topping goes on; None where it goes in as it is
    text: Wording


def variety_bakes(dough: Dough) -> tuple[VarietyBake, ...]:
    """Return the bakes of the varieties, the first done first; none where all are done together or they do not add up."""
    if len(dough.formula.sorts) < 2:
        return ()
    try:
        bakes = [
            bake
            for sort, variety_dough in variety_doughs(dough)
            if (bake := _sort_bake(sort.name, sort.pieces, variety_dough))
        ]
    except FormulaError:
        return ()
    bakes.sort(key=lambda bake: (bake.ready_min.best, bake.name))
    if len(bakes) < len(dough.formula.sorts) or bakes[-1].ready_min.best - bakes[0].ready_min.best < constant(
        "baked_alike_min"
    ):
        return ()
    return tuple(bakes)


def _sort_bake(name: str, pieces: int, dough: Dough) -> VarietyBake | None:
    done, whole = judged(dough.case)
    ready = ready_between(dough.case, dough.formula.form, done)
    if ready is None:
        return None
    topped = next((mark.start_min for mark in whole.marks if mark.kind == "top"), None)
    after = (
        Message("variety-bakes-after-its-topping", best=Quantity(ready.best - topped, "number", digits=0))
        if topped is not None and topped < ready.best
        else ""
    )
    return VarietyBake(
        name=name,
        pieces=pieces,
        ready_min=ready,
        topped_min=topped,
        text=Message(
            "variety-bakes-out-at-about-min-in",
            name=name,
            best=Quantity(ready.best, "min", digits=0),
            after=after,
            low=Quantity(ready.low, "min", high=ready.high, digits=0),
        ),
    )
