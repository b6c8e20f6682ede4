"""Everyday doughs with the handling that bakers feel, and how far the model is from it."""

from __future__ import annotations

from collections.abc import Mapping
from csv import DictReader
from dataclasses import dataclass
from pathlib import Path

import numpy as np

from substrata import Settings, load_library
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.weighed_lines import weigh_formula
from substrata.formula.formula import Formula
from substrata.process.rheology.handling.consistency import Method, draws_of, handling
from substrata.process.rheology.handling_classes import band_of, class_of
from tests.support.baking_practice import line_of

FITTED = (
    "max_packing", "press_packing", "packing_exponent", "oil_release", "cheese_60", "particle_modulus", "critical_fill",
    "gel_particle", "sharing", "gel_yield", "coarse_packing", "cold_cheese_flows",
)  # fmt: skip


_CRUMBLY = "crumbly"


_NOISE = 0.25  # log10 Pa s: a class is judged by hand


_KNOWN_NOISE = 0.12  # of a consistency that an earlier study computed and practice confirmed


_FILL_NOISE = 0.08


@dataclass(frozen=True)
class Observation:
    """A dough at one moment, and how bakers find it."""

    dough: str
    batch: Batch
    minutes: float
    degrees: float
    method: Method
    accepted: tuple[str, ...]
    consistency: float | None


def observations() -> list[Observation]:
    """All rows of the table."""
    entries = []
    for row in DictReader(Path(__file__).with_name("handling_cases.csv").open(encoding="utf8")):
        formula = Formula(
            name=row["dough"],
            form="bun",
            pieces=1,
            lines=tuple(line_of(part) for part in row["lines"].split()),
        )
        batch, problems = weigh_formula(formula, load_library(), Settings())
        assert not problems, problems
        entries.append(
            Observation(
                dough=row["dough"],
                batch=batch,
                minutes=float(row["minutes"]),
                degrees=float(row["degrees"]),
                method=Method(melted=row["melted"] == "1", pressed=row["pressed"] == "1"),
                accepted=tuple(row["accepted"].split()),
                consistency=float(row["consistency"]) if row["consistency"] else None,
            )
        )
    return entries


def read(seen: Observation, values: Mapping[str, float]) -> tuple[float, float]:
    """Consistency and filling by some parameters."""
    point = np.array([seen.minutes]), np.array([seen.degrees])
    result = handling(seen.batch, seen.method, *point, draws=draws_of(values))
    return float(result.consistency[0, 0]), float(result.fill[0, 0])


def said(consistency: float, fill: float) -> str:
    """The class that is told."""
    return _CRUMBLY if fill < 1 else class_of(consistency)


def distance(seen: Observation, values: Mapping[str, float]) -> list[float]:
    """Residuals of one observation, in standard deviations."""
    consistency, fill = read(seen, values)
    if seen.accepted == (_CRUMBLY,):
        return [max(fill - 0.97, 0.0) / _FILL_NOISE]
    apart = max(1.03 - fill, 0.0) / _FILL_NOISE
    if seen.consistency is not None:
        return [apart, (consistency - seen.consistency) / _KNOWN_NOISE]
    low = min(band_of(name).low for name in seen.accepted)
    high = max(band_of(name).high for name in seen.accepted)
    return [apart, (max(low + 0.05 - consistency, 0.0) - max(consistency - high + 0.05, 0.0)) / _NOISE]
