"""By how much a line may be poured over or under: from what a gram of it costs the balance, and the handling."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import Figures, figures

_STEP = 0.04  # of a line, by which the slope is taken


@dataclass(frozen=True, kw_only=True)
class Tolerance:
    """How far off a line may be."""

    grams: float  # either way
    because: str  # what minds first: a bracket's key, "handling", or "" for what nothing minds


def tolerances(dough: Dough) -> dict[str, Tolerance]:
    """Return the tolerance of each weighed line, by its id.

    Args:
        dough: as it is written.
    """
    base = figures(dough)
    return {
        w.line.id: _line_tolerance(dough, base, w.line.id, w.grams.value)
        for w in dough.batch.lines
        if w.line.id and w.grams.value
    }


def _line_tolerance(dough: Dough, base: Figures | None, line: str, grams: float) -> Tolerance:
    most = Tolerance(grams=nice(constant("tolerance_most") * grams), because="")
    if base is None or line not in {entry.id for entry in dough.formula.lines}:
        return most
    step = max(_STEP * grams, 0.2)
    other = figures(dough.with_changes(grams={line: grams + step}))
    if other is None:
        return most
    tolerances = [
        (constant("tolerance_unfelt") * step / max(abs(other.consistency - base.consistency), 1e-9), "handling")
    ]
    for key, target in dough.windows.items():
        if key not in base.values or key == "net_carbs":
            continue
        moved = abs(other.values[key] - base.values[key]) / step
        low, high = target.window.low, target.window.high
        if low is not None and high is not None:
            allowed = constant("tolerance_of_range") * (high - low)
        else:
            allowed = constant("tolerance_of_bound") * abs((low if low is not None else high) or 0.0)
        if moved > 0 and allowed > 0:
            tolerances.append((allowed / moved, key))
    least, because = min(tolerances)
    if least >= constant("tolerance_most") * grams:
        return most
    return Tolerance(grams=nice(max(least, constant("tolerance_least_g"))), because=because)


def nice(grams: float) -> float:
    """Return a tolerance as one says it: .1, .2, .5, 1, 2, 5, 10, 20 …, never more than was worked out.

    >>> nice(1.7), nice(0.34), nice(23.0), nice(0.04)
    (1.0, 0.2, 20.0, 0.1)
    """
    for value in (200.0, 100.0, 50.0, 20.0, 10.0, 5.0, 2.0, 1.0, 0.5, 0.2):
        if grams >= value:
            return value
    return constant("tolerance_least_g")
