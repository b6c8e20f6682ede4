"""Tasks of the oven or the oil: the loads of a bake with their stages, trays taken out between them, each variety in its time."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from math import ceil

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant, whole_constant
from substrata.evaluation.forecasts.bake_forecast import BakeForecast
from substrata.evaluation.forecasts.shape_forecast import ShapePlan
from substrata.scheduling.schedule_problem import ScheduledOven
from substrata.scheduling.tasks.kitchen_things import TIN, TRAY
from substrata.scheduling.tasks.oven_parts import LoadPart, OvenPart, in_sorts, parts_of
from substrata.scheduling.tasks.task_list import TaskList, plan_windows

# Of a dough that no forecast can bake: half an hour in a moderate oven (assumed).
_UNKNOWN_BAKE = OvenPart(minutes=30.0, in_c=180.0, out_c=180.0, then="")


class OvenLoads:
    """How a bake is divided over trays and loads, and the tasks of each load in the oven or the oil."""

    def __init__(
        self,
        tasks: TaskList,
        shape: ShapePlan | None,
        forecast: BakeForecast | None,
        ovens: Sequence[ScheduledOven],
        has: Mapping[str, int],
    ) -> None:
        self.tasks, self.forecast, self.ovens = tasks, forecast, ovens
        bodies = ceil((shape.bodies if shape else tasks.dough.formula.pieces) * tasks.batches)
        each = ceil(shape.bodies / shape.trays) if shape and shape.trays else 2
        # In what it lies, and how much of that there is: a load is no larger.
        piece = shape.piece if shape else None
        self.lies_in = TIN if piece is not None and piece.fill_share > 0 else TRAY
        available = max(has.get(self.lies_in, bodies), 1)
        each = min(each, available) if self.lies_in == TIN else each
        self.bodies, self.trays = bodies, max(ceil(bodies / each), 1)
        fitting = available // each if self.lies_in == TIN else available
        self.a_load = max(min(max((o.trays for o in ovens), default=1), self.trays, fitting), 1)
        self.loads = ceil(self.trays / self.a_load)

    @property
    def fried(self) -> bool:
        """Whether it goes into oil: all of it in one go, by and by."""
        return bool(self.forecast and self.forecast.fried)

    def share(self, load: int) -> float:
        """Return the share of the bake that is in a load, by its trays."""
        return 1.0 if self.fried else min(self.a_load, self.trays - load * self.a_load) / self.trays

    def fry(self, pieces: int) -> tuple[str, list[str]]:
        """Add the frying; returns what begins it and what ends it."""
        ready = self.forecast.ready_min if self.forecast else None
        each = ready.best if ready else constant("fried_piece_min")
        minutes = each * ceil(pieces / whole_constant("fried_at_once"))
        oil = self.tasks.work_minutes("oil", 1)
        self.tasks.add(
            "oil",
            "prep",
            Message("oven-loads-heat-the-oil-and-stay"),
            *oil,
            hands="ends",
            head=1,
            tail=1,
            uses=("plate",),
        )
        steps = tuple(step.id for step in self.tasks.steps("bake"))
        fry = self.tasks.add(
            "fry",
            "bake",
            Message("oven-loads-fry", pieces=Quantity(pieces, "number", digits=-1)),
            minutes,
            0.8 * minutes,
            1.25 * minutes,
            hands="all",
            uses=("plate",),
            steps=steps,
        )
        self.tasks.lag(
            self.tasks.task_id("oil"), fry, most=5, reason=Message("oven-loads-never-leave-hot-oil-unattended")
        )
        return fry, [fry]

    def bake(self, suffix: str, load: int, share: float) -> tuple[str, list[str]]:
        """Add one load with its stages, its trays out between them.

        Args:
            suffix: of its tasks' names.
            load: its number, from 0.
            share: of the whole bake.

        Returns:
            What begins it, and what ends it, the slowest last.
        """
        parts = (parts_of(self.forecast.stages) if self.forecast else []) or [_UNKNOWN_BAKE]
        # The doubt of the whole bake lies in its last part: the ones before are as long as the baker says.
        before = sum(part.minutes for part in parts[:-1])
        first, last = "", ""
        ends: list[str] = []
        for number, part in enumerate(parts):
            final = number == len(parts) - 1
            between, window = "", 0
            why: Wording = ""
            if last:
                turn = parts[number - 1].then
                window, why = plan_windows()[turn]
                between = self._between(turn, suffix, number, share)
                self.tasks.lag(last, between, most=window, reason=why)
            name = f"bake{suffix}" + (f":{number + 1}" if len(parts) > 1 else "")
            ends = []
            for load_part in self._load_parts(part, share, before, final=final):
                task = self._in_oven(name, load, part, load_part, first_of_bake=not last and load == 0, suffix=suffix)
                if between:
                    self.tasks.lag(between, task, most=window, reason=why)
                first = first or task
                ends.append(task)
            last = ends[-1]
        return first, ends

    def _load_parts(self, part: OvenPart, share: float, before: float, *, final: bool) -> list[LoadPart]:
        """Return what is in the oven together in one part of the bake; in the last one each variety by itself."""
        trays = max(round(self.trays * share), 1)
        ready = self.forecast.ready_min if self.forecast else None
        if not final or ready is None:
            whole = LoadPart("", "", part.minutes, part.minutes, part.minutes, trays)
        else:
            usual, low, high = (max(value - before, 1.0) for value in (ready.best, ready.low, ready.high))
            whole = LoadPart("", "", usual, low, high, trays)
        sorts = self.forecast.sorts if self.forecast else ()
        return in_sorts(self.tasks.dough.formula.name, sorts, whole, before) if final else [whole]

    def _in_oven(
        self, name: str, load: int, part: OvenPart, load_part: LoadPart, *, first_of_bake: bool, suffix: str
    ) -> str:
        """Add what lies in the oven in one go; hands are wanted as it goes in and comes out."""
        tasks = self.tasks
        trays = max(round(self.trays * self.share(load)), 1)
        head, tail = (max(ceil(tasks.work_minutes(work, trays)[0]), 1) for work in ("load", "unload"))
        where = Message("oven-loads-load", load=load + 1) if suffix else ""
        task = tasks.add(
            name + load_part.suffix, "bake",
            Message("oven-loads-bake-at-c", bake=load_part.name or tasks.dough.formula.name, oven=Quantity(part.in_c, "oven", digits=0), where=where),
            load_part.usual, load_part.low, load_part.high,
            hands="ends", head=head, tail=tail, ovens=tuple(oven.name for oven in self.ovens),
            temp_c=part.in_c, out_c=part.out_c if part.out_c != part.in_c else 0.0, trays=load_part.trays,
            steps=tuple(step.id for step in tasks.steps("bake")) if first_of_bake else (),
        )  # fmt: skip
        if head + tail > tasks.tasks[-1].minutes:
            tasks.tasks[-1] = replace(tasks.tasks[-1], minutes=head + tail, usual=head + tail)
        return task

    def _between(self, what: str, suffix: str, number: int, share: float) -> str:
        usual = self.tasks.work_minutes(what, max(self.bodies * share, 1))
        text = Message("oven-loads-add-topping") if what == "top" else "Flip"
        return self.tasks.add(
            f"{what}{suffix}:{number}",
            "top",
            Message("oven-loads-parts", text=text, formula_name=self.tasks.dough.formula.name),
            *usual,
            hands="all",
        )
