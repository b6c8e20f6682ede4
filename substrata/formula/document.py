"""The open formula document ``*.substrata.json``: read with clear refusals, written whole.

Unknown keys are kept on a round trip, at the top and in every line.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Literal

from substrata.errors import FormulaError
from substrata.formula.bake_document import OVEN_C, read_stages, stages_schema, write_stages
from substrata.formula.form import Window, form_of, forms, roles
from substrata.formula.formula import Bake, Formula, Line, Mix, Size
from substrata.formula.prep_document import prep_schema, read_choices, read_prep, write_prep
from substrata.formula.reading import finite_or_none, unreadable

DOCUMENT_VERSION = 1
MOST_LINES = 200
MOST_PIECES = 10_000
MOST_TRAYS = 6
HELD: tuple[Literal["", "thickness", "size"], ...] = ("", "thickness", "size")
FRIED: tuple[Literal["", "fried", "baked"], ...] = ("", "fried", "baked")
# Bounds of what may be told of temperatures and sizes.
LIMITS: Mapping[str, tuple[float, float]] = {
    "temperature_c": (-20.0, 110.0),
    "mix.temperature_c": (0.0, 90.0),
    "bake.moisture_percent": (1.0, 90.0),
    "bake.oven_c": OVEN_C,
    "bake.dough_c": (-5.0, 90.0),
    "bake.altitude_m": (-400.0, 5000.0),
    "size.thickness_mm": (0.5, 200.0),
    "size.length_mm": (5.0, 1000.0),
    "size.gap_mm": (0.0, 200.0),
    "size.hole_mm": (0.0, 300.0),
}
MIX_CHEESE: tuple[Literal["", "melted", "cold"], ...] = ("", "melted", "cold")
MIX_WORK: tuple[Literal["", "pressed", "stirred"], ...] = ("", "pressed", "stirred")
_TEXT_LIMITS = {"name": 120, "lot": 40, "notes": 20_000, "entered": 300, "note": 500, "treatment": 120, "stage": 60}
_LINE_KEYS = {
    "id", "ingredient", "lot", "grams", "entered", "role", "stage", "treatment", "note", "locked", "temperature_c", "prep",
}  # fmt: skip
_BAKE_KEYS = {
    "moisture_percent", "moisture_from", "oven_c", "oven", "fan", "ware", "trays", "dough_c", "altitude_m", "stages", "fried", "frying_fat",
}  # fmt: skip
_SIZE_KEYS = {"held", "thickness_mm", "length_mm", "pan", "tray", "gap_mm", "hole_mm"}
_FORMULA_KEYS = {"substrata", "name", "notes", "form", "lines", "targets", "mix", "bake", "prep"}


def document_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of the document."""

    def text(key: str) -> dict[str, Any]:
        return {"type": "string", "maxLength": _TEXT_LIMITS[key]}

    bound = {"type": ["number", "null"]}

    def bounded(key: str) -> dict[str, Any]:
        return bound | {"minimum": LIMITS[key][0], "maximum": LIMITS[key][1]}

    line = {
        "type": "object",
        "required": ["id", "ingredient"],
        "additionalProperties": True,
        "properties": {
            "id": {"type": "string", "minLength": 1, "maxLength": 40},
            "ingredient": {"type": "string", "maxLength": 120, "description": "id in the pantry"},
            "lot": text("lot") | {"description": "key of a pack; the ingredient answers where it is not known"},
            "grams": {"type": ["number", "null"], "minimum": 0, "description": "null: take the weight from entered"},
            "entered": text("entered"),
            "role": {"enum": ["", *roles()]},
            "stage": text("stage"),
            "treatment": text("treatment"),
            "note": text("note"),
            "locked": {"type": "boolean"},
            "temperature_c": bounded("temperature_c"),
            "prep": prep_schema(),
        },
    }
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Substrata formula",
        "type": "object",
        "additionalProperties": True,
        "required": ["substrata", "name", "form", "lines"],
        "properties": {
            "substrata": {"const": DOCUMENT_VERSION, "description": "version of this format"},
            "name": text("name"),
            "notes": text("notes"),
            "form": {
                "type": "object",
                "required": ["kind", "pieces"],
                "additionalProperties": True,
                "properties": {
                    "kind": {"enum": list(forms())},
                    "pieces": {"type": "integer", "minimum": 1, "maximum": MOST_PIECES},
                    "serving_pieces": {"type": "integer", "minimum": 1},
                    "size": {
                        "type": "object",
                        "properties": {
                            "held": {"enum": list(HELD)},
                            "thickness_mm": bounded("size.thickness_mm"),
                            "length_mm": bounded("size.length_mm"),
                            "pan": {"type": "string", "maxLength": 60},
                            "tray": {"type": "string", "maxLength": 60},
                            "gap_mm": bounded("size.gap_mm"),
                            "hole_mm": bounded("size.hole_mm"),
                        },
                    },
                },
            },
            "mix": {
                "type": "object",
                "properties": {
                    "temperature_c": bounded("mix.temperature_c"),
                    "cheese": {"enum": list(MIX_CHEESE)},
                    "work": {"enum": list(MIX_WORK)},
                },
            },
            "bake": {
                "type": "object",
                "properties": {
                    "moisture_percent": bounded("bake.moisture_percent"),
                    "oven_c": bounded("bake.oven_c"),
                    "fan": {"type": "boolean"},
                    "oven": {"type": "string", "maxLength": 60, "description": "key of an oven of the kitchen"},
                    "moisture_from": {"enum": ["", "oven"]},
                    "ware": {"type": "string", "maxLength": 60},
                    "trays": {"type": "integer", "minimum": 1, "maximum": MOST_TRAYS},
                    "dough_c": bounded("bake.dough_c"),
                    "altitude_m": bounded("bake.altitude_m"),
                    "stages": stages_schema(),
                    "fried": {"enum": list(FRIED)},
                    "frying_fat": {"type": "string", "maxLength": 120},
                },
            },
            "prep": {"type": "object", "description": "what is set on the Prep station", "additionalProperties": True},
            "lines": {"type": "array", "maxItems": MOST_LINES, "items": line},
            "targets": {
                "type": "object",
                "additionalProperties": {"type": "object", "properties": {"low": bound, "high": bound}},
            },
        },
    }


