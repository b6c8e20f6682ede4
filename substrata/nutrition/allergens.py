"""Allergens of a formula by the United States and the European lists."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache

from substrata.base.tables.table_reader import read_table
from substrata.formula.batch.batch_lines import Batch
from substrata.ingredients.ingredient import Ingredient


@dataclass(frozen=True, kw_only=True)
class Allergen:
    """One named allergen and the lines that bring it."""

    name: str
    regions: tuple[str, ...]  # "us", "eu"
    lines: tuple[str, ...]
    traces: bool  # only because a pack says "may contain"


@cache
def _by_flag() -> dict[str, dict[str, str]]:
    return {row.text("flag"): {"us": row.text("us"), "eu": row.text("eu")} for row in read_table("allergens.csv")}


def allergens(batch: Batch) -> tuple[Allergen, ...]:
    """Allergens of all weighed lines, in alphabetical order; what packs "may contain" comes after.

    United States: FALCPA with the FASTER Act; coconut is no longer on the list. European Union:
    Annex II of 1169/2011, where celeriac counts as celery and lupin is listed.

    Returns:
        The allergens with their lines.
    """
    present = [w for w in batch.lines if w.grams.value > 0]
    certain = _collected((w.line.id, w.ingredient.flags) for w in present)
    possible = _collected((w.line.id, w.ingredient.pack.may_contain) for w in present if w.ingredient.pack)
    return (
        *(_allergen(name, result, traces=False) for name, result in sorted(certain.items())),
        *(_allergen(name, result, traces=True) for name, result in sorted(possible.items()) if name not in certain),
    )


@dataclass(frozen=True, kw_only=True)
class _Match:
    regions: set[str]
    lines: list[str]


def _collected(flagged: Iterable[tuple[str, frozenset[str]]]) -> dict[str, _Match]:
    table: dict[str, _Match] = {}
    for line, flags in flagged:
        for flag in flags:
            for region, name in _by_flag()[flag].items():
                if name:
                    entry = table.setdefault(name.removeprefix("tree "), _Match(regions=set(), lines=[]))
                    entry.regions.add(region)
                    if line not in entry.lines:
                        entry.lines.append(line)
    return table


def _allergen(name: str, match: _Match, *, traces: bool) -> Allergen:
    regions = tuple(sorted(match.regions, reverse=True))
    return Allergen(name=name, regions=regions, lines=tuple(match.lines), traces=traces)


def allergen_words() -> dict[str, str]:
    """Return the flags of the allergens that a pack can name, with the word for each."""
    return {row.text("flag"): row.text("word") for row in read_table("allergens.csv") if row.text("word")}


def us_contains(batch: Batch) -> str:
    """Return the "Contains:" statement of FALCPA, naming each tree nut and fish; "" when there is nothing to name."""
    names = sorted(
        {
            _species(w.ingredient) if flag == "fish" else _us_name(_by_flag()[flag]["us"])
            for w in batch.lines
            if w.grams.value > 0
            for flag in w.ingredient.flags
            if _by_flag()[flag]["us"]
        }
    )
    return f"Contains: {', '.join(names)}." if names else ""


def _species(ingredient: Ingredient) -> str:
    """Return a fish by its own name: "Tuna, canned in water" → "tuna"."""
    return ingredient.name.partition(",")[0].lower()


def _us_name(name: str) -> str:
    """Return a tree nut by its own name: "tree nuts (almond)" → "almond"."""
    return name.partition(" (")[2].rstrip(")") or name
