"""Small matters of wording that every sentence shares."""

from __future__ import annotations


def short_name(name: str) -> str:
    """Return an ingredient's name as it stands inside a sentence.

    >>> short_name("Almond flour, blanched")
    'almond flour'
    """
    return name.partition(",")[0].lower()


def grams(value: float) -> str:
    """Grams as a kitchen weighs them: tenths for small amounts.

    >>> grams(4.26), grams(126.4)
    ('4.3 g', '126 g')

    Returns:
        Text with its unit.
    """
    return f"{value:.1f} g".replace(".0 ", " ") if abs(value) < 20 else f"{value:.0f} g"


def percent(share: float) -> str:
    """Return a share in whole per cent."""
    return f"{100 * share:.0f} %"
