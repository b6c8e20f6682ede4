"""What a baker reaches for to move a quantity: lines of the dough, and ingredients to bring in (``remedy_levers.csv``)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache

from substrata.batch.weighed import Batch
from substrata.quantities.tables import Row, read_table


@dataclass(frozen=True, kw_only=True)
class Lever:
    """A line to move, or an ingredient to bring in."""

    index: int | None  # of the line in the batch; None brings the ingredient in
    ingredient: str


@cache
def _rows(bracket: str, state: str) -> tuple[Row, ...]:
    """Rows of the table for a quantity that is too low or too high, best first."""
    rows = read_table("remedy_levers.csv")
    return tuple(row for row in rows if row.text("bracket") == bracket and row.text("state") in ("*", state))


def levers(bracket: str, state: str, batch: Batch) -> list[Lever]:
    """What moves a quantity, best first. Locked lines are left alone."""
    return [lever for row in _rows(bracket, state) for lever in _of_row(row, batch)]


def _of_row(row: Row, batch: Batch) -> Iterator[Lever]:
    ingredient = row.text("ingredient")
    movable = [(n, w) for n, w in enumerate(batch.lines) if not w.line.locked]
    if row.text("new") == "1":
        yield Lever(index=None, ingredient=ingredient)
    elif ingredient:
        yield from (Lever(index=n, ingredient=ingredient) for n, w in movable if w.ingredient.id == ingredient)
    else:
        strength = batch.behaviour(row.text("behaviour"))[0]
        least, roles = row.number_in("least"), row.text("roles").split()
        able = [(n, w) for n, w in movable if strength[n] > least and w.role in roles]
        for n, w in sorted(able, key=lambda line: -strength[line[0]] * batch.grams[line[0]]):
            yield Lever(index=n, ingredient=w.ingredient.id)
