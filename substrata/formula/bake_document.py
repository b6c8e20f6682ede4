"""What a document says of the bake: its stages."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any, get_args

from substrata.formula.formula import BakeStage, StageKind
from substrata.formula.reading import finite_or_none, unreadable

STAGE_KINDS: tuple[StageKind, ...] = get_args(StageKind)
MOMENTS: frozenset[StageKind] = frozenset({"flip", "rotate", "door", "top"})  # take no time of their own
MOST_STAGES = 16
MOST_MINUTES = 300.0
OVEN_C = (60.0, 350.0)


def stages_schema() -> dict[str, Any]:
    """JSON Schema of the stages."""
    return {
        "type": "array",
        "maxItems": MOST_STAGES,
        "items": {
            "type": "object",
            "required": ["kind"],
            "properties": {
                "kind": {"enum": list(STAGE_KINDS)},
                "minutes": {
                    "type": ["number", "null"],
                    "minimum": 0,
                    "maximum": MOST_MINUTES,
                    "description": "null: until done",
                },
                "oven_c": {"type": ["number", "null"], "minimum": OVEN_C[0], "maximum": OVEN_C[1]},
                "fan": {"type": ["boolean", "null"]},
            },
        },
    }


def read_stages(entry: object) -> tuple[BakeStage, ...]:
    """The stages of a document.

    Raises:
        FormulaError: naming the stage that cannot be.
    """
    if not isinstance(entry, list) or len(entry) > MOST_STAGES:
        raise unreadable("bake.stages", entry, f"a list of up to {MOST_STAGES} stages")
    return tuple(_stage(stage, number) for number, stage in enumerate(entry, 1))


def write_stages(stages: Sequence[BakeStage]) -> list[dict[str, Any]]:
    """Stages as ``read_stages`` reads them."""
    return [{"kind": s.kind, "minutes": s.minutes, "oven_c": s.oven_c, "fan": s.fan} for s in stages]


def _stage(entry: object, number: int) -> BakeStage:
    where = f"bake.stages.{number}"
    if not isinstance(entry, Mapping) or entry.get("kind") not in STAGE_KINDS:
        raise unreadable(where, entry, f"a stage of {', '.join(STAGE_KINDS)}")
    fan = entry.get("fan")
    if fan is not None and not isinstance(fan, bool):
        raise unreadable(f"{where}.fan", fan, "true, false or nothing")
    return BakeStage(
        kind=entry["kind"],
        minutes=_number(entry.get("minutes"), f"{where}.minutes", 0.0, MOST_MINUTES),
        oven_c=_number(entry.get("oven_c"), f"{where}.oven_c", *OVEN_C),
        fan=fan,
    )


def _number(value: object, field: str, low: float, high: float) -> float | None:
    found = finite_or_none(value, field)
    if found is not None and not low <= found <= high:
        raise unreadable(field, value, f"{low:g} to {high:g}")
    return found
