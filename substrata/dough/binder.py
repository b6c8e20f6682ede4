"""Binder load: binding power in whole-egg equivalents per 100 g weighted dry base (a house scale).

One egg equivalent is what one 50 g egg, set by heat, does. The heat-set share is a separate axis: psyllium
holds a raw dough but sets only in part.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

import numpy as np

from substrata.formula.form import Form, Window
from substrata.formula.propagate import Estimate, Ratio, Sheet
from substrata.formula.weighed import Batch
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
class Binder:
    """What holds the dough together."""

    load: Estimate  # egg equivalents per 100 g weighted dry base
    heat_set: Estimate  # share of the load that sets in the oven, 0..1
    window: Window
    heat_set_least: float
    matrix: str  # "", or the name of the matrix that replaces the form's window
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
    matrix, window = dough_matrix(batch, form)
    return Binder(
        load=sheet.estimate("binder_load"),
        heat_set=sheet.estimate("heat_set"),
        window=window,
        heat_set_least=form.heat_set_least,
        matrix=matrix,
        caps=_readings(batch),
    )


def dough_matrix(batch: Batch, form: Form) -> tuple[str, Window]:
    """The matrix that carries the dough and its binder window; "" and the form's when flour and binder do.

    Half cheese makes a cheese matrix; an eighth of protein powder makes a protein matrix.
    """
    if batch.dough_g:
        cheese = float(batch.grams @ batch.is_role("cheese")) / batch.dough_g
        powder = np.array([float(w.ingredient.id in ("whey-isolate", "casein-powder")) for w in batch.lines])
        shares = {"cheese": cheese, "protein": float(batch.grams @ powder) / batch.dough_g}
        for row in sorted(read_table("matrices.csv"), key=lambda r: r.text("matrix"), reverse=True):
            if shares[row.text("matrix")] >= row.number_in("share_least", 0, 1):
                return row.text("name"), Window(low=row.number_in("binder_low"), high=row.number_in("binder_high"))
    return "", form.binder


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
    found = []
    for cap in _caps():
        lines = [w for w in batch.lines if w.ingredient.id in cap.ingredients]
        grams = sum(w.grams.value for w in lines)
        if grams > 0:
            found.append(
                CapReading(
                    name=cap.name,
                    percent=100 * grams / batch.dough_g,
                    soft_percent=cap.soft,
                    hard_percent=cap.hard,
                    effect=cap.effect,
                    lines=tuple(w.line.id for w in lines),
                )
            )
    return tuple(found)
