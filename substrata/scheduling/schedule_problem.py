"""What is to be planned, as plain numbers: tasks, what lies between them, and who and what there is to do them with.

Minutes are whole and count from the moment the plan begins. Nothing here knows the solver.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property, partial
from math import ceil
from typing import Literal

from substrata.base.messages.message import Wording
from substrata.base.tables.table_reader import constant

Hands = Literal["all", "ends", "none"]
MOST_TASKS = 400


@dataclass(frozen=True, kw_only=True)
class Task:
    """One thing that is done in one go."""

    id: str
    bake: str
    text: Wording
    kind: str  # prep, dry, weigh, melt, mix, rest, shape, bake, top, cool, chill
    minutes: int  # as planned; the least length of what may lie longer
    low: int  # nine in ten take from here
    high: int  # to here
    usual: int  # half of them take no longer
    longest: int | None = None  # of what may lie longer; None: as long as it likes
    passive: bool = False  # nobody works at it, and it may lie longer
    hands: Hands = "none"
    head: int = 0  # minutes of hands at its beginning, of what takes hands at its ends
    tail: int = 0  # and at its end
    watch: int = 0  # minutes before the end from which hands are kept free to look
    uses: tuple[str, ...] = ()  # one each of microwave, plate, mixer …
    ovens: tuple[str, ...] = ()  # that it may bake in
    temp_c: float = 0.0  # of the oven, as it goes in
    out_c: float = 0.0  # and as it comes out, where that is another; 0: the same
    trays: int = 0
    shut: int = 0  # first minutes in which nobody opens the oven
    steps: tuple[str, ...] = ()  # of the run that it holds
    fixed_start: int | None = None  # it has begun, or is pinned
    fixed_end: int | None = None  # it is done

    @property
    def leaves_c(self) -> float:
        """At what temperature it leaves the oven."""
        return self.out_c or self.temp_c

    def shares(self, other: Task, within_k: float) -> bool:
        """Whether both may be in one oven at once."""
        temperatures = (self.temp_c, self.leaves_c, other.temp_c, other.leaves_c)
        return max(temperatures) - min(temperatures) <= within_k


@dataclass(frozen=True, kw_only=True)
class Lag:
    """What lies between two tasks: from the end of one to the start of the other."""

    before: str
    after: str
    least: int = 0
    most: int | None = None
    to_end: bool = False  # "most" counts to the end of the other
    reason: Wording = ""


@dataclass(frozen=True, kw_only=True)
class Hold:
    """Something of the kitchen that stays taken from the start of one task to the end of another: a tin, a tray."""

    thing: str
    count: int
    since: str  # task at whose start it is taken
    until: str  # task at whose end it is free again


@dataclass(frozen=True, kw_only=True)
class Due:
    """When a bake is wanted."""

    bake: str
    name: str
    task: str  # whose end it is
    minute: int  # deadline
    fresh: int | None = None  # minutes before it that it may be ready at most
    priority: float = 1.0


@dataclass(frozen=True, kw_only=True)
class ScheduledOven:
    """An oven."""

    name: str
    trays: int = 2
    share_k: float = constant("oven_shared_k")
    up_k_min: float = field(default_factory=partial(constant, "oven_heats_k_min"))
    down_k_min: float = field(default_factory=partial(constant, "oven_cools_k_min"))

    def gap(self, before_c: float, after_c: float) -> int:
        """Minutes from one temperature to another."""
        if after_c >= before_c:
            return ceil((after_c - before_c) / self.up_k_min)
        return ceil((before_c - after_c) / self.down_k_min)

    def heating(self, to_c: float) -> int:
        """Minutes from a cold oven."""
        return self.gap(constant("cold_oven_c"), to_c)


@dataclass(frozen=True, kw_only=True)
class ScheduleProblem:
    """All of it."""

    tasks: tuple[Task, ...]
    lags: tuple[Lag, ...]
    dues: tuple[Due, ...]
    ovens: tuple[ScheduledOven, ...]
    people: int = 1
    capacity: Mapping[str, int] = field(default_factory=dict)  # of microwave, plate, mixer …
    holds: tuple[Hold, ...] = ()
    closed: tuple[tuple[int, int], ...] = ()  # nobody's hands: sleep
    now: int = 0  # nothing open begins before it
    hot: bool = False  # it is under way: ovens are heated when they are wanted

    @cached_property
    def task(self) -> dict[str, Task]:
        """By id."""
        return {task.id: task for task in self.tasks}

    @cached_property
    def horizon(self) -> int:
        """A minute by which everything can be over, however late."""
        whole = sum(task.minutes for task in self.tasks) + sum(lag.least for lag in self.lags)
        asleep = sum(end - start for start, end in self.closed)
        heat = sum(
            max((oven.heating(task.temp_c) for oven in self.ovens), default=0) for task in self.tasks if task.ovens
        )
        return max((due.minute for due in self.dues), default=0) + self.now + whole + asleep + heat + 60

    def oven_named(self, name: str) -> ScheduledOven:
        """Return an oven."""
        return next(oven for oven in self.ovens if oven.name == name)


@dataclass(frozen=True, kw_only=True)
class Placed:
    """Where a task lies."""

    start: int
    end: int
    oven: str = ""


Status = Literal["optimal", "feasible", "infeasible", "unknown"]


@dataclass(frozen=True, kw_only=True)
class Schedule:
    """A plan."""

    placed: Mapping[str, Placed]
    status: Status
    gap: float | None = None  # of its price to the least that is possible, as a share; None where nothing is proven
    late: Mapping[str, int] = field(default_factory=dict)  # minutes, by bake
    by: str = "solver"  # or "list", when the solver is not there


def minutes_late(problem: ScheduleProblem, placed: Mapping[str, Placed]) -> dict[str, int]:
    """By how much each bake is late, of those that are."""
    return {due.bake: late for due in problem.dues if (late := max(placed[due.task].end - due.minute, 0))}


def hand_times(task: Task, placed: Placed) -> tuple[tuple[int, int], ...]:
    """From when to when a task takes a pair of hands."""
    if task.hands == "all":
        return ((placed.start, placed.end),)
    if task.hands == "none":
        return ()
    head = ((placed.start, placed.start + task.head),) if task.head else ()
    last = task.tail + task.watch
    tail = ((placed.end - last, placed.end),) if last else ()
    return (*head, *tail)
