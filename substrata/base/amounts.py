"""Read amounts as bakers write them: "1 1/2 cup", "2 lg eggs + 2 whites", "1 (8 oz) pkg", "a pinch".

An amount is a sum of terms; each term is a number (or range) of a unit, perhaps with a size word.
What is not part of the amount is handed back as ``rest``: text is reported, never dropped.
"""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass

from substrata.base.errors import AmountError
from substrata.base.tables.table_reader import constant
from substrata.base.units import unit, unit_names

LONGEST_AMOUNT = 300  # characters; a longer text is a paste, not an amount
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


@dataclass(frozen=True, kw_only=True)
class Amount:
    """A sum of terms and what stood around it."""

    terms: tuple[Term, ...]
    rest: str = ""  # what follows the amount, usually the ingredient's name
    also: str = ""  # a second amount in brackets that was not used


def parse_amount(text: str) -> Amount:
    """Read a text that is an amount and nothing else.

    >>> [(t.number, t.unit) for t in parse_amount("3/4 cup plus 2 tablespoons").terms]
    [(0.75, 'cup'), (2.0, 'tbsp')]
    >>> [(t.number, t.unit, t.size) for t in parse_amount("2 lg eggs + 2 whites").terms]
    [(2.0, 'egg', 'large'), (2.0, 'white', '')]

    Returns:
        The amount.

    Raises:
        AmountError: when the text holds no amount, or something besides it.
    """
    amount = split_amount(with_package_sizes(text))
    if amount.rest:
        raise AmountError(
            "part of the amount cannot be read",
            got=repr(amount.rest[:60]),
            field="entered",
            allowed='a number and a unit such as "1 1/2 cup", "100 g", "2 lg eggs"',
            remedy="write the amount alone, or grams",
        )
    return amount


_COUNT = r"(?P<count>\d+(?:[.,]\d+)?|one|two|three|four|half(?: an?)?|a|an)"
_SIZE = r"(?P<size>\d+(?:[.,]\d+)?(?:\s*/\s*[1-9]\d*)?)\s*-?\s*(?P<unit>oz|ounces?|g|gr|grams?|kg|lbs?|pounds?|ml|fl\.? ?oz)\b\.?"
_PACKAGE = (
    r"(?:blocks?|bricks?|packages?|packs?|packets?|pkgs?\.?|cans?|tins?|tubs?|bags?|jars?|balls?|cartons?|containers?|bottles?|boxes|box|"
    r"logs?|bars?|tubes?|pots?|wheels?|wedges?|pouch(?:es)?|sachets?)"
)
_SIZED = re.compile(
    rf"^\s*(?:{_COUNT}\s*(?:x|×)?\s*[-(]?\s*)?\(?\s*{_SIZE}\s*\)?\s*[-)]?\s*{_PACKAGE}\b\.?(?:\s+of\b)?"
    rf"|^\s*(?P<count2>\d+)\s*{_PACKAGE}\s*\(\s*(?P<size2>\d+(?:[.,]\d+)?)\s*-?\s*(?P<unit2>oz|ounces?|g|grams?|kg|lbs?|ml)\.?\s*(?:each)?\s*\)"
    rf"|^\s*(?P<count3>\d+)\s*(?:x|×)\s*(?P<size3>\d+(?:[.,]\d+)?)\s*(?P<unit3>g|kg|oz|ml|lbs?)\b",
    re.IGNORECASE,
)
_SIZED_AFTER = re.compile(
    rf"^\s*{_COUNT}\s*{_PACKAGE}\s+(?:of\s+)?(?P<food>[^()\d]+?)\s*\(\s*{_SIZE}\s*(?P<each>each|per\s\w+)?\s*\)\s*$",
    re.IGNORECASE,
)
_COUNTS = {"one": 1.0, "two": 2.0, "three": 3.0, "four": 4.0, "a": 1.0, "an": 1.0}


