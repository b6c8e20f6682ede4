"""How good, how quick and how sure plans are.

    python -m benchmarks.plan            # days of four and six bakes out of the demo, one person, one oven of two trays
    python -m benchmarks.plan --random   # 500 random kitchens: faults found by the check, lateness against a plain list

Times are told as they were measured on this machine; shares of days come from the forecasts' own ranges.
"""

from __future__ import annotations

import argparse
import random
import time
from dataclasses import replace

import numpy as np

from substrata import load_library, write_document
from substrata.scheduling.plans.plan_document import read_plan
from substrata.scheduling.plans.planning import make_plan
from substrata.scheduling.plans.planning_case import planning_case
from substrata.scheduling.robustness.robust_plan import CARES, careful, holds
from substrata.scheduling.solver.list_schedule import listed
from substrata.scheduling.solver.plan_check import faults
from substrata.scheduling.solver.search_effort import Effort
from substrata.scheduling.solver.solve import solve
from tests.scheduling.conftest import QUICK, kitchen
from tests.support.demo_doughs import demo_formulas


def days(count: int, bakes: int, seconds: float) -> None:
    """Days of some bakes, planned carefully and carelessly."""
    library, formulas = load_library(), {formula.name: formula for formula in demo_formulas()}
    rows = []
    for seed in range(count):
        chosen = random.Random(seed).sample(sorted(formulas), bakes)
        told = [
            {"formula": write_document(formulas[name]), "due": "2026-06-06T18:00", "id": str(n)}
            for n, name in enumerate(chosen, 1)
        ]
        begun = time.perf_counter()
        case = planning_case(read_plan({"start": "2026-06-06T06:00", "bakes": told, "name": ""}), library)
        made = time.perf_counter() - begun
        first: list[float] = []

        def seen(_: object, begun: float = begun, made: float = made, first: list[float] = first) -> bool:
            if not first:
                first.append(time.perf_counter() - begun - made)
            return True

        planned = make_plan(case, effort=Effort(seconds=seconds), on_better=seen)
        plain = solve(careful(case.problem, CARES[-1]), Effort(seconds=seconds / 2))
        careless = holds(case.problem, plain).share
        rows.append(
            (len(case.problem.tasks), made, first[0] if first else 0, planned.gap or 0, planned.holds.share, careless)
        )
    table = np.array(rows)
    names = ("tasks", "s to make", "s to first", "gap", "holds", "careless holds")
    print(
        f"{bakes} bakes, {count} days: "
        + ", ".join(f"{n} {np.median(c):.2f}" for n, c in zip(names, table.T, strict=True))
    )
    print(
        f"   first plan within .5 s on {np.mean(table[:, 2] <= 0.5):.0%}, holds mean {table[:, 4].mean():.2f}, least {table[:, 4].min():.2f}"
    )


def kitchens(count: int) -> None:
    """Random kitchens: what the check finds, and who is late by how much."""
    wrong = worse = without = better = 0
    for seed in range(count):
        problem = kitchen(seed)
        problem = replace(problem, dues=tuple(replace(due, fresh=None) for due in problem.dues))
        plan = solve(problem, QUICK)
        wrong += bool(faults(problem, plan))
        robust = careful(problem, CARES[0])
        sure = solve(robust, QUICK)
        wrong += bool(sure.placed and faults(robust, sure))
        plain = listed(problem)
        without += plain is None
        if plain is not None:
            by_list, by_solver = sum(plain.late.values()), sum(plan.late.values())
            worse += by_solver > by_list
            better += by_solver < by_list
    print(
        f"{count} random kitchens: {wrong} plans with a fault, {worse} later than a list, {better} earlier, {without} without a list"
    )


def main() -> None:
    """One of them."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("--random", action="store_true")
    options.add_argument("--days", type=int, default=8)
    options.add_argument("--seconds", type=float, default=10.0)
    chosen = options.parse_args()
    if chosen.random:
        kitchens(500)
        return
    for bakes in (4, 6):
        days(chosen.days, bakes, chosen.seconds)


if __name__ == "__main__":
    main()
