"""A log as the core reads it, held to the examples that the page is held to, and what learning takes from it."""

import json
from dataclasses import asdict, replace
from pathlib import Path

import pytest

from substrata.execution.bake_log import log_state, what_was_done
from substrata.execution.run_document import Entry, Run
from tests.execution.conftest import DEMO

EXAMPLES = json.loads(Path(__file__).with_name("log_examples.json").read_text(encoding="utf8"))
ROLLS = DEMO["Market rolls, egg-free"]


def entries_of(*rows):
    return tuple(
        Entry(id=str(n), at=f"2026-05-02T07:{minute:02d}:00+00:00", kind=kind, what=what, value=value, source=source)
        for n, (minute, kind, what, value, source) in enumerate(rows)
    )


@pytest.mark.parametrize("example", EXAMPLES, ids=lambda e: e["name"])
def test_a_log_says_what_the_examples_say(example):
    """The page reads the same examples in ``runs.test.ts``."""
    entries = tuple(Entry(**row) for row in example["entries"])
    told = json.loads(json.dumps(asdict(log_state(Run(formula=ROLLS, entries=entries)))))
    assert told == example["log"]


def test_readings_of_the_live_bake_reach_what_was_done():
    log = entries_of(
        (0, "moment", "in", None, ""),
        (9, "reading", "core", 62.0, "thermometer"),
        (10, "reading", "oven", 181.0, "thermometer"),
        (14, "reading", "oven", 195.0, "thermometer"),
        (18, "reading", "oven", 185.0, "thermometer"),
        (29, "reading", "core", 95.5, "thermometer"),
        (30, "moment", "out", None, ""),
    )
    done = what_was_done(Run(formula=ROLLS, entries=log))
    assert (done.minutes, done.core_c, done.probe_c) == (30, 95.5, 185)


def test_what_a_simulated_device_reads_is_shown_and_never_teaches():
    log = entries_of(
        (0, "weighed", "water", 999.0, "simulated"),
        (1, "weighed", "salt", 7.0, "typed"),
        (2, "moment", "in", None, ""),
        (20, "reading", "oven", 43.0, "simulated"),
        (30, "reading", "core", 22.0, "simulated"),
        (31, "moment", "out", None, ""),
    )
    run = replace(Run(formula=ROLLS), entries=log)
    assert what_was_done(run).core_c == 22
    taught = what_was_done(run, simulated=False)
    assert (taught.core_c, taught.probe_c, taught.minutes) == (None, None, 29)
    assert set(taught.grams) == {"salt"}
