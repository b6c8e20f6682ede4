"""How to read every bracketed quantity off a batch, as a ratio over its lines."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from substrata.base.settings import Settings
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.cost import cost_ratio
from substrata.formula.batch.propagation import Ratio
from substrata.formula.formula import Formula
from substrata.nutrition.nutrition_facts import piece_ratio
from substrata.process.rheology.binder import heat_set_ratio, load_ratio
from substrata.process.rheology.handling.handling_forecast import bowl_of
from substrata.process.rheology.handling.resting import yeast_minutes
from substrata.process.rheology.leavening import gas_ratio
from substrata.process.rheology.taste import salt_ratio, sweetness_ratio
from substrata.process.rheology.water_fill import fill_ratio
from substrata.process.rheology.yeast_kinetics import yeast_lines

RatioOf = Callable[[Batch], Ratio]

_DOUGH_RATIOS: Mapping[str, RatioOf] = {
    "binder_load": load_ratio,
    "water_fill": fill_ratio,
    "salt": salt_ratio,
    "heat_set": heat_set_ratio,
    "sweetness": sweetness_ratio,
}
# Read by a ratio that itself hangs on the grams: how much soda finds acid, whether there is a dry base to speak of.
BY_GRAMS = ("lift", "binder_load")
_PIECE_FIGURES = ("net_carbs", "protein", "energy", "fibre", "fat")


def quantities(formula: Formula, settings: Settings) -> dict[str, RatioOf]:
    """Return the reader of each bracketed quantity, by its key."""

    def per_piece(key: str) -> RatioOf:
        return lambda batch: piece_ratio(key, batch, formula, settings)

    def gas(batch: Batch) -> Ratio:
        if not yeast_lines(batch):
            return gas_ratio(batch)
        bowl = bowl_of(batch.dough(), formula)[0]
        return gas_ratio(batch, bowl.temperature_c, yeast_minutes(formula, bowl.temperature_c))

    pieces: dict[str, RatioOf] = {key: per_piece(key) for key in _PIECE_FIGURES}
    return pieces | dict(_DOUGH_RATIOS) | {"lift": gas} | {"cost": lambda batch: cost_ratio(batch, formula.pieces)}
