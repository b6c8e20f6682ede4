"""When it is done: a few criteria that every dough shares, joined softly, so that no border is sharp (common practice).

The colour of the face that is looked at, the core, the water left in a dry cracker, in a psyllium crumb or in a wrap that still
bends, the melting of a topping, and always what is safe. Done is ``(Σ tᵢ¹²)^(1/12)`` of their moments: the latest decides, and
two that come together take a little longer.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from substrata.base.messages.message import Message, Wording
from substrata.ingredients.library import Floats
from substrata.process.baking.bake_case import BakeCase
from substrata.process.baking.simulation.bake_curves import Ran
from substrata.process.baking.simulation.oven_constants import oven_number

_COAL = 0.01  # L* below which nothing is told apart
_LEAST_MIN = 1e-3


@dataclass(frozen=True, kw_only=True)
class Doneness:
    """Moments of a bake, in minutes; None for what does not come."""

    ready: float | None
    decides: str  # the criterion that comes last; of one that does not come, which
    criteria: dict[str, float | None]  # moment of each
    gold: float | None  # the top is gold from here
    gold_until: float | None  # and darker from here
    burnt: float | None  # one face is burnt
    safe: float | None  # the core has passed what egg asks for, or a filling
    core_c: float | None  # at ready
    loss: float | None  # share, at ready
    light: float | None  # of the top, at ready


def first_over(at: Floats, values: Floats, level: float) -> float | None:
    """When a curve first reaches a level from below, between two kept moments."""
    indices = np.flatnonzero(values >= level)
    if not len(indices):
        return None
    k = int(indices[0])
    if k == 0:
        return float(at[0])
    span = values[k] - values[k - 1]
    return float(at[k - 1] + (at[k] - at[k - 1]) * (level - values[k - 1]) / span) if span > 0 else float(at[k])


def soft_latest(moments: list[float], power: float) -> float:
    """Return the latest of some moments, joined softly; with a negative power the soonest.

    >>> round(soft_latest([10.0, 5.0], 12.0), 3), round(soft_latest([10.0, 10.0], 12.0), 2)
    (10.0, 10.59)
    """
    top = max(moments) if power > 0 else min(moments)
    if top <= 0:
        return 0.0
    return float(top * sum((max(m, _LEAST_MIN) / top) ** power for m in moments) ** (1 / power))


def _doses(case: BakeCase, ran: Ran) -> tuple[Floats, Floats]:
    """Loss of lightness of both faces, from raw; a topping's face begins anew and counts from the open stage on."""
    raw = case.light if not case.topped else oven_number("topping_light")
    # The moment at which it is laid on is kept with the crust's own face.
    late = ran.minutes > ran.open_from + 1e-9
    # A crust burnt to coal has no lightness left to divide by.
    top = np.where(late, np.log(raw / np.clip(ran.light_top, _COAL, raw)), 0.0)
    return top, np.log(case.light / np.clip(ran.light_bottom, _COAL, case.light))


def _visible_dose(case: BakeCase, top: Floats, bottom: Floats) -> Floats:
    """Return the dose of the face that is looked at, in the measure of its gold.

    With vegetable in it the underside counts too; what is fried shows its darker face, for both have had the oil.
    """
    if case.fried:
        return np.minimum(top, bottom)
    paler = np.minimum(top, bottom)
    w = case.underside
    tiny = 1e-9
    result: Floats = np.exp((1 - w) * np.log(top + tiny) + w * np.log(paler + tiny))
    return result


