"""At what consistency a dough is shaped: its form's habit, and lower where egg carries it and it is poured."""

from __future__ import annotations

from dataclasses import dataclass
from math import exp

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.formula.batch.batch_lines import FLESH, Batch
from substrata.formula.formula import Formula
from substrata.ingredients.groups import is_in_group
from substrata.ingredients.library import Floats
from substrata.process.rheology.cheese import melted_share
from substrata.process.rheology.handling_classes import band_of, class_of, form_handling, habit_of
from substrata.process.rheology.phases import sorted_by_phase, whole_seeds
from substrata.process.rheology.water_fill import available_per_gram


@dataclass(frozen=True, kw_only=True)
class TargetHandling:
    """The consistencies in which a dough is shaped."""

    lowest: str  # class
    highest: str
    low: float  # log10 Pa s
    high: float


def target_handling(inside: Batch, formula: Formula, thickness_mm: float) -> TargetHandling:
    """Where a dough has to be to be shaped.

    A flat form, a ring or a mould takes a batter that sets by itself, and hot oil one that is dropped from a spoon: what would be
    too wet to roll is meant to be (common practice). Water that was added sets nothing, so a doubled one is still too much. By
    degrees, for no gram makes it another dough.

    Args:
        inside: the lines of the dough.
        formula: its form, and whether it was chilled on purpose.
        thickness_mm: of a piece; a thick one may be stiffer.

    Returns:
        Low and high consistency, log10 Pa s, and the classes.
    """
    habit = habit_of(formula)
    low = band_of(habit.lowest, thickness_mm).low
    high = band_of(habit.highest, thickness_mm).high
    lowest = habit.lowest
    if sets := poured_share(inside, formula):
        poured = band_of(habit.poured, thickness_mm)
        # Half a batter is spooned and spread: only what is all of it may run.
        low += sets * min(poured.high - low, 0.0)
        runs = max(sets - constant("batter_runs_from"), 0.0) / (1 - constant("batter_runs_from"))
        low += runs * min(max(poured.low, constant("batter_thinnest")) - low, 0.0)
        lowest = class_of(low, thickness_mm)
    # Whole seeds in a gel are spread with the back of a spoon (common practice).
    if habit.seeded and (seeds := min(whole_seeds(inside) / constant("all_seeds"), 1.0)):
        low += seeds * min(band_of(habit.seeded, thickness_mm).low - low, 0.0)
        lowest = class_of(low, thickness_mm)
    return TargetHandling(lowest=lowest, highest=habit.highest, low=low, high=high)


def is_poured(inside: Batch, formula: Formula) -> bool:
    """Whether its form is poured where egg carries it, and egg carries it and is not all drunk by what is dry."""
    if poured_share(inside, formula) < constant("batter_called_from"):
        return False
    could_be_held = float(inside.grams @ inside.behaviour("capacity")[0])
    return float(inside.grams @ available_per_gram(inside)[0]) >= could_be_held


def poured_share(inside: Batch, formula: Formula) -> float:
    """How far a dough is a batter of egg in a form that may be poured, 0..1.

    Args:
        inside: the lines of the dough.
        formula: its form, and how its cheese is stirred in: what is melted binds it, what is not sets in the oven.

    Returns:
        A share, 0..1.
    """
    if not form_handling()[formula.form].poured or not inside.dough_g:
        return 0.0
    egg = float(inside.grams @ inside.is_role("egg")) / inside.dough_g
    lies_in = sorted_by_phase(inside).lies_in
    cold = lies_in["cheese"] * (1 - melted_share(inside, formula.mix))
    soft = float(inside.grams @ (lies_in["soft"] * (1 - inside.is_role(FLESH)) + cold)) / inside.dough_g
    soft += _set_by_egg(inside, egg)
    some = min(
        max((egg - constant("batter_egg_from")) / (constant("batter_egg") - constant("batter_egg_from")), 0.0), 1.0
    )
    return some * min(
        max(
            (egg + soft - constant("batter_sets_from")) / (constant("batter_sets") - constant("batter_sets_from")), 0.0
        ),
        1.0,
    )


def _set_by_egg(inside: Batch, egg: float) -> float:
    """Return how much of a dough is liquid that its egg sets as a custard, share: none where a gel holds it.

    An egg sets up to twice its weight of milk, cream or nut milk (common practice, taken as the bound). Plain water is none of them:
    it thins a dough that was meant to be shaped.

    Args:
        inside: the lines of the dough.
        egg: share of the dough.
    """
    milky = inside.is_role("liquid") * (1 - sorted_by_phase(inside).lies_in["soft"]) * inside.once(_is_not_water)
    liquid = float(inside.grams @ milky)
    gel = float(inside.grams @ inside.once(_is_psyllium)) / inside.dough_g
    return min(liquid / inside.dough_g, constant("custard_liquid") * egg) * exp(-gel / constant("gel_dough"))


def _is_psyllium(inside: Batch) -> Floats:
    return np.array([float("psyllium" in w.ingredient.flags) for w in inside.lines])


def _is_not_water(inside: Batch) -> Floats:
    return np.array([float(not is_in_group(w.ingredient, "water")) for w in inside.lines])
