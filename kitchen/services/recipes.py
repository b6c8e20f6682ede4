"""What is handed on: recipes, files, labels, read-only cards; and recipes that come in."""

import secrets
from collections.abc import Sequence
from datetime import date
from typing import Any

from django.db import transaction
from django.db.models import Q

from kitchen.errors import NotFound, Refused
from kitchen.models import Formula as FormulaRow
from kitchen.models import Membership, Share
from kitchen.services.access import formula_of, record, require
from kitchen.services.judging import core_settings
from kitchen.services.ovens import dough_in, named_profile
from substrata import load_library, read_document
from substrata.evaluation import Dough, variety_formula
from substrata.formula import FileRecipe, Formula, PastedLine, file_recipe, import_text
from substrata.ingredients import LabelStyle
from substrata.publishing import (
    PAPERS,
    TEXT_STYLES,
    Business,
    PackLabel,
    PremixBags,
    Recipe,
    as_pdf,
    as_xlsx,
    bag_html,
    core_png,
    label_html,
    pack_label,
    premix_bags,
    recipe_html,
    recipe_of,
    written,
)

MOST_BATCHES = 200.0
_MOST_TRIED = 6
_TYPES = {
    "text": ("txt", "text/plain; charset=utf-8"),
    "markdown": ("md", "text/markdown; charset=utf-8"),
    "csv": ("csv", "text/csv; charset=utf-8"),
    "jsonld": ("json", "application/ld+json"),
    "xlsx": ("xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"),
    "png": ("png", "image/png"),
    **{f"pdf-{paper}": ("pdf", "application/pdf") for paper in PAPERS},
}


def recipe_document(
    member: Membership,
    document: dict[str, Any],
    batches: float = 1.0,
    sort: str = "",
    formula_id: int | None = None,
) -> Recipe:
    """Return the recipe of a document, with the forecast of the oven it names.

    Args:
        member: who asks, in their kitchen.
        document: the formula.
        batches: by which every weight is told.
        sort: one of its sorts alone.
        formula_id: on whose shelf it stands: what was made of it counts among its variants.

    Raises:
        FormulaError: when the document cannot be read, or there is no dough.
        Refused: when too many batches.
    """
    return _recipe(member, document, batches, sort, _tried(member, formula_id))


def _tried(member: Membership, formula_id: int | None) -> list[Formula]:
    """Return what was made of a formula, and what it was made of, as each stands now; the last touched first."""
    if formula_id is None:
        return []
    mine = FormulaRow.objects.filter(kitchen_id=member.kitchen_id, archived_at=None)
    kin = mine.filter(Q(forked_from_id=formula_id) | Q(forks=formula_id)).exclude(pk=formula_id)
    return [
        read_document(row.draft.document) for row in kin.select_related("draft").order_by("-touched_at")[:_MOST_TRIED]
    ]


def _recipe(
    member: Membership,
    document: dict[str, Any],
    batches: float = 1.0,
    sort: str = "",
    tried: Sequence[Formula] = (),
) -> Recipe:
    if not 0.05 <= batches <= MOST_BATCHES:
        raise Refused("too many batches", got=f"{batches:g}", allowed=f"0.05 to {MOST_BATCHES:g}", field="batches")
    formula = read_document(document)
    if sort:
        chosen_sort = next((candidate for candidate in formula.sorts if candidate.name == sort), None)
        if chosen_sort is None:
            raise Refused(
                "sort not found",
                got=sort[:40],
                allowed=", ".join(s.name for s in formula.sorts) or "none",
                field="sort",
            )
        formula = variety_formula(formula, chosen_sort)
    return recipe_of(_baked(member, document, formula), batches=batches, tried=() if sort else tried)


def _baked(member: Membership, document: dict[str, Any], formula: Formula | None = None) -> Dough:
    """Return the dough of a document, with the forecast of the oven it names."""
    formula = formula or read_document(document)
    return dough_in(member, formula, document, named_profile(member, formula.bake.oven)).as_baked()


