"""The errors of the core.

::

    SubstrataError
    ├── AmountError     (ValueError)   an amount that cannot be read or turned into grams
    ├── LibraryError    (ValueError)   a row of a shipped table that cannot be true
    ├── UnknownIngredient (LookupError)
    ├── LabelError      (ValueError)   a pack's label that cannot be read
    ├── FormulaError    (ValueError)   a formula or document that cannot be worked with
    └── OvenError       (ValueError)   a bake that cannot be simulated

Each says *what* is wrong, what was *got*, what is *allowed* and a *remedy*; ``line`` and ``field``
place it in a formula. The same fields travel unchanged to the API and to the field on screen.
"""

from __future__ import annotations


class SubstrataError(Exception):
    """A refusal with the four things a baker needs to put it right."""

    def __init__(
        self,
        what: str,
        *,
        got: str = "",
        allowed: str = "",
        remedy: str = "",
        line: str | None = None,
        field: str | None = None,
    ) -> None:
        super().__init__(what)
        self.what = what
        self.got = got
        self.allowed = allowed
        self.remedy = remedy
        self.line = line
        self.field = field

    def __str__(self) -> str:
        """One readable line."""
        parts = [self.what]
        if self.got:
            parts.append(f"got {self.got}")
        if self.allowed:
            parts.append(f"allowed: {self.allowed}")
        if self.remedy:
            parts.append(self.remedy)
        return "; ".join(parts)


class AmountError(SubstrataError, ValueError):
    """An amount that cannot be read, or not be turned into grams for this ingredient."""


class LibraryError(SubstrataError, ValueError):
    """A row of a shipped table that cannot be true; names file and line."""


class UnknownIngredient(SubstrataError, LookupError):  # noqa: N818 - reads as the refusal it is
    """No ingredient goes by this id."""


class LabelError(SubstrataError, ValueError):
    """A pack's label, or a file of packs, that cannot be read."""


class FormulaError(SubstrataError, ValueError):
    """A formula or formula document that cannot be worked with."""


class OvenError(SubstrataError, ValueError):
    """A bake that cannot be simulated: what goes in is no dough."""
