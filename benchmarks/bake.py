"""One bake warm (wanted 60 ms), against scipy's BDF on the same equations, and a map of 400 (wanted 10 s)."""

from time import perf_counter

import numpy as np
from scipy.integrate import solve_ivp

from benchmarks.calibrate_oven import practised
from benchmarks.spread import line, timed
from substrata.oven import kernel
from substrata.oven.numbers import oven_number
from substrata.oven.questions import bake_map
from substrata.oven.run import run
from substrata.oven.simulate import _around, bake_stage, column


def main() -> None:
    """Measure."""
    cases = {one.name: one.case for one in practised()}
    for name in ("nut cracker thin", "melted-cheese crust", "psyllium bun"):
        print(line(f"bake, {name}", timed(lambda name=name: run(cases[name]), 60, warm=5), 60.0))
    case = cases["melted-cheese crust"]

    def fresh():
        return column(case.matter, case.body, porosity=0.09, start_c=45, ware_c=21, light=82)

    heat = case.heat(218.0, fan=False)

    def ours():
        bake_stage(fresh(), heat, case.lying, case.brown, 600.0)

    dough = fresh()
    around, n = _around(heat, case.lying), len(dough.cells)
    out, work = np.zeros((n + 1, 2)), np.zeros((n, 8))

    def rates(_, y):
        kernel.rates(
            y.reshape(n + 1, 2), dough.cells, around, oven_number("vapour_factor"), oven_number("heat_pipe"), out, work
        )
        return out.ravel().copy()

    own = timed(ours, 40, warm=3)
    start = perf_counter()
    solve_ivp(rates, (0, 600), dough.state.ravel(), method="BDF", rtol=1e-3, atol=np.tile([300.0, 1e-4], n + 1))
    other = 1000 * (perf_counter() - start)
    print(
        f"the same ten minutes by scipy's BDF, the same compiled rates: {other / own[len(own) // 2]:.0f} times as long"
    )
    start = perf_counter()
    bake_map(case, 8.0)
    print(f"map of 400 bakes: {(perf_counter() - start) / 10:.2f} of the wanted 10 s")


if __name__ == "__main__":
    main()
