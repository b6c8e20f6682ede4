"""What runs tell: why, what next, what a kitchen has learned, and runs side by side."""

from functools import lru_cache
from typing import Any

from django.db import transaction
from django.db.models import Exists, Max, OuterRef, QuerySet
from django.dispatch import receiver
from django.utils import timezone

from kitchen.errors import Refused
from kitchen.models import Job, Kitchen, LoggedBake, Membership, Run
from kitchen.services.access import record, require, run_of
from kitchen.services.answers import answer_json
from kitchen.services.jobs import Progress, answered_job, job_kind, start_job
from kitchen.services.judging import SCIENCE_MARK, core_settings, house_settings, library_of
from kitchen.services.kitchens import bump_revision
from kitchen.services.memo import MemoKey, document_mark, kitchen_mark, profile_mark
from kitchen.services.oven_readings import bakes_as_runs, offsets_of_old
from kitchen.services.ovens import bakes_changed, keep_learned, named_profile
from kitchen.services.runs import MOST_COMPARED, as_document, run_judged
from substrata import read_document, write_document
from substrata.base import plain
from substrata.evaluation import Dough
from substrata.execution import Run as CoreRun
from substrata.execution import read_run
from substrata.formula import Merged, merge_change
from substrata.inference import (
    CauseTable,
    RunPoint,
    RunsCompared,
    cause_table,
    compared,
    diagnose,
    learn,
    lessons,
    over_time,
)

WHY, LEARN = "why", "learn"
SWITCHED = ("hands", "palate", "measures")  # an oven's own page has what it was taught
MOST_LEARNED = 120  # the newest; older ones tell of another oven and other hands


@transaction.atomic
def start_why(member: Membership, run_id: int) -> Job:
    """Ask why a run came out as it did, and what to do next.

    Returns:
        The started or answered job.

    Raises:
        Refused: when nothing was said of it yet.
    """
    require(member, "bakes.edit")
    run = run_of(member, run_id)
    if run.verdict is None:
        raise Refused(
            "this bake has no rating yet",
            got=run.name,
            allowed="a rated bake",
            remedy="rate the bake first",
            field="run_id",
        )
    last = run.entries.aggregate(last=Max("pk"))["last"] or 0
    job_input = {"run": run.pk, "verdict": run.verdict, "entries": last, "science": SCIENCE_MARK}
    return answered_job(member, WHY, job_input) or start_job(member, WHY, job_input, 1)


@job_kind(WHY, queue="quick")
def run_why(job: Job, progress: Progress) -> dict[str, Any]:
    """Plant the causes, score the verdict."""
    row = Run.objects.select_related("formula").get(pk=job.input["run"], kitchen_id=job.kitchen_id)
    member = Membership.objects.select_related("kitchen").filter(kitchen_id=job.kitchen_id).first()
    if member is None:
        return {}
    run = read_run(as_document(row))
    # Causes are judged against the house's forecast: what was learned is itself made of such verdicts.
    profile = named_profile(member, row.oven)
    dough = Dough(run.formula, library_of(job.kitchen, row.document), house_settings(job.kitchen), profile)
    good = Run.objects.filter(kitchen_id=job.kitchen_id, formula=row.formula, liked="good", document=row.document)
    proven = good.exclude(pk=row.pk).exists()
    diagnosis_json = answer_json(
        diagnose(
            dough,
            run,
            table=_table(
                MemoKey((*kitchen_mark(job.kitchen), *profile_mark(profile), document_mark(row.document)), dough)
            ),
            proven=proven,
        )
    )
    progress.report(1)
    return diagnosis_json  # type: ignore[no-any-return]


@lru_cache(maxsize=32)
def _table(memo_key: MemoKey) -> CauseTable:
    return cause_table(memo_key.payload)


