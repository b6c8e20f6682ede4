"""A computed answer is another one in another kitchen, oven, choice or release: its key misses when it should."""

from dataclasses import replace
from types import SimpleNamespace

import pytest

from kitchen.models import Kitchen
from kitchen.services import formulas, ovens, run_advice, runs, trials
from kitchen.services.access import membership
from kitchen.services.memo import document_mark, kitchen_mark, ovens_mark, profile_mark
from substrata.process.baking.oven_profile import OvenProfile
from tests.conftest import sample

ROLLS = sample(almond_flour=160, psyllium_powder=30, water=380, egg=50, baking_powder=10, salt=6)


def test_a_kitchen_is_told_from_another_and_from_itself_before_a_change(people, kitchen):
    other = people["outsider"].memberships.get().kitchen
    before = kitchen_mark(kitchen)
    assert before != kitchen_mark(other)
    kitchen.revision += 1
    assert before != kitchen_mark(kitchen)


def test_an_oven_is_told_by_all_that_is_known_of_it(people, kitchen):
    before = ovens_mark(kitchen)
    oven = ovens.add_oven(membership(people["baker"], kitchen.pk), "Deck")
    after = ovens_mark(kitchen)
    assert before != after
    oven.learned = {"offset_k": 4.0, "bakes": 1}
    oven.save()
    assert ovens_mark(kitchen) != after
    assert profile_mark(OvenProfile()) != profile_mark(replace(OvenProfile(), altitude_m=1500.0))


def test_a_document_is_told_by_what_it_says_and_not_by_the_order_of_its_keys():
    assert document_mark({"a": 1, "b": 2}) == document_mark({"b": 2, "a": 1})
    assert document_mark({"a": 1}) != document_mark({"a": 2})


@pytest.fixture
def made(monkeypatch):
    """How often causes are planted: once a key."""
    asked = []
    monkeypatch.setattr(trials, "cause_table", asked.append)
    trials._table.cache_clear()
    yield asked
    trials._table.cache_clear()


def test_causes_are_planted_anew_for_another_kitchen_and_another_oven(people, kitchen, made):
    """The same text in two kitchens with other packs and ovens: two tables."""
    elsewhere = people["outsider"].memberships.get().kitchen
    marks = []
    for place in (kitchen, elsewhere, Kitchen.objects.get(pk=kitchen.pk)):
        for profile in (OvenProfile(), OvenProfile(offset_k=15.0)):
            asked = trials.MemoKey((*kitchen_mark(place), *profile_mark(profile), document_mark(ROLLS)), place.pk)
            trials._table(asked)
            marks.append(asked.key)
    assert len(set(marks)) == 4
    assert len(made) == 4


def test_the_live_bake_of_a_run_misses_when_its_oven_moves_to_the_mountains(people, kitchen, monkeypatch):
    oven = ovens.add_oven(membership(people["baker"], kitchen.pk), "Deck")
    formula = formulas.create_formula(
        membership(people["baker"], kitchen.pk), ROLLS | {"bake": {"oven": oven.key}}
    ).formula
    run = runs.start_run(membership(people["baker"], kitchen.pk), formula.pk, "tablet")
    cases = []
    monkeypatch.setattr(
        run_advice, "LiveBake", lambda case, _: cases.append(case) or SimpleNamespace(forecast=lambda *_: None)
    )
    run_advice._live_bake.cache_clear()
    run_advice.live_run(membership(people["baker"], kitchen.pk), run.pk, 1.0, [])
    run_advice.live_run(membership(people["baker"], kitchen.pk), run.pk, 2.0, [])
    ovens.change_oven(membership(people["baker"], kitchen.pk), oven.pk, altitude_m=2000.0)
    run_advice.live_run(membership(people["baker"], kitchen.pk), run.pk, 3.0, [])
    run_advice._live_bake.cache_clear()
    assert [case.altitude_m for case in cases] == [0.0, 2000.0]
