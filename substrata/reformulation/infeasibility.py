"""Limits that cannot be met together: an irreducible set of them, and what each would have to give.

A deletion filter over the continuous problem (Chinneck & Dravnieks 1991, from memory): let go of one limit after the
other, keep it away where the rest still clashes. What is left clashes, and does not when any one is dropped. Guard rails
are tried first and wishes last, so that the set names the wish.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import ceil
from typing import Literal

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.ingredients.library import Floats
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.linear_row import Kind, LinearRow
from substrata.reformulation.program.linear_rows import rows_at
from substrata.reformulation.program.linearisation import INSIDE_SCORE, SCORE_UNIT, slopes_at
from substrata.reformulation.program.milp import Ask, Solved, solve
from substrata.reformulation.request.balance_answer import Relaxation
from substrata.reformulation.solutions.solution_text import amount, limit_text

_ORDER: tuple[Kind, ...] = ("rail", "mass", "cap", "window", "handling", "wish")
_ROOM = 1.002  # what a relaxed limit is told with beyond the least
_PRICE = 1.0


@dataclass(frozen=True, kw_only=True)
class Limit:
    """All rows of one side of one limit."""

    key: str
    kind: Kind
    rows: tuple[LinearRow, ...]


def limits_of(rows: Sequence[LinearRow]) -> list[Limit]:
    """Return the limits that must hold, in the order in which they are let go."""
    table: dict[tuple[str, str], list[LinearRow]] = {}
    for row in rows:
        if row.kind != "soft" and not row.price:
            table.setdefault((row.key, "" if row.kind in ("rail", "mass") else row.side), []).append(row)
    limits = [Limit(key=key, kind=entry[0].kind, rows=tuple(entry)) for (key, _), entry in table.items()]
    return sorted(limits, key=lambda limit: (_ORDER.index(limit.kind), limit.key))


def feasible(problem: BalanceProblem, limits: Sequence[Limit]) -> bool:
    """Whether some weights, in whatever steps, keep all limits."""
    rows = [row for limit in limits for row in limit.rows]
    return solve(problem, rows, Ask(elastic={}, whole_steps=False)).grams is not None


def irreducible(problem: BalanceProblem, limits: Sequence[Limit]) -> tuple[Limit, ...]:
    """Return a set of limits that clashes, and does not when any one of them is dropped; empty when all can be kept."""
    if feasible(problem, limits):
        return ()
    subset = list(limits)
    for limit in limits:
        rest = [other for other in subset if other is not limit]
        if not feasible(problem, rest):
            subset = rest
    return tuple(subset)


def conflict_at(problem: BalanceProblem, grams: Floats, present: float | None) -> tuple[Relaxation, ...]:
    """Return the conflict at a point, each limit with what it would have to give; limits that can give nothing are left out."""
    rows = rows_at(problem, grams, slopes_at(problem, grams, present=present))
    limits = limits_of(rows)
    conflict = irreducible(problem, limits)
    if not conflict:
        return ()
    return tuple(_relaxed(problem, limits, limit) for limit in conflict)


def _relaxed(problem: BalanceProblem, limits: Sequence[Limit], limit: Limit) -> Relaxation:
    """By how much one limit would have to give with all others kept; another clash may stand behind this one."""
    rows = [replace(row, price=_PRICE) if other is limit else row for other in limits for row in other.rows]
    solved = solve(problem, rows, Ask(elastic={}, aim=None))
    if solved.grams is None:
        kind: Literal["target", "rail", "handling"] = (
            "rail" if limit.kind in ("rail", "mass", "cap") else "handling" if limit.kind == "handling" else "target"
        )
        text = limit_text(problem, limit.rows[0])
        return Relaxation(
            text=text,
            kind=kind,
            key=limit.key.removeprefix("rail:"),
            price=Message("infeasibility-not-enough-by-itself"),
            enough=False,
        )
    relaxation = _least_relaxation(problem, rows, limit, solved)
    row = max(limit.rows, key=lambda linear_row: linear_row.over(relaxation))
    over = row.over(relaxation)
    text = limit_text(problem, row)
    if limit.kind in ("rail", "mass", "cap"):
        return Relaxation(
            text=text,
            kind="rail",
            key=limit.key.removeprefix("rail:"),
            price=Message("infeasibility-remove-this-limit"),
        )
    if limit.kind == "handling":
        return Relaxation(
            text=text, kind="handling", key=limit.key, price=Message("infeasibility-allow-a-softer-or-stiffer")
        )
    if limit.key.startswith("texture:"):
        away = over * SCORE_UNIT + INSIDE_SCORE
        would = row.limit + away if row.side == "high" else row.limit - away
        return _bound(
            limit.key,
            row,
            round(would, 1),
            text,
            Message("infeasibility-set-it-to-2", would=Quantity(would, "number", digits=1)),
        )
    if limit.key == "minutes":
        would = ceil(row.limit * (1 + over) * _ROOM)
        return _bound(limit.key, row, would, text, Message("infeasibility-set-it-to-min", would=would))
    return _target(limit.key, row, over, text)


def _least_relaxation(problem: BalanceProblem, rows: Sequence[LinearRow], limit: Limit, first: Solved) -> Floats:
    """Return the answer that asks least of the limit: its price far above every edit."""
    dear = [replace(row, price=1e6) if row.price and row.key == limit.key else row for row in rows]
    solved = solve(problem, dear, Ask(elastic={}))
    return solved.grams if solved.grams is not None else first.grams  # type: ignore[return-value]  # looked at before


def _bound(key: str, row: LinearRow, would: float, text: Wording, price: Wording) -> Relaxation:
    low, high = (None, would) if row.side == "high" else (would, None)
    return Relaxation(text=text, kind="target", key=key, price=price, low=low, high=high)


def _target(key: str, row: LinearRow, over: float, text: Wording) -> Relaxation:
    would = row.limit * (1 + over * _ROOM) if row.side == "high" else row.limit * (1 - over * _ROOM)
    return _bound(key, row, would, text, Message("infeasibility-set-it-to", amount=amount(key, would)))
