"""The tasks of one bake, from the stations' own answers: prep, mixing, rest, shape, loads and stages of the oven, cooling."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cache
from math import ceil

from substrata.base.errors import OvenError
from substrata.base.tables.table_reader import Row, constant, read_table, whole_constant
from substrata.evaluation.dough import Dough
from substrata.evaluation.forecasts.bake_forecast import BakeForecast, forecast_bake
from substrata.evaluation.forecasts.preparation_forecast import plan_preparation
from substrata.evaluation.forecasts.shape_forecast import ShapePlan, plan_shape
from substrata.execution.protocol import bake_protocol
from substrata.execution.protocol_step import RunPlan, RunStep
from substrata.process.preparation.vegetable_stages import VegetableDrying
from substrata.process.rheology.handling.resting import place_of
from substrata.process.rheology.yeast_kinetics import yeast_lines
from substrata.scheduling.schedule_problem import Hold, Lag, ScheduledOven, Task
from substrata.scheduling.tasks.kitchen_things import COUNTER, MIXER, PROOF, TIN, TRAY
from substrata.scheduling.tasks.oven_parts import LoadPart, OvenPart, in_sorts, parts_of

_DRY_USES = {"microwave": "microwave", "cook": "plate", "pan": "plate"}


@dataclass(frozen=True, kw_only=True)
class BakeTasks:
    """One bake, ready to be planned."""

    bake: str
    name: str
    tasks: tuple[Task, ...]
    lags: tuple[Lag, ...]
    holds: tuple[Hold, ...]  # of tins and trays, where the plan has so many
    last: str  # task that it is ready after
    run: RunPlan
    trays: int
    loads: int


def bake_tasks(
    bake: str,
    dough: Dough,
    *,
    batches: float,
    ovens: Sequence[ScheduledOven],
    oven: str = "",
    has: Mapping[str, int] | None = None,
) -> BakeTasks:
    """Return what is to be done for a bake.

    Args:
        bake: its id.
        dough: what is made, with the oven it is baked in.
        batches: how much of it.
        ovens: of the plan.
        oven: name of the one it is baked in; "" for any.
        has: how many tins, trays and places there are; as many as are wanted of what is not in it.

    Raises:
        FormulaError: when there is no dough to make.
    """
    usable = [o for o in ovens if not oven or o.name == oven] or list(ovens)
    maker = _Maker(bake, dough, batches, usable, has or {})
    maker.make()
    return BakeTasks(
        bake=bake,
        name=dough.formula.name,
        tasks=tuple(maker.tasks),
        lags=tuple(maker.lags),
        holds=tuple(maker.holds),
        last=maker.tasks[-1].id,
        run=maker.run,
        trays=maker.trays,
        loads=maker.loads,
    )


@cache
def _work() -> dict[tuple[str, str], Row]:
    return {(row.text("work"), row.text("form")): row for row in read_table("work_minutes.csv")}


@cache
def _windows() -> dict[str, tuple[int, str]]:
    return {
        row.text("window"): (round(row.number_in("minutes", 0)), row.text("text"))
        for row in read_table("plan_windows.csv")
    }


class _Maker:
    """Puts the tasks in their order."""

    def __init__(
        self, bake: str, dough: Dough, batches: float, ovens: Sequence[ScheduledOven], has: Mapping[str, int]
    ) -> None:
        self.bake, self.dough, self.batches, self.has = bake, dough, batches, has
        self.tasks: list[Task] = []
        self.lags: list[Lag] = []
        self.holds: list[Hold] = []
        self.run = bake_protocol(dough, batches=batches)
        self.shape: ShapePlan | None = plan_shape(dough)
        try:
            self.forecast: BakeForecast | None = forecast_bake(dough, further=False)
        except OvenError:
            self.forecast = None
        self.ovens = ovens
        bodies = ceil((self.shape.bodies if self.shape else dough.formula.pieces) * batches)
        each = ceil(self.shape.bodies / self.shape.trays) if self.shape and self.shape.trays else 2
        # In what it lies, and how much of that there is: a load is no larger.
        piece = self.shape.piece if self.shape else None
        self.lies_in = TIN if piece is not None and piece.fill_share > 0 else TRAY
        available = max(has.get(self.lies_in, bodies), 1)
        each = min(each, available) if self.lies_in == TIN else each
        self.bodies, self.trays = bodies, max(ceil(bodies / each), 1)
        fitting = available // each if self.lies_in == TIN else available
        self.a_load = max(min(max((o.trays for o in ovens), default=1), self.trays, fitting), 1)
        self.loads = ceil(self.trays / self.a_load)

    def make(self) -> None:
        """All of them."""
        wet = [*self._vegetables(), *self._parts()]
        weigh = self._hands(
            "weigh", "weigh", f"Weigh for {self.dough.formula.name}", len(self._steps("weigh")), "weigh"
        )
        melted = any(step.id == "melt" for step in self.run.steps)
        mix = self._mix(wet, weigh, melted)
        last = self._shaped_and_baked(mix, melted)
        cool = next(step for step in self.run.steps if step.group == "cool")
        minutes = max(round(cool.minutes or 0), 1)
        self._add("cool", "cool", cool.text, minutes, minutes, minutes, steps=(cool.id,))
        # It cools from the moment it is out; earlier loads have cooled by then.
        for task in last:
            self._lag(
                task, self._id("cool"), most=0 if task == last[-1] else None, reason="it cools from when it is out"
            )

    def _steps(self, *groups: str) -> list[RunStep]:
        return [step for step in self.run.steps if step.group in groups]

    def _id(self, name: str) -> str:
        return f"{self.bake}:{name}"

    def _add(self, name: str, kind: str, text: str, usual: float, low: float, high: float, **more: object) -> str:
        plain = max(round(usual), 1)
        task = Task(
            id=self._id(name), bake=self.bake, text=text, kind=kind, minutes=plain, usual=plain,
            low=max(min(round(low), plain), 1), high=max(round(high), plain), **more,  # type: ignore[arg-type]  # by name
        )  # fmt: skip
        self.tasks.append(task)
        return task.id

    def _lag(
        self,
        before: str,
        after: str,
        least: float = 0,
        most: float | None = None,
        reason: str = "",
        *,
        to_end: bool = False,
    ) -> None:
        limit = None if most is None else max(round(most), round(least))
        self.lags.append(Lag(before=before, after=after, least=round(least), most=limit, reason=reason, to_end=to_end))

    def _minutes(self, work: str, count: float) -> tuple[float, float, float]:
        rows = _work()
        row = rows.get((work, self.dough.formula.form)) or rows[work, ""]
        usual, spread = row.number_in("minutes", 0) * count, row.number_in("spread", 0, 1)
        return usual, usual * (1 - spread), usual * (1 + spread)

    def _hands(
        self, name: str, work: str, text: str, count: float, *groups: str, extra: float = 0.0, **more: object
    ) -> str:
        usual, low, high = (minutes + extra for minutes in self._minutes(work, max(count, 1)))
        steps = tuple(step.id for step in self._steps(*groups))
        return self._add(name, name.partition(":")[0], text, usual, low, high, hands="all", steps=steps, **more)

    def _parts(self) -> list[str]:
        """Return what is a formula of its own is made before it is mixed in."""
        tasks = []
        for line in self.dough.formula.lines:
            if line.part is not None and line.grams:
                count = len(line.part.formula.lines)
                usual, low, high = (
                    a + b for a, b in zip(self._minutes("weigh", count), self._minutes("mix", 1), strict=True)
                )
                text = f"Make the {line.part.formula.name}"
                steps = (f"part:{line.id}",)
                tasks.append(self._add(f"part:{line.id}", "prep", text, usual, low, high, hands="all", steps=steps))
        return tasks

    def _vegetables(self) -> list[str]:
        """Raw vegetable: grated, dried, squeezed; returns what mixing waits for."""
        cards = (task.vegetable for task in plan_preparation(self.dough).tasks)
        return [self._vegetable(card) for card in cards if card is not None and card.steps]

    def _vegetable(self, card: VegetableDrying) -> str:
        name = card.name.partition(",")[0].lower()
        steps = [
            step
            for step in self.run.steps
            if step.id.startswith((f"raw:{card.line}", f"dry:{card.line}", f"dried:{card.line}"))
        ]
        weight = card.start_g * self.batches / 100
        usual, low, high = self._minutes("grate", weight)
        before = self._add(
            f"grate:{card.line}",
            "prep",
            f"Rice or shred the {name}",
            usual,
            low,
            high,
            hands="all",
            steps=(steps[0].id,),
        )
        for number, act in enumerate(card.steps, 1):
            task_id = f"dry:{card.line}:{number}"
            text = next((step.text for step in steps if step.id == task_id), act.act)
            if act.act == "squeeze":
                minutes = self._minutes("squeeze", weight)
                task = self._add(task_id, "prep", f"{text}: {name}", *minutes, hands="all", steps=(task_id,))
            else:
                most = max(act.minutes, 1.0)
                uses = (_DRY_USES[act.act],) if act.act in _DRY_USES else ()
                task = self._add(
                    task_id, "dry", f"{text}: {name}", most, 0.85 * most, 1.2 * most,
                    hands="ends", head=1, tail=1, uses=uses, steps=(task_id,),
                )  # fmt: skip
            self._lag(before, task)
            before = task
        return before

    def _mix(self, wet: list[str], weigh: str, melted: bool) -> str:
        steps = tuple(step.id for step in self._steps("mix") if step.id != "melt")
        before = weigh
        if melted:
            burst = next(step for step in self.run.steps if step.id == "melt")
            usual = (burst.minutes or 2) * max(self.batches, 1) + _work()["melt", ""].number_in("minutes", 0)
            before = self._add(
                "melt",
                "melt",
                burst.text,
                usual,
                0.85 * usual,
                1.2 * usual,
                hands="all",
                uses=("microwave",),
                steps=("melt",),
            )
            self._lag(weigh, before)
        by_machine = self.dough.kind == "batter" or self.dough.inside.dough_g * self.batches > constant(
            "by_machine_from_g"
        )
        mix = self._add(
            "mix",
            "mix",
            f"Mix {self.dough.formula.name}",
            *self._minutes("mix", 1),
            hands="all",
            steps=steps,
            uses=(MIXER,) if by_machine else (),
        )
        self._lag(
            before,
            mix,
            most=_windows()["melted"][0] if melted else None,
            reason=_windows()["melted"][1] if melted else "",
        )
        for task in wet:
            self._lag(task, mix, most=_windows()["squeezed"][0], reason=_windows()["squeezed"][1])
        return mix

    def _window(self, melted: bool) -> tuple[float, str]:
        """How long after mixing it can be shaped, and why no longer."""
        handling = self.dough.handling
        surface = next((step for step in self.run.steps if step.id == "bench"), None)
        if melted and surface and surface.minutes:
            return surface.minutes, "it cracks when it has cooled"
        if self.dough.kind == "batter" and self._lifts():
            return _windows()["batter"]
        if handling and handling.closes_min:
            return max(handling.closes_min, handling.rest_min), "it becomes too stiff to shape"
        return _windows()["covered"]

    def _rewarming_minutes(self, pieces: int, count: float, window: float) -> float:
        """Return the minutes spent on warming pieces again that cannot be shaped before the dough cracks.

        Args:
            pieces: of the load.
            count: what the minutes of shaping go by.
            window: minutes until it cracks.
        """
        card = next((task for task in plan_preparation(self.dough).tasks if task.kind == "rewarm"), None)
        shaping = self._minutes("shape", max(count, 1))[0]
        if card is None or card.bursts is None or shaping <= window:
            return 0.0
        return pieces * (1 - window / shaping) * card.bursts.seconds / 60

    def _lifts(self) -> bool:
        return sum(w.grams.value for w in self.dough.batch.lines if w.role == "lift") >= constant("lift_from_g")

    def _shaped_and_baked(self, mix: str, melted: bool) -> list[str]:
        """Each load shaped and baked in its turn; returns what cooling waits for."""
        rest = self.dough.handling.rest_min if self.dough.handling else 0
        window, why = self._window(melted)
        gas, gone = _windows()["gas"]
        loads = self.loads if not self._fried else 1
        shaped_before = baked_before = ""
        lying = self._lies(mix, rest)
        ends = []
        for load in range(loads):
            share = min(self.a_load, self.trays - load * self.a_load) / self.trays if not self._fried else 1.0
            suffix = f":{load + 1}" if loads > 1 else ""
            pieces = max(round(self.bodies * share), 1)
            count = (
                pieces
                if _work().get(("shape", self.dough.formula.form), _work()["shape", ""]).text("per") == "piece"
                else self.trays * share
            )
            rewarming = self._rewarming_minutes(pieces, count, window) if melted else 0.0
            again = f", {rewarming:.0f} min of it to warm pieces again" if rewarming >= 1 else ""
            text = f"Shape {pieces:g} of {self.dough.formula.name}{f', load {load + 1}' if loads > 1 else ''}{again}"
            places = (COUNTER,) if COUNTER in self.has else ()
            shape = self._hands(f"shape{suffix}", "shape", text, count, "rest", "shape", extra=rewarming, uses=places)
            # A later load waits its turn covered; what cracks when cold and cannot be rolled in time is warmed again piece by piece.
            in_time = melted and rest + self.tasks[-1].minutes <= window
            most = max(window, rest + whole_constant("taken_up_within_min")) if load == 0 else None
            if lying:
                cold, why_cold = _windows()["cold" if self._chilled else "covered"]
                self._lag(lying, shape, most=cold if load == 0 else None, reason=why_cold)
            else:
                self._lag(mix, shape, least=rest, most=most, reason=why, to_end=in_time)
            if shaped_before:
                self._lag(shaped_before, shape)
            shaped_before = shape
            first, out = self._fry(pieces) if self._fried else self._load(suffix, load, share)
            last = out[-1]
            if self.lies_in in self.has and not self._fried:
                things = pieces if self.lies_in == TIN else max(round(self.trays * share), 1)
                self.holds.append(Hold(thing=self.lies_in, count=things, since=shape, until=last))
            if self._raised:
                self._proof(suffix, shape, first)
            elif self._lifts() and load == 0:
                limit = _windows()["batter"][0] if self.dough.kind == "batter" else gas
                self._lag(shape, first, most=limit, reason=gone)
            else:
                self._lag(shape, first, most=_windows()["covered"][0], reason=_windows()["covered"][1])
            if baked_before:
                self._lag(baked_before, first)
            baked_before = last
            ends += out
        return ends

    @property
    def _chilled(self) -> bool:
        return place_of(self.dough.formula.mix).thing == "fridge"

    @property
    def _raised(self) -> bool:
        return bool(yeast_lines(self.dough.inside))

    def _lies(self, mix: str, rest: float) -> str:
        """Its rest as a task of its own, where it lies in the fridge or in a warm place; "" where it stands on the case."""
        place = place_of(self.dough.formula.mix)
        if not place.thing or rest <= 0:
            return ""
        least = max(round(rest), 1)
        longest = max(_windows()["chilled"][0], least) if self._chilled else ceil(constant("proof_stands_over") * least)
        task = self._add(
            "lie", "chill" if self._chilled else "rest", f"{self.dough.formula.name} {place.where}", least, least, least,
            passive=True, longest=longest, uses=(place.thing,),
        )  # fmt: skip
        wrapped, why = _windows()["wrap"]
        self._lag(mix, task, most=wrapped, reason=why)
        return task

    def _proof(self, suffix: str, shape: str, first: str) -> None:
        """Add the proof: what is raised by yeast stands shaped in a warm place until it has grown."""
        least = round(constant("proof_minutes"))
        task = self._add(
            f"proof{suffix}", "rest", f"Proof {self.dough.formula.name}", least, least, least,
            passive=True, longest=ceil(constant("proof_stands_over") * least), uses=(PROOF,),
        )  # fmt: skip
        wrapped, why = _windows()["wrap"]
        self._lag(shape, task, most=wrapped, reason=why)
        falls, gone = _windows()["risen"]
        self._lag(task, first, most=falls, reason=gone)

    @property
    def _fried(self) -> bool:
        return bool(self.forecast and self.forecast.fried)

    def _fry(self, pieces: int) -> tuple[str, list[str]]:
        ready = self.forecast.ready_min if self.forecast else None
        each = ready.best if ready else constant("fried_piece_min")
        minutes = each * ceil(pieces / whole_constant("fried_at_once"))
        oil = self._minutes("oil", 1)
        self._add("oil", "prep", "Heat the oil, and stay by it", *oil, hands="ends", head=1, tail=1, uses=("plate",))
        steps = tuple(step.id for step in self._steps("bake"))
        fry = self._add(
            "fry",
            "bake",
            f"Fry {pieces:g}",
            minutes,
            0.8 * minutes,
            1.25 * minutes,
            hands="all",
            uses=("plate",),
            steps=steps,
        )
        self._lag(self._id("oil"), fry, most=5, reason="hot oil is not left alone")
        return fry, [fry]

    def _load(self, suffix: str, load: int, share: float) -> tuple[str, list[str]]:
        """One load with its stages, its tray out between them; returns what begins it and what ends it, the slowest last."""
        trays = max(round(self.trays * share), 1)
        head, tail = self._minutes("load", trays)[0], self._minutes("unload", trays)[0]
        parts = parts_of(self.forecast.stages) if self.forecast else []
        sorts = self.forecast.sorts if self.forecast else ()
        ready = self.forecast.ready_min if self.forecast else None
        if not parts:
            parts = [OvenPart(minutes=30.0, in_c=180.0, out_c=180.0, then="")]
        # The doubt of the whole bake lies in its last part: the ones before are as long as the baker says.
        before = sum(part.minutes for part in parts[:-1])
        steps = tuple(step.id for step in self._steps("bake")) if load == 0 else ()
        first = last = ""
        ends: list[str] = []
        for number, part in enumerate(parts):
            final = number == len(parts) - 1
            usual = part.minutes
            low, high = usual, usual
            if final and ready is not None:
                usual, low, high = (max(value - before, 1.0) for value in (ready.best, ready.low, ready.high))
            between = ""
            if last:
                between = self._between(parts[number - 1].then, suffix, number, share)
                window, why = _windows()[parts[number - 1].then]
                self._lag(last, between, most=window, reason=why)
            name = f"bake{suffix}" + (f":{number + 1}" if len(parts) > 1 else "")
            where = f", load {load + 1}" if suffix else ""
            whole = LoadPart("", "", usual, low, high, trays)
            for oven_part in in_sorts(self.dough.formula.name, sorts, whole, before) if final else [whole]:
                task = self._add(
                    name + oven_part.suffix, "bake", f"Bake {oven_part.name or self.dough.formula.name} at {part.in_c:.0f} °C{where}",
                    oven_part.usual, oven_part.low, oven_part.high,
                    hands="ends", head=max(ceil(head), 1), tail=max(ceil(tail), 1), ovens=tuple(o.name for o in self.ovens),
                    temp_c=part.in_c, out_c=part.out_c if part.out_c != part.in_c else 0.0, trays=oven_part.trays,
                    steps=steps if not last else (),
                )  # fmt: skip
                last_task = self.tasks[-1]
                if last_task.head + last_task.tail > last_task.minutes:
                    self.tasks[-1] = replace(
                        last_task, minutes=last_task.head + last_task.tail, usual=last_task.head + last_task.tail
                    )
                if between:
                    self._lag(between, task, most=window, reason=why)
                first = first or task
                ends.append(task)
            last = ends[-1]
            ends = ends if final else []
        return first, ends

    def _between(self, what: str, suffix: str, number: int, share: float) -> str:
        usual = self._minutes(what, max(self.bodies * share, 1))
        text = "Top" if what == "top" else "Turn over"
        return self._add(f"{what}{suffix}:{number}", "top", f"{text} {self.dough.formula.name}", *usual, hands="all")
