"""What a kitchen may choose: spoons, egg scheme, net-carb convention, polyol rule."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Spoons = Literal["us", "metric", "australian"]
EggScheme = Literal["us", "eu"]
Convention = Literal["us", "eu", "total"]
PolyolRule = Literal["half", "energy"]


@dataclass(frozen=True, kw_only=True)
class Settings:
    """The kitchen's choices that change a computed figure."""

    spoons: Spoons = "us"  # which cup and spoons a typed volume means
    egg_scheme: EggScheme = "us"  # whose size classes "large" belongs to
    egg_size: str = "large"  # what "2 eggs" means when no size is typed
    convention: Convention = "us"  # which net-carb convention the brackets use
    polyol_rule: PolyolRule = "half"  # "half" of other polyols, or 1 - kcal/4 of each
