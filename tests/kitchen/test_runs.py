"""Runs of a kitchen: written from several devices, finished once, judged, learned from, and whose they are."""

import json
import uuid
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime, timedelta

import jsonschema
import pytest
from django.db import connection, connections
from django.test.utils import CaptureQueriesContext

from kitchen.errors import Forbidden, NotFound, Refused
from kitchen.models import Job, Lot, Run, RunEntry, StockMove
from kitchen.services import formulas, ovens, packs, run_advice, runs, trial_files, trials
from kitchen.services.access import membership
from kitchen.services.jobs import run_job
from substrata.base.errors import FormulaError
from substrata.execution.bake_log import what_was_done
from substrata.execution.live_forecast import BakeReading
from substrata.execution.run_document import read_run, run_schema
from tests.conftest import sample

ROLLS = sample(almond_flour=160, psyllium_powder=36, water=420, baking_powder=14, cider_vinegar=10, salt=8)
START = datetime(2026, 5, 2, 6, 0, tzinfo=UTC)


def at(minute):
    return (START + timedelta(minutes=minute)).isoformat()


def entry(kind, what="", value=None, minute=0.0, word="", key=None):
    return {"id": key or uuid.uuid4().hex, "at": at(minute), "kind": kind, "what": what, "value": value, "word": word}


@pytest.fixture
def oven(people, kitchen):
    return ovens.add_oven(membership(people["baker"], kitchen.pk), "Back oven")


@pytest.fixture
def formula(people, kitchen, oven):
    return formulas.create_formula(
        membership(people["baker"], kitchen.pk), ROLLS | {"bake": {"oven": oven.key}}
    ).formula


@pytest.fixture
def run(people, kitchen, formula):
    return runs.start_run(membership(people["baker"], kitchen.pk), formula.pk, "tablet-1", batches=2)


def wrote(people, kitchen, run, *entries):
    return runs.write_entries(membership(people["baker"], kitchen.pk), run.pk, list(entries))


def a_bake(lost=0.1, minutes=28.0):
    return [
        entry("weighed", "water", 840, 1),
        entry("moment", "mixed", minute=5),
        entry("moment", "shaped", minute=15),
        entry("moment", "in", minute=30),
        entry("measured", "weight_in_g", 1290, 30),
        entry("measured", "weight_out_g", 1290 * (1 - lost), 58),
        entry("moment", "out", minute=30 + minutes),
    ]


def test_beginning_twice_is_beginning_once(people, kitchen, formula, run):
    again = runs.start_run(membership(people["baker"], kitchen.pk), formula.pk, "tablet-1", batches=5)
    assert again.pk == run.pk
    assert again.batches == 2
    assert run.plan["steps"][0]["text"]
    assert run.oven == "back-oven"


def test_an_entry_that_is_sent_again_is_kept_once(people, kitchen, run):
    first = entry("weighed", "water", 840, key="a")
    assert wrote(people, kitchen, run, first, entry("note", word="hot day", key="b")) == 2
    assert wrote(people, kitchen, run, first, entry("moment", "mixed", key="c")) == 1
    assert [e.key for e in runs.open_run(membership(people["baker"], kitchen.pk), run.pk).entries] == ["a", "b", "c"]
    known = RunEntry.objects.get(key="b").pk
    assert [e.key for e in runs.open_run(membership(people["baker"], kitchen.pk), run.pk, since=known).entries] == ["c"]


def test_a_batch_with_a_bad_entry_keeps_none_of_it(people, kitchen, run):
    with pytest.raises(FormulaError):
        wrote(people, kitchen, run, entry("note", word="x"), entry("dance"))
    with pytest.raises(FormulaError, match="time"):
        wrote(people, kitchen, run, entry("note") | {"at": "noon"})
    assert run.entries.count() == 0


