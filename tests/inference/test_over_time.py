"""A figure of the runs over time."""

import pytest

from substrata.base.errors import FormulaError
from substrata.execution.run_document import Done, Run, Verdict
from substrata.inference.figure_history import over_time, run_figure_kinds
from tests.inference.conftest import DEMO

ROLLS = DEMO["Market rolls, egg-free"]


def run(number, started, **more):
    return Run(formula=ROLLS, id=str(number), started=started, **more)


RUNS = (
    run(
        2,
        "2026-05-02T08:00:00+00:00",
        done=Done(weight_in_g=1000, weight_out_g=900, minutes=31),
        verdict=Verdict(scores={"crisp": 6}),
    ),
    run(1, "2026-04-02T08:00:00+00:00", done=Done(weight_in_g=800, weight_out_g=700)),
    run(3, "2026-06-02T08:00:00+00:00", done=Done(minutes=0), verdict=Verdict(lightness=55)),
)


def test_the_oldest_comes_first_and_only_what_was_told():
    assert [(p.run, round(p.value, 2)) for p in over_time(RUNS, "loss")] == [("1", 12.5), ("2", 10.0)]
    assert [(p.run, p.value) for p in over_time(RUNS, "minutes")] == [("2", 31), ("3", 0)]
    assert [(p.run, p.value) for p in over_time(RUNS, "score:crisp")] == [("2", 6)]
    assert [(p.run, p.value) for p in over_time(RUNS, "lightness")] == [("3", 55)]
    assert over_time((), "loss") == ()


def test_every_kind_can_be_asked_and_no_other():
    for kind in run_figure_kinds():
        assert isinstance(over_time(RUNS, kind.key), tuple)
    with pytest.raises(FormulaError, match="figure not found"):
        over_time(RUNS, "mood")
