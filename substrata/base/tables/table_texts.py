"""Texts of the tables that name numbers, so that a number stands in one place and is read in the reader's units."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence

from substrata.base.messages.message import Message, Value, Wording, listed
from substrata.base.messages.quantity import Quantity, Unit
from substrata.base.tables.table_reader import constant


class TableText(Message):
    """A text of a table whose braces name numbers, rendered in the reader's units.

    ``{egg_safe_c}`` is the constant of that name in both scales, as cautions print it; ``{38–45 °C}`` and ``{8 K}`` are figures
    with their unit (K: a difference, in the degrees of the reader); any other word is a value handed over.

    Args:
        text: of the table.
        **values: words by name.
    """

    __slots__ = ("text",)

    def __init__(self, text: str, /, **values: Value) -> None:
        self.text = text
        super().__init__("table-text", **values)

    def __str__(self) -> str:
        values = {name: str(value) for name, value in self.values}
        return re.sub(r"\{([^}]+)\}", lambda match: _figure(match[1], values), self.text)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, TableText) and (self.text, self.values) == (other.text, other.values)

    def __hash__(self) -> int:
        return hash((self.text, self.values))


def table_text(text: str, **values: Value) -> Wording:
    """Return a text of a table, with the numbers that its braces name.

    >>> str(table_text("bake to {egg_safe_c}")), str(table_text("warm {added} to {38–45 °C}", added="water"))
    ('bake to 71 °C (160 °F)', 'warm water to 38–45 °C')

    Args:
        text: of the table.
        **values: words by name.
    """
    return TableText(text, **values) if "{" in text else text


_UNITS: dict[str, Unit] = {"°C": "C", "K": "K", "mm": "mm", "cm": "cm", "g": "g", "oven": "oven"}


def _figure(brace: str, values: Mapping[str, str]) -> str:
    """Return what a brace stands for.

    Raises:
        LibraryError: when it names a constant that there is not.
    """
    if brace in values:
        return values[brace]
    if match := re.fullmatch(r"([\d.]+)(?:–([\d.]+))? (\S+)", brace):
        high = float(match[2]) if match[2] else None
        return str(Quantity(float(match[1]), _UNITS[match[3]], high=high, digits=-1))
    celsius = constant(brace)
    return f"{celsius:.0f} °C ({celsius * 9 / 5 + 32:.0f} °F)"


def without_weight(names: Sequence[str]) -> str:
    """Say of lines that they have no weight.

    >>> without_weight(["cheddar"]), without_weight(["cheddar", "ham"])
    ('cheddar has no weight', 'cheddar and ham have no weight')

    Returns:
        The sentence; "" for no lines.
    """
    return f"{listed(names)} {'has' if len(names) == 1 else 'have'} no weight"
