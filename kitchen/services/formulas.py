"""Formulas: the shelf, the draft that saves itself, the versions that stay."""

from dataclasses import dataclass
from typing import Any
from uuid import uuid4

from django.db import transaction
from django.db.models import Count, QuerySet
from django.utils import timezone

from kitchen.errors import Conflict, NotFound, Refused
from kitchen.models import Draft, Formula, FormulaVersion, Membership
from kitchen.services.access import formula_of, may, record, require
from kitchen.services.judging import SCIENCE_MARK, core_settings, library_of, shelf_thumb, thumb_mark
from substrata import read_document, write_document
from substrata.formula import Change, differences

LONGEST_LIST = 200
UNNAMED = "New formula"  # what the page calls one before it has a name


@dataclass(frozen=True, kw_only=True)
class OpenFormula:
    """A formula on the bench: its row and its draft."""

    formula: Formula
    draft: Draft
    may_edit: bool


def shelf(member: Membership, *, search: str = "", form: str = "", archived: bool = False) -> QuerySet[Formula]:
    """Formulas of a kitchen, the last touched first."""
    rows = Formula.objects.filter(kitchen_id=member.kitchen_id, archived_at__isnull=not archived)
    for word in search.split()[:8]:
        rows = rows.filter(name__icontains=word)
    if form:
        rows = rows.filter(form=form)
    # Begun in a page that was closed before anything was put into it.
    rows = rows.exclude(name=UNNAMED, draft__document__lines=[], draft__document__notes="", versions__isnull=True)
    return rows.annotate(version_count=Count("versions")).order_by("-touched_at", "-pk")


@transaction.atomic
def create_formula(member: Membership, document: dict[str, Any], *, forked_from: Formula | None = None) -> OpenFormula:
    """Put a new formula on the shelf, as a draft.

    Returns:
        The new formula with its draft.

    Raises:
        FormulaError: when the document cannot be read.
    """
    require(member, "formulas.edit")
    clean = _clean({**document, "uid": _free_uid(member, document)})
    formula = Formula(
        kitchen=member.kitchen, created_by=member.user, touched_at=timezone.now(), forked_from=forked_from
    )
    _describe(formula, member, clean)
    formula.save()
    draft = Draft.objects.create(formula=formula, document=clean, updated_by=member.user)
    record(member, "formula.create", formula, name=formula.name)
    return OpenFormula(formula=formula, draft=draft, may_edit=True)


def open_formula(member: Membership, formula_id: int) -> OpenFormula:
    """Open a formula with its draft."""
    formula = formula_of(member, formula_id)
    return OpenFormula(formula=formula, draft=formula.draft, may_edit=_may_edit(member))


@transaction.atomic
def save_draft(member: Membership, formula_id: int, document: dict[str, Any], lock: int, page: str = "") -> OpenFormula:
    """Save what is being edited.

    Args:
        member: who asks, in their kitchen.
        formula_id: the formula.
        document: the whole formula document.
        lock: the draft's lock as the editor last saw it.
        page: a mark of the open page that sends it. A page whose answer got lost sends its next work with an old lock: where nobody
            else saved in between, that is no conflict with itself.

    Returns:
        The formula with its saved draft.

    Raises:
        Conflict: when somebody saved in between; carries their draft and the differences in words.
        FormulaError: when the document cannot be read.
    """
    require(member, "formulas.edit")
    formula = formula_of(member, formula_id, lock=True)
    draft = formula.draft
    clean = _clean({**document, "uid": draft.document.get("uid", "")})
    # The same work under an older lock, such as a page's last words sent twice, overwrites nothing.
    same_page = bool(page) and draft.page == page and draft.updated_by_id == member.user_id
    if _clean(draft.document) != clean and not same_page:
        _guard(draft, lock, clean, member)
    draft.document, draft.lock, draft.updated_by, draft.page = clean, draft.lock + 1, member.user, page
    base = formula.versions.filter(number=draft.base_number).first()
    draft.changed = base is None or _clean(base.document) != clean
    draft.save()
    _describe(formula, member, clean)
    formula.touched_at = timezone.now()
    formula.save()
    return OpenFormula(formula=formula, draft=draft, may_edit=True)


@transaction.atomic
def save_version(member: Membership, formula_id: int, lock: int, note: str = "") -> FormulaVersion:
    """Keep the draft as the next version.

    Returns:
        The new version.

    Raises:
        Conflict: as for ``save_draft``.
        Refused: when nothing changed since the last version, or the note is too long.
    """
    require(member, "formulas.edit")
    formula = formula_of(member, formula_id, lock=True)
    draft = formula.draft
    _guard(draft, lock, draft.document, member)
    last = formula.versions.first()
    if last is not None and _clean(last.document) == _clean(draft.document):
        raise Refused("nothing has changed since the last version", got=f"v{last.number}", remedy="edit first")
    if len(note) > 500 or "\x00" in note:
        raise Refused("the note is too long", got=f"{len(note)} characters", allowed="up to 500", field="note")
    changes = [change.text for change in _differences(member, last.document, draft.document)] if last else []
    version = FormulaVersion.objects.create(
        formula=formula,
        number=last.number + 1 if last else 1,
        document=draft.document,
        note=note.strip(),
        changes=changes,
        author=member.user,
        created_at=timezone.now(),
    )
    draft.base_number, draft.changed, draft.lock = version.number, False, draft.lock + 1
    if draft.updated_by_id != member.user_id:
        draft.page = ""
    draft.save()
    formula.touched_at = version.created_at
    formula.save(update_fields=["touched_at"])
    record(member, "version.save", formula, number=version.number)
    return version


