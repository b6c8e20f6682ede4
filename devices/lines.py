"""What scales and probes print: one reading a line. Read leniently, for makers differ; what cannot be read is no reading.

A weight line has an optional header (``ST`` stable, ``US`` unstable, ``OL`` overload; ``GS`` gross, ``NT`` net), a number with a dot or
a comma, and a unit: ``ST,GS,+  160.4 g``. A probe's line names its channel: ``CORE 64.2 C``, ``OVEN 350 F``, ``CORE ----``.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal

_GRAMS = {"g": 1.0, "kg": 1000.0, "oz": 28.349523125, "lb": 453.59237}
_WEIGHT = re.compile(
    r"^\s*(?:(?P<state>ST|US|OL)\s*[, ]\s*)?(?:(?P<kind>GS|NT)\s*[, ]\s*)?(?P<sign>[+-]?)\s*(?P<number>\d{1,7}(?:[.,]\d{1,4})?)\s*(?P<unit>kg|g|oz|lb)\s*$",
    re.IGNORECASE,
)
_OVER = re.compile(r"^\s*OL\b", re.IGNORECASE)
_PROBE = re.compile(
    r"^\s*(?P<channel>CORE|OVEN)\s+(?P<value>[+-]?\d{1,4}(?:[.,]\d{1,2})?|-{2,})\s*(?P<unit>[CF])?\s*$", re.IGNORECASE
)
LONGEST = 80  # of a line, in characters; longer ones are noise


@dataclass(frozen=True, kw_only=True)
class WeightLine:
    """One line of a scale."""

    grams: float | None  # None while it is overloaded
    stable: bool
    overload: bool = False


@dataclass(frozen=True, kw_only=True)
class ProbeLine:
    """One line of a probe."""

    channel: Literal["core", "oven"]
    celsius: float | None  # None while nothing is plugged in


def weight_line(text: str) -> WeightLine | None:
    """Read a line of a scale; None where it is no reading.

    >>> weight_line("ST,GS,+  160.4 g")
    WeightLine(grams=160.4, stable=True, overload=False)
    >>> weight_line("US,GS,-0,1604 kg").grams
    -160.4
    >>> weight_line("OL").overload, weight_line("hello")
    (True, None)

    Returns:
        The reading; None where the line is none.
    """
    if len(text) > LONGEST:
        return None
    if _OVER.match(text):
        return WeightLine(grams=None, stable=False, overload=True)
    match = _WEIGHT.match(text)
    if match is None:
        return None
    value = float(match["number"].replace(",", ".")) * _GRAMS[match["unit"].lower()]
    grams = round(-value if match["sign"] == "-" else value, 4)
    # A scale that says nothing of it prints only when it is stable (common practice).
    return WeightLine(grams=grams, stable=(match["state"] or "ST").upper() == "ST")


def probe_line(text: str) -> ProbeLine | None:
    """Read a line of a probe; None where it is no reading.

    >>> probe_line("OVEN 350 F").celsius
    176.7
    >>> probe_line("CORE ----").celsius is None
    True

    Returns:
        The reading; None where the line is none.
    """
    match = _PROBE.match(text) if len(text) <= LONGEST else None
    if match is None:
        return None
    channel: Literal["core", "oven"] = "core" if match["channel"].upper() == "CORE" else "oven"
    if match["value"].startswith("--"):
        return ProbeLine(channel=channel, celsius=None)
    value = float(match["value"].replace(",", "."))
    if (match["unit"] or "C").upper() == "F":
        value = (value - 32) / 1.8
    return ProbeLine(channel=channel, celsius=round(value, 1))
