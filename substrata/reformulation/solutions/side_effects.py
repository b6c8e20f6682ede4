"""What a way takes from a dough and what it brings that somebody has to know."""

from __future__ import annotations

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.ingredients.groups import is_group_id, is_in_group
from substrata.ingredients.library import Floats
from substrata.nutrition.allergens import allergens
from substrata.reformulation.program.balance_problem import BalanceProblem, Slot
from substrata.reformulation.request.exclusions import excluded_by


def losses(problem: BalanceProblem, grams: Floats) -> tuple[Wording, ...]:
    """Return what is lost with what an exclusion takes away."""
    gone = [slot for slot in problem.slots if slot.gone and slot.start > 0]
    texts: list[Wording] = [
        Message("side-effects-without-the-bread-loses", exclusion_name=exclusion.name, lost=exclusion.lost)
        for slot in gone
        for exclusion in excluded_by(slot.material, problem.wish.without)
    ]
    return (*dict.fromkeys(texts), *_school(problem, gone, grams))


def _school(problem: BalanceProblem, gone: list[Slot], grams: Floats) -> tuple[Wording, ...]:
    """On which school of nut to coconut flour an answer lands."""
    nut = sum(s.start for s in gone if any(f.startswith("nut:") for f in s.material.flags) and s.role == "base")
    coconut = sum(
        float(g) - s.start
        for s, g in zip(problem.slots, grams, strict=True)
        if is_group_id(s.ingredient, "coconut-flour")
    )
    others = any(
        s.role == "base" and not is_group_id(s.ingredient, "coconut-flour") and float(g) > s.start
        for s, g in zip(problem.slots, grams, strict=True)
    )
    if not nut or coconut <= 0 or others:
        return ()
    ratio = nut / coconut
    near = (
        Message("side-effects-half-the-weight")
        if ratio < constant("coconut_schools")
        else Message("side-effects-a-quarter-of-the-weight")
    )
    return (Message("side-effects-nut-flour-to-coconut-flour", ratio=Quantity(ratio, "number", digits=1), near=near),)


def cautions(problem: BalanceProblem, after: Dough) -> tuple[Wording, ...]:
    """Return what a way brings that somebody has to know."""
    had = {a.name for a in allergens(problem.original.batch)}
    texts: list[Wording] = [
        Message("side-effects-adds-the-allergen", name=a.name)
        for a in allergens(after.batch)
        if a.name not in had and not a.traces
    ]
    lifted = any(is_in_group(w.ingredient, group) for w in after.batch.lines for group in ("soda", "leavening-powder"))
    flags = frozenset().union(*(w.ingredient.flags for w in after.batch.lines)) if after.batch.lines else frozenset()
    before = (
        frozenset().union(*(w.ingredient.flags for w in problem.original.batch.lines))
        if problem.original.batch.lines
        else frozenset()
    )
    if "seed:sunflower" in flags and "seed:sunflower" not in before and lifted:
        texts.append(Message("side-effects-add-a-little-lemon-juice"))
    if "psyllium" in flags and "psyllium" not in before:
        texts.append(Message("side-effects-drink-plenty-of-liquid-with"))
    return tuple(texts)