def proposal_on_draft(member: Membership, run_id: int, proposed: dict[str, Any]) -> Merged:
    """Apply what a run proposes to its formula's draft as it is now; nothing is kept.

    Args:
        member: who asks, in their kitchen.
        run_id: the run whose diagnosis proposes it.
        proposed: the formula of the run with the change.

    Returns:
        The merged document and its conflicts.

    Raises:
        Refused: when the formula of the run is not there any more.
        FormulaError: when the proposal cannot be read.
    """
    run = run_of(member, run_id)
    if run.formula is None:
        raise Refused(
            "the formula of this bake was deleted",
            got=run.name,
            remedy="start a new formula from this bake",
            field="run_id",
        )
    base, new, now = (
        write_document(read_document(document)) for document in (run.document, proposed, run.formula.draft.document)
    )
    return merge_change(base, new, now)


@transaction.atomic
def start_learn(member: Membership) -> Job:
    """Ask what the kitchen's runs teach; answered at once where nothing has changed since."""
    require(member, "bakes.edit")
    return begin_learning(member)


def begin_learning(member: Membership) -> Job:
    """Ask for all runs to be learned from anew; runs that were learned from already are answered at once."""
    rows = _taught(member.kitchen)
    newest = rows.aggregate(last=Max("touched_at"))["last"]
    job_input = {
        "runs": rows.count(),
        "touched": newest.isoformat() if newest else "",
        "bakes": list(
            LoggedBake.objects.filter(oven__kitchen=member.kitchen).order_by("pk").values_list("pk", flat=True)
        ),
        "ovens": [list(row) for row in member.kitchen.ovens.order_by("pk").values_list("key", "altitude_m")],
        "revision": member.kitchen.revision,
        "science": SCIENCE_MARK,
    }
    return answered_job(member, LEARN, job_input) or start_job(member, LEARN, job_input, 1)


def learn_by_this_science() -> int:
    """Ask for every kitchen with bakes to learn anew where another release of the science did it last; returns how many."""
    taught = Kitchen.objects.filter(Exists(Run.objects.filter(kitchen=OuterRef("pk"), finished_at__isnull=False))) | (
        Kitchen.objects.filter(Exists(LoggedBake.objects.filter(oven__kitchen=OuterRef("pk"))))
    )
    started = 0
    for kitchen in taught.exclude(learned_by=SCIENCE_MARK):
        member = Membership.objects.select_related("kitchen").filter(kitchen=kitchen).order_by("pk").first()
        waits = Job.objects.filter(kitchen=kitchen, kind=LEARN, state__in=Job.UNDER_WAY).exists()
        if member is not None and not waits:
            with transaction.atomic():
                begin_learning(member)
            started += 1
    return started


def _taught(kitchen: Kitchen) -> QuerySet[Run]:
    rows = Run.objects.filter(kitchen_id=kitchen.pk, finished_at__isnull=False)
    return rows.filter(started_at__gte=kitchen.learns_from) if kitchen.learns_from else rows


@receiver(bakes_changed)
@receiver(run_judged)
def learn_anew(member: Membership, **_: object) -> None:
    """Start learning after a run was rated, excluded or deleted."""
    begin_learning(member)


@transaction.atomic
def change_learning(member: Membership, *, off: list[str] | None = None, forget: bool | None = None) -> Kitchen:
    """Switch what the forecasts take from the runs, forget all that was, or take it back in.

    Args:
        member: who asks, in their kitchen.
        off: the blocks that forecasts leave alone; None changes nothing.
        forget: True lets only later runs teach, False takes all back in.

    Returns:
        The changed kitchen.

    Raises:
        Refused: when there is no such block.
    """
    require(member, "bakes.edit")
    kitchen = member.kitchen
    strange = sorted(set(off or ()) - set(SWITCHED))
    if strange:
        raise Refused("block not found", got=", ".join(strange)[:60], allowed=", ".join(SWITCHED), field="off")
    if off is not None:
        kitchen.lessons_off = [block for block in SWITCHED if block in off]
    if forget is not None:
        kitchen.learns_from = timezone.now() if forget else None
        kitchen.lessons = [] if forget else kitchen.lessons
    kitchen.save(update_fields=["lessons_off", "learns_from", "lessons"])
    bump_revision(kitchen)
    record(member, "kitchen.learning", off=kitchen.lessons_off, forget=forget)
    if forget is not None:
        begin_learning(member)
    return kitchen