def with_package_sizes(text: str) -> str:
    """Rewrite packages of a stated size as what they hold together: "2 (8-oz) blocks" as "16 oz".

    >>> with_package_sizes("1 (8-oz) block sharp cheddar"), with_package_sizes("2 cans (14.5 oz) chickpeas")
    ('8 oz sharp cheddar', '29 oz chickpeas')
    >>> with_package_sizes("1 block cheddar"), with_package_sizes("3 x 100 g butter")
    ('1 block cheddar', '300 g butter')
    >>> with_package_sizes("1 tub ricotta (250 g)"), with_package_sizes("2 tubs ricotta (250 g each)")
    ('250 g ricotta', '500 g ricotta')

    Of "2 tubs ricotta (250 g)" nobody knows whether it is each: it stays as it is, without a weight.

    Returns:
        The text with its packages as totals.
    """
    match = _SIZED.match(text[:LONGEST_AMOUNT])
    if match is None:
        return _with_size_behind(text)
    part = match.groupdict()
    count, size, unit = next(
        (part[f"count{n}"], part[f"size{n}"], part[f"unit{n}"]) for n in ("", "2", "3") if part[f"size{n}"]
    )
    return f"{_count(count) * _size(size):.6g} {unit.rstrip('.')} {text[match.end() :].strip()}".strip()


def _with_size_behind(text: str) -> str:
    """Rewrite a package whose size follows its food."""
    match = _SIZED_AFTER.match(text[:LONGEST_AMOUNT])
    if match is None or (_count(match["count"]) > 1 and not match["each"]):
        return text
    return f"{_count(match['count']) * _size(match['size']):.6g} {match['unit'].rstrip('.')} {match['food']}"


def _count(text: str | None) -> float:
    number = (text or "1").lower().replace(",", ".")
    return 0.5 if number.startswith("half") else _COUNTS.get(number) or float(number)


def _size(text: str) -> float:
    top, _, below = text.replace(",", ".").partition("/")
    return float(top) / (float(below) if below.strip() else 1.0)


def split_amount(text: str) -> Amount:
    """Read the amount at the start of a text and hand back what follows it.

    >>> a = split_amount("1½ c. almond flour"); (a.terms[0].number, a.terms[0].unit, a.rest)
    (1.5, 'cup', 'almond flour')

    Returns:
        The amount; its ``rest`` is the text that follows.

    Raises:
        AmountError: when the text does not start with an amount, or is too long.
    """
    if len(text) > LONGEST_AMOUNT:
        raise AmountError(
            "the amount is too long",
            got=f"{len(text)} characters",
            field="entered",
            allowed=f"up to {LONGEST_AMOUNT}",
            remedy="paste lists in the paste box",
        )
    scanner = _Scanner(_plain_fractions(text))
    terms = [scanner.term()]
    while (after := scanner.joined_term()) is not None:
        terms.append(after)
    return Amount(terms=tuple(terms), rest=scanner.rest(), also=scanner.also)


def _plain_fractions(text: str) -> str:
    """Write ½ and its kin as 1/2, keep everything else; collapse white space."""
    out: list[str] = []
    for char in text:
        spelled = unicodedata.normalize("NFKC", char) if unicodedata.category(char) == "No" else char
        out.append(f" {spelled.replace('⁄', '/')} " if "⁄" in spelled else char)
    return re.sub(r"\s+", " ", "".join(out).replace("⁄", "/")).strip()


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
            remedy="check for a slip",
        )
    return value


class _Scanner:
    """Walks along one text; every method takes what it can read and leaves the rest."""

    def __init__(self, text: str) -> None:
        self.text = text
        self.at = 0
        self.also = ""

    def rest(self) -> str:
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
        factor, extra = self._filling()
        numbers = self._numbers()
        if numbers is None:
            raise AmountError(
                "no amount found",
                got=repr(self.text[:60]) if self.text else "nothing",
                field="entered",
                allowed='a number and a unit such as "1 1/2 cup", "100 g", "2 lg eggs"',
                remedy="type an amount",
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
        inner = _Scanner(match.group(1).strip())
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
