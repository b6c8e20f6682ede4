"""Faults and the mechanisms that bring them: how likely each is, from the figures of a run.

A mechanism reads one figure and has a soft threshold; the mechanisms of a fault join as a noisy or (Pearl 1988). Thresholds, widths
and the most that a mechanism brings are common practice or assumed (``mechanisms.csv``).
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

import numpy as np

from substrata.base.tables.table_reader import Row, read_table
from substrata.inference.bake_figures import Marks
from substrata.inference.fault_readings import READINGS, readings
from substrata.ingredients.library import Floats

_CHANCE = 0.988  # that nothing happens where no mechanism is at work


@dataclass(frozen=True, kw_only=True)
class Fault:
    """A named defect."""

    id: str
    words: str
    group: str  # dough, out, crumb, taste
    severity: float
    forms: frozenset[str]  # none: every form
    picture: str


@cache
def fault_table() -> dict[str, Fault]:
    """All faults by id, in the order in which they are asked for."""
    return {
        row.text("fault"): Fault(
            id=row.text("fault"),
            words=row.text("words"),
            group=row.text("group"),
            severity=row.number_in("severity", 0, 1),
            forms=frozenset(row.text("forms").split()),
            picture=row.text("picture"),
        )
        for row in read_table("faults.csv")
    }


def faults_of(form: str) -> tuple[Fault, ...]:
    """Return the faults that a form can have."""
    return tuple(fault for fault in fault_table().values() if not fault.forms or form in fault.forms)


@dataclass(frozen=True, kw_only=True)
class Mechanisms:
    """The m mechanisms of the told faults, stacked."""

    faults: tuple[str, ...]  # the f faults
    reads: tuple[str, ...]  # which figure each reads
    words: tuple[str, ...]
    flaws: tuple[str, ...]  # flaw of the formula that it stands for; "" for none
    membership: Floats  # 1.0 where a mechanism is one of a fault, (m, f)
    threshold: Floats  # (m,)
    width: Floats
    most: Floats


@cache
def mechanisms(form: str) -> Mechanisms:
    """Return the mechanisms of the faults of a form."""
    faults = tuple(fault.id for fault in faults_of(form))
    rows: list[Row] = [row for row in read_table("mechanisms.csv") if row.text("fault") in faults]
    for row in rows:
        if row.text("figure") not in READINGS:
            raise row.error("the figure is not known", got=row.text("figure"), allowed=", ".join(READINGS))
    return Mechanisms(
        faults=faults,
        reads=tuple(row.text("figure") for row in rows),
        words=tuple(row.text("mechanism") for row in rows),
        flaws=tuple(row.text("flaw") for row in rows),
        membership=np.array([[float(row.text("fault") == fault) for fault in faults] for row in rows]),
        threshold=np.array([row.number_in("threshold") for row in rows]),
        width=np.array([row.number_in("width", 1e-6) for row in rows]),
        most=np.array([row.number_in("most", 0, 0.999) for row in rows]),
    )


def hazards(x: Floats, base: Floats, marks: Marks, mechanisms_: Mechanisms) -> Floats:
    """``−ln(1 − λσ((x − θ)/w))`` of each mechanism, shape (…, m).

    Args:
        x: figures of the runs, shape (…, figures).
        base: figures as written.
        marks: of the dough as it is written.
        mechanisms_: the mechanisms.

    Returns:
        Hazards, shape (…, m).
    """
    read = readings(x, base, marks)
    values = np.stack([np.broadcast_to(read[name], x.shape[:-1]) for name in mechanisms_.reads], axis=-1)
    bent = 1 / (1 + np.exp(np.clip(-(values - mechanisms_.threshold) / mechanisms_.width, -60, 60)))
    result: Floats = -np.log1p(-mechanisms_.most * bent)
    return result


def likely(hazard: Floats, mechanisms_: Mechanisms) -> Floats:
    """How likely each fault is, shape (…, f).

    Args:
        hazard: of each mechanism, shape (…, m).
        mechanisms_: the mechanisms.

    Returns:
        Probabilities, shape (…, f).
    """
    result: Floats = 1 - _CHANCE * np.exp(-hazard @ mechanisms_.membership)
    return result
