"""The same bake with one thing changed: computed, not tabled."""

from __future__ import annotations

from dataclasses import dataclass, replace

from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.settings import Units
from substrata.base.tables.table_reader import constant
from substrata.process.baking.bake_case import BakeCase
from substrata.process.baking.doneness import Doneness
from substrata.process.baking.oven_questions import many
from substrata.process.baking.setting_steps import steps_in
from substrata.process.baking.simulation.oven_constants import bakeware


@dataclass(frozen=True, kw_only=True)
class WhatIf:
    """The same bake with one thing changed."""

    key: str
    name: Wording
    minutes: float | None  # later (or earlier) that it is done; None when it is not at all
    loss_points: float  # more (or less) lost, %-points
    text: Wording


def what_ifs(case: BakeCase, units: Units = "metric") -> tuple[WhatIf, ...]:
    """One thing changed each, by a step as the kitchen takes it: computed, not tabled."""
    thick, steps = case.piece.thickness_mm, steps_in(units)
    more, text = steps.thin if thick < constant("thin_piece_mm") else steps.thick
    cooler = replace(case, heat=replace(case.heat, oven_c=case.oven_c - steps.cooler[0]))
    options: list[tuple[str, Wording, BakeCase]] = [
        ("cooler", Message("bake-variations-cooler", cooler=steps.cooler[1]), cooler),
        ("thicker", Message("bake-variations-thicker", text=text), case.with_thickness(thick + more)),
        ("fridge", Message("bake-variations-dough-from-the-fridge"), replace(case, dough_c=5.0)),
    ]
    if not case.fried:
        blows = case.heat.fan
        other = replace(case.heat, fan=not blows, oven_c=case.oven_c + (steps.fan[0] if blows else -steps.fan[0]))
        options.insert(
            0,
            (
                "fan",
                Message("bake-variations-no-fan-hotter", fan=steps.fan[1])
                if blows
                else Message("bake-variations-fan-on-lower", fan=steps.fan[1]),
                replace(case, heat=other),
            ),
        )
        if case.piece.kind in ("round", "cut", "rect", "dome", "loaf", "ring"):
            stone = "tray" if case.ware.id == "stone" else "stone"
            options.append(
                (
                    "stone",
                    Message("bake-variations-on-a-hot-stone")
                    if stone == "stone"
                    else Message("bake-variations-on-a-tray"),
                    replace(case, ware=bakeware()[stone]),
                )
            )
        if case.trays == 1:
            options.append(("second", Message("bake-variations-second-tray-in-the-oven"), replace(case, trays=2)))
        options.append(
            (
                "altitude",
                Message("bake-variations-at", altitude=steps.altitude[1]),
                replace(case, altitude_m=case.altitude_m + steps.altitude[0]),
            )
        )
    value = many([case, *(result for _, _, result in options)])
    usual = value[0]
    return tuple(_what_if(key, name, usual, other) for (key, name, _), other in zip(options, value[1:], strict=True))


def _what_if(key: str, name: Wording, usual: Doneness, other: Doneness) -> WhatIf:
    if usual.ready is None or other.ready is None:
        return WhatIf(key=key, name=name, minutes=None, loss_points=0.0, text=Message("bake-variations-not-done"))
    later = other.ready - usual.ready
    points = 100 * ((other.loss or 0.0) - (usual.loss or 0.0))
    step = 0.25 if usual.ready < 8 else 0.5
    wish = round(later / step) * step
    words = (
        Message("bake-variations-same-time")
        if wish == 0
        else Message(
            "bake-variations-min", longer="yes" if wish > 0 else "no", wish=Quantity(abs(wish), "min", digits=-1)
        )
    )
    drier = (
        ""
        if abs(points) < 0.75
        else Message(
            "bake-variations-by", drier="yes" if points > 0 else "no", points=Quantity(abs(points), "%", digits=0)
        )
    )
    return WhatIf(key=key, name=name, minutes=later, loss_points=points, text=Joined((words, drier), ""))
