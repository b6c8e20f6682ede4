"""The open pack document ``*.pack.json``: read with clear refusals, written whole."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from functools import cache
from math import isfinite
from typing import Any

from substrata.errors import LabelError
from substrata.pantry.label import FIGURES, MOST_SERVING_G, Label
from substrata.pantry.lot import Lot
from substrata.pantry.rounding import STYLES
from substrata.quantities.tables import read_table

DOCUMENT_VERSION = 1
OWN_MEASURES = ("cup", "tbsp", "tsp", "piece")
_TEXT_LIMITS = {"name": 120, "ingredient": 120, "statement": 2_000, "husk": 60, "notes": 2_000, "serving_measure": 60}
_BOUNDS = {  # lowest (not reached when 0) and highest
    "price": (-1.0, 1_000_000.0),
    "pack_g": (0.0, 1_000_000.0),
    "usable": (0.0, 1.0),
    "capacity": (0.0, 200.0),
}


@cache
def certificates() -> tuple[str, ...]:
    """Claims that a pack can print."""
    return tuple(row.text("claim") for row in read_table("claims.csv"))


@cache
def traces() -> tuple[str, ...]:
    """Flags that a pack can add: every allergen, and the facts that claims hang on."""
    return tuple(row.text("flag") for row in read_table("allergens.csv"))


def lot_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of the document."""

    def text(key: str) -> dict[str, Any]:
        return {"type": "string", "maxLength": _TEXT_LIMITS[key]}

    def number(key: str) -> dict[str, Any]:
        low, high = _BOUNDS[key]
        bound = {"minimum": 0} if low < 0 else {"exclusiveMinimum": 0}
        return {"type": ["number", "null"], **bound, "maximum": high}

    flags = {"type": "array", "items": {"enum": list(traces())}}
    day = {"type": ["string", "null"], "format": "date"}
    label = {
        "type": ["object", "null"],
        "required": ["style", "per_g"],
        "properties": {
            "style": {"enum": list(STYLES), "description": "us: carbohydrate includes fibre; eu: it does not"},
            "per_g": {"type": "number", "exclusiveMinimum": 0, "maximum": MOST_SERVING_G},
            "per_digit_g": {"type": "number", "minimum": 0, "description": "size of the last digit of per_g"},
            "serving_measure": text("serving_measure"),
            "figures": {
                "type": "object",
                "propertyNames": {"enum": list(FIGURES)},
                "additionalProperties": {"type": "string", "description": "as printed: 12, 0, <1"},
            },
        },
    }
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Substrata pack",
        "type": "object",
        "required": ["substrata_pack", "ingredient", "name"],
        "properties": {
            "substrata_pack": {"const": DOCUMENT_VERSION},
            "ingredient": text("ingredient"),
            "name": text("name"),
            "label": label,
            **{key: number(key) for key in _BOUNDS},
            "bought_on": day,
            "use_by": day,
            "measures": {
                "type": "object",
                "propertyNames": {"enum": list(OWN_MEASURES)},
                "additionalProperties": {"type": "number"},
            },
            "contains": flags,
            "may_contain": flags,
            "certificates": {"type": "array", "items": {"enum": list(certificates())}},
            **{key: text(key) for key in ("statement", "husk", "notes")},
        },
    }


def read_lot(document: Mapping[str, Any], key: str) -> Lot:
    """Make a lot of a document.

    Args:
        document: as of ``lot_schema``.
        key: of the lot; a document carries none, so that a copy is another pack.

    Raises:
        LabelError: naming the field that cannot be read.
    """
    if document.get("substrata_pack", DOCUMENT_VERSION) != DOCUMENT_VERSION:
        raise _wrong("substrata_pack", document["substrata_pack"], str(DOCUMENT_VERSION))
    name = _text(document, "name").strip()
    if not name:
        raise LabelError(
            "the pack has no name", got="nothing", allowed="brand and kind", remedy="name it", field="name"
        )
    usable = _number(document, "usable")
    return Lot(
        key=key,
        ingredient=_text(document, "ingredient"),
        name=name,
        label=_label(document.get("label")),
        price=_number(document, "price"),
        pack_g=_number(document, "pack_g"),
        usable=1.0 if usable is None else usable,
        bought_on=_day(document, "bought_on"),
        use_by=_day(document, "use_by"),
        measures=_measures(document.get("measures")),
        capacity=_number(document, "capacity"),
        contains=_choices(document, "contains", traces()),
        may_contain=_choices(document, "may_contain", traces()),
        certificates=_choices(document, "certificates", certificates()),
        statement=_text(document, "statement"),
        husk=_text(document, "husk"),
        notes=_text(document, "notes"),
    )


