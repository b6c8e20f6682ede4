"""One bake warm (wanted 60 ms), against scipy's stiff methods on the same equations, and a map of 400 (wanted 10 s)."""

from time import perf_counter

import numpy as np
from scipy.integrate import solve_ivp

from benchmarks.calibrate_oven import practised
from benchmarks.spread import line, timed
from substrata.oven import equations
from substrata.oven.case import BakeCase
from substrata.oven.numbers import oven_number
from substrata.oven.questions import bake_map
from substrata.oven.run import run
from substrata.oven.simulate import Column, Steps, _around, bake_stage, column
from substrata.pantry.library import Floats


def against_scipy(case: BakeCase) -> None:
    """Ten minutes in the oven by this project and by scipy's stiff methods, which are given the same compiled rates."""
    raw = column(case.matter, case.body, porosity=0.09, start_c=45, ware_c=21, light=82)
    heat = case.heat(218.0, fan=False)
    around, n = _around(heat, case.lying), len(raw.cells)
    out, like = np.zeros((n + 1, 2)), np.zeros((n, equations.N_LIKE))
    factors = oven_number("vapour_factor"), oven_number("heat_pipe")

    def ours(steps: Steps | None = None) -> Column:
        dough = raw.copy()
        bake_stage(dough, heat, case.lying, case.brown, 600.0, steps=steps or Steps())
        return dough

    def rates(_: float, y: Floats) -> Floats:
        equations.rates(y.reshape(n + 1, 2), raw.cells, around, *factors, out, like)
        return out.ravel().copy()

    true = ours(Steps(tolerance=1e-3, most_s=1.0)).temperatures
    own = timed(ours, 60, warm=3)
    print(f"ten minutes of a crust: within {np.abs(ours().temperatures - true).max():.4f} K")
    for method, rtol in (("BDF", 1e-3), ("Radau", 1e-2), ("LSODA", 1e-2)):
        scale = rtol / 1e-3

        def theirs(method: str = method, rtol: float = rtol, scale: float = scale) -> Floats:
            atol = np.tile([300.0 * scale, 1e-4 * scale], n + 1)
            return solve_ivp(rates, (0, 600), raw.state.ravel(), method=method, rtol=rtol, atol=atol).y[:, -1]

        y = theirs().reshape(n + 1, 2)[1:]
        error = np.abs(y[:, 0] / (raw.cells[:, equations.C_S] + y[:, 1] * equations.C_W) - true).max()
        taken = timed(theirs, 5)
        print(f"  scipy's {method}: {taken[2] / own[30]:.0f} times as long, within {error:.4f} K")


def main() -> None:
    """Measure."""
    cases = {one.name: one.case for one in practised()}
    for name in ("nut cracker thin", "melted-cheese crust", "psyllium bun"):
        print(line(f"bake, {name}", timed(lambda name=name: run(cases[name]), 60, warm=5), 60.0))
    against_scipy(cases["melted-cheese crust"])
    start = perf_counter()
    bake_map(cases["melted-cheese crust"], 8.0)
    print(f"map of 400 bakes: {(perf_counter() - start) / 10:.2f} of the wanted 10 s")


if __name__ == "__main__":
    main()
