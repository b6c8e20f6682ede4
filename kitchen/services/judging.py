"""The core, with a kitchen's choices and its packs."""

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Any

from kitchen.models import Kitchen, Lot
from substrata import Analysis, Library, Settings, analyse, load_library, read_document
from substrata.base import Lesson, read_settings, science_mark
from substrata.evaluation import (
    Dough,
    FigureChange,
    PrepPlan,
    Scaled,
    ScaleWish,
    analyse_dough,
    changes,
    fails,
    plan_preparation,
    scale,
)
from substrata.formula import MOST_PARTS_DEEP, PastedLine, import_text
from substrata.ingredients import Ingredient, ingredient_of_lot, read_lot

# Of the tables and the code that reads them: thumbs of another mark are drawn anew.
SCIENCE_MARK = science_mark()


def thumb_mark(kitchen: Kitchen) -> str:
    """Which state of the science and of the kitchen's choices a thumb was drawn by."""
    return f"{SCIENCE_MARK} {kitchen.convention} {kitchen.polyol_rule}"


def core_settings(kitchen: Kitchen) -> Settings:
    """Return a kitchen's choices and learned lessons as the core's settings."""
    return replace(house_settings(kitchen), lessons=_lessons(kitchen))


def _lessons(kitchen: Kitchen) -> tuple[Lesson, ...]:
    off = set(kitchen.lessons_off)
    return tuple(Lesson(**row) for row in kitchen.lessons if row["block"].partition(":")[0] not in off)


def house_settings(kitchen: Kitchen) -> Settings:
    """Return a kitchen's choices as the core's settings, without what its runs have taught."""
    return read_settings(settings_document(kitchen))


def settings_document(kitchen: Kitchen) -> dict[str, Any]:
    """Return a kitchen's choices, eaters and pans as the core's settings document."""
    choices = {name: getattr(kitchen, name) for name in Kitchen.SETTINGS}
    eaters = [{"name": eater.name, "budgets": eater.budgets} for eater in kitchen.eaters.all()]
    return {**choices, "eaters": eaters, "pans": kitchen.pans}


def packs_named(document: dict[str, Any], deep: int = 0) -> frozenset[str]:
    """Keys of the packs that a document's lines, and its parts' lines, are taken from."""
    lines = document.get("lines")
    rows = [line for line in lines if isinstance(line, dict)] if isinstance(lines, list) else []
    keys = frozenset(key for line in rows if isinstance(key := line.get("lot"), str) and key)
    parts = [
        part["formula"]
        for line in rows
        if isinstance(part := line.get("part"), dict) and isinstance(part.get("formula"), dict)
    ]
    return keys.union(*(packs_named(part, deep + 1) for part in parts)) if deep < MOST_PARTS_DEEP else keys


def library_of(kitchen: Kitchen, *documents: dict[str, Any]) -> Library:
    """Return the shipped library and the packs of this kitchen that the documents name."""
    return kitchen_library(kitchen.pk, kitchen.revision, frozenset().union(*map(packs_named, documents)))


@lru_cache(maxsize=64)
def kitchen_library(kitchen_id: int, revision: int, keys: frozenset[str]) -> Library:  # noqa: ARG001 - tells the cache apart
    """Return the shipped library and some packs of a kitchen.

    Args:
        kitchen_id: whose packs; those of another kitchen are not found.
        revision: of the kitchen; a changed pack is another library.
        keys: of the packs; unknown ones are left out, and the reference answers for them.
    """
    if not keys:
        return load_library()
    return load_library().with_packs(map(pack_ingredient, Lot.objects.filter(kitchen_id=kitchen_id, key__in=keys)))


@dataclass(frozen=True)
class _CachedPack:
    """A pack as it was kept: the same key and lock are the same document."""

    key: str
    lock: int
    document: dict[str, Any] = field(compare=False)


@lru_cache(maxsize=2048)
def _pack_ingredient(cached: _CachedPack) -> Ingredient:
    lot = read_lot(cached.document, cached.key)
    return ingredient_of_lot(lot, load_library()[lot.ingredient])


def pack_ingredient(lot: Lot) -> Ingredient:
    """Return a pack as the core sees it; read once, since lists show the same packs again and again."""
    return _pack_ingredient(_CachedPack(lot.key, lot.lock, lot.document))


def all_packs(lots: Iterable[Lot]) -> Library:
    """Return the shipped library and all of these packs."""
    return load_library().with_packs(map(pack_ingredient, lots))


def judge(library: Library, settings: Settings, document: dict[str, Any]) -> Analysis:
    """Analyse a document by a kitchen's choices.

    Returns:
        The analysis.

    Raises:
        FormulaError: when the document cannot be read.
    """
    return analyse(read_document(document), library, settings)


@dataclass(frozen=True, kw_only=True)
class Prepared:
    """What is to be done, and what the last change did."""

    plan: PrepPlan
    changes: tuple[FigureChange, ...]


def prepare(
    library: Library, settings: Settings, document: dict[str, Any], before: dict[str, Any] | None = None
) -> Prepared:
    """Prepare the cards of a document, and the figures that moved since the one before.

    Returns:
        The preparation tasks and the figures that moved.

    Raises:
        FormulaError: when a document cannot be read.
    """
    dough = Dough(read_document(document), library, settings)
    moved: tuple[FigureChange, ...] = ()
    if before is not None:
        moved = changes(analyse(read_document(before), library, settings), analyse_dough(dough))
    return Prepared(plan=plan_preparation(dough), changes=moved)


def scale_document(kitchen: Kitchen, document: dict[str, Any], wish: ScaleWish) -> Scaled:
    """More or less of a document's dough, by a kitchen's measures and packs.

    Returns:
        The scaled document.

    Raises:
        SubstrataError: when it cannot be read or scaled.
    """
    return scale(Dough(read_document(document), library_of(kitchen, document), core_settings(kitchen)), wish)


def read_paste(text: str, kitchen: Kitchen) -> tuple[PastedLine, ...]:
    """Read a pasted ingredient list by a kitchen's measures.

    Returns:
        The lines, one for each pasted row.

    Raises:
        FormulaError: when it is too long.
    """
    return import_text(text, load_library(), core_settings(kitchen))


def shelf_thumb(kitchen: Kitchen, document: dict[str, Any]) -> dict[str, Any]:
    """Return what the shelf shows of a formula: its strata and the two figures one looks for."""
    judged = judge(library_of(kitchen, document), core_settings(kitchen), document)
    piece = judged.nutrition.piece
    return {
        "strata": [{"role": line.role, "code": line.code, "share": round(line.share, 4)} for line in judged.lines],
        # Rounded once, where it is shown: twice makes 4.5502 a 4.5 here and a 4.6 at the bench.
        "net_carbs": piece.net_carbs.value,
        "protein": piece.protein.value,
        "pieces": document["form"]["pieces"],
        "outside": sum(b.primary and fails(b.state) for b in judged.brackets),
        "problems": len(judged.problems),
        "convention": kitchen.convention,
    }
