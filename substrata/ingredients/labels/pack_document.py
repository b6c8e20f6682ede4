"""The open pack document ``*.pack.json``: read with clear refusals, written whole.

What it may hold is declared by the fields of ``Lot`` and ``Label``; unknown keys are kept on a round trip in every object.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from substrata.base.documents.field_kinds import Where
from substrata.base.documents.records import read_record, record_schema, write_record
from substrata.base.errors import LabelError
from substrata.ingredients.pack import Lot

DOCUMENT_VERSION = 1
_VERSION = "substrata_pack"


def pack_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of the document."""
    whole = record_schema(Lot)
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Substrata pack",
        **whole,
        "required": [_VERSION, *whole["required"]],
        "properties": {_VERSION: {"const": DOCUMENT_VERSION}, **whole["properties"]},
    }


def read_lot(document: Mapping[str, Any], key: str) -> Lot:
    """Make a lot of a document.

    Args:
        document: as of ``pack_schema``.
        key: of the lot; a document carries none, so that a copy is another pack.

    Returns:
        The pack.

    Raises:
        LabelError: naming the field that cannot be read.
    """
    where = Where(error=LabelError)
    version = document.get(_VERSION, DOCUMENT_VERSION)
    if version != DOCUMENT_VERSION:
        raise where.key(_VERSION).refusal(version, str(DOCUMENT_VERSION))
    lot = read_record(Lot, {name: value for name, value in document.items() if name != _VERSION}, where, key=key)
    if not lot.name.strip():
        raise LabelError(
            "the pack has no name", got="nothing", allowed="brand and kind", remedy="name it", field="name"
        )
    label = lot.label
    if label is not None:
        label = replace(label, figures={name: text.strip() for name, text in label.figures.items() if text.strip()})
        _ = label.intervals  # every figure must be readable
    return replace(lot, name=lot.name.strip(), label=label)


def write_lot(lot: Lot) -> dict[str, Any]:
    """Write a lot as a document; ``read_lot`` of it gives the same lot."""
    return {_VERSION: DOCUMENT_VERSION, **write_record(lot)}
