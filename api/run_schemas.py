"""What goes in and out of Run and Trials. What is told are the core's own dataclasses."""

from datetime import datetime
from typing import Any, Literal

from ninja import Schema
from pydantic import Field

from api.document_schemas import FormulaDocument, model_of
from kitchen.models import Run, RunEntry
from kitchen.services.runs import OpenRun
from substrata.execution import BakeReading, LogState, RunPlan, Verdict
from substrata.formula import MergeConflict
from substrata.inference import HistoryFigure, Learned, Odd, Reference, RunPoint

MOST_AT_ONCE = 500  # entries of a device that was long without a network


class VerdictDocument(model_of(Verdict)):  # type: ignore[misc]  # made of the declaration
    """What was said of a run (docs/formats/run.schema.json)."""


class RunStartIn(Schema):
    """A formula that is to be made. The key is the device's own: sent twice it begins one run."""

    formula_id: int
    key: str = Field(min_length=1, max_length=40)
    batches: float = 1.0
    started_at: str = ""


class EntryIn(Schema):
    """One thing that was done. The id is the device's own: sent twice it is kept once."""

    id: str = Field(min_length=1, max_length=60)
    at: str = Field(max_length=40)
    kind: str = Field(max_length=12)
    what: str = Field(default="", max_length=120)
    value: float | None = None
    word: str = Field(default="", max_length=5_000)
    source: str = Field(default="", max_length=12)


class EntriesIn(Schema):
    """What was done, and the last entry that the device knows."""

    entries: list[EntryIn] = Field(max_length=MOST_AT_ONCE)
    since: int = 0


class EntryOut(Schema):
    """An entry as it is kept."""

    seq: int
    id: str
    at: datetime
    kind: str
    what: str
    value: float | None
    word: str
    by: str
    source: str

    @classmethod
    def from_service(cls, entry: RunEntry) -> "EntryOut":
        """Build a row."""
        return cls(
            seq=entry.pk,
            id=entry.key,
            at=entry.at,
            kind=entry.kind,
            what=entry.what,
            value=entry.value,
            source=entry.source,
            word=entry.word,
            by=entry.by.email.partition("@")[0] if entry.by else "",
        )


class EntriesOut(Schema):
    """How many were new, and what the device did not know yet."""

    new: int
    entries: list[EntryOut]


class RunRow(Schema):
    """A run in a list."""

    id: int
    key: str
    formula_id: int | None
    name: str
    form: str
    number: int
    batches: float
    oven: str
    started_at: datetime
    finished_at: datetime | None
    liked: str
    faults: list[str]
    judged: bool
    left_out: bool
    by: str

    @classmethod
    def from_service(cls, run: Run) -> "RunRow":
        """Build a row."""
        return cls(
            id=run.pk,
            key=run.key,
            formula_id=run.formula_id,
            name=run.name,
            form=run.form,
            number=run.number,
            batches=run.batches,
            oven=run.oven,
            started_at=run.started_at,
            finished_at=run.finished_at,
            liked=run.liked,
            faults=run.faults,
            judged=run.verdict is not None,
            left_out=run.left_out,
            by=run.created_by.email.partition("@")[0] if run.created_by else "",
        )


class RunsPage(Schema):
    """Some runs, the newest first, of so many."""

    runs: list[RunRow]
    total: int


class RunOut(Schema):
    """A run with its steps and what was done."""

    run: RunRow
    document: FormulaDocument
    plan: RunPlan
    verdict: VerdictDocument | None
    entries: list[EntryOut]
    log: LogState  # what the entries say so far, as the core reads them
    formula_archived: bool

    @classmethod
    def from_service(cls, opened: OpenRun) -> "RunOut":
        """Build an opened run."""
        return cls(
            run=RunRow.from_service(opened.run),
            document=FormulaDocument.model_validate(opened.run.document),
            plan=opened.run.plan,
            verdict=None if opened.run.verdict is None else VerdictDocument.model_validate(opened.run.verdict),
            entries=[EntryOut.from_service(entry) for entry in opened.entries],
            log=opened.log,
            formula_archived=opened.formula_archived,
        )


class RunChange(Schema):
    """Leave it out of all learning, or take it back in."""

    left_out: bool


class LearningChange(Schema):
    """What forecasts take from the runs; what is left out stays."""

    off: list[str] | None = Field(default=None, max_length=8)
    forget: bool | None = None


class FeelIn(Schema):
    """What a hand felt."""

    felt: str = Field(max_length=20)
    minute: float | None = Field(default=None, ge=0, le=100_000)
    temperature_c: float | None = Field(default=None, ge=-20, le=100)


class PourIn(Schema):
    """What the scale shows of a line."""

    line: str = Field(max_length=40)
    grams: float = Field(ge=0, le=200_000)
    mixed: bool = False


class LiveIn(Schema):
    """A bake so far."""

    minute: float = Field(ge=0, le=600)
    readings: list[BakeReading] = Field(default=[], max_length=500)


class DeviceIn(Schema):
    """What a device is told: tare; pour and empty are for the simulated scale."""

    act: str = Field(max_length=10)
    grams: float = 0.0


class DeviceOut(Schema):
    """Whether it was heard."""

    heard: bool


class PhotoOut(Schema):
    """A photo and what it tells."""

    id: int
    lightness: float
    error: float
    evenness: float
    created_at: datetime


class ReferenceQuery(Schema):
    """Where white paper or a grey card lies in a photo, as shares of its width and height; left out, paper is looked for."""

    x: float | None = Field(default=None, ge=0, le=1)
    y: float | None = Field(default=None, ge=0, le=1)
    reference: Reference = "paper"


class RunQuery(Schema):
    """Which runs."""

    formula_id: int = 0
    open_only: bool = False
    offset: int = Field(default=0, ge=0, le=1_000_000)


class RunsQuery(Schema):
    """Which runs are put side by side: their numbers, with commas."""

    runs: str = Field(max_length=120)


class WhyJobIn(Schema):
    """A run whose verdict is to be explained."""

    kind: Literal["why"]
    run_id: int


class LearnJobIn(Schema):
    """What the kitchen's runs teach."""

    kind: Literal["learn"]


class ProposalIn(Schema):
    """The formula of a run with what its diagnosis proposes."""

    document: FormulaDocument


class ProposalOnDraft(Schema):
    """The draft as it is now with the proposal, and where the proposal overwrites what was changed since."""

    document: FormulaDocument
    conflicts: list[MergeConflict]


class LearnedOut(Schema):
    """What a kitchen has learned."""

    runs: int
    learned: list[Learned]
    odd: list[Odd]
    names: dict[str, str]  # of the runs, by id


class LineQuery(Schema):
    """Which figure, of which formula."""

    figure: str = Field(max_length=40)
    formula_id: int = Field(default=0, ge=0, le=2_000_000_000)


class LineOut(Schema):
    """A figure over time, and what else can be drawn."""

    points: list[RunPoint]
    kinds: list[HistoryFigure]


class RunsFileIn(Schema):
    """A file of runs, as it was read."""

    file: dict[str, Any]


class ImportedRunsOut(Schema):
    """How many were new."""

    runs: int


class RunFileOut(Schema):
    """A file of runs."""

    name: str
    text: str
