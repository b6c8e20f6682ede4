"""When it is done, and by what: colour, core, dryness or loss, as its family is judged (common practice)."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from substrata.oven.case import BakeCase
from substrata.oven.stages import Ran
from substrata.pantry.library import Floats


@dataclass(frozen=True, kw_only=True)
class Doneness:
    """Moments of a bake, in minutes; None for what does not come."""

    ready: float | None
    gold: float | None  # the top is gold from here
    gold_until: float | None  # and darker from here
    burnt: float | None  # one face is burnt
    safe: float | None  # the core has passed what egg asks for, or a filling
    core_c: float | None  # at ready
    loss: float | None  # share, at ready
    light: float | None  # of the top, at ready


def first_over(at: Floats, values: Floats, level: float) -> float | None:
    """When a curve first reaches a level from below, between two kept moments."""
    there = np.flatnonzero(values >= level)
    if not len(there):
        return None
    k = int(there[0])
    if k == 0:
        return float(at[0])
    span = values[k] - values[k - 1]
    return float(at[k - 1] + (at[k] - at[k - 1]) * (level - values[k - 1]) / span) if span > 0 else float(at[k])


def doneness(case: BakeCase, ran: Ran) -> Doneness:
    """Read the moments off a bake that was drawn out.

    Topping that is lighter than the dough starts the colour anew, so colour counts from the open stage on.
    """
    late = ran.minutes >= ran.open_from - 1e-9
    at, family = ran.minutes, case.family
    # A fried piece is gold when both sides are; in the oven the top is what a baker sees.
    seen = np.maximum(ran.light_top, ran.light_bottom) if case.fried else ran.light_top
    shown = np.where(late, -seen, -200.0)
    darkest = -np.minimum(ran.light_top, ran.light_bottom)
    gold = first_over(at, shown, -family.light_ready)
    safe = None if case.safe_c is None else first_over(at, ran.core_c, case.safe_c)
    core = first_over(at, ran.core_c, case.core_wanted_c)
    lost = first_over(at, ran.loss, case.loss_wanted)
    wet = case.wet_percent / 100
    moisture = (wet - ran.loss) / np.maximum(1 - ran.loss, 1e-6)
    dry = first_over(at, -moisture, -case.moisture_wanted / 100)
    asked: dict[str, tuple[float | None, ...]] = {
        "colour": (gold,),
        "core": (core,),
        "loss": (lost, ran.open_from),
        "dry": (dry, gold),
    }
    needed = asked[family.criterion] + ((safe,) if case.safe_c is not None else ())
    ready = None if any(moment is None for moment in needed) else max(m for m in needed if m is not None)

    def at_ready(values: Floats) -> float | None:
        return None if ready is None else float(np.interp(ready, at, values))

    return Doneness(
        ready=ready,
        gold=gold,
        gold_until=first_over(at, shown, -family.light_gold),
        burnt=first_over(at, darkest, -family.light_burnt),
        safe=safe,
        core_c=at_ready(ran.core_c),
        loss=at_ready(ran.loss),
        light=at_ready(ran.light_top),
    )
