"""The figures of a run that its faults are read from: of the dough, of the bake that came of it, and of what was eaten.

One run gives one vector, in the order of ``FIGURES``; slips move it, and ordinary spread moves it too.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache

import numpy as np

from substrata.base.errors import OvenError
from substrata.base.tables.table_reader import constant, read_table
from substrata.evaluation.dough import Dough
from substrata.inference.making import Making, baked_case, make, moist_after, rim_of
from substrata.ingredients.groups import is_in_group
from substrata.ingredients.library import Floats
from substrata.process.baking.bake_case import BakeCase
from substrata.process.baking.bake_simulation import run
from substrata.process.baking.doneness import doneness
from substrata.process.baking.oven_questions import COARSE
from substrata.process.baking.simulation.oven_constants import oven_number
from substrata.process.rheology.handling.consistency import handling as handle
from substrata.process.rheology.handling.consistency import typical_draw
from substrata.process.rheology.leavening import expected_rise, lift, standing_share, void_strain
from substrata.process.rheology.texture import texture_values
from substrata.process.rheology.texture_palate import Eaten

_KEEP_S = 60.0
NONE = -9.0  # of a figure that this dough has not: no fault reads it

# Figures of the run itself; what faults read is worked out of them (``readings``).
FIGURES = (
    "consistency", "filled", "tack", "temperature", "later", "warm",
    "load", "heat_set", "rise", "strain", "salt", "soda_left", "acid_left", "powder",
    "psyllium", "gum", "whey", "fat", "erythritol",
    "core", "moisture", "loss", "top", "bottom", "edge",
    "gummy", "eggy", "coconut", "crumbly", "thickness", "topping", "filling",
    "rewarmed", "no_paper", "cut_warm", "packed", "jar", "undocked", "unvented", "unsealed", "coarse", "undissolved",
    "cheese_hot", "overworked", "oil_cool", "dark_lot",
)  # fmt: skip
PLACE = {name: place for place, name in enumerate(FIGURES)}
FLAGS = FIGURES[PLACE["rewarmed"] :]


@dataclass(frozen=True, kw_only=True)
class Marks:
    """What this dough is held to; the same whatever is done to it."""

    low: float  # of the handling window, decades
    high: float
    load_low: float | None
    load_high: float | None
    salt_low: float | None
    salt_high: float | None
    heat_set_least: float
    target_core_c: float
    psyllium_cap: float  # % of dough
    gum_cap: float
    whey_cap: float
    dense_below: float | None
    gold: float  # lightness
    burnt: float
    minutes: float  # in the oven, as planned
    nut: bool
    cookie: bool
    cracker: bool
    crumb: bool
    topped: bool


@dataclass(frozen=True, kw_only=True)
class WrittenFormula:
    """A formula as it is written: its marks and the figures of a run without any slip."""

    marks: Marks
    figures: Floats  # (figures,)
    case: BakeCase | None


def written(dough: Dough, minutes: float | None = None) -> WrittenFormula:
    """Return the marks and figures of a dough as it is written.

    Args:
        dough: as it is written.
        minutes: in the oven, where the baker had other ones in mind; None takes the forecast's.
    """
    marks, case = _marks(dough, minutes)
    figures = run_figures(dough, Making(), marks)
    if marks.crumb:
        # A loaf is dark as it is written, and nobody calls that burnt.
        marks = replace(
            marks,
            burnt=min(
                marks.burnt,
                float(figures[PLACE["top"]]) - constant("loaf_dark"),
                float(figures[PLACE["edge"]]) - constant("loaf_dark"),
            ),
        )
    return WrittenFormula(marks=marks, figures=figures, case=case)


def _marks(dough: Dough, minutes: float | None) -> tuple[Marks, BakeCase | None]:
    target, windows = dough.target_handling, dough.windows
    try:
        case: BakeCase | None = dough.case
    except OvenError:
        case = None
    if minutes is None and case is not None:
        minutes = _ready(case)
    caps = {reading.name: reading for reading in dough.binder.caps}

    def cap(name: str, usual: float, between: float) -> float:
        limit = caps.get(name)
        return limit.soft_percent + between * (limit.hard_percent - limit.soft_percent) if limit else usual

    light = oven_number("dough_light")
    form = dough.form.id
    return Marks(
        low=target.low,
        high=target.high,
        load_low=windows["binder_load"].window.low,
        load_high=windows["binder_load"].window.high,
        salt_low=windows["salt"].window.low,
        salt_high=windows["salt"].window.high,
        heat_set_least=dough.form.heat_set_least or 0.0,
        target_core_c=case.target_core_c if case else 96.0,
        psyllium_cap=cap("psyllium", 6.0, 0.5),
        gum_cap=cap("xanthan", 0.8, 0.0),
        whey_cap=cap("whey", 14.0, 0.0),
        dense_below=_dense().get(form),
        gold=light * float(np.exp(-oven_number("gold_dose"))),
        burnt=light * float(np.exp(-constant("burnt_dose"))),
        minutes=minutes or 20.0,
        nut=dough.kind in ("nut", "cookie"),
        cookie="short" in dough.form.traits,
        cracker="crisp-sheet" in dough.form.traits,
        crumb="crumb-core" in dough.form.traits,
        topped=bool(case and case.topped),
    ), case


def _ready(case: BakeCase) -> float | None:
    ran = run(case, cells=COARSE, keep_s=20.0)
    rim = run(case.rim(), cells=COARSE, keep_s=20.0) if case.form.face == "rim" else None
    return doneness(case, ran, rim).ready


@cache
def _dense() -> dict[str, float | None]:
    """Rise under which a form is called dense; None where nobody waits for one."""
    return {
        row.text("form"): float(row.text("dense_below")) if row.text("dense_below") else None
        for row in read_table("bake_signs.csv")
    }


def run_figures(dough: Dough, making: Making, marks: Marks) -> Floats:
    """Return the figures of one run, shape (figures,).

    Args:
        dough: as it is written.
        making: how it was made.
        marks: of the dough as it is written.
    """
    other = make(dough, making)
    values = dict.fromkeys(FIGURES, 0.0)
    values |= _dough_figures(other, making)
    values |= _share_figures(other)
    values |= _bake_figures(other, making, marks, values)
    values["thickness"] = making.thickness
    values["topping"], values["filling"] = making.amounts.get("topping", 1.0), making.amounts.get("filling", 1.0)
    values |= dict.fromkeys(making.flags, 1.0)
    return np.array([values[name] for name in FIGURES])


def _dough_figures(dough: Dough, making: Making) -> dict[str, float]:
    bowl = dough.bowl()
    minutes = np.array([bowl.rest_min, max(bowl.rest_min, constant("shaped_too_soon_min")), bowl.rest_min])
    degrees = np.array([bowl.shaped_c, bowl.shaped_c, bowl.shaped_c + constant("cookie_warms_k")])
    at = handle(bowl.materials, bowl.method, minutes, degrees, draws=typical_draw())
    sheet = dough.bracketed
    lifted = lift(sheet, dough.form.heat_set_least)
    gas = lifted.gas.value / 100 * making.gas
    load, whole = sheet.value("binder_load"), dough.inside.dough_g
    strain = void_strain(load, gas, standing_share(sheet), dough.form.heat_set_least)
    return {
        "consistency": float(at.consistency[0, 0]) + making.stiffer,
        "later": float(at.consistency[0, 1]) + making.stiffer,
        "warm": float(at.consistency[0, 2]) + making.stiffer,
        "filled": float(at.fill[0, 0]),
        "tack": float(at.tack[0, 0]),
        "temperature": bowl.temperature_c,
        "load": load,
        "heat_set": sheet.value("heat_set"),
        "rise": expected_rise(load, gas),
        "strain": strain,
        "salt": sheet.value("salt"),
        "soda_left": 100 * lifted.soda_excess_g / whole,
        "acid_left": 100 * lifted.acid_excess_g / whole,
    }


# A share of the dough and the group of ingredients that counts for it.
_SHARE_GROUPS = {
    "psyllium": "psyllium",
    "gum": "gum",
    "whey": "whey",
    "erythritol": "erythritol",
    "powder": "leavening-powder",
}


def _share_figures(dough: Dough) -> dict[str, float]:
    inside = dough.inside
    whole = inside.dough_g or 1.0
    shares = {
        name: 100 * sum(w.grams.value for w in inside.lines if is_in_group(w.ingredient, group)) / whole
        for name, group in _SHARE_GROUPS.items()
    }
    return shares | {"fat": 100 * float(inside.grams @ inside.nutrient("fat_g")[0]) / whole}


def _bake_figures(dough: Dough, making: Making, marks: Marks, so_far: dict[str, float]) -> dict[str, float]:
    """Return the bake for as long as it was in: not until it was done."""
    try:
        case = baked_case(dough, making)
    except OvenError:
        return {}
    out = max(marks.minutes * making.minutes + making.minutes_more, 0.5)
    fixed = sum(s.minutes or 0.0 for s in case.stages)
    if fixed > out:
        # Stages that would last longer than it was in are cut short.
        case = replace(
            case,
            stages=tuple(replace(s, minutes=s.minutes * out / fixed * 0.9 if s.minutes else None) for s in case.stages),
        )
    ran = run(case, until_min=out, cells=COARSE, keep_s=_KEEP_S)
    rim = run(rim_of(case, making), until_min=out, cells=COARSE, keep_s=_KEEP_S)
    loss = float(ran.loss[-1])
    after = moist_after(dough, case, loss)
    eaten = Eaten(
        moisture=after.moisture_percent,
        moisture_low=after.moisture_percent,
        moisture_high=after.moisture_percent,
        thickness_mm=max(case.piece.thickness_mm, 0.2),
        oven_c=case.oven_c,
        binder_load=so_far["load"],
        rise=so_far["rise"],
    )
    scores = texture_values(dough.batch, after, eaten, dough.palate)
    return {
        "core": float(ran.core_c[-1]),
        "moisture": after.moisture_percent,
        "loss": loss,
        "top": float(ran.light_top[-1]),
        "bottom": float(ran.light_bottom[-1]),
        "edge": float(rim.light_top[-1]),
        **{name: scores.get(name, 0.0) for name in ("gummy", "eggy", "coconut", "crumbly")},
    }
