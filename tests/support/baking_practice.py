"""Everyday bakes with the minutes at which bakers take them out, as cases of the model."""

from __future__ import annotations

import csv
from collections.abc import Iterable
from dataclasses import dataclass, replace
from math import log
from pathlib import Path

import numpy as np

from substrata.evaluation.dough import Dough
from substrata.formula.bake_settings import BakeWish
from substrata.formula.formula import Formula, Line, LinePrep, LineStep, Mix, Size
from substrata.ingredients.library import load_library
from substrata.process.baking.bake_case import BakeCase
from substrata.process.baking.doneness import Doneness
from substrata.process.baking.oven_questions import judged
from substrata.process.rheology.dough_kind import DoughKind

TABLE = Path(__file__).with_name("oven_cases.csv")


UNFITTED = Path(__file__).with_name("oven_check.csv")


_STEPS = {
    "salt": LineStep(act="salt", minutes=30),
    "microwave": LineStep(act="microwave", minutes=6, watts=900),
    "squeeze": LineStep(act="squeeze", times=2),
}


@dataclass(frozen=True)
class Practised:
    """An everyday bake with the minutes at which bakers take it out."""

    name: str
    group: str
    kind: DoughKind
    case: BakeCase
    form: str
    low: float
    high: float
    sign: str

    @property
    def middle(self) -> float:
        return (self.low * self.high) ** 0.5

    def within(self, minutes: float | None) -> bool:
        return minutes is not None and self.low <= minutes <= self.high

    def within_fifth(self, minutes: float | None) -> bool:
        return minutes is not None and self.low / 1.2 <= minutes <= self.high * 1.2


def formula_of(row: dict[str, str]) -> Formula:
    size = dict(part.split("=") for part in row["size"].split())
    held = "thickness" if "thickness_mm" in size else "size" if "length_mm" in size else ""
    return Formula(
        name=row["case"],
        form=row["form"],
        pieces=int(row["pieces"] or 1),
        size=Size(
            held=held,
            thickness_mm=float(size["thickness_mm"]) if "thickness_mm" in size else None,
            length_mm=float(size["length_mm"]) if "length_mm" in size else None,
            pan=size.get("pan", ""),
        ),
        mix=Mix(cheese=row["cheese"]),  # type: ignore[arg-type]
        bake=BakeWish(oven_c=float(row["oven_c"]), dough_c=float(row["dough_c"]) if row["dough_c"] else None),
        lines=tuple(line_of(part) for part in row["lines"].split()),
    )


def line_of(text: str) -> Line:
    """``zucchini/salt+squeeze:240``: what is left in the dough after the steps; a line that is not in the pantry stops the benchmark."""
    (whole, grams), library = text.split(":"), load_library()
    ingredient, _, steps = whole.partition("/")
    prep = LinePrep(steps=tuple(_STEPS[step] for step in steps.split("+"))) if steps else None
    return Line(id=library[ingredient].id, ingredient=ingredient, grams=float(grams), prep=prep)


def practised(table: Path = TABLE) -> list[Practised]:
    """All cases of a table."""
    with table.open(encoding="utf8") as file:
        rows = list(csv.DictReader(file))
    return [
        Practised(
            name=row["case"],
            group=row["group"],
            kind=dough.kind,
            case=dough.case,
            form=row["form"],
            low=float(row["low_min"]),
            high=float(row["high_min"]),
            sign=row["sign"],
        )
        for row in rows
        for dough in (Dough(formula_of(row), load_library()),)
    ]


def browned(one: Practised, factor: float) -> Doneness:
    """The bake with browning changed by a factor."""
    return judged(replace(one.case, browning=one.case.browning * factor))[0]


def error(one: Practised, done: Doneness) -> float:
    """How far from the middle of the practised window, as a logarithm; a bake that does not come counts as twice too late."""
    return log(done.ready / one.middle) if done.ready else log(2)


def fitted(cases: Iterable[Practised]) -> float:
    """The factor of browning that is best for some cases, least squares in the logarithm."""
    cases = list(cases)
    tried = np.exp(np.linspace(-0.5, 0.5, 11))
    scores = [sum(error(one, browned(one, factor)) ** 2 for one in cases) for factor in tried]
    return float(tried[int(np.argmin(scores))])