def test_finishing_takes_what_was_weighed_from_its_packs_once(people, kitchen):
    pack = packs.create_lot(
        membership(people["baker"], kitchen.pk), {"ingredient": "almond-flour", "name": "Mill flour"}, 1000
    ).lot
    document = sample(almond_flour=160, egg=100, water=100)
    document["lines"][0]["lot"] = pack.key
    made = formulas.create_formula(membership(people["baker"], kitchen.pk), document).formula
    run = runs.start_run(membership(people["baker"], kitchen.pk), made.pk, "k", batches=2)
    wrote(people, kitchen, run, entry("weighed", "almond_flour", 331))
    for _ in range(2):
        runs.finish_run(membership(people["baker"], kitchen.pk), run.pk)
    assert Lot.objects.get(pk=pack.pk).on_hand_g == pytest.approx(669)
    assert StockMove.objects.filter(lot=pack, kind="used").count() == 1


def bakes_behind(oven):
    """How many bakes stand behind an oven once the worker has learned from them."""
    for job in Job.objects.filter(kind="learn", state="waiting"):
        run_job(job.pk)
    oven.refresh_from_db()
    return ovens.profile_of(oven).bakes


def test_a_verdict_teaches_the_oven_once_and_leaving_out_unteaches_it(people, kitchen, run, oven):
    wrote(people, kitchen, run, *a_bake())
    for colour in (0, 1):
        runs.give_verdict(membership(people["baker"], kitchen.pk), run.pk, {"liked": "good", "colour": colour})
    assert bakes_behind(oven) == 1
    runs.change_run(membership(people["baker"], kitchen.pk), run.pk, left_out=True)
    assert bakes_behind(oven) == 0
    runs.change_run(membership(people["baker"], kitchen.pk), run.pk, left_out=False)
    assert bakes_behind(oven) == 1
    runs.delete_run(membership(people["baker"], kitchen.pk), run.pk)
    assert bakes_behind(oven) == 0


def test_the_document_of_a_run_is_the_open_format_and_tells_what_was_done(people, kitchen, run):
    wrote(people, kitchen, run, *a_bake())
    runs.give_verdict(
        membership(people["baker"], kitchen.pk), run.pk, {"faults": [{"id": "gummy"}], "scores": {"moist": 7}}
    )
    document = runs.as_document(Run.objects.get(pk=run.pk))
    jsonschema.Draft202012Validator(run_schema()).validate(json.loads(json.dumps(document)))
    done = what_was_done(read_run(document))
    assert (done.minutes, done.rest_min, done.grams) == (28.0, 10.0, {"water": 420.0})


def test_advice_goes_by_what_was_weighed(people, kitchen, run):
    plain = run_advice.feel_run(membership(people["baker"], kitchen.pk), run.pk, "tacky", 10, None)
    wrote(people, kitchen, run, entry("weighed", "water", 1000))
    wet = run_advice.feel_run(membership(people["baker"], kitchen.pk), run.pk, "tacky", 10, None)
    assert wet.bias > plain.bias
    poured = run_advice.pour_run(membership(people["baker"], kitchen.pk), run.pk, "psyllium_powder", 84, mixed=False)
    assert poured.off_g == pytest.approx(12)


def test_the_live_bake_answers_and_is_worked_out_once(people, kitchen, run):
    run_advice._live_bake.cache_clear()
    first = run_advice.live_run(membership(people["baker"], kitchen.pk), run.pk, 5, [])
    hot = run_advice.live_run(
        membership(people["baker"], kitchen.pk), run.pk, 5, [BakeReading(minute=5, kind="oven", value=205)]
    )
    assert hot.ready_min < first.ready_min
    assert run_advice._live_bake.cache_info().hits == 1


def test_why_is_worked_out_by_the_queue_and_kept_for_the_same_question(people, kitchen, run):
    with pytest.raises(Refused, match="no rating yet"):
        trials.start_why(membership(people["baker"], kitchen.pk), run.pk)
    wrote(people, kitchen, run, *a_bake(), entry("weighed", "water", 1000, 2))
    runs.give_verdict(membership(people["baker"], kitchen.pk), run.pk, {"liked": "bad", "faults": [{"id": "too_soft"}]})
    job = trials.start_why(membership(people["baker"], kitchen.pk), run.pk)
    run_job(job.pk)
    told = Job.objects.get(pk=job.pk).result
    assert "liq_more" in {found["cause"] for found in told["making"][:2]}
    assert told["next"]
    assert trials.start_why(membership(people["baker"], kitchen.pk), run.pk).pk == job.pk
    wrote(people, kitchen, run, entry("measured", "dough_c", 36))
    assert trials.start_why(membership(people["baker"], kitchen.pk), run.pk).pk != job.pk