def recipe_file(
    member: Membership,
    document: dict[str, Any],
    style: str,
    batches: float = 1.0,
    sort: str = "",
    formula_id: int | None = None,
) -> tuple[str, str, bytes]:
    """Return a recipe as a file.

    Returns:
        Its name, its media type and its bytes.

    Raises:
        Refused: when the style is unknown.
    """
    if style not in _TYPES:
        raise Refused("file not found", got=style[:20], allowed=", ".join(_TYPES), field="style")
    recipe = _recipe(member, document, batches, sort, _tried(member, formula_id))
    ending, kind = _TYPES[style]
    if style == "png":
        formula = read_document(document)
        data = core_png(dough_in(member, formula, document, named_profile(member, formula.bake.oven)))
    elif style in TEXT_STYLES:
        data = written(recipe, style).encode("utf8")
    elif style == "xlsx":
        data = as_xlsx(recipe)
    else:
        data = as_pdf(recipe_html(recipe, style.removeprefix("pdf-")))  # type: ignore[arg-type]  # of PAPERS
    name = "".join(c if c.isalnum() or c in " -" else "" for c in recipe.name).strip()[:60] or "recipe"
    return f"{name}.{ending}", kind, data


def label_of(
    member: Membership, document: dict[str, Any], style: LabelStyle, business: Business, baked_on: date
) -> PackLabel:
    """Return the label of a pack for sale and what it still lacks."""
    return pack_label(recipe_document(member, document), style, business, baked_on=baked_on)


def bags_of(member: Membership, document: dict[str, Any], bags: int, packed_on: date) -> PremixBags:
    """Premix bags of a document, without keeping it."""
    return premix_bags(_baked(member, document), bags=bags, packed_on=packed_on)


def bags_file(bags: PremixBags, width_mm: float, height_mm: float) -> bytes:
    """Return the label of each bag, one a page, as PDF.

    Raises:
        Refused: when it has no room.
    """
    _has_room(width_mm, height_mm)
    return as_pdf(bag_html(bags, (width_mm, height_mm)))


def label_file(label: PackLabel, width_mm: float, height_mm: float) -> bytes:
    """Return a label as PDF.

    Raises:
        Refused: when it has no room.
    """
    _has_room(width_mm, height_mm)
    return as_pdf(label_html(label, (width_mm, height_mm)))


def _has_room(width_mm: float, height_mm: float) -> None:
    if not (30 <= width_mm <= 210 and 20 <= height_mm <= 297):
        raise Refused(
            "this label is too large",
            got=f"{width_mm:g} × {height_mm:g} mm",
            allowed="30 × 20 to 210 × 297 mm",
            field="width_mm",
        )


def read_recipe_file(member: Membership, data: bytes, name: str) -> tuple[FileRecipe, tuple[PastedLine, ...]]:
    """Return what a file of any kind holds, read by the kitchen's measures; nothing is kept.

    Raises:
        FormulaError: when it is none.
    """
    recipe = file_recipe(data, name)
    if recipe.document is not None:
        read_document(recipe.document)
        return recipe, ()
    return recipe, import_text(recipe.text[:20_000], load_library(), core_settings(member.kitchen))


def share_of(member: Membership, formula_id: int) -> Share | None:
    """Return the address of a formula's card; None when it has none."""
    return Share.objects.filter(formula=formula_of(member, formula_id)).first()


@transaction.atomic
def change_share(member: Membership, formula_id: int, *, on: bool) -> Share | None:
    """Give a formula's card an address, or take it away; what was given out before never works again."""
    require(member, "formulas.share")
    formula = formula_of(member, formula_id, lock=True)
    Share.objects.filter(formula=formula).delete()
    record(member, "formula.share" if on else "formula.unshare", formula)
    if not on:
        return None
    return Share.objects.create(
        kitchen_id=member.kitchen_id, formula=formula, key=secrets.token_urlsafe(30), created_by=member.user
    )


def shared_card(key: str) -> str:
    """Return the card behind an address, as a page.

    Raises:
        NotFound: when nothing is there (any more).
    """
    share = Share.objects.select_related("formula__draft").filter(key=key).first() if 20 <= len(key) <= 48 else None
    member = Membership.objects.select_related("kitchen").filter(kitchen_id=share.kitchen_id).first() if share else None
    if share is None or member is None or share.formula.archived_at:
        raise NotFound("card not found", got="this address", remedy="ask the person who shared it")
    newest = share.formula.versions.order_by("-number").first()
    return recipe_html(_recipe(member, newest.document if newest else share.formula.draft.document))
