"""How many random cases a test goes through: some of them, or all with ``./check --long``."""

import os
from collections.abc import Sequence
from typing import TypeVar

T = TypeVar("T")
LONG = os.environ.get("SUBSTRATA_LONG") == "1"


def some(cases: Sequence[T], every: int) -> Sequence[T]:
    """Return every so-manieth case, or all of them in a long check."""
    return cases if LONG else cases[::every]
