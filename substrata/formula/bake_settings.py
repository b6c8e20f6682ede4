"""What a formula wants of the oven: its stages and settings; what is left open follows from the form."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cache
from typing import Annotated, Any, Literal, get_args

from substrata.base.documents.collection_kinds import Listed
from substrata.base.documents.field_kinds import Flag, Number, Text, Whole, Word
from substrata.base.tables.table_reader import read_table

OVEN_C = Number(low=60, high=350, unit="°C", label="oven")
MOST_TRAYS = 6  # baked at once
FRYING = Literal["", "fried", "baked"]
DONENESS = Literal["", "soft", "crisp"]
WISHES = {"soft": "soft and pale", "": "as usual", "crisp": "crisp and dark"}
MOISTURE_FROM = Literal["", "oven"]


@dataclass(frozen=True, kw_only=True)
class StageKind:
    """What can be done in a bake."""

    id: str
    moment: bool  # takes no time of its own
    name: str
    name_fried: str  # of what is fried
    added: bool  # a baker may add one to a bake
    added_fried: bool  # or to a frying


@cache
def stage_kinds() -> dict[str, StageKind]:
    """All kinds of stages by id, in the order of ``stage_kinds.csv``."""
    return {
        row.text("stage"): StageKind(
            id=row.text("stage"),
            moment=row.text("moment") == "1",
            name=row.text("name"),
            name_fried=row.text("name_fried"),
            added=row.text("added") == "1",
            added_fried=row.text("added_fried") == "1",
        )
        for row in read_table("stage_kinds.csv")
    }


def _stage_ids() -> tuple[str, ...]:
    return tuple(stage_kinds())


def is_moment(kind: str) -> bool:
    """Whether a kind of stage takes no time of its own."""
    return stage_kinds()[kind].moment


@dataclass(frozen=True, kw_only=True)
class BakeStage:
    """One stage of a bake."""

    kind: Annotated[str, Word(options=_stage_ids, required=True)]
    # None: until it is done; of a moment (flip, rotate, door, top) nothing.
    minutes: Annotated[float | None, Number(low=0, high=300, unit="min", note="null: until done")] = None
    oven_c: Annotated[float | None, OVEN_C] = None  # None: as before
    fan: Annotated[bool | None, Flag(optional=True)] = None  # None: as before
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document

    @property
    def words(self) -> str:
        """The stage in a few words."""
        return f"{self.kind} {self.minutes:g}" if self.minutes else self.kind


@dataclass(frozen=True, kw_only=True)
class Heat:
    """How an oven, or the oil, is set."""

    oven_c: float  # on the dial
    fan: bool = False
    broil: bool = False

    def after(self, stage: BakeStage) -> Heat:
        """Return the setting from a stage on; what the stage leaves open stays as it was."""
        return Heat(
            oven_c=self.oven_c if stage.oven_c is None else stage.oven_c,
            fan=self.fan if stage.fan is None else stage.fan,
            broil=stage.kind == "broil",
        )


def _stage_words(stage: BakeStage) -> str:
    return stage.words


@dataclass(frozen=True, kw_only=True)
class BakeWish:
    """What is wanted of the oven; what is left open follows from the form."""

    # Of the baked piece.
    moisture_percent: Annotated[float | None, Number(low=1, high=90, unit="%", label="water left")] = None
    # Where that number comes from: the baker, or the simulated bake.
    moisture_from: Annotated[MOISTURE_FROM, Word(options=get_args(MOISTURE_FROM))] = ""
    oven_c: Annotated[float | None, OVEN_C] = None
    fan: Annotated[bool, Flag(label="fan")] = False
    oven: Annotated[str, Text(most=60, label="oven", note="key of an oven of the kitchen")] = ""
    ware: Annotated[str, Text(most=60, label="baked on")] = ""  # tray, stone; "" is the form's usual one
    trays: Annotated[int, Whole(low=1, high=MOST_TRAYS, label="trays")] = 1  # baked at once
    # Temperature of the dough going in; None: as it was mixed.
    dough_c: Annotated[float | None, Number(low=-5, high=90, unit="°C", label="dough temperature going in")] = None
    # 0: where its oven stands.
    altitude_m: Annotated[float, Number(low=-400, high=5000, unit="m", label="altitude")] = 0.0
    stages: Annotated[
        tuple[BakeStage, ...], Listed(item=BakeStage, most=16, label="stages", describe=_stage_words)
    ] = ()
    # How it is wanted out of the oven; "" is as usual.
    doneness: Annotated[DONENESS, Word(options=get_args(DONENESS), label="wanted")] = ""
    # A doughnut is fried unless told otherwise.
    fried: Annotated[FRYING, Word(options=get_args(FRYING), label="fried or baked")] = ""
    frying_fat: Annotated[str, Text(label="frying fat")] = ""  # ingredient
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document
