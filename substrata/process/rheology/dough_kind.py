"""Which kind of dough it is: the order of work and what decides in the oven follow from that (common practice)."""

from __future__ import annotations

from typing import Literal, get_args

from substrata.base.tables.table_reader import constant
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.form_table import form_of
from substrata.formula.formula import Formula
from substrata.process.rheology.cheese import cheese_share, is_melted
from substrata.process.rheology.target_handling import is_poured

DoughKind = Literal["melted-cheese", "cold-stirred", "vegetable", "psyllium", "batter", "nut", "cookie", "doughnut"]
DOUGH_KINDS: tuple[DoughKind, ...] = get_args(DoughKind)


def dough_kind(batch: Batch, formula: Formula) -> DoughKind:
    """Return the kind of a dough.

    Args:
        batch: the weighed lines.
        formula: gives the form and how the cheese goes in.
    """
    whole = batch.dough_g
    if not whole:
        return "nut"
    cheesy = cheese_share(batch) >= constant("cheese_dough")
    vegetable = float(batch.grams @ (batch.is_role("vegetable") * batch.inside)) / whole
    psyllium = sum(w.grams.value for w in batch.lines if "psyllium" in w.ingredient.flags) / whole
    if vegetable >= constant("vegetable_dough"):
        return "vegetable"
    if cheesy:
        return "melted-cheese" if is_melted(batch, formula.mix) else "cold-stirred"
    form = form_of(formula.form)
    if form.dough_kind:
        return form.dough_kind  # type: ignore[return-value]  # the table of forms is held to the kinds when it is read
    if is_poured(batch, formula):
        return "batter"
    return "psyllium" if psyllium >= constant("psyllium_dough") else "nut"
