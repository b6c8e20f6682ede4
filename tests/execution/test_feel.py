"""Advice by feel. Common practice stands beside each check that has it as its source."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from substrata.base.errors import FormulaError
from substrata.execution.correction import as_felt, consistency_at, with_more
from substrata.execution.feel_advice import band_middle, feel
from substrata.execution.run_document import felt_words
from substrata.process.rheology.handling_classes import ClassBand, band_of
from tests.execution.conftest import DEMO, demo, made

CLASSES = [word for word in felt_words() if word != "crumbly"]


@pytest.mark.parametrize("name", DEMO)
@pytest.mark.parametrize("felt", CLASSES)
def test_what_is_inside_is_shaped_and_what_is_not_gets_something_to_do(name, felt):
    dough = demo(name)
    advice = feel(dough, class_name=felt, minute=5)
    band = band_of(felt, dough.piece.thickness_mm)
    wanted = dough.target_handling
    inside = wanted.low <= band_middle(band) < wanted.high
    assert advice.fits == inside
    assert bool(advice.ways) != inside
    assert (advice.off_by < 0) == (band_middle(band) < wanted.low)


def test_too_stiff_wants_liquid_and_too_soft_wants_flour_or_time(rolls):
    stiff, soft = (feel(rolls, class_name=word, minute=10) for word in ("stiff", "spreadable"))
    assert {way.ingredient for way in stiff.ways if way.kind == "add"} <= {"water", "egg"}
    assert all(way.grams > 0 for way in (*stiff.ways, *soft.ways) if way.kind == "add")
    assert {way.ingredient for way in soft.ways if way.kind == "add"} <= {
        line.ingredient for line in rolls.formula.lines if line.ingredient != "water"
    }


def test_waiting_is_offered_only_where_the_curve_crosses_into_the_window():
    # Common practice: psyllium thickens for ten minutes after mixing; a dough that has drunk its fill does not.
    young = feel(demo("Orange drop doughnuts"), class_name="spoonable", minute=2)
    assert any(way.kind == "wait" and 1 <= way.minutes <= 20 for way in young.ways)
    old = feel(demo("Gouda-melt crust"), class_name="spreadable", minute=25)
    assert not any(way.kind == "wait" for way in old.ways)


def test_a_cheese_dough_that_went_stiff_is_warmed_first():
    # Common practice: warm the piece in hand again, and only that.
    advice = feel(demo("Gouda-melt crust"), class_name="stiff", minute=20, temperature_c=32.0)
    assert advice.ways[0].kind == "warm"
    assert 35 <= advice.ways[0].temperature_c <= 65


def test_a_soft_butter_dough_is_chilled_first():
    # Common practice: chill a cookie dough that is too soft.
    advice = feel(demo("Lemon shortbread coins"), class_name="spreadable")
    assert advice.ways[0].kind == "cool"
    assert advice.ways[0].temperature_c < 20


def test_a_crumbly_dough_is_pressed_and_moistened():
    advice = feel(demo("Hazelnut caraway crackers"), class_name="crumbly")
    assert [way.kind for way in advice.ways][:2] == ["press", "add"]


def test_the_added_grams_bring_the_felt_dough_into_the_window():
    wraps = demo("Broccoli wraps")
    advice = feel(wraps, class_name="spoonable", minute=5)
    warm, felt = wraps.handling.temperature_c, band_middle(band_of("spoonable"))
    real = as_felt(wraps, felt, 5.0, warm)
    before = consistency_at(real, 5.0, warm)
    way = next(w for w in advice.ways if w.kind == "add" and "feel again" not in w.text)
    after = consistency_at(with_more(real, way.line, way.grams), 5.0, warm)
    # From the band_middle of the felt class to .3 decades inside of the window, as it is aimed.
    assert after - before == pytest.approx(wraps.target_handling.low + 0.3 - felt, abs=0.05)


@settings(max_examples=25, deadline=None)
@given(st.sampled_from(sorted(DEMO)), st.sampled_from(CLASSES), st.floats(0.5, 4))
def test_twice_the_dough_wants_twice_the_grams(name, felt, batches):
    one, more = (feel(demo(name), class_name=felt, batches=b) for b in (1.0, batches))
    for a, b in zip(one.ways, more.ways, strict=True):
        assert a.kind == b.kind
        if a.grams and a.grams > 5:
            assert b.grams == pytest.approx(a.grams * batches, rel=0.12, abs=1.0)


def test_the_felt_dough_feels_like_what_was_felt(rolls):
    for word in ("spreadable", "tacky", "rollable"):
        wanted = band_middle(band_of(word, rolls.piece.thickness_mm))
        assert consistency_at(as_felt(rolls, wanted, 10.0), 10.0) == pytest.approx(wanted, abs=0.03)


def test_an_open_class_stands_for_somewhat_inside_of_its_end():
    assert band_middle(ClassBand(class_name="pourable", low=-99.0, high=0.9)) == pytest.approx(0.5)
    assert band_middle(ClassBand(class_name="stiff", low=4.4, high=9.0)) == pytest.approx(4.8)


@pytest.mark.parametrize(
    ("dough", "felt", "what"),
    [(made(almond_flour=100), "tacky", "no dough"), (demo("Mustard twists"), "squishy", "unknown dough feel")],
)
def test_what_cannot_be_felt_is_refused(dough, felt, what):
    with pytest.raises(FormulaError, match=what):
        feel(dough, class_name=felt)
