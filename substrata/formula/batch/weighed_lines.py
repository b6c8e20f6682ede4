"""Every line turned into grams: what could be weighed, and what could not and why."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import replace
from functools import lru_cache
from math import hypot

from substrata.base.amounts import parse_amount
from substrata.base.errors import AmountError, FormulaError, SubstrataError
from substrata.base.settings import Settings
from substrata.base.tables.table_reader import constant
from substrata.base.uncertainty import Spread
from substrata.base.units import unit
from substrata.formula.batch.batch_lines import FLESH, FRYING, Batch, LineProblem, WeighedLine
from substrata.formula.batch.sub_recipes import part_ingredient
from substrata.formula.form_table import form_of, roles
from substrata.formula.formula import Formula, Line
from substrata.ingredients.amount_to_grams import mass_half, weigh
from substrata.ingredients.ingredient import Ingredient
from substrata.ingredients.library import Library
from substrata.ingredients.vegetable_drying import Dried, dry, dry_to, start_for

_NOTHING_G = 1e-6  # lighter than any scale could tell from nothing
USUAL_FRYING_FAT = "sunflower-oil"  # high oleic: a plain taste and a high smoke point
_parse = lru_cache(maxsize=4096)(parse_amount)


def weigh_formula(formula: Formula, library: Library, settings: Settings) -> tuple[Batch, tuple[LineProblem, ...]]:
    """Weigh every line; a line that cannot be weighed becomes a problem and the rest is kept."""
    weighed, problems = [], []
    for line in formula.lines:
        try:
            weighed.append(weigh_line(line, library, settings))
        except SubstrataError as error:
            known_as = library[line.ingredient].name if line.ingredient in library else ""
            problems.append(LineProblem.of(error, line.id, known_as))
    weighed = _with_flesh_inside(formula, weighed)
    known = library.with_packs(w.ingredient for w in weighed if w.line.part is not None)
    return Batch([*weighed, *_frying_fat(formula, weighed, library)], known), tuple(problems)


def reweigh_formula(
    batch: Batch, formula: Formula, changed: Collection[str], library: Library, settings: Settings
) -> Batch | None:
    """Return the batch with other grams in some lines; None where all has to be weighed again.

    Args:
        batch: of the formula before; every line of it could be weighed.
        formula: the formula now: the same lines, in the same order.
        changed: ids of the lines with other grams.
        library: the ingredients.
        settings: the kitchen's choices.
    """
    dough_lines = [w for w in batch.lines if w.role != FRYING]
    if len(dough_lines) != len(formula.lines) or any(w.line.id in changed and w.dried is not None for w in dough_lines):
        return None
    try:
        lines = [
            weigh_line(now, library, settings) if now.id in changed else w
            for w, now in zip(dough_lines, formula.lines, strict=True)
        ]
    except SubstrataError:
        return None
    lines = _with_flesh_inside(formula, lines)
    if any(now.role != w.role for now, w in zip(lines, dough_lines, strict=True)):
        return None
    lines += _frying_fat(formula, lines, library)
    return batch.with_lines(lines) if len(lines) == len(batch.lines) else None


def _with_flesh_inside(formula: Formula, weighed: Sequence[WeighedLine]) -> list[WeighedLine]:
    """Return the lines, with meat and fish in the dough where they are most of it.

    They lie on or in a crust unless they are so much of it that they are the crust. A form that takes a filling and a bake that is
    topped have another place for them; a role that was chosen stays.
    """
    lines = list(weighed)
    flesh = [n for n, w in enumerate(lines) if not w.line.role and _is_fresh_flesh(w)]
    if not flesh or form_of(formula.form).filled or any(stage.kind == "top" for stage in formula.bake.stages):
        return lines
    whole = sum(w.grams.value for w in lines)
    if sum(lines[n].grams.value for n in flesh) >= constant("flesh_dough") * whole:
        for n in flesh:
            lines[n] = replace(lines[n], role=FLESH, in_dough=True)
    return lines


def _is_fresh_flesh(weighed: WeighedLine) -> bool:
    """Whether a line is meat or fish, and neither a fat nor dried."""
    ingredient = weighed.ingredient
    return (
        not ingredient.flags.isdisjoint(("meat", "fish"))
        and not roles()[ingredient.role].in_dough
        and ingredient.composition["water_g"] >= 100 * constant("fresh_food_water")
    )


def is_fried(formula: Formula) -> bool:
    """Whether the form is one that is fried, and the baker has not chosen the oven."""
    return form_of(formula.form).fat_absorbed.value > 0 and formula.bake.fried != "baked"


def _frying_fat(formula: Formula, weighed: Sequence[WeighedLine], library: Library) -> list[WeighedLine]:
    """Return what a fried piece takes up, as a line of its own after the dough: it is eaten, and counts in every figure."""
    dough = sum(w.grams.value for w in weighed if w.in_dough)
    if not is_fried(formula) or dough <= 0:
        return []
    fat = library[formula.bake.frying_fat or USUAL_FRYING_FAT]
    grams = form_of(formula.form).fat_absorbed.scaled(dough * _soaked(formula))
    line = Line(id=FRYING, ingredient=fat.id, grams=grams.value, role="topping")
    return [WeighedLine(line=line, ingredient=fat, grams=grams, role=FRYING, in_dough=False)]


def _soaked(formula: Formula) -> float:
    """How much more fat is taken up than at the usual heat: cool oil soaks in while the crust is slow to close (common practice)."""
    usual, chosen = form_of(formula.form).oven_c, formula.bake.oven_c
    if chosen is None:
        return 1.0
    return min(max(1 + constant("fat_per_k") * (usual - chosen), 0.8), 2.0)


def part_of_line(line: Line, library: Library, settings: Settings) -> Ingredient | None:
    """Return a line's part as an ingredient of its own; None for a line that has none.

    Raises:
        FormulaError: when the part cannot be weighed, or contains itself.
    """
    if line.part is None:
        return None
    return part_ingredient(line.part, library, settings, weigh_formula)


def weigh_line(line: Line, library: Library, settings: Settings) -> WeighedLine:
    """Grams of one line with their spread.

    Returns:
        The line with its grams and spread.

    Raises:
        SubstrataError: when the ingredient is unknown or the amount cannot be right.
    """
    ingredient = part_of_line(line, library, settings) or library.pack_or_ingredient(line.ingredient, line.lot)
    grams = _grams(line, ingredient, settings)
    most = constant("line_limit_kg") * 1000
    if grams.value < 0 or grams.value > most:
        raise FormulaError(
            "the weight cannot be right",
            got=f"{grams.value:g} g",
            allowed=f"0 to {most:g} g",
            remedy="check for a typing error",
            field="grams",
        )
    if grams.value < _NOTHING_G:
        grams = Spread(value=0.0, low=0.0, high=grams.high)
    role = line.role or ingredient.role
    return WeighedLine(
        line=line,
        ingredient=ingredient,
        grams=grams,
        role=role,
        in_dough=roles()[role].in_dough,
        dried=_dried(line, ingredient, grams.value),
    )


def _grams(line: Line, ingredient: Ingredient, settings: Settings) -> Spread:
    if line.grams is None:
        if not line.entered.strip():
            raise AmountError(
                "no amount given",
                got="nothing",
                allowed="grams, or a measure such as 1 cup",
                remedy="enter an amount",
                field="entered",
            )
        return weigh(_parse(line.entered), ingredient, settings)
    # The grams stand; how they were measured tells how sure they are.
    half = _scale_half(line.entered)
    if half is not None:
        return Spread.around(line.grams, half)
    try:
        measured = weigh(_parse(line.entered), ingredient, settings) if line.entered else None
    except AmountError:
        measured = None
    if measured is None or not measured.value:
        half = abs(line.grams) * constant("unmeasured_spread") if line.entered else constant("scale_resolution")
    else:
        half = (measured.high - measured.low) / 2 * abs(line.grams) / measured.value
    return Spread.around(line.grams, half)


def read_from_scale(line: Line) -> bool:
    """Whether a line's grams were read from a scale and not made of spoons, cups or pieces."""
    return line.grams is not None and (not line.entered.strip() or _scale_half(line.entered) is not None)


@lru_cache(maxsize=4096)
def _scale_half(entered: str) -> float | None:
    """Half-range of an amount that was read from a scale, in g, whatever it is of; None for any other."""
    try:
        terms = _parse(entered).terms
    except AmountError:
        return None
    if not all(term.unit and unit(term.unit).kind == "mass" and term.number for term in terms):
        return None
    return hypot(*(mass_half(term) for term in terms))


def _dried(line: Line, ingredient: Ingredient, grams: float) -> Dried | None:
    """Return what the line's preparation makes of it; None for a line that goes in as it is."""
    if line.prep is None or not line.prep.steps or grams <= 0:
        return None
    raw, steps, start = ingredient.composition, line.prep.steps, line.prep.start_g
    if line.prep.weighed and start:
        return dry_to(raw, steps, start, grams)
    return dry(raw, steps, start_for(raw, steps, grams))