def test_what_is_learned_follows_the_runs(people, kitchen, run):
    wrote(people, kitchen, run, *a_bake(), entry("measured", "probe_c", 200), entry("measured", "oven_c", 177))
    runs.give_verdict(membership(people["baker"], kitchen.pk), run.pk, {"liked": "good", "scores": {"moist": 8}})
    job = trials.start_learn(membership(people["baker"], kitchen.pk))
    run_job(job.pk)
    told = Job.objects.get(pk=job.pk).result
    keys = {one["key"]: one for one in told["learned"]}
    assert keys["oven:back-oven.offset"]["posterior"] > 5
    assert keys["oven:back-oven.offset"]["trials"] == [str(run.pk)]
    runs.delete_run(membership(people["baker"], kitchen.pk), run.pk)
    after = trials.start_learn(membership(people["baker"], kitchen.pk))
    run_job(after.pk)
    assert Job.objects.get(pk=after.pk).result["learned"] == []


def test_runs_are_put_side_by_side(people, kitchen, formula, run):
    other = runs.start_run(membership(people["baker"], kitchen.pk), formula.pk, "tablet-2")
    wrote(people, kitchen, run, *a_bake(lost=0.1))
    wrote(people, kitchen, other, entry("weighed", "water", 440), entry("measured", "dough_c", 31))
    told = trials.compare_runs(membership(people["viewer"], kitchen.pk), [run.pk, other.pk])
    rows = {row.key: row for row in told.rows}
    assert [cell.value for cell in rows["water"].cells] == [420, 440]
    assert rows["loss"].cells[0].value == pytest.approx(10)
    assert told.held[0].count == 1
    assert "water" in told.text
    with pytest.raises(Refused):
        trials.compare_runs(membership(people["viewer"], kitchen.pk), [run.pk])
    with pytest.raises(Refused):
        trials.compare_runs(membership(people["viewer"], kitchen.pk), [run.pk, other.pk + 999])


def test_files_can_be_read_again_and_no_cell_is_a_formula(people, kitchen, run):
    wrote(people, kitchen, run, *a_bake())
    runs.give_verdict(membership(people["baker"], kitchen.pk), run.pk, {"liked": "good", "note": "=HYPERLINK(1)"})
    _, text = trial_files.trials_file(membership(people["baker"], kitchen.pk), "json")
    assert read_run(json.loads(text)["runs"][0]).verdict.note == "=HYPERLINK(1)"
    _, table = trial_files.trials_file(membership(people["baker"], kitchen.pk), "csv")
    assert "'=HYPERLINK" in table
    assert table.splitlines()[0].startswith("started,formula,form")
    with pytest.raises(Refused):
        trial_files.trials_file(membership(people["baker"], kitchen.pk), "xlsx")


def test_a_file_of_runs_is_taken_once_whole_or_not_at_all(people, kitchen, run):
    wrote(people, kitchen, run, *a_bake())
    runs.give_verdict(membership(people["baker"], kitchen.pk), run.pk, {"liked": "good", "faults": [{"id": "dark"}]})
    _, text = trial_files.trials_file(membership(people["baker"], kitchen.pk), "json")
    file = json.loads(text)
    file["runs"].append({"formula": ROLLS, "done": {"minutes": 31, "weight_in_g": 700, "weight_out_g": 630}})
    elsewhere = people["outsider"].memberships.get().kitchen
    assert trial_files.take_runs(membership(people["outsider"], elsewhere.pk), file) == 2
    assert trial_files.take_runs(membership(people["outsider"], elsewhere.pk), file) == 0
    taken = {row.faults[0] if row.faults else "": row for row in Run.objects.filter(kitchen=elsewhere)}
    assert what_was_done(read_run(runs.as_document(taken["dark"]))).minutes == 28
    assert what_was_done(read_run(runs.as_document(taken[""]))).minutes == 31
    file["runs"].append({"formula": {"form": {}}})
    with pytest.raises(FormulaError):
        trial_files.take_runs(membership(people["baker"], kitchen.pk), file)
    assert Run.objects.filter(kitchen=kitchen).count() == 1
    for nothing in ({}, {"runs": []}, {"runs": "many"}, {"runs": [3]}):
        with pytest.raises(Refused):
            trial_files.take_runs(membership(people["baker"], kitchen.pk), nothing)


