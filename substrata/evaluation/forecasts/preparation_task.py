"""A task of preparation, and the work surface on which a kitchen works a dough."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.messages.message import Wording
from substrata.evaluation.dough import Dough
from substrata.formula.batch.batch_lines import Batch, LineProblem
from substrata.formula.formula import Formula
from substrata.process.preparation.dough_cooling import Cooling
from substrata.process.preparation.frying_fats import FryingFat
from substrata.process.preparation.gel_filling import Gel
from substrata.process.preparation.microwave import Bursts
from substrata.process.preparation.premix import Premix
from substrata.process.preparation.preparation_inputs import PrepInput, number_set
from substrata.process.preparation.vegetable_stages import VegetableDrying
from substrata.process.preparation.water_temperature import WaterTemperature
from substrata.process.preparation.yeast_activation import Waking
from substrata.process.rheology.dough_temperature import DoughHeat
from substrata.process.rheology.handling.handling_forecast import HandlingForecast


@dataclass(frozen=True, kw_only=True)
class PrepTask:
    """One thing to be done. Of its drawings only the one of its kind is there."""

    kind: str  # premix, vegetable, yeast, water, melt, mix, bench, rewarm, gel, fry
    title: Wording
    text: Wording  # the answer in a sentence
    lines: tuple[str, ...]
    inputs: tuple[PrepInput, ...]
    steps: tuple[Wording, ...]
    cautions: tuple[Wording, ...]
    confidence: Wording  # measured, computed, rule of thumb
    premix: Premix | None = None
    vegetable: VegetableDrying | None = None
    yeast: Waking | None = None
    water: WaterTemperature | None = None
    bursts: Bursts | None = None
    cooling: Cooling | None = None
    gels: tuple[Gel, ...] = ()
    fats: tuple[FryingFat, ...] = ()


@dataclass(frozen=True, kw_only=True)
class PrepPlan:
    """All cards of a formula."""

    dough_kind: str
    room: tuple[PrepInput, ...]  # what holds for all cards
    tasks: tuple[PrepTask, ...]
    problems: tuple[LineProblem, ...]


@dataclass(frozen=True, kw_only=True)
class WorkSurface:
    """What the cards are made of."""

    dough: Dough
    handling: HandlingForecast

    @property
    def formula(self) -> Formula:
        """The formula that is prepared."""
        return self.dough.formula

    @property
    def inside(self) -> Batch:
        """The lines of the dough."""
        return self.dough.inside

    @property
    def room_c(self) -> float:
        """Temperature of the room in °C."""
        return number_set(self.formula, "room_c")

    @property
    def heat(self) -> DoughHeat:
        """Heat capacities and temperatures of the mixed dough."""
        return self.handling.heat

    @property
    def melts(self) -> bool:
        """Whether the dough is held by melted cheese."""
        return self.dough.kind == "melted-cheese"
