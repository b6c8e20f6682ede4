"""The rows of the linear problem at one point: what is wanted, and the guard rails that keep a settle honest."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.evaluation.target_ranges import TargetRange
from substrata.ingredients.library import Floats
from substrata.process.rheology.binder import ingredient_limits
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.guard_rows import rail_rows
from substrata.reformulation.program.linear_figures import ratio_of
from substrata.reformulation.program.linear_row import Kind, LinearRow, ratio_rows, share_row
from substrata.reformulation.program.linearisation import Slopes

_MAIN = 0.1  # share of the flours (of the cheeses, …) from which a line is one that makes the bread what it is
_MAKES_IT = ("base", "binder", "egg", "cheese", "vegetable", "fat", "sweetener", "lift")
TINY = 1e-9


def rows_at(problem: BalanceProblem, grams: Floats, slopes: Slopes | None) -> list[LinearRow]:
    """All rows at a point.

    Args:
        problem: the dough and the wish.
        grams: where it is linear, shape (n,).
        slopes: of handling, texture and bake there; None leaves those rows out.

    Returns:
        The rows.
    """
    dough = problem.at(grams)
    rows = [*_windows(problem, dough, grams), *_caps(problem, dough), *_lift_rows(problem, dough), *rail_rows(problem)]
    return rows + (list(_sloped(grams, slopes)) if slopes else [])


def judged_keys(problem: BalanceProblem, dough: Dough) -> dict[str, TargetRange]:
    """Every quantity with a window, the brackets first.

    The house's window of water is one of how the form is usually handled: a wish for another class takes its place.

    Returns:
        Target ranges by figure, in the order of the table.
    """
    targets = {key: w for key, w in dough.windows.items() if w.window.low is not None or w.window.high is not None}
    if problem.wish.handling and "water_fill" in targets and targets["water_fill"].source != "target":
        del targets["water_fill"]
    return targets


def _windows(problem: BalanceProblem, dough: Dough, grams: Floats) -> Iterator[LinearRow]:
    batch = problem.batch_at(grams)
    for key, target in judged_keys(problem, dough).items():
        ratio = ratio_of(key, problem.base, batch)
        if ratio.offset == 0 and float(batch.grams @ ratio.bottom[0]) <= 0:
            continue  # nothing to weigh it against
        kind: Kind = "wish" if target.source == "target" else "window"
        margin = problem.wish.margin * _relative_sd(dough, key) if target.source == "target" else 0.0
        yield from ratio_rows(problem, ratio, key, kind, target.window, grams, margin=margin)


def _relative_sd(dough: Dough, key: str) -> float:
    """Return the standard deviation of a quantity as a share of it."""
    if key not in dough.ratios_of:
        return 0.0
    estimate = dough.bracketed.one_estimate(key)
    return (estimate.high - estimate.value) / 1.6449 / estimate.value if estimate.value > 0 else 0.0


def _caps(problem: BalanceProblem, dough: Dough) -> Iterator[LinearRow]:
    size = max(dough.batch.dough_g, 1.0) / 100
    for cap in ingredient_limits(problem.base.formula.form, dough.batch):
        counted = np.array([float(slot.ingredient in cap.ingredients) for slot in problem.slots])
        if counted.any() and f"cap:{cap.name}" not in problem.wish.released:
            yield share_row(
                f"cap:{cap.name}", "cap", "high", counted, problem.inside, cap.hard / 100, max(cap.hard, 0.5) * size
            )


def _lift_rows(problem: BalanceProblem, dough: Dough) -> Iterator[LinearRow]:
    """No more bare soda than the acid meets, no more than a little acid beyond it; no more fat than the dough holds."""
    batch, whole = problem.base.batch, max(dough.batch.dough_g, 1.0)
    soda = problem.per_line(batch.behaviour("soda")[0])
    acid = problem.per_line(batch.behaviour("neutralising")[0]) / 100
    if soda.any() and "soda" not in problem.wish.released:
        yield share_row(
            "rail:soda", "cap", "high", soda - acid, problem.inside, constant("soapy_soda") / 100, 0.01 * whole
        )
    fat = np.array([float(slot.role == "fat") for slot in problem.slots]) * problem.inside
    if fat.any() and dough.batch.dry_base_g and "greasy" not in problem.wish.released:
        yield share_row("rail:greasy", "cap", "high", fat, problem.inside, constant("greasy_fat"), 0.3 * whole)


def _sloped(grams: Floats, slopes: Slopes) -> Iterator[LinearRow]:
    """Return handling, texture and minutes as linear functions at the point."""
    for slope in slopes.every():
        value, run = slope.value, slope.per_gram
        at = float(run @ grams)
        for side, limit in (("high", slope.high), ("low", slope.low)):
            if limit is not None:
                sign = 1.0 if side == "high" else -1.0
                yield LinearRow(
                    key=slope.key,
                    kind=slope.kind,
                    side=side,  # type: ignore[arg-type]  # one of the two
                    coefficients=sign * run / slope.unit,
                    bound=sign * (limit - value + at) / slope.unit,
                    limit=limit,
                    price=slope.price,
                )
