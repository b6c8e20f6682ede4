"""Find ingredients by name and alias: exact reading, nearest names, search as you type."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache

from rapidfuzz import fuzz, process

from substrata.base.tables.table_reader import constant, read_table

_BRACKETS = re.compile(r"\([^()]*\)|\[[^\[\]]*\]")
# "No added sugar", "squeezed dry", "low moisture": what it says of the food is what it is taken for anyway.
_NONE_OF = re.compile(
    r"\b(?:no|without)\s+(?:added\s+)?\w+|\b\w+\s+free\b|\blow\s+moisture\b|\b(?:squeezed|wrung|patted|pressed)\s+(?:out\s+)?(?:very\s+)?dry\b"
)
_KEEP_S = frozenset(("molasses", "swiss", "couscous"))


@cache
def _descriptors() -> Mapping[str, frozenset[str]]:
    """Words that may stand beside a name, and beside the names of which foods they change nothing (empty: of any).

    "Dried" says nothing new of thyme and makes another food of a mushroom: such a word is never swallowed.

    Returns:
        Words by descriptor.
    """
    return {
        word: frozenset(row.text("suits").split())
        for row in read_table("descriptors.csv")
        for word in tokens(row.text("word"))
    }


def _only_describes(word: str, facts: frozenset[str]) -> bool:
    suits = _descriptors().get(word)
    return word.isdigit() or (suits is not None and (not suits or not suits.isdisjoint(facts)))


def tokens(text: str) -> tuple[str, ...]:
    """Lower-case words without accents and plural s.

    >>> tokens("Crème fraîche, 2 Eggs")
    ('creme', 'fraiche', '2', 'egg')

    Returns:
        The words in their order.
    """
    plain = unicodedata.normalize("NFKD", text.casefold())
    plain = "".join(c for c in plain if not unicodedata.combining(c))
    return tuple(_singular(word) for word in re.findall(r"[a-z0-9]+", plain.replace("fiber", "fibre")))


def _singular(word: str) -> str:
    if word in _KEEP_S or len(word) < 4 or word.endswith("ss"):
        return word
    if word.endswith("ies"):
        return word[:-3] + "y"
    if word.endswith(("oes", "ches", "shes")):
        return word[:-2]
    return word.removesuffix("s")


@dataclass(frozen=True, kw_only=True)
class NameMatch:
    """A name found inside a longer text."""

    ingredient: str
    beside: tuple[str, ...]  # words of the text that are not part of the name
    facts: frozenset[str] = frozenset()  # of the ingredient, as ``descriptors.csv`` asks: id, role, flags

    @property
    def sure(self) -> bool:
        """True when the other words only describe ("softened"), not rename ("peanut" beside "butter", "powder" beside "milk")."""
        return all(_only_describes(word, self.facts) for word in self.beside)


class NameIndex:
    """All names and aliases of the pantry."""

    def __init__(self, names: Mapping[str, Sequence[str]], facts: Mapping[str, frozenset[str]] | None = None) -> None:
        self._facts = facts or {}
        self._owner: dict[tuple[str, ...], str] = {}
        self._spoken: dict[str, str] = {}
        for key, every in names.items():
            for name in every:
                self._owner.setdefault(tokens(name), key)
                self._spoken.setdefault(" ".join(tokens(name)), key)
        self._longest = max(map(len, self._owner), default=0)
        self._order = {key: number for number, key in enumerate(names)}  # the pantry lists the usual ones first
        self._primary = {key: " ".join(tokens(every[0])) for key, every in names.items()}

    def find(self, text: str) -> NameMatch | None:
        """Return the longest name that stands in a text.

        >>> NameIndex({"eg": ["Egg"]}).find("3 large eggs, beaten").ingredient
        'eg'
        """
        words = tokens(text)
        for size in range(min(self._longest, len(words)), 0, -1):
            for start in range(len(words) - size + 1):
                if words[start : start + size] not in self._owner:
                    continue
                # Of two that overlap the later one is the thing: "golden flaxseed meal" is a meal.
                last = min(start + size, len(words) - size + 1)
                later = (s for s in range(last - 1, start, -1) if words[s : s + size] in self._owner)
                at = next(later, start)
                key = self._owner[words[at : at + size]]
                beside = words[:at] + words[at + size :]
                return NameMatch(ingredient=key, beside=beside, facts=self._facts.get(key, frozenset()))
        return None

    def without_remark(self, text: str) -> NameMatch | None:
        """As ``find``, with what stands in brackets or behind a comma taken for a remark where it names and renames nothing.

        "Cream cheese, cubed" is cream cheese, and "milk (almond)" almond milk. "Almond flour, defatted" is not almond flour: a word
        that names another ingredient, or that makes another food of this one, is never taken for a remark.

        >>> NameIndex({"eg": ["Egg"]}).without_remark("3 eggs, straight from the hen").sure
        True

        Returns:
            The match; None where a remark may name another food.
        """
        whole = self.find(text)
        if whole is None or whole.sure:
            return whole
        plain = _BRACKETS.sub(" ", text).partition(",")[0]
        bare = self.find(plain)
        if bare is None or not bare.sure or bare.ingredient != whole.ingredient:
            return whole
        remark = [word for word in whole.beside if word not in bare.beside]
        remark_tokens = tokens(_NONE_OF.sub(" ", " ".join(remark)))
        # "Cream, sour" and "milk (almond)" are said backwards, as indexes do.
        joined = self.find(" ".join((*remark_tokens, *tokens(plain))))
        if joined is not None and joined.ingredient != bare.ingredient:
            return joined if joined.sure else whole
        if any(word in _descriptors() and not _only_describes(word, bare.facts) for word in remark_tokens):
            return whole
        other = self.find(" ".join(remark_tokens))
        return bare if other is None or other.ingredient == bare.ingredient else whole

    def nearest(self, text: str, limit: int = 5) -> list[str]:
        """Ids of the most similar names, best first."""
        query = " ".join(word for word in tokens(text) if word not in _descriptors()) or " ".join(tokens(text))
        hits = process.extract(
            query, list(self._spoken), scorer=fuzz.WRatio, limit=limit * 4, score_cutoff=constant("least_likeness")
        )
        return list(dict.fromkeys(self._spoken[name] for name, _, _ in hits))[:limit]

    def search(self, text: str, limit: int = 12) -> list[str]:
        """List ids for a few typed letters, plain foods first; similar names only where nothing is spelled so.

        Args:
            text: what was typed.
            limit: most ids that are listed.

        Returns:
            Ids, best match first.
        """
        typed = tokens(text)
        if not typed:
            return list(self._primary)[:limit]
        return (self.spelled(text) or self.nearest(text, limit))[:limit]

    def spelled(self, text: str) -> list[str]:
        """List ids whose name or alias has every typed word or its beginning, the plainest food first.

        First what the word means in a kitchen (``plain_words.csv``), then a whole name, then a name that begins with the whole words
        ("egg, whole"), then words that only begin so ("buttermilk" for "butter").

        Returns:
            Ids, plainest food first.
        """
        typed = tokens(text)
        ranked: dict[str, int] = {}
        for name, key in self._spoken.items():
            words = name.split()
            if typed and all(any(word.startswith(part) for word in words) for part in typed):
                rank = self._rank(words, typed, primary=name == self._primary[key], key=key)
                ranked[key] = min(rank, ranked.get(key, 99))
        if typed and not ranked:  # "salt finely ground": a food with a remark that makes no other food of it
            match = self.without_remark(text)
            return [match.ingredient] if match is not None and match.sure else []
        return sorted(ranked, key=lambda key: (ranked[key], self._order[key]))

    def _rank(self, words: Sequence[str], typed: Sequence[str], *, primary: bool, key: str) -> int:
        """Rank a name that has the typed words: 0 for the plainest."""
        if _plain_words().get(tuple(typed)) == key:
            return 0
        if list(words) == list(typed):
            return 1 if primary else 2
        whole = all(part in words for part in typed)
        first = words[0].startswith(typed[0])
        return 3 + (0 if whole else 4) + (0 if first else 2) + (0 if primary else 1)


@cache
def _plain_words() -> Mapping[tuple[str, ...], str]:
    """Return the food that a plain word means in a kitchen of this kind."""
    return {tokens(row.text("word")): row.text("ingredient") for row in read_table("plain_words.csv")}
