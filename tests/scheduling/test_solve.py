"""Plans: checked by code that knows no solver, against brute force, published optima, and a plain list."""

import itertools
import json
from dataclasses import replace
from pathlib import Path

import pytest

from substrata.scheduling.schedule_problem import Due, Hold, Lag, Placed, Schedule, ScheduledOven, ScheduleProblem, Task
from substrata.scheduling.solver.cost_bounds import least_on
from substrata.scheduling.solver.cp_model import Model
from substrata.scheduling.solver.list_schedule import listed
from substrata.scheduling.solver.plan_check import faults, score
from substrata.scheduling.solver.search_effort import Effort
from substrata.scheduling.solver.solve import solve
from substrata.scheduling.tasks.oven_on_times import heat_curves
from tests.scheduling.conftest import QUICK, baking, chain, crowded, hands, idle, kitchen
from tests.support.seeds import some

SHOPS = json.loads(Path(__file__).with_name("job_shops.json").read_text(encoding="utf8"))


def late(problem, plan):
    return sum(max(plan.placed[due.task].end - due.minute, 0) for due in problem.dues)


@pytest.mark.parametrize("seed", some(range(40), 4))
def test_random_kitchens_are_planned_without_a_fault_and_never_later_than_by_a_list(seed):
    problem = kitchen(seed)
    plan = solve(problem, QUICK)
    if plan.status == "infeasible":
        # Only a freshness limit can make it so: without it there is a plan.
        free = replace(problem, dues=tuple(replace(due, fresh=None) for due in problem.dues))
        assert not faults(free, solve(free, QUICK))
        return
    assert faults(problem, plan) == ()
    plain = listed(problem)
    if plain is not None and not [fault for fault in faults(problem, plain) if fault.kind != "early"]:
        assert paid(problem, plan) <= paid(problem, plain)


@pytest.mark.parametrize("seed", some(range(12), 3))
def test_the_list_makes_plans_that_can_be_done(seed):
    problem = kitchen(seed)
    plan = listed(problem)
    assert plan is not None
    assert [fault for fault in faults(problem, plan) if fault.kind != "early"] == []


@pytest.mark.parametrize("seed", some(range(12), 3))
def test_a_small_fridge_and_few_tins_are_never_asked_for_more_than_there_is(seed):
    problem = crowded(seed)
    problem = replace(problem, dues=tuple(replace(due, fresh=None) for due in problem.dues))
    plan = solve(problem, QUICK)
    assert faults(problem, plan) == ()
    plain = listed(problem)
    if plain is not None and not faults(problem, plain):
        assert paid(problem, plan) <= paid(problem, plain)
    # Where everything is there twice as often nothing is later.
    ample = solve(replace(problem, capacity=dict.fromkeys(problem.capacity, 9)), QUICK)
    assert paid(problem, ample) <= paid(problem, plan)


def test_the_check_sees_a_tin_that_is_wanted_twice():
    tasks = (hands("a", 10), baking("b", 30), hands("c", 10, bake="z"), baking("d", 30, bake="z"))
    holds = (Hold(thing="tin", count=1, since="a", until="b"), Hold(thing="tin", count=1, since="c", until="d"))
    lags = (*chain(*tasks[:2]), *chain(*tasks[2:]))
    dues = (Due(bake="a", name="a", task="b", minute=300), Due(bake="z", name="z", task="d", minute=300))
    problem = ScheduleProblem(
        tasks=tasks, lags=lags, dues=dues, ovens=(ScheduledOven(name="oven"),), capacity={"tin": 1}, holds=holds
    )
    plan = solve(problem, QUICK)
    assert faults(problem, plan) == ()
    first, last = sorted((plan.placed["a"].start, plan.placed["c"].start))
    assert last - first >= 40
    free = solve(replace(problem, capacity={"tin": 2}), QUICK)
    assert {fault.kind for fault in faults(problem, free)} == {"uses"}


def paid(problem, plan):
    """An hour for each bake that is late, and its minutes."""
    return sum((60 + more) for due in problem.dues if (more := max(plan.placed[due.task].end - due.minute, 0)))


def brute(problem, until):
    """Least price of being late over every way to place the tasks, minute by minute."""
    best = None
    for starts in itertools.product(range(until), repeat=len(problem.tasks)):
        placed = {
            t.id: Placed(start=s, end=s + t.minutes, oven="oven" if t.ovens else "")
            for t, s in zip(problem.tasks, starts, strict=True)
        }
        plan = Schedule(placed=placed, status="feasible")
        if (best is None or paid(problem, plan) < best) and not faults(problem, plan):
            best = paid(problem, plan)
    return best


