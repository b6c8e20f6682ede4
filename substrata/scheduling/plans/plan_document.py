"""The open plan document: bakes with their deadlines, people, ovens, and what is pinned or has happened."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from typing import Annotated, Any
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from substrata.base.documents.collection_kinds import Listed, Named, Nested
from substrata.base.documents.field_kinds import Number, Text, Where, Whole
from substrata.base.documents.format_version import check_version
from substrata.base.documents.records import read_record, record_schema, write_record
from substrata.base.errors import FormulaError
from substrata.base.tables.table_reader import constant
from substrata.formula.formula import Formula

PLAN_VERSION = 1
_VERSION = "substrata_plan"
MOST_BAKES = 24
MOST_DAYS = 14
_WHERE = Where()


@dataclass(frozen=True, kw_only=True)
class PlannedBake:
    """One formula, how much of it, and when it is wanted."""

    formula: Annotated[Formula, Nested(record=Formula, required=True)]
    due: Annotated[str, Text(least=1, most=40, required=True, note="date and time it is to be ready at, ISO 8601")]
    id: Annotated[str, Text(most=60, note="one of its own; else its number")] = ""
    batches: Annotated[float, Number(low=0.05, high=200, optional=False)] = 1.0
    fresh_h: Annotated[float | None, Number(low=0, high=240, unit="h", note="before serving, at most")] = None
    oven: Annotated[str, Text(most=60, note="name of one of the plan's ovens; else any")] = ""
    priority: Annotated[float, Number(low=0.1, high=10, optional=False)] = 1.0
    extra: Mapping[str, Any] = field(default_factory=dict, hash=False)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class PlannedOven:
    """An oven of the plan."""

    name: Annotated[str, Text(least=1, most=60, required=True)]
    key: Annotated[str, Text(most=40, note="id of the kitchen's oven; its name may change", sparse=True)] = ""
    trays: Annotated[int, Whole(low=1, high=40)] = 2
    share_k: Annotated[float, Number(low=0, high=60, optional=False, unit="K", note="bakes so far apart share it")] = (
        constant("oven_shared_k")
    )
    extra: Mapping[str, Any] = field(default_factory=dict, hash=False)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Closed:
    """A time in which nobody works."""

    start: Annotated[str, Text(least=1, most=40, required=True, note="date and time, ISO 8601")]
    end: Annotated[str, Text(least=1, most=40, required=True)]
    extra: Mapping[str, Any] = field(default_factory=dict, hash=False)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Pin:
    """A task that stays where it was put, or has happened."""

    task: Annotated[str, Text(least=1, most=120, required=True)]
    start: Annotated[str, Text(least=1, most=40, required=True, note="date and time, ISO 8601")]
    end: Annotated[str, Text(most=40, note="of what is done")] = ""
    expected: Annotated[str, Text(most=40, note="when what runs will be over, as it looks now")] = ""
    extra: Mapping[str, Any] = field(default_factory=dict, hash=False)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Plan:
    """Several bakes, and what there is to do them with."""

    bakes: Annotated[tuple[PlannedBake, ...], Listed(item=PlannedBake, most=MOST_BAKES)]
    start: Annotated[str, Text(least=1, most=40, required=True, note="when work may begin, ISO 8601")]
    name: Annotated[str, Text(most=120)] = ""
    zone: Annotated[str, Text(most=60, note="IANA name of the kitchen's time zone, of times without an offset")] = ""
    people: Annotated[int, Whole(low=1, high=20)] = 1
    ovens: Annotated[tuple[PlannedOven, ...], Listed(item=PlannedOven, most=12)] = (PlannedOven(name="oven"),)
    # How many there are of microwave, plate, mixer; what is not named there is one of.
    has: Annotated[Mapping[str, float], Named(item=Number(low=0, high=40))] = field(default_factory=dict)
    closed: Annotated[tuple[Closed, ...], Listed(item=Closed, most=40)] = ()
    pins: Annotated[tuple[Pin, ...], Listed(item=Pin, most=400)] = ()
    happened: Annotated[tuple[Pin, ...], Listed(item=Pin, most=400)] = ()
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document


def read_plan(document: Mapping[str, Any]) -> Plan:
    """Make a plan of a document.

    Returns:
        The plan.

    Raises:
        FormulaError: naming the field that cannot be read.
    """
    plain = check_version(document, _VERSION, PLAN_VERSION, "plan")
    if not isinstance(document.get("bakes"), list) or not document["bakes"]:
        raise FormulaError(
            "the plan has no bakes",
            got=str(document.get("bakes"))[:40],
            allowed=f"1 to {MOST_BAKES} bakes, each a formula with the time it is wanted at",
            remedy="add a formula to it",
            field="bakes",
        )
    plan = read_record(Plan, plain, _WHERE)
    clock = Clock(plan)
    for number, bake in enumerate(plan.bakes):
        minute = clock.minute(bake.due, f"bakes[{number}].due")
        if minute <= 0:
            raise FormulaError(
                "the deadline is before the plan starts",
                got=bake.due[:40],
                allowed=f"after {plan.start}",
                remedy="choose a later time, or start the plan earlier",
                field=f"bakes[{number}].due",
            )
        if minute > MOST_DAYS * 1440:
            raise FormulaError(
                "the deadline is too far away",
                got=bake.due[:40],
                allowed=f"within {MOST_DAYS} days of {plan.start}",
                remedy="plan it closer to that day",
                field=f"bakes[{number}].due",
            )
    names = [oven.name for oven in plan.ovens]
    if not names or len(set(names)) != len(names):
        raise FormulaError(
            "each oven needs a different name" if names else "the plan has no oven",
            got=", ".join(names)[:80] or "none",
            allowed="one oven or more, each with a name",
            remedy="give each a different name",
            field="ovens",
        )
    return plan


def write_plan(plan: Plan) -> dict[str, Any]:
    """Write a plan as a document; ``read_plan`` of it gives the same plan."""
    return {_VERSION: PLAN_VERSION, **write_record(plan)}


def plan_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of the document."""
    whole = record_schema(Plan)
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Substrata plan",
        **whole,
        "properties": {_VERSION: {"const": PLAN_VERSION, "description": "version of this format"}}
        | whole["properties"],
    }


