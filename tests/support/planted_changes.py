"""Formulas disturbed by a known change, and the plain cost of what brings them back."""

from dataclasses import replace

from substrata.reformulation.program.amount_steps import TOUCHED
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import check_by_model
from substrata.reformulation.program.successive_linearisation import search
from substrata.reformulation.request.balance_request import Wish
from substrata.reformulation.starter_formula import formula_templates, template_formula
from tests.support.demo_doughs import demo_formulas


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
        for own in (template_formula(rng.choice(formula_templates())) for _ in range(count))
    ]


def balanced(library, settings, rng, count):
    """The demo formulas and random ones, each settled first where something of it was out."""
    made = []
    for formula in (*demo_formulas(), *drawn_formulas(rng, count)):
        problem = BalanceProblem(formula, library, settings, Wish(may_bring=False))
        found = search(problem, start=check_by_model(problem, problem.start))
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
