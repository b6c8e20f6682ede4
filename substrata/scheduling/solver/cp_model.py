"""A plan as the solver takes it: start times are the unknowns, what cannot be at once is ordered pair by pair.

Stages in one oven are ordered with the minutes its temperature needs between them (a study of five ways to write this found it the
quickest to good plans). The solver is loaded when a model is first made.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from itertools import pairwise
from math import ceil
from typing import TYPE_CHECKING, Any, Literal

from substrata.base.tables.table_reader import constant, whole_constant
from substrata.scheduling.schedule_problem import (
    Due,
    Placed,
    Schedule,
    ScheduledOven,
    ScheduleProblem,
    Status,
    Task,
    minutes_late,
)
from substrata.scheduling.solver.cost_bounds import anchors, least_on, work
from substrata.scheduling.solver.plan_check import A_LATE_BAKE, EARLY, HANDS, OVEN_ON
from substrata.scheduling.solver.search_effort import Effort

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

_MOST_OFF = 3  # pauses in which an oven is off that are looked for
_BOUNDING = ("objective_lb_search_no_lp", "quick_restart_no_lp")
_HAIR = 1e-6
_DOOR = 9  # more than any oven is opened for at once
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


@dataclass(frozen=True)
class _Pause:
    """In which an oven may be off."""

    off: Any
    until: Any
    minutes: Any


class Model:
    """The problem as the solver takes it. Alters as its objectives are kept."""

    def __init__(self, problem: ScheduleProblem, *, at_due: str | None = None) -> None:
        """Ask for a day, or for those days in which one bake has least to spare: they lie so that it is ready when it is due.

        Args:
            problem: the day; one that may slide where a bake is named.
            at_due: of those that are baked, the bake that has least to spare; None: any day.
        """
        from ortools.sat.python import cp_model

        self.cp = cp_model
        self.problem, self.model = problem, cp_model.CpModel()
        self.status: Status = "unknown"
        self.bound = 0.0  # of what was last asked to be small, where it was not infeasible
        self._solver: Any = None
        self.horizon = problem.horizon
        self.at_due = next((due for due in problem.dues if due.bake == at_due), None)
        self.slid = self._slid()
        self.start: dict[str, Any] = {}
        self.end: dict[str, Any] = {}
        self.size: dict[str, Any] = {}
        self.inside: dict[tuple[str, str], Any] = {}  # task, oven → whether it is there
        for task in problem.tasks:
            self._place(task)
        self._lags()
        self.hands = self._hands()
        self._things()
        self.oven_on = sum((self._oven(oven.name) for oven in problem.ovens), start=0)
        self.late = {due.bake: self._late(due) for due in problem.dues}
        self.lateness: Any = sum((late for late, _, _ in self.late.values()), start=0)
        self.early: Any = sum((rest for _, rest, _ in self.late.values()), start=0)
        if self.at_due is not None:
            self._held(self.at_due)
        spans: Any = sum(self._spans(), start=0)
        self._at_least(spans)
        self.price: Any = OVEN_ON * self.oven_on + HANDS * spans + EARLY * self.early
        self.polish: Any = HANDS * spans + EARLY * self.early + self._waiting()

    def _slid(self) -> Any:
        """Minutes by which the day lies later than it is meant.

        What is baked in no oven is not held by the bake that is at its due: it may have less to spare than that one, and all
        that is baked then is so much earlier.

        Returns:
            An expression of the model.
        """
        if self.at_due is None or len(anchors(self.problem)) == len(self.problem.dues):
            return 0
        return self.model.new_int_var(0, self.horizon, "slid")

    def _held(self, at_due: Due) -> None:
        """One of those that are baked is at its due, and none of them later."""
        self.model.add(self.end[at_due.task] == at_due.minute)
        for due in self.problem.dues:
            if due.bake in anchors(self.problem):
                self.model.add(self.end[due.task] <= due.minute)

    def _place(self, task: Task) -> None:
        m = self.model
        if task.fixed_start is not None:
            start = m.new_int_var(task.fixed_start, task.fixed_start, task.id)
        else:
            start = m.new_int_var(self.problem.now, self.horizon, task.id)
            if not isinstance(self.slid, int):
                m.add(start >= self.problem.now + self.slid)
        if task.fixed_end is not None:
            end: Any = m.new_int_var(task.fixed_end, task.fixed_end, f"{task.id} end")
        elif task.passive:
            end = m.new_int_var(0, self.horizon * 2, f"{task.id} end")
            m.add(end - start >= task.minutes)
            if task.longest is not None:
                m.add(end - start <= max(task.longest, task.minutes))
        else:
            end = start + task.minutes
        self.start[task.id], self.end[task.id] = start, end
        self.size[task.id] = task.minutes
        if task.passive or task.fixed_end is not None:
            self.size[task.id] = m.new_int_var(0, self.horizon * 2, f"{task.id} length")
            m.add(self.size[task.id] == end - start)
        if task.ovens:
            for name in task.ovens:
                self.inside[task.id, name] = m.new_bool_var(f"{task.id} in {name}")
            m.add_exactly_one(self.inside[task.id, name] for name in task.ovens)

    def _lags(self) -> None:
        for lag in self.problem.lags:
            self.model.add(self.start[lag.after] >= self.end[lag.before] + lag.least)
            if lag.most is not None:
                until = self.end[lag.after] if lag.to_end else self.start[lag.after]
                self.model.add(until <= self.end[lag.before] + lag.most)

    def _hands(self) -> list[tuple[Any, Any]]:
        """Intervals that take hands: no more at once than there are people, none asleep."""
        m, intervals, times = self.model, [], []
        for task in self.problem.tasks:
            if task.fixed_end is not None:
                continue
            start, end = self.start[task.id], self.end[task.id]
            last = task.tail + task.watch
            if task.hands == "all":
                intervals.append(m.new_interval_var(start, self.size[task.id], end, f"{task.id} hands"))
                times.append((start, end))
            elif task.hands == "ends":
                if task.head:
                    intervals.append(m.new_fixed_size_interval_var(start, task.head, f"{task.id} head"))
                    times.append((start, start + task.head))
                if last:
                    intervals.append(m.new_fixed_size_interval_var(end - last, last, f"{task.id} tail"))
                    times.append((end - last, end))
        sleep = [
            m.new_fixed_size_interval_var(a, b - a, "sleep") for a, b in self.problem.closed if b > self.problem.now
        ]
        if self.problem.people == 1:
            m.add_no_overlap([*intervals, *sleep])
        else:
            m.add_cumulative(
                [*intervals, *sleep], [1] * len(intervals) + [self.problem.people] * len(sleep), self.problem.people
            )
        return times

    def _things(self) -> None:
        intervals: dict[str, list[tuple[Any, int]]] = {}
        for t in self.problem.tasks:
            for name in t.uses:
                box = self.model.new_interval_var(self.start[t.id], self.size[t.id], self.end[t.id], f"{t.id} {name}")
                intervals.setdefault(name, []).append((box, 1))
        for hold in self.problem.holds:
            length = self.model.new_int_var(0, self.horizon * 2, "")
            start, end = self.start[hold.since], self.end[hold.until]
            box = self.model.new_interval_var(start, length, end, f"{hold.since} {hold.thing}")
            intervals.setdefault(hold.thing, []).append((box, hold.count))
        for name, rows in intervals.items():
            capacity = self.problem.capacity.get(name, 1)
            if capacity == 1 and all(count == 1 for _, count in rows):
                self.model.add_no_overlap([box for box, _ in rows])
            else:
                self.model.add_cumulative([box for box, _ in rows], [count for _, count in rows], capacity)

    def _oven(self, name: str) -> Any:
        """One oven's trays, temperatures and door; returns for how long it is on."""
        m, oven = self.model, self.problem.oven_named(name)
        rows = [t for t in self.problem.tasks if name in t.ovens]
        if not rows:
            return 0
        here = {t.id: self.inside[t.id, name] for t in rows}
        boxes = {
            t.id: m.new_optional_fixed_size_interval_var(self.start[t.id], t.minutes, here[t.id], f"{t.id} {name}")
            if t.fixed_end is None and not t.passive
            else m.new_optional_interval_var(
                self.start[t.id], self.size[t.id], self.end[t.id], here[t.id], f"{t.id} {name}"
            )
            for t in rows
        }
        m.add_cumulative(list(boxes.values()), [t.trays for t in rows], oven.trays)
        for n, row in enumerate(rows):
            for other in rows[n + 1 :]:
                if not row.shares(other, oven.share_k):
                    both, first = [here[row.id], here[other.id]], m.new_bool_var("")
                    m.add(
                        self.start[other.id] >= self.end[row.id] + oven.gap(row.leaves_c, other.temp_c)
                    ).only_enforce_if([*both, first])
                    m.add(
                        self.start[row.id] >= self.end[other.id] + oven.gap(other.leaves_c, row.temp_c)
                    ).only_enforce_if([*both, ~first])
        self._door(rows, here)
        hot = self.problem.hot or any(t.fixed_start is not None for t in rows)
        begin = m.new_int_var(0, self.horizon, f"{name} on")
        stop = m.new_int_var(0, self.horizon * 2, f"{name} off")
        for t in rows:
            heat = oven.heating(t.temp_c)
            if t.fixed_start is None and not hot:
                m.add(self.start[t.id] >= self.problem.now + heat + self.slid).only_enforce_if(here[t.id])
            m.add(begin <= self.start[t.id] - (0 if hot else heat)).only_enforce_if(here[t.id])
            m.add(stop >= self.end[t.id]).only_enforce_if(here[t.id])
        used = m.new_int_var(0, self.horizon * 2, f"{name} minutes")
        pauses = self._offs(oven, rows, here, begin, stop)
        m.add(used >= stop - begin - sum((pause.minutes for pause in pauses), start=0))
        if len(self.problem.ovens) == 1 and not hot:
            # Each pause costs heating up once more, at least to the coolest stage.
            again = oven.heating(max(min(task.temp_c for task in rows) - oven.share_k, constant("cold_oven_c")))
            m.add(used >= least_on(oven, rows) + again * sum((pause.off for pause in pauses), start=0))
        # An oven that nothing is baked in is off.
        some = m.new_bool_var("")
        m.add_max_equality(some, list(here.values()))
        m.add(begin == 0).only_enforce_if(~some)
        m.add(stop == 0).only_enforce_if(~some)
        return used

    def _offs(
        self, oven: ScheduledOven, rows: list[Task], here: Mapping[str, Any], begin: Any, stop: Any
    ) -> list[_Pause]:
        """Pauses in which the oven may be off, whether and for how long: all stages lie before or behind, and it heats up anew for those behind."""
        m, pauses = self.model, list[_Pause]()
        for n in range(min(sum(end > self.problem.now for _, end in self.problem.closed) + 1, _MOST_OFF)):
            off, since = m.new_bool_var(f"{oven.name} off {n}"), m.new_int_var(0, self.horizon * 2, "")
            until, minutes = m.new_int_var(0, self.horizon * 2, ""), m.new_int_var(0, self.horizon * 2, "")
            m.add(minutes <= until - since).only_enforce_if(off)
            m.add(minutes >= whole_constant("oven_off_least_min")).only_enforce_if(off)
            m.add(minutes == 0).only_enforce_if(~off)
            m.add(since >= begin).only_enforce_if(off)
            m.add(until <= stop).only_enforce_if(off)
            if pauses:
                m.add_implication(off, pauses[-1].off)
                m.add(since >= pauses[-1].until).only_enforce_if(off)
            for t in rows:
                before = m.new_bool_var("")
                m.add(self.end[t.id] <= since).only_enforce_if([off, here[t.id], before])
                m.add(self.start[t.id] >= until + oven.heating(t.temp_c)).only_enforce_if([off, here[t.id], ~before])
            pauses.append(_Pause(off, until, minutes))
        return pauses

    def _door(self, rows: list[Task], here: Mapping[str, Any]) -> None:
        if not any(t.shut > 1 for t in rows):
            return
        m, boxes, wants = self.model, [], []
        for t in rows:
            start, end, present = self.start[t.id], self.end[t.id], here[t.id]
            if t.shut > 1:
                boxes.append(m.new_optional_fixed_size_interval_var(start + 1, t.shut - 1, present, ""))
                wants.append(_DOOR)
            boxes += [
                m.new_optional_fixed_size_interval_var(start, 1, present, ""),
                m.new_optional_fixed_size_interval_var(end - 1, 1, present, ""),
            ]
            wants += [1, 1]
        m.add_cumulative(boxes, wants, _DOOR)

    def _late(self, due: Any) -> tuple[Any, Any, Any]:
        """Weighted lateness of a bake, how early it is, and its plain lateness."""
        m = self.model
        late = m.new_int_var(0, self.horizon * 2, f"{due.bake} late")
        early = m.new_int_var(0, self.horizon, f"{due.bake} early")
        is_late = m.new_bool_var("")
        meant = self.end[due.task] - self.slid
        m.add(meant - due.minute == late - early)
        m.add(late == 0).only_enforce_if(~is_late)
        m.add(early == 0).only_enforce_if(is_late)
        if due.fresh is not None:
            m.add(early <= due.fresh)
        return round(10 * due.priority) * (late + A_LATE_BAKE * is_late), early, late

    def _spans(self) -> list[Any]:
        """From the first work to the last, of each stretch between two nights."""
        m, nights = self.model, [0, *(end for _, end in self.problem.closed), self.horizon * 2]
        if len(nights) == 2:
            return [self._span(self.hands, None)]
        spans = []
        for begin, stop in pairwise(nights):
            rows = []
            for start, end in self.hands:
                today, earlier, later = m.new_bool_var(""), m.new_bool_var(""), m.new_bool_var("")
                m.add(start >= begin).only_enforce_if(today)
                m.add(start < stop).only_enforce_if(today)
                m.add(start < begin).only_enforce_if(earlier)
                m.add(start >= stop).only_enforce_if(later)
                m.add_exactly_one(today, earlier, later)
                rows.append((start, end, today))
            spans.append(self._span([(s, e) for s, e, _ in rows], [t for _, _, t in rows]))
        return spans

    def _span(self, times: list[tuple[Any, Any]], when: list[Any] | None) -> Any:
        m = self.model
        low, high = m.new_int_var(0, self.horizon * 2, ""), m.new_int_var(0, self.horizon * 2, "")
        for n, (start, end) in enumerate(times):
            rows = (m.add(low <= start), m.add(high >= end))
            if when is not None:
                for row in rows:
                    row.only_enforce_if(when[n])
        span = m.new_int_var(0, self.horizon * 2, "")
        m.add(span >= high - low)
        return span

    def _at_least(self, spans: Any) -> None:
        """From the first work to the last is no less than the work: the solver does not see that by itself."""
        least = work(self.problem)
        if least:
            self.model.add(spans * self.problem.people >= least)

    def _waiting(self) -> Any:
        """Return what lies longer than it must, and what stands weighed and waits to be mixed."""
        lies = [self.end[t.id] - self.start[t.id] for t in self.problem.tasks if t.passive and t.fixed_end is None]
        stands = [
            self.start[lag.after] - self.end[lag.before]
            for lag in self.problem.lags
            if self.problem.task[lag.before].kind == "weigh" and self.problem.task[lag.before].fixed_end is None
        ]
        return sum([*lies, *stands], start=0)

    def keep(self, expression: Any, most: float) -> None:
        """From now on no more of it."""
        if not isinstance(expression, int):
            self.model.add(expression <= round(most))

    def at_least(self, expression: Any, least: float) -> None:
        """From now on no less of it: what is proven, the solver need not find again."""
        if not isinstance(expression, int):
            self.model.add(expression >= ceil(least - _HAIR))

    def common_delay(self) -> Any:
        """Return the minutes by which all deadlines would have to be later together, as a variable of the model."""
        delay = self.model.new_int_var(0, self.problem.horizon, "delay")
        for due in self.problem.dues:
            self.model.add(self.end[due.task] <= due.minute + delay)
        return delay

    def one_at_its_due(self) -> None:
        """Require that some bake is ready exactly when it is due.

        A day that is all in time, and in which nothing stands by the clock, can begin later until one is: nothing costs more for it.
        Without this row each plan stands there as many times as the day has minutes to spare, and what the solver learns of one of
        them it learns anew for the next: with it proofs are ten times as quick.
        """
        at = [self.model.new_bool_var("") for _ in self.problem.dues]
        for due, at_due in zip(self.problem.dues, at, strict=True):
            self.model.add(self.end[due.task] == due.minute).only_enforce_if(at_due)
        self.model.add_bool_or(at)

    def beside(self, plan: Schedule, within: int) -> None:
        """Each bake that may still be moved begins within so many minutes of where it does in a plan, of this day or a smaller one."""
        # Where one is at its due the plan lies here as much later as it was early.
        later = self.at_due.minute - plan.placed[self.at_due.task].end if self.at_due else 0
        for task in self.problem.tasks:
            if task.ovens and task.fixed_start is None:
                at = plan.placed[task.id].start + later
                self.model.add_linear_constraint(self.start[task.id], at - within, at + within)

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
            effort: how long is sought.
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
