"""A group of lines with a kept total: move one, the others give; or lean all of them to one end of a quality."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import cache
from typing import Literal

import numpy as np

from substrata.base.errors import FormulaError
from substrata.base.tables.table_reader import read_table
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.cost import price_per_gram
from substrata.formula.batch.rounding_steps import to_the_scale
from substrata.formula.formula import Formula

_TINY = 1e-9


def blend(formula: Formula, group: Sequence[str], line: str, grams: float) -> Formula:
    """Give one line of a group another weight, and take the difference from the others in the shares that they have.

    Locked lines of the group stay; the moved one goes no further than the others can give. What rounding leaves is taken
    by the largest of them, so that the total is kept to the tenth of a gram.

    Args:
        formula: as it stands.
        group: ids of the lines whose total is kept.
        line: the one that is moved.
        grams: its new weight.

    Returns:
        The changed formula.

    Raises:
        FormulaError: when a line is not in the formula, or no other line of the group can give.
    """
    known = {formula_line.id: formula_line for formula_line in formula.lines}
    strange = [key for key in (*group, line) if key not in known]
    giving = [
        known[key] for key in group if key in known and key != line and not known[key].locked and known[key].grams
    ]
    if strange or line not in group or not giving:
        raise FormulaError(
            "nothing can be reduced",
            got=", ".join(strange) or line,
            allowed="an ingredient of the group, and another one that is not locked and has a weight",
            remedy="add to the group",
            field="line",
        )
    before = known[line].grams or 0.0
    room = sum(formula_line.grams or 0.0 for formula_line in giving)
    now = min(max(grams, 0.0), before + room)
    share = (room - (now - before)) / room if room > _TINY else 0.0
    new_grams = {formula_line.id: to_the_scale((formula_line.grams or 0.0) * share) for formula_line in giving}
    largest = max(giving, key=lambda formula_line: (formula_line.grams or 0.0, formula_line.id)).id
    new_grams[largest] = round(max(new_grams[largest] + before + room - now - sum(new_grams.values()), 0.0), 1)
    new_grams[line] = round(now, 1)
    lines = tuple(
        replace(formula_line, grams=new_grams[formula_line.id], entered=f"{new_grams[formula_line.id]:g} g")
        if formula_line.id in new_grams
        else formula_line
        for formula_line in formula.lines
    )
    return replace(formula, lines=lines)


Quality = Literal["price", "strength"]
_TILT = 2.5  # how steeply a lean at its end weighs the one end of a quality against the other: about 12 : 1
_TELLS_APART = 1e-6


def lean(batch: Batch, formula: Formula, group: Sequence[str], by: Quality, towards: float) -> Formula:
    """Lean a group to one end of a quality, mild or sharp, cheap or dear, with its total kept.

    Shares are tilted by ``exp(t·z)``, z the quality between −½ and ½ over the group: the mean of the quality rises with t, t = 0
    changes nothing, and nothing that weighs something is lost. Locked lines, and those of which the quality is not known, stay.

    Args:
        batch: the weighed lines, with the kitchen's packs.
        formula: as it stands.
        group: ids of the lines whose total is kept.
        by: the quality.
        towards: −1 all the way to mild or cheap, 1 to sharp or dear.

    Returns:
        The changed formula.

    Raises:
        FormulaError: when fewer than two lines can move, or these ingredients do not differ in price or taste strength.
    """
    known = _qualities(batch, by)
    locked = {line.id for line in formula.lines if line.locked}
    moving = [
        w
        for w in batch.lines
        if w.line.id in group and w.line.id not in locked and w.line.id in known and w.grams.value > 0
    ]
    quality = np.array([known[w.line.id] for w in moving])
    if len(moving) < 2 or float(np.ptp(quality)) < _TELLS_APART:
        raise FormulaError(
            "these ingredients do not differ in price or taste strength"
            if len(moving) > 1
            else "nothing can be reduced",
            got=", ".join(w.line.id for w in moving)[:80] or "no ingredient",
            allowed=f"at least two ingredients of the group, not locked, with a {'price' if by == 'price' else 'strength of taste'} each",
            remedy="enter a price for their packs" if by == "price" else "change one ingredient directly",
            field="group",
        )
    grams = np.array([w.grams.value for w in moving])
    z = (quality - quality.min()) / np.ptp(quality) - 0.5
    tilted = grams * np.exp(_TILT * max(min(towards, 1.0), -1.0) * z)
    tilted *= grams.sum() / tilted.sum()
    new_grams = {w.line.id: to_the_scale(float(g)) for w, g in zip(moving, tilted, strict=True)}
    largest = max(new_grams, key=lambda key: (new_grams[key], key))
    new_grams[largest] = round(new_grams[largest] + float(grams.sum()) - sum(new_grams.values()), 1)
    lines = tuple(
        replace(formula_line, grams=new_grams[formula_line.id], entered=f"{new_grams[formula_line.id]:g} g")
        if formula_line.id in new_grams
        else formula_line
        for formula_line in formula.lines
    )
    return replace(formula, lines=lines)


@cache
def _strengths() -> dict[str, float]:
    return {row.text("ingredient"): row.number_in("strength", 0, 10) for row in read_table("flavour_strength.csv")}


def _qualities(batch: Batch, by: Quality) -> dict[str, float]:
    """Return the quality of each line of which it is known."""
    if by == "price":
        prices = price_per_gram(batch)[0].tolist()
        return {w.line.id: price for w, price in zip(batch.lines, prices, strict=True) if price > 0}
    return {w.line.id: _strengths()[w.ingredient.id] for w in batch.lines if w.ingredient.id in _strengths()}
