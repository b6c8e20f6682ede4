"""The stages of a bake as a baker changes them: what stands, ready to be edited, and what adding one makes of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from substrata.base.tables.table_reader import constant
from substrata.formula.bake_settings import BakeStage, is_moment, stage_kinds
from substrata.process.baking.simulation.bake_curves import StageMark


@dataclass(frozen=True, kw_only=True)
class PlannedStage:
    """A stage as a document holds it."""

    kind: str
    minutes: float | None
    oven_c: float | None
    fan: bool | None


@dataclass(frozen=True, kw_only=True)
class StageAddition:
    """What a bake becomes when a stage is added."""

    kind: str
    name: str
    stages: tuple[PlannedStage, ...]


def stage_name(kind: str, *, fried: bool) -> str:
    """Return what a stage is called."""
    return stage_kinds()[kind].name_fried if fried else stage_kinds()[kind].name


def planned_stages(chosen: Sequence[BakeStage], marks: Sequence[StageMark]) -> tuple[PlannedStage, ...]:
    """Return the stages of a document, else the usual ones with the minutes they take; the last hot one is open.

    Args:
        chosen: what the document says.
        marks: the bake as it was forecast, its rest left out.
    """
    if chosen:
        return tuple(PlannedStage(kind=s.kind, minutes=s.minutes, oven_c=s.oven_c, fan=s.fan) for s in chosen)
    last = max((n for n, mark in enumerate(marks) if not is_moment(mark.kind)), default=-1)
    return tuple(
        PlannedStage(
            kind=mark.kind,
            minutes=None if is_moment(mark.kind) or n == last else float(round(mark.end_min - mark.start_min)),
            oven_c=None,
            fan=None,
        )
        for n, mark in enumerate(marks)
    )


def stage_additions(now: Sequence[PlannedStage], ready_min: float | None, *, fried: bool) -> tuple[StageAddition, ...]:
    """Every stage that may be added, and what the bake becomes.

    What was open until done becomes so many minutes. A moment is followed by a finish; heat of another kind is the finish.

    Args:
        now: the present stages.
        ready_min: when it is done; None when it does not get done.
        fried: in oil.

    Returns:
        The stages that can be added, each with its bake.
    """
    until = float(max(round((ready_min or constant("usual_bake_min")) * constant("stage_added_at")), 1))
    last = max((n for n, stage in enumerate(now) if not is_moment(stage.kind)), default=-1)
    before = [
        replace(stage, minutes=until) if n == last and stage.minutes is None else stage for n, stage in enumerate(now)
    ]

    def fresh(kind: str) -> PlannedStage:
        return PlannedStage(kind=kind, minutes=None, oven_c=None, fan=None)

    return tuple(
        StageAddition(
            kind=kind.id,
            name=stage_name(kind.id, fried=fried),
            stages=(*before, fresh(kind.id), *((fresh("finish"),) if kind.moment else ())),
        )
        for kind in stage_kinds().values()
        if (kind.added_fried if fried else kind.added)
    )
