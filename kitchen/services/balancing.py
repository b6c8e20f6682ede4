"""Settle, reach, trade-offs and beginnings in a kitchen: what takes longer than a moment is a job."""

from dataclasses import dataclass
from typing import Any

from django.db import transaction

from kitchen.models import FormulaVersion, Job, Kitchen, Membership
from kitchen.services.access import require
from kitchen.services.answers import answer_json
from kitchen.services.jobs import Progress, answered_job, job_kind, start_job
from kitchen.services.judging import SCIENCE_MARK, core_settings, library_of
from kitchen.services.stock import at_hand
from substrata import Library, Settings, read_document, write_document
from substrata.base import plain
from substrata.evaluation import Dough
from substrata.formula import Formula, Window
from substrata.reformulation import (
    POINTS,
    Quality,
    QuickFix,
    Sweep,
    balance,
    begin,
    check_wish,
    feasible_ranges,
    lean,
    pareto_front,
    quick_fixes,
    read_wish,
    sweep,
)

SETTLE, REACH, FRONT, BEGIN = "settle", "reach", "front", "begin"
_PARTS = 100  # of the progress of a settle


@transaction.atomic
def start_settle(member: Membership, document: dict[str, Any], wish: dict[str, Any], formula_id: int) -> Job:
    """Ask for a formula to be brought into its targets.

    Returns:
        The job, waiting or already answered.

    Raises:
        FormulaError: when the document or the wish cannot be meant.
    """
    formula = read_document(document)
    check_wish(read_wish(wish), [line.id for line in formula.lines])
    job_input = {"document": document, "wish": wish, "formula": formula_id}
    return start_job(require(member, "formulas.edit"), SETTLE, job_input, _PARTS)


@job_kind(SETTLE, queue="quick")
def run_settle(job: Job, progress: Progress) -> dict[str, Any]:
    """Settle it; the answer tells which grams it is for."""
    request, wish = (
        _balance_input(job.kitchen, job.input["document"], job.input["formula"]),
        read_wish(job.input["wish"]),
    )
    if wish.only_stock:
        wish = wish.with_changes(stock=at_hand(job.kitchen_id))
    answer = balance(
        request.formula,
        request.library,
        request.settings,
        wish,
        saved=request.saved,
        on_progress=lambda share: progress.report(round(_PARTS * share)),
    )
    return answer_json(answer)  # type: ignore[no-any-return]


def _saved(kitchen_id: int, formula_id: int) -> dict[str, Any] | None:
    """Return the document of the last saved version; None where nothing was saved."""
    rows = FormulaVersion.objects.filter(formula_id=formula_id, formula__kitchen_id=kitchen_id)
    last = rows.order_by("-number").first()
    return last.document if last else None


@dataclass(frozen=True, kw_only=True)
class _BalanceInput:
    """A document as the core takes it, with the version that it is measured against."""

    formula: Formula
    saved: Formula | None
    library: Library
    settings: Settings


def _balance_input(kitchen: Kitchen, document: dict[str, Any], formula_id: int) -> _BalanceInput:
    saved = _saved(kitchen.pk, formula_id)
    return _BalanceInput(
        formula=read_document(document),
        saved=read_document(saved) if saved else None,
        library=library_of(kitchen, document, saved or {}),
        settings=core_settings(kitchen),
    )


def _job_request(member: Membership, kind: str, document: dict[str, Any], total: int) -> Job:
    """Return a new job, or the answer there is already for the same document, saved version, packs and science."""
    require(member, "formulas.edit")
    versions = FormulaVersion.objects.filter(
        formula_id=document["formula"], formula__kitchen_id=member.kitchen_id
    ).count()
    document |= {"versions": versions, "revision": member.kitchen.revision, "science": SCIENCE_MARK}
    return answered_job(member, kind, document) or start_job(member, kind, document, total)


@transaction.atomic
def start_reach(member: Membership, document: dict[str, Any], keys: list[str], formula_id: int) -> Job:
    """Ask how far some quantities can go with all else kept."""
    read_document(document)
    return _job_request(member, REACH, {"document": document, "keys": keys, "formula": formula_id}, len(keys))


