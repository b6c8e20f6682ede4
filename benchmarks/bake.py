"""One bake warm (wanted 60 ms), against scipy's stiff methods on the same equations, and a map of 400 (wanted 10 s)."""

from collections.abc import Callable
from time import perf_counter

import numpy as np
from scipy.integrate import solve_ivp

from benchmarks.spread import line, timed
from substrata.formula.bake_settings import Heat
from substrata.ingredients.library import Floats
from substrata.process.baking.bake_case import BakeCase
from substrata.process.baking.bake_simulation import run
from substrata.process.baking.oven_questions import bake_map
from substrata.process.baking.simulation import bake_equations as equations
from substrata.process.baking.simulation import cell_properties as properties
from substrata.process.baking.simulation.dough_column import column
from substrata.process.baking.simulation.oven_constants import oven_number
from substrata.process.baking.simulation.stage_simulation import Steps, _around, bake_stage
from tests.support.baking_practice import practised

FINE, COARSE = 0.05, 0.5  # K, how far any cell may be out at any kept moment


def against_scipy(case: BakeCase) -> None:
    """Ten minutes in the oven by this project and by scipy's stiff methods, which are given the same compiled rates.

    Of each method the quickest run counts that keeps to an accuracy in every cell at every kept moment; both sides run at several
    tolerances.
    """
    raw = column(case.matter, case.body, porosity=0.09, start_c=45, ware_c=21, light=82)
    heat = case.surroundings(Heat(oven_c=218.0))
    around, n = _around(heat, case.support), len(raw.cells)
    out, like = np.zeros((n + 1, 2)), np.zeros((n, properties.N_LIKE))
    factors = oven_number("vapour_factor"), oven_number("heat_pipe")
    moments = np.arange(0.0, 601.0, 15.0)

    def rates(_: float, y: Floats) -> Floats:
        equations.rates(y.reshape(n + 1, 2), raw.cells, around, *factors, out, like)
        return out.ravel().copy()

    def scipys(method: str, rtol: float) -> Floats:
        atol = np.tile([3e5 * rtol, 0.1 * rtol], n + 1)
        found = solve_ivp(rates, (0, 600), raw.state.ravel(), method=method, rtol=rtol, atol=atol, t_eval=moments)
        y = found.y.T.reshape(-1, n + 1, 2)[:, 1:]
        return y[:, :, 0] / (raw.cells[:, properties.C_S] + y[:, :, 1] * properties.C_W)

    def ours(tolerance: float) -> Floats:
        return bake_stage(
            raw.copy(), heat, case.support, case.brown, 600.0, steps=Steps(tolerance=tolerance)
        ).temperatures

    true = scipys("Radau", 1e-7)

    def errors(solve: Callable[[float], Floats], tolerances: tuple[float, ...]) -> dict[float, float]:
        return {one: float(np.abs(solve(one) - true).max()) for one in tolerances}

    own = errors(ours, (0.1, 0.2, 0.5, 1.0, 2.0))
    print("within", ", ".join(f"{error:.3f} K at tolerance {one}" for one, error in own.items()))
    for method in ("LSODA", "BDF", "Radau"):
        theirs = errors(lambda rtol, method=method: scipys(method, rtol), (3e-4, 1e-3, 3e-3, 1e-2, 3e-2))
        for wanted in (FINE, COARSE):

            def quickest(solve: Callable[[float], Floats], found: dict[float, float], wanted: float = wanted) -> float:
                good = [one for one, error in found.items() if error <= wanted]
                return min(timed(lambda one=one: solve(one), 9, warm=1)[0] for one in good)

            # In turns: another's work on the machine then meets both.
            ratios = sorted(
                quickest(lambda rtol, method=method: scipys(method, rtol), theirs) / quickest(ours, own)
                for _ in range(5)
            )
            print(f"  within {wanted} K scipy's {method} takes {ratios[2]:.0f} times as long (wanted 30)")


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