def read_document(document: Mapping[str, Any]) -> Formula:
    """Make a formula of a document.

    Raises:
        FormulaError: naming the line and field that cannot be read.
    """
    version = document.get("substrata", DOCUMENT_VERSION)
    if version != DOCUMENT_VERSION:
        raise FormulaError(
            "the document is of another version",
            got=repr(version)[:40],
            field="substrata",
            allowed=str(DOCUMENT_VERSION),
            remedy="open it with the program that wrote it",
        )
    form = document.get("form")
    if not isinstance(form, Mapping):
        raise unreadable("form", form, "an object with kind and pieces")
    lines = document.get("lines", [])
    if not isinstance(lines, list):
        raise unreadable("lines", lines, "a list of lines")
    if len(lines) > MOST_LINES:
        raise FormulaError(
            "too many lines",
            got=str(len(lines)),
            allowed=f"up to {MOST_LINES}",
            remedy="split the formula",
            field="lines",
        )
    read = tuple(_line(entry, number) for number, entry in enumerate(lines, 1))
    ids = [line.id for line in read]
    if len(set(ids)) != len(ids):
        twice = next(key for key in ids if ids.count(key) > 1)
        raise FormulaError(
            "two lines share an id",
            got=twice,
            allowed="one id a line",
            line=twice,
            field="id",
            remedy="give one of them another id",
        )
    pieces = _count(form, "pieces", 1)
    return Formula(
        name=_text(document, "name"),
        notes=_text(document, "notes"),
        form=form_of(str(form.get("kind", ""))).id,
        pieces=pieces,
        serving_pieces=_count(form, "serving_pieces", 1),
        lines=read,
        size=_size(form.get("size") or {}),
        mix=_mix(document.get("mix") or {}),
        bake=_bake(document.get("bake") or {}),
        prep=read_choices(document.get("prep", {})),
        targets=_targets(document.get("targets", {})),
        extra={
            **{key: value for key, value in document.items() if key not in _FORMULA_KEYS},
            "form": {k: v for k, v in form.items() if k not in ("kind", "pieces", "serving_pieces", "size")},
        },
    )


