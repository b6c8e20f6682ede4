"""What a settle answers: ways with their edits and what they do, or what stands in the way."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from substrata.base.messages.message import Wording
from substrata.formula.formula import Formula

# fits: nothing to do · settled: every limit is met · nearest: not all can be · begin: another bread, begin anew ·
# nothing: an empty bowl, or no line that may move
Status = Literal["fits", "settled", "nearest", "begin", "nothing"]


@dataclass(frozen=True, kw_only=True)
class LineChange:
    """One edit."""

    line: str
    ingredient: str
    name: str
    role: str
    before: float  # g
    after: float  # g; 0: the line goes
    new: bool
    text: Wording


@dataclass(frozen=True, kw_only=True)
class ShapeChange:
    """An edit of how the dough is made into pieces."""

    kind: Literal["pieces", "thickness"]
    before: float  # pieces, or mm
    after: float
    text: Wording


@dataclass(frozen=True, kw_only=True)
class Moved:
    """A figure before and after."""

    key: str
    label: str
    unit: Wording
    decimals: int
    before: float
    after: float
    state_before: str
    state_after: str


@dataclass(frozen=True, kw_only=True)
class Minutes:
    """In the oven, before and after; None where the bake does not come to an end."""

    before: float | None
    after: float | None


@dataclass(frozen=True, kw_only=True)
class ClassMove:
    """Handling at shaping, before and after."""

    before: str
    after: str
    consistency_before: float
    consistency_after: float


@dataclass(frozen=True, kw_only=True)
class Sure:
    """How sure it is that a target is met."""

    key: str
    text: Wording
    probability: float


@dataclass(frozen=True, kw_only=True)
class BalanceOption:
    """One answer."""

    name: Wording  # what it is best at: "least change"
    formula: Formula
    changes: tuple[LineChange, ...]
    shape: tuple[ShapeChange, ...] = ()  # answers of former releases have none
    brackets: tuple[Moved, ...]
    texture: tuple[Moved, ...]
    handling: ClassMove | None
    minutes: Minutes
    dough_before_g: float
    dough_after_g: float
    cost: float  # of the change, in grams of flour
    new: int  # ingredients brought in
    holds: tuple[Wording, ...]  # limits that keep it from being cheaper
    prices: tuple[Wording, ...]  # what a step further in each target would take
    sure: tuple[Sure, ...]
    lost: tuple[Wording, ...]  # what an exclusion takes away
    cautions: tuple[Wording, ...]
    missed: tuple[Wording, ...]  # limits that it does not meet
    met: bool


@dataclass(frozen=True, kw_only=True)
class Relaxation:
    """A limit that could give, and how far it would have to."""

    text: Wording  # the limit
    kind: Literal["target", "rail", "handling", "shape"]
    key: str
    price: Wording  # "up to 2.6 g a piece would do"
    enough: bool = True  # whether giving it alone would do
    low: float | None = None  # of a target: the bound that would do
    high: float | None = None


@dataclass(frozen=True, kw_only=True)
class BalanceAnswer:
    """The answer of a settle."""

    status: Status
    text: Wording
    ways: tuple[BalanceOption, ...] = ()
    nearest: Wording = ""  # one sentence, when not all can be met
    clash: tuple[Relaxation, ...] = ()  # a set of limits that cannot be met together, and can when any one gives
    surer: Wording = ""  # what would make it surer than any edit
    moves: tuple[Wording, ...] = ()  # what helps and is no change of the formula's grams: minutes, degrees
    started: Mapping[str, float] | None = None  # grams that were settled, by line: an answer is for no other
