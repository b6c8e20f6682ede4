"""The steps of a bake: weighed, in, through its stages, out, weighed again, cooled."""

from __future__ import annotations

from collections.abc import Iterator

from substrata.base.messages.message import Capitalized, Message, Unstopped, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import Row, constant
from substrata.evaluation.forecasts.bake_forecast import BakeForecast, NamedStage
from substrata.evaluation.forecasts.mixing_method import MixingStep
from substrata.execution.protocol_step import RunStep

_MOMENTS = {"rotate": "turn", "flip": "flip", "top": "top"}
_SLIPS = {"rotate": "turn", "flip": "flip"}  # stages that are asked for when something went wrong


def bake_steps(
    forecast: BakeForecast, signs: Row, whole_g: float, batches: float, laying: MixingStep | None = None
) -> Iterator[RunStep]:
    """Into the oven or the oil, through its stages, and out.

    Args:
        forecast: of the bake.
        signs: of the form: how it looks.
        whole_g: what goes in, of one batch.
        batches: by which every weight is told.
        laying: what is laid on at the stage "top"; None where there is nothing.

    Yields:
        The steps in their order.
    """
    stages = [stage for stage in forecast.stages if stage.kind != "rest"]
    yield RunStep(
        id="weight_in",
        group="bake",
        kind="measure",
        text=Message("oven-steps-weigh-the-dough-without-tray"),
        grams=whole_g * batches,
        measures="weight_in_g",
        target=Message("oven-steps-weight-loss-shows-doneness-better"),
    )
    hot = [number for number, stage in enumerate(stages) if not stage.moment]
    for number, stage in enumerate(stages):
        if stage.moment:
            before = [stages[n].end_min for n in hot if n < number]
            yield _moment_step(number, stage, before[-1] if before else 0.0, laying if stage.kind == "top" else None)
        else:
            yield _heat_step(number, stage, forecast, signs, first=number == hot[0], final=number == hot[-1])
    yield from _turning_step(forecast)
    yield from _out_steps(forecast, signs, batches)
    yield from _weight_out_step(forecast, batches)


def _moment_step(number: int, stage: NamedStage, minute: float, laying: MixingStep | None) -> RunStep:
    return RunStep(
        id=f"stage:{number}:{stage.kind}",
        group="bake",
        kind="moment",
        text=Unstopped(laying.text) if laying else Capitalized(stage.name),
        lines=laying.added if laying else (),
        moment=_MOMENTS.get(stage.kind, ""),
        slip=_SLIPS.get(stage.kind, ""),
        target=Message("oven-steps-after-min", minute=Quantity(minute, "min", digits=0)),
    )


def _heat_step(
    number: int, stage: NamedStage, forecast: BakeForecast, signs: Row, *, first: bool, final: bool
) -> RunStep:
    """Return a stage that takes time; the last one ends by the window of the forecast and not by the clock."""
    minutes, ready = stage.end_min - stage.start_min, forecast.ready_min
    return RunStep(
        id=f"stage:{number}:{stage.kind}",
        group="bake",
        kind="wait",
        text=Capitalized(
            Message(
                "oven-steps-at-c",
                stage_name=stage.name,
                fried="yes" if forecast.fried else "no",
                oven=Quantity(stage.heat.oven_c, "oven", digits=0),
            )
        ),
        minutes=minutes,
        oven_c=stage.heat.oven_c,
        check_min=max(forecast.check_min - stage.start_min, 0.0) if final and forecast.check_min else None,
        moment="in" if first else "",
        target=_window(ready.low, ready.high)
        if final and ready
        else Message("oven-steps-min", minutes=Quantity(minutes, "min", digits=0)),
        sign=_sign(forecast, signs) if final else "",
        cautions=forecast.cautions if final else (),
    )


def _sign(forecast: BakeForecast, signs: Row) -> Wording:
    """Return how it looks and feels when it is done; a dark dough has to be felt."""
    return Message("oven-steps-dark-dough") if forecast.dark else signs.text("out")


def _turning_step(forecast: BakeForecast) -> Iterator[RunStep]:
    """Yield the turn of the tray at half time, where the stages have none and there is time for one."""
    ready = forecast.ready_min
    turned = any(stage.kind in _SLIPS for stage in forecast.stages)
    if turned or forecast.fried or not ready or ready.best <= constant("turned_from_min"):
        return
    yield RunStep(
        id="slip:turn",
        group="bake",
        kind="moment",
        text=Message("oven-steps-turn-the-tray-if-there"),
        target=Message("oven-steps-after-min-2", best=Quantity(ready.best / 2, "min", digits=0)),
        check_min=ready.best / 2,
        moment="turn",
        slip="turn",
    )


def _out_steps(forecast: BakeForecast, signs: Row, batches: float) -> Iterator[RunStep]:
    """Yield what comes out: each variety in its own time, the slowest with the last step."""
    where = "oil" if forecast.fried else "oven"
    for number, sort in enumerate(forecast.sorts[:-1], 1):
        yield RunStep(
            id=f"out:{number}",
            group="bake",
            kind="moment",
            text=Message("oven-steps-take-out-of-the-2", sort_name=sort.name, where=where),
            minutes=sort.ready_min.best,
            target=Message(
                "oven-steps-pieces",
                pieces=Quantity(sort.pieces * batches, "number", digits=-1),
                window=_window(sort.ready_min.low, sort.ready_min.high),
            ),
            sign=_sign(forecast, signs),
        )
    core = forecast.core_c_at_ready
    yield RunStep(
        id="out",
        group="bake",
        kind="moment",
        text=Message(
            "oven-steps-take-out-of-the", sorts=forecast.sorts[-1].name if forecast.sorts else "the pieces", where=where
        ),
        moment="out",
        measures="core_c",
        target=Message("oven-steps-core-temperature-about-c", core=Quantity(core, "C", digits=0)) if core else "",
        sign=_sign(forecast, signs),
    )


def _weight_out_step(forecast: BakeForecast, batches: float) -> Iterator[RunStep]:
    if not forecast.bake_to_g:
        return
    to = forecast.bake_to_g
    yield RunStep(
        id="weight_out",
        group="bake",
        kind="measure",
        text=Message("oven-steps-weigh-the-baked-pieces"),
        grams=to.best * batches,
        low_g=to.low * batches,
        high_g=to.high * batches,
        measures="weight_out_g",
        target=Message(
            "oven-steps-g",
            best=Quantity(to.best * batches, "g", digits=0),
            low=Quantity(to.low * batches, "g", digits=0, bare=True),
            high=Quantity(to.high * batches, "g", digits=0, bare=True),
        ),
        sign=Message("oven-steps-all-pieces-together-without-tray"),
    )


def cooling_step(signs: Row) -> RunStep:
    """How long it cools, and how it looks then."""
    minutes = signs.number_in("cool_min", 0)
    return RunStep(
        id="cool",
        group="cool",
        kind="wait",
        text=Message("oven-steps-let-cool") if minutes > 5 else Message("oven-steps-let-stand"),
        minutes=minutes,
        sign=signs.text("after"),
    )


def _window(low: float, high: float) -> Wording:
    return Message(
        "oven-steps-check-from-min-take-out", low=Quantity(low, "min", digits=0), high=Quantity(high, "min", digits=0)
    )
