"""One list of remedies: a cause, one edit, checked against everything else before it is offered.

Every line (and everything that may be brought in) is tried at many weights against all limits at once; what looks best is
judged by the full model. An edit that makes something else worse is not offered, and no line is moved twice.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from math import ceil
from types import MappingProxyType

import numpy as np

from substrata.base.messages.message import Capitalized, Joined, Message, Wording
from substrata.base.settings import Settings
from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.formula.formula import Formula
from substrata.ingredients.library import Floats, Library
from substrata.ingredients.vegetable_drying import drying_numbers
from substrata.reformulation.program.balance_problem import BalanceProblem, Slot
from substrata.reformulation.program.full_model_check import ModelCheck, check_by_model
from substrata.reformulation.program.linear_row import LinearRow
from substrata.reformulation.program.linear_rows import rows_at
from substrata.reformulation.program.linearisation import slopes_at
from substrata.reformulation.program.milp import change_cost
from substrata.reformulation.request.balance_request import MOST_LINES, Wish
from substrata.reformulation.solutions.solution import missed_texts
from substrata.reformulation.solutions.solution_text import change_text

_MOST = 3  # remedies of one dough: more is a settle
_CANDIDATE_LIMIT = 40  # trials that the full model judges
_EACH = 2  # of them at most of one line
_FINE = 60  # weights to each side at which a line is tried
_MOST_PIECES = 3
_CHEAP = 0.001  # of a unit of what is missed, for a gram of flour: of two that mend, the smaller change
_NEW = 40.0  # grams of flour that bringing something in costs here besides: a mend is sought in what is there
_BACK = 0.5  # of its cost, for a line that goes back to the saved version
_MENDS, _MENDS_ALONE = (
    0.2,
    0.6,
)  # of all that is missed an edit has to mend: where it mends one thing whole, and where not
_LEAST_G = 1e-6
_WORSE = 0.002
_HEAT_KINDS = ("rest", "chill", "cold")
_WARMER = {"cold": "prep", "rest": "prep", "chill": "prep"}


@dataclass(frozen=True, kw_only=True)
class QuickFix:
    """One remedy."""

    text: Wording  # "− 60 g water, to 120 g"; or what to do where no gram helps
    causes: tuple[Wording, ...]  # what it mends, in words
    keys: tuple[str, ...]  # the quantities that it mends
    line: str = ""  # to change; "" where none is
    ingredient: str = ""
    grams: float | None = None
    pieces: int | None = None  # new number of pieces
    station: str = ""  # where to go instead of changing grams
    whole: bool = False  # nothing is out any more once it and those before it are taken


def quick_fixes(
    formula: Formula, library: Library, settings: Settings, *, saved: Formula | None = None
) -> tuple[QuickFix, ...]:
    """Return what to do about every figure out of range, the best first; empty when all are in range, or when the formula is too long to balance.

    Args:
        formula: as it stands.
        library: the ingredients.
        settings: the kitchen's choices.
        saved: the last saved version: of two edits, the one that leads back to it.
    """
    if len(formula.lines) > MOST_LINES:
        return ()
    problem = BalanceProblem(formula, library, settings, Wish(), saved=saved)
    if problem.original.batch.dough_g <= 0 or len(problem.original.inside.lines) < 2:
        return ()
    verdict = check_by_model(problem, problem.start)
    pointed = tuple(_elsewhere(problem.original))
    if not verdict.missed:
        return pointed
    rest = dict(verdict.missed)
    if any(mend.keys == ("handling",) for mend in pointed):
        rest.pop("handling", None)
    fixes: list[QuickFix] = []
    moved: set[str] = set()
    saved_as = check_by_model(problem, np.array([slot.reference_g for slot in problem.slots])).missed if saved else {}
    while rest and len(fixes) < _MOST:
        fix = _best(problem, verdict, moved, saved_as)
        if fix is None:
            break
        slot, after = fix
        fixes.append(_quick_fix(problem, slot, verdict, after))
        moved.add(slot.id)
        verdict = after
        rest = {key: miss for key, miss in after.missed.items() if key in rest}
    return (*pointed, *fixes, *_smaller_pieces(formula, library, settings))


def _smaller_pieces(formula: Formula, library: Library, settings: Settings) -> Iterator[QuickFix]:
    """More pieces of the same dough, where each holds too many net carbs and that makes nothing else worse."""
    here = BalanceProblem(formula, library, settings, Wish(may_bring=False))
    before = check_by_model(here, here.start)
    dough = here.original
    high = dough.windows["net_carbs"].window.high
    if "net_carbs" not in before.missed or not high or dough.bracketed.value("net_carbs") < high:
        return
    needed = ceil(dough.bracketed.value("net_carbs") * formula.pieces / high - 1e-9)
    if not formula.pieces < needed <= _MOST_PIECES * formula.pieces:
        return
    other = BalanceProblem(replace(formula, pieces=needed), library, settings, Wish(may_bring=False))
    after = check_by_model(other, other.start)
    if not _spoils(before, after):
        yield QuickFix(
            text=Message("quick-fix-search-smaller-pieces", needed=needed),
            causes=(missed_texts(here, before)[list(before.missed).index("net_carbs")],),
            keys=("net_carbs",),
            pieces=needed,
            whole=not after.missed,
        )


def _elsewhere(dough: Dough) -> Iterator[QuickFix]:
    """Yield what no change of the grams mends: a vegetable full of juice, a dough that is too cold or has not rested."""
    cause = dough.handling.cause if dough.handling else None
    if cause is not None and cause.kind in _HEAT_KINDS:
        yield QuickFix(
            text=Capitalized(cause.text),
            causes=("handling",),
            keys=("handling",),
            station=_WARMER[cause.kind],
        )
    wet = [
        w for w in dough.batch.lines if "watery" in w.ingredient.flags and w.line.prep is None and not w.line.treatment
    ]
    water = sum(w.grams.value * w.ingredient.composition["water_g"] / 100 for w in wet)
    if wet and drying_numbers()["expressed_cooked"].value * water > constant("flooding_juice") * dough.batch.dough_g:
        yield QuickFix(
            text=Message("quick-fix-search-dry-the-vegetable-first-salt"),
            causes=(Message("quick-fix-search-too-much-juice"),),
            keys=("water_fill",),
            station="prep",
        )


def _best(
    problem: BalanceProblem, now: ModelCheck, moved: set[str], saved_as: Mapping[str, float]
) -> tuple[Slot, ModelCheck] | None:
    """Return the single edit that mends most; None when none does without making something else worse.

    What the saved version missed itself is no reason against a way back to it.
    """
    present = now.figures.consistency if now.figures else None
    rows = [
        row
        for row in rows_at(problem, now.grams, slopes_at(problem, now.grams, present=present))
        if row.kind not in ("soft", "mass") and not row.price
    ]
    best: tuple[float, Slot, ModelCheck] | None = None
    for slot, grams in _promising(problem, rows, now.grams, moved):
        verdict = check_by_model(problem, grams)
        allowed = saved_as if _is_back(problem, slot, grams) else {}
        if _spoils(now, verdict, allowed) or not _mends(now, verdict):
            continue
        score = verdict.violation + _CHEAP * _price(problem, slot, grams)
        if best is None or score < best[0]:
            best = score, slot, verdict
    return (best[1], best[2]) if best else None


def _promising(
    problem: BalanceProblem, rows: list[LinearRow], here: Floats, moved: set[str]
) -> list[tuple[Slot, Floats]]:
    """Return the trials worth the full model: by the linear problem the best of each line, and every way back."""
    trials = [(slot, value) for slot, value in _trials(problem, here) if slot.id not in moved]
    if not trials:
        return []
    places = {slot.id: place for place, slot in enumerate(problem.slots)}
    every = np.array([row.coefficients for row in rows])
    off = every @ here - np.array([row.bound for row in rows])
    columns = np.array([places[slot.id] for slot, _ in trials])
    steps = np.array([value for _, value in trials]) - here[columns]
    over = np.maximum(off[:, None] + every[:, columns] * steps, 0.0)
    # Far from here the slopes of handling mean little: what the sums alone say is looked at too.
    summed = np.array([float(row.kind != "handling") for row in rows])
    scores: dict[int, float] = {}
    for guess in (over.sum(axis=0), summed @ over):
        by_line: dict[str, int] = {}
        for i in np.argsort(guess, kind="stable").tolist():
            slot, value = trials[i]
            back = value == slot.reference_g != slot.start
            if back or by_line.get(slot.id, 0) < _EACH:
                by_line[slot.id] = by_line.get(slot.id, 0) + 1
                grams = _with(here, columns[i], value)
                scores[i] = -1.0 if back else float(guess[i]) + _CHEAP * _price(problem, slot, grams)
    chosen = sorted(scores, key=lambda i: (scores[i], i))[:_CANDIDATE_LIMIT]
    return [(trials[i][0], _with(here, columns[i], trials[i][1])) for i in chosen]


def _with(here: Floats, place: int, value: float) -> Floats:
    other = here.copy()
    other[place] = value
    return other


def _trials(problem: BalanceProblem, here: Floats) -> Iterator[tuple[Slot, float]]:
    """Every line at many weights, none that changes the dough by more than a third but for the way back to the saved version."""
    most = constant("mend_moves_most") * float(here @ problem.inside)
    for place, slot in enumerate(problem.slots):
        if not slot.free or slot.most <= 0:
            continue
        now, step = float(here[place]), slot.step.grams
        least, top = max(now - most, 0.0), min(now + most, slot.most)
        count = int(max(now - least, top - now) / step) + 1
        stride = max(1, count // _FINE)
        values = {round(now + k * step, 3) for k in range(-count, count + 1, stride)}
        near = {value for value in values if least <= value <= top} | {slot.reference_g}
        yield from ((slot, value) for value in sorted(near) if abs(value - now) > _LEAST_G)


def _price(problem: BalanceProblem, slot: Slot, grams: Floats) -> float:
    back = _is_back(problem, slot, grams)
    return change_cost(problem, grams) * (_BACK if back else 1.0) + (_NEW if slot.new else 0.0)


def _is_back(problem: BalanceProblem, slot: Slot, grams: Floats) -> bool:
    """Whether a line goes back to what it weighed in the saved version."""
    return slot.reference_g != slot.start and abs(float(grams[problem.slots.index(slot)]) - slot.reference_g) < _LEAST_G


def _mends(before: ModelCheck, after: ModelCheck) -> bool:
    """Whether an edit mends something for good, and much of all."""
    healed = any(key not in after.missed for key in before.missed)
    return after.violation <= (1 - (_MENDS if healed else _MENDS_ALONE)) * before.violation


def _spoils(before: ModelCheck, after: ModelCheck, allowed: Mapping[str, float] = MappingProxyType({})) -> bool:
    return any(
        miss > max(before.missed.get(key, 0.0), allowed.get(key, 0.0)) + _WORSE for key, miss in after.missed.items()
    )


def _quick_fix(problem: BalanceProblem, slot: Slot, before: ModelCheck, after: ModelCheck) -> QuickFix:
    now = next(float(g) for s, g in zip(problem.slots, after.grams, strict=True) if s is slot)
    texts = dict(zip(before.missed, missed_texts(problem, before), strict=True))
    mended = [key for key in before.missed if after.missed.get(key, 0.0) < before.missed[key] * 0.5]
    again = [
        text
        for key, text in zip(after.missed, missed_texts(problem, after), strict=True)
        if after.missed[key] > before.missed.get(key, 0.0) + _WORSE
    ]
    return QuickFix(
        text=Joined(
            (
                change_text(slot, now),
                Message("quick-fix-search-as-in-the-saved-version", again=Joined(again, ", ")) if again else "",
            ),
            "",
        ),
        causes=tuple(texts[key] for key in mended),
        keys=tuple(mended),
        line=slot.id,
        ingredient=slot.ingredient,
        grams=round(now, 3),
        whole=not after.missed,
    )
