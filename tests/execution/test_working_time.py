"""A cheese dough that cracks before it is shaped: said in the summary, missed by a balance, paid for in a plan."""

import numpy as np

from substrata.base.settings import Settings
from substrata.evaluation.analysis.analyse import analyse
from substrata.evaluation.working_time import short_working_minutes, working_minutes
from substrata.execution.protocol import bake_protocol
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import check_by_model
from substrata.reformulation.request.balance_request import Wish
from substrata.scheduling.schedule_problem import ScheduledOven
from substrata.scheduling.tasks.bake_tasks import bake_tasks
from tests.execution.conftest import LIBRARY, made

SHORT = {"cheddar": 140, "almond_flour": 105, "coconut_flour": 11, "egg": 45}


def test_a_short_working_time_is_said_and_counts_against_the_dough():
    dough = made("wrap", 6, **SHORT)
    assert working_minutes(dough) < 3
    assert short_working_minutes(dough) is not None
    told = analyse(dough.formula, LIBRARY, Settings())
    assert "to shape it before it cracks" in "".join(str(phrase.text) for phrase in told.summary)
    assert "working-time-short" in {warning.code for warning in told.warnings}
    bench = BalanceProblem(dough.formula, LIBRARY, Settings(), Wish())
    assert "working_time" in check_by_model(bench, np.array([slot.start for slot in bench.slots])).missed
    step = next(step for step in bake_protocol(dough).steps if step.id == "bench")
    assert "right away" in step.text


def test_a_plan_gives_time_to_warm_pieces_again():
    def shaping(**lines):
        tasks = bake_tasks("b", made("wrap", 6, **lines), batches=3, ovens=(ScheduledOven(name="oven", trays=1),)).tasks
        return sum(task.usual for task in tasks if task.kind == "shape")

    roomy = {"mozzarella": 200, "almond_flour": 70, "egg": 50, "mascarpone": 30}
    assert working_minutes(made("wrap", 6, **roomy)) is None or working_minutes(made("wrap", 6, **roomy)) > 3
    assert shaping(**SHORT) > shaping(**roomy)
