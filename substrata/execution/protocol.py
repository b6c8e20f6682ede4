"""``run_steps``: what is done at the bench, one thing a screen, in the order of work.

A step is a thing to do with its amount, its aim, its time and its sign; nothing here is a forecast of its own: weights are the
formula's, times and temperatures the stations'.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from math import ceil

from substrata.base.errors import FormulaError, OvenError
from substrata.base.messages.message import Capitalized, Message, Unstopped, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import Row, constant, read_table
from substrata.evaluation.dough import Dough
from substrata.evaluation.forecasts.bake_forecast import BakeForecast, forecast_bake
from substrata.evaluation.forecasts.mixing_method import MixingStep, mixing_steps, step_in
from substrata.evaluation.forecasts.preparation_forecast import plan_preparation
from substrata.evaluation.forecasts.preparation_task import PrepPlan, PrepTask
from substrata.evaluation.forecasts.shape_forecast import ShapePlan, plan_shape
from substrata.evaluation.working_time import short_working_minutes
from substrata.execution.feel_advice import as_poured
from substrata.execution.oven_steps import bake_steps, cooling_step
from substrata.execution.protocol_step import Group, RunPlan, RunStep
from substrata.execution.weighing_order import weighing_order
from substrata.execution.weighing_tolerance import Tolerance, tolerances
from substrata.formula.batch.kitchen_measures import kitchen_measure
from substrata.ingredients.vegetable_drying import DryingStep
from substrata.process.baking.oven_profile import heating_minutes
from substrata.process.rheology.handling.handling_forecast import HandlingForecast
from substrata.process.rheology.target_handling import is_poured
from substrata.process.rheology.yeast_kinetics import yeast_lines

_TELLING = 2  # classes apart, up to which a wanted window is a sign of being ready (house choice)
_SHAPE = "Shape"
_POURING: dict[str, Wording] = {
    "pourable": "Pour",
    "spoonable": Message("protocol-spoon-out"),
}  # of a batter, by its class
_HAIR = 1e-9  # of a batch


def bake_protocol(dough: Dough, *, batches: float = 1.0) -> RunPlan:
    """Return the steps of a run. A pure function.

    Args:
        dough: what is made, with the oven it is baked in.
        batches: by which every weight is told.

    Raises:
        FormulaError: when there is no dough to make.
    """
    if dough.handling is None:
        raise FormulaError(
            "there is nothing to make yet",
            got="no ingredients" if not dough.batch.lines else "one line",
            allowed="at least two ingredients",
            remedy="add its ingredients",
            field="lines",
        )
    maker = _Maker(dough, batches)
    steps = tuple(step for part in maker.parts() for step in part)
    forecast = maker.forecast
    ready = forecast.ready_min.best if forecast and forecast.ready_min else None
    return RunPlan(
        steps=steps,
        dough_g=dough.batch.dough_g * batches,
        pieces=dough.formula.pieces * batches,
        piece_g=dough.piece.dough_g,
        ready_min=ready,
        wanted_low=dough.handling.target_low,
        wanted_high=dough.handling.target_high,
        text=Message(
            "protocol-steps-g-of-dough-for",
            steps=len(steps),
            dough=Quantity(dough.batch.dough_g * batches, "g", digits=0),
            pieces=Quantity(dough.formula.pieces * batches, "number", digits=-1),
            as_poured=Quantity(as_poured(dough.piece.dough_g), "g", digits=-1),
        ),
    )


class _Maker:
    """The stations' answers, from which steps are made."""

    def __init__(self, dough: Dough, batches: float) -> None:
        self.dough, self.batches = dough, batches
        self.prep: PrepPlan = plan_preparation(dough)
        self.shape: ShapePlan | None = plan_shape(dough)
        self.allowed: dict[str, Tolerance] = tolerances(dough)
        self.method: tuple[MixingStep, ...] = mixing_steps(dough)
        self.signs: Row = _signs().get(dough.formula.form, _signs()[""])
        try:
            self.forecast: BakeForecast | None = forecast_bake(dough, further=False)
        except OvenError:
            self.forecast = None

    def parts(self) -> Iterator[Iterator[RunStep]]:
        """Yield the groups in the order of work."""
        yield self._before()
        yield self._weigh()
        if self._cracks:  # the oven has to wait for such a dough, which does not wait for the oven
            yield self._preheat("mix")
        yield self._warm()
        yield self._mix()
        yield self._rest()
        yield self._shape()
        yield self._proof()
        if self.forecast is not None:
            laying = step_in(self.method, "lay")
            yield bake_steps(self.forecast, self.signs, self.dough.batch.whole_g, self.batches, laying)
        yield iter((cooling_step(self.signs),))

    def _tasks(self, *kinds: str) -> Iterator[PrepTask]:
        return (task for kind in kinds for task in self.prep.tasks if task.kind == kind)

    def _before(self) -> Iterator[RunStep]:
        for task in self._tasks("vegetable"):
            card = task.vegetable
            if card is None or not card.steps:
                continue
            start = as_poured(card.start_g * self.batches)
            yield RunStep(
                id=f"raw:{card.line}",
                group="prep",
                kind="weigh",
                text=Message("protocol-riced-or-shredded", card_name=card.name.partition(",")[0]),
                grams=start,
                low_g=start * 0.97,
                high_g=start * 1.03,
                bowl="raw",
                target=Message("protocol-g-raw", start=Quantity(start, "g", digits=-1)),
            )
            for number, act in enumerate(card.steps, 1):
                yield RunStep(
                    id=f"dry:{card.line}:{number}",
                    group="prep",
                    kind="wait" if act.minutes else "do",
                    text=_drying_text(act),
                    minutes=act.minutes or None,
                    target=Message("protocol-down-to-g", target=Quantity(card.target_g * self.batches, "g", digits=0))
                    if number == len(card.steps)
                    else "",
                    sign=Message("protocol-open-the-cloth-gather-it") if act.act == "squeeze" else "",
                )
            yield RunStep(
                id=f"dried:{card.line}",
                group="prep",
                kind="measure",
                text=Message("protocol-weigh-the-dried", card_name=card.name.partition(",")[0].lower()),
                grams=as_poured(card.target_g * self.batches),
                low_g=card.target_g * self.batches - self._off(card.line),
                high_g=card.target_g * self.batches + self._off(card.line),
                line=card.line,
                measures="squeezed_g",
                target=Message("protocol-g-after-drying", target=Quantity(card.target_g * self.batches, "g", digits=0)),
            )
        for weighed in self.dough.batch.lines:
            if weighed.line.part is not None and weighed.grams.value > 0:
                grams = as_poured(weighed.grams.value * self.batches)
                yield RunStep(
                    id=f"part:{weighed.line.id}",
                    group="prep",
                    kind="do",
                    text=Message("protocol-prepare-the", ingredient_name=weighed.ingredient.name),
                    grams=grams,
                    line=weighed.line.id,
                    target=Message("protocol-g-3", grams=Quantity(grams, "g", digits=-1)),
                )
        soaked = step_in(self.method, "soak")
        if soaked is not None:
            yield RunStep(
                id="soak",
                group="prep",
                kind="do",
                text=Message("protocol-soak-for-at-least-hours", names=soaked.names),
                lines=soaked.added,
                cautions=(Message("protocol-raw-pulses-have-to-be"),),
            )
        for task in self._tasks("yeast"):
            minutes = task.yeast.minutes if task.yeast else None
            yield RunStep(
                id="yeast",
                group="prep",
                kind="wait",
                text=task.title,
                minutes=minutes,
                target=task.text,
                sign=Message("protocol-ready-when-foamy"),
                lines=task.lines,
                cautions=task.cautions,
            )

    def _off(self, line: str) -> float:
        allowed = self.allowed.get(line)
        return (allowed.grams if allowed else 1.0) * self.batches

    def _weigh(self) -> Iterator[RunStep]:
        dried = {task.vegetable.line for task in self._tasks("vegetable") if task.vegetable and task.vegetable.steps}
        for line, bowl, note in weighing_order(self.dough):
            if line.line.id in dried:
                continue
            grams = as_poured(line.grams.value * self.batches)
            off = self._off(line.line.id)
            allowed = self.allowed.get(line.line.id)
            measure = kitchen_measure(line, line.grams.value * self.batches, self.dough.settings)
            yield RunStep(
                id=f"weigh:{line.line.id}",
                group="weigh",
                kind="weigh",
                text=line.ingredient.name,
                grams=grams,
                low_g=max(grams - off, 0.0),
                high_g=grams + off,
                because=allowed.because if allowed else "",
                measure=measure.text,
                filled=measure.filled,
                line=line.line.id,
                role=line.role,
                bowl=bowl,
                target=Message(
                    "protocol-g-2", grams=Quantity(grams, "g", digits=-1), off=Quantity(off, "g", digits=-1, bare=True)
                ),
                sign=line.line.treatment or note,
            )

    def _warm(self) -> Iterator[RunStep]:
        for task in self._tasks("water"):
            if task.water is None:
                continue
            yield RunStep(
                id="water",
                group="mix",
                kind="do",
                text=task.title,
                line=task.lines[0],
                target=Message(
                    "protocol-c", water=Quantity(min(task.water.water_c, task.water.limit_c), "C", digits=0)
                ),
                sign=task.text,
                cautions=task.cautions,
            )
        for task in self._tasks("melt"):
            yield self._melt(task)

    def _melt(self, task: PrepTask) -> RunStep:
        """Melt the cheese of one batch, or of a part of it: several batches would crack before all are shaped."""
        melts = max(ceil(self.batches - _HAIR), 1)
        share = self.batches / melts
        method = step_in(self.method, "melt")
        melted = set(method.added) if method else set(task.lines)
        grams = share * sum(w.grams.value for w in self.dough.inside.lines if w.line.id in melted)
        seconds = share * task.bursts.seconds if task.bursts else 0.0
        whole = abs(share - 1) < _HAIR
        amount = (
            task.text
            if whole
            else Message(
                "protocol-g-about-s-in-bursts",
                grams=Quantity(grams, "g", digits=0),
                seconds=Quantity(seconds, "number", digits=0),
            )
        )
        again = Message("protocol-melts-in-all-mix-and", melts=melts) if melts > 1 else ""
        return RunStep(
            id="melt",
            group="mix",
            kind="wait",
            text=Message("protocol-melt", names=method.names) if method else task.title,
            lines=tuple(w.line.id for w in self.dough.inside.lines if w.line.id in melted),
            grams=as_poured(grams),
            minutes=seconds / 60 or None,
            target=f"{amount}{again}",
            sign=task.steps[0] if task.steps else "",
            cautions=task.cautions,
        )

    def _mix(self) -> Iterator[RunStep]:
        steps = [step for step in self.method if not step.step]
        cautions = next((task.cautions for task in self._tasks("mix")), ())
        for number, step in enumerate(steps, 1):
            last = number == len(steps)
            yield RunStep(
                id=f"mix:{number}",
                group="mix",
                kind="do",
                text=step.text,
                lines=step.added,
                slip="press" if last and self.dough.handling and self.dough.handling.pressed else "",
                moment="mixed" if last else "",
                cautions=cautions if number == 1 else (),
            )
        handling = self.dough.handling
        if handling:
            yield RunStep(
                id="dough_c",
                group="mix",
                kind="measure",
                text=Message("protocol-measure-the-dough-temperature"),
                target=Message("protocol-about-c", temperature=Quantity(handling.temperature_c, "C", digits=0)),
                measures="dough_c",
                moment="" if steps else "mixed",
            )

    @property
    def _cracks(self) -> bool:
        """Whether the dough has to be shaped and baked before it has cooled."""
        brittle = bool(self.dough.handling and self.dough.handling.brittle_below_c is not None)
        return brittle or any(True for _ in self._tasks("melt"))

    def _preheat(self, group: Group) -> Iterator[RunStep]:
        if self.forecast is None or self.forecast_fried:
            return
        oven = self.dough.case.oven_c
        yield RunStep(
            id="preheat",
            group=group,
            kind="wait",
            text=Message(
                "protocol-preheat-the-oven-to-c",
                oven=Quantity(oven, "oven", digits=0),
                fan="yes" if self.dough.formula.bake.fan else "no",
            ),
            minutes=float(heating_minutes(oven)),
            measures="probe_c",
            sign=Message("protocol-check-with-an-oven-thermometer"),
        )

    def _rest(self) -> Iterator[RunStep]:
        handling = self.dough.handling
        if handling is None:
            return
        if not self._cracks:
            yield from self._preheat("rest")
        for task in self._tasks("bench"):
            if task.cooling is not None and task.cooling.minutes:
                short = short_working_minutes(self.dough)
                yield RunStep(
                    id="bench",
                    group="rest",
                    kind="wait",
                    text=Message("protocol-shape-it-right-away-it", short=Quantity(max(short, 1), "min", digits=0))
                    if short is not None
                    else Message("protocol-the-dough-cools-shape-it"),
                    minutes=task.cooling.minutes,
                    check_min=constant("cooling_look_at") * task.cooling.minutes,
                    target=task.text,
                    starts="mixed",
                )
        if handling.rest_min >= constant("rest_step_from_min"):
            yield RunStep(
                id="rest",
                group="rest",
                kind="wait",
                text=Message("protocol-let-the-dough-rest", rest_text=handling.rest_text)
                if self.dough.formula.mix.rest_in
                else Message("protocol-let-the-dough-rest-2"),
                minutes=handling.rest_min,
                target=handling.text,
                sign=Message("protocol-should-feel-when-you-press", classes=_classes(handling))
                if _says_something(handling)
                else "",
            )
        yield RunStep(
            id="feel",
            group="rest",
            kind="feel",
            text=Message("protocol-press-the-dough-how-does"),
            target=_classes(handling),
        )

    def _proof(self) -> Iterator[RunStep]:
        if yeast_lines(self.dough.inside):
            yield RunStep(
                id="proof",
                group="shape",
                kind="wait",
                text=Message("protocol-let-the-shaped-pieces-rise"),
                minutes=constant("proof_minutes"),
                sign=Message("protocol-ready-when-larger-and-a"),
            )

    @property
    def forecast_fried(self) -> bool:
        """Whether it goes into oil."""
        return bool(self.forecast and self.forecast.fried)

    def _shaping(self) -> Wording:
        """Return what is done to give a piece its form."""
        handling = self.dough.handling
        batter = self.dough.kind == "batter" or is_poured(self.dough.inside, self.dough.formula)
        return _POURING.get(handling.at_shaping.class_name, _SHAPE) if handling and batter else _SHAPE

    def _shape(self) -> Iterator[RunStep]:
        plan = self.shape
        if plan is None:
            return
        piece, bodies = plan.piece, plan.bodies * self.batches
        weight = (
            Message("protocol-g-each", as_poured=Quantity(as_poured(piece.dough_g), "g", digits=-1))
            if plan.bodies > 1
            else Message("protocol-g", dough=Quantity(piece.dough_g, "g", digits=0))
        )
        until = self.dough.handling.brittle_below_c if self.dough.handling else None
        yield RunStep(
            id="shape",
            group="shape",
            kind="do",
            text=Message(
                "protocol-parts",
                shaping=self._shaping(),
                bodies=Quantity(bodies, "number", digits=-1),
                value=str(plan.text).partition(": ")[2] or plan.text,
            ),
            grams=piece.dough_g,
            target=Message(
                "protocol-mm",
                thickness=Quantity(piece.thickness_mm, "mm", digits=0),
                thick_word=plan.thick_word,
                weight=weight,
            )
            if piece.thickness_mm >= 10
            else Message(
                "protocol-mm",
                thickness=Quantity(piece.thickness_mm, "mm", digits=1),
                thick_word=plan.thick_word,
                weight=weight,
            ),
            sign=self.signs.text("in"),
            measures="thickness_mm",
            moment="shaped",
            cautions=(Message("protocol-warm-only-the-piece-you", until=Quantity(until, "C", digits=0)),)
            if until
            else (),
        )
        yield from self._around("fill")
        kinds = ("dock", "vent", "seal", "wash") if self.forecast_fried else ("dock", "vent", "seal", "wash", "paper")
        brushed = step_in(self.method, "brush")
        for slip in possible_mistakes(self.dough, kinds):
            yield RunStep(
                id=f"slip:{slip.text('slip')}",
                group="shape",
                kind="do",
                text=Unstopped(brushed.text)
                if brushed and slip.text("slip") == "wash"
                else Capitalized(slip.text("words")),
                lines=brushed.added if brushed and slip.text("slip") == "wash" else (),
                slip=slip.text("slip"),
            )
        if not (self.forecast and any(stage.kind == "top" for stage in self.forecast.stages)):
            yield from self._around("lay")
        yield from self._around("dust")

    def _around(self, step: str) -> Iterator[RunStep]:
        """Yield what is filled in, laid on or dusted over, where there is any."""
        method_step = step_in(self.method, step)
        if method_step is not None:
            yield RunStep(id=step, group="shape", kind="do", text=Unstopped(method_step.text), lines=method_step.added)


