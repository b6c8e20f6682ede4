"""A formula and its lines, as plain values; each field says what the open document may hold there."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Annotated, Any, Literal, get_args

from substrata.base.documents.collection_kinds import Listed, Named, Nested, Texts
from substrata.base.documents.field_kinds import Flag, Kind, Number, Text, Where, Whole, Word
from substrata.base.documents.records import read_record, write_record
from substrata.formula.bake_settings import BakeWish
from substrata.formula.form_table import Window, forms, roles
from substrata.formula.preparation_choices import PrepChoices
from substrata.ingredients.vegetable_drying import DryingStep

CHEESE_METHODS = Literal["", "melted", "cold"]
WORK_METHODS = Literal["", "pressed", "stirred"]
REST_PLACES = Literal["", "bench", "fridge", "warm"]
HELD = Literal["", "thickness", "size"]


def _role_words() -> tuple[str, ...]:
    return ("", *roles())


def _form_ids() -> tuple[str, ...]:
    return tuple(forms())


@dataclass(frozen=True, kw_only=True)
class LineStep(DryingStep):
    """A drying step of a line; it keeps what a document says besides."""

    extra: Mapping[str, Any] = field(default_factory=dict, hash=False)  # unknown keys of the document

    @property
    def plain(self) -> DryingStep:
        """What is done, without what else the document says."""
        return DryingStep(
            act=self.act,
            minutes=self.minutes,
            watts=self.watts,
            salt_g=self.salt_g,
            water_g=self.water_g,
            times=self.times,
        )


@dataclass(frozen=True, kw_only=True)
class LinePrep:
    """How the raw matter of a line is dried; the line's grams are what goes into the dough."""

    steps: Annotated[tuple[LineStep, ...], Listed(item=LineStep, most=12)] = ()
    # Raw weight; None takes what the steps need to give the line's grams.
    start_g: Annotated[float | None, Number(low=0, high=50_000, above=True, unit="g", note="raw weight")] = None
    # The line's grams stand on the scale, and are no forecast.
    weighed: Annotated[bool, Flag(note="the line's grams were read from a scale after the steps")] = False
    extra: Mapping[str, Any] = field(default_factory=dict, hash=False)  # unknown keys of the document

    @property
    def words(self) -> str:
        """How it is dried, in a few words."""
        if not self.steps:
            return "none"
        start = f", from {self.start_g:g} g" if self.start_g else ""
        return f"{', '.join(step.act for step in self.steps)}{start}{', weighed' if self.weighed else ''}"


def _prep_words(prep: LinePrep | None) -> str:
    return prep.words if prep else "none"


@dataclass(frozen=True, kw_only=True)
class _Whole(Kind):
    """A formula inside a formula; read when there is one."""

    def read(self, value: object, where: Where) -> Formula:
        """Read the formula."""
        if where.field.count("formula") > MOST_PARTS_DEEP:
            raise where.refusal(
                "parts in parts",
                f"up to {MOST_PARTS_DEEP} levels",
                "are nested too deep",
                "enter their weights separately",
            )
        plain = (
            {key: entry for key, entry in value.items() if key != "substrata"} if isinstance(value, Mapping) else value
        )
        return read_record(Formula, plain, where)

    def write(self, value: Any) -> Any:
        """Return the values as a JSON object."""
        return write_record(value)

    def schema(self) -> dict[str, Any]:
        """Return an object: a formula's own document."""
        return {"type": "object"}

    def plain(self) -> Any:
        """Any object."""
        return dict[str, Any]


PART = "part"  # id of the ingredient of a line that is a formula of its own
MOST_PARTS_DEEP = 5


@dataclass(frozen=True, kw_only=True)
class Part:
    """A formula as a line of another: pinned as it was when it was taken."""

    formula: Annotated[Formula, _Whole(required=True, note="document of the sub-recipe at the pinned version")]
    # What tells it from other formulas, where it is from.
    key: Annotated[str, Text(most=60)] = ""
    number: Annotated[int, Whole(low=0, high=100_000)] = 0  # of its version; 0 for a draft
    # Of its raw weight, that leaves as steam or whey before it goes in.
    loss_percent: Annotated[float, Number(low=0, high=95, optional=False, unit="%")] = 0.0
    extra: Mapping[str, Any] = field(default_factory=dict, hash=False)  # unknown keys of the document


def _part_words(part: Part | None) -> str:
    return f"{part.formula.name or 'a formula'}{f', version {part.number}' if part.number else ''}" if part else "none"


