"""Files of products into the pantry: matched, checked in the background, put in all at once or not at all."""

from dataclasses import replace
from typing import Any

from django.db import transaction
from django.utils import timezone

from kitchen.errors import NotFound, Refused
from kitchen.models import Job, Lot, Membership, PackImport
from kitchen.services.access import record, require
from kitchen.services.jobs import Progress, job_kind, start_job, stop_job
from kitchen.services.kitchens import bump_revision
from kitchen.services.packs import filled, new_key
from substrata import Library, load_library
from substrata.base import LabelError
from substrata.ingredients import FileKind, Mapped, ReadRow, Table, fields, guess, read_file, read_rows

State = PackImport.State
CHECK, SAVE = "import-check", "import-save"
MOST_TEXT = 8_000_000  # characters
MAX_BAD_ROWS = 1_000
PREVIEW_ROWS = 8
NO_TABLE = Table(headers=(), rows=(), first_number=1)
_BAD = "bad"
_CHUNK = 250  # rows between two reports of progress


@transaction.atomic
def start_import(member: Membership, file_name: str, text: str) -> PackImport:
    """Take a file in and match its columns.

    Returns:
        The new import.

    Raises:
        Refused: when it is too large.
        LabelError: when it cannot be read.
    """
    require(member, "packs.edit")
    if len(text) > MOST_TEXT:
        raise Refused(
            "the file is too large", got=f"{len(text)} characters", allowed=f"up to {MOST_TEXT}", field="text"
        )
    kind: FileKind = "json" if text.lstrip("\ufeff \r\n\t")[:1] in ("{", "[") else "csv"
    table = read_file(text, kind)
    mapped = guess(table)
    created = PackImport.objects.create(
        kitchen=member.kitchen,
        file_name=file_name.strip()[:200] or "pasted",
        kind=kind,
        text=text.replace("\x00", ""),
        fields=list(mapped.fields),
        style=mapped.style or "",
        per_100=mapped.per_100,
        total=len(table.rows),
        created_by=member.user,
    )
    record(member, "import.start", file=created.file_name, rows=created.total)
    return created


def open_import(member: Membership, import_id: int) -> PackImport:
    """Open an import of the kitchen.

    Returns:
        The import.

    Raises:
        NotFound: when there is none.
    """
    return _import_of(member, import_id)


def preview(imported: PackImport) -> tuple[Table, list[ReadRow]]:
    """Return the file, and its first rows read by the present matching."""
    table = table_of(imported)
    return table, list(read_rows(table, mapped_of(imported), load_library(), 0, PREVIEW_ROWS))


@transaction.atomic
def match_columns(member: Membership, import_id: int, *, columns: list[str], style: str, per_100: bool) -> PackImport:
    """Change how the columns are read.

    Returns:
        The import with its new matching.

    Raises:
        Refused: when a field or style is not known, or this import has already finished that step.
    """
    result = _import_of(require(member, "packs.edit"), import_id, lock=True)
    _must_rest(result, State.MATCHING, State.CHECKED)
    strange = set(columns) - {"", *fields()}
    if strange or len(columns) != len(result.fields):
        got = ", ".join(sorted(strange)) or f"{len(columns)} columns"
        raise Refused(
            "these columns cannot be read this way", got=got[:80], allowed=", ".join(fields()), field="columns"
        )
    if style not in ("", "us", "eu"):
        raise Refused("label style not found", got=style[:10], allowed="us, eu", field="style")
    result.fields, result.style, result.per_100 = columns, style, per_100
    result.state, result.good, result.odd, result.bad, result.troubles = State.MATCHING, 0, 0, [], {}
    result.save()
    return result


@transaction.atomic
def start_check(member: Membership, import_id: int) -> Job:
    """Have every row looked at; nothing is put into the pantry yet.

    Returns:
        The started job.

    Raises:
        Refused: when that does not come next.
    """
    return _start(member, import_id, CHECK, State.MATCHING)


@transaction.atomic
def start_save(member: Membership, import_id: int) -> Job:
    """Have the good rows put into the pantry, all at once.

    Returns:
        The started job.

    Raises:
        Refused: when they have not been checked.
    """
    return _start(member, import_id, SAVE, State.CHECKED)


def _start(member: Membership, import_id: int, kind: str, at: str) -> Job:
    require(member, "packs.edit")
    result = _import_of(member, import_id, lock=True)
    _must_rest(result, at)
    result.job = start_job(member, kind, {"import_id": result.pk}, result.total)
    result.save(update_fields=["job"])
    record(member, kind, file=result.file_name)
    return result.job


@transaction.atomic
def stop_import(member: Membership, import_id: int) -> PackImport:
    """Give an import up: nothing of it is put into the pantry.

    Returns:
        The stopped import.

    Raises:
        Refused: when it is over.
    """
    require(member, "packs.edit")
    result = _import_of(member, import_id, lock=True)
    _must_be(result, State.MATCHING, State.CHECKED)
    if result.job_id:
        stop_job(member, result.job_id)
    result.state, result.text = State.STOPPED, ""
    result.save()
    record(member, "import.stop", file=result.file_name)
    return result


