"""What each cause does to a formula's figures: worked out once for a version, and asked for every verdict on it.

Each cause of each size is planted in the core, and so is every ordinary spread (a lot, an egg, an oven, a hand). To first order
they add: ``x = x0 + Δ + J·z``.
"""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from functools import cached_property
from math import exp

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.execution.reading_noise import reading_noise
from substrata.inference.bake_figures import PLACE, WrittenFormula, run_figures, written
from substrata.inference.diagnosis.causes import Cause, planted, plantings, possible
from substrata.inference.faults import Mechanisms, hazards, likely, mechanisms
from substrata.inference.making import Making, making_kinds, selected_lines
from substrata.ingredients.library import Floats
from substrata.process.baking.simulation.oven_constants import oven_number

NONE = "nothing"  # the hypothesis that nothing went otherwise


@dataclass(frozen=True, kw_only=True)
class Planted:
    """One cause of one size, in one formula."""

    cause: Cause
    size: float
    weight: float
    change: Floats  # of the figures, (figures,)


@dataclass(frozen=True, kw_only=True)
class CauseTable:
    """Everything that a diagnosis of one version needs."""

    form: str
    written: WrittenFormula
    kinds: frozenset[str]
    planted: tuple[Planted, ...]
    spread: Floats  # J: change of the figures by one standard deviation of each parameter, (parameters, figures)
    parameters: tuple[str, ...]

    @cached_property
    def mechanisms(self) -> Mechanisms:
        """Those of the form's faults."""
        return mechanisms(self.form)

    @cached_property
    def rises(self) -> dict[str, Floats]:
        """By how much each cause raises each fault at most, without any spread; (faults,) by cause."""
        base, marks, mechanisms = self.written.figures, self.written.marks, self.mechanisms
        x = np.array([base, *(base + p.change for p in self.planted)])
        p = likely(hazards(x, base, marks, mechanisms), mechanisms)
        rises: dict[str, Floats] = {}
        for n, effect in enumerate(self.planted, 1):
            rise, old = p[n] - p[0], rises.get(effect.cause.id)
            rises[effect.cause.id] = rise if old is None else np.maximum(old, rise)
        return rises


def cause_table(dough: Dough, minutes: float | None = None) -> CauseTable:
    """Plant every possible cause in a formula. A pure function; keep it by version.

    Args:
        dough: as it is written.
        minutes: in the oven, where the baker had other ones in mind than the forecast's.

    Returns:
        Effects on the figures, one row for each cause.
    """
    base = written(dough, minutes)
    kinds = making_kinds(dough)
    work: list[tuple[Cause, float, float, Making]] = []
    for cause in possible(kinds):
        for size, weight in plantings(cause):
            making = planted(dough, cause, size)
            if making is not None:
                work.append((cause, size, weight, making))
    ordinary = _ordinary(dough)
    makings = [making for *_, making in work] + [making for _, pair in ordinary for making in pair]
    with ThreadPoolExecutor(2) as pool:
        figures = list(pool.map(lambda making: run_figures(dough, making, base.marks), makings))
    table = tuple(
        Planted(cause=cause, size=size, weight=weight, change=x - base.figures)
        for (cause, size, weight, _), x in zip(work, figures, strict=False)
    )
    rest = figures[len(work) :]
    rows = [(rest[2 * n + 1] - rest[2 * n]) / 2 for n in range(len(ordinary))]
    names = [name for name, _ in ordinary]
    for name, figure, sd in (("model", ("consistency", "later", "warm"), constant("handling_model_sd")), *_scores()):
        row = np.zeros(len(base.figures))
        for key in figure:
            row[PLACE[key]] = sd
        rows.append(row)
        names.append(name)
    return CauseTable(
        form=dough.formula.form,
        written=base,
        kinds=kinds,
        planted=table,
        spread=np.array(rows),
        parameters=tuple(names),
    )


def _scores() -> tuple[tuple[str, tuple[str, ...], float], ...]:
    return tuple(
        (f"taste:{key}", (key,), reading_noise("score").remains) for key in ("gummy", "eggy", "coconut", "crumbly")
    )


def _ordinary(dough: Dough) -> list[tuple[str, tuple[Making, Making]]]:
    """Each parameter of the ordinary spread, at one standard deviation either side."""

    def factors(kind: str, what: str, sd: float) -> tuple[Making, Making] | None:
        lines = selected_lines(dough, what)
        if not lines:
            return None
        low, high = (dict.fromkeys(lines, exp(sign * sd)) for sign in (-1, 1))
        return (
            (Making(grams=low), Making(grams=high))
            if kind == "grams"
            else (Making(capacity=low), Making(capacity=high))
        )

    def both(name: str, sd: float) -> tuple[Making, Making]:
        return Making().with_changes(**{name: exp(-sd)}), Making().with_changes(**{name: exp(sd)})

    fried = dough.batch.whole_g > 0 and dough.case.fried
    oven = constant("usual_oil_k") if fried else dough.profile.offset_sd
    vegetable = sum(w.grams.value for w in dough.batch.lines if w.role == "vegetable")
    spreads: list[tuple[str, tuple[Making, Making] | None]] = [
        ("lot", factors("capacity", "main", constant("usual_capacity_sd"))),
        ("psyllium bag", factors("capacity", "psyllium", constant("usual_psyllium_sd"))),
        ("egg", factors("grams", "egg", constant("usual_egg_sd"))),
        ("liquid", factors("grams", "liquid", constant("usual_liquid_sd"))),
        ("flour", factors("grams", "flour", constant("usual_flour_sd"))),
        (
            "vegetable",
            (Making(water_g=0.0), Making(water_g=2 * constant("usual_vegetable_sd") * vegetable))
            if vegetable
            else None,
        ),
        ("rest", both("rest", constant("usual_rest_sd"))),
        ("dough °C", (Making(warmer_k=-constant("usual_dough_k")), Making(warmer_k=constant("usual_dough_k")))),
        ("thickness", both("thickness", constant("usual_thickness_sd"))),
        ("rim", both("rim", constant("usual_rim_sd"))),
        ("air", None if fried else both("convection", constant("usual_convection_sd"))),
        ("oven", (Making(oven_k=-oven), Making(oven_k=oven))),
        ("browning", both("browning", oven_number("browning_sd"))),
        ("minutes", both("minutes", constant("usual_minutes_sd"))),
    ]
    return [(name, pair) for name, pair in spreads if pair is not None]
