"""Ovens of a kitchen: readings of their bakes, what was learned of them, and the bake of a formula in one of them."""

from collections.abc import Mapping
from dataclasses import asdict, dataclass
from math import isfinite
from typing import Any

from django.db import transaction
from django.dispatch import Signal
from django.utils.text import slugify

from kitchen.errors import NotFound, Refused
from kitchen.models import Kitchen, LoggedBake, Membership, Oven
from kitchen.services.access import record, require
from kitchen.services.judging import core_settings, library_of
from kitchen.services.kitchens import bump_revision
from substrata import read_document, write_document
from substrata.evaluation.dough import Dough
from substrata.evaluation.forecasts.bake_forecast import BakeForecast, forecast_bake
from substrata.evaluation.forecasts.shape_forecast import ShapePlan, plan_shape
from substrata.execution.run_document import Done, Verdict
from substrata.execution.run_document import Run as CoreRun
from substrata.formula.formula import Formula
from substrata.inference.calibration.learned_parameters import CalibrationState
from substrata.inference.calibration.oven_block import oven_of
from substrata.process.baking.oven_profile import OvenProfile
from substrata.process.baking.oven_questions import thickest_in
from substrata.publishing.card_panels import Card, as_baked, card_of

bakes_changed = Signal()  # with the membership: what the kitchen's ovens were taught has changed
MOST_OVENS = 50
MOST_BAKES_READ = 200  # the newest; older ones tell of an oven that has changed


@dataclass(frozen=True, kw_only=True)
class BakeAnswer:
    """A forecast, and the answer to "how thick in so many minutes" when it was asked."""

    forecast: BakeForecast | None
    thickest_mm: float | None


def profile_of(oven: Oven) -> OvenProfile:
    """Return what is known of an oven: what was last learned, with where it stands now."""
    learned = {key: oven.learned[key] for key in _LEARNED if key in oven.learned}
    return OvenProfile(name=oven.name, altitude_m=oven.altitude_m, **learned)


_LEARNED = ("offset_k", "offset_sd", "convection", "thickness", "browning", "bakes")


def keep_learned(kitchen: Kitchen, state: CalibrationState) -> bool:
    """Keep what the bakes of a kitchen say of each of its ovens; returns whether anything is other than before."""
    changed = False
    for oven in Oven.objects.filter(kitchen_id=kitchen.pk):
        profile = oven_of(state, oven.key)
        learned = {key: round(getattr(profile, key), 4) for key in _LEARNED} if profile.bakes else {}
        if learned != oven.learned:
            oven.learned, changed = learned, True
            oven.save(update_fields=["learned"])
    return changed


def ovens(member: Membership) -> list[tuple[Oven, OvenProfile]]:
    """Return the kitchen's ovens with what is known of them; a constant number of queries."""
    rows = Oven.objects.filter(kitchen_id=member.kitchen_id, archived=False).prefetch_related("bakes")
    return [(oven, profile_of(oven)) for oven in rows]


@transaction.atomic
def add_oven(member: Membership, name: str, altitude_m: float = 0.0) -> Oven:
    """Add a new oven.

    Returns:
        The new oven.

    Raises:
        Refused: when it has no name, or there are too many.
    """
    require(member, "ovens.edit")
    oven_name = name.strip()[:80]
    if not oven_name:
        raise Refused("the oven has no name", got="nothing", allowed="a name", field="name")
    checked_altitude(altitude_m)
    count = Oven.objects.filter(kitchen_id=member.kitchen_id).count()
    if count >= MOST_OVENS:
        raise Refused("too many ovens", got=str(count), allowed=f"up to {MOST_OVENS}", remedy="archive one")
    base = slugify(oven_name)[:30] or "oven"
    in_use = set(Oven.objects.filter(kitchen_id=member.kitchen_id).values_list("key", flat=True))
    key = next(k for k in (base, *(f"{base}-{n}" for n in range(2, MOST_OVENS + 3))) if k not in in_use)
    created = Oven.objects.create(kitchen_id=member.kitchen_id, key=key, name=oven_name, altitude_m=altitude_m)
    record(member, "oven.add", oven=created.name)
    return created


