"""Drying a vegetable before it goes into a dough: salting, heating, squeezing; what is left and what leaves.

Heat boils water off and leaves everything dissolved behind. Squeezing presses juice out, and sugars, salt and
potassium leave with it in proportion. How much one squeeze gives depends on what was done before (``drying.csv``).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cache, lru_cache
from math import exp
from typing import Annotated, Literal

from substrata.base.documents.field_kinds import Number, Whole, Word
from substrata.base.errors import FormulaError
from substrata.base.tables.table_reader import constant, read_table
from substrata.base.uncertainty import Spread
from substrata.ingredients.composition import NUTRIENTS, Composition
from substrata.ingredients.ingredient import Ingredient
from substrata.ingredients.thermal_properties import Matter, specific_heat

DryingAct = Literal["salt", "microwave", "pan", "cook", "squeeze"]
ACTS: tuple[DryingAct, ...] = ("salt", "microwave", "pan", "cook", "squeeze")
_BOILS_C = 100.0
_OTHER = "other_carbohydrate"  # neither sugar nor fibre


@dataclass(frozen=True, kw_only=True)
class DryingStep:
    """One thing done to a vegetable before it goes into the dough."""

    act: Annotated[DryingAct, Word(options=ACTS, required=True)]
    # Of waiting or heating.
    minutes: Annotated[float, Number(low=0, high=240, unit="min", sparse=True)] = 0.0
    # On the microwave's door; of a pan, what reaches the food.
    watts: Annotated[float, Number(low=0, high=3000, unit="W", sparse=True)] = 0.0
    salt_g: Annotated[float, Number(low=0, high=500, unit="g", sparse=True)] = 0.0
    # Poured on before cooking.
    water_g: Annotated[float, Number(low=0, high=20_000, unit="g", sparse=True)] = 0.0
    times: Annotated[int, Whole(low=1, high=10, sparse=True, optional=True)] = 1  # grips of the cloth


@dataclass(frozen=True, kw_only=True)
class Stage:
    """The vegetable after one step, grams."""

    act: str  # "start" for the raw vegetable
    grams: float
    low: float  # nine in ten cloths
    high: float
    water_g: float
    solids_g: float
    steam_g: float  # boiled off in this step
    juice_g: float  # pressed out in this step
    temperature_c: float


@dataclass(frozen=True, kw_only=True)
class Dried:
    """A dried vegetable."""

    stages: tuple[Stage, ...]
    composition: Composition  # per 100 g of what is left
    start_g: float
    end_g: float
    low_g: float  # nine in ten end between these
    high_g: float
    water_percent: float  # in what is left
    water_g: float  # water per g of it, of water per g of the raw one
    sugars_lost_g: float
    sodium_lost_mg: float  # negative when salt was added and stays
    potassium_lost_mg: float
    effort: float  # how much more a squeeze gave than usual; 1 is the forecast


def is_squeezable(ingredient: Ingredient) -> bool:
    """Whether a cloth presses juice out of it: most of it is water that others could drink, and it is no puree."""
    free = ingredient.parameter("water_availability").value >= 1 and not ingredient.parameter("puree").value
    return free and ingredient.composition["water_g"] >= constant("pressable_water")


@cache
def drying_numbers() -> dict[str, Spread]:
    """Return what is known of drying, by name."""
    return {row.text("name"): row.spread() for row in read_table("drying.csv")}


@cache
def _dissolved() -> dict[str, float]:
    return {row.text("nutrient"): row.number_in("dissolved", 0, 1) for row in read_table("juice.csv")}


@dataclass(kw_only=True)
class _Pot:
    """The vegetable on its way; amounts in grams or milligrams of the whole."""

    amounts: dict[str, float]
    temperature_c: float
    expressed: float  # share of the water that one squeeze would give now
    softened: float = 0.0
    steam: float = 0.0
    juice: float = 0.0

    @property
    def grams(self) -> float:
        return sum(
            self.amounts[p] for p in ("water_g", "protein_g", "fat_g", "carbohydrate_g", "ash_g", "alcohol_g", "acid_g")
        )

    @property
    def heat_capacity(self) -> float:
        """J/K of all of it."""
        amounts = self.amounts
        parts: dict[Matter, float] = {
            "water": amounts["water_g"], "protein": amounts["protein_g"], "fat": amounts["fat_g"],
            "carbohydrate": max(amounts["carbohydrate_g"] - amounts["fibre_g"], 0.0), "fibre": amounts["fibre_g"], "ash": amounts["ash_g"],
        }  # fmt: skip
        return specific_heat(parts, 60.0)


@lru_cache(maxsize=512)
def dry(raw: Composition, steps: tuple[DryingStep, ...], start_g: float, *, effort: float = 1.0) -> Dried:
    """Follow a vegetable through its steps.

    Args:
        raw: what 100 g of it are made of.
        steps: in the order in which they are done.
        start_g: raw weight, g.
        effort: how much more each squeeze gives than usual.

    Returns:
        Every stage with its weight, and the composition of what is left.
    """
    typical = _run(raw, steps, start_g, effort, 0.0)
    sides = [_run(raw, steps, start_g, effort, side)[0] for side in (1.0, -1.0)]
    stages = tuple(
        replace(stage, low=min(a.grams, b.grams), high=max(a.grams, b.grams))
        for stage, a, b in zip(typical[0], *sides, strict=True)
    )
    pot = typical[1]
    whole = max(pot.grams, 1e-9)
    start = {name: amount * start_g / 100 for name, amount in zip(NUTRIENTS, raw.values, strict=True)}
    values = tuple(100 * pot.amounts[name] / whole for name in NUTRIENTS)
    # A doubt about the raw vegetable is a doubt about the dried one, in proportion to what is left.
    sds = tuple(
        sd * (new / old if old > 0 else start_g / whole)
        for sd, new, old in zip(raw.sds, values, raw.values, strict=True)
    )
    return Dried(
        stages=stages,
        composition=Composition(values=values, sds=sds),
        start_g=start_g,
        end_g=pot.grams,
        low_g=stages[-1].low,
        high_g=stages[-1].high,
        water_percent=100 * pot.amounts["water_g"] / whole,
        water_g=(pot.amounts["water_g"] / whole) / max(raw["water_g"] / 100, 1e-9),
        sugars_lost_g=start["sugars_g"] - pot.amounts["sugars_g"],
        sodium_lost_mg=start["sodium_mg"] - pot.amounts["sodium_mg"],
        potassium_lost_mg=start["potassium_mg"] - pot.amounts["potassium_mg"],
        effort=effort,
    )


@lru_cache(maxsize=512)
def start_for(raw: Composition, steps: tuple[DryingStep, ...], end_g: float) -> float:
    """Raw weight that the steps bring to a wanted weight, g; by secants, since the yield hardly depends on it."""
    start = 2 * end_g
    for _ in range(30):
        end = _run(raw, steps, start, 1.0, 0.0)[1].grams
        if abs(end - end_g) <= 1e-4 * end_g:
            break
        # Water boiled off is a fixed amount: the slope is estimated between half and all of the start.
        half = _run(raw, steps, start / 2, 1.0, 0.0)[1].grams
        slope = max(2 * (end - half) / start, 0.02)
        start = max(start + (end_g - end) / slope, 1e-6)
    return start


@lru_cache(maxsize=512)
def dry_to(raw: Composition, steps: tuple[DryingStep, ...], start_g: float, end_g: float) -> Dried:
    """Return what is left when the scale says so: the squeezes gave more or less than usual.

    Raises:
        FormulaError: when no squeezing of this start ends at that weight.
    """
    if not any(step.act == "squeeze" for step in steps):
        result = dry(raw, steps, start_g)
        if abs(result.end_g - end_g) <= 0.02 * start_g:
            return result
        steps = (*steps, DryingStep(act="squeeze"))
    most, least = dry(raw, steps, start_g, effort=0.0).end_g, dry(raw, steps, start_g, effort=6.0).end_g
    if not least <= end_g <= most:
        raise FormulaError(
            "this weight is not possible for the raw weight and steps",
            got=f"{end_g:.0f} g from {start_g:.0f} g",
            allowed=f"{least:.0f} to {most:.0f} g after these steps",
            remedy="check the raw weight, the steps, and whether the bowl was tared",
            field="grams",
        )
    effort = _root(lambda e: end_g - dry(raw, steps, start_g, effort=e).end_g, 0.0, 6.0)
    return dry(raw, steps, start_g, effort=effort)


def _root(rising: Callable[[float], float], low: float, high: float) -> float:
    for _ in range(48):
        middle = (low + high) / 2
        low, high = (low, middle) if rising(middle) > 0 else (middle, high)
    return (low + high) / 2


def _run(
    raw: Composition, steps: tuple[DryingStep, ...], start_g: float, effort: float, side: float
) -> tuple[list[Stage], _Pot]:
    """All stages by typical numbers (side 0), or by the ends of their ranges: 1 dries most, -1 least."""
    n = {
        name: s.value + (s.high - s.value if side > 0 else s.value - s.low) * side
        for name, s in drying_numbers().items()
    }
    pot = _Pot(
        amounts={name: amount * start_g / 100 for name, amount in zip(NUTRIENTS, raw.values, strict=True)},
        temperature_c=drying_numbers()["vegetable_start"].value,
        expressed=n["expressed_raw"],
    )
    stages = [_stage("start", pot)]
    for step in steps:
        pot.steam = pot.juice = 0.0
        if step.act == "salt":
            _salt(pot, step, n)
        elif step.act == "squeeze":
            for grip in range(max(step.times, 1)):
                _squeeze(pot, min(pot.expressed * n["regrip"] ** grip * effort, 0.9))
        else:
            _heat(pot, step, n)
        stages.append(_stage(step.act, pot))
    return stages, pot


def _stage(act: str, pot: _Pot) -> Stage:
    grams, water = pot.grams, pot.amounts["water_g"]
    return Stage(
        act=act,
        grams=grams,
        low=grams,
        high=grams,
        water_g=water,
        solids_g=grams - water,
        steam_g=pot.steam,
        juice_g=pot.juice,
        temperature_c=pot.temperature_c,
    )


def _salt(pot: _Pot, step: DryingStep, n: dict[str, float]) -> None:
    pot.amounts["sodium_mg"] += step.salt_g * constant("sodium_mg_in_salt")
    pot.amounts["ash_g"] += step.salt_g
    if step.salt_g > 0:
        drawn = 1 - exp(-step.minutes / n["salting_minutes"])
        # Half an hour stands for all that salt can do.
        drawn /= 1 - exp(-30 / drying_numbers()["salting_minutes"].value)
        pot.expressed = max(
            pot.expressed, n["expressed_raw"] + (n["expressed_salted"] - n["expressed_raw"]) * min(drawn, 1.0)
        )


def _heat(pot: _Pot, step: DryingStep, n: dict[str, float]) -> None:
    pot.amounts["water_g"] += step.water_g
    share = n["microwave_efficiency"] if step.act == "microwave" else 1.0
    joules = share * step.watts * step.minutes * 60
    if step.act == "cook" and not step.watts:
        # Steamed or boiled: hot through, nothing boiled off to speak of.
        joules = pot.heat_capacity * (_BOILS_C - pot.temperature_c) * min(step.minutes / 3, 1.0)
    warms = min(joules / pot.heat_capacity, _BOILS_C - pot.temperature_c)
    pot.temperature_c += warms
    remaining = joules - warms * pot.heat_capacity
    most = max(pot.amounts["water_g"] * (1 - constant("vegetable_driest")), 0.0)
    pot.steam = min(remaining / n["water_vapour"], most)
    pot.amounts["water_g"] -= pot.steam
    if pot.temperature_c >= drying_numbers()["softens_at"].value:
        pot.expressed = max(pot.expressed, n["expressed_cooked"])


def _squeeze(pot: _Pot, share: float) -> None:
    water = pot.amounts["water_g"]
    if water <= 0:
        return
    before = pot.grams
    pot.amounts["water_g"] = water * (1 - share)
    other = max(pot.amounts["carbohydrate_g"] - pot.amounts["fibre_g"] - pot.amounts["sugars_g"], 0.0)
    for name, dissolved in _dissolved().items():
        leaves = (other if name == _OTHER else pot.amounts[name]) * dissolved * share
        if name != _OTHER:
            pot.amounts[name] -= leaves
        if name in (_OTHER, "sugars_g"):
            pot.amounts["carbohydrate_g"] -= leaves
    pot.juice += before - pot.grams
