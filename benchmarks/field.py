"""The forecasts against doughs of the whole trade: minutes, loss, handling, net carbs, and good doughs that are called bad.

``python -m benchmarks.field [--each]``

The windows (``field_doughs.csv``) were written down from memory before any forecast of these doughs was asked for, and nothing
is fitted to them. The loss is that of the cooled piece; net carbs are of a piece.
"""

from __future__ import annotations

import csv
import sys
from dataclasses import dataclass
from math import log, sqrt
from pathlib import Path

from benchmarks.judgements import acts, reds
from substrata.evaluation.analysis.analyse import Analysis, analyse
from substrata.evaluation.dough import Dough
from substrata.evaluation.forecasts.bake_forecast import BakeForecast, forecast_bake
from substrata.ingredients.library import load_library
from tests.support.baking_practice import formula_of

TABLE = Path(__file__).parent.parent / "tests" / "support" / "field_doughs.csv"
MOSTLY = 0.5  # of the draws that crumble, from which a dough is called crumbly


@dataclass(frozen=True, kw_only=True)
class Window:
    """A practised range and what was forecast for it."""

    low: float
    high: float
    best: float | None
    forecast_low: float = 0.0
    forecast_high: float = 0.0

    @property
    def middle(self) -> float:
        return sqrt(self.low * self.high) if self.low > 0 else (self.low + self.high) / 2

    @property
    def held(self) -> bool:
        """Whether the range told holds the middle of what is practised."""
        return self.best is not None and self.forecast_low <= self.middle <= self.forecast_high

    @property
    def inside(self) -> bool:
        return self.best is not None and self.low <= self.best <= self.high


def minutes_window(row: dict[str, str], bake: BakeForecast | None) -> Window:
    """Return the minutes practised and forecast."""
    forecast = bake.ready_min if bake else None
    return _window(row["low_min"], row["high_min"], forecast and (forecast.low, forecast.best, forecast.high))


def loss_window(row: dict[str, str], bake: BakeForecast | None) -> Window:
    """Return the loss practised and forecast, %."""
    forecast = bake.loss_percent if bake else None
    return _window(row["loss_low"], row["loss_high"], forecast and (forecast.low, forecast.best, forecast.high))


def net_carbs_window(row: dict[str, str], analysis: Analysis) -> Window:
    """Return net carbs of a piece as packs have them, and as computed, g."""
    forecast = analysis.nutrition.piece.net_carbs if analysis.nutrition else None
    return _window(row["net_low"], row["net_high"], forecast and (forecast.low, forecast.value, forecast.high))


def _window(low: str, high: str, forecast: tuple[float, float, float] | None) -> Window:
    if forecast is None:
        return Window(low=float(low), high=float(high), best=None)
    return Window(
        low=float(low), high=float(high), best=forecast[1], forecast_low=forecast[0], forecast_high=forecast[2]
    )


def felt_class(analysis: Analysis) -> str:
    """Return the class of handling that is told at shaping."""
    if analysis.handling is None:
        return ""
    return "crumbly" if analysis.handling.crumbly > MOSTLY else analysis.handling.at_shaping.class_name


def main() -> None:
    library, each = load_library(), "--each" in sys.argv
    with TABLE.open(encoding="utf8") as file:
        rows = list(csv.DictReader(file))
    windows: dict[str, list[Window]] = {"minutes": [], "loss": [], "net carbs": []}
    felt = alarms = 0
    for row in rows:
        formula = formula_of(row)
        analysis, bake = analyse(formula, library), forecast_bake(Dough(formula, library), further=False)
        found = (minutes_window(row, bake), loss_window(row, bake), net_carbs_window(row, analysis))
        for of_kind, window in zip(windows.values(), found, strict=True):
            of_kind.append(window)
        handling, bad = felt_class(analysis), [*reds(analysis), *acts(analysis)]
        fits = handling in row["handling"].split()
        felt, alarms = felt + fits, alarms + bool(bad)
        if each:
            parts = [
                f"{'✓' if w.held else '×'}{'·' if w.inside else ' '} {w.low:4g}–{w.high:<4g} {w.best or 0:5.1f} ({w.forecast_low:.1f}–{w.forecast_high:.1f})"
                for w in found
            ]
            print(
                f"{row['case'][:34]:34} {' | '.join(f'{p:28}' for p in parts)} {bake.criterion if bake else '':8} "
                f"{'✓' if fits else '×'} {handling:10} {'; '.join(bad)}"
            )
    for name, of_kind in windows.items():
        n = len(of_kind)
        held, inside = sum(w.held for w in of_kind), sum(w.inside for w in of_kind)
        print(
            f"{name}: told range holds the middle {held} of {n} ({100 * held / n:.0f} %), best in the window {inside}"
        )
    errors = [log(w.best / w.middle) if w.best else log(2) for w in windows["minutes"]]
    print(
        f"minutes: rms of ln t {sqrt(sum(e * e for e in errors) / len(errors)):.2f}, mean {sum(errors) / len(errors):+.2f}"
    )
    off = [w.best - w.middle for w in windows["loss"] if w.best is not None]
    print(f"loss: rms {sqrt(sum(e * e for e in off) / len(off)):.1f} points, mean {sum(off) / len(off):+.1f}")
    print(
        f"handling: {felt} of {len(rows)} ({100 * felt / len(rows):.0f} %); good doughs called failing {alarms} ({100 * alarms / len(rows):.0f} %)"
    )


if __name__ == "__main__":
    main()