def write_document(formula: Formula) -> dict[str, Any]:
    """Write a formula as a document; ``read_document`` of it gives the same formula."""
    form_extra = formula.extra.get("form", {})
    return {
        "substrata": DOCUMENT_VERSION,
        "name": formula.name,
        "notes": formula.notes,
        "form": {
            "kind": formula.form,
            "pieces": formula.pieces,
            "serving_pieces": formula.serving_pieces,
            "size": {key: getattr(formula.size, key) for key in sorted(_SIZE_KEYS)},
            **form_extra,
        },
        "lines": [
            {
                "id": line.id,
                "ingredient": line.ingredient,
                "lot": line.lot,
                "grams": line.grams,
                "entered": line.entered,
                "role": line.role,
                "stage": line.stage,
                "treatment": line.treatment,
                "note": line.note,
                "locked": line.locked,
                **({"temperature_c": line.temperature_c} if line.temperature_c is not None else {}),
                **({"prep": write_prep(line.prep)} if line.prep is not None else {}),
                **line.extra,
            }
            for line in formula.lines
        ],
        "mix": {
            "temperature_c": formula.mix.temperature_c,
            "cheese": formula.mix.cheese,
            "work": formula.mix.work,
        },
        "bake": {
            "moisture_percent": formula.bake.moisture_percent,
            "oven_c": formula.bake.oven_c,
            "fan": formula.bake.fan,
            "oven": formula.bake.oven,
            "moisture_from": formula.bake.moisture_from,
            "ware": formula.bake.ware,
            "trays": formula.bake.trays,
            "dough_c": formula.bake.dough_c,
            "altitude_m": formula.bake.altitude_m,
            "stages": write_stages(formula.bake.stages),
            "fried": formula.bake.fried,
            "frying_fat": formula.bake.frying_fat,
            **formula.bake.extra,
        },
        "prep": dict(formula.prep),
        "targets": {key: {"low": w.low, "high": w.high} for key, w in formula.targets.items()},
        **{key: value for key, value in formula.extra.items() if key != "form"},
    }


def _text(entry: Mapping[str, Any], field: str, line: str | None = None) -> str:
    value = entry.get(field, "")
    if not isinstance(value, str):
        raise unreadable(field, value, "text", line)
    # A null character is no text, and PostgreSQL refuses it.
    if "\x00" in value:
        raise unreadable(field, value, "text without control characters", line)
    if len(value) > _TEXT_LIMITS.get(field, 120):
        raise FormulaError(
            f"{field} is too long",
            got=f"{len(value)} characters",
            line=line,
            field=field,
            allowed=f"up to {_TEXT_LIMITS.get(field, 120)}",
            remedy="shorten it",
        )
    return value


def _count(form: Mapping[str, Any], field: str, default: int) -> int:
    value = form.get(field, default)
    if isinstance(value, bool) or not isinstance(value, int | float) or value not in range(1, MOST_PIECES + 1):
        raise FormulaError(
            f"{field.replace('_', ' ')} cannot be counted",
            got=repr(value)[:40],
            field=field,
            allowed=f"a whole number from 1 to {MOST_PIECES}",
            remedy="type how many there are",
        )
    return int(value)


def _within(value: object, field: str, line: str | None = None) -> float | None:
    """A number between the bounds of its field, or nothing."""
    found = finite_or_none(value, field, line)
    low, high = LIMITS[field]
    if found is not None and not low <= found <= high:
        raise unreadable(field, found, f"{low:g} to {high:g}", line)
    return found


