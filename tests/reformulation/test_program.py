"""The mixed-integer program and the linear rows, against the full model and against trying everything."""

import itertools

import numpy as np
import pytest

from substrata import Settings
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import figures
from substrata.formula.form_table import Window
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import check_by_model
from substrata.reformulation.program.linear_figures import ratio_of
from substrata.reformulation.program.linear_rows import rows_at
from substrata.reformulation.program.linearisation import slopes_at
from substrata.reformulation.program.milp import Ask, change_cost, solve
from substrata.reformulation.request.balance_request import Wish
from tests.reformulation.conftest import DEMO, LIBRARY, made

BUN = {"almond_flour": 150, "psyllium_powder": 20, "egg": 150, "water": 150, "salt": 4, "baking_powder": 10}


@pytest.mark.parametrize("name", DEMO)
def test_candidates_of_no_weight_change_no_figure(name):
    problem = BalanceProblem(DEMO[name], LIBRARY, Settings(), Wish())
    plain, joined = figures(Dough(DEMO[name], LIBRARY).as_baked()), figures(problem.base)
    assert joined.values == pytest.approx(plain.values)
    assert joined.consistency == pytest.approx(plain.consistency)
    assert joined.texture == pytest.approx(plain.texture)


@pytest.mark.parametrize("name", ["Mustard twists", "Orange drop doughnuts", "Gouda-melt crust"])
def test_every_row_says_what_the_full_model_says(name):
    """A row that is just kept is a figure at its bound, wherever the lines stand; what is fried takes up its fat."""
    problem = BalanceProblem(
        DEMO[name], LIBRARY, Settings(), Wish(targets={"net_carbs": Window(high=3.0), "energy": Window(high=150)})
    )
    rng = np.random.default_rng(3)
    for _ in range(5):
        grams = problem.start * rng.uniform(0.8, 1.2, problem.count)
        dough = problem.at(grams)
        for row in rows_at(problem, grams, None):
            if row.kind in ("window", "wish"):
                value = ratio_of(row.key, dough).value(dough.batch.grams)
                over = value / row.limit - 1 if row.side == "high" else 1 - value / row.limit
                assert float(row.coefficients @ grams) - row.bound == pytest.approx(over, abs=1e-9), row.key


def test_the_slopes_of_handling_are_those_of_the_model():
    problem = BalanceProblem(DEMO["Market rolls, egg-free"], LIBRARY, Settings(), Wish())
    slope = next(s for s in slopes_at(problem, problem.start, present=None).hard if s.key == "handling")
    water = next(i for i, s in enumerate(problem.slots) if s.ingredient == "water")
    more = problem.start.copy()
    more[water] += 4
    moved = figures(problem.at(more)).consistency - figures(problem.at(problem.start)).consistency
    assert moved < 0
    assert slope.per_gram[water] * 4 == pytest.approx(moved, rel=0.15)


@pytest.mark.parametrize("targets", [{"net_carbs": (None, 2.4)}, {"energy": (None, 188.0)}, {"fat": (None, 14.2)}, {"net_carbs": (None, 2.45), "salt": (1.0, None)}])  # fmt: skip
def test_no_combination_of_steps_is_cheaper_than_the_answer(targets):
    """Every combination of steps of four lines is tried on the same rows; bound and gap are the solver's own."""
    wish = Wish(targets={k: Window(low=a, high=b) for k, (a, b) in targets.items()}, may_bring=False, locked=("egg", "baking-powder"))  # fmt: skip
    problem = BalanceProblem(made(**BUN), LIBRARY, Settings(), wish)
    rows = [row for row in rows_at(problem, problem.start, None) if row.kind != "soft"]
    solved = solve(problem, rows, Ask(elastic={}, gap=0.0))
    free = [i for i, slot in enumerate(problem.slots) if slot.free and not slot.new]
    assert len(free) == 4
    best = np.inf
    steps = [[k * problem.slots[i].step.grams for k in range(-12, 13)] for i in free]
    steps[[problem.slots[i].ingredient for i in free].index("salt")] = [k * 0.75 for k in range(-4, 5)]
    for moves in itertools.product(*steps):
        grams = problem.start.copy()
        grams[free] += moves
        if (grams >= 0).all() and change_cost(problem, grams) < best and all(row.over(grams) <= 1e-7 for row in rows):
            best = change_cost(problem, grams)
    assert solved.status == 0
    assert solved.gap <= 1e-6
    assert solved.cost <= best + 1e-6


def test_what_is_locked_or_lies_outside_the_dough_never_moves():
    formula = DEMO["Market rolls, egg-free"]
    problem = BalanceProblem(formula, LIBRARY, Settings(), Wish(locked=("water",)))
    fixed = {slot.id for slot in problem.slots if not slot.free}
    assert {"water", "sesame-seeds"} <= fixed


def test_a_dough_of_nothing_is_judged_and_not_divided_by():
    problem = BalanceProblem(made(almond_flour=100, egg=50), LIBRARY, Settings(), Wish())
    assert check_by_model(problem, problem.start * 0).missed == {"dough": 1.0}
