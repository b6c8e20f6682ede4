"""The words that labels and product files use for their figures, in a few languages."""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass
from functools import cache, lru_cache

from substrata.base.tables.table_reader import read_table

_UNITS = {"g", "mg", "ug", "mcg", "kcal", "kj", "iu"}


@lru_cache(maxsize=4096)
def plain(text: str) -> str:
    """Lower-case words without accents, camel case split.

    >>> plain("saturatedFatContent"), plain("Matières grasses")
    ('saturated fat content', 'matieres grasses')

    Returns:
        The plain text.
    """
    spaced = re.sub(r"(?<=[a-z])(?=[A-Z])", " ", text)
    folded = unicodedata.normalize("NFKD", spaced.replace("ß", "ss").casefold().replace("µ", "u").replace("μ", "u"))
    return " ".join(re.findall(r"[a-z0-9%]+", "".join(c for c in folded if not unicodedata.combining(c))))


@cache
def words() -> dict[str, str]:
    """Every written name → the field it names, longest first."""
    table: dict[str, str] = {}
    for row in read_table("label_words.csv"):
        for word in row.text("words").split(";"):
            table[word.strip()] = row.text("field")
    return dict(sorted(table.items(), key=lambda pair: -len(pair[0])))


@dataclass(frozen=True, kw_only=True)
class Header:
    """What a column or key of a product file is about."""

    field: str  # a figure, or name, price …; "" when it says nothing we know
    unit: str  # "mg" when the header names one; "" else
    per_100: bool | None  # True for "per 100 g", False for "per serving", None when it does not say


def read_header(text: str) -> Header:
    """Read a column header such as ``Sodium (mg)``, ``carbohydrates_100g`` or ``fatContent``.

    >>> read_header("Sodium (mg) per 100 g")
    Header(field='sodium_mg', unit='mg', per_100=True)

    Returns:
        What the column holds, with its unit and amount.
    """
    phrase = plain(text)
    per_100 = (
        True
        if re.search(r"\b100 ?g\b", phrase)
        else False
        if re.search(r"\b(per )?(serving|portion)$", phrase)
        else None
    )
    header_words = [
        w
        for w in re.sub(r"\b(per )?100 ?g\b", " ", phrase).split()
        if w not in ("per", "content", "value", "amount", "total", "unit")
    ]
    if per_100 is False and header_words and header_words[-1] in ("serving", "portion") and len(header_words) > 1:
        header_words = header_words[:-1]
    unit = header_words[-1] if len(header_words) > 1 and header_words[-1] in _UNITS else ""
    for tried in (" ".join(header_words), " ".join(header_words[:-1]) if unit else "", phrase):
        if tried in words():
            return Header(field=words()[tried], unit="ug" if unit == "mcg" else unit, per_100=per_100)
    return Header(field="", unit=unit, per_100=per_100)
