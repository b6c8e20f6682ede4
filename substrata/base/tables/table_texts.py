"""Texts of the tables that name a number: ``{egg_safe_c}`` stands for the constant of that name, so that it is kept in one place."""

from __future__ import annotations

import re
from collections.abc import Sequence
from functools import lru_cache

from substrata.base.tables.table_reader import constant


def both_degrees(celsius: float) -> str:
    """Return a temperature in both scales, as cautions print it.

    >>> both_degrees(71.0)
    '71 °C (160 °F)'
    """
    return f"{celsius:.0f} °C ({celsius * 9 / 5 + 32:.0f} °F)"


@lru_cache(maxsize=256)
def with_numbers(text: str) -> str:
    """Return a text with its temperatures filled in.

    Raises:
        LibraryError: when it names a constant that there is not.

    >>> with_numbers("bake to {egg_safe_c}")
    'bake to 71 °C (160 °F)'
    """
    return re.sub(r"\{(\w+_c)\}", lambda match: both_degrees(constant(match[1])), text)


def listed(names: Sequence[str]) -> str:
    """Join names as a sentence lists them.

    >>> listed(["salt"]), listed(["egg", "water", "oil"])
    ('salt', 'egg, water and oil')

    Returns:
        The names joined with commas and "and".
    """
    return " and ".join(filter(None, (", ".join(names[:-1]), names[-1]))) if names else ""


def without_weight(names: Sequence[str]) -> str:
    """Say of lines that they have no weight.

    >>> without_weight(["cheddar"]), without_weight(["cheddar", "ham"])
    ('cheddar has no weight', 'cheddar and ham have no weight')

    Returns:
        The sentence; "" for no lines.
    """
    return f"{listed(names)} {'has' if len(names) == 1 else 'have'} no weight"
