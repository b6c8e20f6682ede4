"""What simulated kitchens' runs teach: errors of scores, oven and handling after 0, 1, 3, 5 and 10 trials.

``python -m benchmarks.learning [--kitchens 24] [--wrong 0.17] [--probe 0.5] [--weights 0.29] [--rest 0]``. A kitchen has its own oven
(12 K), convection, thickness, browning, hands (.25 + .25 + .2 decades), palate (.8), weights of what makes a score (.4) and a remainder
of each formula's scores (.5); it bakes four formulas in turn and logs weight, colour, core, felt class and six scores. ``--wrong``: this share of the trials have another batch's weight and swapped scores.
``--probe``: in this share of them a thermometer lies in the oven, which reads its air within 6 K. ``--weights .29 --rest 0``: kitchens
whose scores are forecast within 1.5 before anything is learned (with the first numbers within 1.8: our textures have more that makes a score).
"""

from __future__ import annotations

import argparse

import numpy as np

from substrata import load_library
from substrata.evaluation.dough import Dough
from substrata.execution.run_document import Done, Run
from substrata.inference.as_made_forecast import as_done
from substrata.inference.calibration.learning import learn
from tests.support.demo_doughs import demo_formulas
from tests.support.simulated_kitchens import TRIALS, Kitchen, Tally


def main() -> None:
    """Print root mean squares and coverage."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--kitchens", type=int, default=24)
    parser.add_argument("--seed", type=int, default=3)
    parser.add_argument("--wrong", type=float, default=0.0)
    parser.add_argument("--probe", type=float, default=0.0)
    parser.add_argument("--weights", type=float, default=0.4)
    parser.add_argument("--rest", type=float, default=0.5)
    options = parser.parse_args()
    rng, library, tally = np.random.default_rng(options.seed), load_library(), Tally()
    doughs = {f.name: Dough(f, library) for f in demo_formulas() if f.form != "doughnut"}
    plain = {name: told for name, dough in doughs.items() if (told := as_done(dough, Done())) is not None}
    for _ in range(options.kitchens):
        own = [doughs[name] for name in rng.choice(list(doughs), 4, replace=False)]
        kitchen = Kitchen(rng, doughs, plain, weights=options.weights, rest=options.rest)
        runs: list[Run] = []
        for trial in range(max(TRIALS) + 1):
            if trial in TRIALS:
                tally.judge(learn(runs, library), kitchen, own, trial)
            dough = own[trial % 4]
            minutes = plain[dough.formula.name].marks.minutes
            wrong, probed = rng.random() < options.wrong, rng.random() < options.probe
            runs.append(kitchen.run(dough, trial, minutes, wrong=wrong, probed=probed))
    for what in ("scores", "decades", "oven K"):
        row = "  ".join(
            f"{trial}: {np.sqrt(np.mean(np.square(tally.errors[what, trial]))):5.2f} "
            f"({100 * np.mean(tally.covered[what, trial]):.0f} %)"
            for trial in TRIALS
        )
        print(f"{what:8} {row}")


if __name__ == "__main__":
    main()
