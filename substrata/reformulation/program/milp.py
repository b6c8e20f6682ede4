"""The mixed-integer program: the least change, in steps of the kitchen, that keeps every row.

Solved by HiGHS through ``scipy.optimize.milp`` (statuses are SciPy's: 0 optimal, 1 limit reached, 2 infeasible,
3 unbounded, 4 other). Of each line: whole steps from where it stands (or from the saved
version), what is added and taken, and whether it is touched.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from substrata.ingredients.library import Floats
from substrata.reformulation.program.amount_steps import NEW, TOUCHED
from substrata.reformulation.program.balance_problem import BalanceProblem, Slot
from substrata.reformulation.program.linear_row import LinearRow

OPTIMAL, LIMIT, INFEASIBLE = 0, 1, 2
_TOWARDS = 0.4  # cost of a gram that brings a line back to the saved version, against one that takes it away
_TIE = 1e-4  # by rank, so that of two equal answers always the same one is given
_SECONDS = 4.0
_TINY = 1e-9


@dataclass(frozen=True, kw_only=True)
class Ask:
    """How a program is solved."""

    elastic: Mapping[str, float]  # price of a unit beyond a row, by its kind; a kind that is not named must hold
    untouched: frozenset[str] = frozenset()  # lines left as they are
    only_new: frozenset[str] | None = None  # candidates that may be brought in; None: all
    near: Floats | None = None  # a point to stay near, shape (n,)
    trust: float = 0.0  # of a line (or of 6 % of the dough) by which it may move from that point
    whole_steps: bool = True
    aim: Floats | None = None  # another objective per gram, shape (n,); the cost of the change breaks its ties
    new_price: float = NEW
    gap: float = 1e-3  # of the best possible, at which the search for whole steps ends


@dataclass(frozen=True, kw_only=True)
class Solved:
    """An answer of the program."""

    status: int  # SciPy's
    grams: Floats | None  # shape (n,)
    cost: float  # of the change alone
    gap: float
    bound: float  # least that any answer could cost


def change_cost(problem: BalanceProblem, grams: Floats) -> float:
    """Return what a change costs, in grams of flour: what the program minimises, without its ties."""
    total = 0.0
    for slot, now in zip(problem.slots, grams.tolist(), strict=True):
        moved = abs(now - slot.start)
        if moved > 1e-6:
            total += _moved_cost(slot, now) + TOUCHED + (NEW if slot.new else 0.0)
    return total


def _moved_cost(slot: Slot, now: float) -> float:
    """Grams towards the saved version are cheap, beyond it and away from it they are not."""
    moved, room = now - slot.start, slot.reference_g - slot.start
    cheap = max(min(moved / room, 1.0), 0.0) * abs(room) if room else 0.0
    return slot.step.weight * (_TOWARDS * cheap + abs(moved) - cheap)


class _Columns:
    """Places of the variables of each line.

    Its whole steps, whether it goes back to the saved version, what is added and taken (towards the saved version and
    beyond), and whether it is touched.
    """

    def __init__(self, count: int) -> None:
        self.step, self.saved, self.more_to, self.more, self.less_to, self.less, self.touched = (
            slice(i * count, (i + 1) * count) for i in range(7)
        )
        self.lines = 7 * count


def _program(
    cost: Floats,
    parts: list[tuple[Floats, Floats, Floats]],
    box: tuple[Floats, Floats],
    integrality: Floats,
    gap: float,
) -> Any:
    """SciPy's answer to the least cost inside a box, under parts of matrix, least and most."""
    # Imported here: whoever settles nothing need not wait for it.
    from scipy.optimize import Bounds, LinearConstraint, milp
    from scipy.sparse import csr_matrix

    matrices, lower, upper = zip(*parts, strict=True)
    return milp(
        cost,
        constraints=LinearConstraint(csr_matrix(np.vstack(matrices)), np.concatenate(lower), np.concatenate(upper)),
        bounds=Bounds(*box),
        integrality=integrality,
        options={"time_limit": _SECONDS, "mip_rel_gap": gap},
    )


