"""Files of products into the pantry: matched, checked in the background, kept at once or not at all."""

from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from kitchen.errors import NotFound, Refused
from kitchen.models import Lot, Membership, PackImport
from kitchen.queue import defer_import
from kitchen.services.access import membership, record
from kitchen.services.kitchens import touch
from kitchen.services.pantry import described, new_key
from substrata import load_library
from substrata.labels.pack_document import write_lot
from substrata.labels.product_files import FileKind, Mapped, ReadRow, Table, fields, guess, read_file, read_rows

BAKER = Membership.Role.BAKER
State = PackImport.State
MOST_TEXT = 8_000_000  # characters
MOST_BAD_KEPT = 1_000
PREVIEW_ROWS = 8
NO_TABLE = Table(headers=(), rows=(), first_number=1)
_CHUNK = 250  # rows between two reports of progress


@transaction.atomic
def start_import(user: User, kitchen_id: int, file_name: str, text: str) -> PackImport:
    """Take a file in and match its columns.

    Raises:
        Refused: when it is too large.
        LabelError: when it cannot be read.
    """
    member = membership(user, kitchen_id, BAKER)
    if len(text) > MOST_TEXT:
        raise Refused(
            "the file is too large", got=f"{len(text)} characters", allowed=f"up to {MOST_TEXT}", field="text"
        )
    kind: FileKind = "json" if text.lstrip("\ufeff \r\n\t")[:1] in ("{", "[") else "csv"
    table = read_file(text, kind)
    mapped = guess(table)
    made = PackImport.objects.create(
        kitchen=member.kitchen,
        file_name=file_name.strip()[:200] or "pasted",
        kind=kind,
        text=text.replace("\x00", ""),
        fields=list(mapped.fields),
        style=mapped.style or "",
        per_100=mapped.per_100,
        total=len(table.rows),
        created_by=user,
    )
    record(member, "import.start", file=made.file_name, rows=made.total)
    return made


def open_import(user: User, kitchen_id: int, import_id: int) -> PackImport:
    """An import of the kitchen.

    Raises:
        NotFound: when there is none.
    """
    return _import_of(membership(user, kitchen_id), import_id)


def preview(found: PackImport) -> tuple[Table, list[ReadRow]]:
    """The file, and its first rows read by the present matching."""
    table = table_of(found)
    return table, list(read_rows(table, mapped_of(found), load_library(), 0, PREVIEW_ROWS))


@transaction.atomic
def match_columns(
    user: User, kitchen_id: int, import_id: int, *, columns: list[str], style: str, per_100: bool
) -> PackImport:
    """Change how the columns are read.

    Raises:
        Refused: when a field or style is not known, or the import is past that.
    """
    found = _import_of(membership(user, kitchen_id, BAKER), import_id, lock=True)
    _must_be(found, State.MATCHING, State.CHECKED)
    strange = set(columns) - {"", *fields()}
    if strange or len(columns) != len(found.fields):
        got = ", ".join(sorted(strange)) or f"{len(columns)} columns"
        raise Refused("the columns cannot be read so", got=got[:80], allowed=", ".join(fields()), field="columns")
    if style not in ("", "us", "eu"):
        raise Refused("no such label style", got=style[:10], allowed="us, eu", field="style")
    found.fields, found.style, found.per_100 = columns, style, per_100
    found.state, found.done, found.good, found.odd, found.bad = State.MATCHING, 0, 0, 0, []
    found.save()
    return found


