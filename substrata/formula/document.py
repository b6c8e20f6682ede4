"""The open formula document ``*.substrata.json``: read with clear refusals, written whole.

Unknown keys are kept on a round trip, at the top and in every line.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from substrata.errors import FormulaError
from substrata.formula.bake_document import read_stages, write_stages
from substrata.formula.document_limits import (
    DOCUMENT_VERSION,
    FRIED,
    HELD,
    LIMITS,
    MIX_CHEESE,
    MIX_WORK,
    MOST_LINES,
    MOST_PIECES,
    MOST_TRAYS,
    TEXT_LIMITS,
)
from substrata.formula.form import Window, form_of, roles
from substrata.formula.formula import Bake, Formula, Line, Mix, Size
from substrata.formula.prep_document import read_choices, read_prep, write_prep
from substrata.formula.reading import finite_or_none, unreadable

_LINE_KEYS = {
    "id", "ingredient", "lot", "grams", "entered", "role", "stage", "treatment", "note", "locked", "temperature_c", "prep",
}  # fmt: skip
_BAKE_KEYS = {
    "moisture_percent", "moisture_from", "oven_c", "oven", "fan", "ware", "trays", "dough_c", "altitude_m", "stages", "fried", "frying_fat",
}  # fmt: skip
_SIZE_KEYS = {"held", "thickness_mm", "length_mm", "pan", "tray", "gap_mm", "hole_mm"}
_FORMULA_KEYS = {"substrata", "name", "notes", "form", "lines", "targets", "mix", "bake", "prep"}


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
    if len(value) > TEXT_LIMITS.get(field, 120):
        raise FormulaError(
            f"{field} is too long",
            got=f"{len(value)} characters",
            line=line,
            field=field,
            allowed=f"up to {TEXT_LIMITS.get(field, 120)}",
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
