"""What a texture is judged from: the baked dough as it is eaten, and a palate that has learned."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from substrata.base.messages.message import Wording
from substrata.ingredients.library import Floats
from substrata.process.rheology.texture_rules import (
    texture_rules,
)


@dataclass(frozen=True, kw_only=True)
class Eaten:
    """What the scores are made of."""

    moisture: float  # % of the baked piece
    moisture_low: float
    moisture_high: float
    thickness_mm: float
    oven_c: float
    binder_load: float
    rise: float  # volume after over volume before


@dataclass(frozen=True, kw_only=True)
class Palate:
    """How a kitchen scores against the house: its own scale of each score, and what it weighs more or less."""

    offsets: Mapping[str, float]  # points, by score
    weights: Mapping[tuple[str, str], float]  # share more of what makes a score, by (score, what)
    remaining: Mapping[str, float]  # of the house's spread, by score
    texts: Mapping[str, Wording]  # what it comes from, by score

    def points(self) -> Floats:
        """Factor of the points of each of the r rules, shape (r,)."""
        return np.array(
            [
                1 + self.weights.get((score, rule.what), 0.0)
                for score, rules in texture_rules().items()
                for rule in rules
            ]
        )


THE_HOUSES = Palate(offsets={}, weights={}, remaining={}, texts={})
