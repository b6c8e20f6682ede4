"""What the command line says of a settle: the wish read from a few words, the answer as plain JSON values."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from substrata.base import FormulaError
from substrata.formula import Window, write_document
from substrata.reformulation import BalanceAnswer, BalanceOption, StarterFormula

_TARGET = re.compile(r"^\s*([a-z_0-9]+)\s*(<=|>=|=|≤|≥)\s*([-+]?\d+(?:[.,]\d+)?)\s*$")


def read_targets(texts: Sequence[str], field: str = "target") -> dict[str, Window]:
    """Targets such as ``net_carbs<=3``; both bounds of one quantity may be told.

    Args:
        texts: the words.
        field: what an error names.

    >>> read_targets(["net_carbs<=3", "protein>=8"])["protein"].low
    8.0

    Returns:
        Target ranges by figure.

    Raises:
        FormulaError: when one cannot be read.
    """
    windows: dict[str, Window] = {}
    for text in texts:
        match = _TARGET.match(text)
        if match is None:
            raise FormulaError(
                "the target cannot be read",
                got=text[:60],
                allowed="a quantity, <= or >=, and a number, such as net_carbs<=3",
                remedy="use this format",
                field=field,
            )
        key, how, number = match[1], match[2], float(match[3].replace(",", "."))
        old = windows.get(key, Window())
        low = number if how in (">=", "≥", "=") else old.low
        high = number if how in ("<=", "≤", "=") else old.high
        windows[key] = Window(low=low, high=high)
    return windows


def settlement_json(settlement: BalanceAnswer) -> dict[str, Any]:
    """Return a settlement as plain values."""
    return {
        "status": settlement.status,
        "text": settlement.text,
        "ways": [_way_json(way) for way in settlement.ways],
        "nearest": settlement.nearest,
        "clash": [{"limit": relax.text, "price": relax.price} for relax in settlement.clash],
        "surer": settlement.surer,
        "moves": list(settlement.moves),
    }


def _way_json(way: BalanceOption) -> dict[str, Any]:
    handling = way.handling
    return {
        "name": way.name,
        "document": write_document(way.formula),
        "changes": _edits(way),
        "brackets": {moved.key: {"before": moved.before, "after": moved.after} for moved in way.brackets},
        "handling": {"before": handling.before, "after": handling.after} if handling else None,
        "minutes": {"before": way.minutes.before, "after": way.minutes.after},
        "holds": list(way.holds),
        "prices": list(way.prices),
        "sure": {sure.key: sure.probability for sure in way.sure},
        "lost": list(way.lost),
        "cautions": list(way.cautions),
        "missed": list(way.missed),
    }


def _edits(way: BalanceOption) -> list[str]:
    return [str(text) for text in (*(c.text for c in way.shape), *(c.text for c in way.changes))]


def settlement_table(settlement: BalanceAnswer) -> str:
    """Return a settlement for people."""
    rows = [str(settlement.text)]
    for way in settlement.ways:
        rows += ["", f"{way.name}:", *(f"  {text}" for text in _edits(way))]
        rows += [
            f"  {m.label:15} {m.before:.{m.decimals}f} → {m.after:.{m.decimals}f} {m.unit}".rstrip()
            for m in way.brackets
        ]
        if way.handling:
            rows.append(f"  {'Handling':15} {way.handling.before} → {way.handling.after}")
        rows += [f"  limited by {', '.join(map(str, way.holds))}"] if way.holds else []
        rows += [
            f"  {text}"
            for text in (*way.prices, *way.lost, *way.cautions, *(f"target not met: {m}" for m in way.missed))
        ]
    rows += ["", str(settlement.nearest)] if settlement.nearest else []
    rows += [f"  {relax.text}: {relax.price}" for relax in settlement.clash]
    rows += [str(settlement.surer)] if settlement.surer else []
    return "\n".join(rows)


def beginnings_json(starters: Sequence[StarterFormula]) -> dict[str, Any]:
    """Beginnings as plain values."""
    return {
        "formulas": [write_document(b.formula) for b in starters],
        "told": [
            {"base": b.skeleton.base, "name": b.skeleton.name, "status": b.settlement.status, "text": b.text}
            for b in starters
        ],
    }
