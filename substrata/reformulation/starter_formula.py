"""A formula from nothing: a skeleton of the form (``skeletons.csv``), settled to what is wanted.

The skeleton is the knowledge. A solver that is given windows alone fills them with a dough that no baker would believe.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache

from substrata.base.messages.message import Message, Wording
from substrata.base.settings import Settings
from substrata.base.tables.table_reader import constant, read_table
from substrata.formula.form_table import Window, form_of
from substrata.formula.formula import Formula, Line, Target
from substrata.ingredients.library import Library
from substrata.reformulation.balancing import balance
from substrata.reformulation.request.balance_answer import BalanceAnswer
from substrata.reformulation.request.balance_request import Wish, known_only, target_keys
from substrata.reformulation.request.exclusions import excluded_by, exclusions

MOST = 4
_STANDS_FOR_IT = ("base", "fibre", "cheese", "vegetable")  # without one of these a skeleton is another


@dataclass(frozen=True, kw_only=True)
class FormulaTemplate:
    """A beginning of one form on one base."""

    id: str
    form: str
    base: str
    name: str
    pieces: int
    lines: tuple[tuple[str, float], ...]  # ingredient, g
    source: str


@dataclass(frozen=True, kw_only=True)
class StarterFormula:
    """A settled skeleton."""

    skeleton: FormulaTemplate
    formula: Formula
    settlement: BalanceAnswer
    text: Wording


@cache
def formula_templates() -> tuple[FormulaTemplate, ...]:
    """All of them, those a baker reaches for first before the others."""
    return tuple(
        FormulaTemplate(
            id=row.text("skeleton"),
            form=row.text("form"),
            base=row.text("base"),
            name=row.text("name"),
            pieces=int(row.number_in("pieces", 1)),
            lines=tuple((key, float(grams)) for key, grams in (part.split(":") for part in row.text("lines").split())),
            source=row.text("source"),
        )
        for row in read_table("skeletons.csv")
    )


def template_formula(
    skeleton: FormulaTemplate, *, pieces: int | None = None, targets: dict[str, Window] | None = None
) -> Formula:
    """Return a skeleton as a formula, scaled to a number of pieces."""
    count = pieces or skeleton.pieces
    share = count / skeleton.pieces
    return Formula(
        name=skeleton.name,
        form=skeleton.form,
        pieces=count,
        lines=tuple(
            Line(id=key, ingredient=key, grams=round(grams * share, 1), entered=f"{grams * share:.4g} g")
            for key, grams in skeleton.lines
        ),
        targets={key: Target(low=w.low, high=w.high) for key, w in (targets or {}).items()},
    )


def begin(
    form: str,
    library: Library,
    settings: Settings = Settings(),  # noqa: B008 - frozen
    *,
    targets: dict[str, Window] | None = None,
    without: Sequence[str] = (),
    stock: dict[str, float] | None = None,
    pieces: int | None = None,
    most: int = MOST,
) -> tuple[StarterFormula, ...]:
    """Three or four formulas of a form on different bases, those that meet everything first.

    Args:
        form: what is baked.
        library: the ingredients.
        settings: the kitchen's choices.
        targets: what is wanted besides the form's windows.
        without: exclusions, by id.
        stock: grams at hand, by ingredient; None takes all ingredients.
        pieces: how many; None the skeleton's.
        most: how many beginnings.

    Returns:
        The starter formulas.

    Raises:
        FormulaError: when form, target or exclusion is unknown.
    """
    form_of(form)
    known_only(targets or {}, target_keys(), "targets")
    known_only(without, tuple(exclusions()), "without")
    excluded = tuple(without)
    templates = [s for s in formula_templates() if s.form == form and _may(s, library, excluded, stock)]
    starters = [_starter(s, library, settings, targets, excluded, stock, pieces) for s in templates]
    usable = [b for b in starters if b is not None]
    return tuple(sorted(usable, key=lambda b: b.settlement.status not in ("fits", "settled"))[:most])


def _may(skeleton: FormulaTemplate, library: Library, without: tuple[str, ...], stock: dict[str, float] | None) -> bool:
    """Whether what stands for it is eaten, and at hand."""
    whole = sum(grams for _, grams in skeleton.lines)
    for key, grams in skeleton.lines:
        ingredient = library[key]
        if ingredient.role in _STANDS_FOR_IT or (
            ingredient.role == "egg" and grams > constant("starter_much_egg") * whole
        ):
            if excluded_by(ingredient, without):
                return False
            if stock is not None and not stock.get(key):
                return False
    return True


def _starter(
    skeleton: FormulaTemplate,
    library: Library,
    settings: Settings,
    targets: dict[str, Window] | None,
    without: tuple[str, ...],
    stock: dict[str, float] | None,
    pieces: int | None,
) -> StarterFormula | None:
    formula = template_formula(skeleton, pieces=pieces, targets=targets)
    wish = Wish(without=without, stock=stock or {}, may_bring=True)
    settlement = balance(formula, library, settings, wish, ways=1)
    if settlement.status in ("begin", "nothing"):
        return None
    done = settlement.ways[0].formula if settlement.ways else formula
    how = Message("starter-formula-as-it-is") if settlement.status == "fits" else settlement.nearest or settlement.text
    return StarterFormula(
        skeleton=skeleton,
        formula=done,
        settlement=settlement,
        text=Message("starter-formula-on", base=skeleton.base, how=how),
    )