@transaction.atomic
def go_on(user: User, kitchen_id: int, import_id: int, step: str) -> PackImport:
    """Check all rows, keep the good ones, or stop.

    Raises:
        Refused: when the step does not come next.
    """
    member = membership(user, kitchen_id, BAKER)
    found = _import_of(member, import_id, lock=True)
    if step == "check":
        _must_be(found, State.MATCHING)
        found.state, found.done, found.good, found.odd, found.bad = State.CHECKING, 0, 0, 0, []
    elif step == "save":
        _must_be(found, State.CHECKED)
        found.state, found.done = State.SAVING, 0
    elif step == "stop":
        _must_be(found, State.MATCHING, State.CHECKING, State.CHECKED, State.SAVING)
        found.state, found.text = State.STOPPED, ""
    else:
        raise Refused("no such step", got=step[:20], allowed="check, save, stop", field="step")
    found.save()
    if step != "stop":
        transaction.on_commit(lambda: defer_import(found.pk))
    record(member, f"import.{step}", file=found.file_name)
    return found


def run_import(import_id: int) -> None:
    """The background part: check or keep, whichever the import waits for."""
    found = PackImport.objects.filter(pk=import_id).first()
    if found is not None and found.state == State.CHECKING:
        _check(found)
    elif found is not None and found.state == State.SAVING:
        _keep(found)


def _check(found: PackImport) -> None:
    """Read every row and count; nothing is kept yet. Stops when somebody says so."""
    table, mapped, library = table_of(found), mapped_of(found), load_library()
    bad: list[dict[str, Any]] = []
    good = odd = 0
    for start in range(0, len(table.rows), _CHUNK):
        for row in read_rows(table, mapped, library, start, start + _CHUNK):
            if row.lot is None:
                bad.append(bad_row(row))
                continue
            good += 1
            odd += bool(described(Lot(key=""), write_lot(row.lot), library).trouble)
        done = min(start + _CHUNK, len(table.rows))
        running = PackImport.objects.filter(pk=found.pk, state=State.CHECKING)
        if not running.update(done=done, good=good, odd=odd, bad=bad[:MOST_BAD_KEPT]):
            return
    PackImport.objects.filter(pk=found.pk, state=State.CHECKING).update(state=State.CHECKED)


def _keep(found: PackImport) -> None:
    """Put every good row into the pantry, all in one transaction: nothing is half kept."""
    table, mapped, library = table_of(found), mapped_of(found), load_library()
    now = timezone.now()
    rows = []
    for read in read_rows(table, mapped, library):
        if read.lot is not None:
            lot = Lot(kitchen_id=found.kitchen_id, key=new_key(), updated_by_id=found.created_by_id)
            rows.append(described(lot, write_lot(read.lot), library))
            rows[-1].touched_at = now
            if len(rows) % _CHUNK == 0:
                PackImport.objects.filter(pk=found.pk).update(done=len(rows))
    with transaction.atomic():
        locked = PackImport.objects.select_for_update().get(pk=found.pk)
        if locked.state != State.SAVING:  # another worker was quicker
            return
        Lot.objects.bulk_create(rows, batch_size=1_000)
        locked.state, locked.done, locked.good, locked.text = State.SAVED, len(rows), len(rows), ""
        locked.save()
        touch(locked.kitchen)


def bad_row(row: ReadRow) -> dict[str, Any]:
    """A row that cannot be read, as it is told."""
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


def table_of(found: PackImport) -> Table:
    """The file as rows; empty once its packs are kept."""
    if not found.text:
        return NO_TABLE
    return read_file(found.text, "json" if found.kind == "json" else "csv")


def mapped_of(found: PackImport) -> Mapped:
    """How the columns are read at present."""
    style = found.style or None
    return Mapped(fields=tuple(found.fields), style=style, per_100=found.per_100)  # type: ignore[arg-type]  # checked when set


def _import_of(member: Membership, import_id: int, *, lock: bool = False) -> PackImport:
    rows = PackImport.objects.filter(kitchen_id=member.kitchen_id)
    found = (rows.select_for_update() if lock else rows).filter(pk=import_id).first()
    if found is None:
        raise NotFound("no such import", got=str(import_id), remedy="start another")
    return found


def _must_be(found: PackImport, *states: str) -> None:
    if found.state not in states:
        raise Refused(
            "the import is past that", got=found.get_state_display(), allowed=" or ".join(states), field="step"
        )
