"""What a kitchen's runs teach its forecasts: taken over by itself, switched off, forgotten, never another kitchen's."""

import pytest

from kitchen.errors import Forbidden, Refused
from kitchen.models import Job, Kitchen
from kitchen.services import formulas, kitchens, runs, trials
from kitchen.services.access import membership
from kitchen.services.jobs import run_job
from kitchen.services.judging import core_settings, judge, library_of
from tests.kitchen.test_runs import ROLLS, entry


@pytest.fixture
def felt(people, kitchen):
    """Three bakes of the same rolls, each felt far softer and scored far crisper than the house says."""
    formula = formulas.create_formula(membership(people["baker"], kitchen.pk), ROLLS).formula
    for n in range(3):
        run = runs.start_run(membership(people["baker"], kitchen.pk), formula.pk, f"felt-{n}")
        told = [
            entry("moment", "mixed", minute=5),
            entry("felt", word="spoonable", minute=15),
            entry("moment", "in", minute=30),
        ]
        runs.write_entries(membership(people["baker"], kitchen.pk), run.pk, told)
        runs.give_verdict(membership(people["baker"], kitchen.pk), run.pk, {"liked": "good", "scores": {"crisp": 8}})
    learn(kitchen)
    return formula


def learn(kitchen):
    for job in Job.objects.filter(kitchen=kitchen, kind="learn", state=Job.State.WAITING):
        run_job(job.pk)
    kitchen.refresh_from_db()


def judged(kitchen, document=ROLLS):
    return judge(library_of(kitchen, document), core_settings(Kitchen.objects.get(pk=kitchen.pk)), document)


def crisp(analysis):
    return next(score for score in analysis.texture.scores if score.key == "crisp")


def test_a_verdict_moves_the_next_forecast_and_says_from_what(people, kitchen, felt):
    other = kitchens.open_kitchen(people["baker"], "Another").kitchen
    plain, taught = judged(other), judged(kitchen, felt.draft.document)
    assert taught.handling.at_shaping.consistency < plain.handling.at_shaping.consistency - 0.2
    assert "softer than the built-in model, from 3 of your own bakes" in taught.handling.learned
    assert crisp(taught).value > crisp(plain).value + 1
    assert crisp(taught).learned == "From 3 of your own bakes"
    assert plain.handling.learned == crisp(plain).learned == ""
    told = [one.handling.at_shaping for one in (taught, plain)]
    assert told[0].high - told[0].low < 0.9 * (told[1].high - told[1].low), "its own runs leave less open"
    assert crisp(taught).high - crisp(taught).low < crisp(plain).high - crisp(plain).low
    cracker = felt.draft.document | {
        "uid": "another",
        "name": "Seed sheet",
        "form": {**ROLLS["form"], "kind": "cracker"},
    }
    assert "of other doughs in this kitchen" in judged(kitchen, cracker).handling.learned


def test_what_was_learned_is_not_learned_again(kitchen, felt):
    before = kitchen.lessons, kitchen.revision
    member = kitchen.memberships.select_related("kitchen").first()
    runs.run_judged.send(runs.Run, member=member)
    learn(kitchen)
    assert (kitchen.lessons, kitchen.revision) == before


def test_a_block_is_switched_off_and_all_is_forgotten_and_taken_back(people, kitchen, felt):
    house = judged(kitchens.open_kitchen(people["baker"], "Another").kitchen)
    trials.change_learning(membership(people["baker"], kitchen.pk), off=["hands"])
    only = judged(kitchen)
    assert only.handling.at_shaping.consistency == house.handling.at_shaping.consistency
    assert crisp(only).value > crisp(house).value
    trials.change_learning(membership(people["baker"], kitchen.pk), off=[], forget=True)
    learn(kitchen)
    assert crisp(judged(kitchen)).value == crisp(house).value
    trials.change_learning(membership(people["baker"], kitchen.pk), forget=False)
    learn(kitchen)
    assert crisp(judged(kitchen)).value > crisp(house).value


def test_a_run_left_out_teaches_nothing_any_more(people, kitchen, felt):
    for run in list(kitchen.runs.all()):
        runs.change_run(membership(people["baker"], kitchen.pk), run.pk, left_out=True)
    learn(kitchen)
    assert kitchen.lessons == []


def test_a_felt_word_that_is_no_class_harms_nothing(people, kitchen, felt):
    run = kitchen.runs.first()
    runs.write_entries(membership(people["baker"], kitchen.pk), run.pk, [entry("felt", word="clammy", minute=16)])
    runs.run_judged.send(runs.Run, member=kitchen.memberships.select_related("kitchen").first())
    learn(kitchen)
    assert Job.objects.filter(kitchen=kitchen, state=Job.State.FAILED).count() == 0
    assert kitchen.lessons


def test_learning_is_changed_by_bakers_and_only_where_there_is_something(people, kitchen):
    with pytest.raises(Refused, match="block not found"):
        trials.change_learning(membership(people["baker"], kitchen.pk), off=["mood"])
    with pytest.raises(Forbidden):
        trials.change_learning(membership(people["viewer"], kitchen.pk), off=[])
