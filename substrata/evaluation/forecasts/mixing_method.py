"""The mixing method: every line of a formula in exactly one step, and no step that names what is not there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from substrata.base.messages.message import Wording, listed
from substrata.base.tables.table_reader import Row, constant, read_table
from substrata.base.tables.table_texts import table_text
from substrata.evaluation.dough import Dough
from substrata.formula.batch.batch_lines import FRYING, WeighedLine
from substrata.process.rheology.phases import phase_of

_ANY, _ON_AND_IN = "*", "filling"  # kinds of rows: of every dough; of what lies in, on or around it
_DRY_ROLES = ("base", "fibre", "binder", "lift", "salt", "acid", "sweetener", "flavour")


@dataclass(frozen=True, kw_only=True)
class MixingStep:
    """One step of the method."""

    text: Wording
    added: tuple[str, ...]  # ids of the lines that enter here
    names: str  # of them, as a list in words
    step: str  # the step of a bake that tells it in its own place; "" where this is a step by itself


def mixing_steps(dough: Dough) -> tuple[MixingStep, ...]:
    """Return the method of a dough in the order of work, and what is then filled, laid on, brushed and dusted.

    Args:
        dough: what is made; lines of no weight enter no step.
    """
    lines = [w for w in dough.batch.lines if w.grams.value > 0 and w.role != FRYING]
    inside = [w for w in lines if w.in_dough]
    around = [w for w in lines if not w.in_dough]
    return (*_steps(inside, (dough.kind, _ANY)), *_steps(around, (_ON_AND_IN,)))


def step_in(steps: Sequence[MixingStep], step: str) -> MixingStep | None:
    """Return the step that another step of the bake tells in its place; None where there is none."""
    return next((candidate for candidate in steps if candidate.step == step), None)


def _steps(lines: Sequence[WeighedLine], kinds: tuple[str, ...]) -> list[MixingStep]:
    unassigned, steps = list(lines), []
    for row in read_table("mixing_steps.csv"):
        if row.text("dough_kind") not in kinds or not lines or not _has_what_it_needs(lines, row):
            continue
        selectors = row.text("adds").split()
        added = [w for w in unassigned if any(_is(w, word) for word in selectors)]
        if selectors and not added:
            continue
        unassigned = [w for w in unassigned if w not in added]
        names = listed(line_names(added, lines))
        steps.append(
            MixingStep(
                text=table_text(row.text("text"), added=names),
                added=tuple(w.line.id for w in added),
                names=names,
                step=row.text("told_in"),
            )
        )
    return steps


def _has_what_it_needs(lines: Sequence[WeighedLine], row: Row) -> bool:
    return all(any(_is(w, word) for w in lines) for word in row.text("needs").split())


def line_names(lines: Sequence[WeighedLine], among: Sequence[WeighedLine]) -> list[str]:
    """Return the names of some lines as they stand in a sentence: short where that is clear among all lines.

    Args:
        lines: whose names are wanted.
        among: all lines of the formula that could be meant.
    """
    short = [w.ingredient.name.partition(",")[0] for w in among]

    def name(w: WeighedLine) -> str:
        first = w.ingredient.name.partition(",")[0]
        chosen = first if short.count(first) == 1 else w.ingredient.name
        return chosen[:1].lower() + chosen[1:]

    return list(dict.fromkeys(name(w) for w in lines))


def _is(w: WeighedLine, word: str) -> bool:
    """Whether a line is what a row of the table adds or needs."""
    kind = _kind_of(w)
    return word in (_ANY, kind) or (word == "dry" and kind in _DRY)


_DRY = ("flour", "salt", "sweet")
# What stands in the columns ``adds`` and ``needs``: how the matter of a line goes into a dough, or its role around one.
WORDS = (
    "yeast", "soaked", "flesh", "paste", "liquid", *_DRY, "dry", "soft", "egg", "cheese", "fat", "vegetable", "filling",
    "topping", "wash", "dusting", _ANY,
)  # fmt: skip


def _kind_of(w: WeighedLine) -> str:
    """Return the word of the table for a line."""
    if not w.in_dough:
        return w.role
    if w.ingredient.parameter("yeast_rate").value > 0:
        return "yeast"
    if "raw-pulse" in w.ingredient.flags:
        return "soaked"
    if w.ingredient.composition["water_g"] / 100 >= constant("goes_with_liquids"):
        return _moist_kind(w)
    if w.role in _DRY_ROLES:
        return {"salt": "salt", "sweetener": "sweet"}.get(w.role, "flour")
    return w.role


def _moist_kind(w: WeighedLine) -> str:
    """Return the word for a line that is mostly water, or a cheese."""
    if not w.ingredient.flags.isdisjoint(("meat", "fish")):
        return "flesh"
    if w.role in _DRY_ROLES:
        return "paste" if w.role == "base" else "liquid"
    return "soft" if w.role == "cheese" and phase_of(w).name == "soft" else w.role