@job_kind(LEARN, queue="quick")
def run_learn(job: Job, progress: Progress) -> dict[str, Any]:
    """All of it anew, from the runs."""
    rows = list(_taught(job.kitchen).filter(left_out=False).prefetch_related("entries")[:MOST_LEARNED])
    documents = [row.document for row in rows]
    bakes = bakes_as_runs(job.kitchen)
    documents += [write_document(bake.formula) for bake in bakes]
    state = learn(
        [*core_runs(rows), *bakes],
        library_of(job.kitchen, *documents),
        house_settings(job.kitchen),
        offsets=offsets_of_old(job.kitchen),
        altitudes=dict(job.kitchen.ovens.values_list("key", "altitude_m")),
    )
    with transaction.atomic():
        lesson_rows = [plain(lesson) for lesson in lessons(state)]
        _keep_lessons(job.kitchen, lesson_rows, ovens=keep_learned(job.kitchen, state))
    progress.report(1)
    return {
        "runs": state.runs,
        "learned": [plain(parameter) for parameter in state.learned],
        "odd": [plain(odd) for odd in state.odd],
        "names": {str(row.pk): f"{row.name}, {row.started_at:%d %b}" for row in rows}
        | {bake.id: bake.formula.name for bake in bakes},
    }


def _keep_lessons(kitchen: Kitchen, lesson_rows: list[dict[str, Any]], *, ovens: bool) -> None:
    """Keep what forecasts take from now on; what did not change makes nothing old.

    Args:
        kitchen: whose.
        lesson_rows: its lessons.
        ovens: whether what is known of an oven has changed.
    """
    if lesson_rows != kitchen.lessons or ovens:
        kitchen.lessons = lesson_rows
        bump_revision(kitchen)
    kitchen.learned_by = SCIENCE_MARK
    kitchen.save(update_fields=["lessons", "learned_by"])


def core_runs(rows: list[Run]) -> list[CoreRun]:
    """Rows as the core's runs; one that cannot be read any more is left out."""
    return [read_run(as_document(row, row.entries.all())) for row in rows]


def compare_runs(member: Membership, ids: list[int]) -> RunsCompared:
    """Return runs side by side: what differed, forecast and truth.

    Raises:
        Refused: when there are too few or too many.
    """
    if not 2 <= len(set(ids)) <= MOST_COMPARED:
        raise Refused(
            "too many bakes to compare",
            got=str(len(set(ids))),
            allowed=f"2 to {MOST_COMPARED}",
            remedy="choose some of them",
            field="runs",
        )
    rows = {
        row.pk: row for row in Run.objects.filter(kitchen_id=member.kitchen_id, pk__in=ids).prefetch_related("entries")
    }
    chosen = [rows[pk] for pk in dict.fromkeys(ids) if pk in rows]
    if len(chosen) < 2:
        raise Refused("bakes not found", got=str(ids)[:60], allowed="bakes of this kitchen", field="runs")
    library = library_of(member.kitchen, *(row.document for row in chosen))
    names = {str(row.pk): f"{row.started_at:%d %b}" for row in chosen}
    ovens = {key: named_profile(member, key) for key in {row.oven for row in chosen}}
    return compared(core_runs(chosen), library, core_settings(member.kitchen), names=names, ovens=ovens)


MOST_IN_A_LINE = 300  # the newest


def figure_line(member: Membership, figure: str, formula_id: int = 0) -> tuple[RunPoint, ...]:
    """One figure of the kitchen's runs over time, of one formula if wished.

    Returns:
        The points, oldest first.

    Raises:
        FormulaError: when there is no such figure.
    """
    rows = Run.objects.filter(kitchen_id=member.kitchen_id).prefetch_related("entries")
    rows = rows.filter(formula_id=formula_id) if formula_id else rows
    return over_time(core_runs(list(rows[:MOST_IN_A_LINE])), figure)


NO_PLAN = {"steps": [], "dough_g": 0.0, "piece_g": 0.0, "ready_min": None, "wanted_low": "", "wanted_high": "", "text": "from a file"}  # fmt: skip
