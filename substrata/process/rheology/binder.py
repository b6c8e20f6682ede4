"""Binder load: binding power in whole-egg equivalents per 100 g weighted dry base (a house scale).

One egg equivalent is what one 50 g egg, set by heat, does. The heat-set share is a separate axis: psyllium
holds a raw dough but sets only in part.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache, lru_cache
from math import exp, log

import numpy as np

from substrata.base.tables.table_reader import Row, constant, read_table
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.propagation import Estimate, Ratio, Sheet
from substrata.formula.form_table import Form, Window
from substrata.formula.formula import Formula
from substrata.ingredients.library import Floats
from substrata.process.rheology.cheese import cheese_share
from substrata.process.rheology.target_handling import poured_share
from substrata.process.rheology.taste import cheese_salt_percent


@dataclass(frozen=True, kw_only=True)
class LimitReading:
    """How much of one binder the dough holds against its cap."""

    name: str
    percent: float  # of the dough
    soft_percent: float
    hard_percent: float
    effect: str  # what too much of it does
    lines: tuple[str, ...]


@dataclass(frozen=True, kw_only=True)
class Structure:
    """What carries the dough, and how that moves its windows: by degrees, so that no gram makes it another dough."""

    name: str  # "" when flour and binder carry it, as the form expects
    window: Window  # of the binder load
    water_fill: Window
    forgives: float  # times the upper bound of the water, from which it fails: a batter of egg is poured, and sets what there is
    salt: Window


@dataclass(frozen=True, kw_only=True)
class Binder:
    """What holds the dough together."""

    load: Estimate  # egg equivalents per 100 g weighted dry base
    heat_set: Estimate  # share of the load that sets in the oven, 0..1
    matrix: Structure
    heat_set_least: float
    caps: tuple[LimitReading, ...]  # binders present that have a cap


@dataclass(frozen=True, kw_only=True)
class IngredientLimit:
    """The most of a binder that a form takes."""

    name: str
    form: str  # "*" for every form that has no row of its own
    ingredients: frozenset[str]
    soft: float
    hard: float
    without_cheese: float  # times as much where there is no cheese to hold the dough
    effect: str


@cache
def _caps() -> tuple[IngredientLimit, ...]:
    return tuple(
        IngredientLimit(
            name=row.text("cap"),
            form=row.text("form"),
            ingredients=frozenset(row.text("ingredients").split()),
            soft=row.number_in("soft_percent", 0, 100),
            hard=row.number_in("hard_percent", 0, 100),
            without_cheese=row.number_in("without_cheese", 1),
            effect=row.text("effect"),
        )
        for row in read_table("caps.csv")
    )


@cache
def _caps_of(form: str) -> tuple[IngredientLimit, ...]:
    by_name = {cap.name: cap for cap in _caps() if cap.form == "*"}
    return tuple((by_name | {cap.name: cap for cap in _caps() if cap.form == form}).values())


def ingredient_limits(form: str, batch: Batch) -> tuple[IngredientLimit, ...]:
    """Return the caps that hold for a form: a rope of cheese takes little psyllium, one that psyllium holds is made of it."""
    bare = max(1 - cheese_share(batch.dough()) / constant("cheese_holds_rope"), 0.0)
    return tuple(
        replace(cap, soft=cap.soft * cap.without_cheese**bare, hard=cap.hard * cap.without_cheese**bare)
        if bare and cap.without_cheese > 1
        else cap
        for cap in _caps_of(form)
    )


def binder(sheet: Sheet, form: Form, matrix: Structure) -> Binder:
    """Binder load, heat-set share and caps; the sheet holds ``binder_load`` and ``heat_set``."""
    batch = sheet.batch
    return Binder(
        load=sheet.estimate("binder_load"),
        heat_set=sheet.estimate("heat_set"),
        heat_set_least=form.heat_set_least,
        matrix=matrix,
        caps=_readings(batch, form),
    )


@dataclass(frozen=True, kw_only=True)
class _Carrier:
    """Something that can carry a dough instead of flour and binder."""

    name: str
    roles: frozenset[str]
    ingredients: frozenset[str]
    share_from: float  # of the dough, from which it counts
    share_full: float  # at which it carries alone
    binder: Window
    water_fill: Window
    in_batter: Window  # its water where it has to flow until it is filled
    forms: frozenset[str]  # that it carries; none told are all
    without_base: bool  # it sets by itself, without anything dry


@cache
def _carriers() -> tuple[_Carrier, ...]:
    def carrier(row: Row) -> _Carrier:
        counted = row.text("counts").split()
        return _Carrier(
            name=row.text("name"),
            roles=frozenset(c.removeprefix("role:") for c in counted if c.startswith("role:")),
            ingredients=frozenset(c for c in counted if not c.startswith("role:")),
            share_from=row.number_in("share_from", 0, 1),
            share_full=row.number_in("share_full", 0, 1),
            binder=Window(low=row.number_in("binder_low", 0), high=row.number_in("binder_high", 0)),
            water_fill=Window(low=row.number_in("water_low", 0), high=row.number_in("water_high", 0)),
            in_batter=Window(
                low=row.number_in("batter_water_low" if row.text("batter_water_low") else "water_low", 0),
                high=row.number_in("water_high", 0),
            ),
            forms=frozenset(row.text("forms").split()),
            without_base=row.text("without_base") == "1",
        )

    return tuple(carrier(row) for row in read_table("matrices.csv"))


def _belongs(batch: Batch) -> Floats:
    """Which of the n lines, by role and ingredient, count for each carrier, shape (carriers, n)."""
    return _counting(tuple((w.role, w.ingredient.id) for w in batch.lines))


@lru_cache(maxsize=256)
def _counting(lines: tuple[tuple[str, str], ...]) -> Floats:
    rows = [[float(r in c.roles or i in c.ingredients) for r, i in lines] for c in _carriers()]
    return np.array(rows).reshape(len(rows), len(lines))


def dough_structure(batch: Batch, form: Form, formula: Formula) -> Structure:
    """Return what carries the dough: flour and binder, and by degrees whatever else is there to do it (``matrices.csv``)."""
    if not batch.dough_g:
        return Structure(name="", window=form.binder, water_fill=form.water_fill, forgives=1.0, salt=form.salt)
    shares = batch.once(_belongs) @ batch.grams / batch.dough_g
    weights = [
        min(max((share - c.share_from) / (c.share_full - c.share_from), 0.0), 1.0)
        if not c.forms or form.id in c.forms
        else 0.0
        for c, share in zip(_carriers(), shares.tolist(), strict=True)
    ]
    whole = max(sum(weights), 1.0)
    carried = [(c, weight / whole) for c, weight in zip(_carriers(), weights, strict=True) if weight]
    most = max(carried, key=lambda pair: pair[1], default=None)
    batter = form.dough_kind == "batter"
    # Beside very little that is dry, a ratio to it says nothing of too much where egg or cheese sets by itself.
    alone = sum(weight for c, weight in carried if c.without_base)
    some = constant("dry_base_least") * batch.dough_g
    bare = (
        min(max(some / max(batch.dry_base_g, some / constant("load_bound_lift")), 1.0), constant("load_bound_lift"))
        ** alone
    )
    sweet = float(batch.grams @ batch.is_role("sweetener")) / batch.dough_g
    return Structure(
        name=most[0].name if most and most[1] > constant("binder_named_from") else "",
        window=_blended(form.binder, [(c.binder, w) for c, w in carried]),
        water_fill=_opened(
            _blended(form.water_fill, [(c.in_batter if batter else c.water_fill, w) for c, w in carried]),
            bare,
        ),
        forgives=constant("poured_forgives") ** poured_share(batch.dough(), formula),
        salt=_salted(form.salt, cheese_salt_percent(batch), sweet),
    )


def _salted(window: Window, cheese_salt: float, sweet: float) -> Window:
    """Return the salt range, opened upwards for cheese and downwards for sweetness.

    A crisp of hard cheese is as salty as its cheese, and meant to be; what is added to that is too much. A cake needs no salt.
    """
    low = window.low if window.low is None else window.low / (1 + (sweet / constant("cake_sweetener")) ** 2)
    high = window.high if window.high is None else max(window.high, constant("cheese_salt_share") * cheese_salt)
    return Window(low=low, high=high)


def _opened(window: Window, factor: float) -> Window:
    """Return a window whose upper bound is so many times as high."""
    return window if window.high is None else Window(low=window.low, high=window.high * factor)


def _blended(window: Window, others: list[tuple[Window, float]]) -> Window:
    """Between windows, in the logarithm: bounds are ratios."""

    def bound(single: float | None, bounds: list[tuple[float | None, float]]) -> float | None:
        if single is None or not bounds:
            return single
        return exp(log(single) + sum(weight * log(other / single) for other, weight in bounds if other))

    return Window(
        low=bound(window.low, [(w.low, weight) for w, weight in others]),
        high=bound(window.high, [(w.high, weight) for w, weight in others]),
    )


def load_ratio(batch: Batch) -> Ratio:
    """Return the binder load as a ratio over the lines: ``100 · Σ binding / max(Σ base, a quarter of the dough)``.

    Where there is hardly a dry base, egg and gum set the dough itself: then its own weight is what they have to hold. The larger of
    both counts, so that the load moves without a jump as the flour goes to nothing.
    """
    top, bottom = batch.behaviour("binding"), batch.behaviour("base_weight")
    if float(batch.grams @ bottom[0]) < constant("dry_base_least") * batch.dough_g:
        bottom = constant("dry_base_least") * batch.inside, batch.nothing
    return Ratio(top=top, bottom=bottom, unit="eggs / 100 g", scale=100.0)


def heat_set_ratio(batch: Batch) -> Ratio:
    """Share of the load that sets by heat; the binding power's own spread cancels in it."""
    power, _ = batch.behaviour("binding")
    share, share_sd = batch.behaviour("heat_set")
    return Ratio(top=(power * share, power * share_sd), bottom=(power, np.zeros(len(power))), unit="", most=1.0)


def _readings(batch: Batch, form: Form) -> tuple[LimitReading, ...]:
    rows = []
    for cap in ingredient_limits(form.id, batch):
        lines = [w for w in batch.lines if w.ingredient.id in cap.ingredients]
        grams = sum(w.grams.value for w in lines)
        if grams > 0:
            rows.append(
                LimitReading(
                    name=cap.name,
                    percent=100 * grams / batch.dough_g,
                    soft_percent=cap.soft,
                    hard_percent=cap.hard,
                    effect=cap.effect,
                    lines=tuple(w.line.id for w in lines),
                )
            )
    return tuple(rows)
