"""The open run document: what is kept, and what was done by its entries."""

import json
import random
from dataclasses import replace
from datetime import UTC, datetime, timedelta

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata.base.errors import FormulaError
from substrata.execution.bake_log import standing, what_was_done
from substrata.execution.run_document import Done, Entry, Felt, Run, read_run, run_schema, write_run
from substrata.formula.formula_document import write_document
from tests.execution.conftest import DEMO

ROLLS = DEMO["Market rolls, egg-free"]
START = datetime(2026, 5, 2, 6, 0, tzinfo=UTC)


def entry(number, kind, what="", value=None, minute=0.0, word="", key=None):
    at = (START + timedelta(minutes=minute)).isoformat()
    return Entry(id=key or f"e{number}", at=at, kind=kind, what=what, value=value, word=word)


def whole():
    return {
        "formula": write_document(ROLLS) | {"mine": 1},
        "started": START.isoformat(),
        "house": "kept",
        "entries": [
            {"id": "a", "at": START.isoformat(), "kind": "weighed", "what": "water", "value": 418.0, "hand": "left"},
            {"id": "b", "at": START.isoformat(), "kind": "moment", "what": "mixed"},
        ],
        "verdict": {"faults": [{"id": "dense", "where": "middle", "x": 1}], "scores": {"chewy": 4}, "y": 2},
    }


def test_a_round_trip_keeps_everything_even_what_it_does_not_know():
    written = write_run(read_run(whole()))
    assert read_run(json.loads(json.dumps(written))) == read_run(whole())
    assert written["house"] == "kept"
    assert written["formula"]["mine"] == 1
    assert written["entries"][0]["hand"] == "left"
    assert written["verdict"]["faults"][0]["x"] == 1


def test_the_schema_holds_what_is_written():
    jsonschema.Draft202012Validator(run_schema()).validate(write_run(read_run(whole())))


def test_minutes_follow_from_moments_and_the_last_out_counts():
    entries = (
        entry(1, "moment", "mixed", minute=0),
        entry(2, "felt", word="tacky", minute=8),
        entry(3, "moment", "shaped", minute=11),
        entry(4, "moment", "in", minute=30),
        entry(5, "moment", "out", minute=55),
        entry(6, "moment", "out", minute=59),
        entry(7, "measured", "core_c", 95.0, minute=59),
        entry(8, "skipped", "turn", minute=40),
        entry(9, "weighed", "water", 840.0, minute=-5),
    )
    done = what_was_done(Run(formula=ROLLS, batches=2.0, entries=entries))
    assert (done.rest_min, done.minutes, done.core_c) == (11.0, 29.0, 95.0)
    assert done.felt == (Felt(minute=8.0, class_name="tacky"),)
    assert done.steps == {"turn": False}
    assert done.grams == {"water": 420.0}  # of one batch, as the formula is written


def test_what_is_undone_does_not_stand():
    entries = (entry(1, "weighed", "water", 300.0), entry(2, "undo", "e1", minute=1))
    assert what_was_done(Run(formula=ROLLS, entries=entries)).grams == {}


def test_what_is_told_at_once_stands_over_the_entries():
    run = Run(formula=ROLLS, entries=(entry(1, "measured", "dough_c", 30.0),), done=Done(dough_c=36.0))
    assert what_was_done(run).dough_c == 36.0


@given(st.randoms(use_true_random=False))
def test_two_devices_may_send_in_any_order_and_twice(rng: random.Random):
    entries = [
        entry(1, "moment", "mixed", minute=0),
        entry(2, "moment", "shaped", minute=9),
        entry(3, "weighed", "water", 400.0, minute=-4),
        entry(4, "weighed", "water", 421.0, minute=-3),
        entry(5, "undo", "e2", minute=10),
        entry(6, "moment", "shaped", minute=12, key="late"),
    ]
    mixed = entries + rng.sample(entries, 3)
    rng.shuffle(mixed)
    run = Run(formula=ROLLS, entries=tuple(mixed))
    assert standing(run) == standing(replace(run, entries=tuple(entries)))
    assert what_was_done(run).rest_min == 12.0
    assert what_was_done(run).grams == {"water": 421.0}


@pytest.mark.parametrize(
    ("change", "what"),
    [
        ({"formula": None}, "formula"),
        ({"substrata_run": 9}, "another version"),
        ({"verdict": {"faults": [{"id": "sad"}]}}, "not a known fault"),
        ({"verdict": {"scores": {"chewy": 14}}}, "chewy"),
        ({"done": {"grams": {"gold": 3}}}, "its formula does not have"),
        ({"done": {"steps": {"dance": True}}}, "step not found"),
        ({"done": {"felt": [{"class": "squishy"}]}}, "class"),
        ({"done": {"weight_in_g": -4}}, "weight_in_g"),
        ({"entries": [{"id": "a", "at": "noon", "kind": "note"}]}, "time"),
        ({"entries": [{"id": "a", "at": "2026-05-02T10:00:00", "kind": "note"}]}, "time"),
        ({"entries": "many"}, "entries"),
    ],
)
def test_what_cannot_be_read_is_refused_by_name(change, what):
    with pytest.raises(FormulaError) as refused:
        read_run(whole() | change)
    assert what in str(refused.value)


def test_a_run_without_a_formula_is_refused():
    with pytest.raises(FormulaError, match="no formula"):
        read_run({"entries": []})
