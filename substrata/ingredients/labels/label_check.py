"""Does a pack's label make sense: in itself, beside its ingredient, and if not, which slip would explain it.

Laws fix what a label must add up to (21 CFR 101.9; EU 1169/2011); how far a pack may lie from the
reference is common practice.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from substrata.base.tables.table_reader import constant
from substrata.ingredients.ingredient import Ingredient
from substrata.ingredients.labels.label_mistakes import FAR_SDS, Mistake, likely_mistake
from substrata.ingredients.labels.label_sums import (
    KJ_PER_KCAL,
    distances,
    energy_closes,
    energy_range,
    figure_that_would_close,
    impossibilities,
    parts_g,
)
from substrata.ingredients.labels.pack_reading import PackFigure, measures_of_lot, read_pack
from substrata.ingredients.labels.statement_facts import statement_facts
from substrata.ingredients.library import Library
from substrata.ingredients.pack import Lot
from substrata.ingredients.printed_label import FIGURES, Label

Severity = Literal["wrong", "odd", "note"]


@dataclass(frozen=True, kw_only=True)
class Finding:
    """One thing about a label that a baker should look at."""

    code: str
    severity: Severity  # wrong: cannot be; odd: look again; note: good to know
    text: str
    figures: tuple[str, ...] = ()  # the figures it is about


@dataclass(frozen=True, kw_only=True)
class LabelCheck:
    """All that is to be said about a label."""

    findings: tuple[Finding, ...]
    mistake: Mistake | None

    @property
    def passes(self) -> bool:
        """True when nothing is wrong or odd."""
        return self.mistake is None and all(f.severity == "note" for f in self.findings)


def check_lot(lot: Lot, ingredient: Ingredient, library: Library) -> LabelCheck:
    """Look a pack over.

    Args:
        lot: the pack; without a label there is nothing to find.
        ingredient: the reference it is a pack of.
        library: other ingredients it could be.

    Returns:
        Findings and likely mistakes.

    Raises:
        LabelError: when a figure cannot be read.
    """
    label = lot.label
    if label is None:
        return LabelCheck(findings=tuple(_listed(lot, ingredient)), mistake=None)
    findings = [
        *_listed(lot, ingredient),
        *_impossible(label),
        *_energy(label, ingredient),
        *_far(label, ingredient),
        *_density(lot, ingredient),
        *_hidden(label),
        *_silent(label, ingredient),
    ]
    order = ("wrong", "odd", "note")
    return LabelCheck(
        findings=tuple(sorted(findings, key=lambda f: order.index(f.severity))),
        mistake=likely_mistake(label, ingredient, library),
    )


def _name(figure: str) -> str:
    return FIGURES[figure].lower()


def _listed(lot: Lot, ingredient: Ingredient) -> Iterator[Finding]:
    """Yield what its own ingredient list brings that its kind does not."""
    facts = statement_facts(lot.statement)
    fresh = facts.contains - ingredient.flags
    if fresh:
        named = sorted({word for flag, word in facts.words if flag in fresh})
        yield Finding(
            code="list-brings",
            severity="note",
            text=f"The ingredient list names {', '.join(named)}. This is counted for allergens, claims, and cautions.",
        )
    traces = facts.may_contain - ingredient.flags
    if traces:
        named = sorted({word for flag, word in facts.words if flag in traces})
        yield Finding(
            code="list-traces", severity="note", text=f"The ingredient list warns of traces of {', '.join(named)}."
        )


def _impossible(label: Label) -> Iterator[Finding]:
    for code, figures in impossibilities(label):
        if code == "parts-over-whole":
            text = f"The nutrients add up to at least {parts_g(label):.0f} g in a {label.per_g:g} g serving."
        else:
            text = f"More {_name(figures[0])} than {_name(figures[1])}."
            if code == "fibre-over-whole":
                text += " US labels include fiber in carbohydrate."
        yield Finding(code=code, severity="wrong", text=text, figures=figures)


def _energy(label: Label, ingredient: Ingredient) -> Iterator[Finding]:
    lawful = energy_range(label, ingredient)
    if lawful is not None and not energy_closes(label, ingredient):
        text = f"Calories do not add up: fat, carbohydrate, and protein give {lawful.low:.0f} to {lawful.high:.0f} kcal, but the label says {label.figures['energy_kcal']} kcal."
        wrong = figure_that_would_close(label, ingredient)
        if wrong is not None:
            key, factor = wrong
            text += f" {FIGURES[key]} {label.figures[key]} g: about {factor:.0f} g would fit."
        yield Finding(
            code="energy", severity="wrong", text=text, figures=("energy_kcal", *(() if wrong is None else (wrong[0],)))
        )
    kcal, kj = label.number("energy_kcal"), label.number("energy_kj")
    if kcal and kj and abs(kj / KJ_PER_KCAL - kcal) > max(0.03 * kcal, 2):
        text = f"{kj:g} kJ are {kj / KJ_PER_KCAL:.0f} kcal, the label says {kcal:g}."
        yield Finding(code="kj-kcal", severity="odd", text=text, figures=("energy_kj", "energy_kcal"))


def _far(label: Label, ingredient: Ingredient) -> Iterator[Finding]:
    reading = {figure.nutrient: figure for figure in read_pack(label, ingredient)}
    short = ingredient.name.partition(",")[0].lower()
    far = {key: z for key, z in distances(label, ingredient).items() if z > FAR_SDS}
    if "protein_g" in far and _above(reading, "protein_g") and not _above(reading, "fat_g") and "fat_g" in far:
        yield Finding(
            code="defatted",
            severity="odd",
            text=f"This {short} looks like a defatted flour (protein and fat values), so it will absorb more water.",
            figures=("protein_g", "fat_g"),
        )
        far = {key: z for key, z in far.items() if key not in ("protein_g", "fat_g")}
    for key in far:
        figure = reading[key]
        unit = key.rpartition("_")[2]
        text = (
            f"{FIGURES[key]} {figure.value:.{0 if unit == 'mg' else 1}f} {unit} per 100 g; {short} usually has "
            f"{figure.reference.low:.3g} to {figure.reference.high:.3g}."
        )
        yield Finding(code=f"far-{key.rpartition('_')[0]}", severity="odd", text=text, figures=(key,))


def _above(reading: dict[str, PackFigure], key: str) -> bool:
    return reading[key].value > reading[key].reference.value


def _density(lot: Lot, ingredient: Ingredient) -> Iterator[Finding]:
    measures = measures_of_lot(lot, ingredient)
    for key, measure in measures.items():
        usual = ingredient.measures.get(key)
        if measure.source != "serving on the pack" or usual is None:
            continue
        grams = measure.grams.value
        if (
            not usual.grams.low / constant("serving_density_room")
            <= grams
            <= usual.grams.high * constant("serving_density_room")
        ):
            text = f"By this serving size, a {key} would weigh {grams:.3g} g. Usual: {usual.grams.low:.3g} to {usual.grams.high:.3g} g."
            yield Finding(code="density", severity="odd", text=text, figures=())


def _hidden(label: Label) -> Iterator[Finding]:
    hiding = {}
    for key in ("carbohydrate_g", "sugars_g", "fat_g", "protein_g"):
        most = label.per_100g(key)
        if most is not None and label.hides(key) and most.high >= constant("zero_hides_g"):
            hiding[key] = most.high
    if hiding:
        names = ", ".join(_name(key) for key in hiding)
        text = f"A printed 0 or <1 in {label.per_g:g} g can hide up to {max(hiding.values()):.0f} g per 100 g: {names}."
        yield Finding(code="hidden", severity="note", text=text, figures=tuple(hiding))


def _silent(label: Label, ingredient: Ingredient) -> Iterator[Finding]:
    if (
        "fibre_g" not in label.intervals
        and "carbohydrate_g" in label.intervals
        and ingredient.composition["fibre_g"] > 1
    ):
        text = f"No fiber on the label. Reference value used: {ingredient.composition['fibre_g']:.0f} g per 100 g."
        yield Finding(code="no-fibre", severity="note", text=text, figures=("fibre_g",))
    polyols = ingredient.composition["erythritol_g"] + ingredient.composition["polyols_g"]
    if "polyols_g" not in label.intervals and polyols > 1:
        text = "The label does not name its polyols: their share is taken from the reference."
        yield Finding(code="no-polyols", severity="note", text=text, figures=("polyols_g",))
