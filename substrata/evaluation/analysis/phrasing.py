"""Small matters of wording that every sentence shares."""

from __future__ import annotations


def short_name(name: str) -> str:
    """Return an ingredient's name as it stands inside a sentence.

    >>> short_name("Almond flour, blanched")
    'almond flour'
    """
    return name.partition(",")[0].lower()