@pytest.mark.parametrize(
    ("tasks", "lags", "dues"),
    [
        ((hands("a1", 3), hands("b1", 4, bake="b")), (), (("a1", 4), ("b1", 5))),
        ((hands("a1", 2), hands("a2", 2), hands("b1", 3, bake="b")), (("a1", "a2", 3, 4),), (("a2", 6), ("b1", 4))),
        ((hands("a1", 2), idle("a2", 4), hands("b1", 5, bake="b")), (("a1", "a2", 0, 0),), (("a2", 5), ("b1", 7))),
        (
            (baking("a1", 4, 22.0), baking("b1", 3, 40.0, bake="b"), hands("b2", 2, bake="b")),
            (("b1", "b2", 0, 1),),
            (("a1", 5), ("b2", 8)),
        ),
    ],
)
def test_small_plans_are_as_good_as_every_other_way(tasks, lags, dues):
    problem = ScheduleProblem(
        tasks=tasks,
        lags=tuple(Lag(before=a, after=b, least=low, most=high) for a, b, low, high in lags),
        dues=tuple(Due(bake=task, name=task, task=task, minute=minute) for task, minute in dues),
        ovens=(ScheduledOven(name="oven", trays=1),),
    )
    plan = solve(problem, QUICK)
    assert faults(problem, plan) == ()
    assert paid(problem, plan) == brute(problem, 14)


@pytest.mark.parametrize("shop", SHOPS, ids=lambda shop: shop["name"])
def test_published_job_shops_come_to_their_optimum(shop):
    # ft06: Muth & Thompson 1963; la01–la09: Lawrence 1984. Machines are things of which there is one, jobs are chains.
    tasks, lags = [], []
    end = idle("end", 1)
    for job, (machines, minutes) in enumerate(zip(shop["machines"], shop["minutes"], strict=True)):
        row = [
            Task(
                id=f"{job}.{n}",
                bake="a",
                text="",
                kind="prep",
                minutes=m,
                low=m,
                high=m,
                usual=m,
                uses=(f"machine {k}",),
            )
            for n, (k, m) in enumerate(zip(machines, minutes, strict=True))
        ]
        tasks += row
        lags += [*chain(*row), Lag(before=row[-1].id, after="end")]
    due = Due(bake="a", name="all", task="end", minute=1)
    problem = ScheduleProblem(tasks=(*tasks, end), lags=tuple(lags), dues=(due,), ovens=())
    model = Model(problem)
    found = model.best(model.late["a"][2], Effort(seconds=20, workers=2), None)
    assert found is not None
    assert found.value == shop["optimum"]
    assert faults(problem, found.plan) == ()


def made():
    tasks = (
        hands("mix", 5),
        baking("bake", 20),
        idle("cool", 10),
        hands("b:mix", 8, bake="b"),
        baking("b:bake", 15, 218.0, bake="b"),
    )
    lags = (
        Lag(before="mix", after="bake", most=10),
        Lag(before="bake", after="cool", most=0),
        Lag(before="b:mix", after="b:bake"),
    )
    dues = (
        Due(bake="a", name="a", task="cool", minute=150, fresh=100),
        Due(bake="b", name="b", task="b:bake", minute=150),
    )
    return ScheduleProblem(
        tasks=tasks, lags=lags, dues=dues, ovens=(ScheduledOven(name="oven", trays=1),), closed=((0, 5),)
    )


@pytest.mark.parametrize(
    ("task", "by", "kind"),
    [
        ("mix", -200, "before"),
        ("cool", 5, "lag"),
        ("cool", -5, "lag"),
        ("bake", -40, "heat"),
        ("bake", 30, "lag"),
        ("b:bake", -8, "hands"),
    ],
)
def test_the_check_sees_what_was_moved_away(task, by, kind):
    problem = made()
    plan = solve(problem, QUICK)
    assert faults(problem, plan) == ()
    at = plan.placed[task]
    placed = {**plan.placed, task: Placed(start=at.start + by, end=at.end + by, oven=at.oven)}
    if kind == "hands":
        other = plan.placed["b:mix"]
        placed["mix"] = other
    assert faults(problem, replace(plan, placed=placed))


def test_the_check_sees_two_temperatures_a_full_oven_and_work_in_the_night():
    problem = made()
    plan = solve(problem, QUICK)
    together = {**plan.placed, "b:bake": plan.placed["bake"]}
    assert {"heat", "trays"} <= {fault.kind for fault in faults(problem, replace(plan, placed=together))}
    night = {**plan.placed, "b:mix": Placed(start=1, end=9)}
    assert "asleep" in {fault.kind for fault in faults(problem, replace(plan, placed=night))}
    assert faults(problem, replace(plan, placed={}))[0].kind == "missing"


