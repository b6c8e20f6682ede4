"""Planted disturbances: formulas in balance, some lines of which are moved; a settle has to come back.

``python -m benchmarks.planted [cases] [seed]``. Only cases that turn something red count. The saved version is the
formula before; the change is compared by the plain weights, without what is cheaper because it leads back.
"""

import random
import sys
import time

import numpy as np

from substrata.base.settings import Settings
from substrata.ingredients.library import load_library
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import check_by_model, rails_broken
from substrata.reformulation.program.linear_rows import rows_at
from substrata.reformulation.program.successive_linearisation import search
from substrata.reformulation.request.balance_request import Wish
from tests.support.planted_changes import balanced, depth, disturbed, plain_cost, short


def main(cases=60, seed=7):
    library, settings, rng = load_library(), Settings(), random.Random(seed)
    bases = balanced(library, settings, rng, cases)
    drawn = red = back = cheaper = kept = 0
    ratios, seconds, rounds, inside = [], [], [], []
    print(f"{len(bases)} formulas in balance")
    while red < cases:
        formula = bases[red] if red < len(bases) else rng.choice(bases)
        problem = BalanceProblem(formula, library, settings, Wish())
        draft = disturbed(formula, problem, rng, most=0.6)
        drawn += 1
        work = BalanceProblem(draft, library, settings, Wish(), saved=formula)
        start = check_by_model(work, work.start)
        if not start.missed or start.figures is None:
            continue
        red += 1
        begun = time.perf_counter()
        found = search(work, start=start)
        seconds.append(time.perf_counter() - begun)
        rounds.append(found.rounds)
        back += found.met
        wanted = np.array([s.reference_g for s in work.slots])
        planted, own = plain_cost(work, wanted), plain_cost(work, found.verdict.grams)
        broken = rails_broken(rows_at(work, found.verdict.grams, None), found.verdict.grams)
        kept += not broken
        ratios.append(own / planted)
        cheaper += own <= planted * 1.001
        inside.append(depth(found.verdict, work))
        if not found.met or own > planted * 1.001 or broken:
            moved = [
                f"{s.name[:14]} {s.start:g}>{g:g} ({s.reference_g:g})"
                for s, g in zip(work.slots, found.verdict.grams, strict=True)
                if abs(g - s.start) > 1e-6 or abs(s.reference_g - s.start) > 1e-6
            ]
            ends = f"start {short(start.missed)} end {short(found.verdict.missed)} rails {broken}"
            print(f"  {formula.name}: {ends} own {own:.0f} planted {planted:.0f} | {', '.join(moved)}")
    print(f"drawn {drawn}, red {red}: back inside {back}, no more change than planted {cheaper}, rails kept {kept}")
    print(f"ratio median {np.median(ratios):.2f} p90 {np.percentile(ratios, 90):.2f}")
    print(f"rounds median {np.median(rounds):.0f} max {max(rounds)}")
    print(f"s median {np.median(seconds):.2f} p95 {np.percentile(seconds, 95):.2f}")
    print(f"how far inside it ends (share of the half window, least bracket): median {np.median(inside):.2f}")


if __name__ == "__main__":
    main(*(int(a) for a in sys.argv[1:]))