def doneness(case: BakeCase, ran: Ran, rim: Ran | None = None) -> Doneness:
    """Read the moments off a bake that was drawn out.

    Args:
        case: what is baked.
        ran: the bake.
        rim: the bake of its rim, for a form whose rim is looked at; None takes the middle for it.

    Returns:
        Moments in minutes, by criterion.
    """
    at = ran.minutes
    top, bottom = _doses(case, ran)
    dose = _visible_dose(case, top, bottom)
    if rim is not None:
        dose = np.interp(at, rim.minutes, _doses(case, rim)[0])
    gold = case.gold_dose
    safe = None if case.safe_c is None else first_over(at, ran.core_c, case.safe_c)
    criteria = _criteria(case, ran, dose)
    if case.safe_c is not None:
        criteria["safe"] = safe
    never = [name for name, moment in criteria.items() if moment is None]
    known = {name: moment for name, moment in criteria.items() if moment is not None}
    ready = None if never else soft_latest(list(known.values()), oven_number("criteria_power"))
    if ready is not None and ready > at[-1]:
        ready = float(at[-1])

    def at_ready(values: Floats) -> float | None:
        return None if ready is None else float(np.interp(ready, at, values))

    return Doneness(
        ready=ready,
        decides=never[0] if never else max(known, key=lambda name: known[name]),
        criteria=criteria,
        gold=first_over(at, dose, gold),
        gold_until=first_over(
            at, np.maximum(dose, np.maximum(top, bottom * (not case.topped))), oven_number("dark_dose")
        ),
        burnt=first_over(at, ran.scorch, oven_number("scorch_min")),
        safe=safe,
        core_c=at_ready(ran.core_c),
        loss=at_ready(ran.loss),
        light=at_ready(ran.light_top),
    )


def _criteria(case: BakeCase, ran: Ran, visible_dose: Floats) -> dict[str, float | None]:
    """Return the moment at which each criterion of the form is met."""
    at, form = ran.minutes, case.form
    dose = case.gold_dose * case.wish_factor
    if case.topped:
        # The crust's own core is no criterion here: it was baked before.
        melted = first_over(at, np.nan_to_num(ran.topping_c, nan=-100.0), oven_number("topping_done_c"))
        browned = oven_number("topping_dose") if case.wish != "crisp" else 1.0
        return {"topping": melted, "colour": first_over(at, visible_dose, dose * browned)}
    moisture = case.moisture(ran.loss)
    moments: dict[str, float | None] = {"core": first_over(at, ran.core_c, case.target_core_c)}
    colour = first_over(at, visible_dose, dose)
    if form.asks_pliable:
        bends = first_over(at, -moisture, -case.pliable_water)
        # It is coloured a little too: what bends from the start would else be done as soon as it is set.
        pale = first_over(at, visible_dose, case.gold_dose * oven_number("wish_pale"))
        if bends is not None and pale is not None:
            bends = soft_latest([bends, pale], oven_number("criteria_power"))
        sooner = [moment for moment in (colour, bends) if moment is not None]
        moments["pliable"] = soft_latest(sooner, -oven_number("criteria_power")) if sooner else None
    elif form.asks_colour:
        moments["colour"] = colour
    if form.asks_dry:
        moments["dry"] = first_over(at, -case.lean_moisture(ran.loss), -oven_number("dry_water") / 100)
    if form.asks_gel and case.gel_water is not None:
        dry = (first_over(at, -moisture, -case.gel_water), first_over(at, ran.loss, case.gel_loss))
        moments["gel"] = min((moment for moment in dry if moment is not None), default=None)
    if case.target_loss is not None:
        moments["weight"] = first_over(at, ran.loss, case.target_loss)
    if form.face == "rim":
        # Only the rim of a soft cookie is looked at: its middle may be as soft as it likes.
        moments.pop("core")
    return moments


def never_words(decides: str) -> Wording:
    """Why a bake does not come to an end that can be told."""
    return {
        "gel": Message("doneness-stays-gummy-use-less-water"),
        "dry": Message("doneness-burns-before-it-is-dry"),
        "colour": Message("doneness-stays-pale-use-a-hotter"),
        "core": Message("doneness-burns-before-the-center-is"),
        "safe": Message("doneness-burns-before-the-center-is-2"),
        "pliable": Message("doneness-neither-browns-nor-dries"),
        "topping": Message("doneness-the-topping-does-not-get"),
        "weight": Message("doneness-does-not-reach-your-target"),
    }.get(decides, "does not bake through")
