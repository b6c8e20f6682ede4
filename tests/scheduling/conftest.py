"""Plans of our own making: random kitchens with chains of work, one oven or two, windows, and deadlines that are just wide enough."""

import random
from itertools import pairwise

from substrata.scheduling.schedule_problem import Due, Hold, Lag, ScheduledOven, ScheduleProblem, Task
from substrata.scheduling.solver.search_effort import Effort

QUICK = Effort(seconds=1.0, workers=1, steady=True)


def hands(name, minutes, *, bake="a", **more):
    return Task(
        id=name,
        bake=bake,
        text=name,
        kind="mix",
        minutes=minutes,
        low=minutes,
        high=minutes,
        usual=minutes,
        hands="all",
        **more,
    )


def baking(name, minutes, celsius=180.0, *, bake="a", trays=1, spread=0.0, ovens=("oven",), **more):
    low, high = round(minutes * (1 - spread)), round(minutes * (1 + spread))
    return Task(
        id=name, bake=bake, text=name, kind="bake", minutes=minutes, low=max(low, 1), high=high, usual=minutes,
        hands="ends", head=1, tail=1, ovens=ovens, temp_c=celsius, trays=trays, **more,
    )  # fmt: skip


def idle(name, minutes, *, bake="a", **more):
    return Task(
        id=name, bake=bake, text=name, kind="cool", minutes=minutes, low=minutes, high=minutes, usual=minutes, **more
    )


def chain(*tasks, most=None):
    return tuple(Lag(before=a.id, after=b.id, most=most) for a, b in pairwise(tasks))


def crowded(seed):
    """A random kitchen whose doughs lie in one small fridge before they are shaped, and are baked in the few tins there are."""
    problem, rng = kitchen(seed), random.Random(seed + 1000)
    tasks, lags, holds = [], list(problem.lags), []
    for task in problem.tasks:
        tasks.append(task)
        bake, _, name = task.id.partition(":")
        if name == "mix" and rng.random() < 0.6:
            lie = idle(f"{bake}:lie", rng.choice((20, 45)), bake=bake, passive=True, longest=240, uses=("fridge",))
            tasks.append(lie)
            lags = [lag for lag in lags if lag.before != task.id]
            lags += [
                Lag(before=task.id, after=lie.id, most=10),
                Lag(before=lie.id, after=f"{bake}:shape", most=15),
            ]
        if name == "bake0" and rng.random() < 0.7:
            holds.append(Hold(thing="tin", count=rng.choice((1, 2)), since=f"{bake}:shape", until=task.id))
    capacity = {"fridge": rng.choice((1, 2)), "tin": 2}
    return ScheduleProblem(
        **{**vars_of(problem), "tasks": tuple(tasks), "lags": tuple(lags), "holds": tuple(holds), "capacity": capacity}
    )


def vars_of(problem):
    return {name: getattr(problem, name) for name in problem.__dataclass_fields__}


def kitchen(seed, bakes=None, people=None):
    """A random problem: each bake is weighed, mixed, rested, shaped, baked in a load or two, cooled."""
    rng = random.Random(seed)
    tasks, lags, dues = [], [], []
    count = bakes or rng.randint(2, 4)
    two = rng.random() < 0.25
    ovens = (
        ScheduledOven(name="oven", trays=rng.choice((1, 2, 2))),
        *((ScheduledOven(name="small", trays=1),) if two else ()),
    )
    names = tuple(oven.name for oven in ovens)
    for n in range(count):
        bake = f"b{n}"
        work = [
            hands(f"{bake}:mix", rng.randint(4, 12), bake=bake),
            hands(f"{bake}:shape", rng.randint(3, 15), bake=bake),
        ]
        lags.append(
            Lag(before=work[0].id, after=work[1].id, least=rng.choice((0, 5, 10)), most=rng.choice((None, 20, 45)))
        )
        last = work[1]
        celsius = rng.choice((150.0, 177.0, 180.0, 218.0))
        for load in range(rng.choice((1, 1, 2))):
            one = baking(
                f"{bake}:bake{load}", rng.randint(9, 50), celsius, bake=bake, spread=rng.choice((0.1, 0.3)), ovens=names,
                shut=rng.choice((0, 0, 8)),
            )  # fmt: skip
            lags.append(Lag(before=last.id, after=one.id, most=rng.choice((None, 30)) if not load else None))
            work.append(one)
            last = one
        cool = idle(f"{bake}:cool", rng.choice((5, 20, 60)), bake=bake)
        lags.append(Lag(before=last.id, after=cool.id, most=0))
        tasks += [*work, cool]
        dues.append(
            Due(bake=bake, name=bake, task=cool.id, minute=rng.randint(240, 420), fresh=rng.choice((None, 200)))
        )
    closed = ((90, 120),) if rng.random() < 0.3 else ()
    return ScheduleProblem(
        tasks=tuple(tasks),
        lags=tuple(lags),
        dues=tuple(dues),
        ovens=ovens,
        people=people or rng.choice((1, 1, 2)),
        closed=closed,
    )
