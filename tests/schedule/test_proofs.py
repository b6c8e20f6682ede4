"""What is proven of a day before its plan is sought holds for every plan: those of the solver, and those of a plain list."""

from dataclasses import replace
from functools import cache

import pytest

from substrata.schedule.bounds import least_on, loose, tied
from substrata.schedule.check import EARLY, OVEN_ON, faults, score
from substrata.schedule.effort import Effort
from substrata.schedule.listed import listed
from substrata.schedule.model import Model
from substrata.schedule.oven_on import in_oven, on_times
from substrata.schedule.problem import Due, Lag, Problem, Schedule
from substrata.schedule.proofs import least_minutes, movable, prove
from substrata.schedule.solve import solve
from tests.schedule.conftest import QUICK, baking, hands, idle, kitchen

SINGLE = [seed for seed in range(60) if len(kitchen(seed).ovens) == 1 and movable(kitchen(seed))]


def spend(_part):
    return QUICK


@cache
def plans_of(seed):
    problem = kitchen(seed)
    return [plan for plan in (solve(problem, QUICK), listed(problem)) if plan is not None and plan.placed]


def part_of(problem, plan):
    return Schedule(placed={task.id: plan.placed[task.id] for task in problem.tasks}, status="feasible")


@pytest.mark.parametrize("seed", range(0, 60, 7))
@pytest.mark.parametrize("most", [0, 20, 60, 130])
def test_every_plan_is_one_of_the_smaller_day(seed, most):
    problem = kitchen(seed)
    less = tied(problem, most)
    for plan in plans_of(seed):
        assert faults(less, part_of(less, plan)) == ()
        assert faults(loose(less), part_of(less, plan)) == ()


def test_a_smaller_day_keeps_what_is_tied_and_leaves_what_may_be_done_long_before():
    tasks = hands("weigh", 5), hands("mix", 5), hands("shape", 9), baking("bake", 20), idle("cool", 30)
    weigh, mix, shape, bake, cool = tasks
    problem = Problem(
        tasks=tasks,
        lags=(
            Lag(before=weigh.id, after=mix.id),
            Lag(before=mix.id, after=shape.id, most=45),
            Lag(before=shape.id, after=bake.id, most=10),
            Lag(before=bake.id, after=cool.id, most=0),
        ),
        dues=(Due(bake="a", name="A", task="cool", minute=300),),
        ovens=kitchen(0).ovens[:1],
    )
    assert [task.id for task in tied(problem, 60).tasks] == ["mix", "shape", "bake", "cool"]
    assert [task.id for task in tied(problem, 20).tasks] == ["shape", "bake", "cool"]
    assert [lag.most for lag in loose(problem).lags] == [None, 45, 10, None]


@pytest.mark.parametrize("seed", SINGLE[:14])
def test_no_plan_has_its_oven_on_for_less_than_was_proven(seed):
    problem = kitchen(seed)
    steady, paused = least_minutes(problem, spend)
    oven, rows = problem.ovens[0], [task for task in problem.tasks if task.ovens]
    assert steady >= least_on(oven, rows)  # hands say no less than trays do
    for plan in plans_of(seed):
        stretches = len(on_times(oven, in_oven(problem, plan, oven)))
        assert score(problem, plan).oven_on >= (steady if stretches == 1 else paused)


@pytest.mark.parametrize("seed", SINGLE[:14])
def test_no_plan_costs_less_than_was_proven(seed):
    problem = kitchen(seed)
    model = Model(problem)
    first = model.best(model.lateness, QUICK, None)
    assert first is not None
    model.keep(model.lateness, first.value)
    prove(model, first, spend)
    least = model.best(OVEN_ON * model.oven_on + EARLY * model.early, QUICK, None)
    for plan in plans_of(seed):
        told = score(problem, plan)
        if not told.late:
            assert least is None or OVEN_ON * told.oven_on + EARLY * told.early >= least.bound


@pytest.mark.parametrize("seed", SINGLE[:8])
def test_that_one_bake_is_ready_when_it_is_due_costs_nothing(seed):
    plain, held = Model(kitchen(seed, bakes=2)), Model(kitchen(seed, bakes=2))
    held.one_at_its_due()
    prices = []
    for model in (plain, held):
        model.keep(model.lateness, 0)
        prices.append(model.best(model.price, Effort(seconds=1.5, workers=1, steady=True), None))
    free, due = prices
    assert free is not None
    assert due is not None
    assert free.bound <= due.value <= free.value


def test_a_night_a_pin_and_what_has_begun_hold_a_day_where_it_is():
    free = kitchen(SINGLE[0])
    first, *rest = free.tasks
    assert movable(free)
    assert not movable(replace(free, closed=((90, 120),)))
    assert not movable(replace(free, tasks=(replace(first, fixed_start=30), *rest)))
    assert not movable(replace(free, hot=True))
