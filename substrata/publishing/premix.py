"""Premix bags: the dry lines of one batch in each bag, and a label that says what to add and how to bake it."""

from __future__ import annotations

import re
from calendar import monthrange
from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import date
from functools import cache

from substrata.base.errors import FormulaError
from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant, read_table
from substrata.evaluation.analysis.phrasing import short_name
from substrata.evaluation.dough import Dough
from substrata.formula.batch.batch_lines import WeighedLine
from substrata.nutrition.allergens import allergens
from substrata.process.preparation.premix import is_dry, premix
from substrata.publishing.recipe import Recipe, RecipeLine, recipe_of

MOST_BAGS = 500
_TRACE_G = 0.05
_WARM = re.compile(r"\d+–\d+ °[CF]")


@dataclass(frozen=True, kw_only=True)
class BagPart:
    """One dry thing of a bag."""

    line: str
    name: str
    grams: float  # in one bag
    whole_g: float  # in all bags


@dataclass(frozen=True, kw_only=True)
class PremixBags:
    """Bags of one formula, and the label of each."""

    name: str
    bags: int
    bag_g: float  # one bag
    whole_g: float
    parts: tuple[BagPart, ...]  # the heaviest first
    add: tuple[Wording, ...]  # "5 eggs, 250 g"
    bake: Wording
    makes: Wording
    allergens: tuple[str, ...]  # of what is in the bag
    to_add_allergens: tuple[str, ...]  # of what is added, where the bag has them not
    made_on: date
    use_by: date
    why_use_by: Wording
    keep: Wording
    words: tuple[Wording, ...]  # the label, line by line


def whole_grams(value: float) -> int:
    """Halves upwards, as the page rounds too.

    >>> whole_grams(322.5)
    323

    Returns:
        Whole grams.
    """
    return int(value + 0.5)


@cache
def _keeping() -> dict[str, tuple[int, str]]:
    return {
        row.text("key"): (int(row.number_in("months", 1, 60)), row.text("why"))
        for row in read_table("premix_keeping.csv")
    }


def premix_bags(dough: Dough, *, bags: int, packed_on: date) -> PremixBags:
    """Bags of the dry things of a dough; a bag makes one batch.

    Args:
        dough: what is made of a bag, as its oven is forecast to leave it.
        bags: how many, 1 to 500.
        packed_on: the day they are filled.

    Returns:
        The bags and their label.

    Raises:
        FormulaError: when so many bags cannot be, or fewer than two lines are dry.
    """
    if not 1 <= bags <= MOST_BAGS:
        raise FormulaError(
            "too many bags",
            got=str(bags),
            allowed=f"1 to {MOST_BAGS}",
            remedy="correct the number",
            field="bags",
        )
    blend = premix(dough.batch, bags, dict.fromkeys({w.role for w in dough.batch.lines}, ""))
    if blend is None:
        raise FormulaError(
            "this formula has no dry premix",
            got="fewer than two dry ingredients",
            remedy="pack the dry ingredients separately",
            field="lines",
        )
    recipe = recipe_of(dough)
    dry = [w for w in dough.batch.lines if is_dry(w) and w.grams.value > 0]
    use_by, why = min(_ends(dry, packed_on), key=lambda end: end[0])
    inside = _allergens(dough, {w.line.id for w in dry})
    later = _allergens(dough, {w.line.id for w in dough.batch.lines} - {w.line.id for w in dry})
    keep = Joined((Message("premix-keep-airtight-cool-and-dark"), *blend.cautions))
    add, bake = tuple(_added(recipe, dough, {w.line.id for w in dry})), _bake(recipe)
    return PremixBags(
        name=recipe.name,
        bags=bags,
        bag_g=blend.per_batch_g,
        whole_g=blend.whole_g,
        parts=tuple(BagPart(line=p.line, name=p.name, grams=p.grams, whole_g=p.whole_g) for p in blend.parts),
        add=add,
        bake=bake,
        makes=recipe.yields,
        allergens=inside,
        to_add_allergens=tuple(name for name in later if name not in inside),
        made_on=packed_on,
        use_by=use_by,
        why_use_by=why,
        keep=keep,
        words=(
            Message(
                "premix-premix-for-g",
                recipe_name=recipe.name,
                bag=Quantity(whole_grams(blend.per_batch_g), "g", digits=0),
            ),
            Message("premix-add", add=Joined(add, ", ")) if add else Message("premix-nothing-to-add"),
            bake,
            Message("premix-makes", yields=recipe.yields),
            Message("premix-contains", inside=", ".join(inside))
            if inside
            else Message("premix-contains-none-of-the-listed"),
            f"Made {packed_on:%d %b %Y}. Use by {use_by:%d %b %Y}.",
            keep,
        ),
    )


def _ends(dry: list[WeighedLine], packed_on: date) -> Iterator[tuple[date, Wording]]:
    """Until when each thing lets the bag be kept, and why."""
    for line in dry:
        ingredient = line.ingredient
        fatty = line.role in ("base", "fibre") and ingredient.composition["fat_g"] >= constant("fatty_meal")
        key = "fatty" if fatty else "dairy" if "milk" in ingredient.flags else "lift" if line.role == "lift" else "dry"
        months, why = _keeping()[key]
        yield _later(packed_on, months), Message("premix-parts-4", ingredient_name=short_name(ingredient.name), why=why)
        if ingredient.pack is not None and ingredient.pack.use_by is not None:
            yield (
                ingredient.pack.use_by,
                Message("premix-the-use-by-date-of", ingredient_name=short_name(ingredient.name)),
            )


def _later(day: date, months: int) -> date:
    """Return the same day some months later, or the last of a shorter month.

    >>> _later(date(2026, 12, 31), 2)
    datetime.date(2027, 2, 28)
    """
    number = day.month - 1 + months
    year, month = day.year + number // 12, number % 12 + 1
    return day.replace(year=year, month=month, day=min(day.day, monthrange(year, month)[1]))


def _allergens(dough: Dough, lines: set[str]) -> tuple[str, ...]:
    batch = replace(dough.formula, lines=tuple(line for line in dough.formula.lines if line.id in lines))
    region = "eu" if dough.settings.convention == "eu" else "us"
    allergens_here = allergens(Dough(batch, dough.library, dough.settings).batch)
    return tuple(a.name for a in allergens_here if not a.traces and region in a.regions)


def _added(recipe: Recipe, dough: Dough, inside: set[str]) -> Iterator[Wording]:
    """Yield what is not in the bag: counted things as counted, the rest by weight."""
    treated = {w.line.id: w.line.treatment for w in dough.batch.lines}
    for line in (line for group in recipe.groups for line in group.lines):
        if line.line not in inside and line.grams > _TRACE_G:
            yield _amount(line, treated.get(line.line, ""))


def _amount(line: RecipeLine, treatment: str) -> Wording:
    """Return an amount as a label has room for: what was done to it before, and how warm water is to be."""
    name = short_name(line.name)
    warm = _WARM.search(str(line.note)) if name == "water" else None
    counted = line.measure and "egg" in line.measure
    text = (
        Message("premix-parts", measure=line.measure, amount=line.amount)
        if counted
        else Message("premix-parts-2", amount=line.amount, name=name)
    )
    return Message("premix-parts-3", text=text, warm=warm.group() if warm else treatment) if warm or treatment else text


def _bake(recipe: Recipe) -> Wording:
    if recipe.bake_min is None or not recipe.oven:
        return Message("premix-bake-as-described-in-the")
    return Message("premix-bake-about-min-at", bake=Quantity(recipe.bake_min, "min", digits=0), oven=recipe.oven)
