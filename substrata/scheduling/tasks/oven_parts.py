"""A bake as the oven has it: parts between the moments at which a tray is out, and sorts that are done in their own time."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from substrata.base.messages.message import Message, Wording
from substrata.evaluation.forecasts.variety_bakes import VarietyBake
from substrata.process.baking.simulation.bake_curves import StageMark

_BETWEEN = ("flip", "top")  # moments for which a tray comes out


@dataclass(frozen=True)
class LoadPart:
    """What is in the oven together, and comes out together."""

    suffix: str
    name: Wording
    usual: float
    low: float
    high: float
    trays: int


@dataclass(frozen=True, kw_only=True)
class OvenPart:
    """What lies in the oven in one go."""

    minutes: float
    in_c: float
    out_c: float
    then: str  # what it comes out for


def parts_of(stages: Sequence[StageMark]) -> list[OvenPart]:
    """Return what goes in and comes out between the moments at which a tray is taken out."""
    parts: list[OvenPart] = []
    minutes, in_c, out_c = 0.0, 0.0, 0.0
    for stage in stages:
        if stage.kind == "rest":
            continue
        if stage.kind in _BETWEEN and minutes:
            parts.append(OvenPart(minutes=minutes, in_c=in_c, out_c=out_c, then=stage.kind))
            minutes = 0.0
        length = stage.end_min - stage.start_min
        if length > 0:
            in_c = in_c if minutes else stage.heat.oven_c
            minutes, out_c = minutes + length, stage.heat.oven_c
    if minutes:
        parts.append(OvenPart(minutes=minutes, in_c=in_c, out_c=out_c, then=""))
    return parts


def in_sorts(name: str, sorts: Sequence[VarietyBake], part: LoadPart, before: float) -> list[LoadPart]:
    """Return the last part of a bake: a task for each sort that is done in its own time, the slowest last, where each has trays.

    What shares a tray goes in and comes out together for the oven: it is taken up until the slowest is done.
    """
    if not sorts:
        return [part]
    parts = []
    for number, sort in enumerate(sorts, 1):
        best, least, most = (
            max(value - before, 1.0) for value in (sort.ready_min.best, sort.ready_min.low, sort.ready_min.high)
        )
        parts.append(
            LoadPart(f":s{number}", Message("oven-parts-parts", name=name, sort_name=sort.name), best, least, most, 1)
        )
    if part.trays < len(sorts):
        return [replace(parts[-1], suffix="", name="", trays=part.trays)]
    # The trays that are over go to the sorts of which there are most on each.
    for _ in range(part.trays - len(sorts)):
        full = max(range(len(parts)), key=lambda n: (sorts[n].pieces / parts[n].trays, -n))
        parts[full] = replace(parts[full], trays=parts[full].trays + 1)
    return parts