def versions(member: Membership, formula_id: int) -> QuerySet[FormulaVersion]:
    """All versions of a formula, the newest first."""
    return formula_of(member, formula_id).versions.select_related("author")


def version(member: Membership, formula_id: int, number: int) -> FormulaVersion:
    """One version.

    Returns:
        The version.

    Raises:
        NotFound: when the formula has no such version.
    """
    row = versions(member, formula_id).filter(number=number).first()
    if row is None:
        raise NotFound("version not found", got=f"v{number}", remedy="choose one from the list")
    return row


def compare(member: Membership, formula_id: int, before: int, after: int) -> tuple[Change, ...]:
    """Differences in words between two versions; 0 stands for the draft.

    Returns:
        The changes, lines first.

    Raises:
        NotFound: when a version is missing.
    """

    def document(number: int) -> dict[str, Any]:
        if number == 0:
            return formula_of(member, formula_id).draft.document  # type: ignore[no-any-return]
        return version(member, formula_id, number).document  # type: ignore[no-any-return]

    return _differences(member, document(before), document(after))


@transaction.atomic
def fork_formula(member: Membership, formula_id: int, name: str = "") -> OpenFormula:
    """Start a new formula from the draft of another."""
    require(member, "formulas.edit")
    source = formula_of(member, formula_id)
    document = dict(source.draft.document)
    document["name"] = name.strip() or f"{source.name} (copy)"[:120]
    document["provenance"] = {"forked_from": source.name, "version": source.draft.base_number}
    return create_formula(member, document, forked_from=source)


@transaction.atomic
def archive_formula(member: Membership, formula_id: int, *, archived: bool) -> Formula:
    """Put a formula away, or back on the shelf. Nothing is lost."""
    require(member, "formulas.edit")
    formula = formula_of(member, formula_id, lock=True)
    formula.archived_at = timezone.now() if archived else None
    formula.save(update_fields=["archived_at"])
    record(member, "formula.archive" if archived else "formula.restore", formula)
    return formula


@transaction.atomic
def discard_blank(member: Membership, formula_id: int) -> None:
    """Take a formula away that was begun and left: nothing was put into it.

    Raises:
        Refused: when it holds anything.
    """
    require(member, "formulas.edit")
    formula = formula_of(member, formula_id, lock=True)
    document = formula.draft.document
    if document.get("lines") or document.get("notes") or document.get("targets") or formula.versions.exists():
        raise Refused("the formula is not blank", got=formula.name, remedy="archive it")
    formula.delete()


def refresh_thumbs(limit: int = 500) -> int:
    """Make the thumbs of another state of the science anew; returns how many were made."""
    stale = Formula.objects.exclude(thumb_mark__startswith=SCIENCE_MARK).select_related("draft", "kitchen")[:limit]
    created = 0
    for formula in stale:
        formula.thumb, formula.thumb_mark = (
            shelf_thumb(formula.kitchen, formula.draft.document),
            thumb_mark(formula.kitchen),
        )
        formula.save(update_fields=["thumb", "thumb_mark"])
        created += 1
    return created


def _free_uid(member: Membership, document: dict[str, Any]) -> str:
    """Return the id that a new formula has: that of its file where no formula here has it, else a new one."""
    uid = document.get("uid")
    in_use = isinstance(uid, str) and Draft.objects.filter(formula__kitchen=member.kitchen, document__uid=uid).exists()
    return uid if isinstance(uid, str) and uid and not in_use else uuid4().hex


def _may_edit(member: Membership) -> bool:
    return may(member, "formulas.edit")


def _clean(document: dict[str, Any]) -> dict[str, Any]:
    """Return the document as the core reads and writes it: checked, complete, unknown keys kept.

    What an earlier release kept is brought to the same form before it is compared.
    """
    return write_document(read_document(document))


def _describe(formula: Formula, member: Membership, document: dict[str, Any]) -> None:
    formula.name = document["name"].strip() or "Untitled"
    formula.form = document["form"]["kind"]
    formula.thumb, formula.thumb_mark = shelf_thumb(member.kitchen, document), thumb_mark(member.kitchen)


def _guard(draft: Draft, lock: int, mine: dict[str, Any], member: Membership) -> None:
    if draft.lock == lock:
        return
    changes = _differences(member, mine, draft.document)
    raise Conflict(
        "someone else saved this formula while you were editing",
        remedy="keep your version or use theirs",
        current={
            "document": draft.document,
            "lock": draft.lock,
            "by": draft.updated_by.email if draft.updated_by else "",
            "differences": [change.text for change in changes],
        },
    )


def _differences(member: Membership, before: dict[str, Any], after: dict[str, Any]) -> tuple[Change, ...]:
    library = library_of(member.kitchen, before, after)
    return differences(read_document(before), read_document(after), library, core_settings(member.kitchen))
