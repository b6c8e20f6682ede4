"""The pantry: packs beside the reference, found, read, kept and put away."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from django.db.models import F, QuerySet

from kitchen.models import Lot, Membership
from kitchen.services.judging import all_packs, core_settings, library_of, pack_ingredient
from substrata import Settings, load_library, read_document
from substrata.base import Convention, PolyolRule
from substrata.formula import CheaperPack, cheaper_packs, weigh_formula
from substrata.ingredients import (
    Ingredient,
)
from substrata.nutrition import Compared, compare

LONGEST_LIST = 200
MOST_COMPARED = 6
MOST_OFFERS = 300  # packs looked at for a cheaper one


@dataclass(frozen=True, kw_only=True)
class PantryQuery:
    """What to look for in the pantry."""

    search: str = ""  # words of the name
    role: str = ""  # only of this role
    without: str = ""  # only what has no flag starting so: "nut:", "milk"
    ingredient: str = ""  # only packs of this one
    own: bool = False  # packs only
    archived: bool = False  # packs put away instead


@dataclass(frozen=True, kw_only=True)
class PantryList:
    """A page of the pantry: packs first, then the reference."""

    packs: list[tuple[Lot, Compared]]
    references: list[Compared]
    pack_count: int
    reference_count: int


def find(member: Membership, query: PantryQuery, *, offset: int = 0, limit: int = 60) -> PantryList:
    """Find a page of what fits: a fixed number of queries, however many packs there are."""
    rows, settings = packs(member, query), core_settings(member.kitchen)
    count = rows.count()
    row = list(rows[offset : offset + limit])
    compared = compare([lot.key for lot in row], all_packs(row), settings)
    references = [] if query.own or query.archived else _references(query)
    start = max(offset - count, 0)
    page = references[start : start + limit - len(row)] if limit > len(row) else []
    plain = _compared_references(settings.convention, settings.polyol_rule)
    return PantryList(
        packs=list(zip(row, compared, strict=True)),
        references=[plain[key] for key in page],
        pack_count=count,
        reference_count=len(references),
    )


def _references(query: PantryQuery) -> list[str]:
    library = load_library()
    keys = library.names.search(query.search, len(library)) if query.search.strip() else [i.id for i in library]
    banned = set(flags_starting(query.without)) if query.without else set()
    return [
        key
        for key in keys
        if (not query.role or library[key].role == query.role)
        and not banned & library[key].flags
        and query.ingredient in ("", key)
    ]


@lru_cache(maxsize=8)
def _compared_references(convention: Convention, rule: PolyolRule) -> dict[str, Compared]:
    """Every reference ingredient as it is listed."""
    library = load_library()
    settings = Settings(convention=convention, polyol_rule=rule)
    return {compared.key: compared for compared in compare([i.id for i in library], library, settings)}


def packs(member: Membership, query: PantryQuery) -> QuerySet[Lot]:
    """Packs of the member's kitchen that fit, the last touched first."""
    rows = Lot.objects.filter(kitchen_id=member.kitchen_id, archived_at__isnull=not query.archived)
    for word in query.search.split()[:8]:
        rows = rows.filter(name__icontains=word)
    if query.role:
        rows = rows.filter(role=query.role)
    if query.ingredient:
        rows = rows.filter(ingredient=query.ingredient)
    if query.without:
        rows = rows.exclude(flags__overlap=flags_starting(query.without))
    return rows.order_by("-touched_at", "-pk")


def flags_starting(prefix: str) -> list[str]:
    """All flags of the shipped library that start so."""
    return sorted({flag for i in load_library() for flag in i.flags if flag.startswith(prefix)} | {prefix})


def packs_of(member: Membership, ingredient: str) -> QuerySet[Lot]:
    """Packs of one ingredient, in the order in which they should be used up."""
    rows = Lot.objects.filter(kitchen_id=member.kitchen_id, ingredient=ingredient, archived_at__isnull=True)
    return rows.order_by(F("use_by").asc(nulls_last=True), F("bought_on").asc(nulls_last=True), "pk")


@dataclass(frozen=True, kw_only=True)
class OpenIngredient:
    """A reference ingredient with the kitchen's packs of it."""

    ingredient: Ingredient
    compared: Compared
    packs: list[tuple[Lot, Compared]]


def open_ingredient(member: Membership, ingredient: str) -> OpenIngredient:
    """All that is known of a reference ingredient.

    Returns:
        The ingredient with its packs.

    Raises:
        UnknownIngredient: when the library has none of this id.
    """
    row = load_library()[ingredient]
    settings = core_settings(member.kitchen)
    lots = list(packs_of(member, row.id)[:LONGEST_LIST])
    compared = compare([lot.key for lot in lots], all_packs(lots), settings)
    return OpenIngredient(
        ingredient=row,
        compared=_compared_references(settings.convention, settings.polyol_rule)[row.id],
        packs=list(zip(lots, compared, strict=True)),
    )


def side_by_side(member: Membership, keys: list[str]) -> tuple[Compared, ...]:
    """Ingredients and packs side by side.

    Returns:
        The compared entries in the order asked for.

    Raises:
        UnknownIngredient: when one is in neither.
    """
    chosen = keys[:MOST_COMPARED]
    row = Lot.objects.filter(kitchen_id=member.kitchen_id, key__in=chosen)
    return compare(chosen, all_packs(row), core_settings(member.kitchen))


def cheaper(member: Membership, document: dict[str, Any]) -> tuple[CheaperPack, ...]:
    """Packs of the kitchen that would do the same work for less."""
    kitchen = member.kitchen
    formula, library, settings = read_document(document), library_of(kitchen, document), core_settings(kitchen)
    batch, _ = weigh_formula(formula, library, settings)
    roles = {w.ingredient.role for w in batch.lines}
    rows = packs(member, PantryQuery()).filter(role__in=roles, document__price__isnull=False)[:MOST_OFFERS]
    offers = [pack_ingredient(lot) for lot in rows]
    return cheaper_packs(batch, offers, formula.pieces, settings.currency)
