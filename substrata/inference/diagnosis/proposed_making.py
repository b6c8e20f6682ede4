"""What a proposed change makes of a bake: edited factors, weights and minutes."""

from __future__ import annotations

from dataclasses import replace

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.evaluation.dough import Dough
from substrata.formula.bake_settings import is_moment
from substrata.formula.batch.rounding_steps import to_the_scale
from substrata.formula.formula import Formula
from substrata.inference.making import Making, selected_lines
from substrata.process.baking.oven_questions import coarse


def making_of(dough: Dough, change: str) -> Making | None:
    """Return an action's change as a making of the present formula; None for what changes no figure.

    Args:
        dough: the formula.
        change: of ``actions.csv``: ``share:liquid:0.04``, ``grams:egg:1.2``, ``oven:15``, ``minutes:1.15`` …
    """
    if not change:
        return None
    what, *rest = change.split(":")
    if what in ("share", "grams"):
        factors = factors_of(dough, change)
        return Making(grams=factors) if factors else None
    value = float(rest[-1])
    if what == "rest_min":
        usual = dough.handling.rest_min if dough.handling else 0.0
        return Making(rest=(usual + value) / usual) if usual else None
    vegetable = sum(w.grams.value for w in dough.batch.lines if w.role == "vegetable")
    simple = {
        "oven": Making(oven_k=value),
        "minutes": Making(minutes=value),
        "thickness": Making(thickness=value),
        "warmer": Making(warmer_k=value),
        "vegetable": Making(grams=_vegetable_factors(dough, value)) if vegetable else None,
    }
    return simple[what]


def _vegetable_factors(dough: Dough, share: float) -> dict[str, float]:
    return dict.fromkeys(selected_lines(dough, "vegetable"), 1 + share)


def factors_of(dough: Dough, change: str) -> dict[str, float]:
    """Factors by line of a change of grams; none where there is no such line."""
    what, target, number = change.split(":")
    lines, value = selected_lines(dough, target), float(number)
    if not lines:
        return {}
    if what == "grams":
        return dict.fromkeys(lines, value)
    whole = sum(w.grams.value for w in dough.batch.lines if w.line.id in lines)
    factor = 1 + value * dough.inside.dough_g / whole
    return dict.fromkeys(lines, factor) if factor > _LEAST_FACTOR else {}


_LEAST_FACTOR = 0.3


def edited(dough: Dough, formula: Formula, change: str) -> tuple[Formula, list[Wording]]:
    """Return a formula with an action's change, and the names of what it changes.

    Args:
        dough: the formula as it was.
        formula: with the edits so far.
        change: of ``actions.csv``.
    """
    what, *rest = change.split(":") if change else ("",)
    if what in ("share", "grams", "vegetable"):
        factors = _vegetable_factors(dough, float(rest[-1])) if what == "vegetable" else factors_of(dough, change)
        here = {w.line.id: w for w in dough.batch.lines}
        new = {line: to_the_scale(here[line].grams.value * factor) for line, factor in factors.items()}
        texts: list[Wording] = [
            Message(
                "proposed-making-line",
                name=here[line].ingredient.name.partition(",")[0].lower(),
                was=Quantity(here[line].grams.value, "g", digits=-1, bare=True),
                to=Quantity(grams, "g", digits=-1),
            )
            for line, grams in new.items()
        ]
        lines = tuple(
            replace(line, grams=new[line.id], entered=f"{new[line.id]:g} g") if line.id in new else line
            for line in formula.lines
        )
        return replace(formula, lines=lines), texts
    if what == "oven":
        to = dough.case.oven_c + float(rest[-1])
        return replace(formula, bake=replace(formula.bake, oven_c=to)), [
            Message(
                "proposed-making-c",
                oven=Quantity(dough.case.oven_c, "oven", bare=True),
                to=Quantity(to, "oven"),
            )
        ]
    if what == "minutes":
        return _timed(dough, formula, float(rest[-1]))
    if what == "thickness":
        was = dough.piece.thickness_mm
        to = round(was * float(rest[-1]), 1)
        return replace(formula, size=replace(formula.size, held="thickness", thickness_mm=to)), [
            Message(
                "proposed-making-mm", was=Quantity(was, "mm", digits=1, bare=True), to=Quantity(to, "mm", digits=-1)
            )
        ]
    return formula, []


def _timed(dough: Dough, formula: Formula, factor: float) -> tuple[Formula, list[Wording]]:
    """Return the last hot stage longer or shorter, in whole minutes."""
    ready = coarse(dough.case).ready
    stages = list(formula.bake.stages or dough.case.stages)
    hot = [n for n, stage in enumerate(stages) if not is_moment(stage.kind)]
    if ready is None or not hot:
        return formula, []
    fixed = sum(stages[n].minutes or 0.0 for n in hot[:-1])
    was = stages[hot[-1]].minutes or max(ready - fixed, 1.0)
    to = float(max(round(was + ready * (factor - 1)), 1))
    stages[hot[-1]] = replace(stages[hot[-1]], minutes=to)
    return replace(formula, bake=replace(formula.bake, stages=tuple(stages))), [
        Message("proposed-making-min", was=Quantity(was, "min", digits=0, bare=True), to=Quantity(to, "min", digits=0))
    ]