@job_kind(REACH, queue="quick")
def run_reach(job: Job, progress: Progress) -> list[dict[str, Any]] | None:
    """One quantity after the other."""
    request = _balance_input(job.kitchen, job.input["document"], job.input["formula"])
    ends: list[dict[str, Any]] = []
    for number, key in enumerate(job.input["keys"], 1):
        ends += [
            plain(end)
            for end in feasible_ranges(request.formula, request.library, request.settings, (key,), saved=request.saved)
        ]
        if not progress.report(number):
            return None
    return ends


@transaction.atomic
def start_front(member: Membership, document: dict[str, Any], axes: tuple[str, str], formula_id: int) -> Job:
    """Ask what a step further in one quantity takes of another."""
    read_document(document)
    return _job_request(member, FRONT, {"document": document, "axes": list(axes), "formula": formula_id}, POINTS)


@job_kind(FRONT, queue="heavy")
def run_front(job: Job, progress: Progress) -> dict[str, Any] | None:
    """Return a point after the other."""
    request = _balance_input(job.kitchen, job.input["document"], job.input["formula"])
    x, y = job.input["axes"]
    curve = pareto_front(
        request.formula,
        request.library,
        request.settings,
        x,
        y,
        saved=request.saved,
        step=progress.report,
    )
    if curve is None:
        return None
    return answer_json(curve)  # type: ignore[no-any-return]


@transaction.atomic
def start_begin(member: Membership, job_input: dict[str, Any]) -> Job:
    """Ask for starting formulas of a form."""
    return start_job(require(member, "formulas.edit"), BEGIN, job_input, 1)


@job_kind(BEGIN, queue="quick")
def run_begin(job: Job, progress: Progress) -> list[dict[str, Any]]:
    """Several bases, each settled."""
    job_input = job.input
    library = library_of(job.kitchen)
    starters = begin(
        job_input["form"],
        library,
        core_settings(job.kitchen),
        targets={key: Window(**window) for key, window in job_input["targets"].items()},
        without=tuple(job_input["without"]),
        stock=at_hand(job.kitchen_id) if job_input["only_stock"] else None,
        pieces=job_input["pieces"],
    )
    progress.report(1)
    return [
        {
            "name": starter.skeleton.name,
            "base": starter.skeleton.base,
            "text": starter.text,
            "weights": [{"name": library[x.ingredient].name, "grams": x.grams or 0.0} for x in starter.formula.lines],
            "met": starter.settlement.status in ("fits", "settled"),
            "document": write_document(starter.formula),
        }
        for starter in starters
    ]


def remedies_for(member: Membership, document: dict[str, Any], formula_id: int) -> tuple[QuickFix, ...]:
    """Return what to do about everything that is out.

    Raises:
        FormulaError: when the document cannot be read.
    """
    request = _balance_input(member.kitchen, document, formula_id)
    return quick_fixes(request.formula, request.library, request.settings, saved=request.saved)


def sweep_line(member: Membership, document: dict[str, Any], line: str) -> Sweep | None:
    """One line's weight and how every figure answers.

    Returns:
        The sweep; None while there is no dough.

    Raises:
        FormulaError: when the document cannot be read, or the line weighs nothing.
    """
    kitchen = member.kitchen
    return sweep(read_document(document), library_of(kitchen, document), core_settings(kitchen), line)


def leaning(
    member: Membership, document: dict[str, Any], group: list[str], by: Quality, towards: float
) -> dict[str, Any]:
    """Return a document whose group of lines is shifted towards one end of a quality, by the prices of the kitchen's packs.

    Raises:
        FormulaError: when the document cannot be read, or nothing tells the lines apart.
    """
    kitchen = member.kitchen
    formula = read_document(document)
    dough = Dough(formula, library_of(kitchen, document), core_settings(kitchen))
    return write_document(lean(dough.batch, formula, group, by, towards))
