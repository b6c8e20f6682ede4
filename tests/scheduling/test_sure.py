"""How surely a plan holds, how it is mended, and what is said when it cannot be."""

import random
from dataclasses import replace

import pytest

from substrata import load_library, write_document
from substrata.scheduling.plans.late_remedies import critical_min, helps, pressed
from substrata.scheduling.plans.plan_document import read_plan
from substrata.scheduling.plans.planning_case import planning_case
from substrata.scheduling.plans.replanning import Happened, replan
from substrata.scheduling.robustness.robust_plan import CARES, careful, holds, slow
from substrata.scheduling.schedule_problem import Due, Lag, ScheduledOven, ScheduleProblem, Task, hand_times
from substrata.scheduling.solver.plan_check import faults
from substrata.scheduling.solver.search_effort import Effort
from substrata.scheduling.solver.solve import solve
from tests.scheduling.conftest import QUICK, baking, hands, idle, kitchen
from tests.support.demo_doughs import demo_formulas
from tests.support.seeds import some

CAREFUL, CARELESS = CARES[0], CARES[-1]


def certain(problem):
    return replace(problem, tasks=tuple(replace(t, low=t.usual, high=t.usual) for t in problem.tasks))


@pytest.mark.parametrize("seed", some(range(8), 3))
def test_a_plan_of_certain_lengths_always_holds(seed):
    problem = certain(kitchen(seed, bakes=3))
    problem = replace(problem, dues=tuple(replace(due, fresh=None) for due in problem.dues))
    plan = solve(problem, QUICK)
    told = holds(problem, plan, runs=20)
    if not any(plan.late.values()):
        assert told.in_time == 1.0
    assert told.windows == 1.0


def test_a_careful_plan_holds_far_more_often_than_a_careless_one():
    rows = []
    for seed in some(range(20, 26), 2):
        problem = kitchen(seed, bakes=4, people=1)
        problem = replace(problem, dues=tuple(replace(due, minute=400, fresh=None) for due in problem.dues))
        plans = [solve(careful(problem, care), QUICK) for care in (CARELESS, CAREFUL)]
        rows.append([holds(problem, plan).share for plan in plans])
    careless, sure = (sum(row[n] for row in rows) / len(rows) for n in (0, 1))
    assert careless < 0.6
    assert sure > 0.85


@pytest.mark.parametrize(("seed", "bakes"), some([(30, 4), (31, 6), (32, 6)], 3))
def test_a_careful_day_of_the_market_kitchen_holds_on_more_than_85_of_100_days(seed, bakes):
    """One person, one oven, bakes drawn from the demo; days that no number was chosen on."""
    library, formulas = load_library(), {formula.name: formula for formula in demo_formulas()}
    chosen = random.Random(seed).sample(sorted(formulas), bakes)
    told = [
        {"formula": write_document(formulas[name]), "due": "2026-06-06T18:00", "id": str(n)}
        for n, name in enumerate(chosen)
    ]
    problem = planning_case(read_plan({"start": "2026-06-06T06:00", "bakes": told, "name": ""}), library).problem
    plan = solve(careful(problem, CAREFUL), Effort(seconds=3, workers=1, steady=True))
    assert not any(plan.late.values())
    assert holds(problem, plan, runs=1000).share > 0.85


def test_two_sorts_that_are_topped_and_baked_at_once_are_planned_with_all_care():
    tasks = (
        hands("top", 5), baking("plain", 7, 205.0, spread=0.3, trays=1), baking("laden", 11, 205.0, spread=0.3, trays=1),
    )  # fmt: skip
    lags = tuple(Lag(before="top", after=task.id, most=4) for task in tasks[1:])
    due = Due(bake="a", name="A", task="laden", minute=200)
    problem = replace(
        kitchen(0), tasks=tasks, lags=lags, dues=(due,), holds=(), ovens=(ScheduledOven(name="oven"),), people=1
    )
    wanted = careful(problem, CAREFUL)
    plan = solve(wanted, QUICK)
    assert plan.placed
    assert faults(wanted, plan) == ()
    assert not plan.late
    alone = careful(replace(problem, lags=lags[:1]), CAREFUL)
    assert alone.task["plain"].watch > 0 == wanted.task["plain"].watch


