"""How long a settle takes over the demo formulas and six wishes, against its mixed-integer programs alone.

``python -m benchmarks.settle``
"""

import statistics
import time

import numpy as np
import scipy.optimize

from substrata.base.settings import Settings
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import figures
from substrata.formula.form_table import Window
from substrata.ingredients.library import load_library
from substrata.reformulation.balancing import balance
from substrata.reformulation.line_sweep import sweep
from substrata.reformulation.pareto import pareto_front
from substrata.reformulation.program import milp as program
from substrata.reformulation.request.balance_request import Wish
from substrata.reformulation.starter_formula import begin
from tests.support.demo_doughs import demo_formulas


def wishes(values):
    """Six: less net carbs, more protein, less energy, no tree nut, no egg, two at once."""
    return (
        Wish(targets={"net_carbs": Window(high=0.8 * values["net_carbs"])}),
        Wish(targets={"protein": Window(low=1.25 * values["protein"])}),
        Wish(targets={"energy": Window(high=0.85 * values["energy"])}),
        Wish(without=("tree-nut",)),
        Wish(without=("egg",)),
        Wish(
            targets={
                "net_carbs": Window(high=0.9 * values["net_carbs"]),
                "protein": Window(low=1.15 * values["protein"]),
            }
        ),
    )


def main():
    library, settings = load_library(), Settings()
    inside = [0.0]
    real = scipy.optimize.milp

    def timed(*args, **named):
        begun = time.perf_counter()
        try:
            return real(*args, **named)
        finally:
            inside[0] += time.perf_counter() - begun

    program.milp = timed
    whole, alone, status = [], [], {}
    for formula in demo_formulas():
        for wish in wishes(figures(Dough(formula, library, settings)).values):
            inside[0], begun = 0.0, time.perf_counter()
            answer = balance(formula, library, settings, wish)
            status[answer.status] = status.get(answer.status, 0) + 1
            if answer.status in ("settled", "nearest"):
                whole.append(time.perf_counter() - begun)
                alone.append(inside[0])
    print(
        f"settle with all ways   median {statistics.median(whole):.2f} s, p95 {np.percentile(whole, 95):.2f} s; {status}"
    )
    print(
        f"  its programs alone   median {statistics.median(alone):.2f} s; the whole takes {sum(whole) / sum(alone):.2f} times as long"
    )
    sweeps, begun = [], time.perf_counter()
    for formula in demo_formulas():
        begun = time.perf_counter()
        sweep(formula, library, settings, formula.lines[0].id)
        sweeps.append(time.perf_counter() - begun)
    print(f"what-if                median {statistics.median(sweeps):.2f} s, most {max(sweeps[1:]):.2f} s")
    begun = time.perf_counter()
    begin("bun", library, settings, targets={"net_carbs": Window(high=3.0)})
    print(f"begin                  {time.perf_counter() - begun:.2f} s")
    begun = time.perf_counter()
    pareto_front(demo_formulas()[5], library, settings, "net_carbs", "change")
    print(f"front of 12 points     {time.perf_counter() - begun:.2f} s")


if __name__ == "__main__":
    main()
