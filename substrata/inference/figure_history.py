"""One figure of many runs as a line over time: what was measured, weighed or scored."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cache

from substrata.base.errors import FormulaError
from substrata.base.messages.message import Message, Wording
from substrata.execution.bake_log import what_was_done
from substrata.execution.run_document import Done, Run
from substrata.process.rheology.texture import texture_words


@dataclass(frozen=True, kw_only=True)
class HistoryFigure:
    """A figure that runs tell."""

    key: str
    label: Wording
    unit: Wording


@dataclass(frozen=True, kw_only=True)
class RunPoint:
    """One run's figure."""

    run: str
    started: str
    name: str
    value: float


def _loss(done: Done) -> float | None:
    before, after = done.weight_in_g, done.weight_out_g
    return None if not before or after is None else 100 * (1 - after / before)


_MEASURED: dict[str, tuple[Wording, str, Callable[[Done], float | None]]] = {
    "minutes": (Message("figure-history-in-the-oven"), "min", lambda done: done.minutes),
    "loss": (Message("figure-history-weight-lost"), "%", _loss),
    "core_c": (Message("figure-history-core-out-of-the-oven"), "°C", lambda done: done.core_c),
    "probe_c": (Message("figure-history-empty-oven-temperature"), "°C", lambda done: done.probe_c),
    "dough_c": (Message("figure-history-dough-temperature-after-mixing"), "°C", lambda done: done.dough_c),
    "rest_min": ("rest", "min", lambda done: done.rest_min),
    "thickness_mm": ("thickness", "mm", lambda done: done.thickness_mm),
    "squeezed_g": (Message("figure-history-vegetable-weight-after-drying"), "g", lambda done: done.squeezed_g),
}


@cache
def run_figure_kinds() -> tuple[HistoryFigure, ...]:
    """Every figure that can be drawn: what is measured, then scores."""
    measured = (HistoryFigure(key=key, label=label, unit=unit) for key, (label, unit, _) in _MEASURED.items())
    scores = (
        HistoryFigure(key=f"score:{key}", label=label, unit=Message("figure-history-of"))
        for key, label in texture_words().items()
    )
    return (
        *measured,
        *scores,
        HistoryFigure(key="lightness", label=Message("figure-history-lightness-of-the-crust"), unit="L*"),
    )


def over_time(runs: Sequence[Run], figure: str) -> tuple[RunPoint, ...]:
    """Return a figure of the runs that tell it, the oldest first.

    Args:
        runs: of one kitchen.
        figure: key of ``run_figure_kinds``.

    Raises:
        FormulaError: when there is no such figure.
    """
    if figure not in {kind.key for kind in run_figure_kinds()}:
        raise FormulaError(
            "figure not found",
            got=figure[:40],
            allowed=", ".join(kind.key for kind in run_figure_kinds()),
            field="figure",
        )
    points = [(run, _value(run, figure)) for run in runs]
    history = [
        RunPoint(run=run.id, started=run.started, name=run.formula.name, value=value)
        for run, value in points
        if value is not None
    ]
    return tuple(sorted(history, key=lambda point: point.started))


def _value(run: Run, figure: str) -> float | None:
    if figure in _MEASURED:
        return _MEASURED[figure][2](what_was_done(run))
    if run.verdict is None:
        return None
    return run.verdict.lightness if figure == "lightness" else run.verdict.scores.get(figure.removeprefix("score:"))
