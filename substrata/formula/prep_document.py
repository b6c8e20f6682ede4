"""What a document says of preparation: the drying steps of a line, and what is set on the Prep station."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache
from typing import Any

from substrata.formula.formula import LinePrep
from substrata.formula.reading import finite, unreadable
from substrata.pantry.drying import ACTS, DryingStep
from substrata.quantities.tables import Row, read_table

MOST_STEPS = 12
_STEP_LIMITS = {"minutes": (0.0, 240.0), "watts": (0.0, 3000.0), "salt_g": (0.0, 500.0), "water_g": (0.0, 20_000.0), "times": (1.0, 10.0)}  # fmt: skip
_MOST_START_G = 50_000.0


def prep_schema() -> dict[str, Any]:
    """JSON Schema of a line's preparation."""
    numbers = {key: {"type": "number", "minimum": low, "maximum": high} for key, (low, high) in _STEP_LIMITS.items()}
    return {
        "type": ["object", "null"],
        "properties": {
            "steps": {
                "type": "array",
                "maxItems": MOST_STEPS,
                "items": {
                    "type": "object",
                    "required": ["act"],
                    "properties": {"act": {"enum": list(ACTS)}, **numbers},
                },
            },
            "start_g": {"type": ["number", "null"], "minimum": 0, "description": "raw weight"},
            "weighed": {"type": "boolean", "description": "the line's grams were read from a scale after the steps"},
        },
    }


@cache
def prep_choices() -> dict[str, Row]:
    """What can be set on the Prep station, by name."""
    return {row.text("choice"): row for row in read_table("prep_choices.csv")}


def read_choices(entry: object) -> dict[str, float | str]:
    """What is set on the Prep station. Unknown names are kept as they are if they are numbers or words.

    Raises:
        FormulaError: naming the choice that cannot be.
    """
    if not isinstance(entry, Mapping):
        raise unreadable("prep", entry, "an object of choices")
    found: dict[str, float | str] = {}
    for key, value in entry.items():
        if value is not None:
            found[str(key)[:60]] = _choice(str(key), value)
    return found


def _choice(key: str, value: object) -> float | str:
    row = prep_choices().get(key)
    if row is not None and row.text("words"):
        if value not in row.text("words").split():
            raise unreadable(f"prep.{key}", value, row.text("words").replace(" ", ", "))
        return str(value)
    if isinstance(value, str) and row is None and len(value) <= 200:
        return value
    number = finite(value, f"prep.{key}")
    if row is not None and not row.number_in("low") <= number <= row.number_in("high"):
        raise unreadable(f"prep.{key}", value, f"{row.text('low')} to {row.text('high')} {row.text('unit')}".strip())
    return number


def read_prep(entry: object, line: str) -> LinePrep | None:
    """The preparation of a line.

    Raises:
        FormulaError: naming the line and the step that cannot be read.
    """
    if entry is None:
        return None
    if not isinstance(entry, Mapping):
        raise unreadable("prep", entry, "an object with steps", line)
    steps = entry.get("steps", [])
    if not isinstance(steps, list) or len(steps) > MOST_STEPS:
        raise unreadable("prep.steps", steps, f"a list of up to {MOST_STEPS} steps", line)
    weighed = entry.get("weighed", False)
    if not isinstance(weighed, bool):
        raise unreadable("prep.weighed", weighed, "true or false", line)
    start = entry.get("start_g")
    if start is not None:
        start = finite(start, "prep.start_g", line)
        if not 0 < start <= _MOST_START_G:
            raise unreadable("prep.start_g", start, f"above 0 and up to {_MOST_START_G:g} g", line)
    return LinePrep(steps=tuple(_step(step, line) for step in steps), start_g=start, weighed=weighed)


def write_prep(prep: LinePrep) -> dict[str, Any]:
    """A preparation as ``read_prep`` reads it; what is nothing is left out."""
    plain = DryingStep(act="salt")
    steps = [
        {"act": step.act}
        | {key: getattr(step, key) for key in _STEP_LIMITS if getattr(step, key) != getattr(plain, key)}
        for step in prep.steps
    ]
    return {"steps": steps, "start_g": prep.start_g, "weighed": prep.weighed}


def _step(entry: object, line: str) -> DryingStep:
    if not isinstance(entry, Mapping) or entry.get("act") not in ACTS:
        raise unreadable("prep.steps", entry, f"steps of {', '.join(ACTS)}", line)
    found: dict[str, float] = {}
    for key, (low, high) in _STEP_LIMITS.items():
        if entry.get(key) is not None:
            found[key] = finite(entry[key], f"prep.steps.{key}", line)
            if not low <= found[key] <= high:
                raise unreadable(f"prep.steps.{key}", entry[key], f"{low:g} to {high:g}", line)
    times = int(found.pop("times", 1))
    return DryingStep(act=entry["act"], times=times, **found)
