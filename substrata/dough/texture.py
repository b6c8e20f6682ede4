"""What it will eat like: nine scores from 0 to 10, each with what makes it and how far it can be trusted.

Final moisture is an input: the form's habit, the baker's wish, or later the oven. Crispness, chew, sturdiness and
gumminess have some ground in the literature; tenderness, moistness and crumb are rules of thumb; egg and coconut
taste are kitchen lore. Every coefficient is a house guess (``docs/science.md``) until a kitchen's trials move it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache, lru_cache
from math import exp

import numpy as np

from substrata.formula.baked import Baked
from substrata.formula.weighed import Batch
from substrata.pantry.library import Floats
from substrata.quantities.tables import read_table

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


@dataclass(frozen=True, kw_only=True)
class _Share:
    """A matter as per cent of the baked piece, and the lines that bring it."""

    percent: float
    lines: tuple[str, ...]


# What counts as which: role, flag or id of a line, and the nutrient or "mass" that is counted (house choice).
_SHARES: dict[str, tuple[tuple[str, ...], str]] = {
    "fat": (("any",), "fat_g"),
    "casein": (("role:cheese", "id:casein-powder"), "protein_g"),
    "egg protein": (("role:egg", "id:egg-white-powder", "id:egg-powder"), "protein_g"),
    "egg": (("role:egg",), "mass"),
    "egg white": (("id:egg-white", "id:egg-white-powder"), "mass"),
    "psyllium": (("flag:psyllium",), "mass"),
    "whey": (("id:whey-isolate",), "mass"),
    "gum": (("id:xanthan", "id:konjac", "id:guar"), "mass"),
    "flax": (("flag:seed:flax",), "mass"),
    "nut": (("nut",), "mass"),
    "coconut": (("id:coconut-flour", "id:desiccated-coconut"), "mass"),
    "oat fibre": (("id:oat-fibre", "id:bamboo-fibre"), "mass"),
    "cheese": (("role:cheese",), "mass"),
    "sweetener": (("role:sweetener",), "mass"),
    "herbs": (("role:flavour",), "mass"),
}


@lru_cache(maxsize=4096)
def _counts_as(ingredient: str, role: str, flags: frozenset[str]) -> Floats:
    """1.0 for each of ``_SHARES`` that a line counts towards, shape (shares,)."""
    names = {"any", f"role:{role}", f"id:{ingredient}", *(f"flag:{flag}" for flag in flags)}
    if role == "base" and any(flag.startswith("nut:") for flag in flags):
        names.add("nut")
    return np.array([float(not names.isdisjoint(members)) for members, _ in _SHARES.values()])


def _shares(batch: Batch, baked_g: float) -> dict[str, _Share]:
    belongs = np.array([_counts_as(w.ingredient.id, w.role, w.ingredient.flags) for w in batch.lines])
    ids = [w.line.id for w in batch.lines]
    found = {}
    for column, (name, (_, counted)) in enumerate(_SHARES.items()):
        each = batch.grams * belongs[:, column]
        if counted != "mass":
            each = each * batch.nutrient(counted)[0]
        grams = each.tolist()
        found[name] = _Share(
            percent=100 * sum(grams) / baked_g, lines=tuple(line for line, g in zip(ids, grams, strict=True) if g > 0)
        )
    syrup = batch.grams * batch.behaviour("syrup")[0]
    lines = tuple(w.line.id for w, g in zip(batch.lines, syrup.tolist(), strict=True) if g > 0)
    return found | {"syrup": _Share(percent=100 * float(syrup.sum()) / baked_g, lines=lines)}


def _sigmoid(x: float) -> float:
    return 1 / (1 + exp(-min(max(x, -50.0), 50.0)))


def _above(value: float, floor: float) -> float:
    return max(value - floor, 0.0)


def _terms(s: Mapping[str, _Share], e: Eaten, moisture: float) -> dict[str, list[TextureTerm]]:
    """What makes each score, in points, at one final moisture."""
    m, b, mm = moisture, e.binder_load, e.thickness_mm
    thin = min(1.0, (4 / mm) ** 0.9)
    dry = _sigmoid((9 - m) / 2.2) * thin**0.5
    wet = _sigmoid((m - 42) / 4)

    def by(name: str, points: float, what: str = "") -> TextureTerm:
        return TextureTerm(what=what or name, amount=points * s[name].percent, lines=s[name].lines)

    def said(what: str, points: float) -> TextureTerm:
        return TextureTerm(what=what, amount=points)

    return {
        "crisp": [
            said("dry through", 10 * dry),
            said("a crisp outside", 3 * (1 - dry) * _sigmoid((e.oven_c - 160) / 15) * thin),
            TextureTerm(
                what="toasted cheese", amount=min(1.5, 0.15 * s["casein"].percent) * thin, lines=s["casein"].lines
            ),
        ],
        "chewy": [
            said("every dough", 0.5),
            by("casein", 0.30 * _sigmoid((m - 8) / 4), "cheese"),
            by("egg protein", 0.22, "egg"),
            by("psyllium", 0.75 * _sigmoid((m - 15) / 5)),
            by("whey", 0.12),
            by("gum", 0.5),
            by("syrup", 0.14 * _sigmoid((m - 4) / 1.5), "sweetener that stays a syrup"),
            said("dryness", -3 * _sigmoid((7 - m) / 2)),
        ],
        "tender": [
            said("every dough", 3.0),
            by("fat", 0.10),
            said("lift", 3 * (e.rise - 1)),
            by("sweetener", 0.06),
            by("egg protein", -0.15, "egg"),
            by("casein", -0.2, "cheese"),
            said("binder", -0.12 * b),
            said("dryness", -3 * _sigmoid((8 - m) / 2.2)),
        ],
        "sturdy": [
            said("every dough", 0.8),
            said("binder", 7.5 * (1 - exp(-b / 3))),
            by("casein", 0.12, "cheese"),
            TextureTerm(what="much fat", amount=-0.05 * _above(s["fat"].percent, 18), lines=s["fat"].lines),
            said("much lift", -2 * _above(e.rise, 1.5)),
            said("wetness", -0.08 * _above(m, 45)),
            said("thinness", _sigmoid(4 - mm) if m > 10 else 0.5),
        ],
        "moist": [
            said("water left", 0.17 * m),
            by("fat", 0.06),
            by("psyllium", 0.15),
            by("coconut", -0.06),
            by("whey", -0.12),
            by("oat fibre", -0.08),
        ],
        "crumbly": [
            said("a dough without binder", 5.5),
            said("binder", -6 * (1 - exp(-b / 2.2))),
            by("fat", 0.05),
            by("nut", 0.012),
            by("coconut", 0.04),
            by("psyllium", -0.25),
            by("casein", -0.12, "cheese"),
            said("dryness", _sigmoid((7 - m) / 2)),
            said("wetness", -0.03 * _above(m, 35)),
        ],
        "gummy": [
            TextureTerm(
                what="psyllium in a wet crumb",
                amount=0.85 * _above(s["psyllium"].percent, 2.5) * _sigmoid((m - 35) / 5),
                lines=s["psyllium"].lines,
            ),
            TextureTerm(
                what="gum", amount=1.6 * _above(s["gum"].percent, 0.4) * _sigmoid((m - 20) / 5), lines=s["gum"].lines
            ),
            by("flax", 0.1 * _sigmoid((m - 35) / 5)),
            said("dense and wet", 1.5 * wet * max(1.35 - e.rise, 0.0) / 0.35),
        ],
        "eggy": [
            by("egg", 0.22),
            by("egg white", 0.08, "white"),
            by("cheese", -0.06),
            by("sweetener", -0.06),
            by("herbs", -0.5, "seasoning"),
        ],
        "coconut": [
            by("coconut", 0.4),
            by("cheese", -0.05),
            by("sweetener", -0.03),
            by("herbs", -0.5, "seasoning"),
        ],
    }


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


def texture(batch: Batch, after: Baked, eaten: Eaten) -> Texture | None:
    """The nine scores; None while there is nothing to eat.

    Args:
        batch: the weighed lines.
        after: what the oven leaves.
        eaten: moisture, thickness, oven, binder and rise.
    """
    if after.bake_to_g <= 0:
        return None
    shares = _shares(batch, after.bake_to_g)
    typical, wetter, drier = (
        _terms(shares, eaten, m) for m in (eaten.moisture, eaten.moisture_high, eaten.moisture_low)
    )
    scores = []
    for key, label, confidence, low_word, high_word, half, basis in _kinds():
        value, one, other = (_bounded(sum(t.amount for t in terms[key])) for terms in (typical, wetter, drier))
        terms = sorted((t for t in typical[key] if abs(t.amount) >= _FEW), key=lambda t: -abs(t.amount))
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
                terms=tuple(terms),
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
    said = [s.label.lower() for s in strong]
    if not said:
        said = [max(scores, key=lambda s: s.value).label.lower()]
    text = " and ".join((", ".join(said[:-1]), said[-1])) if len(said) > 1 else said[0]
    gummy = by_key["gummy"]
    risk = "; may turn gummy" if "gummy" not in said and gummy.high >= _STRONG and gummy.value > _WEAK else ""
    return f"{text.capitalize()}{risk}."
