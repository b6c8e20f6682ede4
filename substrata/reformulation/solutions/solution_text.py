"""Settle's sentences: what is changed, what holds an answer, what clashes."""

from __future__ import annotations

from collections.abc import Callable

from substrata.evaluation.analysis.phrasing import grams, short_name
from substrata.evaluation.analysis.target_states import bracket_kinds
from substrata.ingredients.groups import is_group_id
from substrata.reformulation.program.balance_problem import BalanceProblem, Slot
from substrata.reformulation.program.linear_row import LinearRow
from substrata.reformulation.program.linearisation import INSIDE_SCORE
from substrata.reformulation.request.balance_request import PER_100_G
from substrata.reformulation.request.guard_limits import guard_limits

_NAMES = {
    "sodium": "sodium",
    "cheese": "cheese",
    "total_carbs": "total carbs",
    "sugars": "sugars",
    "saturates": "saturates",
}
_FEW = 1e-6


def change_text(slot: Slot, now: float) -> str:
    """One edit: "+ 25 g bamboo fibre"; of eggs, how many."""
    name, moved = short_name(slot.name), now - slot.start
    if now <= _FEW:
        return f"no {name} (− {grams(slot.start)})"
    count = _eggs(slot, moved)
    sign = "+" if moved > 0 else "−"
    text = f"{sign} {grams(abs(moved))} {name}{count}"
    return text if slot.start <= _FEW else f"{text}, to {grams(now)}"


def _eggs(slot: Slot, moved: float) -> str:
    if not is_group_id(slot.ingredient, "egg"):
        return ""
    number = abs(moved) / slot.step.grams
    whole = round(number)
    return f" ({whole} {'egg' if whole == 1 else 'eggs'})" if whole and abs(number - whole) < 0.01 else ""


def limit_text(problem: BalanceProblem, row: LinearRow) -> str:
    """Return what a row stands for."""
    kind, _, name = row.key.partition(":")
    side = "at least" if row.side == "low" else "at most"
    texts: dict[str, Callable[[], str]] = {
        "mass": lambda: "the weight of the dough",
        "handling": lambda: _handling_text(problem),
        "crumbly": lambda: "enough moisture to hold together",
        "minutes": lambda: f"baked within {row.limit:.0f} min",
        "cap": lambda: f"{name} at most {100 * row.limit:.1f} % of the dough",
        "texture": lambda: f"{name} {side} {row.limit + (INSIDE_SCORE if row.side == 'high' else -INSIDE_SCORE):.1f}",
        "rail": lambda: _rail_text(problem, name),
    }
    return texts[kind]() if kind in texts else f"{quantity_text(row.key)} {side} {amount(row.key, row.limit)}"


def _rail_text(problem: BalanceProblem, name: str) -> str:
    rail, _, line = name.partition(":")
    if not line:
        return guard_limits()[rail].text
    slot = next(s for s in problem.slots if s.id == line)
    return f"at least half of the {short_name(slot.name)}"


def _handling_text(problem: BalanceProblem) -> str:
    if problem.wish.handling:
        return f"{problem.wish.handling} at shaping"
    target = problem.original.target_handling
    return f"{target.lowest if target.lowest == target.highest else f'{target.lowest} to {target.highest}'} at shaping"


def quantity_text(key: str) -> str:
    """Return a quantity's name in a sentence."""
    plain = key.removesuffix(PER_100_G)
    kind = bracket_kinds().get(plain)
    return (kind.label if kind else _NAMES.get(plain, plain.replace("_", " "))).lower()


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
