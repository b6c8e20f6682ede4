"""Runs of a kitchen: begun, written entry by entry from several devices, finished, judged."""

from collections.abc import Iterable
from dataclasses import dataclass
from math import isfinite
from typing import Any

from django.db import transaction
from django.db.models import QuerySet
from django.dispatch import Signal
from django.utils import timezone

from kitchen.errors import Refused
from kitchen.models import FormulaVersion, Membership, Run, RunEntry
from kitchen.services.access import formula_of, record, require, run_of
from kitchen.services.ovens import dough_in, named_profile
from kitchen.services.stock import take_weighed
from substrata import read_document
from substrata.base import Where, plain, read_record, write_record
from substrata.evaluation import Dough
from substrata.execution import (
    MOST_ENTRIES,
    RUN_VERSION,
    Entry,
    LogState,
    Verdict,
    bake_protocol,
    log_state,
    moment_of,
    read_run,
    what_was_done,
)

MOST_BATCHES = 200.0
PAGE = 50
MOST_COMPARED = 8
run_judged = Signal()  # with the membership: what the kitchen's runs teach has changed
_KEY = 40


@dataclass(frozen=True, kw_only=True)
class OpenRun:
    """A run, and what was written into it after some entry."""

    run: Run
    entries: list[RunEntry]
    log: LogState  # what all entries say so far
    formula_archived: bool = False


@transaction.atomic
def start_run(member: Membership, formula_id: int, key: str, *, batches: float = 1.0, started_at: str = "") -> Run:
    """Begin a run of a formula as it lies on the bench; beginning it again with the same key is the same run.

    Returns:
        The run, new or begun before with the same key.

    Raises:
        Refused: when this formula is archived, or cannot be made so often.
        FormulaError: when there is nothing to make.
    """
    require(member, "bakes.edit")
    old = Run.objects.filter(kitchen_id=member.kitchen_id, key=key[:_KEY]).first()
    if old is not None:
        return old
    formula = formula_of(member, formula_id)
    if formula.archived_at is not None:
        raise Refused(
            "this formula is archived",
            got=formula.name,
            allowed="a formula that is not archived",
            remedy="restore it first",
            field="formula_id",
        )
    if not isfinite(batches) or not 0 < batches <= MOST_BATCHES:
        raise Refused("too many batches", got=f"{batches:g}", allowed=f"up to {MOST_BATCHES:g}", field="batches")
    if not key.strip():
        raise Refused("this bake has no key", got="nothing", allowed="a key of the device's own", field="key")
    draft = formula.draft
    document = draft.document
    plan = bake_protocol(dough_of_run(member, document), batches=batches)
    last = FormulaVersion.objects.filter(formula=formula).order_by("-number").first()
    run = Run.objects.create(
        kitchen_id=member.kitchen_id,
        key=key[:_KEY],
        formula=formula,
        number=last.number if last and not draft.changed else 0,
        name=formula.name,
        form=formula.form,
        document=document,
        plan=plain(plan),
        batches=batches,
        oven=str(document.get("bake", {}).get("oven", ""))[:_KEY],
        started_at=_moment(started_at) if started_at else timezone.now(),
        created_by=member.user,
    )
    record(member, "run.start", formula, run=run.pk, batches=batches)
    return run


def _moment(text: str) -> Any:
    return moment_of(Entry(id="-", at=text, kind="note"))


def runs_of(member: Membership, *, formula_id: int = 0, open_only: bool = False) -> QuerySet[Run]:
    """Return runs of a kitchen, the newest first; without their documents, which lists do not show."""
    rows = Run.objects.filter(kitchen_id=member.kitchen_id).defer("document", "plan").select_related("created_by")
    if formula_id:
        rows = rows.filter(formula_id=formula_id)
    if open_only:
        rows = rows.filter(finished_at__isnull=True)
    return rows


def open_run(member: Membership, run_id: int, since: int = 0) -> OpenRun:
    """Return a run with its entries after one that is known.

    Raises:
        NotFound: when the kitchen has no such run.
    """
    run = run_of(member, run_id)
    archived = bool(run.formula and run.formula.archived_at)
    rows = list(run.entries.select_related("by"))
    log = log_state(read_run(as_document(run, rows)))
    return OpenRun(run=run, entries=[row for row in rows if row.pk > since], log=log, formula_archived=archived)


