"""A bake that was run: its curves over the minutes, and where its stages lie."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from substrata.formula.bake_settings import Heat
from substrata.ingredients.library import Floats


@dataclass(frozen=True, kw_only=True)
class StageMark:
    """Where a stage lies on the time line."""

    kind: str
    start_min: float
    end_min: float
    heat: Heat


@dataclass(frozen=True, kw_only=True)
class Ran:
    """A bake over time, the open stage drawn out; k moments."""

    minutes: Floats  # (k,)
    core_c: Floats
    loss: Floats  # share of the weight that went in
    light_top: Floats
    light_bottom: Floats
    scorch: Floats  # of the hotter face, minutes at 180 degC
    topping_c: Floats  # coldest part of what was laid on; nan before and without it
    temperatures: tuple[Floats, ...]  # of each moment, from the bottom up
    waters: tuple[Floats, ...]
    marks: tuple[StageMark, ...]  # the open stage ends with the simulation
    open_from: float  # minute from which the last hot stage runs

    def before(self, minute: float) -> Ran:
        """Return the bake up to a minute."""
        count = int(np.searchsorted(self.minutes, minute + 1e-9))
        curves = (
            "minutes",
            "core_c",
            "loss",
            "light_top",
            "light_bottom",
            "scorch",
            "topping_c",
            "temperatures",
            "waters",
        )
        return replace(self, **{name: getattr(self, name)[:count] for name in curves})
