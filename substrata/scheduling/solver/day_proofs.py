"""A smaller day inside a day: what is tied to the ovens. What it costs at least the whole day does too, and where its bakes lie is a good place to begin.

Tasks that may be done long before (weighed, grated) take nothing from an oven. Without them the solver proves in a second what it
does not see in a minute of the whole. This is for days that stand by the clock, and for late ones; for the others there are cases.
"""

from __future__ import annotations

from collections.abc import Callable

from substrata.scheduling.solver.cost_bounds import tied
from substrata.scheduling.solver.cp_model import Model, OnBetter, Solution
from substrata.scheduling.solver.plan_check import EARLY, OVEN_ON
from substrata.scheduling.solver.search_effort import Effort

_NEAR = (15, 45)  # minutes by which a bake of the whole day may lie beside where it lies in the smaller one
Spend = Callable[..., Effort]  # a part of the time, by its share, as far as another is not kept for later


def prove(model: Model, first: Solution, spend: Spend, on_better: OnBetter | None = None) -> Solution:
    """Tell a model what its price is at least, and find a good plan to begin with.

    Args:
        model: of the whole day; nobody is later in it than in the first plan.
        first: a plan in which nobody is later than they must be.
        spend: a part of the time, by its share.
        on_better: is shown every better plan.

    Returns:
        The best schedule found.
    """
    problem = model.problem
    soonest = model.best(model.early, spend(0.08), first, how="both")
    early = soonest.bound if soonest else 0.0
    model.at_least(model.early, early)
    if isinstance(model.oven_on, int):
        return first
    part = Model(tied(problem))
    part.keep(part.lateness, first.value)
    part.at_least(part.early, early)
    both = part.best(OVEN_ON * part.oven_on + EARLY * part.early, spend(0.15), None, how="both")
    if both is None:
        return first
    model.at_least(OVEN_ON * model.oven_on + EARLY * model.early, both.bound)
    for within in _NEAR:
        # It asks for the same unknowns as the model of the whole day: its solution is one of that, value by value.
        whole = Model(problem)
        whole.keep(whole.lateness, first.value)
        whole.beside(both.plan, within)
        near = whole.best(whole.price, spend(0.07), None, on_better)
        if near is not None:
            return near
    return first
