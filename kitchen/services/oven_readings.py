"""Readings of bakes that a kitchen logs for its ovens outside of a session."""

from collections.abc import Mapping
from dataclasses import asdict, dataclass
from math import isfinite
from typing import Any

from django.db import transaction

from kitchen.errors import NotFound, Refused
from kitchen.models import Kitchen, LoggedBake, Membership, Oven
from kitchen.services.access import record, require
from kitchen.services.ovens import add_oven, bakes_changed, dough_in, stored_oven
from substrata import read_document, write_document
from substrata.execution import Done, Verdict
from substrata.execution import Run as CoreRun
from substrata.process import OvenProfile

MOST_BAKES_READ = 200  # the newest; older ones tell of an oven that has changed


@dataclass(frozen=True, kw_only=True)
class BakeReadings:
    """What a baker read of a bake that was not logged step by step."""

    minutes: float | None = None  # when it was done as it was wanted
    before_g: float | None = None
    after_g: float | None = None
    probe_c: float | None = None  # the empty oven's air, by a thermometer


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
    oven = stored_oven(member, oven_id)
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
    gone, _ = LoggedBake.objects.filter(oven=stored_oven(member, oven_id), pk=bake_id).delete()
    if not gone:
        raise NotFound("bake not found", got=str(bake_id), remedy="choose one of the oven's bakes")
    record(member, "oven.delete_bake", bake=bake_id)
    bakes_changed.send(LoggedBake, member=member)