@pytest.mark.parametrize("seed", some(range(6), 3))
def test_more_help_is_never_later(seed):
    tight = kitchen(seed, bakes=3, people=1)
    tight = replace(tight, dues=tuple(replace(due, minute=170, fresh=None) for due in tight.dues))
    alone = late(tight, solve(tight, QUICK))
    assert late(tight, solve(replace(tight, people=2), QUICK)) <= alone
    wider = replace(tight.ovens[0], trays=tight.ovens[0].trays + 1)
    assert late(tight, solve(replace(tight, ovens=(wider, *tight.ovens[1:])), QUICK)) <= alone
    later = replace(tight, dues=tuple(replace(due, minute=due.minute + 30) for due in tight.dues))
    assert late(later, solve(later, QUICK)) <= alone


def test_a_plan_is_late_work_not_early_and_the_oven_is_kept_short():
    problem = made()
    plan = solve(problem, QUICK)
    assert plan.status == "optimal"
    told = score(problem, plan)
    assert told.late == 0
    assert told.early <= 45
    # Two bakes of 20 and 15 min, the climb from 180 to 218 °C or back, and heating up once.
    assert told.oven_on <= 20 + 15 + 10 + 25


def morning_and_evening(between, celsius=180.0):
    """Two bakes of half an hour that are wanted fresh, some hours apart."""
    first, second = baking("b0", 30, celsius, bake="a"), baking("b1", 30, celsius, bake="b")
    dues = (
        Due(bake="a", name="a", task="b0", minute=120, fresh=0),
        Due(bake="b", name="b", task="b1", minute=120 + between, fresh=0),
    )
    return ScheduleProblem(tasks=(first, second), lags=(), dues=dues, ovens=(ScheduledOven(name="oven"),))


@pytest.mark.parametrize(("between", "on"), [(300, 2 * (20 + 30)), (90, 20 + 120), (94, 20 + 124), (95, 2 * 50)])
def test_an_oven_is_off_through_a_long_pause(between, on):
    """By hand: 158 K at 8 K/min are 20 min to heat up; it is off where that leaves three quarters of an hour, else it stays on."""
    problem = morning_and_evening(between)
    plan = solve(problem, QUICK)
    assert faults(problem, plan) == ()
    assert plan.status == "optimal"
    assert score(problem, plan).oven_on == on


def test_what_can_share_the_oven_still_does():
    problem = morning_and_evening(300)
    together = replace(problem, dues=tuple(replace(due, fresh=None) for due in problem.dues))
    assert score(together, solve(together, QUICK)).oven_on == 20 + 30 + 1, "a door after the other"


def test_an_oven_that_is_off_cools_and_is_drawn_so():
    problem = morning_and_evening(116)
    (curve,) = heat_curves(problem, solve(problem, QUICK))
    at = dict(zip(curve.minutes, curve.degrees, strict=True))
    # 66 min off at 4 K/min: it is at the room's 22 degrees when it begins to heat again, 20 min before the second bake.
    assert (at[120], at[186], at[206]) == (180, 22, 180)
    assert list(curve.minutes) == sorted(curve.minutes)


def test_the_same_plan_again():
    problem = kitchen(3)
    assert solve(problem, QUICK).placed == solve(problem, QUICK).placed


def test_better_plans_are_shown_as_they_come_and_it_stops_when_told():
    shown = []
    plan = solve(kitchen(5, bakes=4), QUICK, on_better=lambda better: shown.append(better) or len(shown) < 2)
    assert len(shown) == 2
    assert plan.placed


@pytest.mark.parametrize("seed", some(range(12), 3))
def test_no_plan_has_its_oven_on_for_less_than_the_bound_says(seed):
    """The list, which knows neither solver nor bound, never beats it; nor does the solver."""
    problem = kitchen(seed)
    if len(problem.ovens) > 1 or problem.hot:
        return
    rows = [task for task in problem.tasks if task.ovens]
    least = least_on(problem.ovens[0], rows)
    for plan in filter(None, (solve(problem, QUICK), listed(problem))):
        assert score(problem, plan).oven_on >= least
    # With the whole dough in one load at one temperature it is met exactly.
    assert least_on(problem.ovens[0], rows[:1]) == rows[0].minutes + problem.ovens[0].heating(
        rows[0].temp_c - problem.ovens[0].share_k
    )
