"""Numbers of the command line: finite and within their bounds, or a clear word."""

from __future__ import annotations

import argparse
from collections.abc import Callable
from math import isfinite


def number(low: float, high: float, unit: str = "") -> Callable[[str], float]:
    """Return a reader of a number from one bound to another.

    >>> number(0, 200)("1.5")
    1.5
    """

    def read(text: str) -> float:
        try:
            value = float(text)
        except ValueError:
            value = float("nan")
        if not isfinite(value) or not low <= value <= high:
            raise argparse.ArgumentTypeError(
                f"got {text[:40]}; allowed: {low:g} to {high:g}{f' {unit}' if unit else ''}"
            )
        return value

    return read


def count(low: int, high: int) -> Callable[[str], int]:
    """Return a reader of a whole number from one bound to another."""

    def read(text: str) -> int:
        try:
            value = int(text) if len(text) < 20 else low - 1
        except ValueError:
            value = low - 1
        if not low <= value <= high:
            raise argparse.ArgumentTypeError(f"got {text[:40]}; allowed: a whole number from {low} to {high}")
        return value

    return read
