"""No cliffs: every line of every everyday dough from half to one and a half of its weight, in steps of two hundredths.

``python -m benchmarks.continuity [NAME…]`` prints each step that moves the minutes by more than 11 %, the consistency by more than .15,
a texture score by more than .5 or a bracket's window by more than 5 %. A bake that ends and says why is no cliff.
"""

from __future__ import annotations

import sys
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass

import numpy as np

from benchmarks.judgements import good_doughs
from substrata.evaluation.dough import Dough
from substrata.formula.formula import Formula
from substrata.ingredients.library import load_library
from tests.support.continuity import MOST, moves, point

STEPS = np.arange(0.5, 1.5001, 0.02)


@dataclass(frozen=True, kw_only=True)
class Jump:
    """A step that moves something by too much."""

    dough: str
    line: str
    at: float  # of the line's weight
    what: str
    before: float
    after: float


def jumps(formula: Formula) -> list[Jump]:
    """Every cliff of one dough."""
    dough = Dough(formula, load_library())
    found = []
    for weighed in dough.batch.lines:
        line = weighed.line.id
        if weighed.grams.value <= 0 or line not in {l.id for l in formula.lines}:
            continue
        before = None
        for share in STEPS.tolist():
            now = point(dough.with_changes(grams={line: weighed.grams.value * share}))
            if before is not None and now is not None:
                for what, by, one, other in moves(before, now):
                    if by > MOST[what.split()[0]] * (1 + 1e-9):
                        found.append(Jump(dough=formula.name, line=line, at=share, what=what, before=one, after=other))
            before = now
    return found


def main() -> None:
    """Sweep all doughs, or those whose name begins so."""
    doughs = [f for f in good_doughs() if len(sys.argv) < 2 or f.name.startswith(tuple(sys.argv[1:]))]
    count = 0
    with ProcessPoolExecutor(2) as pool:
        for rows in pool.map(jumps, doughs):
            for j in rows:
                print(f"{j.dough[:32]:32} {j.line:22} at {j.at:.2f}  {j.what:26} {j.before:8.2f} → {j.after:8.2f}")
            count += len(rows)
    print(f"{count} cliffs over {len(doughs)} doughs")


if __name__ == "__main__":
    main()
