"""``recipe_of``: a formula as it is handed on: grouped lines in grams and measures, the method that was computed, keeping, cautions."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import get_args

from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.messages.reader import current_reader, reading
from substrata.base.settings import Units
from substrata.base.tables.table_reader import constant
from substrata.base.tables.table_texts import without_weight
from substrata.evaluation.dough import Dough
from substrata.evaluation.keeping import Keeping, keeping
from substrata.execution.feel_advice import as_poured
from substrata.execution.protocol import bake_protocol
from substrata.execution.protocol_step import RunPlan, RunStep
from substrata.execution.weighing_order import weighing_order
from substrata.execution.weighing_tolerance import Tolerance, tolerances
from substrata.formula.batch.cost import cost
from substrata.formula.batch.kitchen_measures import kitchen_measure
from substrata.formula.formula import Formula, MethodEdit
from substrata.publishing.card_panels import Card, card_of
from substrata.publishing.variants import Variant, variants_of

_GROUPS: dict[str, Wording] = {
    "wet": Message("recipe-wet-ingredients"), "dry": Message("recipe-dry-ingredients"), "melt": Message("recipe-to-melt"), "raw": Message("recipe-vegetable-to-dry"), "aside": Message("recipe-also-needed"), "filling": "Filling",
    "topping": "Topping", "wash": Message("recipe-for-brushing"), "dusting": Message("recipe-for-dusting"),
}  # fmt: skip
_TITLES = {
    "ready": "Before", "prep": "Prepare", "weigh": "Weigh", "mix": "Mix", "rest": "Rest", "shape": "Shape", "bake": "Bake", "cool": "Cool",
    "finish": "Finish",
}  # fmt: skip
# Steps of a run that a recipe does not tell: they keep a log.
_LOGGED = ("weight_in", "out", "slip:turn")


@dataclass(frozen=True, kw_only=True)
class RecipeLine:
    """One ingredient."""

    line: str
    name: str
    grams: float
    amount: Wording  # "160 g"
    measure: str  # "1½ cups"; "" where none tells it
    weigh_it: bool  # a measure is not good enough here
    note: Wording


@dataclass(frozen=True, kw_only=True)
class RecipeGroup:
    """The ingredients of one bowl."""

    title: Wording
    lines: tuple[RecipeLine, ...]


@dataclass(frozen=True, kw_only=True)
class RecipeStep:
    """One sentence or two of the method."""

    id: str
    title: str  # of its group
    text: str  # as it is printed
    computed: str  # as it was worked out
    edited: bool
    stale: bool  # it was edited when something else was computed


@dataclass(frozen=True, kw_only=True)
class Recipe:
    """A formula as it is handed on."""

    name: str
    form: str
    yields: Wording  # "8 pieces of about 87 g"
    pieces: float
    groups: tuple[RecipeGroup, ...]
    steps: tuple[RecipeStep, ...]
    work_min: float  # of waiting, resting, baking and cooling together
    bake_min: float | None
    oven: str  # "177 °C"; "" where nothing is heated
    keeping: Keeping
    cost: Wording  # "0.62 USD per piece"; "" when no price is known
    figures: tuple[tuple[str, str, str], ...]  # name, a piece, per 100 g
    net_carbs: Wording
    incomplete: Wording  # which line has no weight, so that every figure is without it; "" where all have one
    net_rule: Wording
    allergens: tuple[str, ...]
    cautions: tuple[Wording, ...]
    variants: tuple[Variant, ...]
    notes: str
    card: Card


def recipe_of(dough: Dough, *, batches: float = 1.0, tried: Sequence[Formula] = ()) -> Recipe:
    """Make the recipe of a dough. A pure function.

    Args:
        dough: what is made, as its oven is forecast to leave it.
        batches: by which every weight is told.
        tried: formulas made of it, or of which it was made.

    Returns:
        The recipe.

    Raises:
        FormulaError: when there is no dough to make.
    """
    plan = bake_protocol(dough, batches=batches)
    panels = card_of(dough)
    allowed = tolerances(dough)
    pieces = dough.formula.pieces * batches
    price = cost(dough.batch, dough.formula.pieces, dough.settings.currency)
    bake = [step for step in plan.steps if step.group == "bake" and step.kind == "wait" and step.minutes]
    region = dough.settings.convention == "eu"
    return Recipe(
        name=dough.formula.name,
        form=dough.form.name,
        yields=Message(
            "recipe-of-about-g",
            pieces=Quantity(pieces, "number", digits=-1),
            single="yes" if pieces == 1 else "no",
            piece=Quantity(panels.piece_g.value, "g", digits=0),
        ),
        pieces=pieces,
        groups=tuple(_groups(dough, allowed, batches)),
        steps=tuple(_steps(plan, dough.formula.method)),
        work_min=sum(step.minutes or 0 for step in plan.steps if step.id != "preheat"),
        bake_min=sum(step.minutes or 0 for step in bake) or None,
        oven=next((str(Quantity(step.oven_c, "oven", digits=0)) for step in bake if step.oven_c is not None), ""),
        keeping=keeping(dough),
        cost=Message("recipe-per-piece", piece=Quantity(price.piece, "number", digits=2), currency=price.currency)
        if price.priced_share > constant("price_shown_from") and price.piece >= _LEAST_PRICE
        else "",
        figures=tuple(_figures(panels, eu=region)),
        net_carbs=Message(
            "recipe-g",
            estimate=Quantity(
                (panels.eu_net_carbs if region else panels.us_net_carbs).estimate.value, "nutrient", digits=1
            ),
        ),
        incomplete=Message(
            "recipe-incomplete-figures-allergens-and-method", without_weight=without_weight(dough.unweighed)
        )
        if dough.unweighed
        else "",
        net_rule=(panels.eu_net_carbs if region else panels.us_net_carbs).rule,
        allergens=tuple(a.name for a in panels.allergens if not a.traces and ("eu" if region else "us") in a.regions),
        cautions=tuple(caution.text for caution in panels.cautions),
        variants=variants_of(dough, tried, batches=batches),
        notes=dough.formula.notes,
        card=panels,
    )


_LEAST_PRICE = 0.005  # of a piece, that is not printed as nothing


def _groups(dough: Dough, allowed: Mapping[str, Tolerance], batches: float) -> Iterator[RecipeGroup]:
    bowls: dict[Wording, list[RecipeLine]] = {}
    for weighed, bowl, note in weighing_order(dough):
        grams = weighed.grams.value * batches
        measure = kitchen_measure(weighed, grams, dough.settings)
        tolerance = allowed.get(weighed.line.id)
        # A measure that is off by more than what the dough forgives is told to be weighed.
        unsure = (
            bool(measure.text)
            and tolerance is not None
            and measure.half_g > constant("spoon_forgiven") * tolerance.grams * batches
        )
        poured = as_poured(grams)
        row = RecipeLine(
            line=weighed.line.id,
            name=weighed.ingredient.name,
            grams=poured,
            amount=Message("recipe-g-2", poured=Quantity(poured, "g", digits=-1)),
            measure=measure.text,
            weigh_it=unsure,
            note=Joined((weighed.line.treatment, weighed.line.note, note), ", "),
        )
        title = _GROUPS.get(weighed.role) or weighed.line.stage.capitalize() or _GROUPS.get(bowl) or bowl.capitalize()
        bowls.setdefault(title, []).append(row)
    for title, lines in bowls.items():
        yield RecipeGroup(title=title, lines=tuple(lines))


def _steps(plan: RunPlan, edits: Mapping[str, MethodEdit]) -> Iterator[RecipeStep]:
    turned = next((step for step in plan.steps if step.id == "slip:turn"), None)
    turn = f"{turned.text} {turned.target}." if turned else ""
    for step in plan.steps:
        if step.group == "weigh" or step.id in _LOGGED or step.kind == "feel":
            continue
        computed = ingredient_text(step)
        if turn and step.group == "bake" and step.kind == "wait":
            computed, turn = f"{computed} {turn}", ""
        edit = edits.get(step.id)
        if edit is not None and not edit.text.strip():
            continue
        yield RecipeStep(
            id=step.id,
            title=_TITLES[step.group],
            text=edit.text if edit else computed,
            computed=computed,
            edited=edit is not None,
            stale=edit is not None and edit.of not in _renderings(step, computed),
        )


def _renderings(step: RunStep, computed: str) -> tuple[str, ...]:
    """Return a step's sentence in all units: other units of the kitchen do not make the baker's own words out of date."""
    texts = [computed]
    for units in get_args(Units):
        with reading(replace(current_reader(), units=units)):
            texts.append(ingredient_text(step))
    return tuple(texts)


def ingredient_text(step: RunStep) -> str:
    """Return a step of the bench as a sentence of a recipe."""
    text, target, sign = str(step.text).rstrip("."), str(step.target), str(step.sign)
    amount = f", {Quantity(step.grams, 'g', digits=-1)}" if step.kind == "weigh" and step.grams else ""
    minutes = ""
    if step.kind == "wait" and step.minutes and step.id != "preheat":
        length = step.minutes
        minutes = (
            f", {length * 60:.0f} s"
            if length < 1
            else f", {length:.0f} min"
            if length < 91
            else f", {length / 60:.1f} h"
        )
    if step.check_min is not None and step.group == "bake":
        minutes = ""
    parts = [f"{text}{amount}{minutes}"]
    if target and not _repeats(step, text, target) and target.rstrip(" min") not in minutes:
        parts.append(target)
    if sign and sign not in text:
        parts.append(sign)
    return ": ".join((parts[0], "; ".join(part.rstrip(".") for part in parts[1:]))).rstrip(": ") + "."


def _repeats(step: RunStep, text: str, target: str) -> bool:
    """Whether a target tells what the words before it tell already."""
    when = step.kind == "moment" and step.id.startswith(("stage:", "slip:"))
    return target in text or step.bowl == "raw" or when


def _figures(panels: Card, *, eu: bool) -> Iterator[tuple[str, str, str]]:
    """Yield the panel's own figures, so that card and panel say the same; a US panel tells a serving only."""
    panel = panels.eu_panel if eu else panels.us_panel
    for row in panel.rows:
        cells = [cell.text for cell in row.cells]
        yield row.name, cells[-1] if eu else cells[0], cells[0] if eu else ""
