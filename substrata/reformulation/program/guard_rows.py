"""The rows of the guard rails, against the dough that is kept to."""

from __future__ import annotations

from collections.abc import Iterator
from math import inf

import numpy as np

from substrata.evaluation.target_ranges import is_outside
from substrata.formula.form_table import Window
from substrata.process.rheology.phases import is_solid_fat
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.linear_figures import ratio_of
from substrata.reformulation.program.linear_row import TINY, LinearRow, ratio_rows, total_row
from substrata.reformulation.request.guard_limits import GuardLimit, guard_limits

_MAIN = 0.1  # share of the flours (of the cheeses, …) from which a line is one that makes the bread what it is
_MAKES_IT = ("base", "binder", "egg", "cheese", "vegetable", "fat", "sweetener", "lift")
_GIVES = 200.0  # price of a rail that gives where something has to go


def rail_rows(problem: BalanceProblem) -> Iterator[LinearRow]:
    """All of them, but those that the baker has let go."""
    for rail in guard_limits().values():
        if rail.id not in problem.wish.released:
            yield from _rows_of_rail(problem, rail)


def _rows_of_rail(problem: BalanceProblem, rail: GuardLimit) -> Iterator[LinearRow]:
    """Return the rows of one guard limit, against the reference dough."""
    if rail.id == "mass":
        if not problem.wish.may_change_mass:
            whole = problem.reference.batch.dough_g
            yield total_row("mass", "mass", "high", problem.inside, rail.high * whole, size=whole)
            yield total_row("mass", "mass", "low", problem.inside, rail.low * whole, size=whole)
    elif rail.id.removeprefix("soft:") in problem.base.ratios_of and rail.id.startswith("soft:"):
        yield from _soft(problem, rail, rail.id.removeprefix("soft:"))
    elif rail.id in ("protein", "fat", "sweetness", "heat_set"):
        yield from _near_original(problem, rail)
    elif rail.id == "soft:added_fat":
        yield from _added_fat(problem, rail)
    elif rail.id == "identity":
        yield from _identity(problem, rail)
    elif rail.id in ("egg", "cheese", "solid_fat"):
        yield from _sum_row(problem, rail)
    elif rail.id == "fat_follows" and _gone(problem, "fat"):
        # Butter that goes is replaced by fat: nothing else makes it short.
        batch = problem.base.batch
        fat = problem.per_line(batch.nutrient("fat_g")[0] * batch.is_role("fat"))
        solid = np.array([float(s.role == "fat" and is_solid_fat(s.ingredient, s.role)) for s in problem.slots])
        firm = any(s.gone and s.start > 0 and f for s, f in zip(problem.slots, solid, strict=True))
        if firm and any(f and not s.gone and s.most > 0 for s, f in zip(problem.slots, solid, strict=True)):
            fat = fat * solid  # firm fat by firm fat: oil makes a shortbread run
        now = float(fat @ problem.start)
        yield total_row("rail:fat_follows", "rail", "low", fat, rail.low * now, size=max(now, 1.0))


def _near_original(problem: BalanceProblem, rail: GuardLimit) -> Iterator[LinearRow]:
    """Yield a quantity within its share of what it was, unless a target asks for something else, or an exclusion takes it."""
    target_range = problem.original.windows.get(rail.id)
    target = target_range.window if target_range and target_range.source == "target" else Window()
    now = _held(problem, rail.id)
    if now <= TINY:
        return
    low = now * rail.low if rail.low and not _requested_below(target, now * rail.low) else None
    high = now * rail.high if rail.high < inf and not _requested_above(target, now * rail.high) else None
    ratio = ratio_of(rail.id, problem.base)
    price = 0.0 if rail.id == "sweetness" and not _gone(problem, "sweetener") else _soft_when_excluded(problem)
    yield from ratio_rows(
        problem, ratio, f"rail:{rail.id}", "rail", Window(low=low, high=high), problem.start, price=price
    )


