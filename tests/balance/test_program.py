"""The mixed-integer program and the linear rows, against the full model and against trying everything."""

import itertools

import numpy as np
import pytest

from substrata import Settings
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import figures
from substrata.formula.forms import Window
from substrata.reformulation.program.candidate_batch import CandidateBatch
from substrata.reformulation.program.full_model_check import judge
from substrata.reformulation.program.linear_figures import ratio_of
from substrata.reformulation.program.linear_rows import rows_at
from substrata.reformulation.program.linearisation import slopes_at
from substrata.reformulation.program.milp import Ask, change_cost, solve
from substrata.reformulation.request.balance_request import Wish
from tests.balance.conftest import DEMO, LIBRARY, made

BUN = {"almond_flour": 150, "psyllium_powder": 20, "egg": 150, "water": 150, "salt": 4, "baking_powder": 10}


@pytest.mark.parametrize("name", DEMO)
def test_candidates_of_no_weight_change_no_figure(name):
    bench = CandidateBatch(DEMO[name], LIBRARY, Settings(), Wish())
    plain, joined = figures(Dough(DEMO[name], LIBRARY)), figures(bench.base)
    assert joined.values == pytest.approx(plain.values)
    assert joined.consistency == pytest.approx(plain.consistency)
    assert joined.texture == pytest.approx(plain.texture)


@pytest.mark.parametrize("name", ["Mustard twists", "Orange drop doughnuts", "Gouda-melt crust"])
def test_every_row_says_what_the_full_model_says(name):
    """A row that is just kept is a figure at its bound, wherever the lines stand; what is fried takes up its fat."""
    bench = CandidateBatch(
        DEMO[name], LIBRARY, Settings(), Wish(targets={"net_carbs": Window(high=3.0), "energy": Window(high=150)})
    )
    rng = np.random.default_rng(3)
    for _ in range(5):
        grams = bench.start * rng.uniform(0.8, 1.2, bench.count)
        dough = bench.at(grams)
        for row in rows_at(bench, grams, None):
            if row.kind in ("window", "wish"):
                value = ratio_of(row.key, dough).value(dough.batch.grams)
                over = value / row.limit - 1 if row.side == "high" else 1 - value / row.limit
                assert float(row.coefficients @ grams) - row.bound == pytest.approx(over, abs=1e-9), row.key


def test_the_slopes_of_handling_are_those_of_the_model():
    bench = CandidateBatch(DEMO["Market rolls, egg-free"], LIBRARY, Settings(), Wish())
    slope = next(s for s in slopes_at(bench, bench.start, present=None).hard if s.key == "handling")
    water = next(i for i, s in enumerate(bench.slots) if s.ingredient == "water")
    more = bench.start.copy()
    more[water] += 4
    moved = figures(bench.at(more)).consistency - figures(bench.at(bench.start)).consistency
    assert moved < 0
    assert slope.per_gram[water] * 4 == pytest.approx(moved, rel=0.15)


@pytest.mark.parametrize("targets", [{"net_carbs": (None, 2.4)}, {"energy": (None, 188.0)}, {"fat": (None, 14.2)}, {"net_carbs": (None, 2.45), "salt": (1.0, None)}])  # fmt: skip
def test_no_combination_of_steps_is_cheaper_than_the_answer(targets):
    """Every combination of steps of four lines is tried on the same rows; bound and gap are the solver's own."""
    wish = Wish(targets={k: Window(low=a, high=b) for k, (a, b) in targets.items()}, may_bring=False, locked=("egg", "baking-powder"))  # fmt: skip
    bench = CandidateBatch(made(**BUN), LIBRARY, Settings(), wish)
    rows = [row for row in rows_at(bench, bench.start, None) if row.kind != "soft"]
    solved = solve(bench, rows, Ask(elastic={}, gap=0.0))
    free = [i for i, slot in enumerate(bench.slots) if slot.free and not slot.new]
    assert len(free) == 4
    best = np.inf
    steps = [[k * bench.slots[i].step.grams for k in range(-12, 13)] for i in free]
    steps[[bench.slots[i].ingredient for i in free].index("salt")] = [k * 0.75 for k in range(-4, 5)]
    for moves in itertools.product(*steps):
        grams = bench.start.copy()
        grams[free] += moves
        if (grams >= 0).all() and change_cost(bench, grams) < best and all(row.over(grams) <= 1e-7 for row in rows):
            best = change_cost(bench, grams)
    assert solved.status == 0
    assert solved.gap <= 1e-6
    assert solved.cost <= best + 1e-6


def test_what_is_locked_or_lies_outside_the_dough_never_moves():
    formula = DEMO["Market rolls, egg-free"]
    bench = CandidateBatch(formula, LIBRARY, Settings(), Wish(locked=("water",)))
    fixed = {slot.id for slot in bench.slots if not slot.free}
    assert {"water", "sesame-seeds"} <= fixed


def test_a_dough_of_nothing_is_judged_and_not_divided_by():
    bench = CandidateBatch(made(almond_flour=100, egg=50), LIBRARY, Settings(), Wish())
    assert judge(bench, bench.start * 0).missed == {"dough": 1.0}