@job_kind(CHECK, queue="quick")
def run_check(job: Job, progress: Progress) -> dict[str, int] | None:
    """Read every row and count; nothing is put into the pantry."""
    result = PackImport.objects.get(pk=job.input["import_id"])
    table, mapped, library = table_of(result), mapped_of(result), load_library()
    bad: list[dict[str, Any]] = []
    troubles: dict[str, str] = {}
    good = 0
    for start in range(0, len(table.rows), _CHUNK):
        for row in read_rows(table, mapped, library, start, start + _CHUNK):
            description = _described(row, Lot(key=""), library)
            if isinstance(description, ReadRow):
                bad.append(bad_row(description))
                troubles[str(row.number)] = _BAD
                continue
            good += 1
            if description.trouble:
                troubles[str(row.number)] = description.trouble
        if not progress.report(min(start + _CHUNK, len(table.rows))):
            return None
    odd = len(troubles) - len(bad)
    counts = {"good": good, "odd": odd, "bad": len(bad)}
    resting = PackImport.objects.filter(pk=result.pk, state=State.MATCHING)
    resting.update(state=State.CHECKED, good=good, odd=odd, bad=bad[:MAX_BAD_ROWS], troubles=troubles)
    return counts


@job_kind(SAVE, queue="quick")
def run_save(job: Job, progress: Progress) -> dict[str, int] | None:
    """Put every good row into the pantry, all in one transaction: nothing is half saved."""
    result = PackImport.objects.get(pk=job.input["import_id"])
    table, mapped, library = table_of(result), mapped_of(result), load_library()
    now = timezone.now()
    rows = []
    for read in read_rows(table, mapped, library):
        # What was found when the rows were looked at still holds: the file is the same. An earlier release did not keep it.
        keeps_table = bool(result.troubles) or not (result.odd or result.bad)
        trouble = result.troubles.get(str(read.number), "") if keeps_table else None
        if read.lot is not None and trouble != _BAD:
            lot = Lot(kitchen_id=result.kitchen_id, key=new_key(), updated_by_id=result.created_by_id)
            description = _described(read, lot, library, trouble=trouble)
            if isinstance(description, ReadRow):
                continue
            rows.append(description)
            rows[-1].touched_at = now
            if len(rows) % _CHUNK == 0 and not progress.report(len(rows)):
                return None
    with transaction.atomic():
        locked = PackImport.objects.select_for_update().get(pk=result.pk)
        if locked.state != State.CHECKED or not progress.report(len(rows)):  # given up, or done by another worker
            return None
        Lot.objects.bulk_create(rows, batch_size=1_000)
        locked.state, locked.good, locked.text = State.SAVED, len(rows), ""
        locked.save()
        bump_revision(locked.kitchen)
    return {"good": len(rows)}


def _described(row: ReadRow, lot: Lot, library: Library, *, trouble: str | None = None) -> Lot | ReadRow:
    """Return a row as it would be kept; the row with its problem where it cannot: one odd row never stops the others."""
    if row.lot is None:
        return row
    try:
        return filled(lot, row.lot, library, trouble=trouble)
    except LabelError as error:
        return replace(row, lot=None, problem=error)


def bad_row(row: ReadRow) -> dict[str, Any]:
    """Return a row that cannot be read, as it is told."""
    problem = row.problem
    return {
        "number": row.number,
        "name": row.name[:120],
        "what": problem.what if problem else "",
        "got": problem.got if problem else "",
        "allowed": problem.allowed if problem else "",
        "remedy": problem.remedy if problem else "",
        "field": (problem.field or "") if problem else "",
    }


def table_of(imported: PackImport) -> Table:
    """Return the file as rows; empty once its packs are kept."""
    if not imported.text:
        return NO_TABLE
    return read_file(imported.text, "json" if imported.kind == "json" else "csv")


def mapped_of(imported: PackImport) -> Mapped:
    """How the columns are read at present."""
    style = imported.style or None
    return Mapped(fields=tuple(imported.fields), style=style, per_100=imported.per_100)  # type: ignore[arg-type]  # checked when set


def _import_of(member: Membership, import_id: int, *, lock: bool = False) -> PackImport:
    rows = PackImport.objects.filter(kitchen_id=member.kitchen_id).select_related("job")
    result = (rows.select_for_update(of=("self",)) if lock else rows).filter(pk=import_id).first()
    if result is None:
        raise NotFound("import not found", got=str(import_id), remedy="start another")
    return result


def _must_be(imported: PackImport, *states: str) -> None:
    if imported.state not in states:
        raise Refused(
            "this import has already finished that step",
            got=imported.get_state_display(),
            allowed=" or ".join(states),
            field="step",
        )


def _must_rest(imported: PackImport, *states: str) -> None:
    _must_be(imported, *states)
    if imported.job is not None and imported.job.state in Job.UNDER_WAY:
        raise Refused("this import is still running", got=imported.job.kind, remedy="wait, or stop it", field="step")
