"""How many trials it takes until the faults are gone, if the first proposal is followed each time.

``python -m benchmarks.cured [--plants 40] [--seed 11]``. Simulated kitchens as in ``benchmarks.trials``: a cause is planted that shows, the
verdict and the run's own log are diagnosed, what is proposed first is done (an edit of the document through the whole core, or the
slip is watched for), and it is baked again. What is wrong stays until something is done about it; with ``--again 0.2`` a slip of one
run comes again one time in five. Beside it: what the trade's table would do (the cause it ties most strongly to the faults, and the
first action against it), and the same again.
"""

from __future__ import annotations

import argparse
import warnings
from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from substrata import load_library
from substrata.base.tables.table_reader import read_table
from substrata.evaluation.dough import Dough
from substrata.execution.run_document import Run, Verdict
from substrata.inference.diagnosis.cause_effects import cause_table
from substrata.inference.diagnosis.causes import planted, possible, strengths
from substrata.inference.diagnosis.diagnosis import diagnose
from substrata.inference.making import Making
from tests.support.demo_doughs import demo_formulas
from tests.support.planted_causes import _TABLES, Kitchen, Plant, log_of, plant, told

MOST = 5


@dataclass(frozen=True)
class Case:
    """A planted cause, and the kitchen in which it is."""

    dough: Dough
    plant: Plant
    first: Run


Step = tuple[frozenset[str], Dough | None]  # causes that are taken, and the formula with its edits
Policy = Callable[[Dough, Run, np.random.Generator], Step]


def _takes(action: str) -> frozenset[str]:
    row = next(row for row in read_table("actions.csv") if row.text("action") == action)
    return frozenset(row.text("takes").split())


def by_diagnosis(dough: Dough, run: Run, rng: np.random.Generator) -> Step:  # noqa: ARG001 - one shape for all
    found = diagnose(dough, run, table=_table(dough))
    best = found.next[0]
    taken = frozenset[str]().union(*(_takes(action) for action in best.actions))
    if best.formula is None:
        return taken, None
    edited = best.formula
    return taken, Dough(replace(edited, name=f"{edited.name}'"), dough.library, dough.settings)


def by_the_trades_table(dough: Dough, run: Run, rng: np.random.Generator) -> Step:
    seen = {fault.id for fault in (run.verdict or Verdict()).faults}
    kinds = _table(dough).kinds
    scored = [
        (sum(strengths().get((fault, cause.id), 0) for fault in seen), cause.prior, cause) for cause in possible(kinds)
    ]
    for _, _, cause in sorted(scored, key=lambda row: (-row[0], -row[1], rng.random())):
        for row in read_table("actions.csv"):
            if cause.id in row.text("takes").split() and frozenset(row.text("needs").split()) <= kinds:
                return _takes(row.text("action")), None
    return frozenset(), None


def the_same_again(dough: Dough, run: Run, rng: np.random.Generator) -> Step:  # noqa: ARG001
    return frozenset(), None


def _table(dough: Dough):
    if dough.formula.name not in _TABLES:
        _TABLES[dough.formula.name] = cause_table(dough)
    return _TABLES[dough.formula.name]


def _ordinary(kitchen: Kitchen, dough: Dough, lasting: Making) -> Making:
    """One run's own spread about what stays in a kitchen."""
    fresh = kitchen.ordinary(dough)
    return replace(
        fresh, capacity=lasting.capacity, oven_k=lasting.oven_k, browning=lasting.browning, stiffer=lasting.stiffer
    )


def planted_case(kitchen: Kitchen, dough: Dough) -> Case | None:
    _table(dough)
    found = plant(kitchen, dough)
    if found is None:
        return None
    done = log_of(kitchen, dough, found.made, found.figures, found.cause, True)
    return Case(dough, found, Run(formula=dough.formula, done=done, verdict=found.verdict))


def trials_until(kitchen: Kitchen, case: Case, policy: Policy, again: float) -> int:
    """Bakes after the first until none of the faults that it had is told; one more than ``MOST`` where they stay."""
    rng, dough, run, gone = kitchen.rng, case.dough, case.first, frozenset[str]()
    for number in range(1, MOST + 1):
        taken, edited = policy(dough, run, rng)
        gone, dough = gone | taken, edited or dough
        table = _table(dough)
        stays = case.plant.cause.id not in gone and (case.plant.cause.scope != "run" or rng.random() < again)
        slip = planted(dough, case.plant.cause, case.plant.size) if stays else None
        base = _ordinary(kitchen, dough, case.plant.base)
        made = kitchen.with_slip(base, slip) if slip else base
        cause = case.plant.cause if slip else None
        verdict, _, x = told(kitchen, dough, table, made, cause)
        if not {fault.id for fault in verdict.faults} & case.plant.raised:
            return number
        run = Run(formula=dough.formula, done=log_of(kitchen, dough, made, x, cause, True), verdict=verdict)
    return MOST + 1


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--plants", type=int, default=40)
    parser.add_argument("--seed", type=int, default=11)
    parser.add_argument("--again", type=float, default=1.0)
    given = parser.parse_args()
    warnings.simplefilter("ignore")
    rng, library = np.random.default_rng(given.seed), load_library()
    kitchen = Kitchen(rng, harsh=False)
    doughs = [Dough(formula, library) for formula in demo_formulas()]
    counts: dict[str, list[int]] = {}
    done = 0
    while done < given.plants:
        case = planted_case(kitchen, doughs[rng.integers(len(doughs))])
        if case is None:
            continue
        done += 1
        state = rng.bit_generator.state
        for name, policy in (
            ("first proposal", by_diagnosis),
            ("trade's table", by_the_trades_table),
            ("same again", the_same_again),
        ):
            rng.bit_generator.state = state
            counts.setdefault(name, []).append(trials_until(kitchen, case, policy, given.again))
    for name, trials in counts.items():
        rows = np.array(trials)
        print(
            f"{name:15} {rows.mean():.2f} trials until cured; at once {100 * (rows == 1).mean():.0f} %, in two {100 * (rows <= 2).mean():.0f} %, n {len(rows)}"
        )


if __name__ == "__main__":
    main()
