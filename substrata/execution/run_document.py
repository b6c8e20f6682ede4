"""The open run document ``*.run.json``: a formula as it was written, what was really done with it, and the verdict.

A run is kept as *entries*, each with an id of its own, so that two devices may write one run and a second sending changes
nothing. What was done follows from them (``done_of``); a run that was written down afterwards tells it in ``done`` at once.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from functools import cache
from typing import Annotated, Any, Literal, get_args

from substrata.base.documents.collection_kinds import Listed, Named, Nested
from substrata.base.documents.field_kinds import Flag, Number, Text, Where, Whole, Word
from substrata.base.documents.format_version import check_version
from substrata.base.documents.records import read_record, record_schema, write_record
from substrata.base.errors import FormulaError
from substrata.base.tables.table_reader import read_table
from substrata.formula.formula import Formula
from substrata.process.rheology.handling_classes import classes

RUN_VERSION = 1
_VERSION = "substrata_run"
GRAMS = Number(low=0, high=200_000, unit="g")
DEGREES = Number(low=-30, high=400, unit="°C")
MINUTES = Number(low=0, high=100_000, unit="min")
ENTRY_KINDS = Literal[
    "weighed", "measured", "reading", "moment", "done", "skipped", "felt", "swapped", "new_pack", "timer", "photo", "note", "undo"
]  # fmt: skip
# Who or what gave a number: "" where an earlier release did not say. What is simulated is shown, and never teaches.
SOURCES = Literal["", "typed", "scale", "thermometer", "simulated"]
SIMULATED = "simulated"
READINGS = ("weight", "core", "oven", "colour")  # what is read while it bakes
OLD_READING = "read:"  # before the mark of a note by which earlier releases kept a reading
MOMENTS = ("mixed", "shaped", "in", "turn", "flip", "top", "out", "cut", "eaten")
CRUMBLY = "crumbly"  # a want of cohesion, felt like a class
LIKED = Literal["", "good", "so-so", "bad"]
AGAIN = Literal["", "keep", "again", "drop"]
WHERE = Literal["", "rim", "middle", "all"]
MOST_ENTRIES = 5000


def felt_words() -> tuple[str, ...]:
    """Return what a dough can be felt as: the classes from thin to stiff, and that it does not cohere."""
    return (*(band.class_name for band in classes()), CRUMBLY)


@cache
def faults() -> dict[str, str]:
    """Return the faults that can be told, by id."""
    return {row.text("fault"): row.text("words") for row in read_table("faults.csv")}


def _fault_ids() -> tuple[str, ...]:
    return tuple(faults())


def _felt_words() -> tuple[str, ...]:
    return ("", *felt_words())


@dataclass(frozen=True, kw_only=True)
class Felt:
    """What a hand felt."""

    minute: Annotated[float | None, MINUTES] = None  # after mixing; None: at shaping
    class_name: Annotated[str, Word(options=_felt_words, key="class")] = ""
    extra: Mapping[str, Any] = field(default_factory=dict, hash=False)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Done:
    """What was really done; what was not looked at is None, and is not taken as well done."""

    grams: Annotated[Mapping[str, float], Named(item=Number(low=0, high=200_000, unit="g", note="by line"))] = field(
        default_factory=dict
    )
    swapped: Annotated[Mapping[str, str], Named(item=Text(most=200, note="what was taken instead, by line"))] = field(
        default_factory=dict
    )
    filled: Annotated[
        Mapping[str, str],
        Named(item=Text(most=60, note="what it was filled by before it was weighed, of all batches, by line")),
    ] = field(default_factory=dict)
    new_packs: Annotated[Mapping[str, bool], Named(item=Flag(note="a pack opened since the last run, by line"))] = (
        field(default_factory=dict)
    )
    rest_min: Annotated[float | None, MINUTES] = None
    room_c: Annotated[float | None, DEGREES] = None
    dough_c: Annotated[float | None, DEGREES] = None  # after mixing
    thickness_mm: Annotated[float | None, Number(low=0.2, high=300, unit="mm")] = None
    oven_c: Annotated[float | None, DEGREES] = None  # on the dial
    probe_c: Annotated[float | None, DEGREES] = None  # the empty oven's air, or the oil, by a probe
    trays: Annotated[int | None, Whole(low=1, high=12, optional=True)] = None
    minutes: Annotated[float | None, MINUTES] = None  # in the oven
    weight_in_g: Annotated[float | None, GRAMS] = None  # of what was weighed, before
    weight_out_g: Annotated[float | None, GRAMS] = None  # and after
    core_c: Annotated[float | None, DEGREES] = None  # out of the oven
    squeezed_g: Annotated[float | None, GRAMS] = None  # of the vegetable, after drying
    # Small things that are done or left: "dock", "vent", "turn", "wash" … (``slips.csv``); what is not told is not known.
    steps: Annotated[Mapping[str, bool], Named(item=Flag())] = field(default_factory=dict)
    felt: Annotated[tuple[Felt, ...], Listed(item=Felt, most=50)] = ()
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class RatedFault:
    """A fault, and where."""

    id: Annotated[str, Word(options=_fault_ids, what="is not a known fault", required=True)]
    where: Annotated[WHERE, Word(options=get_args(WHERE))] = ""
    extra: Mapping[str, Any] = field(default_factory=dict, hash=False)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Verdict:
    """What the baker says of a run; more can be said, nothing must."""

    hours_after: Annotated[float | None, Number(low=0, high=2000, unit="h")] = None  # of the oven, when it was eaten
    liked: Annotated[LIKED, Word(options=get_args(LIKED))] = ""
    again: Annotated[AGAIN, Word(options=get_args(AGAIN))] = ""
    faults: Annotated[tuple[RatedFault, ...], Listed(item=RatedFault, most=40)] = ()
    # −2 far too pale … 2 far too dark
    colour: Annotated[int | None, Whole(low=-2, high=2, optional=True)] = None
    lightness: Annotated[float | None, Number(low=0, high=100, unit="L*", note="of the crust, from a photo")] = None
    scores: Annotated[Mapping[str, float], Named(item=Number(low=0, high=10, note="0 to 10, by axis"))] = field(
        default_factory=dict
    )
    # Answers to what the ranking asked: cause → whether it was so.
    asked: Annotated[Mapping[str, bool], Named(item=Flag())] = field(default_factory=dict)
    note: Annotated[str, Text(most=5000)] = ""
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Entry:
    """One thing that was done, with its time."""

    id: Annotated[str, Text(least=1, most=60, required=True, note="one of its own: a second sending changes nothing")]
    at: Annotated[str, Text(least=1, most=40, required=True, note="date and time, ISO 8601")]
    kind: Annotated[ENTRY_KINDS, Word(options=get_args(ENTRY_KINDS), required=True)]
    # What: a line (weighed, swapped), a field of what was done (measured), a moment, a step, or the entry that is undone. The word
    # of something weighed is what it was filled by before: "2 cups".
    what: Annotated[str, Text(most=120)] = ""
    value: Annotated[float | None, Number()] = None
    word: Annotated[str, Text(most=5000)] = ""
    by: Annotated[str, Text(most=120)] = ""  # who
    source: Annotated[
        SOURCES, Word(options=get_args(SOURCES), note="of a number: typed, scale, thermometer, simulated")
    ] = ""
    extra: Mapping[str, Any] = field(default_factory=dict, hash=False)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Run:
    """One bake as it really happened."""

    formula: Annotated[Formula, Nested(record=Formula, required=True)]  # as written
    id: Annotated[str, Text(most=60)] = ""
    started: Annotated[str, Text(most=40, note="date and time, ISO 8601")] = ""
    batches: Annotated[float, Number(low=0.05, high=200, optional=False)] = 1.0
    oven: Annotated[str, Text(most=60, note="key of an oven of the kitchen")] = ""
    done: Annotated[Done, Nested(record=Done)] = Done()
    entries: Annotated[tuple[Entry, ...], Listed(item=Entry, most=MOST_ENTRIES)] = ()
    verdict: Annotated[Verdict | None, Nested(record=Verdict, optional=True)] = None
    # Left out of all learning.
    left_out: Annotated[bool, Flag()] = False
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document


_WHERE = Where()


def read_run(document: Mapping[str, Any]) -> Run:
    """Make a run of a document.

    Returns:
        The run.

    Raises:
        FormulaError: naming the field that cannot be read.
    """
    plain = check_version(document, _VERSION, RUN_VERSION, "run")
    if "formula" not in document:
        raise FormulaError(
            "the bake has no formula",
            got=", ".join(map(str, document))[:80] or "an empty object",
            allowed="a run document with the formula as it was written",
            remedy='put the formula\'s document under "formula"',
            field="formula",
        )
    run = read_record(Run, plain, _WHERE)
    _known_lines(run)
    _known_steps(run.done)
    for entry in run.entries:
        moment_of(entry)
    return run


def write_run(run: Run) -> dict[str, Any]:
    """Write a run as a document; ``read_run`` of it gives the same run."""
    return {_VERSION: RUN_VERSION, **write_record(run)}


def run_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of the document."""
    whole = record_schema(Run)
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Substrata run",
        **whole,
        "properties": {_VERSION: {"const": RUN_VERSION, "description": "version of this format"}} | whole["properties"],
    }


