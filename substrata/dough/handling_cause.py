"""What limits a dough that cannot be shaped as its form wants, in words and in grams of one line."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache
from math import ceil

import numpy as np

from substrata.batch.kitchen_steps import to_the_scale
from substrata.batch.weighed import Batch
from substrata.dough.consistency import handling, typical_draw
from substrata.dough.handling_search import Bowl, grams_for, with_line
from substrata.dough.handling_words import ClassBand
from substrata.pantry.library import Library
from substrata.quantities.tables import constant, read_table

_FULL = 1.05  # filling of the voids that a dough needs to cohere, with a little to spare
_INSIDE = 0.15  # how far into the wanted class a remedy aims


@dataclass(frozen=True, kw_only=True)
class HandlingCause:
    """Why it does not handle as wanted, and one line that mends it."""

    kind: str  # crumbly, stiff, wet, cold, rest, chill
    text: str
    line: str | None = None  # line to change; None adds one
    ingredient: str = ""  # of that line; "" when no line mends it
    grams: float = 0.0  # its new weight
    change_g: float = 0.0


def limiting_cause(
    bowl: Bowl, low: ClassBand, high: ClassBand, library: Library, *, crumbly: bool, ready_min: float | None
) -> HandlingCause | None:
    """What limits the dough at shaping; None when nothing does.

    Args:
        bowl: the dough.
        low: the thinnest class that the form takes.
        high: the stiffest.
        library: where water is found if there is no line of it.
        crumbly: whether it falls apart.
        ready_min: when it first is stiff enough.
    """
    consistency = _consistency(bowl, bowl.batch)
    if crumbly:
        press = "" if bowl.method.pressed else ", or press it"
        return _mended(
            bowl, library, "crumbly", f"not enough free liquid to fill the voids{press}", _FULL, read_fill=True
        )
    if consistency >= high.high:
        if bowl.method.melted and _warm_enough(bowl, high.high):
            return HandlingCause(kind="cold", text="the cheese has cooled: warm the piece in hand")
        return _mended(bowl, library, "stiff", "too little water runs free", high.high - _INSIDE)
    return _too_soft(bowl, low, library, ready_min) if consistency < low.low else None


def _too_soft(bowl: Bowl, low: ClassBand, library: Library, ready_min: float | None) -> HandlingCause:
    if ready_min is not None and ready_min > bowl.rest_min:
        return HandlingCause(kind="rest", text=f"it still drinks: rest it {max(ceil(ready_min), 1)} min")
    if _stiff_when_cold(bowl, low.low):
        return HandlingCause(kind="chill", text="its fat is soft: chill it half an hour")
    return _mended(bowl, library, "wet", "more water than the dry matter holds", low.low + _INSIDE)


def _consistency(bowl: Bowl, batch: Batch) -> float:
    return float(replace(bowl, batch=batch).over_minutes(np.array([bowl.rest_min]))[0])


def _fill(bowl: Bowl, batch: Batch) -> float:
    point = np.array([bowl.rest_min]), np.array([bowl.temperature_c])
    return float(handling(batch, bowl.method, *point, draws=typical_draw()).fill[0, 0])


def _warm_enough(bowl: Bowl, stiff: float) -> bool:
    """Whether warming alone would make it soft enough."""
    return bool(bowl.over_degrees(np.array([60.0]))[0] < stiff)


def _stiff_when_cold(bowl: Bowl, soft: float) -> bool:
    """Whether the fridge alone would make it stiff enough, as it does where butter or coconut oil carries a dough."""
    return bool(bowl.over_degrees(np.array([constant("fridge_temperature")]))[0] >= soft)


def _mended(
    bowl: Bowl, library: Library, kind: str, text: str, wanted: float, *, read_fill: bool = False
) -> HandlingCause:
    """The cause with the weight of the one line that mends it: water first, then what drinks."""
    for ingredient in ("water", *(_thirsty(bowl.batch) if kind == "wet" else ())):
        batch, row = with_line(bowl.batch, ingredient, library)
        changed = replace(bowl, batch=batch)
        grams = grams_for(
            changed, row, read=lambda b: _fill(bowl, b) if read_fill else _consistency(bowl, b), wanted=wanted
        )
        if grams is None:
            continue
        present = float(batch.grams[row])
        after = to_the_scale(grams)
        if abs(after - present) < 0.1:
            continue
        return HandlingCause(
            kind=kind,
            text=text,
            line=batch.lines[row].line.id or None,
            ingredient=ingredient,
            grams=after,
            change_g=after - present,
        )
    return HandlingCause(kind=kind, text=text)


@cache
def _reached_for() -> tuple[str, ...]:
    return tuple(row.text("ingredient") for row in read_table("thirsty.csv"))


def _thirsty(batch: Batch) -> tuple[str, ...]:
    """What could drink the water: a line of the dough first, else what bakers reach for."""
    here = {w.ingredient.id for w in batch.lines}
    return tuple(sorted(_reached_for(), key=lambda ingredient: ingredient not in here))
