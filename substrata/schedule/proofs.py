"""A smaller day inside a day: what is tied to the ovens. What it costs at least the whole day does too, and where its bakes lie is a good place to begin.

Tasks that may be done long before (weighed, grated) take nothing from an oven. Without them the solver proves in a second what it
does not see in a minute of the whole.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from substrata.schedule.bounds import loose, tied
from substrata.schedule.check import EARLY, OVEN_ON
from substrata.schedule.effort import Effort
from substrata.schedule.model import Found, Model, Told
from substrata.schedule.problem import Problem

_WINDOW = 60  # minutes that may lie between what is tied to an oven and the oven
_TIED = (_WINDOW, 130)  # the same where it is asked how long one is on: where less is tied it is sooner proven
_NEAR = (15, 45)  # minutes by which a bake of the whole day may lie beside where it lies in the smaller one
Spend = Callable[[float], Effort]  # a part of the time, by its share


def prove(model: Model, first: Found, spend: Spend, told: Told | None = None) -> Found:
    """Tell a model what its price is at least, and find a good plan to begin with.

    Args:
        model: of the whole day; nobody is later in it than in the first plan.
        first: a plan in which nobody is later than they must be.
        spend: a part of the time, by its share.
        told: is shown every better plan.
    """
    problem = model.problem
    baked = not isinstance(model.oven_on, int)
    free = not first.value and movable(problem)
    if free:
        model.one_at_its_due()
    least = least_minutes(problem, spend) if free and baked and len(problem.ovens) == 1 else None
    if least is not None:
        model.on_at_least(problem.ovens[0].name, *least)
    soonest = model.best(model.early, spend(0.08), first, bounding=True)
    early = soonest.bound if soonest else 0.0
    model.at_least(model.early, early)
    if not baked:
        return first
    part = _as_late(tied(problem, _WINDOW), first.value, free=free)
    part.at_least(part.early, early)
    if least is not None:
        part.on_at_least(problem.ovens[0].name, *least)
    both = part.best(OVEN_ON * part.oven_on + EARLY * part.early, spend(0.15), None, bounding=True)
    if both is None:
        return first
    model.at_least(OVEN_ON * model.oven_on + EARLY * model.early, both.bound)
    for within in _NEAR:
        # It asks for the same unknowns as the model of the whole day: its solution is one of that, value by value.
        whole = _as_late(problem, first.value, free=free)
        for task in problem.tasks:
            if task.ovens and task.fixed_start is None:
                at = both.plan.placed[task.id].start
                whole.between(task.id, at - within, at + within)
        near = whole.best(whole.price, spend(0.07), None, told)
        if near is not None:
            return near
    return first


def least_minutes(problem: Problem, spend: Spend) -> tuple[float, float]:
    """Minutes that the only oven is on at least: where it stays on, and where it is off for a while in between.

    What may be is proven with the minutes told at which it is turned on: else the solver proves it for each minute of the day anew.
    """
    steady = paused = 0.0
    for most in _TIED:
        less = tied(problem, most)
        # The one that says less bounds both.
        if steady <= paused or most == _WINDOW:
            steady = max(steady, _on(less, spend(0.07), again=False))
        if paused <= steady:
            paused = max(paused, _on(loose(less), spend(0.07), again=True))
    return steady, paused


def _on(less: Problem, effort: Effort, *, again: bool) -> float:
    day = replace(less, dues=(), now=0)
    # Before the oven, and in its pause, there is room for all there is to do and for all that it may wait: neither end is in the way.
    waits = sum(lag.most or 0 for lag in day.lags) + sum(task.longest or 0 for task in day.tasks)
    room = day.horizon + waits
    model = Model(day, horizon=3 * room)
    model.begin_at(day.ovens[0].name, room, again=2 * room if again else None)
    found = model.best(model.oven_on, effort, None, bounding=True)
    return found.bound if found else 0.0


def _as_late(problem: Problem, late: float, *, free: bool) -> Model:
    """A day in which nobody is later, and that slides to where one bake is ready when it is due, where it may."""
    day = Model(problem)
    day.keep(day.lateness, late)
    if free:
        day.one_at_its_due()
    return day


def movable(problem: Problem) -> bool:
    """Whether a day can begin later as a whole: nobody sleeps in it, nothing has begun or is pinned."""
    return not problem.hot and not problem.closed and all(task.fixed_start is None for task in problem.tasks)