@transaction.atomic
def change_oven(
    member: Membership,
    oven_id: int,
    *,
    name: str | None = None,
    altitude_m: float | None = None,
    archived: bool | None = None,
) -> Oven:
    """Rename an oven, say where it stands, or put it away.

    Returns:
        The changed oven.

    Raises:
        NotFound: when the kitchen has no such oven.
    """
    require(member, "ovens.edit")
    oven = _oven_of(member, oven_id)
    if name is not None and name.strip():
        oven.name = name.strip()[:80]
    if altitude_m is not None:
        oven.altitude_m = checked_altitude(altitude_m)
    if archived is not None:
        oven.archived = archived
    oven.save()
    bump_revision(member.kitchen)
    record(member, "oven.change", oven=oven.name)
    if altitude_m is not None:
        bakes_changed.send(Oven, member=member)  # its bakes were read by the boil of another height
    return oven


def checked_altitude(altitude_m: float) -> float:
    """Return a height above the sea that can be.

    Raises:
        Refused: when it cannot.
    """
    low, high = _ALTITUDE_M
    if not (isfinite(altitude_m) and low <= altitude_m <= high):
        raise Refused(
            "the altitude cannot be right",
            got=f"{altitude_m:g} m",
            allowed=f"{low:g} to {high:g} m",
            field="altitude_m",
        )
    return altitude_m


@dataclass(frozen=True, kw_only=True)
class BakeReadings:
    """What a baker read of a bake that was not logged step by step."""

    minutes: float | None = None  # when it was done as it was wanted
    before_g: float | None = None
    after_g: float | None = None
    probe_c: float | None = None  # the empty oven's air, by a thermometer


_ALTITUDE_M = (-400.0, 5000.0)
# What a reading may be, by its field: unit, least and most.
_BOUNDS = {
    "minutes": ("min", 0.5, 600.0),
    "before_g": ("g", 1.0, 100_000.0),
    "after_g": ("g", 1.0, 100_000.0),
    "probe_c": ("°C", 20.0, 400.0),
}


def checked_readings(read: BakeReadings) -> BakeReadings:
    """Check the readings of a bake, wherever they come from.

    Returns:
        The checked readings.

    Raises:
        Refused: naming the field that cannot be right, or when nothing was read.
    """
    for field, (unit, least, most) in _BOUNDS.items():
        value = getattr(read, field)
        if value is not None and not (isfinite(value) and least <= value <= most):
            raise Refused(
                "the reading cannot be right",
                got=f"{value:g} {unit}",
                allowed=f"{least:g} to {most:g} {unit}",
                remedy="measure again",
                field=field,
            )
    if read.before_g is not None and read.after_g is not None and read.after_g > read.before_g:
        raise Refused(
            "it cannot weigh more after the oven",
            got=f"{read.before_g:g} → {read.after_g:g} g",
            allowed="a weight after that is not above the one before",
            remedy="read both again",
            field="after_g",
        )
    weighed = read.before_g is not None and read.after_g is not None
    if (read.minutes is None and read.probe_c is None) or (read.minutes is None and weighed and read.probe_c is None):
        raise Refused(
            "this bake has no reading that shows the oven's temperature",
            got="no time and no temperature",
            allowed="minutes; minutes with the weight before and after; or a thermometer in the empty oven",
            remedy="weigh before and after baking: this helps most",
        )
    return read


