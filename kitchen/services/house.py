"""House formulas: what an empty kitchen may begin with, copied into it with one press."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.db import transaction

from kitchen.demo.load import demo_document, demo_formulas
from kitchen.errors import NotFound
from kitchen.models import Membership
from kitchen.services.access import require
from kitchen.services.formulas import OpenFormula, create_formula


@dataclass(frozen=True, kw_only=True)
class HouseFormula:
    """A formula that ships with the product."""

    name: str
    form: str
    pieces: int


def house_formulas() -> list[HouseFormula]:
    """All of them, in the order in which they are offered."""
    return [HouseFormula(name=f["name"], form=f["form"], pieces=f["pieces"]) for f in demo_formulas()]


@transaction.atomic
def copy_house_formula(member: Membership, name: str) -> OpenFormula:
    """Copy one into a kitchen, made from the reference and weighed by the kitchen's own measures.

    Returns:
        The copied formula with its draft.

    Raises:
        NotFound: when there is none of this name.
    """
    require(member, "formulas.edit")
    entry = next((f for f in demo_formulas() if f["name"] == name), None)
    if entry is None:
        raise NotFound("starter formula not found", got=name[:80], remedy="choose one from the list")
    document: dict[str, Any] = demo_document(entry, entry["versions"][-1], member.kitchen)
    document["bake"] |= {"oven": ""}
    return create_formula(member, document)
