"""Allergens of a formula by the United States and the European lists."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from substrata.formula.weighed import Batch
from substrata.quantities.tables import read_table


@dataclass(frozen=True, kw_only=True)
class Allergen:
    """One named allergen and the lines that bring it."""

    name: str
    regions: tuple[str, ...]  # "us", "eu"
    lines: tuple[str, ...]


@cache
def _by_flag() -> dict[str, dict[str, str]]:
    return {row.text("flag"): {"us": row.text("us"), "eu": row.text("eu")} for row in read_table("allergens.csv")}


def allergens(batch: Batch) -> tuple[Allergen, ...]:
    """Allergens of all weighed lines, in alphabetical order.

    United States: FALCPA with the FASTER Act; coconut is no longer on the list. European Union:
    Annex II of 1169/2011, where celeriac counts as celery and lupin is listed.
    """
    regions: dict[str, set[str]] = {}
    lines: dict[str, list[str]] = {}
    for weighed in batch.lines:
        for flag in weighed.ingredient.flags:
            for region, name in _by_flag()[flag].items():
                if name:
                    short = name.removeprefix("tree ")
                    regions.setdefault(short, set()).add(region)
                    if weighed.line.id not in lines.setdefault(short, []):
                        lines[short].append(weighed.line.id)
    return tuple(
        Allergen(name=name, regions=tuple(sorted(regions[name], reverse=True)), lines=tuple(lines[name]))
        for name in sorted(regions)
    )
