"""The full model's judgement of an answer: what of the wish is missed, and by how much."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import Figures, figures
from substrata.evaluation.working_time import short_working_minutes
from substrata.formula.form_table import Window
from substrata.ingredients.library import Floats
from substrata.process.baking.oven_questions import coarse
from substrata.process.rheology.binder import ingredient_limits
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.linear_figures import ratio_of
from substrata.reformulation.program.linear_row import LinearRow
from substrata.reformulation.program.linear_rows import judged_keys
from substrata.reformulation.program.linearisation import target_band
from substrata.reformulation.program.milp import change_cost

_HAIR = 1e-6
NEVER_MIN = 999.0  # a bake that does not come to an end


@dataclass(frozen=True, kw_only=True)
class ModelCheck:
    """One answer as the full model sees it."""

    grams: Floats  # shape (n,)
    figures: Figures | None
    missed: Mapping[str, float]  # by how much, in units of each limit; empty when all holds
    cost: float
    minutes: float | None = None  # in the oven; worked out only when it is wished for

    @property
    def violation(self) -> float:
        """All that is missed, in one figure."""
        return sum(self.missed.values())

    @property
    def rank(self) -> tuple[float, float]:
        """For comparing answers: what is missed comes first."""
        return round(self.violation, 5), self.cost


def check_by_model(problem: BalanceProblem, grams: Floats) -> ModelCheck:
    """Judge the dough at some weights, shape (n,), by the full model."""
    dough = problem.at(grams)
    values = figures(dough)
    missed: dict[str, float] = {}
    minutes = None
    if values is None:
        return ModelCheck(grams=grams, figures=None, missed={"dough": 1.0}, cost=change_cost(problem, grams))
    for key in judged_keys(problem, dough):
        window = dough.windows[key].window
        value = values.values[key] if key in values.values else ratio_of(key, dough).value(dough.batch.grams)
        _miss(missed, key, value, window)
    band = target_band(problem, dough)
    if "handling" not in problem.wish.released:
        _miss(missed, "handling", values.consistency, Window(low=band.low, high=band.high), relative=False)
    if values.coheres < 1 - _HAIR:
        missed["crumbly"] = 1 - values.coheres
    _caps(problem, dough, grams, missed)
    for key, window in problem.wish.texture.items():
        _miss(missed, f"texture:{key}", values.texture.get(key, 0.0), window, relative=False)
    if problem.wish.minutes_most is not None:
        ready = coarse(dough.case).ready
        minutes = NEVER_MIN if ready is None else ready
        _miss(missed, "minutes", minutes, Window(high=problem.wish.minutes_most))
    if problem.wish.thickness_most is not None:
        _miss(missed, "thickness", values.thickness_mm, Window(high=problem.wish.thickness_most))
    _working_time(problem, dough, missed)
    missed |= {
        f"without:{slot.id}": 1.0
        for slot, now in zip(problem.slots, grams.tolist(), strict=True)
        if slot.gone and now > 0
    }
    return ModelCheck(grams=grams, figures=values, missed=missed, cost=change_cost(problem, grams), minutes=minutes)


def _working_time(problem: BalanceProblem, dough: Dough, missed: dict[str, float]) -> None:
    working, least = short_working_minutes(dough), constant("short_working_time")
    if working is not None and "handling" not in problem.wish.released:
        missed["working_time"] = (least - working) / least


def _miss(missed: dict[str, float], key: str, value: float, window: Window, *, relative: bool = True) -> None:
    for bound, sign in ((window.low, 1.0), (window.high, -1.0)):
        if bound is not None:
            size = max(abs(bound), _HAIR) if relative and bound else 1.0
            short = sign * (bound - value) / size
            if short > _HAIR:
                missed[key] = short


def _caps(problem: BalanceProblem, dough: Dough, grams: Floats, missed: dict[str, float]) -> None:
    whole = float(grams @ problem.inside)
    for cap in ingredient_limits(dough.formula.form, dough.batch):
        held = sum(
            g for slot, g in zip(problem.slots, grams.tolist(), strict=True) if slot.ingredient in cap.ingredients
        )
        if f"cap:{cap.name}" in problem.wish.released:
            continue
        if whole and 100 * held / whole > cap.hard * (1 + _HAIR):
            missed[f"cap:{cap.name}"] = 100 * held / whole / cap.hard - 1
    soda_excess = dough.lift.soda_excess_g if dough.batch.dough_g else 0.0
    if (
        "soda" not in problem.wish.released
        and whole
        and 100 * soda_excess / whole > constant("soapy_soda") * (1 + _HAIR)
    ):
        missed["rail:soda"] = 100 * soda_excess / whole - constant("soapy_soda")
    fat = float(grams @ (np.array([float(s.role == "fat") for s in problem.slots]) * problem.inside))
    if (
        "greasy" not in problem.wish.released
        and whole
        and dough.batch.dry_base_g
        and fat / whole > constant("greasy_fat") * (1 + _HAIR)
    ):
        missed["rail:greasy"] = fat / whole - constant("greasy_fat")


def rails_broken(rows: list[LinearRow], grams: Floats) -> tuple[str, ...]:
    """Keys of the guard rails that an answer does not keep."""
    return tuple(sorted({row.key for row in rows if row.kind in ("rail", "mass") and row.over(grams) > 1e-4}))
