"""What is proven of a day before its plan is sought holds for every plan: those of the solver, and those of a plain list."""

from dataclasses import replace
from functools import cache

import pytest

from substrata.scheduling.schedule_problem import Due, Lag, Schedule, ScheduleProblem
from substrata.scheduling.solver.case_proofs import Cases, as_late_as_may_be
from substrata.scheduling.solver.cost_bounds import anchors, movable, tied, work
from substrata.scheduling.solver.cp_model import Model
from substrata.scheduling.solver.day_proofs import prove
from substrata.scheduling.solver.list_schedule import listed
from substrata.scheduling.solver.plan_check import EARLY, HANDS, OVEN_ON, faults, score
from substrata.scheduling.solver.search_effort import Effort
from substrata.scheduling.solver.solve import solve
from tests.scheduling.conftest import QUICK, baking, hands, idle, kitchen
from tests.support.seeds import some

FREE = [seed for seed in range(40) if movable(kitchen(seed))]
HELD = [seed for seed in range(40) if not movable(kitchen(seed))]


def spend(_part, _keep=0.0):
    return QUICK


@cache
def plans_of(seed):
    problem = kitchen(seed)
    return [plan for plan in (solve(problem, QUICK), listed(problem)) if plan is not None and plan.placed]


def part_of(problem, plan):
    return Schedule(placed={task.id: plan.placed[task.id] for task in problem.tasks}, status="feasible")


@pytest.mark.parametrize("seed", some(range(0, 60, 7), 3))
@pytest.mark.parametrize("most", [0, 20, 60, 130])
def test_every_plan_is_one_of_the_smaller_day(seed, most):
    problem = kitchen(seed)
    less = tied(problem, most)
    for plan in plans_of(seed):
        assert faults(less, part_of(less, plan)) == ()