def _bake(entry: object) -> Bake:
    if not isinstance(entry, Mapping):
        raise unreadable("bake", entry, "an object with moisture_percent, thickness_mm, oven_c and fried")
    fried = entry.get("fried", "")
    if fried not in FRIED:
        raise unreadable("bake.fried", fried, "fried, baked or nothing")
    fan, trays = entry.get("fan", False), entry.get("trays", 1)
    if not isinstance(fan, bool):
        raise unreadable("bake.fan", fan, "true or false")
    source = entry.get("moisture_from", "")
    if source not in ("", "oven"):
        raise unreadable("bake.moisture_from", source, "oven or nothing")
    if isinstance(trays, bool) or trays not in range(1, MOST_TRAYS + 1):
        raise unreadable("bake.trays", trays, f"a whole number from 1 to {MOST_TRAYS}")
    return Bake(
        moisture_percent=_within(entry.get("moisture_percent"), "bake.moisture_percent"),
        oven_c=_within(entry.get("oven_c"), "bake.oven_c"),
        fan=fan,
        oven=_text(entry, "oven"),
        moisture_from=source,
        ware=_text(entry, "ware"),
        trays=int(trays),
        dough_c=_within(entry.get("dough_c"), "bake.dough_c"),
        altitude_m=_within(entry.get("altitude_m"), "bake.altitude_m") or 0.0,
        stages=read_stages(entry.get("stages", [])),
        fried=fried,
        frying_fat=_text(entry, "frying_fat"),
        extra={key: value for key, value in entry.items() if key not in _BAKE_KEYS},
    )


def _size(entry: object) -> Size:
    if not isinstance(entry, Mapping):
        raise unreadable("size", entry, "an object with held, thickness_mm, length_mm, pan, tray, gap_mm and hole_mm")
    held = entry.get("held", "")
    if held not in HELD:
        raise unreadable("size.held", held, "thickness, size or nothing")
    return Size(
        held=held,
        thickness_mm=_within(entry.get("thickness_mm"), "size.thickness_mm"),
        length_mm=_within(entry.get("length_mm"), "size.length_mm"),
        pan=_text(entry, "pan"),
        tray=_text(entry, "tray"),
        gap_mm=_within(entry.get("gap_mm"), "size.gap_mm"),
        hole_mm=_within(entry.get("hole_mm"), "size.hole_mm"),
    )


def _line(entry: object, number: int) -> Line:
    if not isinstance(entry, Mapping):
        raise unreadable("lines", entry, "an object for each line", f"line {number}")
    key = entry.get("id")
    if not isinstance(key, str) or not 0 < len(key) <= 40:
        raise unreadable("id", key, "a short text", f"line {number}")
    role = entry.get("role", "")
    if role not in ("", *roles()):
        raise unreadable("role", role, ", ".join(roles()), key)
    locked = entry.get("locked", False)
    if not isinstance(locked, bool):
        raise unreadable("locked", locked, "true or false", key)
    return Line(
        id=key,
        ingredient=_text(entry, "ingredient", key),
        lot=_text(entry, "lot", key),
        grams=finite_or_none(entry.get("grams"), "grams", key),
        entered=_text(entry, "entered", key),
        role=role,
        stage=_text(entry, "stage", key),
        treatment=_text(entry, "treatment", key),
        note=_text(entry, "note", key),
        locked=locked,
        temperature_c=_within(entry.get("temperature_c"), "temperature_c", key),
        prep=read_prep(entry.get("prep"), key),
        extra={k: v for k, v in entry.items() if k not in _LINE_KEYS},
    )


def _mix(entry: object) -> Mix:
    if not isinstance(entry, Mapping):
        raise unreadable("mix", entry, "an object with temperature_c, cheese and work")
    warm = _within(entry.get("temperature_c"), "mix.temperature_c")
    cheese, work = entry.get("cheese", ""), entry.get("work", "")
    if cheese not in MIX_CHEESE:
        raise unreadable("mix.cheese", cheese, "melted, cold or nothing")
    if work not in MIX_WORK:
        raise unreadable("mix.work", work, "pressed, stirred or nothing")
    return Mix(temperature_c=warm, cheese=cheese, work=work)


def _targets(entry: object) -> dict[str, Window]:
    if not isinstance(entry, Mapping):
        raise unreadable("targets", entry, "an object of windows")
    found = {}
    for key, window in entry.items():
        if not isinstance(window, Mapping):
            raise unreadable(f"targets.{key}", window, "an object with low and high")
        low, high = (finite_or_none(window.get(side), f"targets.{key}") for side in ("low", "high"))
        if low is not None and high is not None and low > high:
            raise FormulaError(
                "the target's bounds are crossed",
                got=f"{low:g} to {high:g}",
                field=f"targets.{key}",
                allowed="low up to high",
                remedy="swap them",
            )
        found[str(key)] = Window(low=low, high=high)
    return found
