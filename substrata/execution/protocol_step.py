"""A step at the bench, and all of them: what a run is before it begins."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from substrata.base.messages.message import Wording

Group = Literal["ready", "prep", "weigh", "mix", "rest", "shape", "bake", "cool", "finish"]
Kind = Literal["do", "weigh", "wait", "measure", "moment", "feel"]


@dataclass(frozen=True, kw_only=True)
class RunStep:
    """One thing to do."""

    id: str  # stable for a formula: what is logged of it refers to it
    group: Group
    kind: Kind
    text: Wording
    grams: float | None = None  # to weigh, of all batches
    low_g: float | None = None  # nobody minds what lies between
    high_g: float | None = None
    because: str = ""  # what minds first when it is off: a bracket's key, or "handling"
    measure: str = ""  # a kitchen measure that comes near
    filled: str = ""  # what a cup or spoon would be filled to for it
    line: str = ""
    lines: tuple[str, ...] = ()  # that go in here
    role: str = ""
    bowl: str = ""
    minutes: float | None = None  # how long; None takes no time of its own
    check_min: float | None = None  # when to look first
    target: Wording = ""  # "240 g after squeezing", "38–45 °C", "8 mm"
    sign: Wording = ""  # how it looks when it is right
    measures: str = ""  # field of the log that a number goes to: dough_c, thickness_mm …
    moment: str = ""  # moment that pressing it marks: mixed, in, out …
    starts: str = ""  # moment at which its clock begins by itself
    slip: str = ""  # small thing that is done or left
    cautions: tuple[Wording, ...] = ()
    oven_c: float | None = None  # setting of the oven or the oil meanwhile


@dataclass(frozen=True, kw_only=True)
class RunPlan:
    """A run before it begins."""

    steps: tuple[RunStep, ...]
    dough_g: float  # of all batches
    pieces: float
    piece_g: float
    ready_min: float | None  # in the oven
    wanted_low: str  # handling classes it is shaped at
    wanted_high: str
    text: Wording