def _held(problem: BalanceProblem, key: str) -> float:
    """Return the quantity in the dough that is kept to."""
    return problem.reference.bracketed.value(key) if problem.reference.batch.dough_g > 0 else 0.0


def _requested_below(target: Window, low: float) -> bool:
    return target.high is not None and target.high < low


def _requested_above(target: Window, high: float) -> bool:
    return target.low is not None and target.low > high


def _gone(problem: BalanceProblem, role: str) -> bool:
    """Whether something of a role has to go."""
    return any(slot.gone and slot.start > 0 and slot.role == role for slot in problem.slots)


def _soft_when_excluded(problem: BalanceProblem) -> float:
    """Where something has to go, what it held gives a little, at a price."""
    return _GIVES if any(slot.gone and slot.start > 0 for slot in problem.slots) else 0.0


def _soft(problem: BalanceProblem, rail: GuardLimit, key: str) -> Iterator[LinearRow]:
    now = _held(problem, key)
    target = problem.original.windows.get(key)
    if target is not None:
        now = max(now, target.window.low or 0.0)
        now = min(now, target.window.high) if target.window.high is not None else now
    if now > TINY:
        window = Window(low=now * rail.low, high=now * rail.high)
        batch = problem.batch_at(problem.start)
        yield from ratio_rows(
            problem, ratio_of(key, problem.base, batch), rail.id, "soft", window, problem.start, price=rail.price
        )


def _identity(problem: BalanceProblem, rail: GuardLimit) -> Iterator[LinearRow]:
    """At least half of each flour, binder, egg, cheese and fat that makes the bread what it is."""
    for role in _MAKES_IT:
        if role == "lift" and is_outside(problem.lift_state):
            continue  # what is to be mended may go
        slots = [s for s, i in zip(problem.slots, problem.inside, strict=True) if s.role == role and i and not s.new]
        whole = sum(s.reference_g for s in slots)
        for slot in slots:
            if slot.free and not slot.gone and whole and slot.reference_g >= _MAIN * whole:
                counted = np.array([float(other is slot) for other in problem.slots])
                least = rail.low * min(slot.reference_g, slot.start)
                yield total_row(
                    f"rail:identity:{slot.id}", "rail", "low", counted, least, size=max(slot.reference_g, 1.0)
                )


def _sum_row(problem: BalanceProblem, rail: GuardLimit) -> Iterator[LinearRow]:
    """Egg, cheese or solid fat near what it was."""
    counted = np.array([float(_counts(problem, rail.id, i)) for i in range(problem.count)]) * problem.inside
    now = float(counted @ np.array([s.reference_g for s in problem.slots]))
    here = float(counted @ problem.start)
    if now <= 0 or any(slot.gone and c for slot, c in zip(problem.slots, counted, strict=True)):
        return
    if rail.high < inf:
        # One egg more is always allowed: on a small dough half an egg is not to be had.
        most = max(now * rail.high, now + 50.0 if rail.id == "egg" else 0.0, here)
        yield total_row(f"rail:{rail.id}", "rail", "high", counted, most, size=now)
    if rail.low:
        yield total_row(f"rail:{rail.id}", "rail", "low", counted, min(now * rail.low, here), size=now)


def _added_fat(problem: BalanceProblem, rail: GuardLimit) -> Iterator[LinearRow]:
    """Butter and oil near what they were, at a price: fat is no flour."""
    counted = np.array([float(slot.role == "fat") for slot in problem.slots]) * problem.inside
    now = float(counted @ np.array([s.reference_g for s in problem.slots]))
    if now > 0:
        yield total_row(rail.id, "soft", "high", counted, now * rail.high, size=now, price=rail.price)
        yield total_row(rail.id, "soft", "low", counted, now * rail.low, size=now, price=rail.price)


def _counts(problem: BalanceProblem, rail: str, place: int) -> bool:
    slot = problem.slots[place]
    if rail == "solid_fat":
        return slot.role == "fat" and is_solid_fat(slot.ingredient, slot.role)
    return slot.role == rail
