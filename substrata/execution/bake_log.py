"""The log of a bake session: which entries stand, what was done, the timers and the readings that follow from them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, fields, replace
from datetime import datetime, timedelta
from typing import Any

from substrata.base.tables.table_reader import constant
from substrata.execution.run_document import (
    OLD_READING,
    READINGS,
    SIMULATED,
    Done,
    Entry,
    Felt,
    Run,
    felt_words,
    moment_of,
    slip_words,
)

MEASURED = tuple(
    row.name
    for row in fields(Done)
    if row.name not in ("grams", "swapped", "filled", "new_packs", "steps", "felt", "extra")
)


def standing(run: Run) -> tuple[Entry, ...]:
    """Return the entries that stand, in the order of their times: each once, and none that was undone."""
    once = {entry.id: entry for entry in run.entries}
    gone = {entry.what for entry in once.values() if entry.kind == "undo"}
    entries_standing = [entry for entry in once.values() if entry.kind != "undo" and entry.id not in gone]
    return tuple(sorted(entries_standing, key=lambda entry: (moment_of(entry), entry.id)))


def what_was_done(run: Run, *, simulated: bool = True) -> Done:
    """Collect what was really done: the entries in the order of their times, and over them what the document says itself.

    Args:
        run: with its log.
        simulated: whether numbers of a simulated device count; learning leaves them out.

    Returns:
        The readings and amounts that were really taken.
    """
    entries = [entry for entry in standing(run) if simulated or entry.source != SIMULATED]
    mixed = moment_in(entries, "mixed")
    weighed = [entry for entry in entries if entry.kind == "weighed" and entry.value is not None]
    lines = {line.id for line in run.formula.lines}
    reported = run.done
    measured = {
        "rest_min": _between(mixed, moment_in(entries, "shaped")),
        "minutes": minutes_in_oven(entries),
        **_read_at_the_end(entries),
        **_measured(entries),
        **{key: value for key in MEASURED if (value := getattr(reported, key)) is not None},
    }
    grams = {entry.what: (entry.value or 0.0) / run.batches for entry in weighed} | dict(reported.grams)
    filled = {entry.what: entry.word for entry in weighed} | dict(reported.filled)
    return replace(
        reported,
        grams={line: value for line, value in grams.items() if line in lines},
        swapped={**_words_of(entries, "swapped"), **reported.swapped},
        filled={line: word for line, word in filled.items() if word and line in lines},
        new_packs={**dict.fromkeys(_words_of(entries, "new_pack"), True), **reported.new_packs},
        steps={**_logged_steps(entries), **reported.steps},
        felt=(*_felt(entries, mixed), *reported.felt),
        **measured,
    )


def _words_of(entries: Sequence[Entry], kind: str) -> dict[str, str]:
    return {entry.what: entry.word for entry in entries if entry.kind == kind}


def _measured(entries: Sequence[Entry]) -> dict[str, Any]:
    """Collect what was measured, the last of each; trays are counted."""
    return {
        entry.what: int(entry.value) if entry.what == "trays" else entry.value
        for entry in entries
        if entry.kind == "measured" and entry.what in MEASURED and entry.value is not None
    }


def _logged_steps(entries: Sequence[Entry]) -> dict[str, bool]:
    """Collect the steps that are asked for when something went wrong: done, or left out."""
    slips = slip_words()
    return {e.what: e.kind == "done" for e in entries if e.kind in ("done", "skipped") and e.what in slips}


def _felt(entries: Sequence[Entry], mixed: datetime | None) -> list[Felt]:
    """Collect what hands felt, with the minutes since it was mixed; a word that is no class is kept without one."""
    words = felt_words()
    return [
        Felt(
            minute=None if mixed is None else max((moment_of(entry) - mixed).total_seconds() / 60, 0.0),
            class_name=entry.word if entry.word in words else "",
        )
        for entry in entries
        if entry.kind == "felt"
    ]


def moment_in(entries: Sequence[Entry], moment: str) -> datetime | None:
    """Return when a moment of a log was; None where it never was.

    Of "in" and "out" the last one counts, for who presses again means it anew; of all else the first.

    Args:
        entries: that stand, in the order of their times.
        moment: its name.
    """
    moments = [entry for entry in entries if entry.kind == "moment" and entry.what == moment]
    if not moments:
        return None
    return moment_of(moments[-1 if moment in _LAST_COUNTS else 0])


_LAST_COUNTS = ("in", "out")


def minutes_in_oven(entries: Sequence[Entry]) -> float | None:
    """Sum the minutes in the oven: from each "in" to the last "out" before the next; an "in" pressed again begins anew.

    Args:
        entries: that stand, in the order of their times.

    Returns:
        None where it never came out.
    """
    before, total, into, out = 0.0, None, None, False
    for entry in entries:
        if entry.kind != "moment" or entry.what not in _LAST_COUNTS:
            continue
        if entry.what == "in":
            before, into, out = total or 0.0 if out else before, moment_of(entry), False
        elif into is not None:
            total, out = before + (moment_of(entry) - into).total_seconds() / 60, True
    return total


def reading_of(entry: Entry) -> str:
    """Return what an entry reads while it bakes: weight, core, oven, colour; "" for one that reads nothing."""
    if entry.value is None:
        return ""
    if entry.kind == "reading":
        return entry.what if entry.what in READINGS else ""
    old = entry.what.removeprefix(OLD_READING) if entry.kind == "note" and entry.what.startswith(OLD_READING) else ""
    return old if old in READINGS else ""


def _read_at_the_end(entries: Sequence[Entry]) -> dict[str, float]:
    """Fill what was not measured at the end from the last readings in the oven, and the middle of the oven's readings for its air."""
    out, readings = moment_in(entries, "out"), {}
    if out is None:
        return {}
    for what, field_name in (("core", "core_c"), ("weight", "weight_out_g")):
        late = [e for e in entries if reading_of(e) == what and 0 <= _minutes(e, out) <= constant("at_the_end_min")]
        if late and late[-1].value is not None:
            readings[field_name] = late[-1].value
    air = sorted(e.value for e in entries if reading_of(e) == "oven" and e.value is not None)
    return readings | ({"probe_c": air[len(air) // 2]} if air else {})


def _minutes(entry: Entry, until: datetime) -> float:
    return (until - moment_of(entry)).total_seconds() / 60


@dataclass(frozen=True, kw_only=True)
class Timer:
    """A timer of a bake, by the clock on the wall."""

    id: str  # of the step that it is for
    name: str
    started: str  # ISO 8601
    ends: str
    stopped: bool


@dataclass(frozen=True, kw_only=True)
class BakeRead:
    """Something that was read while it baked."""

    what: str  # weight, core, oven, colour
    value: float  # g, °C, or chips of color


@dataclass(frozen=True, kw_only=True)
class LogState:
    """What a log says so far: the same that the page works out of the same entries."""

    steps_over: tuple[str, ...]
    weights: Mapping[str, float]  # of all batches, by line
    targets: Mapping[str, float]  # moved by an answer to a wrong weight, by line
    into: str | None  # when it went in, ISO 8601
    minutes: float | None  # in the oven
    readings: tuple[BakeRead, ...]  # in the order of their times
    timers: tuple[Timer, ...]


def log_state(run: Run) -> LogState:
    """Work out what a log says so far."""
    entries = standing(run)
    into = moment_in(entries, "in")
    weights = {e.what: e.value for e in entries if e.kind == "weighed" and e.value is not None}
    notes = [e for e in entries if e.kind == "note"]
    return LogState(
        steps_over=tuple(dict.fromkeys(e.what[5:] for e in notes if e.what.startswith("step:"))),
        weights=weights,
        targets={e.what[7:]: e.value for e in notes if e.what.startswith("target:") and e.value is not None},
        into=into.isoformat() if into else None,
        minutes=minutes_in_oven(entries),
        readings=tuple(
            BakeRead(what=what, value=e.value) for e in entries if (what := reading_of(e)) and e.value is not None
        ),
        timers=_timers(entries),
    )


def _timers(entries: Sequence[Entry]) -> tuple[Timer, ...]:
    """Collect timers in the order in which they end; "5 more" counts from its end, or from now where that is past."""
    running: dict[str, tuple[str, datetime, datetime, bool]] = {}
    for entry in entries:
        if entry.kind != "timer":
            continue
        act, _, rest = entry.word.partition("|")
        at, length = moment_of(entry), timedelta(minutes=entry.value or 0.0)
        if act == "start":
            running[entry.what] = (rest.partition("|")[0], at, at + length, False)
        elif entry.what in running:
            name, started, ends, _ = running[entry.what]
            if act == "more":
                running[entry.what] = (name, started, max(ends, at) + length, False)
            elif act == "stop":
                running[entry.what] = (name, started, ends, True)
    ordered = sorted(running.items(), key=lambda row: row[1][2])
    return tuple(
        Timer(id=key, name=name, started=started.isoformat(), ends=ends.isoformat(), stopped=stopped)
        for key, (name, started, ends, stopped) in ordered
    )


def _between(start: datetime | None, end: datetime | None) -> float | None:
    if start is None or end is None or end < start:
        return None
    return (end - start).total_seconds() / 60
