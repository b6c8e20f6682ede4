"""The temperature of a dough after mixing: a balance of what each line brings of heat.

``T = Σ m·c·T_own / Σ m·c``, less what bowl and air take. Specific heats by composition (Choi & Okos 1986).
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache, lru_cache

import numpy as np

from substrata.base.bulk_dataclass import in_bulk
from substrata.base.tables.table_reader import constant, read_table
from substrata.formula.batch.batch_lines import Batch, WeighedLine
from substrata.ingredients.library import Floats
from substrata.ingredients.thermal_properties import MATTERS, property_choi_okos
from substrata.process.rheology.yeast_kinetics import yeast_lines

_MELTED = "melted"
_MIXED_C = 40.0  # specific heats are read at; they change by 1 % in 10 K


@in_bulk
@dataclass(frozen=True, kw_only=True)
class LineHeat:
    """What one line brings."""

    line: str
    temperature_c: float  # its own when it goes in
    share: float  # of the dough's heat capacity, 0..1


@dataclass(frozen=True, kw_only=True)
class DoughHeat:
    """Heat of a dough just mixed."""

    temperature_c: float
    lines: tuple[LineHeat, ...]
    j_per_k: float  # heat capacity of all of it


def heat_capacities(batch: Batch) -> Floats:
    """J/K of each line, shape (n,)."""
    return batch.grams * (_specific_heats() @ batch.matter_rows()) / 1000


@cache
def _specific_heats() -> Floats:
    """Of each matter while a dough is mixed, J/(kg K), shape (6,)."""
    return np.array([property_choi_okos("specific_heat", m, _MIXED_C) for m in MATTERS])


def start_temperature(
    line: WeighedLine, *, when: frozenset[str], room_c: float, melted_c: float | None = None
) -> float:
    """Return a line's own temperature: as told, else as such matter usually has it.

    Args:
        line: the line.
        when: what is so in this bowl: ``melted``, ``psyllium``, ``yeast``.
        room_c: of the kitchen; what stands on the shelf has it.
        melted_c: how hot the cheese is melted; None takes the usual.
    """
    if line.line.temperature_c is not None:
        return line.line.temperature_c
    return _usual_temperature(line.ingredient.id, line.role, when, room_c, melted_c)


@lru_cache(maxsize=4096)
def _usual_temperature(
    ingredient: str, role: str, when: frozenset[str], room_c: float, melted_c: float | None
) -> float:
    names = (f"id:{ingredient}", f"role:{role}")
    return next(
        (
            melted_c if condition == _MELTED and melted_c is not None else degrees
            for matters, condition, degrees in _usual_temperatures()
            if (not condition or condition in when) and not matters.isdisjoint(names)
        ),
        room_c,
    )


@cache
def _usual_temperatures() -> tuple[tuple[frozenset[str], str, float], ...]:
    """Which matter, when, °C; the first that fits counts."""
    return tuple(
        (frozenset(row.text("matter").split()), row.text("when"), row.number_in("typical"))
        for row in read_table("start_temperatures.csv")
    )


def circumstances(batch: Batch, *, melted: bool) -> frozenset[str]:
    """Return what is so in this bowl, as ``start_temperatures.csv`` asks."""
    result = {_MELTED} if melted else set()
    result |= {"psyllium"} if any("psyllium" in w.ingredient.flags for w in batch.lines) else set()
    return frozenset(result | ({"yeast"} if yeast_lines(batch) else set()))


def dough_heat(batch: Batch, *, melted: float, room_c: float | None = None, melted_c: float | None = None) -> DoughHeat:
    """Return the temperature of a dough just mixed.

    Args:
        batch: the n weighed lines of the dough.
        melted: how much of its cheese is melted first, 0..1.
        room_c: of the kitchen.
        melted_c: how hot it is melted; None takes the usual.
    """
    room = constant("room_temperature") if room_c is None else room_c

    def started(*, hot: bool) -> Floats:
        when = circumstances(batch, melted=hot)
        return np.array([start_temperature(w, when=when, room_c=room, melted_c=melted_c) for w in batch.lines])

    unheated = started(hot=melted > 0)
    if 0 < melted < 1:
        unheated = melted * unheated + (1 - melted) * started(hot=False)
    held = heat_capacities(batch)
    whole = float(held.sum())
    mixed = float(held @ unheated) / whole if whole else room
    return DoughHeat(
        temperature_c=mixed - constant("mixing_heat_lost") * (mixed - room),
        lines=tuple(
            LineHeat(line=w.line.id, temperature_c=t, share=h / whole if whole else 0.0)
            for w, t, h in zip(batch.lines, unheated.tolist(), held.tolist(), strict=True)
        ),
        j_per_k=whole,
    )
