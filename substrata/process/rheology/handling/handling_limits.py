"""What limits a dough that cannot be shaped as its form wants."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

import numpy as np

from substrata.base.messages.message import Message, Wording
from substrata.base.tables.table_reader import constant
from substrata.process.rheology.handling.handling_roots import Bowl
from substrata.process.rheology.target_handling import TargetHandling


@dataclass(frozen=True, kw_only=True)
class HandlingCause:
    """Why it does not handle as wanted."""

    kind: str  # crumbly, stiff, wet, cold, rest, chill
    text: Wording


def cracks(bowl: Bowl, brittle_below_c: float | None) -> bool:
    """Whether a melted-cheese dough was left in the cold until it no longer bends."""
    return brittle_below_c is not None and bowl.place_c is not None and bowl.shaped_c < brittle_below_c


def limiting_cause(
    bowl: Bowl,
    target: TargetHandling,
    *,
    crumbly: bool,
    ready_min: float | None,
    brittle_below_c: float | None = None,
) -> HandlingCause | None:
    """Return what limits the dough at shaping; None when nothing does.

    Args:
        bowl: the dough.
        target: where it has to be.
        crumbly: whether it falls apart.
        ready_min: when it first is stiff enough.
        brittle_below_c: below it, it cracks; None where it does not.
    """
    if crumbly:
        press = "" if bowl.method.pressed else Message("handling-limits-pressing-or-kneading-may-help")
        return HandlingCause(kind="crumbly", text=Message("handling-limits-not-enough-free-liquid-to", press=press))
    if cracks(bowl, brittle_below_c):
        return HandlingCause(kind="cold", text=Message("handling-limits-warm-the-piece-you-are"))
    consistency = float(bowl.over_minutes(np.array([bowl.rest_min]))[0])
    if consistency >= target.high:
        if bowl.method.melted and _warm_enough(bowl, target.high):
            return HandlingCause(kind="cold", text=Message("handling-limits-warm-the-piece-you-are"))
        return HandlingCause(kind="stiff", text=Message("handling-limits-too-little-free-water"))
    return _too_soft(bowl, target.low, ready_min) if consistency < target.low else None


def _too_soft(bowl: Bowl, low: float, ready_min: float | None) -> HandlingCause:
    if ready_min is not None and ready_min > bowl.rest_min:
        return HandlingCause(
            kind="rest", text=Message("handling-limits-rest-the-dough-min-the", ceil=max(ceil(ready_min), 1))
        )
    if _stiff_when_cold(bowl, low):
        return HandlingCause(kind="chill", text=Message("handling-limits-chill-the-dough-min-the"))
    return HandlingCause(kind="wet", text=Message("handling-limits-more-water-than-the-dry"))


def _warm_enough(bowl: Bowl, stiff: float) -> bool:
    """Whether warming alone would make it soft enough."""
    return bool(bowl.over_degrees(np.array([60.0]))[0] < stiff)


def _stiff_when_cold(bowl: Bowl, soft: float) -> bool:
    """Whether the fridge alone would make it stiff enough, as it does where butter or coconut oil carries a dough."""
    return bool(bowl.over_degrees(np.array([constant("fridge_temperature")]))[0] >= soft)