class Clock:
    """A plan's minutes and its times of day."""

    def __init__(self, plan: Plan) -> None:
        self.zone = _zone(plan.zone)
        self.begin = self._read(plan.start, "start")

    def minute(self, text: str, where: str) -> int:
        """Whole minutes from the plan's beginning.

        Returns:
            Minutes.

        Raises:
            FormulaError: when the time cannot be read.
        """
        at = self._read(text, where)
        if (at.tzinfo is None) != (self.begin.tzinfo is None):
            raise _bad(text, where, "all times with an offset, or none")
        if at.tzinfo and self.begin.tzinfo:  # by the sun: a night in which clocks change is an hour shorter or longer
            return round((at.astimezone(UTC) - self.begin.astimezone(UTC)).total_seconds() / 60)
        return round((at - self.begin).total_seconds() / 60)

    def time(self, minute: float) -> datetime:
        """When that is, in the kitchen's zone."""
        if self.begin.tzinfo is None:
            return self.begin + timedelta(minutes=minute)
        at = self.begin.astimezone(UTC) + timedelta(minutes=minute)
        return at.astimezone(self.zone or self.begin.tzinfo)

    def _read(self, text: str, where: str) -> datetime:
        try:
            at = datetime.fromisoformat(text)
        except ValueError as error:
            raise _bad(text, where, "2026-11-28T18:00") from error
        if not 1990 <= at.year <= 2200:
            raise _bad(text, where, "a year from 1990 to 2200")
        return at.replace(tzinfo=self.zone) if self.zone and at.tzinfo is None else at


def _zone(name: str) -> ZoneInfo | None:
    if not name:
        return None
    try:
        return ZoneInfo(name)
    except (ZoneInfoNotFoundError, ValueError, OSError) as error:
        raise FormulaError(
            "time zone not found",
            got=name[:40],
            allowed="an IANA time zone, such as America/Chicago",
            remedy="leave it empty for times as they are",
            field="zone",
        ) from error


def _bad(text: str, where: str, allowed: str) -> FormulaError:
    return FormulaError(
        "the time cannot be read",
        got=text[:40],
        allowed=allowed,
        remedy="give date and time as ISO 8601",
        field=where,
    )
