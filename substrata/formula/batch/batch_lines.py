"""Weighed lines as one batch: grams, nutrients, behaviours and matters as arrays, shape (n,) by line."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from copy import copy
from dataclasses import dataclass
from functools import cache
from typing import Any, TypeVar

import numpy as np
from numpy.typing import NDArray

from substrata.base.errors import SubstrataError
from substrata.base.uncertainty import Spread
from substrata.formula.form_table import roles
from substrata.formula.formula import Line
from substrata.ingredients.composition import NUTRIENTS
from substrata.ingredients.ingredient import BEHAVIOURS, Ingredient
from substrata.ingredients.library import Floats, Library
from substrata.ingredients.thermal_properties import MATTERS, Matter
from substrata.ingredients.vegetable_drying import Dried

FRYING = "frying"  # role and line id of the fat that frying brings
FLESH = "flesh"  # role of meat and fish that are part of a dough
_Worked = TypeVar("_Worked")


@dataclass(frozen=True, kw_only=True)
class LineProblem:
    """Why a line is left out of the figures; the same fields as an error."""

    line: str | None
    field: str | None
    what: str
    got: str
    allowed: str
    remedy: str
    name: str = ""  # of the ingredient, where that is known

    @classmethod
    def of(cls, error: SubstrataError, line: str | None = None, name: str = "") -> LineProblem:
        """Return the problem an error describes."""
        return cls(
            line=line or error.line,
            field=error.field,
            what=error.what,
            got=error.got,
            allowed=error.allowed,
            remedy=error.remedy,
            name=name,
        )


@dataclass(frozen=True, kw_only=True)
class WeighedLine:
    """A line that counts."""

    line: Line
    ingredient: Ingredient
    grams: Spread
    role: str
    in_dough: bool = True  # else it lies in, on or around the dough
    dried: Dried | None = None  # how its raw matter was dried, which changes what it is made of


class Batch:
    """The weighed lines of a formula, stacked for sums.

    Attributes:
        lines: the n lines that count.
        grams, grams_sd: shape (n,).
        rows: row of each line's ingredient in the library, shape (n,).
        same: 1.0 where two lines are of one ingredient, shape (n, n).
        nothing: zeros, shape (n,).
        composition: amounts per g and their standard deviations, each shape (n, nutrients).
        inside: 1.0 for what is part of the dough, else 0.0, shape (n,).
        dough_g: grams of the dough, without what lies in, on or around it.
        whole_g: grams of every line, before the oven; what frying brings is not in it.
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
        # What lies in, on or around the dough does nothing in it.
        self.inside: Floats = np.array([float(w.in_dough) for w in lines])
        self._matters: Floats | None = None
        self._once: dict[object, Any] = {}
        self._sum_up()
        self._behaviour = library.behaviour[self.rows] * self.inside[:, None]
        self._behaviour_sds = library.behaviour_sds[self.rows] * self.inside[:, None]
        for row, line in enumerate(lines):
            if line.dried is not None:
                self._put_dried(row, line.dried)

    def _sum_up(self) -> None:
        # Asked for by nearly every figure.
        self.dough_g = float(self.grams @ self.inside)
        self.whole_g = float(sum(w.grams.value for w in self.lines if w.role != FRYING))

    def _put_dried(self, row: int, dried: Dried) -> None:
        """Replace a line by its dried composition and remaining water."""
        values, sds = self.composition
        values[row], sds[row] = np.array(dried.composition.values) / 100, np.array(dried.composition.sds) / 100
        water_g = dried.water_g
        self._behaviour[row, _BEHAVIOUR_COLUMNS["capacity"]] *= water_g
        self._behaviour_sds[row, _BEHAVIOUR_COLUMNS["capacity"]] *= water_g

    def nutrient(self, name: str) -> tuple[Floats, Floats]:
        """Per g of each line: value and standard deviation, shape (n,)."""
        column = _NUTRIENT_COLUMNS[name]
        return self.composition[0][:, column], self.composition[1][:, column]

    def behaviour(self, name: str) -> tuple[Floats, Floats]:
        """Return a behaviour parameter of each line: value and standard deviation, shape (n,)."""
        column = _BEHAVIOUR_COLUMNS[name]
        return self._behaviour[:, column], self._behaviour_sds[:, column]

    def once(self, work: Callable[[Batch], _Worked]) -> _Worked:
        """Return what hangs on which lines there are and not on how much of each: worked out once for all weights of them."""
        if work not in self._once:
            self._once[work] = work(self)
        return self._once[work]  # type: ignore[no-any-return]  # what this work gave

    def is_role(self, *roles: str) -> Floats:
        """1.0 for the lines that have one of the roles, else 0.0; shape (n,)."""
        if roles not in self._once:
            self._once[roles] = np.array([float(w.role in roles) for w in self.lines])
            self._once[roles].flags.writeable = False
        return self._once[roles]  # type: ignore[no-any-return]  # of this very batch

    def matters(self) -> dict[Matter, Floats]:
        """Grams of each matter per g of each line, shape (n,); alcohol and acid are counted as water."""
        return dict(zip(MATTERS, self.matter_rows(), strict=True))

    def matter_rows(self) -> Floats:
        """Return the same in the order of ``MATTERS``, shape (6, n)."""
        if self._matters is None:
            rows = (_MATTER_MATRIX @ self.composition[0].T).astype(float)
            carbohydrate = MATTERS.index("carbohydrate")
            rows[carbohydrate] = np.maximum(rows[carbohydrate], 0.0)
            self._matters = rows
        return self._matters

    def with_grams(self, grams: Floats) -> Batch:
        """Return the same lines at other weights, shape (n,)."""
        other = copy(self)
        other.grams = grams
        other._sum_up()  # noqa: SLF001 - of its own kind
        return other

    def with_lines(self, lines: Sequence[WeighedLine]) -> Batch:
        """Return the same ingredients weighed anew, in the same order, none of them dried in between."""
        other = copy(self)
        other.lines = tuple(lines)
        other.grams = np.array([w.grams.value for w in lines], dtype=float)
        other.grams_sd = np.array([w.grams.sd for w in lines], dtype=float)
        other._sum_up()  # noqa: SLF001 - of its own kind
        return other

    def with_capacity(self, factors: Mapping[str, float]) -> Batch:
        """Return the same lines, some of which hold more or less water: factors by line."""
        other = copy(self)
        other._scale_capacity(  # noqa: SLF001 - of its own kind
            np.array([factors.get(w.line.id, 1.0) for w in self.lines])
        )
        return other

    def _scale_capacity(self, factor: Floats) -> None:
        column = _BEHAVIOUR_COLUMNS["capacity"]
        self._behaviour, self._behaviour_sds = self._behaviour.copy(), self._behaviour_sds.copy()
        self._behaviour[:, column] *= factor
        self._behaviour_sds[:, column] *= factor

    def dough(self) -> Batch:
        """Only the lines that are part of the dough."""
        if self.inside.all():
            return self
        return self._only(np.flatnonzero(self.inside))

    def _only(self, rows: NDArray[np.intp]) -> Batch:
        other = copy(self)
        other.lines = tuple(self.lines[row] for row in rows)
        other.grams, other.grams_sd, other.rows = self.grams[rows], self.grams_sd[rows], self.rows[rows]
        other.inside, other.nothing = self.inside[rows], self.nothing[rows]
        other.same = self.same[np.ix_(rows, rows)]
        other._matters = None  # noqa: SLF001 - of its own kind
        other._once = self._once.setdefault("inside", {})  # noqa: SLF001 - other lines, and always these
        other.composition = self.composition[0][rows], self.composition[1][rows]
        other._behaviour, other._behaviour_sds = self._behaviour[rows], self._behaviour_sds[rows]  # noqa: SLF001 - of its own kind
        other._sum_up()  # noqa: SLF001 - of its own kind
        return other

    def apart(self, *role_ids: str) -> Floats:
        """1 for each line of these roles that is no part of the dough, else 0; shape (n,)."""
        result: Floats = self.is_role(*role_ids) * (1 - self.inside)
        return result

    @property
    def dry_base_g(self) -> float:
        """Grams of the lines that make the dry base."""
        return float(self.grams @ self.is_role(*_dry_base_roles()))


_NUTRIENT_COLUMNS = {name: column for column, name in enumerate(NUTRIENTS)}
_BEHAVIOUR_COLUMNS = {name: column for column, name in enumerate(BEHAVIOURS)}
# What of a composition counts as which matter, shape (6, nutrients).
_COUNTED: dict[Matter, dict[str, float]] = {
    "water": {"water_g": 1, "alcohol_g": 1, "acid_g": 1},
    "protein": {"protein_g": 1},
    "fat": {"fat_g": 1},
    "carbohydrate": {"carbohydrate_g": 1, "fibre_g": -1},
    "fibre": {"fibre_g": 1},
    "ash": {"ash_g": 1},
}
_MATTER_MATRIX: Floats = np.array([[float(_COUNTED[m].get(name, 0)) for name in NUTRIENTS] for m in MATTERS])


@cache
def _dry_base_roles() -> tuple[str, ...]:
    return tuple(r.id for r in roles().values() if r.dry_base)
