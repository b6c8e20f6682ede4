"""The bake against everyday practice: how many are done in the practised window, how often the told range holds its middle.

``python -m benchmarks.bakes``         every case
``python -m benchmarks.bakes --leave`` browning fitted again without each kind of dough in turn, and that kind forecast by it
``python -m benchmarks.bakes --check`` doughs of our own that browning and blister were never fitted to, windows from memory

Two numbers are fitted to these cases: browning and blister (``oven.csv``), one to those of both tables that hold gums; the rest is
physics, or assumed with its reason.
"""

from __future__ import annotations

import sys
from dataclasses import replace

import numpy as np

from substrata.process.baking.forecast_interval import ready_between
from substrata.process.baking.oven_questions import judged
from substrata.process.baking.simulation.oven_constants import oven_number
from tests.support.baking_practice import UNFITTED, Practised, error, fitted, practised


def report(cases: list[Practised], factors: dict[str, float]) -> None:
    """Print a line for each case, and the counts."""
    hits = fifths = covered = 0
    errors = []
    for one in cases:
        case = replace(one.case, browning=one.case.browning * factors.get(one.group, 1.0))
        done = judged(case)[0]
        span = ready_between(case, one.form, done)
        hits += one.within(done.ready)
        fifths += one.within_fifth(done.ready)
        covered += span is not None and span.low <= one.middle <= span.high
        errors.append(error(one, done))
        moments = " ".join(f"{k} {'–' if v is None else f'{v:.1f}'}" for k, v in done.criteria.items())
        low, high = (span.low, span.high) if span else (0.0, 0.0)
        mark = " " if one.within(done.ready) else "·" if one.within_fifth(done.ready) else "×"
        print(
            f"{mark} {one.name:36} {one.low:4.0f}–{one.high:<4.0f} told {done.ready or 0:5.1f} ({low:.0f}–{high:.0f}) "
            f"by {done.decides:8} burnt {done.burnt or 0:5.1f}  loss {done.loss or 0:.2f}  {moments}"
        )
    n = len(cases)
    rms = float(np.sqrt(np.mean(np.square(errors))))
    print(
        f"in the window {hits} of {n}; within a fifth {fifths}; told 90 % holds the middle {covered}; "
        f"rms of ln t {rms:.2f}, mean {np.mean(errors):+.2f}"
    )


if __name__ == "__main__":
    everyday = practised()
    factors: dict[str, float] = {}
    if "--leave" in sys.argv:
        for group in dict.fromkeys(one.group for one in everyday):
            factors[group] = fitted(one for one in everyday if one.group != group)
        print(
            "browning without each kind: "
            + ", ".join(f"{g} {oven_number('browning') * f:.2f}" for g, f in factors.items())
        )
    report(practised(UNFITTED) if "--check" in sys.argv else everyday, factors)