def solve(problem: BalanceProblem, rows: Sequence[LinearRow], ask: Ask) -> Solved:
    """Solve one program.

    Args:
        problem: the lines with their steps.
        rows: what holds.
        ask: what may give way, and where to look.

    Returns:
        Grams by slot, and the status.
    """
    places = _order(problem, ask)
    free = [problem.slots[p] for p in places]
    n, col = len(places), _Columns(len(places))
    start = np.array([s.start for s in free])
    step = np.array([s.step.grams for s in free])
    most = np.array([max(s.most, 0.0) for s in free])
    start_g = np.minimum(np.array([s.reference_g for s in free]), most)
    reach, room = _reach(problem, places, ask, np.maximum(most, start) + 1.0)
    soft = [row for row in rows if row.price or row.kind in ask.elastic]
    width = col.lines + len(soft)

    cost = np.zeros(width)
    weight = np.array([s.step.weight for s in free]) * (1 + _TIE * np.arange(n))
    cost[col.more] = cost[col.less] = weight
    cost[col.more_to] = cost[col.less_to] = _TOWARDS * weight
    cost[col.touched] = TOUCHED + np.array([ask.new_price if s.new else 0.0 for s in free])
    cost[col.lines :] = [row.price or ask.elastic[row.kind] for row in soft]
    if ask.aim is not None:
        cost *= 1e-3
        cost[col.step] += ask.aim[places] * step
        cost[col.saved] += ask.aim[places] * (start_g - start)

    low, high = np.zeros(width), np.full(width, np.inf)
    back = np.abs(start_g - start) > _TINY
    low[col.step] = -np.floor(np.where(back, np.maximum(start, start_g), start) / step + 1e-9)
    high[col.step] = np.floor((most - np.where(back, np.minimum(start, start_g), start)) / step + 1e-9)
    high[col.saved] = back
    high[col.more_to], high[col.less_to] = np.maximum(start_g - start, 0.0), np.maximum(start - start_g, 0.0)
    high[col.touched] = 1.0

    def block(**parts: Floats | float) -> Floats:
        result = np.zeros((n, width))
        for name, values in parts.items():
            result[:, getattr(col, name)] = np.diag(np.broadcast_to(values, n))
        return result

    moved = block(step=step, saved=start_g - start)
    touches = block(more_to=1, more=1, less_to=1, less=1, touched=-reach)
    limits, bounds = _limits(problem, rows, places, moved)
    for i, row in enumerate(soft):
        limits[next(at for at, other in enumerate(rows) if other is row), col.lines + i] = -1.0
    infinite = np.full(n, np.inf)
    near = start if ask.near is None else ask.near[places]
    parts = [
        (moved + block(more_to=-1, more=-1, less_to=1, less=1), np.zeros(n), np.zeros(n)),
        (moved, np.maximum(-start, near - room - start), np.minimum(most, near + room) - start + _TINY),
        (touches, -infinite, np.zeros(n)),
        (limits, np.full(len(rows), -np.inf), bounds),
    ]
    integrality = np.zeros(width)
    if ask.whole_steps:
        for part in (col.step, col.saved, col.touched):
            integrality[part] = 1
    result = _program(cost, parts, (low, high), integrality, ask.gap)
    if result.x is None:
        return Solved(status=result.status, grams=None, cost=np.inf, gap=np.inf, bound=np.inf)
    steps, saved = result.x[col.step], result.x[col.saved]
    if ask.whole_steps:
        steps, saved = np.round(steps), np.round(saved)
    grams = _settled(problem)
    grams[places] = np.maximum(start + step * steps + (start_g - start) * saved, 0.0)
    dual = getattr(result, "mip_dual_bound", None)
    return Solved(
        status=result.status,
        grams=grams,
        cost=change_cost(problem, grams),
        gap=getattr(result, "mip_gap", None) or 0.0,
        bound=result.fun if dual is None else dual,
    )


def _settled(problem: BalanceProblem) -> Floats:
    """Return the weights of what does not move: as it stands, and nothing of what has to go."""
    return np.array([0.0 if slot.gone else slot.start for slot in problem.slots])


def _reach(problem: BalanceProblem, places: list[int], ask: Ask, whole: Floats) -> tuple[Floats, Floats]:
    """Return the most by which a line can move, and the room around the point it stays near, each shape (m,).

    The tighter the first is, the sooner the whole steps are found.
    """
    if ask.near is None or not ask.trust:
        return whole, np.full(len(places), np.inf)
    near = ask.near[places]
    steps = np.array([problem.slots[p].step.grams for p in places])
    # What goes has to be made up for at once.
    gone = sum(slot.start for slot in problem.slots if slot.gone)
    room = ask.trust * np.maximum(near, 0.06 * max(problem.reference.batch.dough_g, 1.0) + gone) + steps
    return np.minimum(whole, np.abs(near - problem.start[places]) + room), room


def _limits(
    problem: BalanceProblem, rows: Sequence[LinearRow], places: list[int], moved: Floats
) -> tuple[Floats, Floats]:
    """Return the rows over the variables, shape (rows, width), and their bounds."""
    settled = _settled(problem)
    if not rows:
        return np.zeros((0, moved.shape[1])), np.zeros(0)
    every = np.array([row.coefficients for row in rows])
    return every[:, places] @ moved, np.array([row.bound for row in rows]) - every @ settled + _TINY


def _order(problem: BalanceProblem, ask: Ask) -> list[int]:
    """Places of the lines that may move, in an order that does not hang on how the formula lists them."""

    def may(slot: Slot) -> bool:
        if not slot.free or slot.gone or slot.id in ask.untouched:
            return False
        return not slot.new or (slot.most > 0 and (ask.only_new is None or slot.id in ask.only_new))

    return sorted(
        (i for i, slot in enumerate(problem.slots) if may(slot)),
        key=lambda i: (problem.slots[i].ingredient, problem.slots[i].id),
    )