def test_what_cannot_be_begun_is_refused_in_words(people, kitchen, formula):
    formulas.archive_formula(membership(people["baker"], kitchen.pk), formula.pk, archived=True)
    with pytest.raises(Refused, match="archived"):
        runs.start_run(membership(people["baker"], kitchen.pk), formula.pk, "k")
    formulas.archive_formula(membership(people["baker"], kitchen.pk), formula.pk, archived=False)
    for batches in (0, -1, 1e9, float("nan")):
        with pytest.raises(Refused):
            runs.start_run(membership(people["baker"], kitchen.pk), formula.pk, "k", batches=batches)
    with pytest.raises(Forbidden):
        runs.start_run(membership(people["viewer"], kitchen.pk), formula.pk, "k")
    with pytest.raises(NotFound):
        runs.start_run(membership(people["outsider"], kitchen.pk), formula.pk, "k")
    bowl = formulas.create_formula(membership(people["baker"], kitchen.pk), sample(water=100)).formula
    with pytest.raises(FormulaError, match="nothing to make"):
        runs.start_run(membership(people["baker"], kitchen.pk), bowl.pk, "k")


def test_a_run_stays_when_its_formula_changes(people, kitchen, formula, run):
    draft = formulas.open_formula(membership(people["baker"], kitchen.pk), formula.pk).draft
    formulas.save_draft(membership(people["baker"], kitchen.pk), formula.pk, sample(water=1, egg=100), draft.lock)
    assert (
        runs.open_run(membership(people["baker"], kitchen.pk), run.pk).run.document["lines"][0]["ingredient"]
        == "almond-flour"
    )


def test_lists_ask_a_constant_number_of_queries(people, kitchen, formula, run):
    def asked():
        with CaptureQueriesContext(
            connection,
        ) as seen:
            list(runs.runs_of(membership(people["viewer"], kitchen.pk))[:50])
        return len(seen)

    one = asked()
    Run.objects.bulk_create(
        Run(
            kitchen=kitchen, key=f"k{n}", formula=formula, name="x", form="bun", document=ROLLS, plan={},
            started_at=START + timedelta(days=n), created_by=people["baker"],
        )
        for n in range(60)
    )  # fmt: skip
    assert asked() == one


@pytest.mark.django_db(transaction=True)
def test_two_devices_write_at_once_and_nothing_is_lost(people, kitchen, run):
    def device(number):
        try:
            for n in range(12):
                sent = entry("weighed", "water", 100 + n, n, key=f"{number}-{n}")
                # A device that hears no answer sends again.
                for _ in range(2):
                    wrote(people, kitchen, run, sent)
        finally:
            connections.close_all()

    with ThreadPoolExecutor(4) as pool:
        list(pool.map(device, range(4)))
    assert run.entries.count() == 48


def test_dry_air_is_kept_with_the_run_and_counts_until_it_is_taken_back(people, kitchen, run):
    def said():
        return run_advice.feel_run(membership(people["baker"], kitchen.pk), run.pk, "tacky", None, None).text

    assert "dry air" not in said()
    wrote(people, kitchen, run, entry("note", "dry-air", word="on"))
    assert "In dry air you can add up to" in said()
    wrote(people, kitchen, run, entry("note", "dry-air", word="off"))
    assert "dry air" not in said()
