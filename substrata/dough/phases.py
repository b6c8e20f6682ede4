"""Which phase of a dough each line belongs to: particles, serum, soft dairy, cheese, solid fat, oil, sweetener."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Literal

from substrata.batch.weighed import Batch, WeighedLine
from substrata.pantry.library import Floats
from substrata.pantry.matter import densities_20c
from substrata.quantities.tables import Row, read_table

PhaseName = Literal["particle", "serum", "soft", "cheese", "fat", "oil", "sweet"]


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
    name: PhaseName = row.text("phase")  # type: ignore[assignment]  # a test holds the table to the seven
    flows = bool(row.text("log_viscosity"))
    return Phase(
        name=name,
        log_viscosity=row.number_in("log_viscosity") if flows else 0.0,
        slope=row.number_in("slope") if flows else 0.0,
    )


def phase_of(line: WeighedLine) -> Phase:
    """The phase of a line: by its ingredient where the table names it, else by what the ingredient usually is."""
    return _by_ingredient().get(line.ingredient.id) or _by_role()[line.ingredient.role]


def volumes_ml(batch: Batch) -> tuple[Floats, Floats, Floats]:
    """Volume of water, of fat and of all other matter in each line, mL, each shape (n,).

    Densities of Choi & Okos (1986) at 20 degC.
    """
    ml = {matter: batch.grams * share / densities_20c()[matter] for matter, share in batch.matters().items()}
    rest = ml["protein"] + ml["ash"] + ml["fibre"] + ml["carbohydrate"]
    return ml["water"], ml["fat"], rest
