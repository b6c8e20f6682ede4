"""How many grams of a line move a dough's consistency by so much: the core's slope, not a rule."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from substrata.base.roots import root
from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import Figures, figures
from substrata.evaluation.target_ranges import fails, is_outside
from substrata.formula.batch.batch_lines import WeighedLine
from substrata.formula.formula import Formula, Line
from substrata.ingredients.groups import is_in_group

LIQUID, DRY = "liquid", "dry"
_LIQUID_ROLES = ("liquid",)
_DRY_ROLES = ("base", "fibre")
# Of the dough, or of a binder's own line: the most that is added in one go (house choice); a hand feels again after it.
_MOST = {LIQUID: 0.08, "egg": 0.08, DRY: 0.08, "binder": 0.35}
_WATER = "water"
_EXACT = 0.02  # decades
_NEW = "bench-water"  # id of a line of water where the formula has none


@dataclass(frozen=True, kw_only=True)
class Correction:
    """So much of one line."""

    line: str
    ingredient: str  # id
    name: str
    kind: str  # liquid, dry, egg
    grams: float  # added, of the whole formula
    whole: bool  # it brings all of the change; else it is the most for one go
    brings: float  # share of the change that it brings
    worse: tuple[str, ...]  # brackets that it takes out of their windows, by key


def consistency_at(dough: Dough, minute: float, temperature_c: float | None = None) -> float:
    """Consistency of the typical dough, log10 Pa s, so many minutes after mixing.

    Args:
        dough: with at least two ingredients.
        minute: after mixing.
        temperature_c: of the dough; None takes what it has after mixing.

    Returns:
        log10 Pa s.
    """
    bowl = dough.bowl(minute)
    warm = bowl if temperature_c is None else replace(bowl, temperature_c=temperature_c)
    return float(warm.over_minutes(np.array([minute]))[0])


def with_more(dough: Dough, line: str, grams: float, ingredient: str = _WATER) -> Dough:
    """Return the same dough with so much more of a line; water may come in that was not there."""
    here = {w.line.id: w.grams.value for w in dough.batch.lines}
    if line in here:
        return dough.with_changes(grams={line: here[line] + grams})
    formula: Formula = replace(
        dough.formula,
        lines=(*dough.formula.lines, Line(id=line, ingredient=ingredient, grams=grams, entered=f"{grams:g} g")),
    )
    return Dough(
        formula, dough.library, dough.settings, dough.profile, capacity=dough.capacity, rest_min=dough.rest_min
    )


def as_felt(dough: Dough, consistency: float, minute: float, temperature_c: float | None = None) -> Dough:
    """Return the dough that feels like this: wetter, or drier, than it was forecast. As near as it comes.

    Slopes are taken there, and not where the forecast lies: a dough that is stiff by forecast and felt as tacky is not near its
    stiff end.

    Args:
        dough: as it was weighed.
        consistency: that was felt, log10 Pa s.
        minute: after mixing.
        temperature_c: of the dough; None takes what it has after mixing.
    """
    off = consistency - consistency_at(dough, minute, temperature_c)
    if abs(off) < _EXACT:
        return dough
    drinkers = [w.line.id for w in dough.inside.lines]
    wet = {w.line.id: w.grams.value for w in dough.inside.lines if w.role in ("liquid", "egg", "vegetable")}

    def shifted(amount: float) -> Dough:
        factor = 1 - amount * constant("felt_drinks_less") if off < 0 else 1 + amount * constant("felt_drinks_more")
        drunk = dough.with_changes(capacity={line: dough.capacity.get(line, 1.0) * factor for line in drinkers})
        if off < 0:
            return with_more(drunk, _water_of(dough), amount * constant("felt_wettest") * dough.inside.dough_g)
        return (
            drunk.with_changes(
                grams={line: grams * (1 - amount * constant("felt_driest")) for line, grams in wet.items()}
            )
            if wet
            else drunk
        )

    def residual(amount: float) -> float:
        return consistency_at(shifted(amount), minute, temperature_c) - consistency

    if residual(1.0) * off > 0:
        return shifted(root(residual, 0.0, 1.0, exact=1e-3))
    return shifted(1.0)


def _water_of(dough: Dough) -> str:
    return next((w.line.id for w in dough.inside.lines if is_in_group(w.ingredient, "water")), _NEW)


def correctors(dough: Dough, *, stiffen: bool) -> Iterator[tuple[str, WeighedLine | None, str]]:
    """Lines that a baker would reach for: flour to stiffen, a liquid or an egg to soften; water always."""
    lines = dough.inside.lines
    if stiffen:
        yield from ((w.line.id, w, DRY) for w in lines if w.role in _DRY_ROLES and w.grams.value > 0)
        yield from ((w.line.id, w, "binder") for w in lines if w.role == "binder" and "psyllium" in w.ingredient.flags)
        return
    watery = [w for w in lines if w.role in _LIQUID_ROLES and w.grams.value > 0]
    yield from ((w.line.id, w, LIQUID) for w in watery)
    if not any(is_in_group(w.ingredient, "water") for w in watery):
        yield (_NEW, None, LIQUID)
    yield from ((w.line.id, w, "egg") for w in lines if w.role == "egg" and w.ingredient.id == "egg")


def corrections(
    dough: Dough, change: float, *, minute: float, temperature_c: float | None = None
) -> tuple[Correction, ...]:
    """Return what brings a dough by so many decades, one line each, the fewest grams first.

    Args:
        dough: as it lies there.
        change: wanted of its consistency, decades; above 0 stiffer.
        minute: after mixing.
        temperature_c: of the dough; None takes what it has after mixing.
    """
    start = consistency_at(dough, minute, temperature_c)
    before = figures(dough)
    results = []
    for line, weighed, kind in correctors(dough, stiffen=change > 0):

        def off(grams: float, line: str = line) -> float:
            return consistency_at(with_more(dough, line, grams), minute, temperature_c) - start - change

        most = _MOST[kind] * (weighed.grams.value if weighed and kind == "binder" else dough.inside.dough_g)
        residual = off(most)
        whole = residual * change >= 0
        brings = 1 - residual / -change if not whole else 1.0
        if brings <= 0:
            continue
        grams = root(off, 0.0, most, exact=0.05) if whole and change else most
        results.append(
            Correction(
                line=line,
                ingredient=weighed.ingredient.id if weighed else _WATER,
                name=weighed.ingredient.name if weighed else "Water",
                kind=kind,
                grams=grams,
                whole=whole,
                brings=brings,
                worse=worse_than(before, figures(with_more(dough, line, grams))),
            )
        )
    worth = [c for c in results if c.brings >= constant("correction_worth")] or sorted(
        results, key=lambda c: -c.brings
    )[:1]
    return tuple(sorted(worth, key=lambda c: (not c.whole, len(c.worse), c.kind == "binder", c.grams)))


def worse_than(before: Figures | None, after: Figures | None) -> tuple[str, ...]:
    """Brackets that left their windows, or came to fail."""
    if before is None or after is None:
        return ()
    return tuple(
        key
        for key, state in after.states.items()
        if (is_outside(state) and not is_outside(before.states[key]))
        or (fails(state) and not fails(before.states[key]))
    )
