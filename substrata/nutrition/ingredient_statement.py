"""The ingredient statement: heaviest first, sub-ingredients in brackets, allergens set off.

United States: 21 CFR 101.4, with "Contains:" (FALCPA). European Union: 1169/2011, articles 18 to 21 and
Annex VII, where allergens stand out in the list itself and added water counts as what is left of it.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache

from substrata.base.tables.table_reader import constant, read_table
from substrata.formula.batch.batch_lines import Batch
from substrata.ingredients.groups import is_in_group
from substrata.ingredients.ingredient import Ingredient
from substrata.ingredients.labels.label_rounding import LabelStyle
from substrata.nutrition.allergens import us_contains

# Kinds of an ingredient that a statement does not tell apart.
_SAYS_NOTHING = {"raw", "granulated", "ground", "fine", "sliced", "cooked", "unflavoured", "dried", "powder"}


@dataclass(frozen=True, kw_only=True)
class StatementPart:
    """A run of text, set off or not."""

    text: str
    strong: bool


@dataclass(frozen=True, kw_only=True)
class Statement:
    """An ingredient statement."""

    style: LabelStyle
    parts: tuple[StatementPart, ...]
    contains: str  # "Contains: almonds, egg, milk."; "" in Europe
    to_read: tuple[str, ...]  # lines whose sub-ingredients are only the usual ones: read the pack

    @property
    def text(self) -> str:
        """All of it as plain text."""
        return "".join(part.text for part in self.parts)


@dataclass(frozen=True, kw_only=True)
class _Named:
    names: dict[LabelStyle, str]  # an additive is named after its class in Europe
    parts: dict[str, str]  # style -> sub-ingredients


@cache
def _names() -> dict[str, _Named]:
    return {
        row.text("ingredient"): _Named(
            names={"us": row.text("name"), "eu": row.text("eu_name") or row.text("name")},
            parts={"us": row.text("us_parts"), "eu": row.text("eu_parts")},
        )
        for row in read_table("statement.csv")
    }


@cache
def _words(style: LabelStyle) -> dict[str, str]:
    """Flag → the word that is set off."""
    return {row.text("flag"): row.text("word") for row in read_table("allergens.csv") if row.text(style)}


@dataclass
class _Entry:
    ingredient: Ingredient
    grams: float
    lines: list[str]


def statement(batch: Batch, style: LabelStyle, remaining: float) -> Statement:
    """Return the statement of all lines.

    Args:
        batch: the weighed lines.
        style: ``us`` or ``eu``.
        remaining: share of the dough that is left after baking, 0..1.
    """
    entries: dict[str, _Entry] = {}
    for w in batch.lines:
        if w.grams.value > 0:
            key = f"{w.ingredient.key} {_name(w.ingredient, style)}"
            entry = entries.setdefault(key, _Entry(ingredient=w.ingredient, grams=0.0, lines=[]))
            entry.grams += w.grams.value
            entry.lines.append(w.line.id)
    if style == "eu":
        _dry_water(entries, batch.whole_g, remaining)
    ordered = sorted(entries.values(), key=lambda e: -e.grams)
    whole = sum(e.grams for e in ordered) or 1.0
    little = [e for e in ordered if e.grams / whole < constant("statement_free_order")]
    grouped = style == "us" and len(little) > 1
    parts: list[StatementPart] = []
    for number, entry in enumerate(ordered):
        if grouped and entry is little[0]:
            parts.append(_plain(", contains 2 % or less of: " if number else "contains 2 % or less of: "))
        elif number:
            parts.append(_plain(", "))
        parts += _entry(entry.ingredient, style)
    if parts:
        parts.append(_plain("."))
    return Statement(
        style=style,
        parts=tuple(_joined(parts)),
        contains=us_contains(batch) if style == "us" else "",
        to_read=tuple(line for e in ordered if _usual_parts(e.ingredient, style) for line in e.lines),
    )


def _dry_water(entries: dict[str, _Entry], dough: float, remaining: float) -> None:
    """Count added water as what the baked food still holds of it."""
    for key in [key for key, e in entries.items() if is_in_group(e.ingredient, "water")]:
        entries[key].grams = max(entries[key].grams - dough * (1 - remaining), 0.0)
        if entries[key].grams < constant("statement_water_free") * dough * remaining:
            del entries[key]


def _name(ingredient: Ingredient, style: LabelStyle) -> str:
    known = _names().get(ingredient.id)
    if known:
        return known.names[style]
    head, _, tail = ingredient.name.partition(", ")
    return f"{head[0].lower()}{head[1:]}" + (f" ({tail})" if tail and not _SAYS_NOTHING & set(tail.split()) else "")


def _sub_ingredients(ingredient: Ingredient, style: LabelStyle) -> str:
    if ingredient.pack and ingredient.pack.statement.strip():
        return ingredient.pack.statement.strip().rstrip(".")
    known = _names().get(ingredient.id)
    return known.parts[style] if known else ""


def _usual_parts(ingredient: Ingredient, style: LabelStyle) -> bool:
    return bool(_sub_ingredients(ingredient, style)) and not (ingredient.pack and ingredient.pack.statement.strip())


def _entry(ingredient: Ingredient, style: LabelStyle) -> list[StatementPart]:
    """Name, sub-ingredients, and every allergen set off, named in brackets where the name does not say it."""
    inside = _sub_ingredients(ingredient, style)
    text = _name(ingredient, style) + (f" ({inside})" if inside else "")
    words = sorted({_words(style)[flag] for flag in ingredient.flags if flag in _words(style)})
    missing = [word for word in words if not _pattern(word).search(text)]
    if missing:
        text += f" ({', '.join(missing)})"
    if style == "us":
        return [_plain(text)]
    return _set_off(text, words)


def _pattern(word: str) -> re.Pattern[str]:
    """Return the word, its plural, or the compound it opens; "milk" is found in "buttermilk" too."""
    return re.compile(rf"{re.escape(word)}s?", re.IGNORECASE)


def _set_off(text: str, words: list[str]) -> list[StatementPart]:
    if not words:
        return [_plain(text)]
    every = re.compile("|".join(f"{re.escape(word)}s?" for word in words), re.IGNORECASE)
    parts, at = [], 0
    for match in every.finditer(text):
        parts += [_plain(text[at : match.start()]), StatementPart(text=match.group(), strong=True)]
        at = match.end()
    return [part for part in (*parts, _plain(text[at:])) if part.text]


def _plain(text: str) -> StatementPart:
    return StatementPart(text=text, strong=False)


def _joined(parts: list[StatementPart]) -> list[StatementPart]:
    """Neighbours of one kind as one, with a capital at the start."""
    joined: list[StatementPart] = []
    for part in parts:
        if joined and joined[-1].strong == part.strong:
            joined[-1] = StatementPart(text=joined[-1].text + part.text, strong=part.strong)
        else:
            joined.append(part)
    if joined:
        first = joined[0]
        joined[0] = StatementPart(text=first.text[0].upper() + first.text[1:], strong=first.strong)
    return joined
