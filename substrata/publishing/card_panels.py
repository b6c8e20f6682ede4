"""The card of a formula: its first part, what the law and the eater want to know."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.settings import Convention, Settings
from substrata.base.tables.table_reader import Row, constant, read_table
from substrata.base.tables.table_texts import table_text
from substrata.evaluation.dough import Dough
from substrata.formula.batch.batch_lines import Batch, LineProblem
from substrata.formula.batch.propagation import Estimate
from substrata.formula.formula import Formula
from substrata.ingredients.labels.label_rounding import LabelStyle
from substrata.ingredients.library import Library
from substrata.nutrition.allergens import Allergen, allergens
from substrata.nutrition.claims import Claim, claims
from substrata.nutrition.ingredient_statement import Statement, statement
from substrata.nutrition.net_carbs import CONVENTIONS, polyols_percent
from substrata.nutrition.nutrition_facts import Nutrition
from substrata.nutrition.nutrition_panel import Panel, panel
from substrata.process.baking.oven_profile import OvenProfile


@dataclass(frozen=True, kw_only=True)
class Caution:
    """Something to print with the food."""

    code: str
    text: Wording
    source: str


@dataclass(frozen=True, kw_only=True)
class NetCarbs:
    """Net carbs of a piece, and by which rule."""

    estimate: Estimate
    rule: Wording


@dataclass(frozen=True, kw_only=True)
class Card:
    """All that is printed with a formula."""

    name: str
    form: str
    pieces: int
    piece_g: Estimate
    us_net_carbs: NetCarbs
    eu_net_carbs: NetCarbs
    us_panel: Panel
    eu_panel: Panel
    us_statement: Statement
    eu_statement: Statement
    allergens: tuple[Allergen, ...]
    claims: tuple[Claim, ...]  # those that hold
    unsure: tuple[Claim, ...]  # those that want a certificate first
    cautions: tuple[Caution, ...]
    problems: tuple[LineProblem, ...]


def card(
    formula: Formula,
    library: Library,
    settings: Settings,
    profile: OvenProfile = OvenProfile(),  # noqa: B008 - frozen
) -> Card:
    """Make the card of a formula, as the oven is forecast to leave it. A pure function.

    Returns:
        The card's panels.

    Raises:
        FormulaError: when the form is unknown.
    """
    return card_of(Dough(formula, library, settings, profile).as_baked())


def card_of(dough: Dough) -> Card:
    """Make the card of a dough; see ``card``."""
    formula, batch, settings = dough.formula, dough.batch, dough.settings
    sheet, facts, after = dough.panel_sheet, dough.nutrition, dough.baked
    judged_claims = claims(batch, settings, unweighed=dough.unweighed)
    return Card(
        name=formula.name,
        form=dough.form.name,
        pieces=formula.pieces,
        piece_g=facts.piece.grams,
        us_net_carbs=_net_carbs(facts, "us", settings),
        eu_net_carbs=_net_carbs(facts, "eu", settings),
        us_panel=panel("us", formula, sheet, facts, after),
        eu_panel=panel("eu", formula, sheet, facts, after),
        us_statement=statement(batch, "us", after.remaining),
        eu_statement=statement(batch, "eu", after.remaining),
        allergens=allergens(batch),
        claims=tuple(c for c in judged_claims if c.verdict == "holds" and not c.hint),
        unsure=tuple(c for c in judged_claims if c.verdict == "unsure" and not c.hint),
        cautions=(*_not_low_carb(facts), *_cautions(batch, after.bake_to_g)),
        problems=dough.problems,
    )


def _net_carbs(facts: Nutrition, region: LabelStyle, settings: Settings) -> NetCarbs:
    """By the rule of the card's region, so that it goes with the panel beside it; a kitchen that takes nothing off does so on both."""
    convention: Convention = "total" if settings.convention == "total" else region
    by_convention = {"us": facts.net_carbs_us, "eu": facts.net_carbs_eu, "total": facts.net_carbs_total}
    return NetCarbs(estimate=by_convention[convention], rule=CONVENTIONS[convention])


def _not_low_carb(facts: Nutrition) -> Iterator[Caution]:
    """Yield, of a piece with as much net carbohydrate as a slice of wheat bread, that it is not low-carb."""
    net = facts.piece.net_carbs.value
    if net > constant("not_low_carb_g"):
        text = Message("card-panels-not-low-carb", net=Quantity(net, "g", digits=0))
        yield Caution(code="not-low-carb", text=text, source="common caution")


def _cautions(batch: Batch, baked_g: float) -> Iterator[Caution]:
    texts = set()
    for row in read_table("card_cautions.csv"):
        text = table_text(row.text("text"))
        if text not in texts and _concerns(row, batch, baked_g):
            texts.add(text)
            yield Caution(code=row.text("code"), text=text, source=row.text("source"))


def _concerns(row: Row, batch: Batch, baked_g: float) -> bool:
    kind, _, match = row.text("when").partition(":")
    if kind == "role":
        return any(w.role == match for w in batch.lines)
    if kind == "id":
        return any(w.ingredient.id in match.split() for w in batch.lines)
    if kind == "polyols_over":
        return polyols_percent(batch, baked_g) > float(match)
    return kind == "always" or any(match in w.ingredient.flags for w in batch.lines)
