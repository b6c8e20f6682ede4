"""Read packs from files of products: CSV with any headers, JSON with any keys that name what they hold.

A file is read in two steps: its columns are matched to fields (a guess that the baker can change), then
every row becomes a pack or a problem with its number. Rows are numbered as the file shows them.
"""

from __future__ import annotations

import json
import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Any

from substrata.base.amounts import parse_amount
from substrata.base.errors import AmountError, LabelError, SubstrataError
from substrata.base.tables.table_reader import read_table
from substrata.base.units import unit
from substrata.ingredients.labels.label_rounding import LabelStyle
from substrata.ingredients.labels.label_vocabulary import Header, plain, read_header
from substrata.ingredients.labels.pack_document import read_lot
from substrata.ingredients.labels.product_tables import Table
from substrata.ingredients.library import Library
from substrata.ingredients.pack import Lot, pack_flags, printed_claims
from substrata.ingredients.printed_label import FIGURES

_IN_BRACKETS = re.compile(r"\(?\s*(\d+(?:[.,]\d+)?)\s*(g|gr|grams?)\b", re.IGNORECASE)
_PRICE = re.compile(r"\d+(?:[.,]\d{1,2})?")


@dataclass(frozen=True, kw_only=True)
class Mapped:
    """How a file's columns are to be read."""

    fields: tuple[str, ...]  # one a column; "" leaves it out
    style: LabelStyle | None  # of labels that do not say themselves
    per_100: bool  # figures are per 100 g unless a row says its serving


@dataclass(frozen=True, kw_only=True)
class ReadRow:
    """One row: a pack, or why not."""

    number: int
    name: str
    lot: Lot | None
    problem: LabelError | None


@cache
def fields() -> tuple[str, ...]:
    """All that a column can be."""
    return tuple(row.text("field") for row in read_table("label_words.csv"))


def guess(table: Table) -> Mapped:
    """Match columns to fields by their headers; of two columns for one figure the one per 100 g is kept."""
    read = [_header(text) for text in table.headers]
    per_100 = any(h.per_100 for h in read if h.field in FIGURES)
    assigned: set[str] = set()
    chosen = []
    for header in read:
        fits = header.field and header.field not in assigned
        if header.field in FIGURES and per_100 and header.per_100 is not True:
            fits = False
        chosen.append(header.field if fits else "")
        assigned.add(chosen[-1])
    has_serving = "per_g" in chosen and not per_100
    style = _guessed_style(table.headers, assigned)
    return Mapped(fields=tuple(chosen), style=style, per_100=per_100 or not has_serving)


def _header(text: str) -> Header:
    """Return a header, or the last step of a JSON path that says something."""
    for tried in (text, text.rpartition(".")[2]):
        if (header := read_header(tried)).field:
            return header
    return Header(field="", unit="", per_100=None)


def _guessed_style(headers: Sequence[str], chosen: set[str]) -> LabelStyle | None:
    """Europe prints salt and kilojoules, the United States dietary fiber, calories and servings."""
    if chosen & {"salt_g", "energy_kj"}:
        return "eu"
    words = " ".join(plain(h) for h in headers)
    return "us" if re.search(r"dietary fib|calories|total carb|daily value|serving", words) else None


def read_rows(
    table: Table, mapped: Mapped, library: Library, start: int = 0, stop: int | None = None
) -> Iterator[ReadRow]:
    """Make packs of rows ``start`` to ``stop``.

    Yields:
        The rows, each a pack or a problem.

    Raises:
        LabelError: when the mapping does not fit the file.
    """
    if len(mapped.fields) != len(table.headers):
        raise LabelError(
            "the chosen columns are not in this file",
            got=str(len(mapped.fields)),
            allowed=str(len(table.headers)),
            field="fields",
        )
    units = [_header(h).unit for h in table.headers]
    for offset, row in enumerate(table.rows[start:stop], start):
        cells = {
            f: (cell.strip(), u) for f, cell, u in zip(mapped.fields, row, units, strict=True) if f and cell.strip()
        }
        number = table.first_number + offset
        name = cells.get("name", ("", ""))[0]
        try:
            lot = _lot(cells, mapped, library)
            yield ReadRow(number=number, name=lot.name, lot=lot, problem=None)
        except SubstrataError as error:
            problem = LabelError(
                error.what,
                got=error.got,
                allowed=error.allowed,
                remedy=error.remedy,
                field=error.field,
                line=f"row {number}",
            )
            yield ReadRow(number=number, name=name, lot=None, problem=problem)


_Cells = Mapping[str, tuple[str, str]]