@transaction.atomic
def write_entries(member: Membership, run_id: int, entries: list[dict[str, Any]]) -> int:
    """Keep what was done; an entry that is there already is left as it is. Returns how many were new.

    Returns:
        How many entries were new.

    Raises:
        FormulaError: when an entry cannot be read; then none of them is kept.
        Refused: when a run holds no more.
    """
    require(member, "bakes.edit")
    run = run_of(member, run_id, lock=True)
    read = [read_record(Entry, entry, Where(field=f"entries.{n}")) for n, entry in enumerate(entries)]
    moments = [moment_of(entry) for entry in read]
    known_keys = set(run.entries.filter(key__in=[entry.id for entry in read]).values_list("key", flat=True))
    if run.entries.count() + len(read) - len(known_keys) > MOST_ENTRIES:
        raise Refused(
            "this bake has too many entries",
            got=str(len(read)),
            allowed=f"up to {MOST_ENTRIES} entries",
            remedy="finish it and start another",
        )
    rows = {
        entry.id: RunEntry(
            run=run,
            key=entry.id,
            at=at,
            kind=entry.kind,
            what=entry.what,
            value=entry.value,
            word=entry.word,
            source=entry.source,
            by=member.user,
        )
        for entry, at in zip(read, moments, strict=True)
        if entry.id not in known_keys
    }
    RunEntry.objects.bulk_create(rows.values(), ignore_conflicts=True)
    if rows:
        run.save(update_fields=["touched_at"])
    return len(rows)


@transaction.atomic
def finish_run(member: Membership, run_id: int) -> Run:
    """Finish a run: packs lose what was weighed and learning is started; finishing twice is finishing once.

    Returns:
        The finished run.

    Raises:
        NotFound: when the kitchen has no such run.
    """
    require(member, "bakes.edit")
    run = run_of(member, run_id, lock=True)
    if run.finished_at is None:
        run.finished_at = timezone.now()
    if not run.stock_taken:
        run.stock_taken = True
        _take_stock(member, run)
    run.save(update_fields=["finished_at", "stock_taken", "touched_at"])
    record(member, "run.finish", run.formula, run=run.pk)
    return run


def _take_stock(member: Membership, run: Run) -> None:
    """Take from the packs what was weighed; for a line without a weight, what is written."""
    document = as_document(run)
    done = what_was_done(read_run(document))
    dough = dough_of_run(member, run.document)
    lots: dict[str, float] = {}
    for weighed in dough.batch.lines:
        if weighed.line.lot:
            grams = done.grams.get(weighed.line.id, weighed.grams.value) * run.batches
            lots[weighed.line.lot] = lots.get(weighed.line.lot, 0.0) + grams
    take_weighed(member, lots)


@transaction.atomic
def give_verdict(member: Membership, run_id: int, verdict: dict[str, Any]) -> Run:
    """Say what came of a run. What was said before is replaced.

    Returns:
        The rated run.

    Raises:
        FormulaError: when the verdict cannot be read.
    """
    require(member, "bakes.edit")
    run = run_of(member, run_id, lock=True)
    read = read_record(Verdict, verdict, Where(field="verdict"))
    run.verdict = write_record(read)
    run.liked = read.liked
    run.faults = [fault.id for fault in read.faults]
    run.finished_at = run.finished_at or timezone.now()
    run.save(update_fields=["verdict", "liked", "faults", "finished_at", "touched_at"])
    record(member, "run.verdict", run.formula, run=run.pk, liked=run.liked)
    run_judged.send(Run, member=member)
    return run


@transaction.atomic
def change_run(member: Membership, run_id: int, *, left_out: bool) -> Run:
    """Leave a run out of all learning, or take it back in.

    Returns:
        The changed run.

    Raises:
        NotFound: when the kitchen has no such run.
    """
    require(member, "bakes.edit")
    run = run_of(member, run_id, lock=True)
    run.left_out = left_out
    run.save(update_fields=["left_out", "touched_at"])
    record(member, "run.leave_out" if left_out else "run.take_in", run.formula, run=run.pk)
    run_judged.send(Run, member=member)
    return run


@transaction.atomic
def delete_run(member: Membership, run_id: int) -> None:
    """Take a run away for good, with all that was learned from it.

    Raises:
        NotFound: when the kitchen has no such run.
    """
    require(member, "bakes.edit")
    run = run_of(member, run_id, lock=True)
    record(member, "run.delete", run.formula, run=run.pk, name=run.name)
    run.delete()
    run_judged.send(Run, member=member)


def as_document(run: Run, entries: Iterable[RunEntry] | None = None) -> dict[str, Any]:
    """Return a run as the open run document."""
    rows = run.entries.all() if entries is None else entries
    return {
        "substrata_run": RUN_VERSION,
        "id": str(run.pk),
        "started": run.started_at.isoformat(),
        "batches": run.batches,
        "oven": run.oven,
        "formula": run.document,
        "left_out": run.left_out,
        "verdict": run.verdict,
        **({"done": run.told} if run.told else {}),
        "entries": [
            {
                "id": entry.key,
                "at": entry.at.isoformat(),
                "kind": entry.kind,
                "what": entry.what,
                "value": entry.value,
                "word": entry.word,
                "source": entry.source,
            }
            for entry in rows
        ],
    }


def dough_of_run(member: Membership, document: dict[str, Any]) -> Dough:
    """Return the dough of a run's document, in the kitchen's oven that it names."""
    formula = read_document(document)
    return dough_in(member, formula, document, named_profile(member, formula.bake.oven))
