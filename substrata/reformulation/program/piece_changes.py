"""Other pieces out of the same dough: how many there are, and how thick. A settle that may change them tries a few of each.

A count of pieces and a thickness are no grams: each choice is a problem of its own, whose grams are settled like any other's.
Which few are worth that is told by how near each comes as it is.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import product
from math import ceil, floor, log2
from typing import TypeVar

from substrata.base.messages.message import Message
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.formula.formula import Formula
from substrata.process.shaping.piece import shape_forms
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import ModelCheck, check_by_model
from substrata.reformulation.request.balance_answer import ShapeChange
from substrata.reformulation.request.balance_request import Wish

_TRIED = 6  # counts and thicknesses on either side
_SETTLED = 3  # shapings whose grams are settled too
# What a shaping costs, of the dough's weight for each doubling or halving (house choice): making ten pieces of eight is
# like moving 4 % of the dough, and rolling it out by a fifth thinner like moving 2 %.
_PIECES_PRICE, _THICKNESS_PRICE = 0.13, 0.07
_FINE_MM, _COARSE_MM, _COARSE_FROM_MM = 0.5, 1.0, 10.0  # steps of a rolling pin's rings, and of a ruler
_HAIR = 1e-6
_Read = TypeVar("_Read", int, float)


@dataclass(frozen=True, kw_only=True)
class Shaped:
    """A problem on which the dough is made into other pieces."""

    problem: BalanceProblem
    original: BalanceProblem  # in the pieces of the formula as it stands
    changes: tuple[ShapeChange, ...] = ()
    price: float = 0.0  # in grams of flour, as a change of the grams is told

    @cached_property
    def start(self) -> ModelCheck:
        """The formula as it stands, in these pieces."""
        return check_by_model(self.problem, self.problem.start)


def as_shaped(problem: BalanceProblem) -> Shaped:
    """Return the pieces that a settle starts from: the formula's own, thinner where a wish says that they are too thick."""
    most = problem.wish.thickness_most
    if (
        most is None
        or not can_hold_thickness(problem.original.formula)
        or problem.original.piece.thickness_mm <= most + _HAIR
    ):
        return Shaped(problem=problem, original=problem)
    return _shaped(problem, problem.original.formula.pieces, most)


def shape_name(shaped: Shaped) -> str:
    """Return what its pieces are like: "10 pieces, 6 mm"."""
    formats = {"pieces": "{:.0f} pieces", "thickness": "{:.3g} mm"}
    return ", ".join(formats[change.kind].format(change.after) for change in shaped.changes)


def other_shapes(original: Shaped, wish: Wish | None = None) -> list[Shaped]:
    """Return the few other ways to make it into pieces that come nearest to what is wished, the nearest first.

    Args:
        original: the pieces that the settle starts from; where a wish has made them thinner, so are the others.
        wish: what may be changed; None takes the problem's own.
    """
    problem, formula, wish = original.original, original.original.original.formula, wish or original.original.wish
    forced = wish.thickness_most if original.changes else None
    counts = list(_counts(formula.pieces)) if wish.may_change_pieces and not formula.sorts else []
    thick = list(_thicknesses(problem)) if wish.may_change_thickness and can_hold_thickness(formula) else []
    singles = [_shaped(problem, count, mm) for mm in dict.fromkeys((None, forced)) for count in counts]
    singles += [_shaped(problem, formula.pieces, mm) for mm in thick]
    nearest = sorted(filter(_allowed, singles), key=_nearness)
    best_counts = _best(nearest, "pieces", lambda dough: dough.formula.pieces)
    best_thick = _best(nearest, "thickness", lambda dough: dough.piece.thickness_mm)
    both = [_shaped(problem, count, mm) for count, mm in product(best_counts, best_thick)]
    return sorted((*nearest, *both), key=_nearness)[:_SETTLED]


def _best(nearest: list[Shaped], kind: str, read: Callable[[Dough], _Read]) -> list[_Read]:
    return [read(s.problem.original) for s in nearest if [c.kind for c in s.changes] == [kind]][:2]


def _allowed(shaped: Shaped) -> bool:
    most = shaped.problem.wish.thickness_most
    return most is None or shaped.problem.original.piece.thickness_mm <= most + _HAIR


def _nearness(shaped: Shaped) -> tuple[float, float]:
    return round(shaped.start.violation, 5), shaped.price


def can_hold_thickness(formula: Formula) -> bool:
    """Whether a baker may say how thick it is: in a tin or a ring the pan does."""
    kind = shape_forms()[formula.form].kind
    return kind != "tin" and not (kind == "dome" and formula.size.pan)


def _counts(pieces: int) -> Iterator[int]:
    """Return counts of pieces to try, at most six fewer and six more."""
    for low, high in (
        (ceil(constant("fewest_pieces") * pieces), pieces - 1),
        (pieces + 1, floor(constant("most_pieces") * pieces)),
    ):
        every = range(max(low, 1), high + 1)
        step = max(ceil(len(every) / _TRIED), 1)
        yield from every[::step] if low > pieces else reversed(every[::-1][::step])


def _thicknesses(problem: BalanceProblem) -> Iterator[float]:
    now, most = problem.original.piece.thickness_mm, problem.wish.thickness_most
    step = _FINE_MM if now < _COARSE_FROM_MM else _COARSE_MM
    first, last = ceil(constant("thinner_at_most") * now / step), floor(constant("thicker_at_most") * now / step)
    every = [step * n for n in range(max(first, 1), last + 1) if abs(step * n - now) > step / 2]
    fitting = [mm for mm in every if most is None or mm <= most + _HAIR]
    thin = max(ceil(len(fitting) / (2 * _TRIED)), 1)
    yield from fitting[::thin]


def _shaped(problem: BalanceProblem, pieces: int, thickness_mm: float | None) -> Shaped:
    """Return the problem with other pieces; None keeps the thickness as the formula has it."""
    formula = problem.original.formula
    size = formula.size
    if thickness_mm is not None:
        size = replace(size, held="thickness", thickness_mm=round(thickness_mm, 3))
    candidate = BalanceProblem(
        replace(formula, pieces=pieces, size=size),
        problem.library,
        problem.settings,
        problem.wish,
        saved=problem.reference.formula,
    )
    changes = tuple(_changes(problem.original, candidate.original, thickness_mm))
    price = sum(
        (_PIECES_PRICE if change.kind == "pieces" else _THICKNESS_PRICE) * abs(log2(change.after / change.before))
        for change in changes
    )
    return Shaped(problem=candidate, original=problem, changes=changes, price=price * problem.reference.batch.dough_g)


def _changes(old: Dough, new: Dough, thickness_mm: float | None) -> Iterator[ShapeChange]:
    before, after = old.formula.pieces, new.formula.pieces
    if after != before:
        each = (
            Message("piece-changes-g-each", dough=Quantity(new.piece.dough_g, "g", digits=0))
            if new.batch.dough_g / after == new.piece.dough_g
            else ""
        )
        yield ShapeChange(
            kind="pieces",
            before=before,
            after=after,
            text=Message("piece-changes-pieces-instead-of", after=after, before=before, each=each),
        )
    if thickness_mm is not None:
        was, now = old.piece, new.piece
        yield ShapeChange(
            kind="thickness",
            before=was.thickness_mm,
            after=now.thickness_mm,
            text=f"{now.thickness_mm:.3g} mm thick instead of {was.thickness_mm:.3g} mm, {now.length_mm:.0f} mm {_ACROSS.get(now.kind, 'long')}",
        )


_ACROSS = {"round": "across", "dome": "across", "ring": "across", "fold": "across"}
