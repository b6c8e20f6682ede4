"""What a formula document may hold: the same for its reader and for its schema."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from substrata.formula.bake_document import OVEN_C

DOCUMENT_VERSION = 1
MOST_LINES = 200
MOST_PIECES = 10_000
MOST_TRAYS = 6
HELD: tuple[Literal["", "thickness", "size"], ...] = ("", "thickness", "size")
FRIED: tuple[Literal["", "fried", "baked"], ...] = ("", "fried", "baked")
# Bounds of what may be told of temperatures and sizes.
LIMITS: Mapping[str, tuple[float, float]] = {
    "temperature_c": (-20.0, 110.0),
    "mix.temperature_c": (0.0, 90.0),
    "bake.moisture_percent": (1.0, 90.0),
    "bake.oven_c": OVEN_C,
    "bake.dough_c": (-5.0, 90.0),
    "bake.altitude_m": (-400.0, 5000.0),
    "size.thickness_mm": (0.5, 200.0),
    "size.length_mm": (5.0, 1000.0),
    "size.gap_mm": (0.0, 200.0),
    "size.hole_mm": (0.0, 300.0),
}
MIX_CHEESE: tuple[Literal["", "melted", "cold"], ...] = ("", "melted", "cold")
MIX_WORK: tuple[Literal["", "pressed", "stirred"], ...] = ("", "pressed", "stirred")
TEXT_LIMITS = {"name": 120, "lot": 40, "notes": 20_000, "entered": 300, "note": 500, "treatment": 120, "stage": 60}
