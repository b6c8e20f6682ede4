"""The tasks of one bake: all that its protocol asks for, in an order that works, with the windows that the trade keeps."""

from itertools import pairwise

import pytest

from substrata import load_library, read_document
from substrata.evaluation.dough import Dough
from substrata.scheduling.schedule_problem import ScheduledOven
from substrata.scheduling.tasks.bake_tasks import bake_tasks
from tests.support.demo_doughs import demo_formulas
from tests.support.doughs import document

LIBRARY = load_library()
DEMO = {formula.name: formula for formula in demo_formulas()}
OVENS = (ScheduledOven(name="deck", trays=2, share_k=10.0),)


def tasks(formula, batches=1.0, **rest):
    return bake_tasks("b", Dough(formula, LIBRARY), batches=batches, ovens=OVENS, **rest)


def kinds(plan):
    return [task.kind for task in plan.tasks]


def follows(plan, task):
    """What has to be over before a task may begin, directly or not."""
    before = {lag.before for lag in plan.lags if lag.after == task}
    return before.union(*(follows(plan, name) for name in before))


@pytest.mark.parametrize("name", DEMO)
def test_every_step_of_the_protocol_lies_in_one_task_and_all_lead_to_the_last(name):
    plan = tasks(DEMO[name])
    steps = [step for task in plan.tasks for step in task.steps]
    assert set(steps) <= {step.id for step in plan.run.steps}
    # Shaping comes again with every load; all else is done once.
    once = [step.id for step in plan.run.steps if step.group in ("weigh", "mix", "bake", "cool")]
    assert all(steps.count(step) == 1 for step in once)
    assert follows(plan, plan.last) | {plan.last} == {task.id for task in plan.tasks}
    assert all(task.low <= task.usual <= task.high for task in plan.tasks)


@pytest.mark.parametrize("name", DEMO)
def test_nothing_goes_round_in_a_circle(name):
    plan = tasks(DEMO[name], 3)
    assert all(task.id not in follows(plan, task.id) for task in plan.tasks)


def test_more_than_the_trays_hold_goes_in_several_loads_each_after_the_other():
    one, many = tasks(DEMO["Market rolls, egg-free"]), tasks(DEMO["Market rolls, egg-free"], 6)
    assert kinds(one).count("bake") == 1
    loads = [task for task in many.tasks if task.kind == "bake"]
    assert len(loads) == many.loads > 1
    assert sum(task.trays for task in loads) == many.trays
    assert all(task.trays <= OVENS[0].trays for task in loads)
    for first, second in pairwise(loads):
        assert first.id in follows(many, second.id)


def test_the_cooling_begins_the_moment_the_last_load_is_out():
    plan = tasks(DEMO["Market rolls, egg-free"], 6)
    last = [task.id for task in plan.tasks if task.kind == "bake"][-1]
    assert [lag.most for lag in plan.lags if lag.after == plan.last and lag.before == last] == [0]


def test_what_is_raised_by_yeast_stands_in_a_warm_place_and_not_too_long():
    dough = document("bun", 8, almond_flour=200, psyllium_powder=25, egg=100, water=220, dry_yeast=6, sugar=8, salt=4)
    plan = tasks(read_document(dough))
    proof = next(task for task in plan.tasks if task.id.startswith("b:proof"))
    assert proof.passive
    assert proof.longest is not None
    assert proof.longest > proof.minutes
    bake = next(task for task in plan.tasks if task.kind == "bake")
    (limit,) = [lag.most for lag in plan.lags if (lag.before, lag.after) == (proof.id, bake.id)]
    assert limit is not None


def test_a_fried_dough_has_hot_oil_with_somebody_by_it():
    plan = tasks(DEMO["Orange drop doughnuts"])
    assert {"b:oil", "b:fry"} <= {task.id for task in plan.tasks}
    fry = next(task for task in plan.tasks if task.id == "b:fry")
    assert not fry.ovens
    assert next(lag for lag in plan.lags if (lag.before, lag.after) == ("b:oil", "b:fry")).most == 5


def test_melted_cheese_is_shaped_before_it_cracks_and_a_batter_before_its_gas_is_gone():
    melted = tasks(DEMO["Gouda-melt crust"])
    assert "melt" in kinds(melted)
    shaping = next(lag for lag in melted.lags if lag.after == "b:shape" and lag.before == "b:mix")
    assert shaping.most is not None
    assert "crack" in shaping.reason


def test_a_topped_bake_is_taken_out_between_its_stages():
    stages = [{"kind": "bake", "minutes": 8}, {"kind": "top"}, {"kind": "finish"}]
    crust = document("thin-crust", 1, almond_flour=90, mozzarella=170, egg=50, psyllium_powder=8)
    plan = tasks(read_document(crust | {"bake": {"stages": stages}}))
    assert kinds(plan).count("bake") == 2
    top = next(task for task in plan.tasks if task.id.startswith("b:top"))
    first, second = (task.id for task in plan.tasks if task.kind == "bake")
    assert first in follows(plan, top.id)
    assert top.id in follows(plan, second)


def test_twice_the_batches_take_more_work_but_no_longer_bake():
    one, two = tasks(DEMO["Hazelnut caraway crackers"]), tasks(DEMO["Hazelnut caraway crackers"], 2)
    minutes = [sum(task.minutes for task in plan.tasks if task.kind == "shape") for plan in (one, two)]
    assert minutes[1] > minutes[0]
    usual = [max(task.usual for task in plan.tasks if task.kind == "bake") for plan in (one, two)]
    assert usual[1] == pytest.approx(usual[0], abs=2)


def test_few_tins_make_more_loads():
    loaf = DEMO["Pumpkin tin loaf"]
    free, scarce = tasks(loaf, 4), tasks(loaf, 4, has={"tin": 1})
    assert scarce.loads > free.loads
    assert all(hold.count <= 1 for hold in scarce.holds)
