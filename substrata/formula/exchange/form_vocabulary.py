"""Which form a recipe's title means, and how many pieces it then makes where it does not say (``form_words.csv``)."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache

from substrata.base.tables.table_reader import read_table

_MOST_PIECES = 10_000
# What follows is beside the thing itself: "rolls with cream cheese", "bread for toast", "crackers (seeded)".
_BESIDE = re.compile(r"[(\[,:;–—]|\b(?:with|for|in|from|without|and then|like)\b|\s-\s", re.IGNORECASE)
_GENERIC = ("bread", "cake")  # "naan bread" is naan
_BISCUIT = re.compile(r"\bbiscuits?$", re.IGNORECASE)


@dataclass(frozen=True, kw_only=True)
class FormWords:
    """The words of one form."""

    form: str
    words: frozenset[str]
    piece_g: float  # what a piece usually weighs


@cache
def _rows() -> tuple[FormWords, ...]:
    return tuple(
        FormWords(
            form=row.text("form"),
            words=frozenset(row.text("words").split(";")),
            piece_g=row.number_in("piece_g", 1),
        )
        for row in read_table("form_words.csv")
    )


@cache
def _pattern() -> re.Pattern[str]:
    # The longest first: "cloud bread" is no bread.
    words = sorted((word for row in _rows() for word in row.words), key=len, reverse=True)
    return re.compile(rf"(?<!\w)(?:{'|'.join(map(re.escape, words))})(?!\w)", re.IGNORECASE)


def form_in(title: str, *, sweet: bool = False) -> str | None:
    """Return the form that a title means: its last word that names one, for English puts the thing itself last.

    Args:
        title: of a recipe.
        sweet: whether there is a sweetener in it, which tells one kind of biscuit from the other.

    >>> form_in("Garlic bread twists"), form_in("Cloud bread"), form_in("Rolls with a cracker topping"), form_in("Sunday treat")
    ('rope', 'bun', 'bun', None)
    """
    thing = _BESIDE.split(title.strip(), maxsplit=1)[0].strip()
    matches = [match.group().lower() for match in _pattern().finditer(thing)]
    if _BISCUIT.search(thing) and not (matches and matches[-1].endswith(("biscuit", "biscuits"))):
        return "cookie" if sweet else "bun"
    if len(matches) > 1 and matches[-1] in _GENERIC:
        matches.pop()
    return next((row.form for row in _rows() if matches[-1] in row.words), None) if matches else None


def usual_pieces(form: str, grams: float) -> int:
    """How many pieces of a form so much dough usually makes, at least one."""
    piece = next((row.piece_g for row in _rows() if row.form == form), 0.0)
    return min(max(round(grams / piece), 1), _MOST_PIECES) if piece else 1
