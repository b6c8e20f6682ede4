"""One dough, worked out once: the same dough, but for something, is what a new one would be."""

from dataclasses import asdict, replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import Settings, analyse, load_library, read_document
from substrata.evaluation.analysis.analyse import analyse_dough
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import figures
from substrata.evaluation.forecasts.bake_forecast import forecast_bake
from substrata.evaluation.forecasts.shape_forecast import plan_shape
from substrata.process.baking.oven_profile import OvenProfile
from substrata.publishing.card_panels import card_of
from tests.support.documents import demo_documents, differences, random_document

LIBRARY = load_library()
DEMO = {name: read_document(document) for name, document in demo_documents()}
CRUST, TWISTS = DEMO["Celeriac flatbread"], DEMO["Mustard twists"]


def answers(dough):
    """Everything that hangs on grams, capacity, rest, temperature, thickness and oven."""
    parts = (analyse_dough(dough), plan_shape(dough), card_of(dough), figures(dough))
    return [asdict(part) if part is not None else None for part in parts]


def same(one, other):
    return not list(differences(one, other))


@given(st.integers(0, 400), st.floats(0.5, 2.0), st.integers(0, 8))
def test_other_grams_give_what_weighing_anew_gives(number, factor, which):
    formula = read_document(random_document(number))
    dough = Dough(formula, LIBRARY)
    answers(dough)
    line = formula.lines[which % len(formula.lines)]
    grams = (line.grams or 1.0) * factor
    lines = tuple(replace(own, grams=grams) if own.id == line.id else own for own in formula.lines)
    assert same(
        answers(dough.with_changes(grams={line.id: grams})), answers(Dough(replace(formula, lines=lines), LIBRARY))
    )


@pytest.mark.parametrize("formula", DEMO.values(), ids=DEMO)
def test_other_temperature_and_thickness_give_what_the_document_would(formula):
    dough = Dough(formula, LIBRARY)
    answers(dough)
    told = replace(
        formula,
        mix=replace(formula.mix, temperature_c=31.0),
        size=replace(formula.size, held="thickness", thickness_mm=7.5),
    )
    assert same(answers(dough.with_changes(temperature=31.0, thickness=7.5)), answers(Dough(told, LIBRARY)))


def test_what_a_change_does_not_touch_is_shared_and_what_it_touches_is_not():
    dough = Dough(CRUST, LIBRARY)
    answers(dough)
    hot = dough.with_changes(oven=OvenProfile(offset_k=20.0, offset_sd=5.0, bakes=3))
    assert hot.sheet is dough.sheet
    assert hot.handling is dough.handling
    assert hot.case.offset_k == 20.0
    thick = dough.with_changes(thickness=12.0)
    assert thick.batch is dough.batch
    assert thick.handling is not dough.handling
    assert thick.piece.thickness_mm == 12.0


def test_longer_rest_stiffens_and_more_capacity_dries():
    dough = Dough(CRUST, LIBRARY)
    at = {rest: dough.with_changes(rest=rest).handling.at_shaping for rest in (0.0, 5.0, 12.5)}
    assert at[0.0].consistency < at[5.0].consistency < at[12.5].consistency
    assert at[12.5].minutes == 12.5
    thirsty = next(w.line.id for w in dough.batch.lines if w.ingredient.id == "hazelnut-meal")
    thirstier = dough.with_changes(capacity={thirsty: 1.3})
    assert thirstier.sheet.value("water_fill") < dough.sheet.value("water_fill")
    assert thirstier.handling.at_shaping.consistency > dough.handling.at_shaping.consistency
    assert thirstier.with_changes(rest=9.0).capacity == {thirsty: 1.3}


def test_a_hotter_oven_is_sooner_and_shares_the_dough():
    dough = Dough(TWISTS, LIBRARY)
    hot = dough.with_changes(oven=OvenProfile(offset_k=25.0))
    assert forecast_bake(hot).ready_min.best < forecast_bake(dough).ready_min.best


def test_a_line_that_is_not_there_is_refused():
    with pytest.raises(KeyError, match="ghost"):
        Dough(CRUST, LIBRARY).with_changes(grams={"ghost": 1.0})


def test_figures_are_those_of_the_analysis():
    for formula in DEMO.values():
        dough, judged = Dough(formula, LIBRARY).as_baked(), analyse(formula, LIBRARY, Settings())
        found = figures(dough)
        for bracket in judged.brackets:
            assert found.values[bracket.key] == pytest.approx(bracket.estimate.value, abs=1e-9)
            assert found.states[bracket.key] == bracket.state
        assert found.consistency == pytest.approx(judged.handling.at_shaping.consistency, abs=1e-9)
        assert found.class_name == judged.handling.at_shaping.class_name
        assert found.texture == pytest.approx({score.key: score.value for score in judged.texture.scores}, abs=1e-9)
