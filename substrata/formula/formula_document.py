"""The open formula document ``*.substrata.json``: read with clear refusals, written whole.

What it may hold is declared by the fields of ``Formula``; unknown keys are kept on a round trip in every object.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from substrata.base.documents.field_kinds import Where
from substrata.base.documents.format_version import check_version
from substrata.base.documents.records import read_record, record_schema, write_record
from substrata.base.errors import FormulaError
from substrata.formula.formula import Formula

DOCUMENT_VERSION = 1
_VERSION = "substrata"


def read_document(document: Mapping[str, Any]) -> Formula:
    """Make a formula of a document.

    Returns:
        The formula.

    Raises:
        FormulaError: naming the line and field that cannot be read.
    """
    plain = check_version(document, _VERSION, DOCUMENT_VERSION, "document")
    formula = read_record(Formula, plain, Where())
    _distinct_ids(formula)
    _ordered_targets(formula)
    return formula


def _distinct_ids(formula: Formula) -> None:
    ids = [line.id for line in formula.lines]
    if len(set(ids)) != len(ids):
        twice = next(key for key in ids if ids.count(key) > 1)
        raise FormulaError(
            "two lines share an id",
            got=twice,
            allowed="one id per line",
            line=twice,
            field="id",
            remedy="change one of the ids",
        )


def _ordered_targets(formula: Formula) -> None:
    for key, target in formula.targets.items():
        if target.low is not None and target.high is not None and target.low > target.high:
            raise FormulaError(
                "the minimum is above the maximum",
                got=f"{target.low:g} to {target.high:g}",
                field=f"targets.{key}",
                allowed="low up to high",
                remedy="swap the two values",
            )


def write_document(formula: Formula) -> dict[str, Any]:
    """Write a formula as a document; ``read_document`` of it gives the same formula.

    Args:
        formula: the formula, with its unknown keys.

    Returns:
        Plain JSON values.
    """
    return {_VERSION: DOCUMENT_VERSION, **write_record(formula)}


def document_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of the document."""
    whole = record_schema(Formula)
    version = {_VERSION: {"const": DOCUMENT_VERSION, "description": "version of this format"}}
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Substrata formula",
        **whole,
        "required": [_VERSION, *whole["required"]],
        "properties": version | whole["properties"],
    }
