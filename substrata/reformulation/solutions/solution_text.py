"""Settle's sentences: what is changed, what holds an answer, what clashes."""

from __future__ import annotations

from collections.abc import Callable

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity, in_grams
from substrata.evaluation.analysis.phrasing import short_name
from substrata.evaluation.analysis.target_states import bracket_kinds
from substrata.ingredients.groups import is_group_id
from substrata.reformulation.program.balance_problem import BalanceProblem, Slot
from substrata.reformulation.program.linear_row import LinearRow
from substrata.reformulation.program.linearisation import INSIDE_SCORE
from substrata.reformulation.request.balance_request import PER_100_G
from substrata.reformulation.request.guard_limits import guard_limits

_NAMES: dict[str, Wording] = {
    "sodium": "sodium",
    "cheese": "cheese",
    "total_carbs": Message("solution-text-total-carbs"),
    "sugars": "sugars",
    "saturates": "saturates",
}
_FEW = 1e-6


def change_text(slot: Slot, now: float) -> Wording:
    """One edit: "+ 25 g bamboo fibre"; of eggs, how many."""
    name, moved = short_name(slot.name), now - slot.start
    if now <= _FEW:
        return Message("solution-text-no", name=name, start=in_grams(slot.start))
    count = _eggs(slot, moved)
    sign = "+" if moved > 0 else "−"
    text = Message("solution-text-parts", sign=sign, moved=in_grams(abs(moved)), name=name, count=count)
    return text if slot.start <= _FEW else Message("solution-text-to", text=text, now=in_grams(now))


def _eggs(slot: Slot, moved: float) -> Wording:
    if not is_group_id(slot.ingredient, "egg"):
        return ""
    number = abs(moved) / slot.step.grams
    whole = round(number)
    return Message("solution-text-parts-2", whole=whole) if whole and abs(number - whole) < 0.01 else ""


def limit_text(problem: BalanceProblem, row: LinearRow) -> Wording:
    """Return what a row stands for."""
    kind, _, name = row.key.partition(":")
    side = Message("solution-text-at-least") if row.side == "low" else Message("solution-text-at-most")
    texts: dict[str, Callable[[], Wording]] = {
        "mass": lambda: Message("solution-text-the-weight-of-the-dough"),
        "handling": lambda: _handling_text(problem),
        "crumbly": lambda: Message("solution-text-enough-moisture-to-hold-together"),
        "minutes": lambda: Message("solution-text-baked-within-min", limit=Quantity(row.limit, "min", digits=0)),
        "cap": lambda: Message(
            "solution-text-at-most-of-the-dough", name=name, limit=Quantity(100 * row.limit, "%", digits=1)
        ),
        "texture": lambda: Message(
            "solution-text-parts-4",
            name=name,
            side=side,
            limit=Quantity(row.limit + (INSIDE_SCORE if row.side == "high" else -INSIDE_SCORE), "number", digits=1),
        ),
        "rail": lambda: _rail_text(problem, name),
    }
    return (
        texts[kind]()
        if kind in texts
        else Message(
            "solution-text-parts-3", quantity_text=quantity_text(row.key), side=side, amount=amount(row.key, row.limit)
        )
    )


def _rail_text(problem: BalanceProblem, name: str) -> Wording:
    rail, _, line = name.partition(":")
    if not line:
        return guard_limits()[rail].text
    slot = next(s for s in problem.slots if s.id == line)
    return Message("solution-text-at-least-half-of-the", slot_name=short_name(slot.name))


def _handling_text(problem: BalanceProblem) -> Wording:
    if problem.wish.handling:
        return Message("solution-text-at-shaping-2", handling=problem.wish.handling)
    target = problem.original.target_handling
    return Message(
        "solution-text-at-shaping",
        lowest=target.lowest if target.lowest == target.highest else f"{target.lowest} to {target.highest}",
    )


def quantity_text(key: str) -> Wording:
    """Return a quantity's name in a sentence."""
    plain = key.removesuffix(PER_100_G)
    kind = bracket_kinds().get(plain)
    return kind.label.lower() if kind else _NAMES.get(plain, plain.replace("_", " "))


def printed(key: str) -> float:
    """One of the last digit that is printed of a quantity."""
    kind = bracket_kinds().get(key.removesuffix(PER_100_G))
    return 10.0 ** -(kind.decimals if kind else 1)


def amount(key: str, value: float) -> str:
    """Return a figure of a quantity with its unit."""
    plain = key.removesuffix(PER_100_G)
    kind = bracket_kinds().get(plain)
    unit = "mg" if plain == "sodium" else kind.unit.removesuffix(" per piece") if kind else "g"
    decimals = kind.decimals if kind else 0 if plain == "sodium" else 1
    behind = (
        "per 100 g" if key.endswith(PER_100_G) else "per piece" if not kind or kind.unit.endswith("per piece") else ""
    )
    if plain == "cost":
        return f"{value:.2f} per piece"
    return " ".join(filter(None, (f"{value:.{decimals}f}", unit, behind)))
