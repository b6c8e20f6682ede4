"""An ingredient: composition, behaviour, household measures and facts, each with its source."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from substrata.base.uncertainty import Spread
from substrata.base.units import unit
from substrata.ingredients.composition import Composition
from substrata.ingredients.pack import Lot

# What an ingredient does in a dough when nothing is said for it.
BEHAVIOURS = {
    "capacity": 0.0,  # g water held per g at saturation
    "water_availability": 0.0,  # share of its own water that other matter can drink
    "binding": 0.0,  # whole-egg equivalents per g
    "heat_set": 0.0,  # share of the binding that sets in the oven
    "base_weight": 0.0,  # weight in the dry base that the binder has to hold
    "co2": 0.0,  # g CO2 per g, acid included
    "soda": 0.0,  # g sodium bicarbonate per g that needs acid
    "neutralising": 0.0,  # g soda that 100 g of it neutralise
    "yeast_rate": 0.0,  # mmol CO2 per hour and g
    "fermentable": 0.0,  # g sugar per g that yeast can ferment
    "sweetness": 0.0,  # g sucrose that taste the same, per g
    "syrup": 0.0,  # how far it stays a syrup in a baked piece
    "polyol_energy": 2.4,  # kcal per g of its polyols other than erythritol
    "uptake_minutes": 4.0,  # time constant of drinking at 20 degC, min
    "uptake_energy": 25.0,  # its activation energy, kJ/mol
    "puree": 0.0,  # 1 for what no cloth can squeeze
    "coarse": 0.0,  # how far it lies whole among ground matter
    "mats": 0.0,  # how far its long shreds cling to one another once they are wet
    "oil_capacity": 0.0,  # g oil held per g
    "lubricates": 0.0,  # how far its own fat comes out when worked, of a nut flour's
    "gum_share": 0.0,  # share of its mass that thickens water
    "gum_c0": 1.0,  # its overlap concentration, percent
    "gum_power": 2.0,  # how steeply it thickens
    "gel_part": 0.0,  # share of its capacity that is held as gel
    "pack_net_sd": 0.0,  # sd of carbohydrate without fibre from pack to pack, g/100 g
    "reducing": 0.0,  # g glucose that brown as its added reducing sugars do, per g
    "melt": 0.0,  # melt-and-stretch index of a cheese, 1 of low-moisture mozzarella
    "soluble_fibre": 0.2,  # share of its fibre that dissolves; typical of seeds and vegetables (IFCT 2017)
}


@dataclass(frozen=True, kw_only=True)
class Parameter:
    """One number of knowledge about an ingredient."""

    spread: Spread
    unit: str
    source: str
    note: str = ""


@dataclass(frozen=True, kw_only=True)
class Measure:
    """Grams of one household measure."""

    grams: Spread
    source: str


@dataclass(frozen=True, kw_only=True)
class Ingredient:
    """A reference substance of the pantry, or a pack of one with its own numbers."""

    id: str
    name: str
    role: str  # the role it usually has
    flags: frozenset[str]  # allergen and diet facts
    composition: Composition
    behaviour: Mapping[str, Parameter]
    measures: Mapping[str, Measure]
    aliases: tuple[str, ...]
    source: str  # data set and id, or "from memory"
    spread_source: str
    note: str = ""
    pack: Lot | None = None  # the pack whose numbers these are

    @property
    def key(self) -> str:
        """What tells it from everything else in a library: the pack's key, or the id."""
        return self.pack.key if self.pack else self.id

    def parameter(self, name: str) -> Spread:
        """Return a behaviour by name, its default when the tables are silent.

        Raises:
            KeyError: when there is no such behaviour.
        """
        default = BEHAVIOURS[name]
        result = self.behaviour.get(name)
        return result.spread if result else Spread(value=default, low=default, high=default)

    @property
    def bulk_density(self) -> Spread | None:
        """Grams per millilitre as it lies in a cup or spoon; None when no volume was ever weighed."""
        for key in ("cup", "tbsp", "tsp", "fl-oz"):
            if key in self.measures:
                return self.measures[key].grams.scaled(1 / unit(key).size)
        return None