@transaction.atomic
def take_oven(member: Membership, content: Mapping[str, Any]) -> Oven:
    """Put an oven of a kitchen's file into a kitchen, with the readings of its bakes.

    Returns:
        The oven, new or found by its key.

    Raises:
        Refused: when a part of it cannot be right.
        FormulaError: when the formula of a bake cannot be read.
    """
    oven = add_oven(member, _text(content, "name", 80), _number(content, "altitude_m") or 0.0)
    oven.key, oven.archived = _text(content, "key", 40) or oven.key, content.get("archived") is True
    oven.save(update_fields=["key", "archived"])
    bakes = content.get("bakes") or []
    if not isinstance(bakes, list) or len(bakes) > MOST_BAKES_READ or not all(isinstance(b, dict) for b in bakes):
        raise Refused(
            "the oven's bakes cannot be read",
            got="something else",
            allowed=f"up to {MOST_BAKES_READ} bakes",
            field="ovens",
        )
    for bake in bakes:
        document = bake.get("document")
        formula = None if document is None else read_document(document)
        old = [] if formula is not None else _old_offsets(bake.get("readings") or [])
        numbers = BakeReadings(**{name: _number(bake, name) for name in _BOUNDS})
        if formula is not None:
            checked_readings(numbers)
        LoggedBake.objects.create(
            oven=oven,
            formula_name=_text(bake, "formula_name", 120),
            document=None if formula is None else write_document(formula),
            readings=old,
            logged_by=member.user,
            **(asdict(numbers) if formula is not None else {}),
        )
    return oven


def _text(content: Mapping[str, Any], key: str, most: int) -> str:
    value = content.get(key, "")
    if not isinstance(value, str) or "\x00" in value:
        raise Refused(f"the {key} cannot be read", got=type(value).__name__, allowed="text", field=key)
    return value[:most]


def _number(content: Mapping[str, Any], key: str) -> float | None:
    value = content.get(key)
    if value is None:
        return None
    if isinstance(value, bool) or not isinstance(value, int | float) or not isfinite(value):
        raise Refused(f"the {key} cannot be read", got=str(value)[:40], allowed="a number", field=key)
    return float(value)


def _old_offsets(pairs: object) -> list[list[float]]:
    """Return pairs of an offset and its standard deviation, K, as an earlier release kept them; what cannot be is refused."""
    most, least_sd = 60.0, 1.0
    rows = pairs if isinstance(pairs, list) else [None]
    for pair in rows:
        fits = isinstance(pair, list) and len(pair) == 2 and all(type(x) in (int, float) and isfinite(x) for x in pair)
        if not isinstance(pair, list) or not fits or abs(pair[0]) > most or not 0 <= pair[1] <= most:
            raise Refused(
                "an oven's reading cannot be right",
                got=str(pair)[:40],
                allowed=f"± {most:g} K, with its uncertainty",
                field="readings",
            )
    return [[float(pair[0]), max(float(pair[1]), least_sd)] for pair in rows if isinstance(pair, list)]


@transaction.atomic
def log_bake(member: Membership, oven_id: int, document: dict[str, Any], read: BakeReadings) -> LoggedBake:
    """Keep what a baker read of a bake; what it says of the oven is worked out by the learning of the kitchen.

    Returns:
        The stored bake.

    Raises:
        Refused: when nothing was read that says anything, or a reading cannot be right.
        FormulaError: when the document cannot be read.
    """
    require(member, "ovens.edit")
    oven = _oven_of(member, oven_id)
    formula = read_document(document)
    dough = dough_in(member, formula, document, OvenProfile(altitude_m=oven.altitude_m))
    checked_readings(read)
    if dough.batch.dough_g <= 0 or dough.case.fried:
        raise Refused(
            "this is not baked in an oven", got=formula.name, allowed="a dough that is baked", field="document"
        )
    created = LoggedBake.objects.create(
        oven=oven,
        formula_name=formula.name[:120],
        document=write_document(formula),
        **asdict(read),
        logged_by=member.user,
    )
    record(member, "oven.bake", oven=oven.name, baked=formula.name)
    bakes_changed.send(LoggedBake, member=member)
    return created


