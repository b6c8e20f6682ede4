"""``Dough``: a formula weighed, shaped, judged and forecast, each thing once and when it is first asked for."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from substrata.base.errors import OvenError
from substrata.base.settings import Settings
from substrata.base.tables.table_reader import constant
from substrata.base.uncertainty import Spread
from substrata.evaluation.derived_value import Worked, worked
from substrata.evaluation.figure_ratios import BY_GRAMS, RatioOf, quantities
from substrata.evaluation.learned_biases import hand_bias, palate_bias
from substrata.evaluation.target_ranges import TargetRange, target_ranges
from substrata.formula.batch.baked_weight import Baked, baked, baked_with, most_loss, oven_c, water_sd, wet_percent
from substrata.formula.batch.batch_lines import Batch, LineProblem
from substrata.formula.batch.propagation import Ratio, Sheet
from substrata.formula.batch.weighed_lines import reweigh_formula, weigh_formula
from substrata.formula.form_table import Form, form_of
from substrata.formula.formula import Formula
from substrata.ingredients.library import Library
from substrata.nutrition.daily_limits import weight_ratios
from substrata.nutrition.nutrition_facts import Nutrition, nutrition, nutrition_ratios
from substrata.nutrition.nutrition_panel import panel_ratios
from substrata.process.baking.bake_case import BakeCase
from substrata.process.baking.dough_case import bake_case
from substrata.process.baking.loss_forecast import LossForecast, forecast_loss
from substrata.process.baking.oven_profile import OvenProfile
from substrata.process.preparation.dough_cooling import Cooling
from substrata.process.rheology.binder import Binder, Structure, binder, dough_structure
from substrata.process.rheology.dough_kind import DoughKind, dough_kind
from substrata.process.rheology.handling.handling_forecast import HandlingForecast, Hands, bowl_of, handling_forecast
from substrata.process.rheology.handling.handling_roots import Bowl
from substrata.process.rheology.leavening import Leavening, lift, rise_of
from substrata.process.rheology.target_handling import TargetHandling, target_handling
from substrata.process.rheology.texture import Texture, texture, texture_values
from substrata.process.rheology.texture_palate import Eaten, Palate
from substrata.process.shaping.piece import Piece, piece_of


class Dough:
    """One dough. What a station, the solver or a trial asks of it is worked out once and shared.

    Attributes:
        formula: what is made.
        library: the ingredients.
        settings: the kitchen's choices.
        profile: the oven it is baked in.
        capacity: factor of a line's water capacity, by its id: what trials have taught of it.
        rest_min: minutes of rest before it is shaped; None takes the form's usual.
        oven_loss: share of the weight that its own oven takes, once that is known; None takes the form's usual.
    """

    def __init__(
        self,
        formula: Formula,
        library: Library,
        settings: Settings = Settings(),  # noqa: B008 - frozen
        profile: OvenProfile = OvenProfile(),  # noqa: B008 - frozen
        *,
        capacity: Mapping[str, float] | None = None,
        rest_min: float | None = None,
        oven_loss: Spread | None = None,
    ) -> None:
        self.formula, self.library, self.settings, self.profile = formula, library, settings, profile
        self.capacity, self.rest_min, self.oven_loss = dict(capacity or {}), rest_min, oven_loss

    def with_changes(
        self,
        *,
        grams: Mapping[str, float] | None = None,
        capacity: Mapping[str, float] | None = None,
        rest: float | None = None,
        temperature: float | None = None,
        thickness: float | None = None,
        oven: OvenProfile | None = None,
        loss: Spread | None = None,
    ) -> Dough:
        """Return the same dough with some inputs replaced, sharing every value that they do not change.

        Args:
            grams: new weights by line.
            capacity: factors of the lines' water capacity.
            rest: minutes before it is shaped.
            temperature: of the dough after mixing, °C.
            thickness: of a piece, mm; it is held, and the size follows.
            oven: another oven.
            loss: share of the weight that the oven takes.

        Raises:
            KeyError: when a line is not in the formula.
        """
        wish = {"grams": grams, "capacity": capacity, "rest": rest, "temperature": temperature, "thickness": thickness, "oven": oven, "loss": loss}  # fmt: skip
        changed = {name for name, value in wish.items() if value is not None}
        other = Dough(
            _changed(self.formula, grams, temperature, thickness),
            self.library,
            self.settings,
            oven or self.profile,
            capacity=self.capacity if capacity is None else capacity,
            rest_min=self.rest_min if rest is None else rest,
            oven_loss=loss or self.oven_loss,
        )
        for name, value in vars(Dough).items():
            if isinstance(value, Worked) and name in self.__dict__ and not value.spoiled_by & changed:
                other.__dict__[name] = self.__dict__[name]
        if grams and capacity is None and not self.problems:
            batch = reweigh_formula(self.batch, other.formula, grams, self.library, self.settings)
            if batch is not None:
                other.__dict__["weighed"] = batch, ()
                other.__dict__["composition_ratios"] = self.composition_ratios
        return other

    @worked("grams", "capacity")
    def weighed(self) -> tuple[Batch, tuple[LineProblem, ...]]:
        """Return the lines that count, and why others do not."""
        batch, problems = weigh_formula(self.formula, self.library, self.settings)
        return (batch.with_capacity(self.capacity) if self.capacity else batch), problems

    @property
    def batch(self) -> Batch:
        """The weighed lines."""
        return self.weighed[0]

    @property
    def problems(self) -> tuple[LineProblem, ...]:
        """Lines that could not be weighed."""
        return self.weighed[1]

    @property
    def unweighed(self) -> tuple[str, ...]:
        """Names of the lines that have no weight: without them every figure is incomplete."""
        lines = {line.id: line.ingredient.replace("-", " ") for line in self.formula.lines}
        names = (problem.name or lines.get(problem.line or "", "") or "a line" for problem in self.problems)
        return tuple(dict.fromkeys(name.partition(",")[0].lower() for name in names))

    @worked("grams", "capacity")
    def inside(self) -> Batch:
        """Only the lines that are part of the dough."""
        return self.batch.dough()

    @property
    def form(self) -> Form:
        """What is baked.

        Raises:
            FormulaError: when the form is unknown.
        """
        return form_of(self.formula.form)

    @worked("grams")
    def kind(self) -> DoughKind:
        """Which kind of dough it is."""
        return dough_kind(self.inside, self.formula)

    @worked("grams", "thickness")
    def piece(self) -> Piece:
        """One piece before the oven."""
        return piece_of(self.batch, self.formula, self.settings.pans)

    @worked("temperature")
    def ratios_of(self) -> dict[str, RatioOf]:
        """How every bracketed quantity is read off a batch."""
        return quantities(self.formula, self.settings)

    @worked("grams", "capacity")
    def composition_ratios(self) -> dict[str, Ratio]:
        """Bracketed ratios that hang on what the lines are made of, and not on how much of each there is."""
        return {key: ratio(self.batch) for key, ratio in self.ratios_of.items() if key not in BY_GRAMS}

    @worked("grams", "capacity", "temperature")
    def bracketed(self) -> Sheet:
        """Return the bracketed quantities alone: all that a dough is judged by, and so all that a solver waits for."""
        return Sheet(self.batch, self.composition_ratios | {key: self.ratios_of[key](self.batch) for key in BY_GRAMS})

    @worked("grams", "capacity", "temperature")
    def sheet(self) -> Sheet:
        """Every quantity as a ratio over the lines, with its spread and every line's share: figures of nutrition and budgets too."""
        nutrition = nutrition_ratios(self.batch, self.formula, self.settings, self.bracketed.ratios)
        nutrition |= weight_ratios(self.batch, self.formula) if self.settings.eaters else {}
        return Sheet(self.batch, nutrition | self.bracketed.ratios)

    @worked("grams", "capacity")
    def panel_sheet(self) -> Sheet:
        """Return what nutrition panels are printed from."""
        ratios = nutrition_ratios(self.batch, self.formula, self.settings, self.bracketed.ratios)
        return Sheet(self.batch, ratios | panel_ratios(self.batch, self.formula))

    @worked("grams", "capacity", "loss")
    def nutrition(self) -> Nutrition:
        """Return what a piece, a serving and 100 g hold."""
        return nutrition(self.formula, self.sheet, self.baked)

    @worked("grams")
    def matrix(self) -> Structure:
        """Return what carries it."""
        return dough_structure(self.batch, self.form, self.formula)

    @worked("grams", "capacity")
    def binder(self) -> Binder:
        """Return what holds it together."""
        return binder(self.bracketed, self.form, self.matrix)

    @worked("grams", "capacity", "temperature")
    def lift(self) -> Leavening:
        """Its rising power."""
        return lift(self.bracketed, self.form.heat_set_least)

    @worked("grams")
    def usual_baked(self) -> Baked:
        """Return what the oven leaves of it, by the form's habit or the baker's wish."""
        return baked(self.batch, self.formula)

    @worked("grams", "capacity", "rest", "temperature", "thickness", "oven")
    def loss_forecast(self) -> LossForecast | None:
        """Return what its own oven takes of it; None where there is no dough or the bake comes to no end."""
        if self.batch.dough_g <= 0:
            return None
        return forecast_loss(self.case, water_sd=water_sd(self.batch), most=most_loss(wet_percent(self.batch)))

    @worked("grams", "loss")
    def baked(self) -> Baked:
        """Return what the oven leaves of it: by its form's habit, or by its own oven in a dough that is ``as_baked``."""
        if self.oven_loss is None:
            return self.usual_baked
        return baked_with(self.batch, self.formula, self.oven_loss, "oven")

    def as_baked(self) -> Dough:
        """Return the same dough with the weight that its own oven is forecast to leave, so that every station tells one.

        Itself where the baker has said how dry it is to be, or where the bake cannot be forecast.
        """
        if self.usual_baked.source == "set":
            return self
        try:
            loss = self.loss_forecast
        except OvenError:
            return self
        if loss is None:
            return self
        return self.with_changes(loss=Spread(value=loss.cool.best, low=loss.cool.low, high=loss.cool.high))

    @worked("grams")
    def windows(self) -> dict[str, TargetRange]:
        """Return what is wanted of each quantity."""
        return target_ranges(self.formula, self.form, self.matrix, low_salt=self.settings.low_salt)

    @worked("grams", "capacity", "rest", "temperature", "thickness")
    def handling(self) -> HandlingForecast | None:
        """How it handles; None while there is no dough to speak of."""
        return handling_forecast(
            self.batch, self.formula, self.piece.thickness_mm, rest_min=self.rest_min, hands=self.hands
        )

    @worked("grams", "thickness")
    def target_handling(self) -> TargetHandling:
        """Where it has to be to be shaped."""
        return target_handling(self.inside, self.formula, self.piece.thickness_mm)

    @property
    def hands(self) -> Hands:
        """What the kitchen's runs have taught of how it handles."""
        return hand_bias(self.settings.lessons, self.formula)

    @property
    def palate(self) -> Palate:
        """And of how it is scored."""
        return palate_bias(self.settings.lessons, self.formula)

    def bowl(self, rest_min: float | None = None) -> Bowl:
        """Return the dough as it is mixed by this kitchen's hands.

        Args:
            rest_min: before it is shaped; None takes the dough's own.
        """
        if rest_min is None:
            return self._usual_bowl
        return bowl_of(self.inside, self.formula, rest_min=rest_min, stiffer=self.hands.stiffer)[0]

    @worked("grams", "capacity", "rest", "temperature", "thickness")
    def _usual_bowl(self) -> Bowl:
        return bowl_of(self.inside, self.formula, rest_min=self.rest_min, stiffer=self.hands.stiffer)[0]

    @worked("grams", "capacity", "rest", "temperature", "thickness")
    def surface_cooling(self) -> Cooling | None:
        """Return how it cools on the work surface; None where it does not crack when it is cool."""
        from substrata.evaluation.working_time import (
            forecast_surface_cooling,  # which asks for much of the dough itself
        )

        return forecast_surface_cooling(self)

    @worked("grams", "capacity", "temperature", "thickness", "loss")
    def eaten(self) -> Eaten:
        """Return what its texture is made of."""
        after = self.baked
        return Eaten(
            moisture=after.moisture_percent,
            moisture_low=after.moisture_low,
            moisture_high=after.moisture_high,
            thickness_mm=max(self.piece.thickness_mm, constant("thinnest_piece_mm")),
            oven_c=oven_c(self.formula),
            binder_load=self.bracketed.value("binder_load"),
            rise=rise_of(self.bracketed),
        )

    @worked("grams", "capacity", "temperature", "thickness", "loss")
    def texture(self) -> Texture | None:
        """Return what it will eat like; None while there is nothing to eat."""
        return texture(self.batch, self.baked, self.eaten, self.palate)

    def scores(self) -> dict[str, float]:
        """Return the scores of its texture alone, by key; none while there is nothing to eat."""
        return texture_values(self.batch, self.baked, self.eaten, self.palate)

    @worked("grams", "capacity", "rest", "temperature", "thickness", "oven")
    def case(self) -> BakeCase:
        """Everything that its bake needs, as numbers.

        Returns:
            The bake case in SI-based numbers (see its fields).

        Raises:
            FormulaError: when its ware is unknown.
            OvenError: when it is nearly all water.
        """
        return bake_case(
            self.formula,
            self.batch,
            self.profile,
            piece=self.piece,
            after=self.usual_baked,
            handling=self.handling,
        )


def _changed(
    formula: Formula, grams: Mapping[str, float] | None, temperature: float | None, thickness: float | None
) -> Formula:
    """Return the formula that says what is told."""
    if grams:
        strange = set(grams) - {line.id for line in formula.lines}
        if strange:
            raise KeyError(f"no such line: {', '.join(sorted(strange))}")
        lines = tuple(replace(line, grams=grams[line.id]) if line.id in grams else line for line in formula.lines)
        formula = replace(formula, lines=lines)
    if temperature is not None:
        formula = replace(formula, mix=replace(formula.mix, temperature_c=temperature))
    if thickness is not None:
        formula = replace(formula, size=replace(formula.size, held="thickness", thickness_mm=thickness))
    return formula
