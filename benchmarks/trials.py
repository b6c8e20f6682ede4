"""How often the diagnosis finds a cause that was planted, in simulated kitchens that differ from what it knows.

``python -m benchmarks.trials [--plants 150] [--seed 7] [--harsh]``. A kitchen draws its own handling, oven, eggs, rests and hands
(through the whole core, not the diagnosis' straight lines), its own thresholds and tastes; one cause is planted, the faults that
follow are told or not, and the run's own log is kept as a Run station keeps it. Only plants that show are counted (a told fault was
raised by .25 or more).
"""

from __future__ import annotations

import argparse

import numpy as np

from substrata import load_library
from substrata.evaluation.dough import Dough
from substrata.execution.run_document import Run
from substrata.inference.diagnosis.cause_effects import cause_table
from substrata.inference.diagnosis.explanation import why
from tests.support.demo_doughs import demo_formulas
from tests.support.planted_causes import _TABLES, Kitchen, log_of, measured, told


def false_alarms(count: int, seed: int) -> list[float]:
    """Probability of the first cause after verdicts without any slip, with the run's own log."""
    rng, library = np.random.default_rng(seed), load_library()
    kitchen, found = Kitchen(rng, harsh=False), []
    doughs = [Dough(f, library) for f in demo_formulas()]
    while len(found) < count:
        dough = doughs[rng.integers(len(doughs))]
        table = _TABLES.setdefault(dough.formula.name, cause_table(dough))
        made = kitchen.ordinary(dough)
        verdict, _, x = told(kitchen, dough, table, made, None)
        if verdict.faults:
            run = Run(formula=dough.formula, done=log_of(kitchen, dough, made, x, None, True), verdict=verdict)
            answer = why(dough, table, run)
            found.append(answer.making[0].probability if answer.making else 0.0)
    return found


def main() -> None:
    """Print the shares."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--plants", type=int, default=150)
    parser.add_argument("--seed", type=int, default=7)
    parser.add_argument("--harsh", action="store_true")
    options = parser.parse_args()
    said: list[tuple[float, bool]] = []
    shares = measured(plants=options.plants, seed=options.seed, harsh=options.harsh, said=said)
    for name, share in shares.items():
        print(f"{name:12} first {100 * share.first:3.0f} %   in three {100 * share.in_three:3.0f} %   n {share.count}")
    none = false_alarms(max(options.plants // 3, 20), options.seed + 1)
    print(
        f"without any slip: a cause over 50 % in {100 * np.mean([p > 0.5 for p in none]):.0f} % of {len(none)} verdicts"
    )
    mixed = said + [(p, False) for p in none[: int(0.43 * len(said))]]
    for low, high in ((0, 0.2), (0.2, 0.4), (0.4, 0.6), (0.6, 0.8), (0.8, 1.01)):
        own = [(p, hit) for p, hit in mixed if low <= p < high]
        if own:
            print(f"said {np.mean([p for p, _ in own]):.2f}  true {np.mean([h for _, h in own]):.2f}  n {len(own)}")


if __name__ == "__main__":
    main()