@cache
def slip_words() -> dict[str, str]:
    """Return the small things that are done or left, by id, and what they are called."""
    return {row.text("slip"): row.text("words") for row in read_table("slips.csv")}


def _known_lines(run: Run) -> None:
    lines = {line.id for line in run.formula.lines}
    for where in ("grams", "swapped", "filled", "new_packs"):
        strange = [line for line in getattr(run.done, where) if line not in lines]
        if strange:
            raise FormulaError(
                "the bake names an ingredient line that its formula does not have",
                got=", ".join(strange)[:80],
                allowed=", ".join(sorted(lines))[:200],
                remedy="give the id of a line in the formula",
                field=f"done.{where}",
            )


def _known_steps(done: Done) -> None:
    strange = [key for key in done.steps if key not in slip_words()]
    if strange:
        raise FormulaError(
            "step not found",
            got=", ".join(strange)[:80],
            allowed=", ".join(slip_words()),
            remedy="choose one of these",
            field="done.steps",
        )


def moment_of(entry: Entry) -> datetime:
    """When an entry was made.

    Returns:
        The time with its zone.

    Raises:
        FormulaError: when its time cannot be read.
    """
    try:
        at = datetime.fromisoformat(entry.at)
    except ValueError as error:
        raise _bad_time(entry) from error
    if at.tzinfo is None:
        raise _bad_time(entry)
    return at


def _bad_time(entry: Entry) -> FormulaError:
    return FormulaError(
        "the entry's time cannot be read",
        got=entry.at[:40],
        allowed="2026-05-02T07:30:00+00:00",
        remedy="give date, time and offset as ISO 8601",
        field="entries.at",
    )
