"""The label of a pack for sale, and what is still missing before it may be sold. Local rules come first."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from substrata.ingredients.labels.label_rounding import LabelStyle
from substrata.nutrition.ingredient_statement import StatementPart
from substrata.publishing.recipe import Recipe


@dataclass(frozen=True, kw_only=True)
class Business:
    """Who sells it, as the baker says."""

    name: str = ""
    address: str = ""
    pieces_a_pack: int = 1
    lot: str = ""


@dataclass(frozen=True, kw_only=True)
class PackLabel:
    """What stands on a pack (21 CFR 101; EU 1169/2011 article 9)."""

    style: LabelStyle
    name: str
    statement: tuple[StatementPart, ...]
    contains: str
    words: tuple[str, ...]  # net weight, best before, business, mandatory sentences
    panel: tuple[tuple[str, str], ...]
    missing: tuple[str, ...]  # before it may be sold


def pack_label(recipe: Recipe, style: LabelStyle, business: Business, *, baked_on: date) -> PackLabel:
    """Return the label of a pack.

    Args:
        recipe: what is in it.
        style: us or eu.
        business: who sells it.
        baked_on: the day it was baked.
    """
    card = recipe.card
    statement = card.us_statement if style == "us" else card.eu_statement
    panel = card.us_panel if style == "us" else card.eu_panel
    grams = card.piece_g.value * business.pieces_a_pack
    days = recipe.keeping.room_days or recipe.keeping.fridge_days or 0
    until = baked_on + timedelta(days=days)
    net = f"Net Wt {grams / 28.349523125:.1f} oz ({grams:.0f} g)" if style == "us" else f"{grams:.0f} g"
    # EU 1169/2011, article 24(1): what is highly perishable has a "use by" date.
    eu_word = "Use by" if recipe.keeping.chill_within_hours else "Best before"
    word = "Best by" if style == "us" else eu_word
    cool = "" if recipe.keeping.room_days else " Keep refrigerated."
    sweet = any(c.code == "with-sweetener" for c in card.cautions)
    laxative = [str(c.text) for c in card.cautions if c.code == "polyol-laxative"]
    words = [net, f"{word} {until:%d %b %Y}.{cool}"]
    if business.name or business.address:
        words.append(", ".join(filter(None, (business.name, business.address))))
    if business.lot:
        words.append(f"Lot {business.lot}")
    if style == "eu":
        words += laxative
    name = f"{recipe.name} with sweetener(s)" if style == "eu" and sweet else recipe.name
    return PackLabel(
        style=style,
        name=name,
        statement=statement.parts,
        contains=statement.contains,
        words=tuple(words),
        panel=tuple((row.name, row.cells[0].text if row.cells else "") for row in panel.rows),
        missing=tuple(_missing(recipe, style, business, to_read=bool(statement.to_read))),
    )


def _missing(recipe: Recipe, style: LabelStyle, business: Business, *, to_read: bool) -> list[str]:
    missing = []
    if not business.name:
        missing.append("the name of the business")
    if not business.address:
        missing.append("its address")
    if to_read:
        missing.append("the ingredient lists of your compound ingredients")
    if recipe.card.problems:
        missing.append("ingredients without a usable weight are not in these figures")
    missing.append("have the shelf life tested, or ask your local authority: this date is a rule of thumb")
    missing.append("the figures are computed: ask whether your authority wants an analysis")
    if style == "us":
        missing.append("whether your state's cottage-food rules allow it, and their sentence for the label")
    else:
        missing.append("registration as a food business, and a batch number if no date is printed")
        if any(c.code == "allulose-eu" for c in recipe.card.cautions):
            missing.append("allulose may not be sold in the European Union")
    return missing
