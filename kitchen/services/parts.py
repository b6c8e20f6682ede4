"""Formulas of a kitchen as lines of another: taken in as they are, and told when there is a newer version."""

from dataclasses import dataclass
from typing import Any

from kitchen.errors import Refused
from kitchen.models import Formula, Membership
from kitchen.services.access import formula_of
from kitchen.services.judging import core_settings, library_of
from substrata import read_document, write_document
from substrata.formula import Part, differences, keys_in, weigh_formula


def key_of(formula_id: int) -> str:
    """By which a formula of a kitchen is known as a part."""
    return f"formula-{formula_id}"


@dataclass(frozen=True, kw_only=True)
class InsertedPart:
    """A formula, ready to be a line of another."""

    part: dict[str, Any]
    name: str
    grams: float  # of all of it


@dataclass(frozen=True, kw_only=True)
class NewerPart:
    """A part of which there is a newer version."""

    line: str
    name: str
    number: int
    newest: int
    changes: tuple[str, ...]
    part: dict[str, Any]  # the newest, ready to take its place


def part_of(member: Membership, formula_id: int, into: int) -> InsertedPart:
    """Return a formula as a part of another.

    Raises:
        Refused: when the other lies in it, or it is empty.
    """
    formula = formula_of(member, formula_id)
    document, number = _pinned(formula)
    read = read_document(document)
    if into and (formula_id == into or key_of(into) in keys_in(read)):
        name = formula_of(member, into).name
        path = name if formula_id == into else f"{name} in {formula.name}"
        raise Refused(
            "the formula would contain itself",
            got=path,
            allowed="a formula that does not contain this one",
            field="formula_id",
        )
    grams = float(
        weigh_formula(read, library_of(member.kitchen, document), core_settings(member.kitchen))[0].grams.sum()
    )
    if grams <= 0:
        raise Refused(
            "the formula is empty", got=formula.name, allowed="a formula with ingredients", field="formula_id"
        )
    return InsertedPart(part=_part(formula, document, number), name=formula.name, grams=round(grams, 1))


def newer_parts(member: Membership, document: dict[str, Any]) -> tuple[NewerPart, ...]:
    """Return the parts of a document of which the kitchen has a newer version, with what is different.

    Raises:
        FormulaError: when the document cannot be read.
    """
    parts = [(line.id, line.part) for line in read_document(document).lines if line.part is not None]
    formulas = {
        key_of(f.pk): f
        for f in Formula.objects.filter(kitchen_id=member.kitchen_id, pk__in=_ids(parts)).select_related("draft")
    }
    candidates = (_newer(member, line, part, formulas.get(part.key)) for line, part in parts)
    return tuple(candidate for candidate in candidates if candidate is not None)


def _ids(parts: list[tuple[str, Part]]) -> list[int]:
    return [int(key) for _, part in parts if (key := part.key.removeprefix("formula-")).isdigit() and len(key) < 10]


def _newer(member: Membership, line: str, part: Part, formula: Formula | None) -> NewerPart | None:
    if formula is None:
        return None
    document, number = _pinned(formula)
    newest = read_document(document)
    if newest == part.formula:
        return None
    library = library_of(member.kitchen, document, write_document(part.formula))
    changes = differences(part.formula, newest, library, core_settings(member.kitchen))
    if not changes:
        return None
    fresh = _part(formula, document, number) | {"loss_percent": part.loss_percent}
    return NewerPart(
        line=line,
        name=formula.name,
        number=part.number,
        newest=number,
        changes=tuple(change.text for change in changes),
        part=fresh,
    )


def _pinned(formula: Formula) -> tuple[dict[str, Any], int]:
    """Return a formula as it was last saved, else as it lies on the bench."""
    version = formula.versions.order_by("-number").first()
    return (version.document, version.number) if version else (formula.draft.document, 0)


def _part(formula: Formula, document: dict[str, Any], number: int) -> dict[str, Any]:
    return {"formula": document, "key": key_of(formula.pk), "number": number, "loss_percent": 0.0}
