"""What can be set on a card of the Prep station, with its bounds and its usual value."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.formula.formula import Formula
from substrata.formula.preparation_choices import prep_choices


@dataclass(frozen=True, kw_only=True)
class PrepInput:
    """One thing to set."""

    key: str  # name in the document's ``prep``
    label: str
    value: float | None
    word: str  # of a choice between words; "" for a number
    words: tuple[str, ...]
    unit: str
    low: float
    high: float
    usual: bool  # nobody has set it


def number_set(formula: Formula, key: str, usual: float | None = None) -> float:
    """Return what is set, else what is usual.

    Raises:
        KeyError: when nothing is set and nothing is usual.
    """
    if key in formula.prep:
        return float(formula.prep[key])
    if usual is not None:
        return usual
    return prep_choices()[key].number_in("usual")


def word_set(formula: Formula, key: str, usual: str = "") -> str:
    """Return a choice between words: what is set, else what is usual."""
    return str(formula.prep.get(key, usual or prep_choices()[key].text("usual")))


def prep_input(formula: Formula, key: str, usual: float | None = None, word: str = "") -> PrepInput:
    """Return an input as the page shows it."""
    row = prep_choices()[key]
    words = tuple(row.text("words").split())
    return PrepInput(
        key=key,
        label=row.text("what"),
        value=None if words else number_set(formula, key, usual),
        word=word_set(formula, key, word) if words else "",
        words=words,
        unit=row.text("unit"),
        low=0.0 if words else row.number_in("low"),
        high=0.0 if words else row.number_in("high"),
        usual=key not in formula.prep,
    )
