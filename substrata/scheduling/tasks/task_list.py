"""A list of tasks that is being made for one bake: each with its minutes, its hands, and what must lie between two."""

from __future__ import annotations

from functools import cache

from substrata.base.messages.message import Wording
from substrata.base.tables.table_reader import Row, read_table
from substrata.evaluation.dough import Dough
from substrata.execution.protocol_step import RunPlan, RunStep
from substrata.scheduling.schedule_problem import Hold, Lag, Task


@cache
def work_rows() -> dict[tuple[str, str], Row]:
    """Return the minutes of manual work by work and form; "" stands for every form."""
    return {(row.text("work"), row.text("form")): row for row in read_table("work_minutes.csv")}


@cache
def plan_windows() -> dict[str, tuple[int, Wording]]:
    """Return how many minutes may lie between two tasks at most, and why, by window."""
    return {
        row.text("window"): (round(row.number_in("minutes", 0)), row.text("text"))
        for row in read_table("plan_windows.csv")
    }


class TaskList:
    """The tasks of one bake in their order, and what binds them."""

    def __init__(self, bake: str, dough: Dough, batches: float, run: RunPlan) -> None:
        self.bake, self.dough, self.batches, self.run = bake, dough, batches, run
        self.tasks: list[Task] = []
        self.lags: list[Lag] = []
        self.holds: list[Hold] = []

    @property
    def melts(self) -> bool:
        """Whether its cheese is melted first."""
        return any(step.id == "melt" for step in self.run.steps)

    def steps(self, *groups: str) -> list[RunStep]:
        """Return the steps of the protocol that belong to some groups."""
        return [step for step in self.run.steps if step.group in groups]

    def task_id(self, name: str) -> str:
        """Return the id of a task of this bake."""
        return f"{self.bake}:{name}"

    def add(self, name: str, kind: str, text: Wording, usual: float, low: float, high: float, **more: object) -> str:
        """Add a task of so many minutes and return its id; ``more`` are further fields of the task."""
        plain = max(round(usual), 1)
        task = Task(
            id=self.task_id(name), bake=self.bake, text=text, kind=kind, minutes=plain, usual=plain,
            low=max(min(round(low), plain), 1), high=max(round(high), plain), **more,  # type: ignore[arg-type]  # by name
        )  # fmt: skip
        self.tasks.append(task)
        return task.id

    def lag(
        self,
        before: str,
        after: str,
        least: float = 0,
        most: float | None = None,
        reason: Wording = "",
        *,
        to_end: bool = False,
    ) -> None:
        """Bind two tasks: the second begins at least and at most so many minutes after the first; to its end where ``to_end``."""
        limit = None if most is None else max(round(most), round(least))
        self.lags.append(Lag(before=before, after=after, least=round(least), most=limit, reason=reason, to_end=to_end))

    def work_minutes(self, work: str, count: float) -> tuple[float, float, float]:
        """Return usual, least and most minutes of manual work on so many things."""
        rows = work_rows()
        row = rows.get((work, self.dough.formula.form)) or rows[work, ""]
        usual, spread = row.number_in("minutes", 0) * count, row.number_in("spread", 0, 1)
        return usual, usual * (1 - spread), usual * (1 + spread)

    def add_by_hand(
        self, name: str, work: str, text: Wording, count: float, *groups: str, extra: float = 0.0, **more: object
    ) -> str:
        """Add manual work on so many things, which takes hands throughout, and return its id."""
        usual, low, high = (minutes + extra for minutes in self.work_minutes(work, max(count, 1)))
        steps = tuple(step.id for step in self.steps(*groups))
        return self.add(name, name.partition(":")[0], text, usual, low, high, hands="all", steps=steps, **more)
