"""The same dough, more or less of it: by a factor, by pieces, by their weight, or by what is at hand of one ingredient."""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import isfinite

from substrata.base.amounts import Amount, parse_amount
from substrata.base.errors import AmountError, FormulaError
from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.formula.batch.weighed_lines import weigh_line
from substrata.formula.formula import Formula, Line

MOST_FACTOR = 1_000.0
_HAIR = 0.01


@dataclass(frozen=True, kw_only=True)
class ScaleWish:
    """How much is wanted: exactly one of the first four."""

    factor: float | None = None
    pieces: int | None = None  # of the same weight
    piece_g: float | None = None  # of dough, of the same number
    line: str | None = None  # id; with ``amount``: all that there is of it
    amount: str = ""  # "3 eggs", "250 g"
    keep_pieces: bool = False  # by a factor or an amount: the number stays and each piece grows


@dataclass(frozen=True, kw_only=True)
class Scaled:
    """The scaled formula, and by how much."""

    formula: Formula
    factor: float
    dough_g: float
    piece_g: float


def scale(dough: Dough, wish: ScaleWish) -> Scaled:
    """Scale a formula.

    Args:
        dough: what is made now.
        wish: how much is wanted.

    Returns:
        The scaled formula and what was rounded.

    Raises:
        FormulaError: when nothing or too much is wanted, or there is nothing to scale.
        AmountError: when the amount at hand cannot be read.
    """
    formula, now = dough.formula, dough.batch.dough_g
    if now <= 0:
        raise FormulaError("there is no dough to scale", got="0 g", remedy="add ingredients first", field="lines")
    factor = _factor(dough, wish)
    if not isfinite(factor) or not 0 < factor <= MOST_FACTOR:
        raise FormulaError(
            "cannot scale by this value",
            got=f"{factor:g}",
            allowed=f"above 0, up to {MOST_FACTOR:g} times",
            field="factor",
        )
    pieces = formula.pieces
    if wish.pieces is not None:
        pieces = wish.pieces
    elif wish.piece_g is None and not wish.keep_pieces:
        pieces = max(round(formula.pieces * factor), 1)
    lines = tuple(_scaled(line, factor, dough) for line in formula.lines)
    result = replace(formula, lines=lines, pieces=pieces)
    return Scaled(formula=result, factor=factor, dough_g=now * factor, piece_g=now * factor / pieces)


def _factor(dough: Dough, wish: ScaleWish) -> float:
    formula, now = dough.formula, dough.batch.dough_g
    if wish.factor is not None:
        return wish.factor
    if wish.pieces is not None:
        if wish.pieces < 1:
            raise FormulaError("too few pieces", got=str(wish.pieces), allowed="1 or more", field="pieces")
        return wish.pieces / formula.pieces
    if wish.piece_g is not None:
        return wish.piece_g * formula.pieces / now
    if wish.line is not None:
        return _at_hand(dough, wish.line, wish.amount)
    raise FormulaError(
        "nothing to scale by",
        got="nothing",
        allowed="a factor, a number of pieces, a piece weight, or an amount on hand",
        field="factor",
    )


def _at_hand(dough: Dough, key: str, amount: str) -> float:
    line = next((line for line in dough.formula.lines if line.id == key), None)
    has = next((w.grams.value for w in dough.batch.lines if w.line.id == key), 0.0)
    if line is None or has <= 0:
        raise FormulaError("line not found", got=key[:40], allowed="an ingredient with a weight", field="line")
    text = f"{amount.strip()} g" if _is_number(amount) else amount
    request = replace(line, grams=None, entered=text, prep=None)
    return weigh_line(request, dough.library, dough.settings).grams.value / has


def _is_number(text: str) -> bool:
    try:
        float(text.replace(",", "."))
    except ValueError:
        return False
    return True


def _scaled(line: Line, factor: float, dough: Dough) -> Line:
    weighed = next((w for w in dough.batch.lines if w.line.id == line.id), None)
    grams = line.grams if line.grams is not None else (weighed.grams.value if weighed else None)
    if grams is None:
        return line
    grams = round(grams * factor, 2)
    prep = line.prep
    if prep is not None and prep.start_g is not None:
        prep = replace(prep, start_g=round(prep.start_g * factor, 2))
    return replace(line, grams=grams, entered=_entered(line.entered, factor) or f"{grams:g} g", prep=prep)


def _entered(entered: str, factor: float) -> str:
    """Return the amount as it would be measured now; "" where that comes to no round number of spoons or eggs."""
    try:
        amount: Amount = parse_amount(entered)
    except AmountError:
        return ""
    if len(amount.terms) != 1:
        return ""
    (term,) = amount.terms
    number = term.number * factor
    weighed = term.unit in ("g", "kg", "mg", "oz", "lb") or not (term.unit or term.size)
    if weighed or term.low != term.high or term.extra_percent:
        return ""
    round_number = round(number / constant("measure_step")) * constant("measure_step")
    if round_number <= 0 or abs(number / round_number - 1) > _HAIR:
        return ""
    return " ".join(filter(None, (_fraction(round_number), term.size, term.unit)))


def _fraction(number: float) -> str:
    whole, part = divmod(number, 1)
    text = {0.25: "1/4", 0.5: "1/2", 0.75: "3/4"}.get(part, "")
    return " ".join(filter(None, (f"{whole:g}" if whole else "", text)))