@dataclass(frozen=True, kw_only=True)
class Line:
    """One ingredient of a formula.

    ``grams`` is what the formula says; ``entered`` is how it was measured and gives the spread.
    With ``grams`` None the weight is taken from ``entered``.
    """

    id: Annotated[str, Text(least=1, most=40, required=True)]  # stable within the formula
    # Id in the pantry; unknown ones are kept and reported.
    ingredient: Annotated[str, Text(required=True, note="id in the pantry")] = ""
    # Key of the pack it is taken from; "" means the reference.
    lot: Annotated[str, Text(most=40, note="key of a pack; if unknown, the ingredient's reference values are used")] = (
        ""
    )
    grams: Annotated[float | None, Number(low=0, soft=True, note="null: take the weight from entered")] = None
    entered: Annotated[str, Text(most=300)] = ""  # amount as typed: "1 1/2 cup", "90 g"
    role: Annotated[str, Word(options=_role_words, label="role")] = ""  # "" means the ingredient's usual role
    stage: Annotated[str, Text(most=60, label="stage")] = ""  # mix stage
    treatment: Annotated[str, Text(label="treatment")] = ""  # "squeezed", "melted"
    note: Annotated[str, Text(most=500, label="note")] = ""  # "softened", "divided", and what else stood in the list
    locked: Annotated[bool, Flag()] = False  # the solver leaves it alone
    # Its own when it goes in; None takes the usual one.
    temperature_c: Annotated[float | None, Number(low=-20, high=110, unit="°C", label="temperature", sparse=True)] = (
        None
    )
    # How it is dried first.
    prep: Annotated[
        LinePrep | None, Nested(record=LinePrep, optional=True, label="drying", describe=_prep_words, sparse=True)
    ] = None
    # A formula of its own, whose ingredient is then "part".
    part: Annotated[
        Part | None, Nested(record=Part, optional=True, label="part", describe=_part_words, sparse=True)
    ] = None
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Mix:
    """How a dough is mixed; what is left open follows from what is in it."""

    # After mixing.
    temperature_c: Annotated[float | None, Number(low=0, high=90, unit="°C", label="dough")] = None
    # Melted first, or shredded and stirred in cold.
    cheese: Annotated[CHEESE_METHODS, Word(options=get_args(CHEESE_METHODS), label="cheese")] = ""
    # Kneaded or pressed, or only stirred.
    work: Annotated[WORK_METHODS, Word(options=get_args(WORK_METHODS), label="work")] = ""
    # Before it is shaped; None takes what the form usually has.
    rest_min: Annotated[float | None, Number(low=0, high=2880, unit="min", label="rest")] = None
    rest_in: Annotated[REST_PLACES, Word(options=get_args(REST_PLACES), label="rests")] = ""
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Size:
    """How a piece is shaped: one measure is held, the others follow from the dough's weight and density."""

    # "" holds what the form usually holds.
    held: Annotated[HELD, Word(options=get_args(HELD), label="held")] = ""
    # Of a sheet, diameter of a rope, height of a bun.
    thickness_mm: Annotated[float | None, Number(low=0.5, high=200, unit="mm", label="thickness")] = None
    # Diameter of a round, length of a rope, side of a cut piece.
    length_mm: Annotated[float | None, Number(low=5, high=1000, unit="mm", label="length")] = None
    pan: Annotated[str, Text(most=60, label="pan")] = ""  # for what is baked in one
    tray: Annotated[str, Text(most=60, label="tray")] = ""
    # Between pieces on a tray.
    gap_mm: Annotated[float | None, Number(low=0, high=200, unit="mm", label="gap")] = None
    # Of a bun or doughnut that is a ring; None or 0 for one without.
    hole_mm: Annotated[float | None, Number(low=0, high=300, unit="mm", label="hole")] = None
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Target:
    """Wanted bounds of a bracket, set by the baker; None leaves that side open."""

    low: Annotated[float | None, Number()] = None
    high: Annotated[float | None, Number()] = None
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document

    @property
    def window(self) -> Window:
        """The bounds."""
        return Window(low=self.low, high=self.high)


@dataclass(frozen=True, kw_only=True)
class Sort:
    """One kind of piece out of a dough: so many of them, and the lines that only they have."""

    name: Annotated[str, Text(least=1, most=80, required=True)]
    pieces: Annotated[int, Whole(low=1, high=10_000, required=True)]
    lines: Annotated[
        frozenset[str], Texts(most=200, note="ids of its own lines; their grams are for all of its pieces")
    ] = frozenset()
    extra: Mapping[str, Any] = field(default_factory=dict, hash=False)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class MethodEdit:
    """A step of the method in the baker's own words."""

    text: Annotated[str, Text(most=2000, note="empty hides the step")] = ""
    of: Annotated[str, Text(most=2000, note="what was computed when it was written")] = ""
    extra: Mapping[str, Any] = field(default_factory=dict, hash=False)  # unknown keys of the document


@dataclass(frozen=True, kw_only=True)
class Formula:
    """Lines, form, pieces and targets."""

    name: Annotated[str, Text(required=True)] = ""
    # Id in forms.csv.
    form: Annotated[
        str, Word(options=_form_ids, what="is unknown", group="form", key="kind", field="form", required=True)
    ]
    pieces: Annotated[int, Whole(low=1, high=10_000, group="form", required=True)] = 1
    lines: Annotated[tuple[Line, ...], Listed(item=Line, most=200, named_by="id", required=True)] = ()
    size: Annotated[Size, Nested(record=Size, group="form")] = Size()
    # Pieces that are eaten as one serving.
    serving_pieces: Annotated[int, Whole(low=1, high=10_000, group="form")] = 1
    notes: Annotated[str, Text(most=20_000)] = ""
    # By which its bakes and lessons know it: a rename changes nothing, a copy has one of its own.
    uid: Annotated[str, Text(most=40, note="stable id of the formula", sparse=True)] = ""
    mix: Annotated[Mix, Nested(record=Mix)] = Mix()
    bake: Annotated[BakeWish, Nested(record=BakeWish)] = BakeWish()  # noqa: RUF009 - frozen
    # What is set on the Prep station, by name.
    prep: Annotated[Mapping[str, float | str], PrepChoices(note="what is set on the Prep station")] = field(
        default_factory=dict
    )
    # Bracket key -> wanted bounds.
    targets: Annotated[Mapping[str, Target], Named(item=Nested(record=Target))] = field(default_factory=dict)
    # Kinds of piece out of one dough, each with lines of its own.
    sorts: Annotated[tuple[Sort, ...], Listed(item=Sort, most=12, named_by="name", sparse=True)] = ()
    # Steps of the printed method that were written anew, by id.
    method: Annotated[Mapping[str, MethodEdit], Named(item=Nested(record=MethodEdit), sparse=True)] = field(
        default_factory=dict
    )
    extra: Mapping[str, Any] = field(default_factory=dict)  # unknown keys of the document
