"""The picture of a bake: curves over the minutes, and depth against minutes in shades of temperature and dryness."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from substrata.ingredients.library import Floats
from substrata.process.baking.bake_case import BakeCase
from substrata.process.baking.simulation.bake_curves import Ran
from substrata.process.baking.simulation.dough_column import CELLS, filled_sizes, grid_sizes

_SHADES_DEEP, _SHADES_LONG = 21, 48
_DARKEST = 0.72  # loss of lightness at which the strip is as dark as it gets


@dataclass(frozen=True, kw_only=True)
class BakeSeries:
    """Curves and the picture of the inside; k moments."""

    minutes: tuple[float, ...]
    core_c: tuple[float, ...]
    loss_percent: tuple[float, ...]
    colour_top: tuple[float, ...]  # 0 raw, 1 gold, 2 burnt: for a strip, not a measurement
    colour_bottom: tuple[float, ...]
    shade_minutes: tuple[float, ...]  # columns of the picture
    shade_mm: tuple[float, ...]  # rows, from the top of the piece down
    temperature_c: tuple[tuple[float, ...], ...]  # [row][column]
    dryness: tuple[tuple[float, ...], ...]  # 0 as wet as the dough, 1 bone dry


def bake_series(case: BakeCase, ran: Ran) -> BakeSeries:
    """Return the curves of a bake and the shades of its inside, thinned to what a page draws."""
    columns = np.unique(np.linspace(0, len(ran.minutes) - 1, _SHADES_LONG).astype(int))
    thick = case.body.radius_m * 2000
    depths = np.linspace(0, thick, _SHADES_DEEP)
    temperature, dryness = [], []
    for k in columns:
        cells = len(ran.temperatures[k])
        # From the bottom up in the column; drawn from the top down. A topping's cells lie on top and are left out here.
        middles = _middles(case, min(cells, CELLS))
        at = thick - depths
        temperature.append(np.interp(at, middles, ran.temperatures[k][: len(middles)]))
        wet = np.interp(at, middles, ran.waters[k][: len(middles)])
        raw = np.interp(at, middles, ran.waters[0][: len(middles)])
        dryness.append(np.clip(1 - wet / raw, 0, 1))

    def colour(light: Floats) -> tuple[float, ...]:
        """0 raw, 1 gold, 2 as dark as it should never be."""
        dose, gold, dark = np.log(case.light / np.clip(light, 0.01, case.light)), case.gold_dose, _DARKEST
        return tuple(
            np.clip(np.where(dose < gold, dose / gold, 1 + (dose - gold) / (dark - gold)), 0, 2).round(3).tolist()
        )

    rows_t, rows_d = np.array(temperature).T, np.array(dryness).T
    return BakeSeries(
        minutes=tuple(ran.minutes.round(3).tolist()),
        core_c=tuple(ran.core_c.round(1).tolist()),
        loss_percent=tuple((100 * ran.loss).round(2).tolist()),
        colour_top=colour(ran.light_top),
        colour_bottom=colour(ran.light_bottom),
        shade_minutes=tuple(ran.minutes[columns].round(3).tolist()),
        # A body that stands for a loaf is deeper than the loaf: told is the depth in the loaf.
        shade_mm=tuple((depths * case.piece.high_mm / thick).round(2).tolist()),
        temperature_c=tuple(tuple(row) for row in rows_t.round(1).tolist()),
        dryness=tuple(tuple(row) for row in rows_d.round(3).tolist()),
    )


def _middles(case: BakeCase, cells: int) -> Floats:
    """Heights of the cells' middles, mm from the bottom."""
    sizes = grid_sizes(case.body, cells)
    if case.filling is not None:
        sizes, _ = filled_sizes(sizes, case.filling.thickness_mm / 1000)
    sizes = sizes * 1000
    return np.cumsum(sizes) - sizes / 2
