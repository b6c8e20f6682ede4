"""What a kitchen may choose: spoons, eggs, conventions, currency, strictness of claims, daily budgets."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from substrata.base.pans import Pan
from substrata.base.units import Spoons

EggScheme = Literal["us", "eu"]
Convention = Literal["us", "eu", "total"]
Units = Literal["metric", "us"]
PolyolRule = Literal["half", "energy"]


@dataclass(frozen=True, kw_only=True)
class Eater:
    """Somebody's day: how much of each thing at most. No medical advice: the kitchen sets its own."""

    name: str
    budgets: tuple[tuple[str, float], ...]  # (budget key, amount a day)


@dataclass(frozen=True, kw_only=True)
class Lesson:
    """One number that a kitchen's own runs have taught a forecast."""

    block: str  # "hands", "measures", or "palate:" and a score
    part: str  # of it: kitchen, form bun, formula bun:Rolls, scale, weight crust, an ingredient
    value: float
    runs: int  # that taught it
    left: float = 1.0  # of the house's spread, where nothing nearer to a dough was learned


@dataclass(frozen=True, kw_only=True)
class Settings:
    """The kitchen's choices that change a computed figure."""

    spoons: Spoons = "us"  # which cup and spoons a typed volume means
    egg_scheme: EggScheme = "us"  # whose size classes "large" belongs to
    egg_size: str = "large"  # what "2 eggs" means when no size is typed
    convention: Convention = "us"  # which net-carb convention the brackets use
    polyol_rule: PolyolRule = "half"  # "half" of other polyols, or 1 - kcal/4 of each
    units: Units = "metric"  # in which steps dials turn and doughs are rolled
    currency: str = "USD"  # ISO 4217, of all prices
    coconut_is_nut: bool = False  # a school's nut-free rule may ban coconut
    xanthan_is_grain: bool = False  # some grain-free bakers refuse what grew on grain sugar
    low_salt: bool = False  # bakes for people who have to mind their salt
    eaters: tuple[Eater, ...] = ()
    pans: tuple[Pan, ...] = ()  # the kitchen's own
    lessons: tuple[Lesson, ...] = ()  # what its runs have taught
