"""One pasted line: its amount, its ingredient and what it says besides."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from typing import Literal

from substrata.base.amount_scanner import Term
from substrata.base.amounts import Amount, split_amount
from substrata.base.errors import AmountError
from substrata.base.uncertainty import Spread
from substrata.base.units import unit
from substrata.formula.batch.batch_lines import LineProblem
from substrata.formula.exchange.recipe_phrases import RecipePhrases
from substrata.formula.formula import Line
from substrata.ingredients.library import Library

LONGEST_LINE = 300


_BULLET = re.compile(r"^\s*(?:[-*•·▢☐□✓◦‣–]|\[[ xX]?\]|\d{1,2}[.)](?=\s))\s*")


_LEADING_OF = re.compile(r"^(?:of|the)\s+", re.IGNORECASE)


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


_SEASONED = re.compile(
    r"^\W*salt\s*(?:&|and|\+)\s*(?:freshly\s+)?(?:ground\s+)?(?:black\s+)?pepper\b[\s,]*(.*)$", re.IGNORECASE
)


def read_line(number: int, part: str, role: str, library: Library) -> PastedLine:
    """Read one pasted line: its amount, its ingredient, and what is beside them.

    Args:
        number: its place in the paste, for ids.
        part: the text of the line.
        role: role of the section it stands in.
        library: the ingredients that a name may mean.

    Returns:
        The line with its status; "salt and pepper" gives two formula lines.
    """
    if seasoned := _SEASONED.match(part):
        both = [
            read_line(number, f"{name} {seasoned.group(1)}".strip(), role, library) for name in ("salt", "black pepper")
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
