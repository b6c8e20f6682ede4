"""Blending the dry lines of several batches into one premix."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.messages.message import Message, Wording
from substrata.base.tables.table_reader import constant
from substrata.formula.batch.batch_lines import Batch, WeighedLine
from substrata.ingredients.groups import is_in_group

_ROLES = ("base", "fibre", "binder", "lift", "salt", "sweetener", "flavour")


@dataclass(frozen=True, kw_only=True)
class PremixPart:
    """One line of the premix."""

    line: str
    name: str
    role: str
    code: str
    grams: float  # for one batch
    whole_g: float  # for all batches
    share: float  # of the premix


@dataclass(frozen=True, kw_only=True)
class Premix:
    """Dry things for several batches."""

    batches: int
    per_batch_g: float
    whole_g: float
    parts: tuple[PremixPart, ...]
    keeps: Wording
    cautions: tuple[Wording, ...]


def is_dry(line: WeighedLine) -> bool:
    """Whether a line may stand in a premix."""
    return line.role in _ROLES and line.in_dough and line.ingredient.composition["water_g"] <= constant("premix_driest")


def premix(batch: Batch, batches: int, codes: dict[str, str]) -> Premix | None:
    """Return the premix of a formula; None when fewer than two lines are dry.

    Args:
        batch: the weighed lines.
        batches: how many.
        codes: two letters of each role.
    """
    dry = [w for w in batch.lines if is_dry(w) and w.grams.value > 0]
    if len(dry) < 2:
        return None
    each = sum(w.grams.value for w in dry)
    fatty = sum(w.grams.value * w.ingredient.composition["fat_g"] / 100 for w in dry) / each
    cautions: list[Wording] = []
    if any(is_in_group(w.ingredient, "soda") for w in dry) or any(w.role == "lift" for w in dry):
        cautions.append(Message("premix-keep-the-mix-dry-moisture"))
    if any("psyllium" in w.ingredient.flags for w in dry):
        cautions.append(Message("premix-shake-before-weighing-psyllium-settles"))
    return Premix(
        batches=batches,
        per_batch_g=each,
        whole_g=each * batches,
        parts=tuple(
            PremixPart(
                line=w.line.id,
                name=w.ingredient.name,
                role=w.role,
                code=codes[w.role],
                grams=w.grams.value,
                whole_g=w.grams.value * batches,
                share=w.grams.value / each,
            )
            for w in sorted(dry, key=lambda w: -w.grams.value)
        ),
        keeps=Message("premix-keeps-a-few-weeks-in") if fatty > 0.1 else Message("premix-keeps-a-few-months-airtight"),
        cautions=tuple(cautions),
    )
