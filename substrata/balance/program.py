"""The mixed-integer program: the least change, in steps of the kitchen, that keeps every row.

Solved by HiGHS through ``scipy.optimize.milp`` (statuses are SciPy's: 0 optimal, 1 limit reached, 2 infeasible,
3 unbounded, 4 other). Variables of each line: grams ``g = z·start + y·saved + step·k`` with a whole ``k``, and ``z`` and ``y`` the
anchors that let a line stay off the kitchen's steps, or go back to the saved version; what is added and taken; whether
it is touched.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_matrix

from substrata.balance.bench import Bench, Slot
from substrata.balance.rows import Row
from substrata.balance.steps import NEW, TOUCHED
from substrata.pantry.library import Floats

OPTIMAL, LIMIT, INFEASIBLE = 0, 1, 2
_TOWARDS = 0.4  # cost of a gram that brings a line back to the saved version, against one that takes it away
_TIE = 1e-4  # by rank, so that of two equal answers always the same one is given
_SECONDS = 4.0
_GAP = 1e-3
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


@dataclass(frozen=True, kw_only=True)
class Solved:
    """An answer of the program."""

    status: int  # SciPy's
    grams: Floats | None  # shape (n,)
    cost: float  # of the change alone
    gap: float
    bound: float  # least that any answer could cost


def change_cost(bench: Bench, grams: Floats) -> float:
    """What a change costs, in grams of flour: what the program minimises, without its ties."""
    total = 0.0
    for slot, now in zip(bench.slots, grams.tolist(), strict=True):
        moved = abs(now - slot.start)
        if moved > 1e-6:  # noqa: PLR2004
            total += _moved_cost(slot, now) + TOUCHED + (NEW if slot.new else 0.0)
    return total


def _moved_cost(slot: Slot, now: float) -> float:
    """Grams towards the saved version are cheap, beyond it and away from it they are not."""
    moved, room = now - slot.start, slot.wanted - slot.start
    cheap = max(min(moved / room, 1.0), 0.0) * abs(room) if room else 0.0
    return slot.step.weight * (_TOWARDS * cheap + abs(moved) - cheap)


class _Columns:
    """Places of the variables, and what of them each line needs."""

    def __init__(self, bench: Bench, slots: Sequence[int]) -> None:
        self.slots = slots
        n = len(slots)
        self.step, self.anchor, self.saved, self.more_to, self.more, self.less_to, self.less, self.touched = (
            slice(i * n, (i + 1) * n) for i in range(8)
        )
        self.lines = 8 * n


def solve(bench: Bench, rows: Sequence[Row], ask: Ask) -> Solved:
    """Solve one program.

    Args:
        bench: the lines with their steps.
        rows: what holds.
        ask: what may give way, and where to look.
    """
    places = _order(bench, ask)
    n = len(places)
    col = _Columns(bench, places)
    free = [bench.slots[p] for p in places]
    start = np.array([s.start for s in free])
    step = np.array([s.step.grams for s in free])
    wanted = np.array([s.wanted for s in free])
    weight = np.array([s.step.weight for s in free])
    most = np.array([max(s.most, 0.0) for s in free])
    reach = np.maximum(most, start) + 1.0
    soft = [row for row in rows if row.price or row.kind in ask.elastic]
    width = col.lines + len(soft)

    cost = np.zeros(width)
    rank = 1 + _TIE * np.arange(n)
    cost[col.more], cost[col.less] = weight * rank, weight * rank
    cost[col.more_to], cost[col.less_to] = _TOWARDS * weight * rank, _TOWARDS * weight * rank
    cost[col.touched] = TOUCHED + np.array([ask.new_price if s.new else 0.0 for s in free])
    for i, row in enumerate(soft):
        cost[col.lines + i] = row.price or ask.elastic[row.kind]
    if ask.aim is not None:
        cost *= 1e-3
        aim = ask.aim[places]
        cost[col.step] += aim * step
        cost[col.anchor] += aim * start
        cost[col.saved] += aim * wanted

    low, high = np.zeros(width), np.full(width, np.inf)
    on_steps = np.abs(start / step - np.round(start / step)) < 1e-6  # noqa: PLR2004
    back = (np.abs(wanted - start) > _TINY) & (wanted > _TINY) & (wanted <= most + _TINY)
    low[col.step] = -np.floor(np.maximum(np.where(on_steps, 0.0, start), np.where(back, wanted, 0.0)) / step)
    high[col.saved] = np.where(back, 1.0, 0.0)
    high[col.step] = np.floor(most / step + 1e-6)
    high[col.anchor] = np.where(on_steps | (most < start - _TINY), 0.0, 1.0)
    towards_up, towards_down = np.maximum(wanted - start, 0.0), np.maximum(start - wanted, 0.0)
    high[col.more_to], high[col.less_to] = towards_up, towards_down
    high[col.touched] = 1.0

    matrix, lower, upper = _line_rows(col, width, start, wanted, step, most, reach)
    whole, bound = np.zeros((len(rows), width)), np.zeros(len(rows))
    fixed = bench.start.copy()
    fixed[places] = 0.0
    slack = {id(row): col.lines + i for i, row in enumerate(soft)}
    for i, row in enumerate(rows):
        c = row.coefficients[places]
        whole[i, col.step], whole[i, col.anchor], whole[i, col.saved] = c * step, c * start, c * wanted
        bound[i] = row.bound - float(row.coefficients @ fixed)
        if id(row) in slack:
            whole[i, slack[id(row)]] = -1.0
    matrix += [whole]
    lower += [np.full(len(rows), -np.inf)]
    upper += [bound + _TINY]
    if ask.near is not None and ask.trust:
        near = ask.near[places]
        room = ask.trust * np.maximum(near, 0.06 * max(bench.kept.batch.dough_g, 1.0)) + step
        room[[s.gone for s in free]] = np.inf
        eye = np.zeros((n, width))
        eye[:, col.step], eye[:, col.anchor], eye[:, col.saved] = np.diag(step), np.diag(start), np.diag(wanted)
        matrix += [eye]
        lower += [near - room]
        upper += [near + room]

    integrality = np.zeros(width)
    if ask.whole_steps:
        for part in (col.step, col.anchor, col.saved, col.touched):
            integrality[part] = 1
    result = milp(
        cost,
        constraints=LinearConstraint(csr_matrix(np.vstack(matrix)), np.concatenate(lower), np.concatenate(upper)),
        bounds=Bounds(low, high),
        integrality=integrality,
        options={"time_limit": _SECONDS, "mip_rel_gap": _GAP, "presolve": True},
    )
    if result.x is None:
        return Solved(status=result.status, grams=None, cost=np.inf, gap=np.inf, bound=np.inf)
    grams = bench.start.copy()
    k, z, y = result.x[col.step], result.x[col.anchor], result.x[col.saved]
    if ask.whole_steps:
        k, z, y = np.round(k), np.round(z), np.round(y)
    grams[places] = np.maximum(z * start + y * wanted + step * k, 0.0)
    gap, dual = getattr(result, "mip_gap", 0.0) or 0.0, getattr(result, "mip_dual_bound", None)
    return Solved(
        status=result.status,
        grams=grams,
        cost=change_cost(bench, grams),
        gap=gap,
        bound=result.fun if dual is None else dual,
    )


def _order(bench: Bench, ask: Ask) -> list[int]:
    """Places of the lines that may move, in an order that does not hang on how the formula lists them."""

    def may(slot: Slot) -> bool:
        if not slot.free or slot.id in ask.untouched:
            return False
        return not slot.new or (slot.most > 0 and (ask.only_new is None or slot.id in ask.only_new))

    return sorted(
        (i for i, slot in enumerate(bench.slots) if may(slot)), key=lambda i: (bench.slots[i].ingredient, bench.slots[i].id)
    )


def _line_rows(
    col: _Columns, width: int, start: Floats, wanted: Floats, step: Floats, most: Floats, reach: Floats
) -> tuple[list[Floats], list[Floats], list[Floats]]:
    """What ties a line's variables together."""
    n = len(start)
    eye = np.eye(n)

    def block(**parts: Floats) -> Floats:
        result = np.zeros((n, width))
        for name, values in parts.items():
            result[:, getattr(col, name)] = eye * values
        return result

    infinite = np.full(n, np.inf)
    nothing = np.zeros(n)
    moves = block(step=step, anchor=start, saved=wanted, more_to=nothing - 1, more=nothing - 1, less_to=nothing + 1, less=nothing + 1)
    weighs = block(step=step, anchor=start, saved=wanted)
    # Below its anchor a line can only go where the anchor holds, and one anchor is enough.
    anchored = block(step=nothing + 1, anchor=np.floor(start / step), saved=np.floor(wanted / step))
    one = block(anchor=nothing + 1, saved=nothing + 1)
    touches = block(more_to=nothing + 1, more=nothing + 1, less_to=nothing + 1, less=nothing + 1, touched=-reach)
    return (
        [moves, weighs, anchored, one, touches],
        [start, nothing, nothing, -infinite, -infinite],
        [start, np.maximum(most, 0.0) + _TINY, infinite, nothing + 1, nothing],
    )
