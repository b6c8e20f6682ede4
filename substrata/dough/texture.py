"""What it will eat like: nine scores from 0 to 10, each with what makes it and how far it can be trusted.

Final moisture is an input: the form's habit, the baker's wish, or later the oven. Crispness, chew, sturdiness and
gumminess have some ground in the literature; tenderness, moistness and crumb are rules of thumb; egg and coconut
taste are kitchen lore. Every coefficient is a house guess (``docs/science.md``) until a kitchen's trials move it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache, lru_cache
from math import exp, sqrt

import numpy as np

from substrata.batch.baked import Baked
from substrata.batch.weighed import Batch
from substrata.pantry.composition import NUTRIENTS
from substrata.pantry.library import Floats
from substrata.quantities.tables import constant, read_table

MOST = 10.0
_FEW = 0.05  # a term smaller than this is not worth a line


@dataclass(frozen=True, kw_only=True)
class TextureTerm:
    """One thing that raises or lowers a score."""

    what: str
    amount: float  # points
    lines: tuple[str, ...] = ()


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


@dataclass(frozen=True, kw_only=True)
class Eaten:
    """What the scores are made of."""

    moisture: float  # % of the baked piece
    moisture_low: float
    moisture_high: float
    thickness_mm: float
    oven_c: float
    binder_load: float
    rise: float  # volume after over volume before


@cache
def _counted() -> dict[str, tuple[frozenset[str], str]]:
    """What counts as which (house choice): role, flag or id of a line, and the nutrient or "mass" that is counted."""
    return {
        row.text("share"): (frozenset(row.text("members").split()), row.text("counted"))
        for row in read_table("texture_shares.csv")
    }


@lru_cache(maxsize=256)
def _belongs(lines: tuple[tuple[str, str, frozenset[str]], ...]) -> Floats:
    """Which lines, by ingredient, role and flags, count towards each of ``_counted``, shape (n, shares)."""
    return np.array([_counts_as(*line) for line in lines])


def _counts_as(ingredient: str, role: str, flags: frozenset[str]) -> list[float]:
    names = {"any", f"role:{role}", f"id:{ingredient}", *(f"flag:{flag}" for flag in flags)}
    if role == "base" and any(flag.startswith("nut:") for flag in flags):
        names.add("nut")
    return [float(not names.isdisjoint(members)) for members, _ in _counted().values()]


def _amounts_each(batch: Batch) -> tuple[tuple[str, ...], Floats]:
    """Names of the shares, and grams of each line that count towards each, shape (n, shares)."""
    belongs = _belongs(tuple((w.ingredient.id, w.role, w.ingredient.flags) for w in batch.lines))
    each = belongs * (batch.composition[0] @ _counted_parts() + _counted_whole())
    each = np.column_stack((each, batch.behaviour("syrup")[0])) * batch.grams[:, None]
    return (*_counted(), "syrup"), each


@cache
def _counted_parts() -> Floats:
    """1.0 where a share counts a nutrient, shape (nutrients, shares)."""
    return np.array([[float(name == counted) for _, counted in _counted().values()] for name in NUTRIENTS])


@cache
def _counted_whole() -> Floats:
    """1.0 for each share that counts all of a line, shape (shares,)."""
    return np.array([float(counted == "mass") for _, counted in _counted().values()])


def _percents(batch: Batch, baked_g: float) -> dict[str, float]:
    """Each share of the baked piece, %."""
    names, each = _amounts_each(batch)
    return dict(zip(names, (100 * each.sum(axis=0) / baked_g).tolist(), strict=True))


def _lines_of_shares(batch: Batch) -> dict[str, tuple[str, ...]]:
    """The lines that bring each share."""
    names, each = _amounts_each(batch)
    ids = [w.line.id for w in batch.lines]
    return {
        name: tuple(line for line, has in zip(ids, column, strict=True) if has)
        for name, column in zip(names, (each > 0).T.tolist(), strict=True)
    }


def _sigmoid(x: float) -> float:
    return 1 / (1 + exp(-min(max(x, -50.0), 50.0)))


@dataclass(frozen=True, kw_only=True)
class _Rule:
    """One row of the table of terms: points for a matter or a state, bent by ``how``, and let in by a gate."""

    what: str
    of: str
    how: str  # "", above, over, most or saturates, each with its ``at``
    at: float
    points: float
    gate: str  # "", wetter, drier or thin
    gate_at: float  # % moisture
    gate_width: float


@cache
def _rules() -> dict[str, tuple[_Rule, ...]]:
    """The rules of each score."""
    table: dict[str, list[_Rule]] = {}
    for row in read_table("texture_terms.csv"):
        number = {c: row.number_in(c) if row.text(c) else 0.0 for c in ("at", "points", "gate_at", "gate_width")}
        words = {c: row.text(c) for c in ("what", "of", "how", "gate")}
        table.setdefault(row.text("score"), []).append(_Rule(**words, **number))  # type: ignore[arg-type]  # by name
    return {score: tuple(rules) for score, rules in table.items()}


def _states(e: Eaten, m: float, thin: float) -> dict[str, float]:
    """What is no matter but a state of the piece, at one moisture."""
    soft = _sigmoid((m - constant("soft_above")) / constant("soft_width"))
    dry = _sigmoid((constant("dry_half") - m) / constant("dry_width")) * sqrt(thin)
    return {
        "one": 1.0,
        "moisture": m,
        "binder": e.binder_load,
        "rise": e.rise,
        "dryness": dry,
        "crust": (1 - dry) * _sigmoid((e.oven_c - constant("crust_half")) / constant("crust_width")) * thin,
        "thinness": 0.5 + soft * (_sigmoid(constant("snaps_at") - e.thickness_mm) - 0.5),
        "density": max(constant("risen_least") - e.rise, 0.0) / constant("risen_width"),
    }


def _bent(x: float, rule: _Rule) -> float:
    match rule.how:
        case "above":
            return max(x - rule.at, 0.0)
        case "over":
            return x - rule.at
        case "most":
            return min(x, rule.at)
        case "saturates":
            return 1 - exp(-x / rule.at)
    return x


def _amounts(percents: Mapping[str, float], e: Eaten, moisture: float) -> dict[str, list[float]]:
    """Points of each term of each score at one final moisture, in the order of ``_rules``."""
    thin = min(1.0, float((constant("snaps_at") / e.thickness_mm) ** constant("thin_power")))
    of = dict(percents) | _states(e, moisture, thin)

    def let_in(rule: _Rule) -> float:
        match rule.gate:
            case "wetter":
                return _sigmoid((moisture - rule.gate_at) / rule.gate_width)
            case "drier":
                return _sigmoid((rule.gate_at - moisture) / rule.gate_width)
            case "thin":
                return thin
        return 1.0

    return {
        score: [
            rule.points * (_bent(of[rule.of], rule) if rule.how else of[rule.of]) * (let_in(rule) if rule.gate else 1.0)
            for rule in rules
        ]
        for score, rules in _rules().items()
    }


def _terms(lines: Mapping[str, tuple[str, ...]], score: str, amounts: list[float]) -> tuple[TextureTerm, ...]:
    """What is worth a line of what makes a score, the largest first."""
    rows = [
        TextureTerm(what=rule.what, amount=amount, lines=lines.get(rule.of, ()))
        for rule, amount in zip(_rules()[score], amounts, strict=True)
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


_LEAST_SOLID = 0.02  # of a batch: a drink has no texture of a crumb


def _nothing_to_eat(batch: Batch, after: Baked) -> bool:
    solid = float(batch.grams @ (1 - batch.nutrient("water_g")[0]))
    return after.bake_to_g <= 0 or solid < _LEAST_SOLID * float(batch.grams.sum())


def texture_values(batch: Batch, after: Baked, eaten: Eaten) -> dict[str, float]:
    """The nine scores alone, by key; none while there is nothing to eat."""
    if _nothing_to_eat(batch, after):
        return {}
    amounts = _amounts(_percents(batch, after.bake_to_g), eaten, eaten.moisture)
    return {score: _bounded(sum(terms)) for score, terms in amounts.items()}


def texture(batch: Batch, after: Baked, eaten: Eaten) -> Texture | None:
    """The nine scores; None while there is nothing to eat.

    Args:
        batch: the weighed lines.
        after: what the oven leaves.
        eaten: moisture, thickness, oven, binder and rise.
    """
    if _nothing_to_eat(batch, after):
        return None
    shares, lines = _percents(batch, after.bake_to_g), _lines_of_shares(batch)
    typical, wetter, drier = (
        _amounts(shares, eaten, m) for m in (eaten.moisture, eaten.moisture_high, eaten.moisture_low)
    )
    scores = []
    for key, label, confidence, low_word, high_word, half, basis in _kinds():
        value, one, other = (_bounded(sum(amounts[key])) for amounts in (typical, wetter, drier))
        scores.append(
            TextureScore(
                key=key,
                label=label,
                value=value,
                low=_bounded(min(one, other, value) - half),
                high=_bounded(max(one, other, value) + half),
                confidence=confidence,
                low_word=low_word,
                high_word=high_word,
                basis=basis,
                terms=_terms(lines, key, typical[key]),
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


def _bounded(value: float) -> float:
    return min(max(value, 0.0), MOST)


_STRONG, _WEAK = 5.5, 2.0


def _text(scores: list[TextureScore]) -> str:
    """What stands out, in the order of strength: "Crisp and crumbly; not chewy"."""
    by_key = {score.key: score for score in scores}
    strong = sorted((s for s in scores if s.value >= _STRONG), key=lambda s: -s.value)[:3]
    phrase = [s.label.lower() for s in strong]
    if not phrase:
        phrase = [max(scores, key=lambda s: s.value).label.lower()]
    text = " and ".join((", ".join(phrase[:-1]), phrase[-1])) if len(phrase) > 1 else phrase[0]
    gummy = by_key["gummy"]
    risk = "; may turn gummy" if "gummy" not in phrase and gummy.high >= _STRONG and gummy.value > _WEAK else ""
    return f"{text.capitalize()}{risk}."