def _lot(cells: _Cells, mapped: Mapped, library: Library) -> Lot:
    if "document" in cells:  # our own format: taken as it stands
        lot = read_lot(json.loads(cells["document"][0]), key="")
        _ = library[lot.ingredient]
        return lot
    words = {field: text for field, (text, _) in cells.items()}
    name = " ".join(filter(None, (words.get("brand", ""), words.get("name", ""))))[:120]
    return read_lot(
        {
            "name": name,
            "ingredient": _ingredient(words, library),
            "label": _label(cells, mapped),
            "price": _price(words.get("price", "")),
            "pack_g": _grams(*cells["pack_g"]) if "pack_g" in cells else None,
            "use_by": words.get("use_by"),
            "bought_on": words.get("bought_on"),
            "certificates": _listed(words.get("certificates", ""), printed_claims()),
            "contains": _listed(words.get("contains", ""), pack_flags()),
            "may_contain": _listed(words.get("may_contain", ""), pack_flags()),
            "statement": words.get("statement", "")[:2_000],
            "notes": words.get("notes", "")[:2_000],
        },
        key="",
    )


def _ingredient(cells: Mapping[str, str], library: Library) -> str:
    named = cells.get("ingredient", "")
    if named in library:
        return named
    match = library.names.find(named) if named else library.names.find(cells.get("name", ""))
    if match is None:
        near = ", ".join(library.names.nearest(named or cells.get("name", ""), 3))
        raise LabelError(
            "no matching ingredient found",
            got=(named or cells.get("name", ""))[:80] or "no name",
            allowed="a name of the pantry",
            remedy=f"write one of {near} in a column “ingredient”" if near else "add a column “ingredient”",
            field="ingredient",
        )
    return match.ingredient


def _label(cells: _Cells, mapped: Mapped) -> dict[str, Any] | None:
    figures = {key: _figure(*cells[key], key) for key in FIGURES if key in cells}
    if not figures:
        return None
    words = cells.get("style", ("", ""))[0].lower()
    style = "us" if words.startswith("us") else "eu" if words.startswith("eu") else mapped.style
    if style is None:
        raise LabelError(
            "the label style is not known",
            got=words or "nothing",
            allowed="us, eu",
            remedy="choose the label style for this file",
            field="style",
        )
    if mapped.per_100:
        return {"style": style, "per_g": 100.0, "per_digit_g": 0.0, "figures": figures}
    if "per_g" not in cells:
        raise LabelError("the serving is missing", got="nothing", allowed="grams, such as 28 g", field="per_g")
    text, unit_text = cells["per_g"]
    bracketed = _IN_BRACKETS.search(text)
    grams = float(bracketed.group(1).replace(",", ".")) if bracketed else _grams(text, unit_text)
    digits = bracketed.group(1) if bracketed else text
    decimals = re.search(r"\d[.,](\d+)", digits)
    measure = text[: bracketed.start()].strip(" (") if bracketed else ""
    return {
        "style": style,
        "per_g": grams,
        "per_digit_g": 10.0 ** -len(decimals.group(1)) if decimals else 1.0,
        "serving_measure": measure[:60].lower(),
        "figures": figures,
    }


def _figure(text: str, unit_text: str, key: str) -> str:
    """Return a cell as a printed figure; a header's unit joins it when it is another than the figure's own."""
    bare = re.fullmatch(r"(<?)\s*(\d+(?:[.,]\d+)?)", text)
    if bare and float(bare.group(2).replace(",", ".")) > 0 and len(bare.group(2)) > 8:
        text = f"{bare.group(1)}{float(bare.group(2).replace(',', '.')):.3f}"  # a computed figure, not a printed one
    default_unit = key.rpartition("_")[2]
    return f"{text} {unit_text}" if bare and unit_text and unit_text != default_unit else text


def _price(text: str) -> float | None:
    result = _PRICE.search(text)
    if text and not result:
        raise LabelError("the price cannot be read", got=text[:40], allowed="a number such as 4.99", field="price")
    return float(result.group().replace(",", ".")) if result else None


def _grams(text: str, unit_text: str) -> float:
    """Return a weight with its unit, g when none is written."""
    try:
        amount = parse_amount(text if re.search(r"[a-z]", text, re.IGNORECASE) else f"{text} {unit_text or 'g'}")
        sizes = [
            term.number * unit(term.unit).size for term in amount.terms if unit(term.unit or "piece").kind == "mass"
        ]
    except (AmountError, KeyError) as error:
        raise LabelError(
            "the weight cannot be read", got=text[:40], allowed="a weight such as 454 g, 1 lb", field="pack_g"
        ) from error
    if not sizes:
        raise LabelError(
            "the weight cannot be read", got=text[:40], allowed="a weight such as 454 g, 1 lb", field="pack_g"
        )
    return sum(sizes)


def _listed(text: str, allowed: Sequence[str]) -> list[str]:
    """Return the known words of a list in a cell; others are none of ours. "en:milk" is milk, "almonds" are nut:almond."""
    words = {plain(part.rpartition(":")[2]) for part in re.split(r"[,;|]", text)} - {""}
    words |= {word.removesuffix("s") for word in words} - {""}
    return [key for key in allowed if words & _spellings(key)] if words else []


@cache
def _spellings(key: str) -> frozenset[str]:
    """How a file may write a known word, plainly."""
    return frozenset({plain(key), plain(key.partition(":")[2]) or plain(key), _words().get(key, "")})


@cache
def _words() -> dict[str, str]:
    return {row.text("flag"): plain(row.text("word")) for row in read_table("allergens.csv") if row.text("word")}
