"""What comes out of the oven: how much water has left, and what the piece then weighs.

Until the oven computes it, the form's habit answers, or the dryness the baker asks for. Both say so.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.base.uncertainty import Spread
from substrata.formula.batch.batch_lines import FRYING, Batch
from substrata.formula.form_table import Form, form_of
from substrata.formula.formula import Formula

Source = Literal["set", "oven", "dried", "habit"]


@dataclass(frozen=True, kw_only=True)
class Baked:
    """The whole batch after the oven."""

    loss: Spread  # share of the weight before the oven that leaves as vapour
    moisture_percent: float  # water in what comes out
    moisture_low: float
    moisture_high: float
    source: Source  # set by the baker, dried to the form's mark, or the form's habit
    bake_to_g: float  # weight of the whole batch out of the oven
    bake_to_piece_g: float
    fat_absorbed_g: float  # taken up in frying

    @property
    def remaining(self) -> float:
        """What the vapour leaves, of the weight before the oven."""
        return 1 - self.loss.value

    @property
    def relative(self) -> float:
        """90 % half-range of the weight after the oven, as a share of it: how much water leaves is a doubt too."""
        return (self.loss.high - self.loss.low) / 2 / self.remaining

    @property
    def whole_per_baked(self) -> float:
        """Weight before the oven, of the weight after."""
        before = (self.bake_to_g - self.fat_absorbed_g) / self.remaining
        return before / self.bake_to_g if self.bake_to_g else 1.0


def baked(batch: Batch, formula: Formula) -> Baked:
    """Return what the oven leaves of a batch.

    Args:
        batch: the weighed lines.
        formula: gives the form, the pieces and a wanted final moisture.
    """
    loss, source = _loss(form_of(formula.form), formula.bake.moisture_percent, wet_percent(batch))
    return baked_with(batch, formula, loss, source)


def baked_with(batch: Batch, formula: Formula, loss: Spread, source: Source) -> Baked:
    """Return what is left of a batch after a loss.

    Args:
        batch: the weighed lines.
        formula: gives the pieces.
        loss: share of the weight before the oven.
        source: what tells it.
    """
    whole, wet = batch.whole_g, wet_percent(batch)
    fat = sum(w.grams.value for w in batch.lines if w.role == FRYING)
    after = whole * (1 - loss.value) + fat
    return Baked(
        loss=loss,
        moisture_percent=moisture_after(wet, loss.value) * (1 - fat / after if after else 1.0),
        moisture_low=moisture_after(wet, loss.high),
        moisture_high=moisture_after(wet, loss.low),
        source=source,
        bake_to_g=after,
        bake_to_piece_g=after / formula.pieces,
        fat_absorbed_g=fat,
    )


def _loss(form: Form, target: float | None, wet: float) -> tuple[Spread, Source]:
    """Return the loss, and who says so; never more than the water there is."""
    most = most_loss(wet)
    if target is not None:
        aim = min(loss_to(wet, target), most)
        return Spread(
            value=aim, low=max(aim - constant("loss_set_doubt"), 0.0), high=aim + constant("loss_set_doubt")
        ), "set"
    if form.dried_to is not None:
        aim = loss_to(wet, form.dried_to)
        return Spread(value=aim, low=loss_to(wet, 2 * form.dried_to), high=max(most, aim)), "dried"
    habit = form.bake_loss
    return Spread(value=min(habit.value, most), low=min(habit.low, most), high=min(habit.high, most)), "habit"


def wet_percent(batch: Batch) -> float:
    """Water of all that goes into the oven, %."""
    water = float(batch.grams @ batch.nutrient("water_g")[0])
    return 100 * water / batch.whole_g if batch.whole_g else 0.0


def water_sd(batch: Batch) -> float:
    """Return the standard deviation of the water that goes into the oven, share of the weight; lines are independent."""
    each = batch.grams * batch.nutrient("water_g")[1]
    return float(np.sqrt(each @ each)) / batch.whole_g if batch.whole_g else 0.0


def most_loss(wet: float) -> float:
    """Return the share of its weight that a piece can lose: beyond it, it takes water up again from the air it cools in.

    >>> round(most_loss(30.0), 2)
    0.29
    """
    return loss_to(wet, constant("driest_crumb"))


def loss_to(wet: float, moisture: float) -> float:
    """Loss that brings a dough to a moisture: ``(wet − M) / (100 − M)``; 0 when it is drier already.

    Args:
        wet: water before the oven, %.
        moisture: wanted water after it, %.

    >>> round(loss_to(46.0, 25.0), 3)
    0.28

    Returns:
        Loss, % of the dough.
    """
    return max((wet - moisture) / (100 - moisture), 0.0)


def moisture_after(wet: float, loss: float) -> float:
    """Water of what is left after a loss, %.

    >>> round(moisture_after(46.0, 0.25), 6)
    28.0

    Returns:
        Moisture, %.
    """
    return max(100 * (wet / 100 - loss) / (1 - loss), 0.0)


def oven_c(formula: Formula) -> float:
    """Temperature of the oven, or of the oil: as told, else the form's usual one."""
    wish = formula.bake.oven_c
    return form_of(formula.form).oven_c if wish is None else wish
