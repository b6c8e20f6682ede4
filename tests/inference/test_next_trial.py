"""What to do next time, held against what experienced bakers do (common practice)."""

import pytest

from substrata.base.tables.table_reader import read_table
from substrata.evaluation.dough import Dough
from substrata.execution.run_document import Done, Felt
from substrata.inference.bake_figures import PLACE, run_figures
from substrata.inference.diagnosis.diagnosis import diagnose
from substrata.inference.diagnosis.proposed_making import edited, making_of
from tests.inference.conftest import DEMO, LIBRARY, demo, planted_table, run_of

ROLLS = "Market rolls, egg-free"


def answer(name, *faults, **rest):
    return diagnose(demo(name), run_of(name, *faults, **rest), table=planted_table(name))


@pytest.mark.parametrize(
    ("name", "faults", "done", "wanted"),
    [
        # Common practice: what a baker tries first.
        ("Gouda-melt crust", ("tears", "too_stiff"), Done(dough_c=31), {"keep_warm"}),
        ("Lemon shortbread coins", ("spread",), Done(), {"chill"}),
        ("Mustard twists", ("pale", "raw"), Done(), {"oven_up", "longer", "probe_oven", "to_weight"}),
        ("Celeriac flatbread", ("soggy",), Done(squeezed_g=300), {"squeeze_to", "squeeze", "longer", "oven_up"}),
        ("Dark seed loaf", ("dense",), Done(), {"fresh_powder", "lift_more", "light_hand", "weigh"}),
        ("Hazelnut caraway crackers", ("blisters",), Done(steps={"dock": False}), {"dock"}),
    ],
)
def test_the_first_proposal_is_what_a_baker_would_try(name, faults, done, wanted):
    assert set(answer(name, *faults, done=done).next[0].actions) & wanted


def test_the_same_again_is_a_proposal_and_gains_nothing():
    told = answer(ROLLS, "gummy").next
    assert told[-1].actions == ()
    assert told[-1].gain == 0
    assert told[-1].formula is None


def test_proposals_are_in_order_and_each_helps():
    told = answer(ROLLS, "gummy", "pale").next
    gains = [p.gain for p in told]
    assert gains == sorted(gains, reverse=True)
    assert all(p.after < p.before for p in told[:-1])


def test_two_changes_only_where_each_pays():
    told = answer(ROLLS, "gummy", "pale").next
    single = {p.actions[0]: p.gain for p in told if len(p.actions) == 1}
    for pair in (p for p in told if len(p.actions) == 2):
        assert all(pair.gain >= single.get(action, 0.0) + 0.06 for action in pair.actions if action in single)


def test_a_proposal_opens_as_a_document_with_its_edits():
    first = answer(ROLLS, "gummy", "pale").next[0]
    after = first.formula
    assert after.bake.oven_c == 192
    assert first.edits[0] == "177 → 192 °C"
    assert Dough(after, LIBRARY).case.oven_c == 192


def test_checks_that_need_no_bake_stand_apart():
    # Common practice: powder in hot water foams; a probe in the empty oven.
    assert "fizz" in {check.check for check in answer("Dark seed loaf", "dense").checks}
    assert "probe" in {check.check for check in answer("Mustard twists", "pale", "raw").checks}
    assert answer("Mustard twists", "pale", done=Done(oven_c=177, probe_c=150)).checks == ()


@pytest.mark.parametrize(
    "row", [r for r in read_table("actions.csv") if r.text("kind") == "shift"], ids=lambda r: r.text("action")
)
def test_every_shift_says_in_the_document_what_it_does_to_the_dough(row):
    """The edited document and the change that was counted with are the same thing."""
    change = row.text("change")
    for name in DEMO:
        dough = demo(name)
        if not set(row.text("needs").split()) <= planted_table(ROLLS).kinds and name == ROLLS:
            continue
        making = making_of(dough, change)
        formula, edits = edited(dough, dough.formula, change)
        if making is None or formula == dough.formula:
            continue
        assert edits
        if not change.startswith(("grams", "share")):
            continue
        table = planted_table(ROLLS) if name == ROLLS else None
        if table is None:
            continue
        counted = run_figures(dough, making, table.written.marks)
        written = run_figures(Dough(formula, LIBRARY), making.with_changes(grams={}), table.written.marks)
        assert counted[PLACE["consistency"]] == pytest.approx(written[PLACE["consistency"]], abs=0.03)
        assert counted[PLACE["load"]] == pytest.approx(written[PLACE["load"]], rel=0.02)


def test_a_felt_class_alone_is_no_fault():
    told = answer(ROLLS, done=Done(felt=(Felt(class_name="tacky"),)))
    assert told.formula == ()
    assert str(told.text).startswith("No fault")
