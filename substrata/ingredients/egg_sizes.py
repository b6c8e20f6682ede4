"""Eggs by size class: what is in the shell, and its split into white and yolk."""

from __future__ import annotations

from functools import cache

from substrata.base.errors import AmountError
from substrata.base.settings import EggScheme
from substrata.base.tables.table_reader import read_table
from substrata.base.uncertainty import Spread

EGG_PARTS = {"egg": "whole_g", "egg-duck": "whole_g", "egg-white": "white_g", "egg-yolk": "yolk_g"}
_SHORT = {"small": "s", "medium": "m", "large": "l", "jumbo": "xl"}


@cache
def _classes() -> dict[tuple[str, str], dict[str, Spread]]:
    classes = {}
    for row in read_table("egg_sizes.csv"):
        whole = row.spread("low_g", "whole_g", "high_g")
        parts = {"whole_g": whole}
        for part in ("white_g", "yolk_g"):
            parts[part] = whole.scaled(row.number_in(part, low=1) / whole.value)
        classes[row.text("scheme"), row.text("size")] = parts
    return classes


def egg_grams(part: str, size: str, scheme: EggScheme) -> Spread:
    """Grams of one egg, white or yolk out of its shell.

    Args:
        part: ``whole_g``, ``white_g`` or ``yolk_g``.
        size: a class of the scheme; words and letters are both understood.
        scheme: whose classes: US "large" is 50 g, EU "L" is 60 g.

    >>> egg_grams("whole_g", "large", "us").value, egg_grams("whole_g", "large", "eu").value
    (50.0, 60.0)

    Returns:
        Grams with their spread.

    Raises:
        AmountError: when the scheme has no such size.
    """
    classes = _classes()
    key = size if (scheme, size) in classes else _SHORT.get(size, size)
    if scheme == "us":
        key = {"s": "small", "m": "medium", "l": "large"}.get(key, key)
    if (scheme, key) not in classes:
        allowed = ", ".join(name for owner, name in classes if owner == scheme)
        raise AmountError(
            "egg size not found", got=size, allowed=allowed, field="entered", remedy="name a size or enter grams"
        )
    return classes[scheme, key][part]
