"""The JSON Schema of the open formula document."""

from __future__ import annotations

from typing import Any

from substrata.formula.bake_document import stages_schema
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
from substrata.formula.form import forms, roles
from substrata.formula.prep_document import prep_schema


def document_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of the document."""

    def text(key: str) -> dict[str, Any]:
        return {"type": "string", "maxLength": TEXT_LIMITS[key]}

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
