"""The oven against everyday practice, case by case, and the fit of each family's browning.

``python -m benchmarks.calibrate_oven``        the shipped numbers
``python -m benchmarks.calibrate_oven --fit``  each family's browning factor fitted again to its cases

The cases (``oven_cases.csv``) are common practice: what is practised, not what was measured. Only families that are judged by
colour have a factor to fit; the others show how the physics alone comes out.
"""

from __future__ import annotations

import sys
from csv import DictReader
from dataclasses import dataclass, replace
from pathlib import Path

from scipy.optimize import minimize_scalar

from substrata import load_library
from substrata.context.dough import Dough
from substrata.formula.formula import BakeWish, Formula, Line, Mix, Size
from substrata.oven.case import BakeCase
from substrata.oven.doneness import Doneness, doneness
from substrata.oven.numbers import oven_families
from substrata.oven.stages import run


@dataclass(frozen=True)
class Practised:
    """A bake and the time it is practised."""

    name: str
    family: str
    case: BakeCase
    low: float
    high: float
    sign: str  # gold or ready

    def minutes(self, done: Doneness) -> float | None:
        """The forecast moment of its sign."""
        return done.gold if self.sign == "gold" else done.ready


def practised() -> list[Practised]:
    """All rows of the table."""
    rows = []
    for row in DictReader(Path(__file__).with_name("oven_cases.csv").open(encoding="utf8")):
        size = dict(pair.split("=") for pair in row["size"].split()) if row["size"] else {}
        held = "thickness" if "thickness_mm" in size else "size" if "length_mm" in size else ""
        formula = Formula(
            name=row["case"],
            form=row["form"],
            pieces=int(row["pieces"]),
            size=Size(
                held=held,  # type: ignore[arg-type]
                thickness_mm=float(size["thickness_mm"]) if "thickness_mm" in size else None,
                length_mm=float(size["length_mm"]) if "length_mm" in size else None,
                pan=size.get("pan", ""),
            ),
            mix=Mix(cheese="cold" if row["family"] == "whey-crust" else ""),
            bake=BakeWish(oven_c=float(row["oven_c"]), dough_c=float(row["dough_c"])),
            lines=tuple(
                Line(id=key, ingredient=key, grams=float(g))
                for key, g in (part.split(":") for part in row["lines"].split())
            ),
        )
        dough = Dough(formula, load_library())
        assert not dough.problems, dough.problems
        case = dough.case
        rows.append(
            Practised(
                name=row["case"],
                family=row["family"],
                case=case,
                low=float(row["low_min"]),
                high=float(row["high_min"]),
                sign=row["sign"],
            )
        )
    return rows


def off(one: Practised, minutes: float | None) -> float:
    """How far outside the practised window, as a share of its middle; the middle pulls weakly."""
    middle = (one.low + one.high) / 2
    if minutes is None:
        return 2.0
    outside = max(one.low - minutes, minutes - one.high, 0.0)
    return outside / middle + 0.2 * abs(minutes - middle) / middle


def fitted(cases: list[Practised]) -> dict[str, float]:
    """Browning factor of every family that is judged by colour."""
    table = {}
    for key, family in oven_families().items():
        own = [one for one in cases if one.family == key and family.criterion in ("colour", "dry")]
        if not own:
            continue

        def cost(factor: float, own: list[Practised] = own) -> float:
            return sum(
                off(one, one.minutes(doneness(result := replace(one.case, browning=factor), run(result))))
                for one in own
            )

        best = minimize_scalar(
            cost,
            bounds=(family.browning.low * 0.6, family.browning.high * 1.5),
            method="bounded",
            options={"xatol": 0.02},
        )
        table[key] = float(best.x)
    return table


def report(cases: list[Practised], factors: dict[str, float]) -> None:
    """Each case with its window."""
    inside = 0
    print(f"{'case':26}{'practised':>12}{'forecast':>10}   core   loss  gold–dark–burnt")
    for one in cases:
        case = replace(one.case, browning=factors.get(one.family, one.case.browning))
        done = doneness(case, run(case))
        minutes = one.minutes(done)
        hit = minutes is not None and one.low <= minutes <= one.high
        inside += hit
        colours = "–".join("…" if m is None else f"{m:.1f}" for m in (done.gold, done.gold_until, done.burnt))
        core = "…" if done.core_c is None else f"{done.core_c:.0f} °C"
        loss = "…" if done.loss is None else f"{100 * done.loss:.0f} %"
        wish = "…" if minutes is None else f"{minutes:.1f}"
        print(
            f"{' ' if hit else '×'} {one.name:24}{one.low:5.0f}–{one.high:<5.0f} {wish:>9}   {core:>6} {loss:>5}  {colours}   {one.case.family.id}"
        )
    print(f"{inside} of {len(cases)} within the practised window")


def main() -> None:
    """Report, and fit when asked."""
    cases = practised()
    for one in cases:
        assert one.case.family.id == one.family, (one.name, one.case.family.id)
    report(cases, {})
    if "--fit" in sys.argv:
        factors = fitted(cases)
        for key, factor in factors.items():
            print(f"  {key:18} {factor:5.2f}   ships {oven_families()[key].browning.value:g}")
        report(cases, factors)


if __name__ == "__main__":
    main()
