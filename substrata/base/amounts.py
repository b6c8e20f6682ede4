"""Read amounts as bakers write them: "1 1/2 cup", "2 lg eggs + 2 whites", "1 (8 oz) pkg", "a pinch".

An amount is a sum of terms; each term is a number (or range) of a unit, perhaps with a size word.
What is not part of the amount is handed back as ``rest``: text is reported, never dropped.
"""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass

from substrata.base.amount_scanner import Scanner, Term
from substrata.base.errors import AmountError

LONGEST_AMOUNT = 300  # characters; a longer text is a paste, not an amount


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
    scanner = Scanner(_plain_fractions(text))
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