def _drying_text(act: DryingStep) -> Wording:
    """Return what is done in one act of drying a vegetable."""
    if act.act == "microwave":
        return Message("protocol-microwave-at-watts", watts=Quantity(act.watts, "number", digits=0))
    if act.act == "squeeze":
        return Message("protocol-squeeze-in-a-cloth-times", times=act.times)
    return _ACTS.get(act.act, act.act)


_ACTS: dict[str, Wording] = {
    "pan": Message("protocol-dry-in-a-pan-over"),
    "salt": Message("protocol-salt-and-let-stand"),
    "cook": Message("protocol-cook-until-soft-then-drain"),
    "stand": Message("protocol-let-it-stand-and-drain"),
}


def _classes(handling: HandlingForecast) -> Wording:
    low, high = handling.target_low, handling.target_high
    return low if low == high else Message("protocol-to", low=low, high=high)


def _says_something(handling: HandlingForecast) -> bool:
    """Whether what is wanted is narrow enough to be felt for: a batter may be nearly anything."""
    names = [band.class_name for band in handling.bands]
    return names.index(handling.target_high) - names.index(handling.target_low) <= _TELLING


@cache
def _signs() -> dict[str, Row]:
    return {row.text("form"): row for row in read_table("bake_signs.csv")}


def possible_mistakes(dough: Dough, kinds: tuple[str, ...] = ()) -> tuple[Row, ...]:
    """Return the small things that this dough may be done with or without.

    Args:
        dough: gives form and roles.
        kinds: only these, in their order; none takes all.
    """
    roles = {w.role for w in dough.batch.lines if w.grams.value > 0}
    rows = {
        row.text("slip"): row
        for row in read_table("slips.csv")
        if (not row.text("forms") or dough.formula.form in row.text("forms").split())
        and (not row.text("roles") or not roles.isdisjoint(row.text("roles").split()))
    }
    return tuple(rows[key] for key in kinds if key in rows) if kinds else tuple(rows.values())
