"""Tasks from the bowl to the oven: rest, shaping load by load, proof, and when each load may go in."""

from __future__ import annotations

from collections.abc import Mapping
from math import ceil

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant, whole_constant
from substrata.evaluation.forecasts.preparation_forecast import plan_preparation
from substrata.process.rheology.handling.resting import place_of
from substrata.process.rheology.yeast_kinetics import yeast_lines
from substrata.scheduling.schedule_problem import Hold
from substrata.scheduling.tasks.kitchen_things import COUNTER, PROOF, TIN
from substrata.scheduling.tasks.oven_loads import OvenLoads
from substrata.scheduling.tasks.task_list import TaskList, plan_windows, work_rows


class ShapingTasks:
    """Adds the rest, and every load shaped and baked in its turn."""

    def __init__(self, tasks: TaskList, loads: OvenLoads, has: Mapping[str, int]) -> None:
        self.tasks, self.loads, self.has = tasks, loads, has
        self.rest_min = tasks.dough.handling.rest_min if tasks.dough.handling else 0.0
        self.chilled = place_of(tasks.dough.formula.mix).thing == "fridge"

    def add(self, mix: str) -> list[str]:
        """Add them all.

        Args:
            mix: the task of mixing.

        Returns:
            What cooling waits for.
        """
        lying = self._lies(mix, self.rest_min)
        shaped_before = baked_before = ""
        ends = []
        loads = 1 if self.loads.fried else self.loads.loads
        for load in range(loads):
            suffix = f":{load + 1}" if loads > 1 else ""
            share = self.loads.share(load)
            pieces = max(round(self.loads.bodies * share), 1)
            shape = self._shape(suffix, load, pieces, share)
            self._after_mixing(mix, lying, shape, load)
            if shaped_before:
                self.tasks.lag(shaped_before, shape)
            first, out = self.loads.fry(pieces) if self.loads.fried else self.loads.bake(suffix, load, share)
            self._hold(shape, out[-1], pieces, share)
            self._into_oven(suffix, load, shape, first)
            if baked_before:
                self.tasks.lag(baked_before, first)
            shaped_before, baked_before = shape, out[-1]
            ends += out
        return ends

    def _shape(self, suffix: str, load: int, pieces: int, share: float) -> str:
        name = self.tasks.dough.formula.name
        row = work_rows().get(("shape", self.tasks.dough.formula.form), work_rows()["shape", ""])
        count = pieces if row.text("per") == "piece" else self.loads.trays * share
        rewarming = self._rewarming_minutes(pieces, count, self._window()[0]) if self.tasks.melts else 0.0
        again = (
            Message("shaping-tasks-min-of-it-to-warm", rewarming=Quantity(rewarming, "min", digits=0))
            if rewarming >= 1
            else ""
        )
        text = Message(
            "shaping-tasks-shape-of",
            pieces=Quantity(pieces, "number", digits=-1),
            name=name,
            suffix=f", load {load + 1}" if suffix else "",
            again=again,
        )
        places = (COUNTER,) if COUNTER in self.has else ()
        return self.tasks.add_by_hand(
            f"shape{suffix}", "shape", text, count, "rest", "shape", extra=rewarming, uses=places
        )

    def _after_mixing(self, mix: str, lying: str, shape: str, load: int) -> None:
        """Bind shaping to what it follows: a later load waits its turn covered, and what cracks when cold is warmed again piece by piece."""
        if lying:
            cold, why = plan_windows()["cold" if self.chilled else "covered"]
            self.tasks.lag(lying, shape, most=cold if load == 0 else None, reason=why)
            return
        window, why = self._window()
        in_time = self.tasks.melts and self.rest_min + self.tasks.tasks[-1].minutes <= window
        most = max(window, self.rest_min + whole_constant("taken_up_within_min")) if load == 0 else None
        self.tasks.lag(mix, shape, least=self.rest_min, most=most, reason=why, to_end=in_time)

    def _hold(self, shape: str, until: str, pieces: int, share: float) -> None:
        """Keep tins or trays taken from shaping until it is out, where the plan has so many."""
        thing = self.loads.lies_in
        if thing in self.has and not self.loads.fried:
            count = pieces if thing == TIN else max(round(self.loads.trays * share), 1)
            self.tasks.holds.append(Hold(thing=thing, count=count, since=shape, until=until))

    def _into_oven(self, suffix: str, load: int, shape: str, first: str) -> None:
        """Bind the oven to shaping: through the proof, before the gas is gone, or within the time that a covered dough stands."""
        if yeast_lines(self.tasks.dough.inside):
            self._proof(suffix, shape, first)
        elif self._lifts() and load == 0:
            gas, why = plan_windows()["gas"]
            limit = plan_windows()["batter"][0] if self.tasks.dough.kind == "batter" else gas
            self.tasks.lag(shape, first, most=limit, reason=why)
        else:
            covered, why = plan_windows()["covered"]
            self.tasks.lag(shape, first, most=covered, reason=why)

    def _window(self) -> tuple[float, Wording]:
        """Return how long after mixing it can be shaped, and why no longer."""
        handling = self.tasks.dough.handling
        surface = next((step for step in self.tasks.run.steps if step.id == "bench"), None)
        if self.tasks.melts and surface and surface.minutes:
            return surface.minutes, Message("shaping-tasks-the-dough-cracks-once-it")
        if self.tasks.dough.kind == "batter" and self._lifts():
            return plan_windows()["batter"]
        if handling and handling.closes_min:
            return max(handling.closes_min, handling.rest_min), Message("shaping-tasks-the-dough-becomes-too-stiff")
        return plan_windows()["covered"]

    def _rewarming_minutes(self, pieces: int, count: float, window: float) -> float:
        """Return the minutes spent on warming pieces again that cannot be shaped before the dough cracks.

        Args:
            pieces: of the load.
            count: what the minutes of shaping go by.
            window: minutes until it cracks.
        """
        card = next((task for task in plan_preparation(self.tasks.dough).tasks if task.kind == "rewarm"), None)
        shaping = self.tasks.work_minutes("shape", max(count, 1))[0]
        if card is None or card.bursts is None or shaping <= window:
            return 0.0
        return pieces * (1 - window / shaping) * card.bursts.seconds / 60

    def _lifts(self) -> bool:
        return sum(w.grams.value for w in self.tasks.dough.batch.lines if w.role == "lift") >= constant("lift_from_g")

    def _lies(self, mix: str, rest: float) -> str:
        """Add its rest as a task of its own, where it lies in the fridge or in a warm place; "" where it stands on the counter."""
        place = place_of(self.tasks.dough.formula.mix)
        if not place.thing or rest <= 0:
            return ""
        least = max(round(rest), 1)
        longest = (
            max(plan_windows()["chilled"][0], least) if self.chilled else ceil(constant("proof_stands_over") * least)
        )
        task = self.tasks.add(
            "lie", "chill" if self.chilled else "rest", Message("shaping-tasks-parts", formula_name=self.tasks.dough.formula.name, where=place.where), least, least, least,
            passive=True, longest=longest, uses=(place.thing,),
        )  # fmt: skip
        wrapped, why = plan_windows()["wrap"]
        self.tasks.lag(mix, task, most=wrapped, reason=why)
        return task

    def _proof(self, suffix: str, shape: str, first: str) -> None:
        """Add the proof: what is raised by yeast stands shaped in a warm place until it has grown."""
        least = round(constant("proof_minutes"))
        task = self.tasks.add(
            f"proof{suffix}", "rest", Message("shaping-tasks-proof", formula_name=self.tasks.dough.formula.name), least, least, least,
            passive=True, longest=ceil(constant("proof_stands_over") * least), uses=(PROOF,),
        )  # fmt: skip
        wrapped, why = plan_windows()["wrap"]
        self.tasks.lag(shape, task, most=wrapped, reason=why)
        falls, gone = plan_windows()["risen"]
        self.tasks.lag(task, first, most=falls, reason=gone)
