"""The search for a day: what is asked to be small, by whom, and the plan that a solution tells."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, Literal

from substrata.scheduling.schedule_problem import Placed, Schedule, Status, minutes_late
from substrata.scheduling.solver.day_model import DayModel
from substrata.scheduling.solver.search_effort import Effort

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

_BOUNDING = ("objective_lb_search_no_lp", "quick_restart_no_lp")
OnBetter = Callable[[Schedule], bool]


# What those who search do: look for good plans; that, while one of them raises the bound, so that the gap says more; one alone tries
# all there is until nothing better is left; no more than find what else belongs to a plan that is told whole.
How = Literal["seek", "both", "prove", "hold"]


@dataclass(frozen=True)
class Solution:
    """A solution of the model."""

    plan: Schedule
    value: float
    bound: float
    evaluate: Callable[[Any], int]
    values: tuple[int, ...]  # of all that the model asks for, in its order


class Model(DayModel):
    """A day that can be searched. Alters as its objectives are kept."""

    def best(
        self,
        objective: Any,
        effort: Effort,
        hint: Solution | Schedule | None,
        on_better: OnBetter | None = None,
        *,
        how: How = "seek",
        within: float = 0.0,
    ) -> Solution | None:
        """Return the least of an objective that is found; None when nothing was.

        Args:
            objective: what is to be small.
            effort: search time limit.
            hint: a plan to begin with, or a solution of a model of the same day.
            on_better: is shown every better plan.
            how: what those who search do.
            within: share of a plan's price that it may be above the least: that near it is good enough.
        """
        cp, m = self.cp, self.model
        m.clear_hints()  # type: ignore[no-untyped-call]  # the library's own
        if hint is not None:
            self._hint(hint)
        m.minimize(objective)
        solver = cp.CpSolver()
        solver.parameters.num_workers = 1 if effort.steady or how in ("prove", "hold") else effort.workers
        solver.parameters.random_seed = effort.seed
        solver.parameters.relative_gap_limit = within
        solver.parameters.fix_variables_to_their_hinted_value = how == "hold"
        if how == "prove":
            solver.parameters.linearization_level = 0  # without it the same proofs take a fifth of the time
        elif how == "both" and not effort.steady and effort.workers > 1:
            # Those who bound and those who seek take turns: one more than there is room for.
            solver.parameters.num_workers = effort.workers + 1
            solver.parameters.subsolvers.extend(_BOUNDING)
        if effort.steady:
            solver.parameters.max_deterministic_time = effort.seconds
        else:
            solver.parameters.max_time_in_seconds = effort.seconds
        watcher = _Watcher.make(cp, self, on_better) if on_better else None
        self._solver = solver
        state = solver.solve(m, watcher) if watcher else solver.solve(m)
        names: dict[Any, Status] = {cp.OPTIMAL: "optimal", cp.FEASIBLE: "feasible", cp.INFEASIBLE: "infeasible"}
        self.status = names.get(state, "unknown")
        if self.status != "infeasible":
            self.bound = max(solver.best_objective_bound, 0.0)
        if state not in (cp.OPTIMAL, cp.FEASIBLE):
            return None
        return Solution(
            plan=self.plan_of(solver.value),
            value=solver.objective_value,
            bound=solver.best_objective_bound,
            evaluate=lambda expression: int(solver.value(expression)),
            values=tuple(solver.response_proto.solution[n] for n in range(len(m.proto.variables))),
        )

    def stop(self) -> None:
        """End the search that is under way."""
        if self._solver is not None:
            self._solver.stop_search()

    def _hint(self, hint: Solution | Schedule) -> None:
        if isinstance(hint, Solution):
            # All of a solution: with the starts alone a phase may end with nothing.
            for n, value in enumerate(hint.values):
                self.model.add_hint(self.model.get_int_var_from_proto_index(n), value)
            return
        for task in self.problem.tasks:
            at = hint.placed.get(task.id)
            if at is not None and task.fixed_start is None:
                self.model.add_hint(self.start[task.id], at.start)

    def plan_of(self, value: Callable[[Any], int]) -> Schedule:
        """Return the plan that the solver's values tell."""
        slid = 0 if isinstance(self.slid, int) else int(value(self.slid))
        placed = {
            task.id: Placed(
                start=int(value(self.start[task.id])) - slid,
                end=int(value(self.end[task.id])) - slid,
                oven=next((name for name in task.ovens if value(self.inside[task.id, name])), ""),
            )
            for task in self.problem.tasks
        }
        late = minutes_late(self.problem, placed)
        return Schedule(placed=placed, status="feasible", late=late)


class _Watcher:
    """Shows better plans as they are found."""

    @staticmethod
    def make(cp: Any, model: Model, on_better: OnBetter) -> cp_model.CpSolverSolutionCallback:
        class Watching(cp.CpSolverSolutionCallback):  # type: ignore[misc]  # a class that is loaded late
            def on_solution_callback(self) -> None:
                if not on_better(model.plan_of(self.value)):
                    self.stop_search()

        return Watching()
