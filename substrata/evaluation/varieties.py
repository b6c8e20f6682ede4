"""Sorts: several kinds of piece out of one dough, each with its own filling or topping, figures, allergens and card."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from substrata.base.errors import FormulaError
from substrata.evaluation.dough import Dough
from substrata.formula.formula import Formula, Sort
from substrata.nutrition.allergens import allergens
from substrata.nutrition.claims import claims
from substrata.nutrition.daily_limits import EaterFit, eater_fits


@dataclass(frozen=True, kw_only=True)
class VarietyFigures:
    """One sort."""

    name: str
    pieces: int
    piece_g: float  # before the oven
    separate_g: float  # of lines that only it has, a piece
    net_carbs: float  # a piece, by the kitchen's convention
    net_carbs_low: float
    net_carbs_high: float
    protein: float
    energy: float
    fat: float
    allergens: tuple[str, ...]
    claims: tuple[str, ...]  # that hold
    cautions_differ: bool  # it brings an allergen that another sort has not
    eaters: tuple[EaterFit, ...]


def check_sorts(formula: Formula) -> None:
    """Refuse sorts that do not add up.

    Raises:
        FormulaError: when their pieces are not the formula's, a line is claimed twice or is not there.
    """
    if not formula.sorts:
        return
    names = [sort.name for sort in formula.sorts]
    whole = sum(sort.pieces for sort in formula.sorts)
    lines = [line for sort in formula.sorts for line in sort.lines]
    known = {line.id for line in formula.lines}
    if len(set(names)) != len(names):
        raise FormulaError(
            "two varieties have the same name",
            got=", ".join(names)[:80],
            allowed="a different name for each",
            field="sorts",
        )
    if whole != formula.pieces:
        raise FormulaError(
            "the pieces of the varieties do not add up",
            got=f"{whole} of {formula.pieces}",
            allowed=f"{formula.pieces} pieces in total",
            remedy="change the number of pieces of a variety",
            field="sorts",
        )
    if len(set(lines)) != len(lines) or set(lines) - known:
        strange = sorted(set(lines) - known) or sorted({line for line in lines if lines.count(line) > 1})
        raise FormulaError(
            "a variety uses an ingredient of another variety",
            got=", ".join(strange)[:80],
            allowed="ingredients of the formula, each in one variety at most",
            field="sorts",
        )


def variety_formula(formula: Formula, sort: Sort) -> Formula:
    """One sort as a formula of its own: its share of the dough, and its own lines.

    Returns:
        The variety's formula.

    Raises:
        FormulaError: when the sorts do not add up.
    """
    check_sorts(formula)
    others = {line for other in formula.sorts if other.name != sort.name for line in other.lines}
    share = sort.pieces / formula.pieces
    lines = tuple(
        line if line.id in sort.lines else replace(line, grams=line.grams * share) if line.grams is not None else line
        for line in formula.lines
        if line.id not in others
    )
    return replace(formula, name=f"{formula.name}, {sort.name}", pieces=sort.pieces, lines=lines, sorts=())


def variety_doughs(dough: Dough) -> Iterator[tuple[Sort, Dough]]:
    """Each sort of a dough; the dough itself is judged once, as a whole."""
    for sort in dough.formula.sorts:
        yield (
            sort,
            Dough(
                variety_formula(dough.formula, sort),
                dough.library,
                dough.settings,
                dough.profile,
                rest_min=dough.rest_min,
            ),
        )


def variety_figures(dough: Dough) -> tuple[VarietyFigures, ...]:
    """Return what each sort is, a piece; none for a formula without sorts.

    Raises:
        FormulaError: when the sorts do not add up.
    """
    doughs = list(variety_doughs(dough))
    common = [{a.name for a in allergens(variety_dough.batch) if not a.traces} for _, variety_dough in doughs]
    shared = set.intersection(*common) if common else set()
    return tuple(
        _figures(sort, variety_dough, names, shared)
        for (sort, variety_dough), names in zip(doughs, common, strict=True)
    )


def _figures(sort: Sort, dough: Dough, names: set[str], shared: set[str]) -> VarietyFigures:
    piece = dough.nutrition.piece
    mine = sum(w.grams.value for w in dough.batch.lines if w.line.id in sort.lines)
    judged_claims = claims(dough.batch, dough.settings, unweighed=dough.unweighed)
    return VarietyFigures(
        name=sort.name,
        pieces=sort.pieces,
        piece_g=dough.batch.whole_g / sort.pieces,
        separate_g=mine / sort.pieces,
        net_carbs=piece.net_carbs.value,
        net_carbs_low=piece.net_carbs.low,
        net_carbs_high=piece.net_carbs.high,
        protein=piece.protein.value,
        energy=piece.energy.value,
        fat=piece.fat.value,
        allergens=tuple(sorted(names)),
        claims=tuple(claim.name for claim in judged_claims if claim.verdict == "holds" and not claim.hint),
        cautions_differ=bool(names - shared),
        eaters=eater_fits(dough.sheet, dough.settings),
    )
