"""A pasted ingredient list → lines. Nothing pasted is dropped: what is not read is said and kept."""

from __future__ import annotations

import html
import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from substrata.base.amount_scanner import Term
from substrata.base.amounts import Amount, split_amount, with_package_sizes
from substrata.base.errors import AmountError, FormulaError, SubstrataError
from substrata.base.settings import Settings
from substrata.base.uncertainty import Spread
from substrata.base.units import unit
from substrata.formula.bake_settings import BakeStage
from substrata.formula.batch.batch_lines import LineProblem
from substrata.formula.batch.weighed_lines import weigh_line
from substrata.formula.exchange.form_vocabulary import form_in, usual_pieces
from substrata.formula.exchange.recipe_phrases import RecipePhrases, count_alone, phrases_in, phrases_in_title
from substrata.formula.formula import Formula, Line, LinePrep, LineStep
from substrata.ingredients.library import Library
from substrata.ingredients.vegetable_drying import dry, is_squeezable

LONGEST_PASTE = 20_000  # characters
MOST_PASTED_LINES = 200
LONGEST_LINE = 300

_BULLET = re.compile(r"^\s*(?:[-*•·▢☐□✓◦‣–]|\[[ xX]?\]|\d{1,2}[.)](?=\s))\s*")
_LEADING_OF = re.compile(r"^(?:of|the)\s+", re.IGNORECASE)
_SECTION_ROLES = {"topping": "topping", "filling": "filling", "wash": "wash", "glaze": "wash", "dusting": "dusting"}
_ONLY = re.compile(r"\b(white|yolk)s?\s+only\b", re.IGNORECASE)
_EGG_PARTS = {"egg": "egg", "white": "egg-white", "yolk": "egg-yolk"}
Status = Literal["read", "unsure", "unknown", "section", "told"]


@dataclass(frozen=True, kw_only=True)
class PastedLine:
    """What became of one line of the paste."""

    number: int  # line of the paste, from 1
    text: str
    status: Status
    lines: tuple[Line, ...] = ()  # usually one; "2 eggs + 2 whites" gives two
    nearest: tuple[str, ...] = ()  # ids to offer when unsure or unknown
    weights: tuple[Spread | None, ...] = ()  # grams of each line by the kitchen's measures; None: not to be weighed
    phrases: RecipePhrases | None = None  # what it says of the whole formula
    problem: LineProblem | None = None


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
        row = replace(_read(number, with_package_sizes(part), role, library), text=part)
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


_SEASONED = re.compile(
    r"^\W*salt\s*(?:&|and|\+)\s*(?:freshly\s+)?(?:ground\s+)?(?:black\s+)?pepper\b[\s,]*(.*)$", re.IGNORECASE
)


def _read(number: int, part: str, role: str, library: Library) -> PastedLine:
    if seasoned := _SEASONED.match(part):
        both = [
            _read(number, f"{name} {seasoned.group(1)}".strip(), role, library) for name in ("salt", "black pepper")
        ]
        lines = tuple(replace(l, id=f"p{number}{c}") for row, c in zip(both, "ab", strict=True) for l in row.lines)
        return replace(both[0], text=part, lines=lines)
    body, same = _repeated(_BULLET.sub("", part)[:LONGEST_LINE])
    amount, name, problem = _amount_and_name(body)
    key = f"p{number}"
    match = library.names.without_remark(name)
    egg = next((_EGG_PARTS[t.unit] for t in amount.terms if t.unit in _EGG_PARTS), None) if amount else None
    if egg == "egg" and (only := _ONLY.search(body)):
        egg = _EGG_PARTS[only.group(1).lower()]
    whole = library.names.find(body)
    if egg and whole and whole.ingredient not in _EGG_PARTS.values():
        # "1 tbsp egg white powder": what was taken for the unit is part of a longer name.
        egg, match = None, whole
    ingredient = egg or (match.ingredient if match else "")
    sure = bool(egg) or bool(match and match.sure)
    beside = () if match is None else match.beside
    note = ", ".join(filter(None, (_note(name, beside) if match else name, same)))[:500]
    if not sure:
        near = tuple(dict.fromkeys([*([ingredient] if ingredient else []), *library.names.nearest(name, 5)]))[:5]
        what = "not sure which ingredient is meant" if ingredient else "unknown ingredient"
        problem = LineProblem(
            line=key,
            field="ingredient",
            what=what,
            got=name[:80] or "nothing",
            allowed="an ingredient of the pantry",
            remedy="choose one of the closest matches",
        )
        line = Line(id=key, ingredient="", entered=_entered(body, name), role=role, note=name[:500])
        return PastedLine(
            number=number,
            text=part,
            status="unsure" if ingredient else "unknown",
            lines=(line,),
            nearest=near,
            problem=problem,
        )
    lines = _lines(key, ingredient, amount, _entered(body, name), role, note)
    return PastedLine(number=number, text=part, status="read", lines=lines, problem=problem)


