"""A pasted ingredient list → lines. Nothing pasted is dropped: what is not read is said and kept."""

from __future__ import annotations

import html
import re
from collections.abc import Sequence
from dataclasses import replace
from typing import Literal

from substrata.base.amounts import with_package_sizes
from substrata.base.errors import FormulaError, SubstrataError
from substrata.base.settings import Settings
from substrata.base.uncertainty import Spread
from substrata.formula.bake_settings import BakeStage
from substrata.formula.batch.weighed_lines import weigh_line
from substrata.formula.exchange.form_vocabulary import form_in, usual_pieces
from substrata.formula.exchange.pasted_line import LONGEST_LINE, PastedLine, read_line
from substrata.formula.exchange.recipe_phrases import RecipePhrases, count_alone, phrases_in, phrases_in_title
from substrata.formula.formula import Formula, Line, LinePrep, LineStep
from substrata.ingredients.library import Library
from substrata.ingredients.vegetable_drying import dry, is_squeezable

LONGEST_PASTE = 20_000  # characters
MOST_PASTED_LINES = 200

_SECTION_ROLES = {"topping": "topping", "filling": "filling", "wash": "wash", "glaze": "wash", "dusting": "dusting"}


def import_text(text: str, library: Library, settings: Settings = Settings()) -> tuple[PastedLine, ...]:  # noqa: B008 - frozen
    """Read a pasted ingredient list.

    Args:
        text: one ingredient a line; bullets, numbering, section heads, a title and what it makes and how it is baked are understood.
        library: whose names and aliases count.
        settings: the kitchen's spoons and eggs, for the weights.

    Returns:
        The lines, one for each pasted row.

    Raises:
        FormulaError: when the paste is too long; the text stays with the caller.
    """
    if len(text) > LONGEST_PASTE:
        raise FormulaError(
            "the paste is too long",
            got=f"{len(text):,} characters",
            allowed=f"up to {LONGEST_PASTE:,}",
            remedy="paste the ingredient list only",
            field="text",
        )
    written = [(n, part.strip()) for n, part in enumerate(html.unescape(text).splitlines(), 1) if part.strip()]
    if len(written) > MOST_PASTED_LINES:
        raise FormulaError(
            "too many lines in the paste",
            got=str(len(written)),
            allowed=f"up to {MOST_PASTED_LINES}",
            remedy="paste one formula at a time",
            field="text",
        )
    role, result = "", []
    below: Literal["", "method", "besides"] = ""
    for number, part in written:
        section = _section_role(part)
        below = _phrases_below(part) if section is not None else below
        if below and section is None:
            # Below the head of the method stands what is done, with what it says of the oven; below others there is only talk.
            phrases = phrases_in(part) if below == "method" else RecipePhrases()
            result.append(
                PastedLine(
                    number=number,
                    text=part,
                    status="told",
                    phrases=replace(phrases, note=phrases.note or part[:LONGEST_LINE]),
                )
            )
            continue
        phrases_of_part = phrases_in(part)
        if section is not None:
            role = section
            result.append(PastedLine(number=number, text=part, status="section"))
            continue
        row = replace(read_line(number, with_package_sizes(part), role, library), text=part)
        # "Warm water, 60 g" begins like something to do, and is an ingredient.
        weighed = row.status == "read" and any(line.entered for line in row.lines)
        if not phrases_of_part and row.status == "unknown":
            phrases_of_part = count_alone(part)
        if phrases_of_part and not (phrases_of_part.note and weighed):
            row = PastedLine(number=number, text=part, status="told", phrases=phrases_of_part)
        result.append(row)
    rows = [
        _pressed_out(replace(p, weights=tuple(_weight(line, library, settings) for line in p.lines)), library)
        for p in _titled(result, library)
    ]
    return tuple(_formed(rows, library))


_PRESSED_OUT = re.compile(r"\b(?:squeezed|wrung|pressed)\b", re.IGNORECASE)
_BY_HAND = (LineStep(act="squeeze", times=2),)


