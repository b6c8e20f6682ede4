"""The words and marks of a typed amount, read from left to right."""

from __future__ import annotations

import re
from dataclasses import dataclass

from substrata.base.errors import AmountError
from substrata.base.tables.table_reader import constant
from substrata.base.units import unit, unit_names

LARGEST_NUMBER = 1_000_000.0


_WORDS = {
    **dict.fromkeys(("a", "an", "one"), 1.0),
    "half": 0.5,
    "quarter": 0.25,
    **{w: float(n) for n, w in enumerate(["two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"], 2)},
    "dozen": 12.0,
}


_SIZES = {
    **dict.fromkeys(("xl", "extra-large", "extra large"), "xl"),
    **dict.fromkeys(("large", "lg", "lge", "l"), "large"),
    **dict.fromkeys(("medium", "med", "m"), "medium"),
    **dict.fromkeys(("small", "sm", "s"), "small"),
    "jumbo": "jumbo",
}


# How a word about the filling of a spoon shifts the amount and widens it (common practice).
_FILLINGS = {
    "scant": (0.93, 6.0),
    "heaping": (1.25, 20.0),
    "heaped": (1.25, 20.0),
    **dict.fromkeys(("big", "good"), (1.2, 20.0)),
    "generous": (1.08, 8.0),
    "rounded": (1.15, 15.0),
    "level": (1.0, 0.0),
    "about": (1.0, 5.0),
    "approx": (1.0, 5.0),
    "approximately": (1.0, 5.0),
    "ca": (1.0, 5.0),
    "~": (1.0, 5.0),
}


_PLAIN = r"\d{1,3}(?:,\d{3})+(?!\d)|\d+[.,]\d+|\.\d+|\d+"


_NUMBER = re.compile(rf"(?P<whole>\d+)(?:\s+|-)(?P<num>\d+)/(?P<den>\d+)|(?P<n2>\d+)/(?P<d2>\d+)|(?P<plain>{_PLAIN})")


_TO = re.compile(r"\s*(?:-|–|—|\bto\b|\bor\b)\s*(?=[\d.])")


_PLUS = re.compile(r"\s*(?:\+|&|\bplus\b|\band\b)\s*", re.IGNORECASE)


_WORD = re.compile(r"[^\W\d_]+(?:-[^\W\d_]+)?", re.UNICODE)


@dataclass(frozen=True, kw_only=True)
class Term:
    """One number of one unit."""

    number: float  # middle of the range when a range was written
    low: float
    high: float
    unit: str  # key in units.csv; "" when only a number was written
    size: str = ""  # small, medium, large, xl, jumbo or an EU letter
    extra_percent: float = 0.0  # wider because "scant", "heaping", "about"
    decimal: bool = False  # a decimal was typed: read from a finer scale


def _value(match: re.Match[str]) -> float:
    """Return the number of a match of ``_NUMBER``."""
    part = match.groupdict()
    if part["plain"] is not None:
        plain = part["plain"]
        thousands = re.fullmatch(r"[1-9]\d{0,2}(?:,\d{3})+", plain)
        value = float(plain.replace(",", "" if thousands else "."))
    else:
        whole, top, bottom = float(part["whole"] or 0), part["num"] or part["n2"], part["den"] or part["d2"]
        if float(bottom) == 0:
            raise AmountError(
                "a fraction divides by zero",
                got=match.group(),
                field="entered",
                allowed="a fraction such as 1/2",
                remedy="correct the fraction",
            )
        value = whole + float(top) / float(bottom)
    if not 0 <= value <= LARGEST_NUMBER:
        raise AmountError(
            "the number is too large",
            got=match.group()[:20],
            field="entered",
            allowed=f"up to {LARGEST_NUMBER:g}",
            remedy="check for a typing error",
        )
    return value


