"""A day as the solver takes it: start times are the unknowns, what cannot be at once is ordered pair by pair.

The solver is loaded when a model is first made.
"""

from __future__ import annotations

from itertools import pairwise
from math import ceil
from typing import Any

from substrata.scheduling.schedule_problem import (
    Due,
    Schedule,
    ScheduleProblem,
    Status,
    Task,
)
from substrata.scheduling.solver.cost_bounds import anchors, work
from substrata.scheduling.solver.oven_constraints import oven_minutes
from substrata.scheduling.solver.plan_check import A_LATE_BAKE, EARLY, HANDS, OVEN_ON

_HAIR = 1e-6


class DayModel:
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
        self.oven_on = sum((oven_minutes(self, oven.name) for oven in problem.ovens), start=0)
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
