"""How well the handling model puts everyday doughs into their class, and how its parameters were fitted.

``python -m benchmarks.handling``        the shipped parameters: every observation, and the confusion table
``python -m benchmarks.handling --fit``  fit again from the starting values, leave one dough out, print what would ship

The doughs and their accepted classes are common practice (``handling_cases.csv``); starting values and ranges stand in
``substrata/data/handling.csv``. A residual is the distance to the accepted class, or to a known consistency; the prior
pulls each parameter to its start with a fifth of its range as standard deviation.
"""

from __future__ import annotations

import sys
from collections import Counter
from collections.abc import Sequence

import numpy as np
from scipy.optimize import least_squares

from substrata.base.tables.table_reader import read_table
from substrata.process.rheology.handling.consistency import parameters
from substrata.process.rheology.handling_classes import classes
from tests.support.handling_practice import _CRUMBLY, FITTED, Observation, distance, observations, read, said


def fit(seen: Sequence[Observation]) -> dict[str, float]:
    """Parameters that put the observations best into their classes, without leaving their ranges."""
    rows = {row.text("name"): row for row in read_table("handling.csv")}
    start = np.array([rows[name].number_in("start") for name in FITTED])
    low = np.array([parameters()[name].low for name in FITTED])
    high = np.array([parameters()[name].high for name in FITTED])
    room = (high - low) / 5

    def residuals(x: np.ndarray) -> np.ndarray:
        values = dict(zip(FITTED, x.tolist(), strict=True))
        return np.array([r for one in seen for r in distance(one, values)] + ((x - start) / room).tolist())

    result = least_squares(
        residuals,
        np.clip(start, low + 1e-6, high - 1e-6),
        bounds=(low, high),
        x_scale=high - low,
        diff_step=1e-3,
        max_nfev=30,
    )
    return dict(zip(FITTED, result.x.tolist(), strict=True))


def report(seen: Sequence[Observation], told: Sequence[tuple[float, float]], title: str) -> None:
    """Every observation, the confusion table, and how many are right or one class off."""
    words = [_CRUMBLY, *(band.class_name for band in classes())]
    table: Counter[tuple[str, str]] = Counter()
    right = near = 0
    print(f"\n{title}")
    for one, (consistency, fill) in zip(seen, told, strict=True):
        name = said(consistency, fill)
        hit = name in one.accepted
        close = hit or (
            name != _CRUMBLY
            and any(abs(words.index(name) - words.index(a)) == 1 for a in one.accepted if a != _CRUMBLY)
        )
        right, near = right + hit, near + close
        table[one.accepted[0] if not hit else name, name] += 1
        mark = " " if hit else "·" if close else "×"
        wanted = f" (known {one.consistency})" if one.consistency is not None else ""
        print(
            f"  {mark} {one.dough:26} {one.minutes:4.0f} min {one.degrees:3.0f} °C  C {consistency:5.2f}{wanted}  fill {fill:4.2f}  {name:10} wanted {' or '.join(one.accepted)}"
        )
    print(f"  in the accepted class: {right} of {len(seen)}; within one class: {near} of {len(seen)}")
    print("  rows: accepted; columns: told")
    print("  " + " " * 11 + "".join(f"{w[:9]:>10}" for w in words))
    for row in words:
        print(f"  {row:11}" + "".join(f"{table[row, column] or '.':>10}" for column in words))


def main() -> None:
    """Report, and fit when asked."""
    seen = observations()
    report(seen, [read(one, {}) for one in seen], "shipped parameters, in sample")
    if "--fit" not in sys.argv:
        return
    whole = fit(seen)
    report(seen, [read(one, whole) for one in seen], "fitted again, in sample")
    for name, value in whole.items():
        print(f"  {name:18} {value:.4g}   ships {parameters()[name].value:g}")
    without = {dough: fit([one for one in seen if one.dough != dough]) for dough in {one.dough for one in seen}}
    report(seen, [read(one, without[one.dough]) for one in seen], "leave one dough out")


if __name__ == "__main__":
    main()