def bakes_as_runs(kitchen: Kitchen) -> list[CoreRun]:
    """Return the typed bakes of a kitchen's ovens as the core's runs; those kept without their formula say nothing here."""
    rows = LoggedBake.objects.filter(oven__kitchen_id=kitchen.pk).filter(document__isnull=False).select_related("oven")
    return [
        CoreRun(
            id=f"bake-{row.pk}",
            formula=read_document(row.document or {}),
            oven=row.oven.key,
            done=Done(minutes=row.minutes, weight_in_g=row.before_g, weight_out_g=row.after_g, probe_c=row.probe_c),
            verdict=Verdict(liked="good"),
        )
        for row in rows[:MOST_BAKES_READ]
    ]


def offsets_of_old(kitchen: Kitchen) -> dict[str, list[tuple[str, float, float]]]:
    """Return what bakes of an earlier release, kept without their formula, said of each oven: id, offset and its sd, K."""
    rows = LoggedBake.objects.filter(oven__kitchen_id=kitchen.pk, document__isnull=True).select_related("oven")
    readings: dict[str, list[tuple[str, float, float]]] = {}
    for row in rows[:MOST_BAKES_READ]:
        for offset, sd in row.readings or []:
            readings.setdefault(row.oven.key, []).append((f"bake-{row.pk}", offset, sd))
    return readings


@transaction.atomic
def delete_logged_bake(member: Membership, oven_id: int, bake_id: int) -> None:
    """Delete a logged bake: it was mistyped, or the oven was mended since.

    Raises:
        NotFound: when there is none.
    """
    require(member, "ovens.edit")
    gone, _ = LoggedBake.objects.filter(oven=_oven_of(member, oven_id), pk=bake_id).delete()
    if not gone:
        raise NotFound("bake not found", got=str(bake_id), remedy="choose one of the oven's bakes")
    record(member, "oven.delete_bake", bake=bake_id)
    bakes_changed.send(LoggedBake, member=member)


def bake_document(member: Membership, document: dict[str, Any], within_min: float | None = None) -> BakeAnswer:
    """Return the forecast of a document in the oven it names.

    Raises:
        FormulaError: when the document cannot be read.
    """
    formula = read_document(document)
    dough = dough_in(member, formula, document, named_profile(member, formula.bake.oven))
    forecast = forecast_bake(dough)
    thickest = thickest_in(dough.case, within_min) if forecast is not None and within_min is not None else None
    return BakeAnswer(forecast=forecast, thickest_mm=thickest)


def card_document(member: Membership, document: dict[str, Any]) -> Card:
    """Return the panels of a document, with the forecast of the oven it names.

    Raises:
        FormulaError: when the document cannot be read.
    """
    formula = read_document(document)
    return card_of(as_baked(dough_in(member, formula, document, named_profile(member, formula.bake.oven))))


def shape_document(member: Membership, document: dict[str, Any]) -> ShapePlan | None:
    """Pieces, trays and pans of a document.

    Returns:
        The plan of shapes; None while there is no dough.

    Raises:
        FormulaError: when the document cannot be read.
    """
    return plan_shape(dough_in(member, read_document(document), document, OvenProfile()))


def named_profile(member: Membership, key: str) -> OvenProfile:
    """Return what is known of the oven a document names; another kitchen's oven is an unknown one."""
    oven = Oven.objects.filter(kitchen_id=member.kitchen_id, key=key).first() if key else None
    return profile_of(oven) if oven else OvenProfile()


def dough_in(member: Membership, formula: Formula, document: dict[str, Any], profile: OvenProfile) -> Dough:
    """Return the dough of a document in a kitchen: its packs, its choices, one of its ovens."""
    kitchen = member.kitchen
    return Dough(formula, library_of(kitchen, document), core_settings(kitchen), profile)


def _oven_of(member: Membership, oven_id: int) -> Oven:
    row = Oven.objects.filter(kitchen_id=member.kitchen_id, pk=oven_id).first()
    if row is None:
        raise NotFound("oven not found", got=str(oven_id), remedy="choose one of the kitchen's ovens")
    return row
