"""Ovens of a kitchen: what their logged bakes teach, and the bake of a formula in one of them."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.utils.text import slugify

from kitchen.errors import NotFound, Refused
from kitchen.models import LoggedBake, Membership, Oven, Run
from kitchen.services.access import membership, record
from kitchen.services.judging import core_settings, library_of
from substrata import read_document
from substrata.card.card import Card, as_baked, card_of
from substrata.context.dough import Dough
from substrata.errors import OvenError
from substrata.formula.formula import Formula
from substrata.oven.learning import BakeSeen, readings
from substrata.oven.profile import OffsetReading, OvenProfile, learned
from substrata.oven.questions import thickest_in
from substrata.stations.bake import BakeForecast, forecast_of
from substrata.stations.shape import ShapePlan, shape_plan_of

BAKER = Membership.Role.BAKER
MOST_OVENS = 50
MOST_BAKES_READ = 200  # the newest; older ones tell of an oven that has changed


@dataclass(frozen=True, kw_only=True)
class BakeAnswer:
    """A forecast, and the answer to "how thick in so many minutes" when it was asked."""

    forecast: BakeForecast | None
    thickest_mm: float | None


def profile_of(oven: Oven) -> OvenProfile:
    """What is known of an oven."""
    return _learned(oven, list(oven.bakes.all()[:MOST_BAKES_READ]))


def _learned(oven: Oven, bakes: list[LoggedBake]) -> OvenProfile:
    readings_ = [[OffsetReading(offset_k=offset, sd_k=sd) for offset, sd in bake.readings] for bake in bakes]
    return learned(oven.name, readings_, altitude_m=oven.altitude_m)


def ovens(user: User, kitchen_id: int) -> list[tuple[Oven, OvenProfile]]:
    """The kitchen's ovens with what is known of them; a constant number of queries."""
    member = membership(user, kitchen_id)
    rows = Oven.objects.filter(kitchen_id=member.kitchen_id, archived=False).prefetch_related("bakes")
    return [(oven, _learned(oven, list(oven.bakes.all())[:MOST_BAKES_READ])) for oven in rows]


@transaction.atomic
def add_oven(user: User, kitchen_id: int, name: str, altitude_m: float = 0.0) -> Oven:
    """A new oven.

    Raises:
        Refused: when it has no name, or there are too many.
    """
    member = membership(user, kitchen_id, BAKER)
    wanted = name.strip()[:80]
    if not wanted:
        raise Refused("the oven has no name", got="nothing", allowed="a name", field="name")
    count = Oven.objects.filter(kitchen_id=member.kitchen_id).count()
    if count >= MOST_OVENS:
        raise Refused("too many ovens", got=str(count), allowed=f"up to {MOST_OVENS}", remedy="put one away")
    base = slugify(wanted)[:30] or "oven"
    taken = set(Oven.objects.filter(kitchen_id=member.kitchen_id).values_list("key", flat=True))
    key = next(k for k in (base, *(f"{base}-{n}" for n in range(2, MOST_OVENS + 3))) if k not in taken)
    created = Oven.objects.create(kitchen_id=member.kitchen_id, key=key, name=wanted, altitude_m=altitude_m)
    record(member, "oven.add", oven=created.name)
    return created


@transaction.atomic
def change_oven(
    user: User,
    kitchen_id: int,
    oven_id: int,
    *,
    name: str | None = None,
    altitude_m: float | None = None,
    archived: bool | None = None,
) -> Oven:
    """Rename an oven, say where it stands, or put it away.

    Raises:
        NotFound: when the kitchen has no such oven.
    """
    member = membership(user, kitchen_id, BAKER)
    oven = _oven_of(member, oven_id)
    if name is not None and name.strip():
        oven.name = name.strip()[:80]
    if altitude_m is not None:
        oven.altitude_m = altitude_m
    if archived is not None:
        oven.archived = archived
    oven.save()
    record(member, "oven.change", oven=oven.name)
    return oven


@transaction.atomic
def log_bake(user: User, kitchen_id: int, oven_id: int, document: dict[str, Any], seen: BakeSeen) -> LoggedBake:
    """Keep what a baker saw, and what it says of the oven.

    Raises:
        Refused: when nothing was seen that says anything.
        FormulaError: when the document cannot be read.
    """
    member = membership(user, kitchen_id, BAKER)
    oven = _oven_of(member, oven_id)
    formula = read_document(document)
    dough = dough_in(member, formula, document, OvenProfile(altitude_m=oven.altitude_m))
    offsets = readings(dough.case, seen) if dough.batch.dough_g > 0 else ()
    if not offsets:
        raise Refused(
            "this bake says nothing of the oven",
            got="no time, weight or probe that the forecast depends on",
            allowed="minutes; weight before and after; or a probe in the empty oven",
            remedy="weigh before and after: it tells most",
        )
    created = _kept(oven, formula.name, seen, offsets, user)
    record(member, "oven.bake", oven=oven.name, baked=formula.name)
    return created


