"""How sure an answer is to meet its targets, and what a step further would take."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache
from math import erf, sqrt
from statistics import NormalDist

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.uncertainty import SDS_IN_HALF_90
from substrata.evaluation.dough import Dough
from substrata.ingredients.library import Floats
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import ModelCheck
from substrata.reformulation.program.linear_row import LinearRow
from substrata.reformulation.program.milp import Ask, solve
from substrata.reformulation.request.balance_answer import Sure
from substrata.reformulation.solutions.solution_text import amount, printed, quantity_text

_TIGHTER = 0.05  # of a target: the step whose price is told


def prices_of_more(
    problem: BalanceProblem, rows: list[LinearRow], binding: list[LinearRow], verdict: ModelCheck
) -> list[Wording]:
    """Return what a little more of each binding target would take, by the linear problem at the answer."""
    texts: list[Wording] = []
    for row in binding:
        if row.kind != "wish" or row.key.startswith(("texture", "minutes")) or len(texts) == 2:
            continue
        ask = Ask(elastic={}, whole_steps=False, near=verdict.grams, trust=1.0)
        now = solve(problem, rows, ask)
        # A step that shows in what is printed.
        share = max(_TIGHTER, printed(row.key) / max(abs(row.limit), 1e-9))
        step = share * (abs(row.bound) if row.bound else 1.0)
        tight = [_tightened(other, step) if other is row else other for other in rows]
        more = solve(problem, tight, ask)
        less = share * abs(row.limit)
        if now.grams is None:
            continue
        word = "less" if row.side == "high" else "more"
        if more.grams is None:
            texts.append(
                Message(
                    "target-probability-the-other-targets-leave-no", word=word, quantity_text=quantity_text(row.key)
                )
            )
        elif more.cost - now.cost > 0:
            texts.append(
                Message(
                    "target-probability-would-take-g-more-change",
                    amount=amount(row.key, less),
                    word=word,
                    quantity_text=quantity_text(row.key),
                    cost=Quantity(more.cost - now.cost, "g", digits=0),
                )
            )
    return texts


def _tightened(row: LinearRow, step: float) -> LinearRow:
    return replace(row, bound=row.bound - step)


def target_probabilities(after: Dough) -> list[Sure]:
    """How often each target of a dough is met, by the doubt of what its lines are made of."""
    rows = []
    for key, target in after.windows.items():
        if target.source != "target" or key not in after.ratios_of:
            continue
        estimate = after.bracketed.one_estimate(key)
        sd = (estimate.high - estimate.value) / SDS_IN_HALF_90
        share = chance(estimate.value, sd, target.window.low, target.window.high)
        rows.append(
            Sure(
                key=key,
                text=Message(
                    "target-probability-the-target-of-is-met", quantity_text=quantity_text(key), ten=ten(share)
                ),
                probability=share,
            )
        )
    return rows


@dataclass(frozen=True, kw_only=True)
class SureStep:
    """How surely a target is to be met."""

    margin: float  # standard deviations that are kept away from its bound
    probability: float
    text: Wording


@cache
def sure_steps() -> tuple[SureStep, ...]:
    """Return the steps of the dial, from a target met on paper to one met nine times in ten."""
    margins = (NormalDist().inv_cdf(n / 10) for n in range(5, 10))
    probabilities = ((margin, chance(-margin, 1.0, None, 0.0)) for margin in margins)
    return tuple(
        SureStep(margin=round(m, 4) + 0.0, probability=p, text=Message("target-probability-met", ten=ten(p)))
        for m, p in probabilities
    )


def chance(value: float, sd: float, low: float | None, high: float | None) -> float:
    """Probability that a normal figure lies between two bounds.

    >>> round(chance(3.0, 1.0, None, 4.2816), 2)
    0.9

    Returns:
        A probability, 0..1.
    """
    if sd <= 0:
        return float((low is None or value >= low) and (high is None or value <= high))

    def below(bound: float) -> float:
        return 0.5 * (1 + erf((bound - value) / sd / sqrt(2)))

    return (1.0 if high is None else below(high)) - (0.0 if low is None else below(low))


def ten(share: float) -> Wording:
    """Return a probability as bakers say it.

    >>> str(ten(0.5)), str(ten(0.97))
    ('5 times in 10', 'nearly always')
    """
    if share > 0.95:
        return Message("target-probability-nearly-always")
    return (
        Message("target-probability-times-in", share=round(10 * share))
        if share >= 0.05
        else Message("target-probability-hardly-ever")
    )


def spread_over(problem: BalanceProblem, grams: Floats, key: str) -> tuple[str, float]:
    """Return the line that makes a quantity most doubtful: its name, and its share of the doubt."""
    figure = problem.at(grams).sheet.figure(key)
    top = max(figure.contributions, key=lambda c: c.spread_share, default=None)
    return (top.name, top.spread_share) if top else ("", 0.0)
