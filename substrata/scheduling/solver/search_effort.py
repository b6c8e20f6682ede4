"""How long a plan is sought."""

from __future__ import annotations

import os
from dataclasses import dataclass, field

MOST_S = 15.0


@dataclass(frozen=True, kw_only=True)
class Effort:
    """How long is sought, by how many, and whether the answer has to be the same each time."""

    seconds: float = MOST_S
    workers: int = field(default_factory=lambda: min(os.cpu_count() or 1, 4))
    seed: int = 1
    steady: bool = False  # the same answer each time: counts work instead of seconds
