"""What a pack's own ingredient list says that its name does not: allergens, gluten words, starches and sugars.

A name promises ("plant cheese", "shredded mozzarella") and the list keeps or breaks it: casein in the one is milk, starch on the
other is carbohydrate. Words by the names of United States and European law (``statement_words.csv``).
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache, lru_cache

from substrata.base.tables.table_reader import read_table
from substrata.ingredients.labels.label_vocabulary import plain

_TRACES = re.compile(
    r"\b(?:may (?:also )?contain|traces of|made (?:in|on) (?:a |equipment|shared)|(?:produced|manufactured) (?:in|on)"
    r"|shared (?:equipment|facility)|packed in a)\b",
    re.IGNORECASE,
)
# A sentence may go on to say what a food is free of.
_FREE = re.compile(r"\b(?:free from|free of|does not contain|contains no|no added|without)\b[^.;]*", re.IGNORECASE)


@dataclass(frozen=True, kw_only=True)
class StatementFacts:
    """Flags that an ingredient list brings."""

    contains: frozenset[str]
    may_contain: frozenset[str]
    words: tuple[tuple[str, str], ...]  # flag and the word that brought it


@dataclass(frozen=True, kw_only=True)
class _Words:
    flag: str
    words: re.Pattern[str]
    except_after: re.Pattern[str] | None


def _any_of(words: str) -> re.Pattern[str] | None:
    """Return a pattern for any of the words; a star stands for the rest of a compound ("weizen*" for Weizenmehl)."""
    alternatives = sorted((word.strip() for word in words.split(";") if word.strip()), key=lambda word: -len(word))
    listed = [re.escape(plain(word)) + (r"\w*" if word.endswith("*") else "") for word in alternatives]
    return re.compile(rf"\b(?:{'|'.join(listed)})\b") if listed else None


@cache
def _table() -> tuple[_Words, ...]:
    rows = []
    for row in read_table("statement_words.csv"):
        words = _any_of(row.text("words"))
        if words is None:
            raise row.error("no words for a flag", got="nothing", allowed="words, with ; between them")
        rows.append(_Words(flag=row.text("flag"), words=words, except_after=_any_of(row.text("but_not"))))
    return tuple(rows)


@lru_cache(maxsize=2048)
def statement_facts(statement: str) -> StatementFacts:
    """Read an ingredient list as printed on a pack.

    >>> sorted(statement_facts("Water, coconut oil, modified starch, casein (milk). May contain almonds.").contains)
    ['coconut', 'milk', 'starch']
    >>> sorted(statement_facts("Water, coconut milk, cream of tartar. May contain almonds.").may_contain)
    ['nut:almond']

    Returns:
        Allergens, gluten words, starches and sugars.
    """
    text = _FREE.sub(" ", statement)
    traces_match = _TRACES.search(text)
    certain, traces = (text[: traces_match.start()], text[traces_match.start() :]) if traces_match else (text, "")
    # What stands after the sentence of traces is certain again: "May contain nuts. Contains: milk."
    ended, _, more = traces.partition(".")
    contains, may = _flags(f"{certain}. {more}"), _flags(ended)
    return StatementFacts(
        contains=frozenset(contains),
        may_contain=frozenset(may) - frozenset(contains),
        words=tuple((contains | may).items()),
    )


def _flags(text: str) -> dict[str, str]:
    """Flag → the first word that brings it."""
    phrase = plain(text)
    brought = {}
    for row in _table():
        rest = row.except_after.sub(" ", phrase) if row.except_after else phrase
        hit = row.words.search(rest)
        if hit:
            brought[row.flag] = hit.group()
    return brought
