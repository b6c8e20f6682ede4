"""What is believed after a verdict: probabilities that add up, and how each piece of evidence moves them."""

import numpy as np
import pytest

from substrata.execution.run_document import Done
from substrata.inference.diagnosis.evidence import logged
from substrata.inference.diagnosis.posterior import posterior
from tests.inference.conftest import demo, planted_table, run_of

ROLLS, TWISTS = "Market rolls, egg-free", "Mustard twists"


def believed(name, *faults, done=None, proven=False, **verdict):
    dough, table = demo(name), planted_table(name)
    run = run_of(name, *faults, done=done, **verdict)
    log = logged(dough, run.done, table.written.marks.minutes)
    return posterior(dough, table, run.done, run.verdict, log, proven=proven)


def nothing(belief):
    rows = [n for n, h in enumerate(belief.hypotheses) if not h.causes]
    return float(belief.weights[rows].sum())


@pytest.mark.parametrize("faults", [(), ("gummy",), ("gummy", "pale"), ("too_soft", "dense")])
def test_all_hypotheses_together_are_certain(faults):
    belief = believed(ROLLS, *faults)
    assert belief.weights.sum() == pytest.approx(1)
    assert np.all(belief.weights >= 0)
    every = {cause.cause.id for h in belief.hypotheses for cause in h.causes}
    assert all(0 <= belief.probability(cause) <= 1 for cause in every)
    assert belief.probability("no_such_cause") == 0
    assert belief.weights.shape == (len(belief.hypotheses), len(belief.spread))


def test_a_good_bake_leaves_most_of_the_belief_with_nothing():
    assert nothing(believed(ROLLS)) > nothing(believed(ROLLS, "gummy"))
    assert nothing(believed(ROLLS)) > 0.25


def test_a_version_that_was_good_before_points_to_the_making():
    assert nothing(believed(ROLLS, "gummy", proven=True)) < nothing(believed(ROLLS, "gummy"))


def test_a_logged_weight_as_written_clears_a_slip_and_another_one_proves_it():
    unlogged = believed(ROLLS, "bland").probability("salt_forgot")
    written = next(line.grams for line in demo(ROLLS).formula.lines if line.id == "salt")
    assert believed(ROLLS, "bland", done=Done(grams={"salt": written})).probability("salt_forgot") < unlogged
    assert believed(ROLLS, "bland", done=Done(grams={"salt": 0.2 * written})).probability("salt_forgot") > 0.8


def test_a_cold_reading_in_the_oven_and_a_pale_crust_say_the_same():
    cold = Done(oven_c=177, probe_c=150)
    pale, read, both = (
        believed(TWISTS, "pale"), believed(TWISTS, done=cold), believed(TWISTS, "pale", done=cold)
    )  # fmt: skip
    assert both.probability("oven_lo") > pale.probability("oven_lo")
    assert both.probability("oven_lo") >= read.probability("oven_lo")


def test_a_new_bag_makes_its_lot_suspect_and_the_old_one_clears_it():
    lots = {p.cause.id for p in planted_table(ROLLS).planted if p.cause.scope == "lot"}
    assert lots
    new, plain, old = (
        sum(believed(ROLLS, "too_soft", done=Done(new_packs=packs)).probability(cause) for cause in lots)
        for packs in ({"almond": True}, {}, {"almond": False})
    )
    assert new > plain > old


def test_the_same_evidence_gives_the_same_belief():
    one, two = believed(ROLLS, "gummy"), believed(ROLLS, "gummy")
    assert np.array_equal(one.weights, two.weights)
