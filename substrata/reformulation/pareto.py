"""What a step further in one quantity takes of another: an ε-constraint front, handling and all rails kept at every point."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from substrata.base.errors import FormulaError
from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.settings import Settings
from substrata.evaluation.analysis.target_states import bracket_kinds
from substrata.formula.form_table import Window
from substrata.formula.formula import Formula
from substrata.ingredients.library import Floats, Library
from substrata.process.rheology.texture import texture_keys, texture_words
from substrata.reformulation.feasible_range import feasible_ranges
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import ModelCheck, check_by_model
from substrata.reformulation.program.linear_figures import ratio_of
from substrata.reformulation.program.linearisation import minutes_slope, texture_slope
from substrata.reformulation.program.successive_linearisation import search
from substrata.reformulation.request.balance_request import Wish, check_wish, target_keys
from substrata.reformulation.solutions.solution import line_changes, minutes_of

POINTS = 12
CHANGE, MINUTES = "change", "minutes"
_MORE_IS_BETTER = ("protein", "fibre", "sturdy", "crisp", "chewy", "moist", "tender")
_AXES = ("net_carbs", "protein", "cost", "energy", "fat", "fibre")
_INSIDE = 0.02  # of its reach: the outermost points are not asked for
Step = Callable[[int], bool]


@dataclass(frozen=True, kw_only=True)
class FrontPoint:
    """One dough of the front."""

    x: float
    y: float
    change: float  # cost of its change
    text: Wording  # its edits
    formula: Formula


@dataclass(frozen=True, kw_only=True)
class ParetoFront:
    """Two quantities against each other, from the easiest point to the furthest."""

    x: str
    y: str
    now_x: float
    now_y: float
    points: tuple[FrontPoint, ...]


def front_keys() -> tuple[str, ...]:
    """Return what may stand on the second axis."""
    return (CHANGE, *target_keys(), *texture_keys(), MINUTES)


def axis_words() -> dict[str, str]:
    """Return what bakers trade a quantity against, by its key."""
    labels = {key: kind.label for key, kind in bracket_kinds().items() if key in _AXES}
    scores = {key: label for key, label in texture_words().items() if key in _MORE_IS_BETTER}
    return {CHANGE: "Amount of change, g", **labels, **scores, MINUTES: "Baking time, min"}


def pareto_front(
    formula: Formula,
    library: Library,
    settings: Settings,
    x: str,
    y: str,
    *,
    points: int = POINTS,
    saved: Formula | None = None,
    step: Step = lambda _: True,
) -> ParetoFront | None:
    """Return the front of two quantities; None when it was stopped or there is no dough.

    Args:
        formula: as it stands.
        library: the ingredients.
        settings: the kitchen's choices.
        x: the quantity that goes further, point by point.
        y: what it takes: the change, another quantity, a score of texture, or minutes in the oven.
        points: how many.
        saved: the last saved version.
        step: is told how many points are done; False stops it.

    Raises:
        FormulaError: when there is no such quantity.
    """
    check_wish(Wish(), [line.id for line in formula.lines])
    for key, allowed in ((x, target_keys()), (y, front_keys())):
        if key not in allowed:
            raise FormulaError(
                "quantity not found",
                got=key[:60],
                allowed=", ".join(allowed),
                remedy="choose one of these",
                field="front",
            )
    ends = feasible_ranges(formula, library, settings, (x,), saved=saved)
    if not ends or ends[0].low is None or ends[0].high is None:
        return None
    more = x in _MORE_IS_BETTER
    now, end = ends[0].now, ends[0].high if more else ends[0].low
    front_points: list[FrontPoint] = []
    for number, bound in enumerate(np.linspace(now, end + _INSIDE * (now - end), points).tolist(), 1):
        window = Window(low=bound) if more else Window(high=bound)
        problem = BalanceProblem(formula, library, settings, Wish(targets={x: window}), saved=saved)
        point = _point(problem, x, y)
        front_points += [point] if point is not None else []
        if not step(number):
            return None
    start = BalanceProblem(formula, library, settings, Wish(), saved=saved)
    at = check_by_model(start, start.start)
    return ParetoFront(x=x, y=y, now_x=now, now_y=_read(start, at, y), points=tuple(_not_dominated(front_points, x, y)))


def _point(problem: BalanceProblem, x: str, y: str) -> FrontPoint | None:
    start = check_by_model(problem, problem.start)
    solved = (
        search(problem, start=start, aim=_aim(problem, y), quick=y == CHANGE) if start.missed or y != CHANGE else None
    )
    verdict = solved.verdict if solved is not None else start
    if solved is not None and not solved.met:
        return None
    dough = problem.at(verdict.grams)
    return FrontPoint(
        x=ratio_of(x, dough).value(dough.batch.grams),
        y=_read(problem, verdict, y),
        change=verdict.cost,
        text=Joined((change.text for change in line_changes(problem, verdict.grams)), "; ")
        or Message("pareto-as-it-stands"),
        formula=problem.formula_at(verdict.grams),
    )


def _aim(problem: BalanceProblem, y: str) -> Floats | None:
    """Return what to make small, per gram; None makes the change small."""
    if y == CHANGE:
        return None
    sign = -1.0 if y in _MORE_IS_BETTER else 1.0
    if y == MINUTES:
        # The same for every point of a front: a bake takes a while.
        run = problem.once("minutes", lambda: minutes_slope(problem, problem.start))
    elif y in texture_keys():
        run = texture_slope(problem, problem.start, y)
    else:
        ratio = ratio_of(y, problem.base)
        batch = problem.batch_at(problem.start)
        run = problem.per_line(ratio.top[0]) * ratio.scale - ratio.value(batch.grams) * problem.per_line(
            ratio.bottom[0]
        )
    size = float(np.abs(run).max())
    return sign * run / size if size else None


def _read(problem: BalanceProblem, verdict: ModelCheck, y: str) -> float:
    if y == CHANGE:
        return verdict.cost
    dough = problem.at(verdict.grams)
    if y == MINUTES:
        return minutes_of(dough) or 0.0
    if y in texture_keys():
        return verdict.figures.texture.get(y, 0.0) if verdict.figures else 0.0
    return ratio_of(y, dough).value(dough.batch.grams)


def _not_dominated(points: list[FrontPoint], x: str, y: str) -> list[FrontPoint]:
    """Only those than which no other is better in both."""
    sx, sy = (-1.0 if key in _MORE_IS_BETTER else 1.0 for key in (x, y))

    def beaten(p: FrontPoint) -> bool:
        return any(
            sx * q.x <= sx * p.x and sy * q.y <= sy * p.y and (sx * q.x < sx * p.x or sy * q.y < sy * p.y)
            for q in points
        )

    pareto_front = [p for p in points if not beaten(p)]
    return sorted({(p.x, p.y): p for p in pareto_front}.values(), key=lambda p: -sx * p.x)