def _pressed_out(row: PastedLine, library: Library) -> PastedLine:
    """Return what is said to be squeezed behind its weight was weighed raw ("300 g courgette, squeezed"); before it, it is what is left."""
    match = _PRESSED_OUT.search(row.text)
    if match is None or len(row.lines) != 1 or row.weights[0] is None or row.status != "read":
        return row
    line, weight = row.lines[0], row.weights[0]
    if (line.role or library[line.ingredient].role) != "vegetable" or not is_squeezable(library[line.ingredient]):
        return row
    if not set("(,") & set(row.text[: match.start()]):
        return replace(row, lines=(replace(line, prep=LinePrep(steps=_BY_HAND)),))
    dried = dry(library[line.ingredient].composition, tuple(step.plain for step in _BY_HAND), weight.value)
    pressed = replace(line, grams=round(dried.end_g), entered="", prep=LinePrep(steps=_BY_HAND, start_g=weight.value))
    return replace(row, lines=(pressed,), weights=(Spread(value=dried.end_g, low=dried.low_g, high=dried.high_g),))


_LEAST_AMOUNTS = 2  # below a title


def _titled(rows: list[PastedLine], library: Library) -> list[PastedLine]:
    """Return the rows with the first one read as the name, when it has no amount, names no ingredient and amounts stand below."""
    if not rows or rows[0].status == "section" or any(line.entered for line in rows[0].lines):
        return rows
    if rows[0].phrases and (rows[0].phrases.note is None or rows[0].text.endswith(".")):
        return rows
    match = library.names.find(rows[0].text)
    outright = match is not None and match.sure and not match.beside and not form_in(rows[0].text)
    if outright or sum(any(line.entered for line in row.lines) for row in rows[1:]) < _LEAST_AMOUNTS:
        return rows
    name, pieces = phrases_in_title(rows[0].text.strip(" #*_:-–"))
    phrases = RecipePhrases(name=name[:120], pieces=pieces)
    return [PastedLine(number=rows[0].number, text=rows[0].text, status="told", phrases=phrases), *rows[1:]]


def _formed(rows: list[PastedLine], library: Library) -> list[PastedLine]:
    """Add the form of the title and its usual number of pieces, where nothing below gives one."""
    title = next((row for row in rows if row.phrases and row.phrases.name), None)
    if title is None or title.phrases is None or title.phrases.name is None:
        return rows
    here = [line.ingredient for row in rows for line in row.lines if line.ingredient in library]
    form = form_in(title.phrases.name, sweet=any(library[i].role == "sweetener" for i in here))
    below = [row.phrases for row in rows if row.phrases and row is not title]
    if form is None:
        return rows
    grams = sum(weight.value for row in rows for weight in row.weights if weight)
    has_pieces = title.phrases.pieces or any(phrases.pieces for phrases in below) or not grams
    pieces = title.phrases.pieces if has_pieces else usual_pieces(form, grams)
    named = replace(title, phrases=replace(title.phrases, form=form, pieces=pieces))
    # A title that names a form is surer than a word beside a number.
    return [
        named if row is title else replace(row, phrases=replace(row.phrases, form=None)) if row.phrases else row
        for row in rows
    ]


def with_phrases(formula: Formula, pasted: Sequence[PastedLine]) -> Formula:
    """Return a formula with what the paste says of the whole of it: its name, form, pieces, oven and what to do."""
    for phrases in (row.phrases for row in pasted if row.phrases):
        bake = formula.bake
        if phrases.oven_c is not None:
            bake = replace(bake, oven_c=phrases.oven_c, fan=bake.fan if phrases.fan is None else phrases.fan)
        if phrases.minutes is not None:
            bake = replace(bake, stages=(BakeStage(kind="bake", minutes=phrases.minutes),))
        formula = replace(
            formula,
            name=phrases.name or formula.name,
            form=phrases.form or formula.form,
            pieces=phrases.pieces or formula.pieces,
            bake=bake,
            notes="\n".join(filter(None, (formula.notes, phrases.note))),
        )
    return formula


def _weight(line: Line, library: Library, settings: Settings) -> Spread | None:
    try:
        return weigh_line(line, library, settings).grams if line.ingredient else None
    except SubstrataError:
        return None


_METHOD = ("method", "instructions", "directions", "preparation", "steps", "what to do")
_BESIDES = ("variants", "variations", "notes", "tips", "storage", "keeping", "nutrition")


def _phrases_below(part: str) -> Literal["", "method", "besides"]:
    """Return what stands below a head: what is done, what is said besides, or ingredients."""
    head = part.rstrip(": ").strip("#* ").lower()
    return "method" if head in _METHOD else "besides" if head in _BESIDES else ""


def _section_role(part: str) -> str | None:
    """Return the role a head such as "For the topping:" gives the lines below it; None when it is no head."""
    if not part.endswith(":") or any(c.isdigit() for c in part) or len(part) > 60:
        return None
    return next((role for word, role in _SECTION_ROLES.items() if word in part.lower()), "")
