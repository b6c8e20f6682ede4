"""How a formula was made, where that differs from how it is written: what a slip changes, as the core's own inputs."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.execution.correction import with_more
from substrata.formula.bake_settings import BakeStage
from substrata.formula.batch.baked_weight import Baked
from substrata.ingredients.groups import is_in_group
from substrata.process.baking.bake_case import BakeCase
from substrata.process.rheology.cheese import cheese_share
from substrata.process.rheology.handling.handling_forecast import bowl_of, rest_of


@dataclass(frozen=True, kw_only=True)
class Making:
    """How it was made; as it stands here, as written."""

    grams: Mapping[str, float] = field(default_factory=dict)  # factor by line
    capacity: Mapping[str, float] = field(default_factory=dict)  # factor by line
    water_g: float = 0.0  # that came in with the vegetable
    gas: float = 1.0  # of the leavening
    rest: float = 1.0  # factor of the rest
    dough_c: float | None = None  # as it was mixed
    warmer_k: float = 0.0
    pressed: bool = True
    thickness: float = 1.0
    rim: float = 1.0  # thickness of the rim, beside the usual
    hot: float = 1.0  # heat at the hottest place of the tray
    oven_k: float = 0.0  # over what was counted with
    convection: float = 1.0
    minutes: float = 1.0
    minutes_more: float = 0.0
    browning: float = 1.0
    two_trays: bool = False
    unflipped: bool = False
    stiffer: float = 0.0  # decades, by which the dough differs from its forecast
    flags: frozenset[str] = frozenset()  # of what no physics tells: "undocked", "cut_warm" …
    amounts: Mapping[str, float] = field(default_factory=dict)  # factor of topping and filling

    def with_changes(self, **changes: object) -> Making:
        """Return the same making with some values replaced."""
        return replace(self, **changes)  # type: ignore[arg-type]  # by name


def make(dough: Dough, making: Making) -> Dough:
    """Make the dough that came of it.

    Args:
        dough: as it is written.
        making: how it was made.

    Returns:
        The dough as made.
    """
    here = {w.line.id: w.grams.value for w in dough.batch.lines}
    grams = {line: here[line] * factor for line, factor in making.grams.items() if factor != 1.0}
    for line in [w.line.id for w in dough.batch.lines if w.role in making.amounts]:
        role = next(w.role for w in dough.batch.lines if w.line.id == line)
        grams[line] = here[line] * making.amounts[role]
    result = dough.with_changes(grams=grams) if grams else dough
    if making.capacity:
        factors = {line: dough.capacity.get(line, 1.0) * factor for line, factor in making.capacity.items()}
        result = result.with_changes(capacity={**dough.capacity, **factors})
    if making.water_g > 0:
        result = with_more(result, _water(dough), making.water_g)
    if making.rest != 1.0:
        usual = rest_of(dough.inside, dough.formula) if dough.rest_min is None else dough.rest_min
        result = result.with_changes(rest=usual * making.rest)
    if making.thickness != 1.0:
        result = result.with_changes(thickness=dough.piece.thickness_mm * making.thickness)
    if making.dough_c is not None or making.warmer_k:
        warm = dough_temperature(dough) if making.dough_c is None else making.dough_c
        result = result.with_changes(temperature=min(max(warm + making.warmer_k, 1.0), 89.0))
    if not making.pressed:
        mix = replace(result.formula.mix, work="stirred")
        result = Dough(
            replace(result.formula, mix=mix),
            result.library,
            result.settings,
            result.profile,
            capacity=result.capacity,
            rest_min=result.rest_min,
        )
    return result


def _water(dough: Dough) -> str:
    return next((w.line.id for w in dough.inside.lines if is_in_group(w.ingredient, "water")), "drip")


def dough_temperature(dough: Dough) -> float:
    """Return what it has after mixing, °C."""
    return bowl_of(dough.inside, dough.formula)[0].temperature_c


def baked_case(dough: Dough, making: Making) -> BakeCase:
    """Return the bake that came of it.

    Args:
        dough: as it was made.
        making: how it was made.
    """
    case = dough.case
    stages = case.stages
    if making.unflipped:
        stages = tuple(s for s in stages if s.kind != "flip") or (BakeStage(kind="bake"),)
    return replace(
        case,
        offset_k=case.offset_k + (0.0 if case.fried else making.oven_k),
        heat=replace(case.heat, oven_c=case.oven_c + (making.oven_k if case.fried else 0.0)),
        h_factor=case.h_factor * making.convection,
        browning=case.browning * making.browning,
        trays=2 if making.two_trays else case.trays,
        stages=stages,
    )


def rim_of(case: BakeCase, making: Making) -> BakeCase:
    """Its rim, thinner or hotter than is usual."""
    rim = case.rim()
    thin = rim.with_thickness(rim.piece.thickness_mm * making.rim)
    return replace(thin, h_factor=thin.h_factor * making.hot)


def selected_lines(dough: Dough, what: str) -> tuple[str, ...]:
    """Return the lines that a slip is about: the main absorber, the psyllium, the eggs ….

    Args:
        dough: as it is written.
        what: ``main``, ``psyllium``, ``flour``, ``binder``, ``gum`` or a role.
    """
    lines = [w for w in dough.batch.lines if w.grams.value > 0]
    if what == "main":
        capacity = dict(zip([w.line.id for w in dough.batch.lines], dough.batch.behaviour("capacity")[0], strict=True))
        flours = [w for w in lines if w.role in ("base", "fibre")]
        most = max(flours, key=lambda w: capacity[w.line.id] * w.grams.value, default=None)
        return (most.line.id,) if most else ()
    if what == "psyllium":
        return tuple(w.line.id for w in lines if "psyllium" in w.ingredient.flags)
    if what == "gum":
        return tuple(w.line.id for w in lines if is_in_group(w.ingredient, "gum"))
    if what == "binder":
        return tuple(w.line.id for w in lines if w.role == "binder" and not is_in_group(w.ingredient, "gum"))
    if what == "flour":
        return tuple(w.line.id for w in lines if w.role in ("base", "fibre"))
    return tuple(w.line.id for w in lines if w.role == what)


def making_kinds(dough: Dough) -> frozenset[str]:
    """Return what a dough is, as far as slips hang on it: ``melted``, ``fried``, ``psyllium``, ``crumb`` … (``causes.csv``, needs)."""
    traits, inside = dough.form.traits, dough.inside
    flags = {flag for w in inside.lines for flag in w.ingredient.flags}
    kinds = {w.role for w in dough.batch.lines if w.grams.value > 0} | {"shaped"}
    for what in ("psyllium", "gum", "flour", "binder"):
        kinds |= {what} if selected_lines(dough, what) else set()
    if not selected_lines(dough, "binder"):
        kinds.discard("binder")
    fried = dough.batch.whole_g > 0 and dough.case.fried
    conditions = {
        "fried": fried,
        "baked": not fried,
        "melted": cheese_share(inside) >= constant("cheese_dough") and bool(dough.handling and dough.handling.melted),
        "pressed": bool(dough.handling and dough.handling.pressed),
        "rests": rest_of(dough.inside, dough.formula) > 0,
        "cold": dough_temperature(dough) >= constant("psyllium_mixed_cold_c"),
        "soda": any(is_in_group(w.ingredient, "soda") for w in dough.batch.lines),
        "nut": any(flag.startswith("nut:") for flag in flags),
        "chilled": "short" in traits,
        "unchilled": "short" not in traits and not fried,
        "allulose": any(is_in_group(w.ingredient, "allulose") for w in dough.batch.lines),
    }
    return frozenset(kinds | traits | {dough.form.id} | {word for word, holds in conditions.items() if holds})


def moist_after(dough: Dough, case: BakeCase, loss: float) -> Baked:
    """Return what the oven leaves after so much loss, in the terms of the texture forecast."""
    water = float(case.moisture(np.array([loss]))[0]) * 100
    after = dough.baked
    whole = dough.batch.whole_g
    return replace(after, moisture_percent=water, bake_to_g=max(whole * (1 - loss) + after.fat_absorbed_g, 1e-6))
