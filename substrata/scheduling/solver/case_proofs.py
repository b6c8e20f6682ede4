"""Days told apart by the bake that has least to spare: a proof for each, and the plans that are found on the way.

A day that is all in time, and in which nothing stands by the clock, can begin later until a bake is ready just when it is due.
Whichever that is, the day no longer slides: what the solver then learns of one plan holds for all that are like it, and it proves in
seconds what it does not in minutes of the day as a whole. What costs no less in any case costs no less at all.
"""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from concurrent.futures import FIRST_COMPLETED, Future, ThreadPoolExecutor, wait
from dataclasses import dataclass, replace
from functools import partial
from math import floor
from operator import attrgetter
from threading import Lock

from substrata.scheduling.schedule_problem import Schedule, ScheduleProblem
from substrata.scheduling.solver.cost_bounds import anchors, tied, work
from substrata.scheduling.solver.cp_model import Model, OnBetter, Solution
from substrata.scheduling.solver.plan_check import EARLY, HANDS, OVEN_ON
from substrata.scheduling.solver.search_effort import Effort

_NEAR = 15  # minutes by which a bake of the whole day may lie beside where it lies in the smaller one
_GOALS = (0.03, 0.01, 0.0)  # shares of the price by which the best plan may still be above the least
_PASSES = (0.15, 0.6, 0.8)  # shares of what time is left: a first look, which tells good plans; the proof; what it left
_BESIDE = 0.07  # share of the time in which the whole day is sought beside the two best smaller ones
_HEARD_S = 0.1  # so often is looked whether a better plan was found
_CASE_SECONDS = 0.5  # and so often, where none was, is asked whether the search is to go on
_LEAST_S = 0.02  # of a case that has no time left: it is seen at least that it cannot be


@dataclass
class _Case:
    """Days in which one bake has least to spare."""

    bake: str
    bound: float  # what one of them costs at least
    smaller: Solution | None = None  # of what is tied to the ovens, the best
    beside: bool = False  # whether the whole day was sought beside it
    open: bool = True  # a smaller day that costs less may yet be found


