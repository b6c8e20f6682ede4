"""The rules of texture as data: what counts as which amount, and how each amount moves each score."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache, lru_cache

import numpy as np

from substrata.base.tables.table_reader import read_table
from substrata.formula.batch.batch_lines import Batch
from substrata.ingredients.composition import NUTRIENTS
from substrata.ingredients.library import Floats


@cache
def counted_ingredients() -> dict[str, tuple[frozenset[str], str]]:
    """Return what counts as which (house choice): role, flag or id of a line, and the nutrient or "mass" that is counted."""
    return {
        row.text("share"): (frozenset(row.text("members").split()), row.text("counted"))
        for row in read_table("texture_shares.csv")
    }


def _belongs(batch: Batch) -> Floats:
    """Which of the n lines, by ingredient, role and flags, count towards each of ``counted_ingredients``, shape (n, shares)."""
    return _counting(tuple((w.ingredient.id, w.role, w.ingredient.flags) for w in batch.lines))


@lru_cache(maxsize=256)
def _counting(lines: tuple[tuple[str, str, frozenset[str]], ...]) -> Floats:
    return np.array([_counts_as(*line) for line in lines])


def _counts_as(ingredient: str, role: str, flags: frozenset[str]) -> list[float]:
    names = {"any", f"role:{role}", f"id:{ingredient}", *(f"flag:{flag}" for flag in flags)}
    if role == "base" and any(flag.startswith("nut:") for flag in flags):
        names.add("nut")
    return [float(not names.isdisjoint(members)) for members, _ in counted_ingredients().values()]


def amounts_each(batch: Batch) -> Floats:
    """Grams of each line that count towards each share, syrup the last, shape (n, shares)."""
    return batch.once(_counting_each) * batch.grams[:, None]


def _counting_each(batch: Batch) -> Floats:
    each = batch.once(_belongs) * (batch.composition[0] @ _counted_parts() + _counted_whole())
    return np.column_stack((each, batch.behaviour("syrup")[0]))


@cache
def _counted_parts() -> Floats:
    """1.0 where a share counts a nutrient, shape (nutrients, shares)."""
    return np.array([[float(name == counted) for _, counted in counted_ingredients().values()] for name in NUTRIENTS])


@cache
def _counted_whole() -> Floats:
    """1.0 for each share that counts all of a line, shape (shares,)."""
    return np.array([float(counted == "mass") for _, counted in counted_ingredients().values()])


def percents(each: Floats, baked_g: float) -> list[float]:
    """Each share of the baked piece, %, in the order of their names."""
    return (100 * each.sum(axis=0) / baked_g).tolist()  # type: ignore[no-any-return]  # a row


def lines_of_shares(batch: Batch, each: Floats) -> dict[str, tuple[str, ...]]:
    """Return the lines that bring each share, in the order of the batch."""
    ids = [w.line.id for w in batch.lines]
    lines: dict[str, list[str]] = {}
    names = (*counted_ingredients(), "syrup")
    for share, line in np.argwhere(each.T > 0).tolist():
        lines.setdefault(names[share], []).append(ids[line])
    return {name: tuple(those) for name, those in lines.items()}


@dataclass(frozen=True, kw_only=True)
class TextureRule:
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
def texture_rules() -> dict[str, tuple[TextureRule, ...]]:
    """Return the rules of each score."""
    table: dict[str, list[TextureRule]] = {}
    for row in read_table("texture_terms.csv"):
        number = {c: row.number_in(c) if row.text(c) else 0.0 for c in ("at", "points", "gate_at", "gate_width")}
        words = {c: row.text(c) for c in ("what", "of", "how", "gate")}
        table.setdefault(row.text("score"), []).append(TextureRule(**words, **number))  # type: ignore[arg-type]  # by name
    return {score: tuple(rules) for score, rules in table.items()}