class Scanner:
    """Walks along one text; every method takes what it can read and leaves the rest."""

    def __init__(self, text: str) -> None:
        self.text = text
        self.at = 0
        self.also = ""

    def rest(self) -> str:
        """Return what has not been read, without marks at its ends."""
        return self.text[self.at :].strip(" .,;:")

    def joined_term(self) -> Term | None:
        """Return a further term after "plus", "and" or "+"; steps back when none follows."""
        start = self.at
        match = _PLUS.match(self.text, self.at)
        if match:
            self.at = match.end()
            try:
                return self.term()
            except AmountError:
                if _NUMBER.match(self.text, self.at):
                    raise
        self.at = start
        return None

    def term(self) -> Term:
        """Read the next term: a filling, a number or a range, and its unit.

        Returns:
            The term.

        Raises:
            AmountError: when there is no number.
        """
        factor, extra = self._filling()
        numbers = self._numbers()
        if numbers is None:
            raise AmountError(
                "no amount found",
                got=repr(self.text[:60]) if self.text else "nothing",
                field="entered",
                allowed='a number and a unit such as "1 1/2 cup", "100 g", "2 lg eggs"',
                remedy="enter an amount",
            )
        low, high, decimal = numbers
        inside = self._bracket()
        more_factor, more_extra = self._filling()
        factor, extra = factor * more_factor, extra + more_extra
        size = self._size()
        key = self._unit()
        if inside is not None and key in ("package", ""):
            # "1 (8 oz) pkg": the bracket says what one package holds.
            low, high, key, decimal = low * inside.low, high * inside.high, inside.unit, inside.decimal
        elif inside is not None:
            low, high, key = self._prefer_mass((low, high, key), inside)
        second = self._bracket()
        if second is not None:
            low, high, key = self._prefer_mass((low, high, key), second)
        low, high = low * factor, high * factor
        return Term(
            number=(low + high) / 2, low=low, high=high, unit=key, size=size, extra_percent=extra, decimal=decimal
        )

    def _prefer_mass(self, reading: tuple[float, float, str], bracket: Term) -> tuple[float, float, str]:
        """Of "1 cup (112 g)" take the weight, and remember the other as ``also``."""
        low, high, key = reading
        if unit(bracket.unit or "piece").kind == "mass" and unit(key or "piece").kind != "mass":
            self.also = f"{low:g} {key}".strip()
            return bracket.low, bracket.high, bracket.unit
        self.also = f"{bracket.number:g} {bracket.unit}".strip()
        return low, high, key

    def _skip(self) -> None:
        """Pass spaces and full stops, but not the point of ".5"."""
        while (here := self.text[self.at : self.at + 2]) and here[0] in " ." and not re.fullmatch(r"\.\d", here):
            self.at += 1

    def _word(self) -> re.Match[str] | None:
        self._skip()
        return _WORD.match(self.text, self.at)

    def _filling(self) -> tuple[float, float]:
        self._skip()
        if self.text[self.at : self.at + 1] == "~":
            self.at += 1
            return _FILLINGS["~"]
        word = self._word()
        if word and word.group().lower() in _FILLINGS:
            self.at = word.end()
            return _FILLINGS[word.group().lower()]
        return 1.0, 0.0

    def _numbers(self) -> tuple[float, float, bool] | None:
        """Low, high and whether a decimal was typed."""
        while self.text[self.at : self.at + 1] == " ":
            self.at += 1
        match = _NUMBER.match(self.text, self.at)
        if match:
            # "2-3/4" would read as two and three quarters; "2-3 tbsp" is a range.
            self.at = match.end()
            low = high = _value(match)
            to = _TO.match(self.text, self.at)
            second = _NUMBER.match(self.text, to.end()) if to else None
            if second:
                self.at, high = second.end(), _value(second)
            decimal = bool(re.search(r"\d[.,]\d", match.group()))
            return min(low, high), max(low, high), decimal
        word = self._word()
        if word is None:
            return None
        words = word.group().lower()
        if words in _WORDS:
            self.at = word.end()
            if words == "half" and (article := self._word()) and article.group().lower() in ("a", "an"):
                self.at = article.end()
            return _WORDS[words], _WORDS[words], False
        # A bare "pinch", "knob" or "glug" is one of it.
        key = unit_names().get(words) if len(words) > 1 else None
        return (1.0, 1.0, False) if key and unit(key).spread_percent >= constant("loose_measure") else None

    def _bracket(self) -> Term | None:
        """Return an amount in round brackets; text in brackets that is none stays in the rest."""
        match = re.compile(r"\s*\(([^()]*)\)").match(self.text, self.at)
        if not match:
            return None
        inner = Scanner(match.group(1).strip())
        try:
            term = inner.term()
        except AmountError:
            return None
        if inner.rest() not in ("", "each") or not term.unit:
            return None
        self.at = match.end()
        return term

    def _size(self) -> str:
        start, word = self.at, self._word()
        if word is None:
            return ""
        words = word.group().lower()
        two = re.compile(r"extra\s+large", re.IGNORECASE).match(self.text, word.start())
        end = two.end() if two else word.end()
        size = "xl" if two else _SIZES.get(words, "")
        # One letter is a size only before an egg: "2 L eggs", but "2 l" is litres.
        lone = len(words) == 1 and not re.compile(r"\s*(?:eggs?|whites?|yolks?)\b", re.IGNORECASE).match(self.text, end)
        if not size or lone:
            self.at = start
            return ""
        self.at = end
        return words if len(words) == 1 else size

    def _unit(self) -> str:
        start, word = self.at, self._word()
        if word is None:
            self.at = start
            return ""
        two = re.compile(r"[^\W\d_]+\.?\s+[^\W\d_]+").match(self.text, word.start())
        if two and (key := unit_names().get(re.sub(r"\.?\s+", " ", two.group()).lower())):
            self.at = two.end()
        elif (key := unit_names().get(word.group() if len(word.group()) == 1 else word.group().lower())) is not None:
            self.at = word.end()
        else:
            self.at = start
            return ""
        if self.text[self.at : self.at + 1] == ".":
            self.at += 1
        connector = re.compile(r"\s+of\b", re.IGNORECASE).match(self.text, self.at)
        if connector:
            self.at = connector.end()
        return key
