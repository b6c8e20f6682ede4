"""Poured over, or short: what the rest of the formula answers."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass

from substrata.base.errors import FormulaError
from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant
from substrata.evaluation.analysis.target_states import bracket_kinds
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import figures
from substrata.execution.correction import Correction, corrections, worse_than
from substrata.execution.feel_advice import as_poured
from substrata.execution.weighing_tolerance import tolerances
from substrata.formula.batch.batch_lines import WeighedLine
from substrata.process.rheology.handling.handling_forecast import rest_of

_FOLLOWS = {"": 4.0, "binder": 12.0}  # times the wrong weight, that another line may follow by (house choice)
_HAIR = 1e-9


@dataclass(frozen=True, kw_only=True)
class PourWay:
    """One answer to a wrong weight."""

    kind: str  # within, out, more, keeps, scale
    text: Wording
    grams: dict[str, float]  # new weight by line, of the batches that are made
    worse: tuple[str, ...]  # brackets that it leaves out of their windows, in words


@dataclass(frozen=True, kw_only=True)
class PourAdvice:
    """What to do about a line that was weighed otherwise than written."""

    line: str
    off_g: float  # poured over what is written
    tolerance_g: float
    within: bool
    ways: tuple[PourWay, ...]
    text: Wording


def poured(
    dough: Dough, line: str, grams: float, *, before: Collection[str] = (), batches: float = 1.0, mixed: bool = False
) -> PourAdvice:
    """Return what the rest of the formula answers to a weight. A pure function.

    Args:
        dough: as it is written.
        line: that was weighed.
        grams: what the scale shows, of all batches.
        before: lines that lie in the bowl already and can only grow.
        batches: that are made.
        mixed: the line is stirred in, and cannot be taken out.

    Raises:
        FormulaError: when there is no such line.
    """
    weighed = next((w for w in dough.batch.lines if w.line.id == line), None)
    if weighed is None:
        raise FormulaError(
            "line not found",
            got=line[:60],
            allowed=", ".join(w.line.id for w in dough.batch.lines),
            remedy="give the id of a line in the formula",
            field="line",
        )
    written = weighed.grams.value
    off = grams / batches - written
    allowed = tolerances(dough)[line].grams
    name = _short(weighed)
    if abs(off) <= allowed * (1 + _HAIR):
        return PourAdvice(
            line=line,
            off_g=off * batches,
            tolerance_g=allowed * batches,
            within=True,
            ways=(),
            text=Message("pour-advice-is-within-tolerance", grams=_grams(grams), name=name),
        )
    ways = []
    if off < 0:
        ways.append(
            PourWay(
                kind="more",
                text=Message("pour-advice-pour-more", grams=_grams(-off * batches)),
                grams={line: written * batches},
                worse=(),
            )
        )
    elif not mixed:
        ways.append(
            PourWay(
                kind="out",
                text=Message("pour-advice-take-out", grams=_grams(off * batches)),
                grams={line: written * batches},
                worse=(),
            )
        )
    if off > 0 or mixed:
        ways += _still_in_range(dough, weighed, off, batches)
        ways.append(_scaled(dough, weighed, grams, written * batches, before, batches))
    side = Message("pour-advice-too-much") if off > 0 else Message("pour-advice-too-little")
    return PourAdvice(
        line=line,
        off_g=off * batches,
        tolerance_g=allowed * batches,
        within=False,
        ways=tuple(ways),
        text=Message(
            "pour-advice-parts",
            grams=_grams(abs(off) * batches),
            side=side,
            name=name,
            ways=Joined((way.text for way in ways), ", or "),
        ),
    )


def _still_in_range(dough: Dough, line: WeighedLine, off: float, batches: float) -> list[PourWay]:
    """One other line that keeps the handling as it was written; what is in the bowl already may only grow, and does."""
    now = dough.with_changes(grams={line.line.id: line.grams.value + off})
    before, after = figures(dough), figures(now)
    if before is None or after is None:
        return []
    change = before.consistency - after.consistency
    if abs(change) < constant("pour_felt"):
        out_of_range = worse_than(before, after)
        if out_of_range:
            return []
        return [PourWay(kind="keeps", text=Message("pour-advice-leave-it-as-is-no"), grams={}, worse=())]
    minute = rest_of(dough.inside, dough.formula)
    ways = []
    for correction in corrections(now, change, minute=minute):
        # Not by so much of another that it would be another dough.
        most = _FOLLOWS["binder" if line.role == "binder" else ""] * abs(off)
        if correction.line == line.line.id or not correction.whole or correction.grams > most:
            continue
        ways.append(_keeping(now, correction, batches))
    return ways[:1]


def _keeping(now: Dough, correction: Correction, batches: float) -> PourWay:
    here = {w.line.id: w.grams.value for w in now.batch.lines}
    name = correction.name.partition(",")[0].lower()
    whole = (here.get(correction.line, 0.0) + correction.grams) * batches
    worse = _sentence(correction.worse)
    exception = Message("pour-advice-but-will-be-out-of", worse=" and ".join(worse)) if worse else ""
    return PourWay(
        kind="keeps",
        text=Message(
            "pour-advice-add-to-keep-the-same", grams=_grams(correction.grams * batches), name=name, exception=exception
        ),
        grams={correction.line: whole},
        worse=worse,
    )


def _scaled(
    dough: Dough, line: WeighedLine, grams: float, written: float, before: Collection[str], batches: float
) -> PourWay:
    """Everything else by the same factor: nothing of the balance moves, there is more dough."""
    factor = grams / written
    rest = {
        w.line.id: w.grams.value * batches * factor
        for w in dough.batch.lines
        if w.line.id and w.line.id != line.line.id
    }
    pieces = dough.formula.pieces * batches * factor
    again = [name for w in dough.batch.lines if w.line.id in before for name in (_short(w),)]
    top_up = Message("pour-advice-and-top-up", again=", ".join(again)) if again else ""
    return PourWay(
        kind="scale",
        text=Message(
            "pour-advice-scale-everything-else-for-pieces",
            factor=Quantity(factor, "number", digits=2),
            pieces=Quantity(pieces, "number", digits=1),
            top_up=top_up,
        ),
        grams=rest,
        worse=(),
    )


def _sentence(keys: tuple[str, ...]) -> tuple[str, ...]:
    return tuple(bracket_kinds()[key].label.lower() for key in keys)


def _short(line: WeighedLine) -> str:
    return line.ingredient.name.partition(",")[0].lower()


def _grams(value: float) -> Wording:
    return Message("pour-advice-g", as_poured=Quantity(as_poured(value), "g", digits=-1))
