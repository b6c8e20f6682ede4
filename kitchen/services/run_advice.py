"""What is answered while a run goes on: to a felt dough, a wrong weight, a reading of the bake."""

from functools import lru_cache

from kitchen.models import Membership, Run
from kitchen.services.access import run_of
from kitchen.services.memo import MemoKey, kitchen_mark, profile_mark
from kitchen.services.ovens import dough_in, named_profile
from kitchen.services.runs import as_document, dough_of_run
from substrata import read_document
from substrata.evaluation import Dough
from substrata.execution import (
    BakeReading,
    FeelAdvice,
    LiveBake,
    LiveForecast,
    PourAdvice,
    feel,
    poured,
    read_run,
    what_was_done,
)
from substrata.process import BakeCase


def feel_run(
    member: Membership, run_id: int, class_name: str, minute: float | None, temperature_c: float | None
) -> FeelAdvice:
    """Return what to do with the dough of a run as it is felt; by what was weighed, where it was."""
    run = run_of(member, run_id)
    return feel(
        _as_weighed(member, run),
        class_name=class_name,
        minute=minute,
        temperature_c=temperature_c,
        batches=run.batches,
        dry_air=_in_dry_air(run),
    )


def _in_dry_air(run: Run) -> bool:
    note = run.entries.filter(kind="note", what="dry-air").order_by("pk").last()
    return note is not None and note.word == "on"


def _as_weighed(member: Membership, run: Run) -> Dough:
    dough = dough_of_run(member, run.document)
    done = what_was_done(read_run(as_document(run)))
    here = {w.line.id for w in dough.batch.lines if w.grams.value > 0} & {line.id for line in dough.formula.lines}
    grams = {line: value for line, value in done.grams.items() if line in here and value > 0}
    return dough.with_changes(grams=grams) if grams else dough


def pour_run(member: Membership, run_id: int, line: str, grams: float, *, mixed: bool) -> PourAdvice:
    """Return what the rest of the formula answers to a weight."""
    run = run_of(member, run_id)
    done = what_was_done(read_run(as_document(run)))
    return poured(
        dough_of_run(member, run.document), line, grams, before=tuple(done.grams), batches=run.batches, mixed=mixed
    )


def live_run(member: Membership, run_id: int, minute: float, readings: list[BakeReading]) -> LiveForecast:
    """Return the window of a run's bake as it stands.

    Raises:
        OvenError: when no bake of it is known.
    """
    run = run_of(member, run_id)
    return _live(member, run).forecast(minute, readings)


def case_of(member: Membership, run_id: int) -> BakeCase:
    """Return the bake case of a run in its learned oven.

    Raises:
        OvenError: when no bake of it is known.
    """
    run = run_of(member, run_id)
    return dough_in(member, read_document(run.document), run.document, named_profile(member, run.oven)).case


def _live(member: Membership, run: Run) -> LiveBake:
    dough = dough_in(member, read_document(run.document), run.document, named_profile(member, run.oven))
    key = (*kitchen_mark(member.kitchen), *profile_mark(dough.profile), run.pk)
    return _live_bake(MemoKey(key, dough))


@lru_cache(maxsize=24)
def _live_bake(memo_key: MemoKey) -> LiveBake:
    return LiveBake(memo_key.payload.case, memo_key.payload.formula.form)
