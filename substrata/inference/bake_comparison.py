"""Runs side by side: what differed in the making, what was forecast, and what came of it."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.settings import Settings
from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.execution.bake_log import what_was_done
from substrata.execution.run_document import Done, Run, Verdict, slip_words
from substrata.inference.as_made_forecast import as_done
from substrata.inference.bake_figures import PLACE
from substrata.inference.faults import fault_table
from substrata.ingredients.library import Library
from substrata.process.baking.oven_profile import OvenProfile
from substrata.process.rheology.texture import texture_words

_HAIR = 1e-9


@dataclass(frozen=True, kw_only=True)
class Cell:
    """One figure of one run."""

    text: Wording
    value: float | None
    forecast: float | None = None  # of it, as it was made


@dataclass(frozen=True, kw_only=True)
class ComparedRow:
    """One figure over the runs."""

    key: Wording
    group: str  # weights, making, bake, verdict
    label: Wording
    unit: Wording
    cells: tuple[Cell, ...]
    differs: bool


@dataclass(frozen=True, kw_only=True)
class Held:
    """How often a forecast held."""

    what: str
    held: int
    count: int
    text: Wording


@dataclass(frozen=True, kw_only=True)
class RunsCompared:
    """The runs side by side."""

    names: tuple[str, ...]
    rows: tuple[ComparedRow, ...]
    held: tuple[Held, ...]
    text: Wording


_MAKING_COLUMNS: tuple[tuple[str, Wording, str], ...] = (
    ("rest_min", "rest", "min"),
    ("room_c", "room", "°C"),
    ("dough_c", "dough", "°C"),
    ("thickness_mm", "thickness", "mm"),
    ("squeezed_g", Message("bake-comparison-vegetable-after-squeezing"), "g"),
)
_BAKED: tuple[tuple[str, Wording, str], ...] = (
    ("oven_c", Message("bake-comparison-oven-setting"), "°C"),
    ("probe_c", Message("bake-comparison-oven-by-a-probe"), "°C"),
    ("trays", "trays", ""),
    ("minutes", Message("bake-comparison-in-the-oven"), "min"),
    ("core_c", "core", "°C"),
)
_CHIPS: dict[int, Wording] = {
    -2: Message("bake-comparison-far-too-pale"),
    -1: "pale",
    0: Message("bake-comparison-as-wanted"),
    1: "dark",
    2: Message("bake-comparison-far-too-dark"),
}


def compared(
    runs: Sequence[Run],
    library: Library,
    settings: Settings,
    *,
    names: Mapping[str, str],
    ovens: Mapping[str, OvenProfile] | None = None,
) -> RunsCompared:
    """Put runs side by side.

    Args:
        runs: two or more.
        library: the ingredients.
        settings: the kitchen's choices.
        names: of each run, by its id.
        ovens: what is known of each oven, by its key; an oven that is not told is an unknown one.

    Returns:
        Making, forecasts and ratings by run.
    """
    done = [what_was_done(run) for run in runs]
    known = ovens or {}
    doughs = [Dough(run.formula, library, settings, known.get(run.oven, OvenProfile())) for run in runs]
    forecasts = [as_done(dough, entry) if dough.handling else None for dough, entry in zip(doughs, done, strict=True)]
    rows = [
        *_weights(runs, doughs, done),
        *_plain("making", _MAKING_COLUMNS, done),
        *_steps(done),
        *_plain("bake", _BAKED, done),
    ]
    losses = [_lost(entry) for entry in done]
    forecast_losses = [None if f is None else float(f.figures[PLACE["loss"]]) for f in forecasts]
    rows.append(
        _row("loss", "bake", Message("bake-comparison-weight-lost"), "%", [
            Cell(text="" if lost is None else f"{100 * lost:.1f}", value=None if lost is None else 100 * lost, forecast=None if f is None else 100 * f)
            for lost, f in zip(losses, forecast_losses, strict=True)
        ])
    )  # fmt: skip
    rows += _verdicts(runs)
    differing = [row for row in rows if row.differs]
    words = Joined((row.label for row in differing if row.group in ("weights", "making", "bake")), ", ")
    return RunsCompared(
        names=tuple(names.get(run.id, run.id) for run in runs),
        rows=tuple(rows),
        held=tuple(_correlations(losses, forecast_losses)),
        text=Message("bake-comparison-differed", words=words)
        if words
        else Message("bake-comparison-no-logged-value-differs"),
    )


def _row(key: Wording, group: str, label: Wording, unit: Wording, cells: list[Cell]) -> ComparedRow:
    known = [cell.text for cell in cells if cell.text]
    return ComparedRow(key=key, group=group, label=label, unit=unit, cells=tuple(cells), differs=len(set(known)) > 1)


def _weights(runs: Sequence[Run], doughs: Sequence[Dough], done: Sequence[Done]) -> list[ComparedRow]:
    """Grams of each line, a batch; as weighed, else as written."""
    names: dict[str, str] = {}
    for dough in doughs:
        for w in dough.batch.lines:
            names.setdefault(w.line.id, w.ingredient.name.partition(",")[0])
    rows = []
    for line, name in names.items():
        cells = []
        for dough, entry in zip(doughs, done, strict=True):
            written = next((w.grams.value for w in dough.batch.lines if w.line.id == line), None)
            weighed = entry.grams.get(line)
            value = weighed if weighed is not None else written
            cells.append(Cell(text="" if value is None else f"{value:.4g}", value=value, forecast=written))
        rows.append(_row(line, "weights", name.lower(), "g", cells))
    return [row for row in rows if row.differs or len(runs) <= 1]


def _plain(group: str, fields: tuple[tuple[str, Wording, str], ...], done: Sequence[Done]) -> list[ComparedRow]:
    rows = []
    for key, label, unit in fields:
        values = [getattr(entry, key) for entry in done]
        if any(value is not None for value in values):
            cells = [Cell(text="" if value is None else f"{value:.3g}", value=value) for value in values]
            rows.append(_row(key, group, label, unit, cells))
    felt = [entry.felt[-1].class_name if entry.felt else "" for entry in done]
    if group == "making" and any(felt):
        rows.append(_row("felt", group, "felt", "", [Cell(text=word, value=None) for word in felt]))
    return rows


def _steps(done: Sequence[Done]) -> list[ComparedRow]:
    rows = []
    for key in dict.fromkeys(key for entry in done for key in entry.steps):
        cells = [
            Cell(text="" if key not in entry.steps else "yes" if entry.steps[key] else "no", value=None)
            for entry in done
        ]
        rows.append(_row(key, "making", slip_words()[key], "", cells))
    return [row for row in rows if row.differs]


def _lost(done: Done) -> float | None:
    if not done.weight_in_g or done.weight_out_g is None:
        return None
    return 1 - done.weight_out_g / done.weight_in_g


def _verdicts(runs: Sequence[Run]) -> list[ComparedRow]:
    verdicts = [run.verdict for run in runs]

    def row(key: str, label: str, text_of: Callable[[Verdict], Wording]) -> ComparedRow:
        return _row(key, "verdict", label, "", [Cell(text=text_of(v) if v else "", value=None) for v in verdicts])

    axes = dict.fromkeys(axis for v in verdicts if v for axis in v.scores)
    rows = [
        row("liked", "verdict", lambda v: v.liked),
        row("faults", "faults", lambda v: ", ".join(fault_table()[f.id].words for f in v.faults)),
        row("colour", "colour", lambda v: "" if v.colour is None else _CHIPS[v.colour]),
    ]
    for axis in axes:
        cells = [
            Cell(
                text=f"{v.scores[axis]:g}" if v and axis in v.scores else "",
                value=v.scores.get(axis) if v else None,
            )
            for v in verdicts
        ]
        rows.append(
            _row(axis, "verdict", texture_words().get(axis, axis).lower(), Message("bake-comparison-of"), cells)
        )
    return [r for r in rows if any(cell.text for cell in r.cells)]


def _correlations(losses: list[float | None], values: list[float | None]) -> list[Held]:
    pairs = [(lost, f) for lost, f in zip(losses, values, strict=True) if lost is not None and f is not None]
    if not pairs:
        return []
    held = sum(abs(lost - f) <= constant("loss_held") + _HAIR for lost, f in pairs)
    return [
        Held(
            what="loss",
            held=held,
            count=len(pairs),
            text=Message("bake-comparison-the-weight-forecast-was-right", held=held, pairs=len(pairs)),
        )
    ]
