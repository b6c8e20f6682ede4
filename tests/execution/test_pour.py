"""Weighing: how far off a line may be, and what the rest answers when it is further off."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from substrata.base.errors import FormulaError
from substrata.evaluation.figures import figures
from substrata.execution.pour_advice import poured
from substrata.execution.weighing_tolerance import nice, tolerances
from tests.execution.conftest import DEMO, demo


def test_a_gram_of_psyllium_matters_more_than_one_of_vegetable():
    allowed = tolerances(demo("Celeriac flatbread"))
    assert allowed["celeriac"].grams >= 10
    assert allowed["psyllium-powder"].grams <= 2
    assert allowed["salt"].grams <= 0.5


@pytest.mark.parametrize("name", DEMO)
def test_within_its_tolerance_no_line_moves_the_handling_by_a_class(name):
    dough = demo(name)
    base = figures(dough)
    for line, allowed in tolerances(dough).items():
        if line not in {entry.id for entry in dough.formula.lines}:
            continue
        here = next(w.grams.value for w in dough.batch.lines if w.line.id == line)
        other = figures(dough.with_changes(grams={line: here + allowed.grams}))
        assert abs(other.consistency - base.consistency) <= 0.2
        assert allowed.grams <= max(0.15 * here, 0.1)


@given(st.floats(0.05, 500))
def test_a_tolerance_is_never_told_wider_than_it_is(grams):
    assert nice(grams) <= max(grams, 0.1)


def test_too_much_psyllium_wants_water_or_comes_out(rolls):
    advice = poured(rolls, "psyllium-powder", 44.0)
    assert not advice.within
    kinds = {way.kind: way for way in advice.ways}
    assert kinds["out"].grams == {"psyllium-powder": 36.0}
    assert kinds["keeps"].grams["water"] > 420
    assert "water" in kinds["keeps"].text
    assert kinds["scale"].grams["water"] == pytest.approx(420 * 44 / 36)


def test_what_is_stirred_in_is_not_taken_out_again(rolls):
    assert "out" not in {way.kind for way in poured(rolls, "psyllium-powder", 44.0, mixed=True).ways}


def test_the_line_that_follows_keeps_how_it_handles(rolls):
    way = next(w for w in poured(rolls, "psyllium-powder", 44.0).ways if w.kind == "keeps")
    after = figures(rolls.with_changes(grams={"psyllium-powder": 44.0, **way.grams}))
    assert after.consistency == pytest.approx(figures(rolls).consistency, abs=0.05)


def test_short_is_poured_on(rolls):
    advice = poured(rolls, "water", 300.0)
    assert [way.kind for way in advice.ways] == ["more"]
    assert advice.off_g == pytest.approx(-120)


@settings(max_examples=20, deadline=None)
@given(st.sampled_from(sorted(DEMO)), st.floats(0.3, 3), st.floats(0.5, 3))
def test_any_weight_is_answered_and_batches_scale_it(name, factor, batches):
    dough = demo(name)
    for weighed in dough.batch.lines[:3]:
        grams = weighed.grams.value * factor
        one = poured(dough, weighed.line.id, grams)
        more = poured(dough, weighed.line.id, grams * batches, batches=batches)
        assert one.within == more.within
        assert one.text
        assert more.off_g == pytest.approx(one.off_g * batches)


def test_a_line_that_is_not_there_is_refused(rolls):
    with pytest.raises(FormulaError, match="line not found"):
        poured(rolls, "gold-dust", 3.0)
