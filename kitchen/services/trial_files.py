"""Runs as files: given out as JSON and CSV, and taken in."""

import csv
import io
from hashlib import sha256
from typing import Any

import orjson
from django.db import transaction
from django.utils import timezone

from kitchen.errors import Refused
from kitchen.models import Membership, Run, RunEntry
from kitchen.services.access import record, require
from kitchen.services.runs import as_document
from kitchen.services.trials import NO_PLAN, begin_learning
from substrata.execution import Done, Entry, moment_of, read_run, what_was_done, write_run
from substrata.execution import Run as CoreRun
from substrata.formula import safe_cell

MOST_IN_A_FILE = 2000


def trials_file(member: Membership, style: str) -> tuple[str, str]:
    """All runs as a file: JSON of run documents, or a table.

    Returns:
        Its name and text.

    Raises:
        Refused: when the style is unknown.
    """
    rows = list(Run.objects.filter(kitchen_id=member.kitchen_id).prefetch_related("entries")[:MOST_IN_A_FILE])
    if style == "json":
        whole = {"runs": [as_document(row, row.entries.all()) for row in rows]}
        return "runs.json", orjson.dumps(whole, option=orjson.OPT_INDENT_2).decode()
    if style != "csv":
        raise Refused("file not found", got=style[:20], allowed="json, csv", field="style")
    return "runs.csv", _csv(rows)


@transaction.atomic
def take_runs(member: Membership, file: dict[str, Any]) -> int:
    """Bring the runs of a file into the kitchen, all of them or none; a run that is there already is left as it is.

    Returns:
        How many were new.

    Raises:
        FormulaError: when one of them cannot be read.
        Refused: when the file holds none, or too many.
    """
    require(member, "bakes.edit")
    rows = file.get("runs", [file] if "formula" in file else None)
    if not isinstance(rows, list) or not rows or not all(isinstance(row, dict) for row in rows):
        raise Refused(
            "the file holds no runs", got=", ".join(map(str, file))[:60], allowed='{"runs": [ … ]}', field="file"
        )
    if len(rows) > MOST_IN_A_FILE:
        raise Refused(
            "too many bakes at once", got=str(len(rows)), allowed=f"up to {MOST_IN_A_FILE}", remedy="split the file"
        )
    read = [(read_run(row), _key_of(row)) for row in rows]
    known_keys = set(Run.objects.filter(kitchen_id=member.kitchen_id).values_list("key", flat=True))
    fresh = {key: run for run, key in read if key not in known_keys}
    for key, run in fresh.items():
        _imported(member, key, run)
    record(member, "run.take_file", runs=len(fresh))
    begin_learning(member)
    return len(fresh)


def _key_of(row: dict[str, Any]) -> str:
    """By which a run of a file is known: what it says, whatever number it had elsewhere."""
    plain = orjson.dumps({key: value for key, value in row.items() if key != "id"}, option=orjson.OPT_SORT_KEYS)
    return f"file-{sha256(plain).hexdigest()[:30]}"


def _imported(member: Membership, key: str, run: CoreRun) -> None:
    """One run of a file; its weights have left their packs long ago."""
    moments = [moment_of(entry) for entry in run.entries]
    started = (
        moment_of(Entry(id="-", at=run.started, kind="note")) if run.started else min(moments, default=timezone.now())
    )
    document = write_run(run)
    verdict = document["verdict"] or {}
    row = Run.objects.create(
        kitchen_id=member.kitchen_id,
        key=key,
        name=run.formula.name[:120],
        form=run.formula.form,
        document=document["formula"],
        plan={**NO_PLAN, "pieces": run.formula.pieces * run.batches},
        batches=run.batches,
        oven=run.oven[:40],
        started_at=started,
        finished_at=max(moments, default=started),
        verdict=document["verdict"],
        liked=verdict.get("liked", ""),
        faults=[fault["id"] for fault in verdict.get("faults", ())],
        left_out=run.left_out,
        told=document["done"],
        stock_taken=True,
        created_by=member.user,
    )
    RunEntry.objects.bulk_create(
        RunEntry(
            run=row,
            key=e.id,
            at=at,
            kind=e.kind,
            what=e.what,
            value=e.value,
            word=e.word,
            source=e.source,
            by=member.user,
        )
        for e, at in {entry.id: (entry, at) for entry, at in zip(run.entries, moments, strict=True)}.values()
    )


_COLUMNS = ("started", "formula", "form", "batches", "oven", "rest_min", "dough_c", "thickness_mm", "minutes", "weight_in_g", "weight_out_g", "core_c", "felt", "liked", "colour", "faults", "note")  # fmt: skip


def _csv(rows: list[Run]) -> str:
    out = io.StringIO()
    table = csv.writer(out)
    table.writerow(_COLUMNS)
    for row in rows:
        done = what_was_done(read_run(as_document(row, row.entries.all())))
        verdict = row.verdict or {}
        cells: dict[str, Any] = {
            "started": row.started_at.isoformat(),
            "formula": row.name,
            "form": row.form,
            "batches": row.batches,
            "oven": row.oven,
            **_measured(done),
            "felt": " ".join(felt.class_name for felt in done.felt),
            "liked": row.liked,
            "colour": verdict.get("colour"),
            "faults": " ".join(row.faults),
            "note": verdict.get("note", ""),
        }
        table.writerow([safe_cell(cells.get(column)) for column in _COLUMNS])
    return out.getvalue()


def _measured(done: Done) -> dict[str, float | None]:
    keys = ("rest_min", "dough_c", "thickness_mm", "minutes", "weight_in_g", "weight_out_g", "core_c")
    return {key: getattr(done, key) for key in keys}
