"""``analyse``: the one judgement of a formula that the API, the command line and the tests share."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.analysis.brackets import Bracket, Case, brackets, quantities
from substrata.analysis.summary import Phrase, summary
from substrata.analysis.warnings import DoughWarning, Reading, warnings
from substrata.batch.baked import Baked, baked, oven_c
from substrata.batch.bakers import bakers_percent
from substrata.batch.cost import Cost, cost
from substrata.batch.kitchen_steps import kitchen_step
from substrata.batch.propagate import Estimate, Sheet
from substrata.batch.weighed import FRYING, Batch, Problem, weigh_formula
from substrata.dough.binder import Binder, binder
from substrata.dough.handling import HandlingForecast, handling_forecast
from substrata.dough.lift import Lift, lift
from substrata.dough.texture import Eaten, Texture, texture
from substrata.dough.water import Water, water
from substrata.formula.form import form_of, roles
from substrata.formula.formula import Formula
from substrata.nutrition.allergens import Allergen, allergens
from substrata.nutrition.budgets import EaterFit, eater_fits, weight_ratios
from substrata.nutrition.claims import Claim, claims
from substrata.nutrition.energy import METHOD
from substrata.nutrition.facts import Nutrition, nutrition, nutrition_ratios
from substrata.nutrition.hidden import Hidden, hidden
from substrata.nutrition.net_carbs import CONVENTIONS
from substrata.pantry.library import Library
from substrata.settings import Settings
from substrata.shape.piece import piece_of

_THINNEST_MM = 0.2  # below it there is no piece to speak of


@dataclass(frozen=True, kw_only=True)
class LineReading:
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
    baked_g: float  # the whole batch out of the oven
    dry_base_g: float
    dough_ml: float  # without gas
    fat_percent: float  # of the dough
    protein_percent: float
    water_percent: float


@dataclass(frozen=True, kw_only=True)
class Basis:
    """By what rules the figures were made; shown wherever they are."""

    convention: str
    convention_rule: str
    energy_method: str
    range: str


@dataclass(frozen=True, kw_only=True)
class Analysis:
    """Everything that is known of a formula."""

    summary: tuple[Phrase, ...]
    lines: tuple[LineReading, ...]
    totals: Totals
    nutrition: Nutrition
    brackets: tuple[Bracket, ...]
    binder: Binder
    water: Water
    lift: Lift
    handling: HandlingForecast | None  # None while there is no dough to speak of
    baked: Baked  # what comes out of the oven, until the oven computes it
    texture: Texture | None  # None while there is nothing to eat
    salt: Estimate
    sweetness: Estimate
    allergens: tuple[Allergen, ...]
    claims: tuple[Claim, ...]
    hidden: tuple[Hidden, ...]
    cost: Cost
    eaters: tuple[EaterFit, ...]
    warnings: tuple[DoughWarning, ...]
    problems: tuple[Problem, ...]
    basis: Basis


def analyse(formula: Formula, library: Library, settings: Settings = Settings()) -> Analysis:  # noqa: B008 - frozen
    """Judge a formula. A pure function.

    Lines that cannot be weighed are left out of every figure and listed in ``problems``.

    Args:
        formula: what to judge.
        library: the ingredients.
        settings: the kitchen's choices.

    Raises:
        FormulaError: when the form is unknown.
    """
    batch, problems = weigh_formula(formula, library, settings)
    form = form_of(formula.form)
    ratios = nutrition_ratios(batch, formula, settings)
    ratios |= weight_ratios(batch, formula) if settings.eaters else {}
    ratios_of = quantities(formula, settings)
    ratios |= {key: ratio_of(batch) for key, ratio_of in ratios_of.items() if key not in ratios}
    sheet = Sheet(batch, ratios)
    bound, risen, after = binder(sheet, form), lift(sheet, form.heat_set_least), baked(batch, formula)
    judged = brackets(
        Case(
            formula=formula, sheet=sheet, binder=bound, library=library, ratios_of=ratios_of, currency=settings.currency
        )
    )
    zeros = hidden(batch, formula.pieces)
    thick = piece_of(batch, formula, settings.pans).thickness_mm
    handles = handling_forecast(batch, formula, library, thick)
    eats = texture(batch, after, _eaten(formula, after, bound, risen, thick))
    reading = Reading(
        formula=formula,
        batch=batch,
        binder=bound,
        lift=risen,
        net_carbs=_of(judged, "net_carbs"),
        hidden=zeros,
        library=library,
        handling=handles,
        texture=eats,
        baked=after,
    )
    return Analysis(
        summary=summary(formula, judged, handles, eats, weighed_lines=len(batch.lines)),
        lines=_lines(batch, settings),
        totals=_totals(formula, sheet, risen, after),
        nutrition=nutrition(formula, sheet),
        brackets=judged,
        binder=bound,
        water=water(sheet),
        lift=risen,
        handling=handles,
        baked=after,
        texture=eats,
        salt=sheet.estimate("salt"),
        sweetness=sheet.estimate("sweetness"),
        allergens=allergens(batch),
        claims=claims(batch, settings, complete=not problems),
        hidden=zeros,
        cost=cost(batch, formula.pieces, settings.currency),
        eaters=eater_fits(sheet, settings),
        warnings=warnings(reading),
        problems=problems,
        basis=Basis(
            convention=settings.convention,
            convention_rule=CONVENTIONS[settings.convention],
            energy_method=METHOD,
            range="nine in ten doughs made by this formula fall in the range",
        ),
    )


def _eaten(formula: Formula, after: Baked, bound: Binder, risen: Lift, thick: float) -> Eaten:
    return Eaten(
        moisture=after.moisture_percent,
        moisture_low=after.moisture_low,
        moisture_high=after.moisture_high,
        thickness_mm=max(thick, _THINNEST_MM),
        oven_c=oven_c(formula),
        binder_load=bound.load.value,
        rise=risen.rise,
    )


def _of(judged: tuple[Bracket, ...], key: str) -> Bracket:
    return next(bracket for bracket in judged if bracket.key == key)


def _lines(batch: Batch, settings: Settings) -> tuple[LineReading, ...]:
    whole = batch.whole_g or 1.0
    return tuple(
        LineReading(
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


def _totals(formula: Formula, sheet: Sheet, risen: Lift, after: Baked) -> Totals:
    batch, whole = sheet.batch, sheet.batch.whole_g
    per_cent = 100 / whole if whole else 0.0
    return Totals(
        dough_g=batch.dough_g,
        whole_g=whole,
        baked_g=after.bake_to_g,
        dry_base_g=batch.dry_base_g,
        dough_ml=risen.dough_ml,
        fat_percent=sheet.value("fat") * formula.pieces * per_cent,
        protein_percent=sheet.value("protein") * formula.pieces * per_cent,
        water_percent=float(batch.grams @ batch.nutrient("water_g")[0]) * per_cent,
    )
