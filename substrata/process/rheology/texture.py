"""What it will eat like: nine scores from 0 to 10, each with what makes it and how far it can be trusted.

Final moisture is an input: the form's habit, the baker's wish, or later the oven. Crispness, chew, sturdiness and
gumminess have some ground in the literature; tenderness, moistness and crumb are rules of thumb; egg and coconut
taste are kitchen lore. Every coefficient is a house guess (``docs/science.md``) until a kitchen's trials move it.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from math import exp, sqrt

import numpy as np
from numpy.typing import NDArray

from substrata.base.bulk_dataclass import in_bulk
from substrata.base.messages.message import Wording
from substrata.base.tables.table_reader import constant, read_table
from substrata.formula.batch.baked_weight import Baked
from substrata.formula.batch.batch_lines import Batch
from substrata.ingredients.library import Floats
from substrata.process.rheology.texture_palate import THE_HOUSES, Eaten, Palate
from substrata.process.rheology.texture_rules import (
    TextureRule,
    amounts_each,
    counted_ingredients,
    lines_of_shares,
    percents,
    texture_rules,
)

Places = NDArray[np.intp]
MOST = 10.0
_FEW = 0.05  # a term smaller than this is not worth a line


@in_bulk
@dataclass(frozen=True, kw_only=True)
class TextureTerm:
    """One thing that raises or lowers a score."""

    what: str
    amount: float  # points
    lines: tuple[str, ...] = ()


@in_bulk
@dataclass(frozen=True, kw_only=True)
class TextureScore:
    """One of the nine."""

    key: str
    label: str
    value: float  # 0..10
    low: float
    high: float
    confidence: str  # computed, rule of thumb or hint
    low_word: str
    high_word: str
    basis: str
    learned: Wording  # what a kitchen's own runs have moved; "" where they have not
    terms: tuple[TextureTerm, ...]  # the largest first


@dataclass(frozen=True, kw_only=True)
class Texture:
    """The forecast with what it rests on."""

    moisture_percent: float
    moisture_source: str  # set, dried, habit
    thickness_mm: float
    oven_c: float
    scores: tuple[TextureScore, ...]
    text: str


def _sigmoid(x: float) -> float:
    return 1 / (1 + exp(-min(max(x, -50.0), 50.0)))


_STATES = ("one", "moisture", "binder", "rise", "dryness", "crust", "thinness", "density")


def _states(e: Eaten, m: float, thin: float) -> tuple[float, ...]:
    """Return what is no matter but a state of the piece, at one moisture; in the order of ``_STATES``."""
    soft = _sigmoid((m - constant("soft_above")) / constant("soft_width"))
    dry = _sigmoid((constant("dry_half") - m) / constant("dry_width")) * sqrt(thin)
    crust = (1 - dry) * _sigmoid((e.oven_c - constant("crust_half")) / constant("crust_width")) * thin
    thinness = 0.5 + soft * (_sigmoid(constant("snaps_at") - e.thickness_mm) - 0.5)
    density = max(constant("risen_least") - e.rise, 0.0) / constant("risen_width")
    return 1.0, m, e.binder_load, e.rise, dry, crust, thinness, density


@dataclass(frozen=True, kw_only=True)
class _Stacked:
    """The r rules of every score in one row, those of a score side by side."""

    starts: dict[str, slice]  # the rules of each score
    first: Places  # of them
    places: Places  # place of each rule's matter or state in the shares and states, shape (r,)
    less: Floats  # taken off before it is bent
    least: Floats  # and not below
    most: Floats
    saturates: Places  # which rules do, shape (s,)
    half_way: Floats
    points: Floats
    gated: Places  # which rules are let in by moisture, shape (g,)
    gate_at: Floats
    gate_width: Floats  # negative where drier lets in
    thin: Places  # which are let in by thinness


@cache
def _stacked() -> _Stacked:
    every = [rule for rules in texture_rules().values() for rule in rules]
    places = {name: place for place, name in enumerate((*counted_ingredients(), "syrup", *_STATES))}
    starts, start = {}, 0
    for score, rules in texture_rules().items():
        starts[score] = slice(start, start + len(rules))
        start += len(rules)

    def those(test: Callable[[TextureRule], bool]) -> Places:
        return np.array([row for row, rule in enumerate(every) if test(rule)], dtype=int)

    saturates, gated = those(lambda r: r.how == "saturates"), those(lambda r: r.gate in ("wetter", "drier"))
    return _Stacked(
        starts=starts,
        first=np.array([rules.start for rules in starts.values()]),
        places=np.array([places[rule.of] for rule in every]),
        less=np.array([rule.at if rule.how in ("above", "over") else 0.0 for rule in every]),
        least=np.array([0.0 if rule.how == "above" else -np.inf for rule in every]),
        most=np.array([rule.at if rule.how == "most" else np.inf for rule in every]),
        saturates=saturates,
        half_way=np.array([every[row].at for row in saturates]),
        points=np.array([rule.points for rule in every]),
        gated=gated,
        gate_at=np.array([every[row].gate_at for row in gated]),
        gate_width=np.array([every[row].gate_width * (1 if every[row].gate == "wetter" else -1) for row in gated]),
        thin=those(lambda r: r.gate == "thin"),
    )


def _amounts(shares: Sequence[float], e: Eaten, moistures: Sequence[float], palate: Palate) -> Floats:
    """Points of each of the r rules at each of the m moistures, shape (m, r)."""
    rules, thin = _stacked(), min(1.0, float((constant("snaps_at") / e.thickness_mm) ** constant("thin_power")))
    each = np.array([[*shares, *_states(e, moisture, thin)] for moisture in moistures])[:, rules.places]
    result: Floats = np.minimum(np.maximum(each - rules.less, rules.least), rules.most)
    result[:, rules.saturates] = 1 - np.exp(-each[:, rules.saturates] / rules.half_way)
    wetter = (np.array(moistures)[:, None] - rules.gate_at) / rules.gate_width
    result[:, rules.gated] /= 1 + np.exp(np.minimum(-wetter, 50.0))
    result[:, rules.thin] *= thin
    result = result * rules.points
    return result * palate.points() if palate.weights else result


def _values(amounts: Floats, palate: Palate) -> dict[str, list[float]]:
    """Each score at each moisture, from the points of its rules, shape (m, r)."""
    sums = np.add.reduceat(amounts, _stacked().first, axis=1)
    if palate.offsets:
        sums = sums + [palate.offsets.get(score, 0.0) for score in _stacked().starts]
    return dict(zip(_stacked().starts, np.minimum(np.maximum(sums, 0.0), MOST).T.tolist(), strict=True))


def _terms(lines: Mapping[str, tuple[str, ...]], score: str, amounts: list[float]) -> tuple[TextureTerm, ...]:
    """Return what is worth a line of what makes a score, the largest first."""
    rows = [
        TextureTerm(what=rule.what, amount=amount, lines=lines.get(rule.of, ()))
        for rule, amount in zip(texture_rules()[score], amounts, strict=True)
        if abs(amount) >= _FEW
    ]
    return tuple(sorted(rows, key=lambda term: -abs(term.amount)))


@cache
def _kinds() -> tuple[tuple[str, str, str, str, str, float, str], ...]:
    return tuple(
        (
            row.text("score"),
            row.text("label"),
            row.text("confidence"),
            row.text("low_word"),
            row.text("high_word"),
            row.number_in("half", 0, MOST),
            row.text("basis"),
        )
        for row in read_table("texture.csv")
    )


def texture_words() -> dict[str, str]:
    """Return what each of the nine scores is called, by its key."""
    return {key: label for key, label, *_ in _kinds()}


def texture_keys() -> tuple[str, ...]:
    """Return the nine scores."""
    return tuple(texture_words())


_LEAST_SOLID = 0.02  # of a batch: a drink has no texture of a crumb


def _nothing_to_eat(batch: Batch, after: Baked) -> bool:
    solid = float(batch.grams @ (1 - batch.nutrient("water_g")[0]))
    return after.bake_to_g <= 0 or solid < _LEAST_SOLID * float(batch.grams.sum())


def texture_values(batch: Batch, after: Baked, eaten: Eaten, palate: Palate = THE_HOUSES) -> dict[str, float]:
    """Return the nine scores alone, by key; none while there is nothing to eat."""
    if _nothing_to_eat(batch, after):
        return {}
    amounts = _amounts(percents(amounts_each(batch), after.bake_to_g), eaten, [eaten.moisture], palate)
    return {score: values[0] for score, values in _values(amounts, palate).items()}


def texture(batch: Batch, after: Baked, eaten: Eaten, palate: Palate = THE_HOUSES) -> Texture | None:
    """Return the nine scores; None while there is nothing to eat.

    Args:
        batch: the weighed lines.
        after: what the oven leaves.
        eaten: moisture, thickness, oven, binder and rise.
        palate: how the kitchen scores.
    """
    if _nothing_to_eat(batch, after):
        return None
    each = amounts_each(batch)
    shares, lines = percents(each, after.bake_to_g), lines_of_shares(batch, each)
    amounts = _amounts(shares, eaten, (eaten.moisture, eaten.moisture_high, eaten.moisture_low), palate)
    values, typical = _values(amounts, palate), amounts[0].tolist()
    scores = []
    for key, label, confidence, low_word, high_word, half, basis in _kinds():
        value, level, other = values[key]
        spread = half * palate.remaining.get(key, 1.0)
        scores.append(
            TextureScore(
                key=key,
                label=label,
                value=value,
                low=max(min(level, other, value) - spread, 0.0),
                high=min(max(level, other, value) + spread, MOST),
                confidence=confidence,
                low_word=low_word,
                high_word=high_word,
                basis=basis,
                learned=palate.texts.get(key, ""),
                terms=_terms(lines, key, typical[_stacked().starts[key]]),
            )
        )
    return Texture(
        moisture_percent=eaten.moisture,
        moisture_source=after.source,
        thickness_mm=eaten.thickness_mm,
        oven_c=eaten.oven_c,
        scores=tuple(scores),
        text=_text(scores),
    )


def _text(scores: list[TextureScore]) -> str:
    """Return what stands out, in the order of strength: "Crisp and crumbly; not chewy"."""
    by_key = {score.key: score for score in scores}
    strong = sorted((s for s in scores if s.value >= constant("texture_strong_from")), key=lambda s: -s.value)[:3]
    phrase = [s.label.lower() for s in strong]
    if not phrase:
        phrase = [max(scores, key=lambda s: s.value).label.lower()]
    text = " and ".join((", ".join(phrase[:-1]), phrase[-1])) if len(phrase) > 1 else phrase[0]
    gummy = by_key["gummy"]
    risk = (
        "; may turn gummy"
        if "gummy" not in phrase
        and gummy.high >= constant("texture_strong_from")
        and gummy.value > constant("texture_weak_to")
        else ""
    )
    return f"{text.capitalize()}{risk}."