def _kept(
    oven: Oven, name: str, seen: BakeSeen, offsets: Sequence[OffsetReading], user: User, run: Run | None = None
) -> LoggedBake:
    return LoggedBake.objects.create(
        oven=oven,
        formula_name=name[:120],
        minutes=seen.minutes,
        before_g=seen.before_g,
        after_g=seen.after_g,
        probe_c=seen.probe_c,
        readings=[[round(r.offset_k, 3), round(r.sd_k, 3)] for r in offsets],
        logged_by=user,
        run=run,
    )


def log_seen(member: Membership, user: User, run: Run, seen: BakeSeen) -> None:
    """Keep what a run saw of its oven, where it says anything; within the transaction of the run's verdict."""
    oven = Oven.objects.filter(kitchen_id=member.kitchen_id, key=run.oven).first()
    formula = read_document(run.document)
    if oven is None:
        return
    dough = dough_in(member, formula, run.document, OvenProfile(altitude_m=oven.altitude_m))
    try:
        offsets = readings(dough.case, seen) if dough.batch.dough_g > 0 else ()
    except OvenError:
        return
    if offsets:
        _kept(oven, formula.name, seen, offsets, user, run)


@transaction.atomic
def delete_logged_bake(user: User, kitchen_id: int, oven_id: int, bake_id: int) -> None:
    """Delete a logged bake: it was mistyped, or the oven was mended since.

    Raises:
        NotFound: when there is none.
    """
    member = membership(user, kitchen_id, BAKER)
    gone, _ = LoggedBake.objects.filter(oven=_oven_of(member, oven_id), pk=bake_id).delete()
    if not gone:
        raise NotFound("no such bake", got=str(bake_id), remedy="choose one of the oven's bakes")
    record(member, "oven.delete_bake", bake=bake_id)


def bake_document(user: User, kitchen_id: int, document: dict[str, Any], within_min: float | None = None) -> BakeAnswer:
    """The forecast of a document in the oven it names.

    Raises:
        FormulaError: when the document cannot be read.
    """
    member = membership(user, kitchen_id)
    formula = read_document(document)
    dough = dough_in(member, formula, document, named_profile(member, formula.bake.oven))
    forecast = forecast_of(dough)
    thickest = thickest_in(dough.case, within_min) if forecast is not None and within_min is not None else None
    return BakeAnswer(forecast=forecast, thickest_mm=thickest)


def card_document(user: User, kitchen_id: int, document: dict[str, Any]) -> Card:
    """The card of a document, as the oven it names is forecast to leave it.

    Raises:
        FormulaError: when the document cannot be read.
    """
    member = membership(user, kitchen_id)
    formula = read_document(document)
    return card_of(as_baked(dough_in(member, formula, document, named_profile(member, formula.bake.oven))))


def shape_document(user: User, kitchen_id: int, document: dict[str, Any]) -> ShapePlan | None:
    """Pieces, trays and pans of a document.

    Raises:
        FormulaError: when the document cannot be read.
    """
    member = membership(user, kitchen_id)
    return shape_plan_of(dough_in(member, read_document(document), document, OvenProfile()))


def named_profile(member: Membership, key: str) -> OvenProfile:
    """What is known of the oven a document names; another kitchen's oven is an unknown one."""
    oven = Oven.objects.filter(kitchen_id=member.kitchen_id, key=key).first() if key else None
    return profile_of(oven) if oven else OvenProfile()


def dough_in(member: Membership, formula: Formula, document: dict[str, Any], profile: OvenProfile) -> Dough:
    """The dough of a document in a kitchen: its packs, its choices, one of its ovens."""
    kitchen = member.kitchen
    return Dough(formula, library_of(kitchen, document), core_settings(kitchen), profile)


def _oven_of(member: Membership, oven_id: int) -> Oven:
    row = Oven.objects.filter(kitchen_id=member.kitchen_id, pk=oven_id).first()
    if row is None:
        raise NotFound("no such oven", got=str(oven_id), remedy="choose one of the kitchen's ovens")
    return row
