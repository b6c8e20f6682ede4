"""The steps of a bake: weighed, in, through its stages, out, weighed again, cooled."""

from __future__ import annotations

from collections.abc import Iterator

from substrata.base.tables.table_reader import Row
from substrata.evaluation.forecasts.bake_forecast import BakeForecast
from substrata.evaluation.forecasts.mixing_method import MixingStep
from substrata.execution.protocol_step import RunStep, sentence

_MOMENTS = {"rotate": "turn", "flip": "flip", "top": "top"}


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
    where = "oil" if forecast.fried else "oven"
    yield RunStep(
        id="weight_in",
        group="bake",
        kind="measure",
        text="Weigh what goes in, tray and paper taken off",
        grams=whole_g * batches,
        measures="weight_in_g",
        target="weight before and after tells twice as much as the clock",
    )
    ready = forecast.ready_min
    now = 0.0
    last = len([s for s in forecast.stages if s.kind != "rest" and not s.moment]) - 1
    last_stage = -1
    for number, stage in enumerate(s for s in forecast.stages if s.kind != "rest"):
        if stage.moment:
            yield RunStep(
                id=f"stage:{number}:{stage.kind}",
                group="bake",
                kind="moment",
                text=laying.text.rstrip(".") if laying and stage.kind == "top" else sentence(stage.name),
                lines=laying.added if laying and stage.kind == "top" else (),
                moment=_MOMENTS.get(stage.kind, ""),
                slip={"flip": "flip", "rotate": "turn"}.get(stage.kind, ""),
                target=f"after {now:.0f} min",
            )
            continue
        last_stage += 1
        final = last_stage == last
        minutes = stage.end_min - stage.start_min
        now = stage.end_min
        yield RunStep(
            id=f"stage:{number}:{stage.kind}",
            group="bake",
            kind="wait",
            text=sentence(f"{stage.name}{': oil' if forecast.fried else ''} at {stage.heat.oven_c:.0f} °C"),
            minutes=minutes,
            check_min=max(forecast.check_min - stage.start_min, 0.0) if final and forecast.check_min else None,
            moment="in" if last_stage == 0 else "",
            target=_window(ready.low, ready.high) if final and ready else f"{minutes:.0f} min",
            sign=signs.text("out") if final else "",
            cautions=forecast.cautions if final else (),
        )
    turned = any(s.kind in ("rotate", "flip") for s in forecast.stages)
    if not turned and not forecast.fried and ready and ready.best > 8:
        yield RunStep(
            id="slip:turn",
            group="bake",
            kind="moment",
            text="Turn the tray; swap two trays",
            target=f"after {ready.best / 2:.0f} min",
            check_min=ready.best / 2,
            moment="turn",
            slip="turn",
        )
    core = forecast.core_c_at_ready
    for number, sort in enumerate(forecast.sorts[:-1], 1):
        yield RunStep(
            id=f"out:{number}",
            group="bake",
            kind="moment",
            text=f"Out of the {where}: {sort.name}",
            minutes=sort.ready_min.best,
            target=f"{sort.pieces * batches:g} pieces, {_window(sort.ready_min.low, sort.ready_min.high)}",
            sign=signs.text("out"),
        )
    yield RunStep(
        id="out",
        group="bake",
        kind="moment",
        text=f"Out of the {where}" + (f": {forecast.sorts[-1].name}" if forecast.sorts else ""),
        moment="out",
        measures="core_c",
        target=f"core about {core:.0f} °C" if core else "",
        sign=signs.text("out"),
    )
    if forecast.bake_to_g:
        to = forecast.bake_to_g
        yield RunStep(
            id="weight_out",
            group="bake",
            kind="measure",
            text="Weigh what came out",
            grams=to.best * batches,
            low_g=to.low * batches,
            high_g=to.high * batches,
            measures="weight_out_g",
            target=f"{to.best * batches:.0f} g ({to.low * batches:.0f}–{to.high * batches:.0f})",
        )


def cooling_step(signs: Row) -> RunStep:
    """How long it cools, and how it looks then."""
    minutes = signs.number_in("cool_min", 0)
    return RunStep(
        id="cool",
        group="cool",
        kind="wait",
        text="Let it cool" if minutes > 5 else "Let it stand",
        minutes=minutes,
        sign=signs.text("after"),
    )


def _window(low: float, high: float) -> str:
    return f"look from {low:.0f}, out by {high:.0f} min"