class Cases:
    """What a day costs at least, and the best plan that was found while it was proven.

    Args:
        problem: a day that may slide, and can be all in time.
        first: a plan of it; its value is its price.
        effort: how many search, and whether the answer has to be the same each time.
        told: is shown every better plan, and the best again where none comes; False stops the search.
    """

    def __init__(
        self, problem: ScheduleProblem, first: Solution, effort: Effort, on_better: OnBetter | None = None
    ) -> None:
        self.problem, self.effort, self.on_better = problem, effort, on_better
        self.best, self.price = first.plan, first.value
        self.stopped = False
        self._hands = HANDS * -(-work(problem) // problem.people)  # no day asks for them less long than for its work
        self._cases = [_Case(bake, self._hands) for bake in sorted(anchors(problem))]
        self._lock = Lock()
        self._models: list[Model] = []
        self._shown: Schedule | None = None
        self._heard = 0.0

    @property
    def bound(self) -> float:
        """What the day costs at least."""
        return min(case.bound for case in self._cases)

    def smaller(self, seconds: float) -> None:
        """Each case of what is tied to the ovens alone, and the whole day about where its bakes lie in the best of that.

        Args:
            seconds: that it may take.
        """
        until = time.monotonic() + seconds
        for number, part in enumerate(_PASSES):
            seconds_remaining = seconds if self.effort.steady else until - time.monotonic()
            open_ = [case for case in self._cases if case.open and case.bound <= self._most(_GOALS[0])]
            if not open_ or (number > 1 and 2 * len(open_) > len(self._cases)):
                return
            self._each(self._smaller, open_, part * seconds_remaining)
            good = [
                case for case in self._cases if case.smaller and not case.beside and case.smaller.value < self.price
            ]
            self._each(self._beside, sorted(good, key=_smallest)[:2], _BESIDE * seconds)

    def whole(self, seconds: float) -> None:
        """Each case of the whole day, until no plan of it is better by more than a share; then by a smaller one.

        Args:
            seconds: that it may take.
        """
        until = time.monotonic() + seconds
        for goal in _GOALS:
            seconds_each = seconds / len(_GOALS) if self.effort.steady else until - time.monotonic()
            below = [case for case in self._cases if case.bound <= self._most(goal)]
            if any(case.open for case in below):
                return  # what is not seen of the smaller day is not seen of the whole
            self._each(partial(self._whole, goal), sorted(below, key=attrgetter("bound")), seconds_each)
            if self.bound <= self._most(goal):
                return

    def _most(self, goal: float) -> int:
        """Return what a plan may cost that is better by more than a share."""
        return min(floor((1 - goal) * self.price), floor(self.price) - 1)

    def _model(self, problem: ScheduleProblem, case: _Case) -> Model:
        model = Model(problem, at_due=case.bake)
        model.keep(model.lateness, 0)
        self._models.append(model)
        return model

    def _smaller(self, case: _Case, effort: Effort) -> None:
        most = self._most(_GOALS[0])
        model = self._model(tied(self.problem), case)
        price = self._hands + OVEN_ON * model.oven_on + EARLY * model.early
        model.keep(price, most)
        best = model.best(price, effort, None, how="prove")
        case.open = model.status in ("unknown", "feasible")
        self._proven(case, model, most)
        if best is not None and (case.smaller is None or best.value < case.smaller.value):
            case.smaller, case.beside = best, False

    def _beside(self, case: _Case, effort: Effort) -> None:
        if case.smaller is None:
            return
        case.beside = True
        model = self._model(self.problem, case)
        model.keep(model.price, self._most(0))
        model.beside(case.smaller.plan, _NEAR)
        self._take(model.best(model.price, effort, None))

    def _whole(self, goal: float, case: _Case, effort: Effort) -> None:
        most = self._most(goal)
        if case.bound > most:
            return
        model = self._model(self.problem, case)
        model.keep(model.price, most)
        self._take(model.best(model.price, effort, None, how="prove", within=goal))
        self._proven(case, model, most)

    def _proven(self, case: _Case, model: Model, most: int) -> None:
        bound = most + 1 if model.status == "infeasible" else min(model.bound, most + 1)
        case.bound = max(case.bound, bound)

    def _take(self, solution: Solution | None) -> None:
        if solution is None:
            return
        plan, minutes = as_late_as_may_be(self.problem, solution.plan)
        price = solution.value - EARLY * minutes * len(self.problem.dues)
        with self._lock:
            if price < self.price:
                self.best, self.price = plan, price

    def _each(self, step: Callable[[_Case, Effort], None], cases: Sequence[_Case], seconds: float) -> None:
        """Take one step of each case, as many at once as there are workers, each with its part of the time left."""
        alone, many = replace(self.effort, workers=1), self.effort.workers
        self._models = []
        if self.effort.steady:
            for case in cases:
                step(case, replace(alone, seconds=seconds / len(cases)))
            return
        until, waiting = time.monotonic() + seconds, list(cases)
        under_way: set[Future[None]] = set()
        with ThreadPoolExecutor(many) as pool:
            while (waiting and not self.stopped) or under_way:
                while waiting and len(under_way) < many and not self.stopped:
                    seconds_remaining = max(until - time.monotonic(), _LEAST_S)
                    part = seconds_remaining * min(many / len(waiting), 1.0)
                    under_way.add(pool.submit(step, waiting.pop(0), replace(alone, seconds=part)))
                done, under_way = wait(under_way, timeout=_HEARD_S, return_when=FIRST_COMPLETED)
                for outcome in done:
                    outcome.result()
                self._hear()

    def _hear(self) -> None:
        now, best = time.monotonic(), self.best
        if self.on_better and not self.stopped and (best is not self._shown or now - self._heard > _CASE_SECONDS):
            self._shown, self._heard = best, now
            self.stopped = not self.on_better(best)
        if self.stopped:
            for model in list(self._models):
                model.stop()


def as_late_as_may_be(problem: ScheduleProblem, plan: Schedule) -> tuple[Schedule, int]:
    """Return a plan of a day that may slide, begun so much later that a bake is ready when it is due; and by how many minutes."""
    minutes = min(due.minute - plan.placed[due.task].end for due in problem.dues)
    placed = {task: replace(at, start=at.start + minutes, end=at.end + minutes) for task, at in plan.placed.items()}
    return replace(plan, placed=placed), minutes


def _smallest(case: _Case) -> float:
    return case.smaller.value if case.smaller else case.bound
