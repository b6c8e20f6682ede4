"""The dough that a settle works on: the formula's lines and what may be brought in, all in one batch."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, TypeVar

import numpy as np

from substrata.base.settings import Settings
from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import Figures, figures
from substrata.formula.batch.batch_lines import FRYING, Batch, WeighedLine
from substrata.formula.form_table import Window
from substrata.formula.formula import Formula, Line, Target
from substrata.ingredients.groups import is_group_id, is_in_group
from substrata.ingredients.ingredient import Ingredient
from substrata.ingredients.library import Floats, Library
from substrata.process.rheology.yeast_kinetics import yeast_lines
from substrata.reformulation.program.amount_steps import Candidate, Step, candidates, may_be_brought, step_of
from substrata.reformulation.request.balance_request import Wish
from substrata.reformulation.request.exclusions import excluded_by

_FIXED_ROLES = ("flavour",)  # how a thing tastes is the baker's
_LEAST_G = 0.05
_Worked = TypeVar("_Worked")


@dataclass(frozen=True, kw_only=True)
class Slot:
    """One line as a settle sees it."""

    id: str
    ingredient: str
    material: Ingredient
    name: str
    role: str
    start: float  # g
    reference_g: float  # g of the last saved version; the start where there is none
    free: bool
    new: bool  # not in the formula
    gone: bool  # has to go
    step: Step
    most: float  # g


class BalanceProblem:
    """A formula, all that may be brought into it, and how it is looked at.

    Attributes:
        wish: what is wanted.
        original: the formula as it stands, without what has no weight.
        base: the dough with every candidate at 0 g.
        slots: the n lines that can be weighed, in the batch's order; the fat of frying is no slot.
        reference: the dough that rails are measured against: the last saved version, else the formula as it stands.
    """

    def __init__(
        self,
        formula: Formula,
        library: Library,
        settings: Settings,
        wish: Wish,
        *,
        saved: Formula | None = None,
        invited: tuple[str, ...] = (),
    ) -> None:
        if settings.coconut_is_nut and {"nut", "tree-nut"} & set(wish.without):
            wish = wish.with_changes(without=(*wish.without, "coconut"))
        self.wish, self.library, self.settings = wish, library, settings
        self.original = Dough(_with_targets(formula, wish), library, settings).as_baked()
        reference = saved if saved is not None and saved.form == formula.form else formula
        # How many pieces there are, and how thick, is the baker's word: what is kept to is told of such pieces.
        reference = replace(reference, pieces=formula.pieces, sorts=(), size=formula.size)
        self.reference = Dough(reference, library, settings, oven_loss=self.original.oven_loss)
        if self.reference.batch.dough_g <= 0:
            self.reference = self.original
        offered = self._offered(invited)
        lines = _joined(self.original.formula.lines, self.reference.formula.lines, offered)
        self.base = Dough(
            replace(self.original.formula, lines=lines), library, settings, oven_loss=self.original.oven_loss
        )
        self.slots = self._slots({c.ingredient: c for c in offered})
        self.count = len(self.slots)
        self._once: dict[str, Any] = {}

    def _offered(self, invited: tuple[str, ...]) -> tuple[Candidate, ...]:
        batch, form = self.original.batch, self.original.formula.form
        sweet = self.original.bracketed.value("sweetness") > constant("sweet_dough") if batch.dough_g else False
        named = tuple(
            Candidate(ingredient=i, most_percent=40, liking=1, never_forms=frozenset(), stands_for=self.library[i].role)
            for i in invited
            if i not in {w.ingredient.id for w in batch.lines}
        )
        usual = may_be_brought(batch, form, self.library, sweet=sweet) if self.wish.may_bring else ()
        known = {c.ingredient for c in named}
        every = (*named, *(c for c in usual if c.ingredient not in known))
        return tuple(c for c in every if self._has(c.ingredient) and not self._out(self.library[c.ingredient]))

    def _has(self, ingredient: str) -> bool:
        return (
            not self.wish.stock or is_group_id(ingredient, "water") or self.wish.stock.get(ingredient, 0.0) > _LEAST_G
        )

    def _out(self, ingredient: Ingredient) -> bool:
        return bool(excluded_by(ingredient, self.wish.without))

    def _slots(self, offered: Mapping[str, Candidate]) -> tuple[Slot, ...]:
        saved = {w.line.id: w.grams.value for w in self.reference.batch.lines}
        present = {w.line.id for w in self.original.batch.lines}
        lines = [w for w in self.base.batch.lines if w.role != FRYING]
        free = self._free_lines(lines, present)
        most = self._most_grams(lines, offered, saved, present)
        return tuple(
            Slot(
                id=w.line.id,
                ingredient=w.ingredient.id,
                material=w.ingredient,
                name=w.ingredient.pack.name if w.ingredient.pack else w.ingredient.name,
                role=w.role,
                start=w.grams.value,
                reference_g=saved.get(w.line.id, w.grams.value),
                free=w.line.id in free,
                new=w.line.id not in present and saved.get(w.line.id, 0.0) <= 0,
                gone=w.line.id in present and self._goes(w),
                step=self._step(w, offered.get(w.ingredient.id) if w.line.id not in present else None),
                most=most[w.line.id],
            )
            for w in lines
        )

    def _free_lines(self, lines: Sequence[WeighedLine], present: Collection[str]) -> set[str]:
        """Return the ids of the lines that may change: those that have to go, and those that nothing holds or bars."""
        raised = bool(yeast_lines(self.original.batch))
        free = set()
        for w in lines:
            held = w.line.locked or w.line.id in self.wish.locked or not w.in_dough or self._is_fixed(w, raised=raised)
            weighed = w.line.prep is not None and bool(w.line.prep.steps) and w.line.prep.weighed
            if w.line.id in present:
                if self._goes(w) or not (held or weighed):
                    free.add(w.line.id)
            elif not (held or weighed or self._barred(w)):
                free.add(w.line.id)
        return free

    def _barred(self, w: WeighedLine) -> bool:
        """Return True for a candidate that must not come in: it was named to be left out, or belongs to what is."""
        named = {o.ingredient.id for o in self.original.batch.lines if o.line.id in self.wish.without_lines}
        return w.ingredient.id in named or self._out(w.ingredient)

    def _most_grams(
        self,
        lines: Sequence[WeighedLine],
        offered: Mapping[str, Candidate],
        saved: Mapping[str, float],
        present: Collection[str],
    ) -> dict[str, float]:
        """Return the most grams of each line: by its candidate's limit, more acid or fat where it replaces some, and the stock."""
        dough_g = max(self.original.batch.dough_g, self.reference.batch.dough_g)
        limits = {c.ingredient: c.most_percent for c in (*candidates(), *offered.values())}
        gone_fat = sum(w.grams.value for w in self.original.batch.lines if w.role == "fat" and self._goes(w))
        result = {}
        for w in lines:
            start, before, new = w.grams.value, saved.get(w.line.id, 0.0), w.line.id not in present
            limit = limits.get(w.ingredient.id)
            if limit is not None and w.role == "fat" and dough_g:
                limit = max(limit, 100 * gone_fat / dough_g)  # fat in place of fat
            most = dough_g + start if limit is None else max(limit / 100 * dough_g, start, before)
            if w.role == "acid" and start > 0:
                most = max(constant("more_acid") * start + step_of(w.ingredient, w.role, self.settings).grams, before)
            if self.wish.stock and not is_in_group(w.ingredient, "water"):
                most = min(most, max(self.wish.stock.get(w.ingredient.id, 0.0), 0.0 if new else min(start, most)))
            out = self._barred(w) if new else self._goes(w)
            result[w.line.id] = 0.0 if out else most
        return result

    def _goes(self, w: WeighedLine) -> bool:
        """Whether a line has to go."""
        return w.line.id in self.wish.without_lines or self._out(w.ingredient)

    def _is_fixed(self, w: WeighedLine, *, raised: bool) -> bool:
        """Whether a line is the baker's alone: how it tastes, the yeast, and the spoon of sugar that feeds it."""
        if w.role in _FIXED_ROLES or "yeast" in w.ingredient.flags:
            return True
        feeds = raised and w.ingredient.parameter("fermentable").value > 0 and w.role == "sweetener"
        return feeds and w.grams.value < constant("yeast_food") * max(self.original.batch.dough_g, 1.0)

    def _step(self, w: WeighedLine, brought: Candidate | None) -> Step:
        step = step_of(w.ingredient, w.role, self.settings, in_grams=self.wish.steps == "grams")
        return replace(step, weight=step.weight * brought.liking) if brought else step

    @cached_property
    def start(self) -> Floats:
        """Grams as the formula stands, shape (n,)."""
        return np.array([slot.start for slot in self.slots])

    @cached_property
    def lift_state(self) -> str:
        """Where the lift of the formula as it stands lies."""
        state = figures(self.original)
        return state.states["lift"] if state else "open"

    @cached_property
    def usual_consistency(self) -> float | None:
        """Consistency at shaping of the dough that is kept to, log10 Pa s; None where there is none to speak of."""
        return self._usual.consistency if self._usual else None

    @cached_property
    def usual_texture(self) -> Mapping[str, float]:
        """What the dough that is kept to eats like; empty where there is none to speak of."""
        return self._usual.texture if self._usual else {}

    @cached_property
    def _usual(self) -> Figures | None:
        return figures(self.reference)

    @cached_property
    def inside(self) -> Floats:
        """1.0 for what is part of the dough, shape (n,)."""
        return self.base.batch.inside[: self.count]

    @property
    def targets(self) -> Mapping[str, Window]:
        """What the baker wants of which quantity: the wish's and the formula's own."""
        return {key: target.window for key, target in self.original.formula.targets.items()}

    @cached_property
    def frying(self) -> float:
        """Grams of fat that frying brings, for each gram of dough; 0 where nothing is fried."""
        fat = sum(w.grams.value for w in self.base.batch.lines if w.role == FRYING)
        return fat / self.base.batch.dough_g if self.base.batch.dough_g else 0.0

    def once(self, name: str, work: Callable[[], _Worked]) -> _Worked:
        """Return what is worked out once for a whole settle."""
        if name not in self._once:
            self._once[name] = work()
        return self._once[name]  # type: ignore[no-any-return]  # what this work gave

    def per_line(self, coefficients: Floats) -> Floats:
        """Coefficients of the n slots, that of the frying fat laid on the dough that brings it; (lines,) to (n,)."""
        line_coefficients = coefficients[: self.count]
        if len(coefficients) == self.count:
            return line_coefficients
        result: Floats = line_coefficients + self.frying * coefficients[self.count] * self.inside
        return result

    def batch_at(self, grams: Floats) -> Batch:
        """Return the batch at some weights, shape (n,): for figures that hang on the weights alone."""
        if len(self.base.batch.lines) == self.count:
            return self.base.batch.with_grams(grams)
        return self.base.batch.with_grams(np.append(grams, self.frying * float(grams @ self.inside)))

    def at(self, grams: Floats) -> Dough:
        """Return the dough at some weights, shape (n,)."""
        changed = {s.id: g for s, g in zip(self.slots, grams.tolist(), strict=True) if abs(g - s.start) > 1e-9}
        return self.base.with_changes(grams=changed) if changed else self.base

    def formula_at(self, grams: Floats) -> Formula:
        """Return the formula at some weights: what is at nothing is left out, and a changed line is written in grams."""
        amounts = {slot.id: (slot, float(g)) for slot, g in zip(self.slots, grams, strict=True)}
        lines = []
        for line in self.base.formula.lines:
            slot, now = amounts.get(line.id, (None, 0.0))
            if slot is None or abs(now - slot.start) < 1e-9:
                if slot is None or now > 0 or not (slot.new or slot.id not in self._present_ids):
                    lines.append(line)
            elif now > _LEAST_G:
                # A line that comes in says its role, so that it is drawn as what it is before it is judged again.
                role = line.role or (slot.role if slot.new else "")
                lines.append(replace(line, grams=round(now, 3), entered=f"{now:g} g", role=role))
        return replace(self.original.formula, lines=tuple(lines), targets=self._baker_targets)

    @cached_property
    def _present_ids(self) -> frozenset[str]:
        return frozenset(line.id for line in self.original.formula.lines)

    @cached_property
    def _baker_targets(self) -> Mapping[str, Target]:
        return self.original.formula.targets


def _with_targets(formula: Formula, wish: Wish) -> Formula:
    targets = {key: Target(low=window.low, high=window.high) for key, window in wish.targets.items()}
    return replace(formula, targets={**formula.targets, **targets}) if targets else formula


def _joined(lines: tuple[Line, ...], saved: tuple[Line, ...], offered: tuple[Candidate, ...]) -> tuple[Line, ...]:
    """Return the lines, those that the saved version had besides, and the candidates; none of the added weighs anything."""
    ids = {line.id for line in lines}
    here = {line.ingredient for line in lines}
    back = [
        replace(line, grams=0.0, entered="")
        for line in saved
        if line.id not in ids and line.ingredient not in here and line.prep is None
    ]
    ids |= {line.id for line in back}
    here |= {line.ingredient for line in back}
    new = []
    for candidate in offered:
        if candidate.ingredient not in here:
            key = candidate.ingredient
            while key in ids:
                key += "-new"
            ids.add(key)
            new.append(Line(id=key, ingredient=candidate.ingredient, grams=0.0))
    return (*lines, *back, *new)
