"""A formula as an ingredient of another: what a gram of the finished part is made of, does, holds and costs.

Everything that adds up is added up, so a formula with its part is worth exactly what all of its lines together are; what only leaves
as steam is water. A part's doubt keeps its own lines together: two lines of one flour in one part share theirs.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from hashlib import sha256
from weakref import WeakKeyDictionary

import numpy as np
import orjson

from substrata.base.documents.records import write_record
from substrata.base.errors import FormulaError
from substrata.base.settings import Settings
from substrata.base.uncertainty import Spread
from substrata.formula.batch.batch_lines import FRYING, Batch, LineProblem
from substrata.formula.formula import MOST_PARTS_DEEP, PART, Formula, Part
from substrata.ingredients.composition import NUTRIENTS, Composition
from substrata.ingredients.groups import is_in_group
from substrata.ingredients.ingredient import BEHAVIOURS, Ingredient, Parameter
from substrata.ingredients.library import Floats, Library
from substrata.ingredients.pack import Lot

# By what a number of behaviour is averaged: a gram of the part for what adds up, else what it speaks of.
_BY = {
    "water_availability": "water_g",
    "heat_set": "binding",
    "uptake_minutes": "capacity",
    "uptake_energy": "capacity",
    "gel_part": "capacity",
    "gum_c0": "gum_share",
    "gum_power": "gum_share",
    "soluble_fibre": "fibre_g",
    "polyol_energy": "polyols_g",
    "lubricates": "fat_g",
}
Weigh = Callable[[Formula, Library, Settings], tuple[Batch, tuple[LineProblem, ...]]]
_CACHE: WeakKeyDictionary[Library, dict[tuple[str, Settings], Ingredient]] = WeakKeyDictionary()
_CACHE_SIZE = 200


def part_ingredient(part: Part, library: Library, settings: Settings, weigh: Weigh) -> Ingredient:
    """Return a part as an ingredient.

    Args:
        part: the formula, as it was pinned, and what it loses before it goes in.
        library: the ingredients.
        settings: the kitchen's choices.
        weigh: weighs the lines of a formula; a part is weighed as any formula is.

    Raises:
        FormulaError: when a line of it cannot be weighed, it is empty, or it contains itself.
    """
    no_circle(part)
    key = sha256(orjson.dumps(write_record(part), option=orjson.OPT_SORT_KEYS)).hexdigest()[:24]
    cached = _CACHE.setdefault(library, {})
    if (key, settings) not in cached:
        if len(cached) >= _CACHE_SIZE:
            cached.clear()
        cached[key, settings] = _part_ingredient(part, f"part-{key}", library, settings, weigh)
    return cached[key, settings]


def no_circle(part: Part, path: Sequence[tuple[str, str]] = ()) -> None:
    """Refuse a part that contains itself.

    Args:
        part: to look at.
        path: keys and names of the formulas it lies in.

    Raises:
        FormulaError: with the path of the circle.
    """
    here = (*path, (part.key, part.formula.name))
    if (part.key and part.key in {key for key, _ in path}) or len(here) > MOST_PARTS_DEEP:
        raise FormulaError(
            "the formula contains itself" if len(here) <= MOST_PARTS_DEEP else "sub-recipes are nested too deep",
            got=" in ".join(name or "a formula" for _, name in reversed(here)),
            allowed="sub-recipes that do not contain this formula",
            remedy="remove the sub-recipe",
            field="part",
        )
    for line in part.formula.lines:
        if line.part is not None:
            no_circle(line.part, here)


def keys_in(formula: Formula) -> frozenset[str]:
    """Keys of all formulas that lie in a formula, however deep."""
    keys = (line.part for line in formula.lines if line.part is not None)
    return frozenset().union(*({part.key} | keys_in(part.formula) for part in keys))


def _part_ingredient(part: Part, key: str, library: Library, settings: Settings, weigh: Weigh) -> Ingredient:
    batch, problems = weigh(part.formula, library, settings)
    name = part.formula.name or "a part"
    if problems:
        raise FormulaError(
            f"an ingredient of {name} has no usable weight",
            got=f"{problems[0].line}: {problems[0].what}",
            allowed="a sub-recipe in which every ingredient has a weight",
            remedy="fix the sub-recipe",
            field="part",
        )
    raw = float(batch.grams.sum())
    finished = raw * (1 - part.loss_percent / 100)
    water = float(batch.grams @ batch.nutrient("water_g")[0])
    if raw <= 0 or raw - finished > water + 1e-9:
        raise FormulaError(
            f"the loss of {name} is too high" if raw > 0 else f"{name} is empty",
            got=f"{part.loss_percent:g} % of {raw:.0f} g",
            allowed=f"up to the {water:.0f} g of water in it" if raw > 0 else "a sub-recipe with ingredients",
            remedy="enter a smaller loss" if raw > 0 else "add its ingredients",
            field="part",
        )
    flags = frozenset().union(*(w.ingredient.flags for w in batch.lines if w.grams.value > 0))
    return Ingredient(
        id=PART,
        name=name,
        role="filling",
        flags=flags,
        composition=_composition(batch, finished, raw - finished),
        behaviour=_behaviour(batch, finished),
        measures={},
        aliases=(),
        source=f"its own lines{f', version {part.number}' if part.number else ''}",
        spread_source="its own lines",
        pack=_pack(batch, key, name, finished),
    )


def _composition(batch: Batch, finished: float, lost: float) -> Composition:
    values, sds = batch.composition
    amounts: Floats = batch.grams @ values
    amounts[NUTRIENTS.index("water_g")] -= lost
    # Lines of one ingredient err together; of two, apart.
    each = batch.grams[:, None] * sds
    doubt = np.sqrt(np.maximum(np.einsum("ik,ij,jk->k", each, batch.same, each), 0.0))
    doubt = np.hypot(doubt, np.sqrt(((batch.grams_sd[:, None] * values) ** 2).sum(axis=0)))
    return Composition(values=tuple((100 * amounts / finished).tolist()), sds=tuple((100 * doubt / finished).tolist()))


def _behaviour(batch: Batch, finished: float) -> dict[str, Parameter]:
    columns = {name: np.array([w.ingredient.parameter(name).value for w in batch.lines]) for name in BEHAVIOURS}
    behaviour = {}
    for name, default in BEHAVIOURS.items():
        by = _BY.get(name)
        if by is None:
            weight, whole = batch.grams, finished
        else:
            basis = columns[by] if by in columns else batch.nutrient(by)[0]
            weight = batch.grams * basis
            whole = float(weight.sum())
        value = float(weight @ columns[name]) / whole if whole > 0 else default
        if value != default:
            behaviour[name] = Parameter(
                spread=Spread(value=value, low=0.85 * value, high=1.15 * value), unit="", source="its own lines"
            )
    return behaviour


def _pack(batch: Batch, key: str, name: str, finished: float) -> Lot:
    """Return what stands on a pack, of the part: its price when all of it has one, its statement, traces and certificates."""
    present = [w for w in batch.lines if w.grams.value > 0]
    packs = [w.ingredient.pack for w in present]
    prices = [
        0.0 if is_in_group(w.ingredient, "water") else w.ingredient.pack.price_per_g if w.ingredient.pack else None
        for w in present
    ]
    priced = [price * w.grams.value for price, w in zip(prices, present, strict=True) if price is not None]
    certificates = [pack.certificates if pack else frozenset[str]() for pack in packs]
    heaviest = sorted((w for w in present if w.role != FRYING), key=lambda w: -w.grams.value)
    return Lot(
        key=key,
        ingredient=PART,
        name=name,
        price=sum(priced) if len(priced) == len(present) else None,
        pack_g=finished,
        may_contain=frozenset().union(*(pack.may_contain for pack in packs if pack)),
        certificates=frozenset.intersection(*certificates) if certificates else frozenset(),
        statement=", ".join(_pack_statement(w.ingredient) for w in heaviest)[:2000],
    )


def _pack_statement(ingredient: Ingredient) -> str:
    """As it stands in a statement, with what it is made of where that is a part again."""
    head, _, tail = ingredient.name.partition(",")
    statement = ingredient.pack.statement if ingredient.pack else ""
    name = f"{head[:1].lower()}{head[1:]}{tail}"
    return f"{name} ({statement})" if statement else name
