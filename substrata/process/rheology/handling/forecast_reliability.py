"""On what a forecast stands: how many everyday doughs of its kind there were, and how far off they were (``benchmarks.sureness``)."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.tables.table_reader import read_table
from substrata.process.rheology.dough_kind import DoughKind

_LEAST_MIN = 1  # nobody takes a bake out by the half minute


@dataclass(frozen=True, kw_only=True)
class Reliability:
    """Practice behind the forecasts of one kind of dough."""

    bakes: int  # practised bakes
    bake_error: float  # root mean square of ln t with their kind left out: two in three miss by less
    handled: int  # moments at which practised doughs were told
    handled_right: int  # of them in a class that bakers accept


@cache
def _table() -> dict[str, Reliability]:
    return {
        row.text("kind"): Reliability(
            bakes=int(row.number_in("bakes", 0)),
            bake_error=row.number_in("bake_error", 0, 1),
            handled=int(row.number_in("handled", 0)),
            handled_right=int(row.number_in("handled_right", 0)),
        )
        for row in read_table("sureness.csv")
    }


def kind_reliability(kind: DoughKind) -> Reliability:
    """Practice behind the forecasts of a kind of dough."""
    return _table()[kind]


def bake_rests_on(kind: DoughKind, ready_min: float | None, logged: int) -> Wording:
    """Return the practice behind a bake's minutes, in words.

    Args:
        kind: of the dough.
        ready_min: when it is done; None when that cannot be told.
        logged: bakes that the baker has logged of this oven.
    """
    reliability = kind_reliability(kind)
    text = Message(
        "forecast-reliability-based-on-test-of-this",
        bakes=reliability.bakes,
    )
    if logged:
        text = Joined((text, Message("forecast-reliability-and-of-your-own", logged=logged)), "")
    if ready_min is None:
        return Joined((text, "."), "")
    minutes = max(round(ready_min * reliability.bake_error), _LEAST_MIN)
    return Message("forecast-reliability-for-doughs-like-this-the", text=text, minutes=minutes)


def handling_rests_on(kind: DoughKind) -> Wording:
    """Return the practice behind a handling class, in words."""
    reliability = kind_reliability(kind)
    return Message(
        "forecast-reliability-based-on-test-doughs-of",
        handled=reliability.handled,
        handled_right=reliability.handled_right,
    )