def test_some_of_each_window_is_left_unused_and_never_what_has_to_lie_between():
    before, after = hands("before", 5), hands("after", 5)
    problem = replace(kitchen(0), tasks=(before, after), dues=(), holds=())
    for most, least, kept in ((120, 0, 108), (40, 0, 32), (5, 0, 2), (15, 12, 12), (None, 0, None)):
        lag = Lag(before=before.id, after=after.id, least=least, most=most)
        assert careful(replace(problem, lags=(lag,)), CAREFUL).lags[0].most == kept
        assert careful(replace(problem, lags=(lag,)), CARELESS).lags[0].most == most


@pytest.mark.parametrize("seed", some(range(8), 3))
def test_a_careful_plan_is_also_one_of_the_true_problem(seed):
    problem = kitchen(seed)
    problem = replace(problem, dues=tuple(replace(due, fresh=None) for due in problem.dues))
    wanted = careful(problem, CAREFUL)
    plan = solve(wanted, QUICK)
    assert faults(wanted, plan) == ()
    assert [f for f in faults(problem, plan) if f.kind not in ("length", "lag")] == []


def test_the_slow_tenth_of_a_log_normal():
    # A log-normal whose middle nine tenths span 20 to 45 around 30: its ninetieth hundredth is 30·exp(1.2816·ln(2.25)/3.29).
    task = baking("a", 30, spread=0.0)
    task = replace(task, low=20, high=45)
    assert slow(task) == 42
    assert slow(task, -1.2816) == 21


def plan_of(problem):
    return replace(problem, dues=tuple(replace(due, minute=400, fresh=None) for due in problem.dues))


@pytest.mark.parametrize("seed", some(range(10), 3))
def test_when_all_goes_as_planned_nothing_moves(seed):
    problem = plan_of(kitchen(seed))
    plan = solve(problem, QUICK)
    if any(plan.late.values()):
        return
    first = min(problem.tasks, key=lambda t: plan.placed[t.id].start)
    at = plan.placed[first.id]
    begun = [t.id for t in problem.tasks if plan.placed[t.id].start < at.end]
    ended = {t: plan.placed[t].end if plan.placed[t].end <= at.end else None for t in begun}
    happened = tuple(Happened(task=t, start=plan.placed[t].start, end=ended[t]) for t in begun)
    result = replan(problem, plan, happened, at.end, Effort(seconds=2, workers=1))
    assert result is not None
    assert result.moved == ()
    assert "all deadlines are still met" in result.text