def write_lot(lot: Lot) -> dict[str, Any]:
    """Write a lot as a document; ``read_lot`` of it gives the same lot."""
    label = lot.label
    return {
        "substrata_pack": DOCUMENT_VERSION,
        "ingredient": lot.ingredient,
        "name": lot.name,
        "label": label
        and {
            "style": label.style,
            "per_g": label.per_g,
            "per_digit_g": label.per_digit_g,
            "serving_measure": label.serving_measure,
            "figures": dict(label.figures),
        },
        "price": lot.price,
        "pack_g": lot.pack_g,
        "usable": lot.usable,
        "bought_on": lot.bought_on and lot.bought_on.isoformat(),
        "use_by": lot.use_by and lot.use_by.isoformat(),
        "measures": dict(lot.measures),
        "capacity": lot.capacity,
        "contains": sorted(lot.contains),
        "may_contain": sorted(lot.may_contain),
        "certificates": sorted(lot.certificates),
        "statement": lot.statement,
        "husk": lot.husk,
        "notes": lot.notes,
    }


def _wrong(field: str, got: object, allowed: str) -> LabelError:
    return LabelError(
        f"{field} cannot be read", got=repr(got)[:60], allowed=allowed, remedy=f"correct {field}", field=field
    )


def _text(document: Mapping[str, Any], field: str) -> str:
    value = document.get(field) or ""
    if not isinstance(value, str) or "\x00" in value:
        raise _wrong(field, value, "text")
    if len(value) > _TEXT_LIMITS[field]:
        raise LabelError(
            f"{field} is too long",
            got=f"{len(value)} characters",
            allowed=f"up to {_TEXT_LIMITS[field]}",
            remedy="shorten it",
            field=field,
        )
    return value


def _finite(value: object, field: str, low: float, high: float) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float) or not isfinite(value) or not low < value <= high:
        raise _wrong(field, value, f"a number above {max(low, 0):g}, up to {high:g}")
    return float(value)


def _number(document: Mapping[str, Any], field: str) -> float | None:
    value = document.get(field)
    return None if value is None else _finite(value, field, *_BOUNDS[field]) if not _is_free(field, value) else 0.0


def _is_free(field: str, value: object) -> bool:
    """A price of nothing is a price."""
    return field == "price" and value == 0 and not isinstance(value, bool)


def _day(document: Mapping[str, Any], field: str) -> date | None:
    value = document.get(field)
    if not value:
        return None
    try:
        return date.fromisoformat(value)
    except (TypeError, ValueError):
        raise _wrong(field, value, "a day such as 2026-04-30") from None


def _measures(entry: object) -> dict[str, float]:
    if not entry:
        return {}
    if not isinstance(entry, Mapping):
        raise _wrong("measures", entry, "grams by measure")
    strange = set(entry) - set(OWN_MEASURES)
    if strange:
        raise _wrong("measures", ", ".join(map(str, strange)), ", ".join(OWN_MEASURES))
    return {str(key): _finite(value, "measures", 0.0, 5_000.0) for key, value in entry.items() if value is not None}


def _choices(document: Mapping[str, Any], field: str, allowed: tuple[str, ...]) -> frozenset[str]:
    value = document.get(field) or []
    if not isinstance(value, list) or any(item not in allowed for item in value):
        strange = [item for item in value if item not in allowed] if isinstance(value, list) else value
        raise _wrong(field, strange, ", ".join(allowed))
    return frozenset(value)


def _label(entry: object) -> Label | None:
    if entry is None:
        return None
    if not isinstance(entry, Mapping):
        raise _wrong("label", entry, "style, per_g and figures")
    figures = entry.get("figures") or {}
    if not isinstance(figures, Mapping) or any(
        not isinstance(text, str) or len(text) > 40 for text in figures.values()
    ):
        raise _wrong("figures", figures, "short texts by figure")
    label = Label(
        style=entry.get("style"),  # type: ignore[arg-type]  # the label refuses what is no style
        per_g=_finite(entry.get("per_g"), "per_g", 0.0, MOST_SERVING_G),
        per_digit_g=_finite(entry.get("per_digit_g", 1.0), "per_digit_g", -1.0, 100.0),
        serving_measure=_text(entry, "serving_measure"),
        figures={key: text.strip() for key, text in figures.items() if text.strip()},
    )
    _ = label.intervals  # every figure must be readable
    return label