def test_a_smaller_day_keeps_what_is_tied_and_leaves_what_may_be_done_long_before():
    tasks = hands("weigh", 5), hands("mix", 5), hands("shape", 9), baking("bake", 20), idle("cool", 30)
    weigh, mix, shape, bake, cool = tasks
    problem = ScheduleProblem(
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


@pytest.mark.parametrize("seed", some(HELD[:6], 2))
def test_no_plan_of_a_day_that_stands_by_the_clock_costs_less_than_was_proven(seed):
    problem = kitchen(seed)
    model = Model(problem)
    first = model.best(model.lateness, QUICK, None)
    assert first is not None
    model.keep(model.lateness, first.value)
    prove(model, first, spend)
    least = model.best(OVEN_ON * model.oven_on + EARLY * model.early, QUICK, None)
    for plan in plans_of(seed):
        told = score(problem, plan)
        if told.late <= first.value:
            assert least is None or OVEN_ON * told.oven_on + EARLY * told.early >= least.bound


@pytest.mark.parametrize("seed", some(FREE[:8], 2))
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
    free = kitchen(FREE[0])
    first, *rest = free.tasks
    assert movable(free)
    assert not movable(replace(free, closed=((90, 120),)))
    assert not movable(replace(free, tasks=(replace(first, fixed_start=30), *rest)))
    assert not movable(replace(free, hot=True))


def cases_of(problem, effort=QUICK, told=None):
    model = Model(problem)
    first = model.best(model.lateness, QUICK, None)
    assert first is not None
    assert first.value == 0
    return Cases(problem, replace(first, value=score(problem, first.plan).price), effort, told)


@pytest.mark.parametrize("seed", some(FREE[:18], 3))
def test_no_plan_costs_less_than_its_cases_and_what_they_find_can_be_done(seed):
    problem = kitchen(seed)
    cases = cases_of(problem)
    begun = cases.price
    cases.smaller(1.0)
    after = cases.bound
    cases.whole(1.0)
    assert 0 < after <= cases.bound <= cases.price <= begun
    assert faults(problem, cases.best) == ()
    assert score(problem, cases.best).price <= cases.price
    for plan in plans_of(seed):
        told = score(problem, plan)
        assert told.late or told.price >= cases.bound


@pytest.mark.parametrize("seed", some([1, 3, 4, 18, 22, 28], 2))
def test_the_cheapest_of_the_cases_is_the_cheapest_day(seed):
    """Each case is asked for alone, and to its end; the day as a whole is asked for as it was before there were cases."""
    problem, prices = kitchen(seed), []
    for bake in (None, *sorted(anchors(problem))):
        model = Model(problem, at_due=bake)
        model.keep(model.lateness, 0)
        found = model.best(model.price, Effort(seconds=20, workers=1, steady=True), None)
        assert model.status in ("optimal", "infeasible")
        prices.append(found.value if found else float("inf"))
    assert prices[0] == min(prices[1:])


def fried_while_it_bakes():
    """Two bakes of an oven, and one that is fried by the same hands, and has least to spare when it may."""
    return ScheduleProblem(
        tasks=(
            hands("a:shape", 10, bake="a"), baking("a:bake", 40, bake="a"), idle("a:cool", 5, bake="a"),
            hands("b:shape", 10, bake="b"), baking("b:bake", 30, bake="b"), idle("b:cool", 5, bake="b"),
            hands("c:fry", 45, bake="c"),
        ),
        lags=(
            Lag(before="a:shape", after="a:bake", most=5), Lag(before="a:bake", after="a:cool", most=0),
            Lag(before="b:shape", after="b:bake", most=5), Lag(before="b:bake", after="b:cool", most=0),
        ),
        dues=(
            Due(bake="a", name="A", task="a:cool", minute=300), Due(bake="b", name="B", task="b:cool", minute=300),
            Due(bake="c", name="C", task="c:fry", minute=290, fresh=0),
        ),
        ovens=kitchen(0).ovens[:1],
    )  # fmt: skip


def test_what_is_baked_in_no_oven_may_have_less_to_spare_than_what_is():
    problem = fried_while_it_bakes()
    assert anchors(problem) == {"a", "b"}
    whole, slid = Model(problem), []
    whole.keep(whole.lateness, 0)
    best = whole.best(whole.price, Effort(seconds=20, workers=1, steady=True), None)
    assert best is not None
    for bake in ("a", "b"):
        model = Model(problem, at_due=bake)
        model.keep(model.lateness, 0)
        found = model.best(model.price, Effort(seconds=20, workers=1, steady=True), None)
        assert found is not None
        assert faults(problem, found.plan) == ()
        assert score(problem, found.plan).price == found.value
        slid.append((found.value, found.evaluate(model.slid)))
    assert min(slid)[0] == best.value
    assert min(slid)[1] > 0  # the frying leaves no hands to take anything out: all that is baked is ready sooner


def test_a_plan_begins_so_late_that_a_bake_is_ready_when_it_is_due():
    problem = fried_while_it_bakes()
    early = Model(problem)
    early.keep(early.lateness, 0)
    plan = early.best(early.early * -1, QUICK, None).plan
    later, minutes = as_late_as_may_be(replace(problem, dues=problem.dues[:2]), plan)
    assert minutes > 0
    assert min(due.minute - later.placed[due.task].end for due in problem.dues[:2]) == 0
    assert as_late_as_may_be(replace(problem, dues=problem.dues[:2]), later)[1] == 0
    assert score(problem, plan).hands == score(problem, later).hands


def test_a_stopped_search_ends_with_a_plan_no_dearer_than_it_showed():
    problem, shown = kitchen(24), []
    plan = solve(
        problem, Effort(seconds=20, workers=2), on_better=lambda better: shown.append(better) or len(shown) < 4
    )
    prices = [score(problem, better).price for better in shown]
    assert score(problem, plan).price <= min(prices)
    assert faults(problem, plan) == ()


def test_a_search_that_is_stopped_begins_no_other_case():
    problem = kitchen(6)
    cases = cases_of(problem, Effort(seconds=60, workers=1), told=lambda _plan: False)
    begun = cases.price
    cases.smaller(60)
    cases.whole(60)
    assert cases.stopped
    assert cases.price <= begun
    assert cases.bound == HANDS * work(problem)  # of three cases nothing was asked
