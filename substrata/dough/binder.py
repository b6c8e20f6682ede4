"""Binder load: binding power in whole-egg equivalents per 100 g weighted dry base (a house scale).

One egg equivalent is what one 50 g egg, set by heat, does. The heat-set share is a separate axis: psyllium
holds a raw dough but sets only in part.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

import numpy as np

from substrata.batch.propagate import Estimate, Ratio, Sheet
from substrata.batch.weighed import Batch
from substrata.formula.form import Form, Window
from substrata.quantities.tables import read_table


@dataclass(frozen=True, kw_only=True)
class CapReading:
    """How much of one binder the dough holds against its cap."""

    name: str
    percent: float  # of the dough
    soft_percent: float
    hard_percent: float
    effect: str  # what too much of it does
    lines: tuple[str, ...]


@dataclass(frozen=True, kw_only=True)
class Matrix:
    """What carries the dough, and how that changes its windows."""

    name: str  # "" when flour and binder carry it, as the form expects
    window: Window  # of the binder load
    judges_water: bool  # whether the form's water fill applies


@dataclass(frozen=True, kw_only=True)
class Binder:
    """What holds the dough together."""

    load: Estimate  # egg equivalents per 100 g weighted dry base
    heat_set: Estimate  # share of the load that sets in the oven, 0..1
    matrix: Matrix
    heat_set_least: float
    caps: tuple[CapReading, ...]  # binders present that have a cap


@dataclass(frozen=True, kw_only=True)
class _Cap:
    name: str
    ingredients: frozenset[str]
    soft: float
    hard: float
    effect: str


@cache
def _caps() -> tuple[_Cap, ...]:
    return tuple(
        _Cap(
            name=row.text("cap"),
            ingredients=frozenset(row.text("ingredients").split()),
            soft=row.number_in("soft_percent", 0, 100),
            hard=row.number_in("hard_percent", 0, 100),
            effect=row.text("effect"),
        )
        for row in read_table("caps.csv")
    )


def binder(sheet: Sheet, form: Form) -> Binder:
    """Binder load, heat-set share and caps; the sheet holds ``binder_load`` and ``heat_set``."""
    batch = sheet.batch
    return Binder(
        load=sheet.estimate("binder_load"),
        heat_set=sheet.estimate("heat_set"),
        heat_set_least=form.heat_set_least,
        matrix=dough_matrix(batch, form),
        caps=_readings(batch),
    )


def dough_matrix(batch: Batch, form: Form) -> Matrix:
    """What carries the dough: flour and binder, unless enough of another matter is there to do it.

    Half cheese makes a cheese matrix; an eighth of protein powder makes a protein matrix (``matrices.csv``).
    """
    for row in read_table("matrices.csv") if batch.dough_g else ():
        counted = row.text("counts").split()
        belongs = np.array([float(f"role:{w.role}" in counted or w.ingredient.id in counted) for w in batch.lines])
        if float(batch.grams @ belongs) / batch.dough_g >= row.number_in("share_least", 0, 1):
            window = Window(low=row.number_in("binder_low"), high=row.number_in("binder_high"))
            return Matrix(name=row.text("name"), window=window, judges_water=row.text("judges_water") == "1")
    return Matrix(name="", window=form.binder, judges_water=True)


def load_ratio(batch: Batch) -> Ratio:
    """Binder load as a ratio over the lines."""
    top, bottom = batch.behaviour("binding"), batch.behaviour("base_weight")
    return Ratio(top=top, bottom=bottom, unit="eggs / 100 g", scale=100.0)


def heat_set_ratio(batch: Batch) -> Ratio:
    """Share of the load that sets by heat; the binding power's own spread cancels in it."""
    power, _ = batch.behaviour("binding")
    share, share_sd = batch.behaviour("heat_set")
    return Ratio(top=(power * share, power * share_sd), bottom=(power, np.zeros(len(power))), unit="", most=1.0)


def _readings(batch: Batch) -> tuple[CapReading, ...]:
    rows = []
    for cap in _caps():
        lines = [w for w in batch.lines if w.ingredient.id in cap.ingredients]
        grams = sum(w.grams.value for w in lines)
        if grams > 0:
            rows.append(
                CapReading(
                    name=cap.name,
                    percent=100 * grams / batch.dough_g,
                    soft_percent=cap.soft,
                    hard_percent=cap.hard,
                    effect=cap.effect,
                    lines=tuple(w.line.id for w in lines),
                )
            )
    return tuple(rows)