_BEHIND = re.compile(r"\s*\((?:about |ca\.? ?|approx\.? )?([^()]{1,60})\)\s*$", re.IGNORECASE)


def _repeated(body: str) -> tuple[str, str]:
    """Return a line without the measure in brackets that repeats its weight, and that measure.

    >>> _repeated("160 g almond flour (1½ cups)")
    ('160 g almond flour', '1½ cups')
    """
    behind = _BEHIND.search(body)
    if behind is None:
        return body, ""
    try:
        first, other = split_amount(body), split_amount(behind.group(1).partition(";")[0])
    except AmountError:
        return body, ""
    weighed = first.terms[0].unit and unit(first.terms[0].unit).kind == "mass"
    # "(2 large eggs)" and "(1½ cups)" are amounts; "(3 types, mixed)" tells something else.
    plain = other.rest.casefold().rstrip("s") in ("", "egg", "white", "yolk", "egg white", "egg yolk")
    return (body[: behind.start()], behind.group().strip(" ()")) if weighed and plain else (body, "")


def _amount_and_name(body: str) -> tuple[Amount | None, str, LineProblem | None]:
    try:
        amount = split_amount(body)
    except AmountError as error:
        # "Salt, a pinch" and "salt to taste": look for the amount behind the name.
        head, _, tail = body.partition(",")
        try:
            return split_amount(tail), head, None
        except AmountError:
            return None, body, LineProblem.of(error)
    return amount, _LEADING_OF.sub("", amount.rest), None


def _entered(body: str, name: str) -> str:
    """Return the part of a line that is its amount, as it was written."""
    at = body.rfind(name) if name else len(body)
    before, after = (body[:at], body[at + len(name) :]) if at >= 0 else ("", "")
    return (before.strip() or after).strip(" ,;").removesuffix(" of")


def _note(name: str, beside: tuple[str, ...]) -> str:
    """Return what stands beside the ingredient's name: after a comma, in brackets, or as describing words."""
    brackets = re.findall(r"\(([^()]*)\)", name)
    _, _, after = re.sub(r"\([^()]*\)", "", name).partition(",")
    phrase = [part.strip() for part in (after, *brackets) if part.strip()]
    spoken = " ".join(phrase).casefold()
    words = [word for word in beside if word not in spoken and not word.isdigit()]
    return ", ".join([*([" ".join(words)] if words else []), *phrase])[:500]


def _lines(key: str, ingredient: str, amount: Amount | None, entered: str, role: str, note: str) -> tuple[Line, ...]:
    """One line, or one for each part of the egg when whites and yolks were counted apart."""
    parts: dict[str, list[Term]] = {}
    for term in amount.terms if amount else ():
        parts.setdefault(_EGG_PARTS.get(term.unit, ingredient), []).append(term)
    if len(parts) < 2:
        return (Line(id=key, ingredient=ingredient, entered=entered, role=role, note=note),)
    return tuple(
        Line(
            id=f"{key}{chr(97 + n)}",
            ingredient=part,
            role=role,
            note=note if n == 0 else "",
            entered=" + ".join(" ".join(filter(None, (f"{t.number:g}", t.size, t.unit))) for t in terms),
        )
        for n, (part, terms) in enumerate(parts.items())
    )
