"""Every line turned into grams: what could be weighed, and what could not and why."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from substrata.errors import AmountError, FormulaError, SubstrataError
from substrata.formula.form import roles
from substrata.formula.formula import Formula, Line
from substrata.pantry.composition import NUTRIENTS
from substrata.pantry.ingredient import BEHAVIOURS, Ingredient
from substrata.pantry.library import Floats, Library
from substrata.pantry.weigh import weigh
from substrata.quantities.amount import parse_amount
from substrata.quantities.spread import Spread
from substrata.quantities.tables import constant
from substrata.quantities.units import unit
from substrata.settings import Settings

_parse = lru_cache(maxsize=4096)(parse_amount)


@dataclass(frozen=True, kw_only=True)
class Problem:
    """Why a line is left out of the figures; the same fields as an error."""

    line: str | None
    field: str | None
    what: str
    got: str
    allowed: str
    remedy: str

    @classmethod
    def of(cls, error: SubstrataError, line: str | None = None) -> Problem:
        """The problem an error describes."""
        return cls(
            line=line or error.line,
            field=error.field,
            what=error.what,
            got=error.got,
            allowed=error.allowed,
            remedy=error.remedy,
        )


@dataclass(frozen=True, kw_only=True)
class WeighedLine:
    """A line that counts."""

    line: Line
    ingredient: Ingredient
    grams: Spread
    role: str


class Batch:
    """The weighed lines of a formula, stacked for sums.

    Attributes:
        lines: the n lines that count.
        grams, grams_sd: shape (n,).
        rows: row of each line's ingredient in the library, shape (n,).
        same: 1.0 where two lines are of one ingredient, shape (n, n).
        nothing: zeros, shape (n,).
        composition: amounts per g and their standard deviations, each shape (n, nutrients).
    """

    def __init__(self, lines: Sequence[WeighedLine], library: Library) -> None:
        self.lines = tuple(lines)
        self.grams: Floats = np.array([w.grams.value for w in lines], dtype=float)
        self.grams_sd: Floats = np.array([w.grams.sd for w in lines], dtype=float)
        self.rows = np.array([library.index[w.ingredient.key] for w in lines], dtype=int)
        # Lines of one ingredient share its uncertainty.
        self.same: Floats = (self.rows[:, None] == self.rows[None, :]).astype(float)
        self.nothing: Floats = np.zeros(len(lines))
        self.composition = library.values[self.rows], library.sds[self.rows]
        self._behaviour = library.behaviour[self.rows]
        self._behaviour_sds = library.behaviour_sds[self.rows]

    def nutrient(self, name: str) -> tuple[Floats, Floats]:
        """Per g of each line: value and standard deviation, shape (n,)."""
        column = _NUTRIENT_COLUMNS[name]
        return self.composition[0][:, column], self.composition[1][:, column]

    def behaviour(self, name: str) -> tuple[Floats, Floats]:
        """A behaviour parameter of each line: value and standard deviation, shape (n,)."""
        column = _BEHAVIOUR_COLUMNS[name]
        return self._behaviour[:, column], self._behaviour_sds[:, column]

    def is_role(self, *wanted: str) -> Floats:
        """1.0 for the lines that have one of the roles, else 0.0; shape (n,)."""
        return np.array([float(w.role in wanted) for w in self.lines])

    def joined_by(self, ingredient: str, library: Library) -> Batch:
        """The same batch with a further line of 0 g."""
        found = library[ingredient]
        line = WeighedLine(
            line=Line(id="", ingredient=ingredient, grams=0.0),
            ingredient=found,
            grams=Spread(value=0.0, low=0.0, high=0.0),
            role=found.role,
        )
        return Batch((*self.lines, line), library)

    @property
    def dough_g(self) -> float:
        """Grams of everything."""
        return float(self.grams.sum())

    @property
    def dry_base_g(self) -> float:
        """Grams of the lines that make the dry base."""
        return float(self.grams @ self.is_role(*(r.id for r in roles().values() if r.dry_base)))


_NUTRIENT_COLUMNS = {name: column for column, name in enumerate(NUTRIENTS)}
_BEHAVIOUR_COLUMNS = {name: column for column, name in enumerate(BEHAVIOURS)}


def weigh_formula(formula: Formula, library: Library, settings: Settings) -> tuple[Batch, tuple[Problem, ...]]:
    """Weigh every line; a line that cannot be weighed becomes a problem and the rest is kept."""
    weighed, problems = [], []
    for line in formula.lines:
        try:
            weighed.append(weigh_line(line, library, settings))
        except SubstrataError as error:
            problems.append(Problem.of(error, line.id))
    return Batch(weighed, library), tuple(problems)


def weigh_line(line: Line, library: Library, settings: Settings) -> WeighedLine:
    """Grams of one line with their spread.

    Raises:
        SubstrataError: when the ingredient is unknown or the amount cannot be right.
    """
    ingredient = library.pack_or_ingredient(line.ingredient, line.lot)
    grams = _grams(line, ingredient, settings)
    most = constant("line_limit_kg") * 1000
    if grams.value < 0 or grams.value > most:
        raise FormulaError(
            "the weight cannot be right",
            got=f"{grams.value:g} g",
            allowed=f"0 to {most:g} g",
            remedy="check for a slip",
            field="grams",
        )
    return WeighedLine(line=line, ingredient=ingredient, grams=grams, role=line.role or ingredient.role)


def _grams(line: Line, ingredient: Ingredient, settings: Settings) -> Spread:
    if line.grams is None:
        if not line.entered.strip():
            raise AmountError(
                "no amount",
                got="nothing",
                allowed="grams, or a measure such as 1 cup",
                remedy="type an amount",
                field="entered",
            )
        return weigh(_parse(line.entered), ingredient, settings)
    # The grams stand; how they were measured tells how sure they are.
    try:
        measured = weigh(_parse(line.entered), ingredient, settings) if line.entered else None
    except AmountError:
        measured = None
    if measured is None or not measured.value:
        half = abs(line.grams) * constant("unmeasured_spread") if line.entered else constant("scale_resolution")
    else:
        is_mass = all(term.unit and unit(term.unit).kind == "mass" for term in _parse(line.entered).terms)
        half = (measured.high - measured.low) / 2 * (1.0 if is_mass else abs(line.grams) / measured.value)
    return Spread.around(line.grams, half)
