"""Which phase of a dough each line belongs to: particles, serum, soft dairy, cheese, solid fat, oil, sweetener, paste."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache, lru_cache
from typing import Literal, get_args

import numpy as np

from substrata.base.tables.table_reader import Row, read_table
from substrata.formula.batch.batch_lines import Batch, WeighedLine
from substrata.ingredients.library import Floats
from substrata.ingredients.thermal_properties import MATTERS, matter_densities_20c

PhaseName = Literal["particle", "serum", "soft", "cheese", "fat", "oil", "sweet", "paste"]


@dataclass(frozen=True, kw_only=True)
class Phase:
    """A phase, with the flow of its own matter where it has one."""

    name: PhaseName
    log_viscosity: float  # log10 Pa s at 20 degC
    slope: float  # its fall per degC


@cache
def _by_ingredient() -> dict[str, Phase]:
    return {key: _phase_of_row(row) for row in read_table("phases.csv") for key in row.text("ingredients").split()}


@cache
def _by_role() -> dict[str, Phase]:
    return {key: _phase_of_row(row) for row in read_table("phases.csv") for key in row.text("roles").split()}


def _phase_of_row(row: Row) -> Phase:
    name: PhaseName = row.text("phase")  # type: ignore[assignment]  # a test holds the table to the eight
    flows = bool(row.text("log_viscosity"))
    return Phase(
        name=name,
        log_viscosity=row.number_in("log_viscosity") if flows else 0.0,
        slope=row.number_in("slope") if flows else 0.0,
    )


def phase_of(line: WeighedLine) -> Phase:
    """Return the phase of a line: by its ingredient where the table names it, else by what the ingredient usually is."""
    return _phase(line.ingredient.id, line.ingredient.role)


def is_solid_fat(ingredient: str, role: str) -> bool:
    """Whether it is a fat that is firm in a cool kitchen."""
    return _phase(ingredient, role).name == "fat"


def _phase(ingredient: str, role: str) -> Phase:
    return _by_ingredient().get(ingredient) or _by_role()[role]


@dataclass(frozen=True, kw_only=True)
class Sorted:
    """The n lines of a dough by phase, 1.0 where a line lies in it; each of shape (n,)."""

    lies_in: Mapping[PhaseName, Floats]
    soft_viscosity: Floats  # log10 Pa s at 20 degC of the soft lines, else 0
    soft_slope: Floats
    paste_viscosity: Floats  # log10 Pa s at 20 degC of the pastes while they are dry, else 0


def sorted_by_phase(batch: Batch) -> Sorted:
    """Which line lies in which phase."""
    return batch.once(_sorted_by_phase)


def _sorted_by_phase(batch: Batch) -> Sorted:
    return _sorted(tuple((w.ingredient.id, w.ingredient.role) for w in batch.lines))


@lru_cache(maxsize=256)
def _sorted(lines: tuple[tuple[str, str], ...]) -> Sorted:
    phases = [_phase(*line) for line in lines]
    lies_in: dict[PhaseName, Floats] = {
        name: np.array([float(p.name == name) for p in phases]) for name in get_args(PhaseName)
    }
    return Sorted(
        lies_in=lies_in,
        soft_viscosity=np.array([p.log_viscosity for p in phases]) * lies_in["soft"],
        soft_slope=np.array([p.slope for p in phases]) * lies_in["soft"],
        paste_viscosity=np.array([p.log_viscosity for p in phases]) * lies_in["paste"],
    )


def whole_seeds(batch: Batch) -> float:
    """Whole seeds and nuts, share of the dough, of the lines that are in it."""
    if not batch.dough_g:
        return 0.0
    return float((batch.grams * batch.inside) @ batch.behaviour("coarse")[0]) / batch.dough_g


def volumes_ml(batch: Batch) -> tuple[Floats, Floats, Floats]:
    """Volume of water, of fat and of all other matter in each line, mL, each shape (n,).

    Densities of Choi & Okos (1986) at 20 degC.

    Returns:
        Water, fat and all else, mL, each shape (n,).
    """
    ml = batch.grams * batch.matter_rows() / matter_densities_20c()[:, None]
    water, fat = ml[MATTERS.index("water")], ml[MATTERS.index("fat")]
    return water, fat, ml.sum(axis=0) - water - fat
