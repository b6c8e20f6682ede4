"""Planted disturbances: formulas in balance, some lines of which are moved; a settle has to come back.

``python -m benchmarks.planted [cases] [seed]``. Only cases that turn something red count. The saved version is the
formula before; the change is compared by the plain weights, without what is cheaper because it leads back.
"""

import random
import sys
import time
from dataclasses import replace

import numpy as np

from benchmarks.kitchens import demo_formulas
from substrata.base.settings import Settings
from substrata.ingredients.library import load_library
from substrata.reformulation.program.amount_steps import TOUCHED
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import judge, rails_broken
from substrata.reformulation.program.linear_rows import rows_at
from substrata.reformulation.program.successive_linearisation import search
from substrata.reformulation.request.balance_request import Wish
from substrata.reformulation.starter_formula import formula_of, skeletons


def plain_cost(problem, grams):
    """The weighted change."""
    moved = [
        (s.step.weight * abs(g - s.start)) + TOUCHED
        for s, g in zip(problem.slots, grams, strict=True)
        if abs(g - s.start) > 1e-6
    ]
    return sum(moved) + sum(8.0 for s, g in zip(problem.slots, grams, strict=True) if s.new and g > 0)


def drawn_formulas(rng, count):
    """Random formulas: a house skeleton with every line moved by up to a quarter."""
    return [
        replace(
            own,
            lines=tuple(replace(x, grams=round(x.grams * rng.uniform(0.75, 1.25), 1), entered="") for x in own.lines),
        )
        for own in (formula_of(rng.choice(skeletons())) for _ in range(count))
    ]


def balanced(library, settings, rng, count):
    """The demo formulas and random ones, each settled first where something of it was out."""
    made = []
    for formula in (*demo_formulas(), *drawn_formulas(rng, count)):
        problem = BalanceProblem(formula, library, settings, Wish(may_bring=False))
        found = search(problem, start=judge(problem, problem.start))
        if found.met:
            made.append(problem.formula_at(found.verdict.grams))
    return made


def disturbed(formula, problem, rng, *, most):
    """Some free lines of a formula moved by 10 to 60 %, eggs by whole eggs."""
    free = [s for s in problem.slots if s.free and not s.new and s.start > 0]
    chosen = rng.sample(free, min(rng.randint(1, 4), len(free)))
    grams = {}
    for slot in chosen:
        share = rng.uniform(0.1, most) * rng.choice((-1, 1))
        moved = (
            round(slot.start * share / slot.step.grams) * slot.step.grams if slot.role == "egg" else slot.start * share
        )
        grams[slot.id] = max(round(slot.start + moved, 1), 0.0)
    return replace(
        formula, lines=tuple(replace(x, grams=grams[x.id], entered="") if x.id in grams else x for x in formula.lines)
    )


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
        start = judge(work, work.start)
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


def short(missed):
    return {k: round(v, 3) for k, v in missed.items()}


def depth(verdict, problem):
    """Of the bracket nearest to its bound: how far inside, as a share of half the window."""
    rows = []
    windows = problem.at(verdict.grams).windows
    for key, wanted in windows.items():
        w, value = wanted.window, verdict.figures.values.get(key)
        if value is None or w.low is None or w.high is None:
            continue
        rows.append(min(value - w.low, w.high - value) / ((w.high - w.low) / 2))
    return max(min(rows, default=1.0), 0.0)


if __name__ == "__main__":
    main(*(int(a) for a in sys.argv[1:]))
