"""Different answers to one wish, each named by what it is best at."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

import numpy as np

from substrata.analysis.words import short_name
from substrata.balance.bench import Bench
from substrata.balance.judge import Verdict, judge
from substrata.balance.rounds import Found, search
from substrata.batch.cost import price_per_gram
from substrata.pantry.library import Floats

_FORBIDDEN = 2  # dearest edits of the first way that are forbidden in turn
_APART = 0.35  # of both changes: ways nearer than this are one
_NO_NEW = 120.0  # price of a new ingredient in the search for a way without any
_HALF_SD = 0.5
_MOST_DEARER = 3.0  # a surer way may take so many times the change
_LEAST_G = 1e-6
Progress = Callable[[float], object]


def different_ways(bench: Bench, start: Verdict, found: Found, most: int, told: Progress) -> list[tuple[str, Verdict]]:
    """Different answers, ranked anew: forbid the dearest edits of the first in turn, bring in less, be surer."""
    answers = [found.verdict]
    tries: list[Callable[[], Verdict | None]] = []
    if most > 1:
        tries += [partial(_untouched, bench, start, slot) for slot in _dearest(bench, found.verdict)]
        tries += [partial(_without_new, bench, start)] if _new(bench, found.verdict) else []
        tries += [partial(_surer_way, bench, found.verdict)] if bench.targets and not bench.wish.margin else []
    for number, attempt in enumerate(tries):
        verdict = attempt()
        told(0.35 + 0.5 * (number + 1) / len(tries))
        if verdict is not None:
            answers.append(verdict)
    return _named(bench, answers, most)


def _untouched(bench: Bench, start: Verdict, slot: str) -> Verdict | None:
    return _met(search(bench, start=start, untouched=frozenset((slot,)), quick=True))


def _without_new(bench: Bench, start: Verdict) -> Verdict | None:
    return _met(search(bench, start=start, new_price=_NO_NEW, quick=True))


def _met(found: Found) -> Verdict | None:
    return found.verdict if found.met else None


def _dearest(bench: Bench, verdict: Verdict) -> list[str]:
    moved = [
        (slot.step.weight * abs(float(g) - slot.start) + (8.0 if slot.new else 0.0), slot.id)
        for slot, g in zip(bench.slots, verdict.grams, strict=True)
        if abs(float(g) - slot.start) > _LEAST_G and not slot.gone
    ]
    return [key for _, key in sorted(moved, reverse=True)[:_FORBIDDEN]]


def _new(bench: Bench, verdict: Verdict) -> int:
    return sum(1 for s, g in zip(bench.slots, verdict.grams, strict=True) if s.new and g > _LEAST_G)


def _surer_way(bench: Bench, plain: Verdict) -> Verdict | None:
    """An answer that keeps half a standard deviation away from its targets, if that does not take much more."""
    surer = _with_margin(bench, _HALF_SD)
    found = search(surer, start=judge(surer, surer.start), at=plain.grams, quick=True)
    verdict = judge(bench, found.verdict.grams)
    return (
        verdict if found.met and not verdict.missed and verdict.cost <= _MOST_DEARER * max(plain.cost, 10.0) else None
    )


def _with_margin(bench: Bench, margin: float) -> Bench:
    return Bench(
        bench.given.formula, bench.library, bench.settings, bench.wish.but(margin=margin), saved=bench.kept.formula
    )


def _named(bench: Bench, answers: list[Verdict], most: int) -> list[tuple[str, Verdict]]:
    """Distinct answers, the least change first, each named by what it is best at."""
    distinct: list[Verdict] = []
    for verdict in sorted(answers, key=lambda v: v.cost):
        if all(_apart(bench, verdict, other) for other in distinct):
            distinct.append(verdict)
    distinct = distinct[:most]
    prices = _prices(bench)
    fewest = min(distinct, key=lambda v: (_new(bench, v), v.cost))
    cheapest = min(distinct, key=lambda v: float(prices @ v.grams))
    surest = max(distinct, key=lambda v: _inside(bench, v)) if bench.targets else distinct[0]
    rows = []
    for number, verdict in enumerate(distinct):
        names = ["least change"] if number == 0 else []
        names += (
            ["nothing new" if not _new(bench, verdict) else "fewest new things"] if number and verdict is fewest else []
        )
        names += ["cheapest"] if prices.any() and number and verdict is cheapest else []
        names += ["surest"] if bench.targets and number and verdict is surest else []
        rows.append((" · ".join(names) or _without_text(bench, distinct[0], verdict), verdict))
    return rows


def _without_text(bench: Bench, first: Verdict, verdict: Verdict) -> str:
    """What the way leaves alone that the first one changes."""
    left = [
        (abs(float(a) - s.start) * s.step.weight, short_name(s.name))
        for s, a, b in zip(bench.slots, first.grams, verdict.grams, strict=True)
        if abs(float(a) - s.start) > _LEAST_G and abs(float(b) - s.start) <= _LEAST_G
    ]
    return f"without touching the {max(left)[1]}" if left else "another way"


def _prices(bench: Bench) -> Floats:
    return price_per_gram(bench.base.batch)[0][: bench.count]


def _inside(bench: Bench, verdict: Verdict) -> float:
    """Standard deviations by which the nearest target is met."""
    dough = bench.at(verdict.grams)
    depths = []
    for key in bench.targets:
        if key in dough.ratios_of:
            estimate, window = dough.bracketed.one_estimate(key), bench.targets[key]
            sd = max(estimate.high - estimate.value, 1e-9)
            depths += [(window.high - estimate.value) / sd] if window.high is not None else []
            depths += [(estimate.value - window.low) / sd] if window.low is not None else []
    return min(depths, default=0.0)


def _apart(bench: Bench, a: Verdict, b: Verdict) -> bool:
    weights = np.array([slot.step.weight for slot in bench.slots])
    between = float(weights @ np.abs(a.grams - b.grams))
    changes = [float(weights @ np.abs(v.grams - bench.start)) for v in (a, b)]
    return between >= _APART * min(changes)