def slip(problem, plan, minutes=12):
    """What has happened when a piece of work in the middle of a plan takes so much longer, and when that is seen."""
    order = sorted((t for t in problem.tasks if t.hands == "all"), key=lambda t: plan.placed[t.id].start)
    slipped = order[len(order) // 2]
    at = plan.placed[slipped.id]
    now = at.end
    happened = [
        Happened(task=t.id, start=plan.placed[t.id].start, end=plan.placed[t.id].end)
        for t in problem.tasks
        if plan.placed[t.id].end <= now and t is not slipped
    ]
    running = [t for t in problem.tasks if plan.placed[t.id].start < now < plan.placed[t.id].end]
    happened += [Happened(task=t.id, start=plan.placed[t.id].start) for t in running if t is not slipped]
    happened.append(Happened(task=slipped.id, start=at.start, expected=at.end + minutes))
    return tuple(happened), now


def pushed(problem, plan):
    """What a slip forces when nobody thinks: whatever no longer fits is pushed later, minute by minute, in the order that it had.

    Made of the check alone, which knows nothing of the solver. None where pushing leads nowhere, or where what is under way stands
    in its own way: who mixes cannot take out of the oven.
    """
    movable = {task.id for task in problem.tasks if task.fixed_start is None}

    def at_fault(fault, placed):
        """The tasks that a fault names, else those that want hands or stand in an oven at that minute."""
        if fault.tasks:
            return set(fault.tasks)
        return {
            task.id
            for task in problem.tasks
            if any(start <= fault.minute < end for start, end in hand_times(task, placed[task.id]))
            or (fault.kind not in ("hands", "asleep") and placed[task.id].start <= fault.minute < placed[task.id].end)
        }

    placed = {
        task.id: plan.placed[task.id]
        if task.id in movable or task.fixed_end is not None
        else replace(plan.placed[task.id], end=task.fixed_start + task.minutes)
        for task in problem.tasks
    } | {
        t.id: replace(plan.placed[t.id], start=t.fixed_start, end=t.fixed_end)
        for t in problem.tasks
        if t.fixed_end is not None
    }
    for _ in range(1500):
        found = faults(problem, replace(plan, placed=placed))
        wrong = [meant for f in found if (meant := at_fault(f, placed) & movable)]
        if not wrong:
            if found:
                return None
            return {key for key in movable if placed[key].start - plan.placed[key].start > 2}, placed
        last = max(wrong[0], key=lambda key: (placed[key].start, key))
        at = placed[last]
        placed[last] = replace(at, start=at.start + 1, end=at.end + 1)
    return None


@pytest.mark.parametrize("seed", some(range(24), 4))
def test_no_more_moves_than_the_slip_forces(seed):
    """Where pushing alone keeps every window and deadline, thinking never moves more things than it."""
    problem = plan_of(kitchen(seed))
    plan = solve(problem, QUICK)
    happened, now = slip(problem, plan)
    result = replan(problem, plan, happened, now, Effort(seconds=3, workers=1))
    assert result is not None
    by_hand = pushed(replace(result.problem, lags=problem.lags), plan)
    if by_hand is None:
        return
    moves, placed = by_hand
    if all(placed[due.task].end <= due.minute for due in problem.dues):
        assert len(result.moved) <= len(moves)
        assert result.broken == ()


@pytest.mark.parametrize("seed", some(range(12), 3))
def test_what_is_in_an_oven_stays_in_that_one(seed):
    problem = plan_of(kitchen(seed))
    plan = solve(problem, QUICK)
    happened, now = slip(problem, plan)
    result = replan(problem, plan, happened, now, Effort(seconds=2, workers=1))
    assert result is not None
    assert all(result.plan.placed[what.task].oven == plan.placed[what.task].oven for what in happened)


@pytest.mark.parametrize("seed", some(range(10), 3))
def test_a_slip_of_twelve_minutes_moves_little_and_leaves_what_is_done(seed):
    problem = plan_of(kitchen(seed))
    plan = solve(problem, QUICK)
    happened, now = slip(problem, plan)
    result = replan(problem, plan, happened, now, Effort(seconds=3, workers=1))
    assert result is not None
    assert [f for f in faults(result.problem, result.plan, soft_lags=True) if f.kind != "length"] == []
    # Never more moves than a plan made anew would bring.
    afresh = solve(replace(result.problem, dues=problem.dues), QUICK)
    if afresh.placed:
        still = [t.id for t in result.problem.tasks if t.fixed_start is None]
        fresh = sum(abs(afresh.placed[t].start - plan.placed[t].start) > 2 for t in still)
        if "all deadlines are still met" in result.text and not any(afresh.late.values()):
            assert len(result.moved) <= fresh
    for what in happened:
        assert result.plan.placed[what.task].start == what.start


def tight():
    tasks = (hands("mix", 10), baking("bake", 40), hands("b:mix", 10, bake="b"), baking("b:bake", 40, bake="b"))
    lags = (Lag(before="mix", after="bake"), Lag(before="b:mix", after="b:bake"))
    dues = (Due(bake="a", name="Loaf", task="bake", minute=85), Due(bake="b", name="Rolls", task="b:bake", minute=85))
    return ScheduleProblem(tasks=tasks, lags=lags, dues=dues, ovens=(ScheduledOven(name="oven", trays=1),))


def test_what_would_help_is_told():
    told = {change.key for change in helps(tight(), Effort(seconds=2, workers=1))}
    assert {"tray", "oven", "without:a", "without:b"} <= told
    assert "people" not in told
    assert any(change.key == "earlier" for change in helps(tight(), Effort(seconds=2, workers=1)))


def test_a_bake_that_is_too_long_by_itself_is_named():
    problem = replace(tight(), dues=(Due(bake="a", name="Loaf", task="bake", minute=30), tight().dues[1]))
    assert pressed(problem) == ("a",)
    # Heating from 22 to 180 °C at 8 K/min takes 20 min, longer than mixing.
    assert critical_min(problem, "a") == 20 + 40


def test_rest_may_lie_longer_but_not_for_ever():
    rest = Task(
        id="rest", bake="a", text="rest", kind="rest", minutes=10, low=10, high=10, usual=10, longest=30, passive=True
    )
    tasks = (hands("mix", 5), rest, hands("shape", 5), idle("end", 1))
    lags = (
        Lag(before="mix", after="rest", most=0),
        Lag(before="rest", after="shape", most=0),
        Lag(before="shape", after="end", least=0),
    )
    problem = ScheduleProblem(
        tasks=tasks, lags=lags, dues=(Due(bake="a", name="a", task="end", minute=200),), ovens=(), closed=((12, 40),)
    )
    plan = solve(problem, QUICK)
    assert faults(problem, plan) == ()
    assert 10 <= plan.placed["rest"].end - plan.placed["rest"].start <= 30
