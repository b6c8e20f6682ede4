"""The card of a formula: its first part, what the law and the eater want to know."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from substrata.batch.baked import baked
from substrata.batch.propagate import Estimate, Sheet
from substrata.batch.weighed import Batch, Problem, weigh_formula
from substrata.formula.form import form_of
from substrata.formula.formula import Formula
from substrata.nutrition.allergens import Allergen, allergens
from substrata.nutrition.claims import Claim, claims
from substrata.nutrition.facts import nutrition, nutrition_ratios
from substrata.nutrition.net_carbs import CONVENTIONS
from substrata.nutrition.panel import Panel, panel, panel_ratios
from substrata.nutrition.statement import Statement, statement
from substrata.pantry.library import Library
from substrata.quantities.tables import Row, read_table
from substrata.settings import Settings


@dataclass(frozen=True, kw_only=True)
class Caution:
    """Something to print with the food."""

    code: str
    text: str
    source: str


@dataclass(frozen=True, kw_only=True)
class Card:
    """All that is printed with a formula."""

    name: str
    form: str
    pieces: int
    piece_g: Estimate
    net_carbs: Estimate  # a piece
    convention: str
    convention_rule: str
    us_panel: Panel
    eu_panel: Panel
    us_statement: Statement
    eu_statement: Statement
    allergens: tuple[Allergen, ...]
    claims: tuple[Claim, ...]  # those that hold
    unsure: tuple[Claim, ...]  # those that want a certificate first
    cautions: tuple[Caution, ...]
    problems: tuple[Problem, ...]


def card(formula: Formula, library: Library, settings: Settings) -> Card:
    """Make the card of a formula. A pure function.

    Raises:
        FormulaError: when the form is unknown.
    """
    batch, problems = weigh_formula(formula, library, settings)
    form = form_of(formula.form)
    sheet = Sheet(batch, nutrition_ratios(batch, formula, settings) | panel_ratios(batch, formula))
    facts = nutrition(formula, sheet)
    left = baked(batch, formula).left
    judged = claims(batch, settings, complete=not problems)
    return Card(
        name=formula.name,
        form=form.name,
        pieces=formula.pieces,
        piece_g=facts.piece.grams,
        net_carbs=facts.piece.net_carbs,
        convention=settings.convention,
        convention_rule=CONVENTIONS[settings.convention],
        us_panel=panel("us", formula, sheet, facts),
        eu_panel=panel("eu", formula, sheet, facts),
        us_statement=statement(batch, "us", left),
        eu_statement=statement(batch, "eu", left),
        allergens=allergens(batch),
        claims=tuple(c for c in judged if c.verdict == "holds" and not c.hint),
        unsure=tuple(c for c in judged if c.verdict == "unsure" and not c.hint),
        cautions=tuple(_cautions(batch)),
        problems=problems,
    )


def _cautions(batch: Batch) -> Iterator[Caution]:
    said = set()
    for row in read_table("card_cautions.csv"):
        if row.text("text") not in said and _concerns(row, batch):
            said.add(row.text("text"))
            yield Caution(code=row.text("code"), text=row.text("text"), source=row.text("source"))


def _concerns(row: Row, batch: Batch) -> bool:
    kind, _, match = row.text("when").partition(":")
    if kind == "role":
        return any(w.role == match for w in batch.lines)
    if kind == "id":
        return any(w.ingredient.id == match for w in batch.lines)
    return kind == "always" or any(match in w.ingredient.flags for w in batch.lines)
