"""A group of lines with a kept total: move one, the others give."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from substrata.batch.kitchen_steps import to_the_scale
from substrata.errors import FormulaError
from substrata.formula.formula import Formula

_TINY = 1e-9


def mix(formula: Formula, group: Sequence[str], line: str, grams: float) -> Formula:
    """Give one line of a group another weight, and take the difference from the others in the shares that they have.

    Locked lines of the group stay; the moved one goes no further than the others can give. What rounding leaves is taken
    by the largest of them, so that the total is kept to the tenth of a gram.

    Args:
        formula: as it stands.
        group: ids of the lines whose total is kept.
        line: the one that is moved.
        grams: its new weight.

    Raises:
        FormulaError: when a line is not in the formula, or no other line of the group can give.
    """
    known = {own.id: own for own in formula.lines}
    strange = [key for key in (*group, line) if key not in known]
    giving = [
        known[key] for key in group if key in known and key != line and not known[key].locked and known[key].grams
    ]
    if strange or line not in group or not giving:
        raise FormulaError(
            "nothing can give",
            got=", ".join(strange) or line,
            allowed="a line of the group, and another one that is not locked and weighs something",
            remedy="add to the group",
            field="line",
        )
    before = known[line].grams or 0.0
    room = sum(own.grams or 0.0 for own in giving)
    now = min(max(grams, 0.0), before + room)
    share = (room - (now - before)) / room if room > _TINY else 0.0
    made = {own.id: to_the_scale((own.grams or 0.0) * share) for own in giving}
    largest = max(giving, key=lambda own: (own.grams or 0.0, own.id)).id
    made[largest] = round(max(made[largest] + before + room - now - sum(made.values()), 0.0), 1)
    made[line] = round(now, 1)
    lines = tuple(
        replace(own, grams=made[own.id], entered=f"{made[own.id]:g} g") if own.id in made else own
        for own in formula.lines
    )
    return replace(formula, lines=lines)
