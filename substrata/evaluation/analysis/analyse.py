"""``analyse``: the one judgement of a formula that the API, the command line and the tests share."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.bulk_dataclass import in_bulk
from substrata.base.errors import FormulaError
from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.settings import Settings
from substrata.base.tables.table_reader import constant
from substrata.evaluation.analysis.summary import Phrase, summary
from substrata.evaluation.analysis.target_states import TargetState, brackets
from substrata.evaluation.analysis.warning_inputs import DoughWarning, WarningInputs
from substrata.evaluation.analysis.warnings import warnings
from substrata.evaluation.dough import Dough
from substrata.evaluation.varieties import VarietyFigures, variety_figures
from substrata.evaluation.working_time import short_working_minutes
from substrata.formula.batch.baked_weight import Baked
from substrata.formula.batch.bakers_percent import bakers_percent
from substrata.formula.batch.batch_lines import FRYING, Batch, LineProblem
from substrata.formula.batch.cost import Cost, cost
from substrata.formula.batch.propagation import Estimate
from substrata.formula.batch.rounding_steps import kitchen_step
from substrata.formula.form_table import roles
from substrata.formula.formula import Formula
from substrata.ingredients.library import Library
from substrata.nutrition.allergens import Allergen, allergens
from substrata.nutrition.claims import Claim, claims
from substrata.nutrition.daily_limits import EaterFit, eater_fits
from substrata.nutrition.energy import METHOD
from substrata.nutrition.hidden_amounts import Hidden
from substrata.nutrition.net_carbs import CONVENTIONS
from substrata.nutrition.nutrition_facts import Nutrition
from substrata.process.rheology.binder import Binder
from substrata.process.rheology.handling.forecast_reliability import handling_rests_on
from substrata.process.rheology.handling.handling_forecast import HandlingForecast
from substrata.process.rheology.leavening import Leavening
from substrata.process.rheology.texture import Texture
from substrata.process.rheology.water_fill import Water, water


@in_bulk
@dataclass(frozen=True, kw_only=True)
class LineFigures:
    """One line as the dough sees it."""

    id: str
    ingredient: str
    name: str
    role: str
    code: str  # two letters of the role
    grams: float
    grams_low: float
    grams_high: float
    share: float  # of the dough, 0..1
    step_g: float  # what an arrow key adds
    bakers_percent: float | None  # of the dry base; None when there is none
    source: str  # of its composition
    note: str  # of its data
    lot: str  # key of the pack it is taken from; "" for the reference
    pack: str  # name of that pack; "" when it is not in this pantry


@dataclass(frozen=True, kw_only=True)
class Totals:
    """The whole dough."""

    dough_g: float  # without what lies in, on or around the dough
    whole_g: float  # with it, before the oven
    baked_g: float  # the whole batch, baked and cool
    dry_base_g: float
    dough_ml: float  # without gas
    fat_percent: float  # of the dough
    protein_percent: float
    water_percent: float


@dataclass(frozen=True, kw_only=True)
class Basis:
    """By what rules the figures were made; shown wherever they are."""

    convention: str
    convention_rule: Wording
    energy_method: str
    range: Wording
    handling: Wording  # the practice behind how it handles


@dataclass(frozen=True, kw_only=True)
class Analysis:
    """Everything that is known of a formula."""

    summary: tuple[Phrase, ...]
    lines: tuple[LineFigures, ...]
    totals: Totals
    nutrition: Nutrition
    brackets: tuple[TargetState, ...]
    binder: Binder
    water: Water
    lift: Leavening
    handling: HandlingForecast | None  # None while there is no dough to speak of
    baked: Baked  # what is left when it is cool
    texture: Texture | None  # None while there is nothing to eat
    salt: Estimate
    sweetness: Estimate
    allergens: tuple[Allergen, ...]
    claims: tuple[Claim, ...]
    hidden: tuple[Hidden, ...]
    cost: Cost
    eaters: tuple[EaterFit, ...]
    warnings: tuple[DoughWarning, ...]
    sorts: tuple[VarietyFigures, ...]  # of a dough that is made into several
    sorts_problem: str  # why they do not add up; "" when they do
    problems: tuple[LineProblem, ...]
    basis: Basis


def analyse(formula: Formula, library: Library, settings: Settings = Settings()) -> Analysis:  # noqa: B008 - frozen
    """Judge a formula. A pure function.

    Lines that cannot be weighed are left out of every figure and listed in ``problems``.

    Args:
        formula: what to judge.
        library: the ingredients.
        settings: the kitchen's choices.

    Returns:
        Figures, target states, warnings and summary.

    Raises:
        FormulaError: when the form is unknown.
    """
    return analyse_dough(Dough(formula, library, settings))


def analyse_dough(dough: Dough) -> Analysis:
    """Judge a dough by the weight that its own oven leaves; see ``analyse``."""
    dough, settings = dough.as_baked(), dough.settings
    judged = brackets(dough)
    sorts, trouble = _sorts(dough)
    inputs = WarningInputs(dough=dough, net_carbs=_analysis(judged, "net_carbs"))
    return Analysis(
        summary=summary(
            dough.formula,
            judged,
            dough.handling,
            dough.texture,
            weighed_lines=len(dough.batch.lines),
            working_minutes=short_working_minutes(dough),
            unweighed=dough.unweighed,
            beyond=_beyond(dough),
        ),
        lines=_lines(dough.batch, settings),
        totals=_totals(dough),
        nutrition=dough.nutrition,
        brackets=judged,
        binder=dough.binder,
        water=water(dough.sheet),
        lift=dough.lift,
        handling=dough.handling,
        baked=dough.baked,
        texture=dough.texture,
        salt=dough.sheet.estimate("salt"),
        sweetness=dough.sheet.estimate("sweetness"),
        allergens=allergens(dough.batch),
        claims=claims(dough.batch, settings, unweighed=dough.unweighed),
        hidden=inputs.hidden,
        cost=cost(dough.batch, dough.formula.pieces, settings.currency),
        eaters=eater_fits(dough.sheet, settings),
        warnings=warnings(inputs),
        sorts=sorts,
        sorts_problem=trouble,
        problems=dough.problems,
        basis=Basis(
            convention=settings.convention,
            convention_rule=CONVENTIONS[settings.convention],
            energy_method=METHOD,
            range=Message("analyse-in-of-doughs-the-handling"),
            handling=handling_rests_on(dough.kind) if dough.handling else _no_handling(dough),
        ),
    )


def _beyond(dough: Dough) -> Wording:
    """Say which binder is so far over what was ever tried that nothing can be forecast; "" where none is."""
    for cap in dough.binder.caps:
        if cap.percent > constant("binder_beyond_cap") * cap.hard_percent:
            return Message("analyse-of-it-is", percent=Quantity(cap.percent, "%", digits=0), cap_name=cap.name)
    return ""


def _no_handling(dough: Dough) -> Wording:
    """Why it cannot be said how a dough handles."""
    lines = len(dough.inside.lines)
    if not lines:
        return Message("analyse-no-dough-yet-add-ingredients")
    if lines == 1:
        return Message("analyse-one-ingredient-is-not-a")
    return Message("analyse-not-enough-dough-to-forecast")


def _analysis(judged: tuple[TargetState, ...], key: str) -> TargetState:
    return next(bracket for bracket in judged if bracket.key == key)


def _sorts(dough: Dough) -> tuple[tuple[VarietyFigures, ...], str]:
    try:
        return variety_figures(dough), ""
    except FormulaError as error:
        return (), str(error)


def _lines(batch: Batch, settings: Settings) -> tuple[LineFigures, ...]:
    whole = batch.whole_g or 1.0
    return tuple(
        LineFigures(
            id=w.line.id,
            ingredient=w.ingredient.id,
            name=w.ingredient.name,
            role=w.role,
            code=roles()[w.role].code,
            grams=w.grams.value,
            grams_low=w.grams.low,
            grams_high=w.grams.high,
            share=w.grams.value / whole,
            step_g=kitchen_step(w.ingredient, w.grams.value, settings),
            bakers_percent=share,
            source=w.ingredient.source,
            note=w.ingredient.note,
            lot=w.line.lot,
            pack=w.ingredient.pack.name if w.ingredient.pack else "",
        )
        for w, share in zip(batch.lines, bakers_percent(batch), strict=True)
        if w.role != FRYING
    )


def _totals(dough: Dough) -> Totals:
    batch, sheet, pieces = dough.batch, dough.sheet, dough.formula.pieces
    per_cent = 100 / batch.whole_g if batch.whole_g else 0.0
    return Totals(
        dough_g=batch.dough_g,
        whole_g=batch.whole_g,
        baked_g=dough.baked.bake_to_g,
        dry_base_g=batch.dry_base_g,
        dough_ml=dough.lift.dough_ml,
        fat_percent=sheet.value("fat") * pieces * per_cent,
        protein_percent=sheet.value("protein") * pieces * per_cent,
        water_percent=float(batch.grams @ batch.nutrient("water_g")[0]) * per_cent,
    )
