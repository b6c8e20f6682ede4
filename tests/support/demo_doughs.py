"""The demo formulas as plain documents, without a database: what the measurements of balance work on."""

import json
from pathlib import Path

from substrata.base.settings import Settings
from substrata.formula.batch.weighed_lines import weigh_line
from substrata.formula.formula import Formula, Line
from substrata.formula.formula_document import read_document
from substrata.ingredients.library import load_library

_FILE = Path(__file__).parents[2] / "kitchen" / "demo" / "formulas.json"


def demo_formulas() -> list[Formula]:
    """The last version of each, weighed by the reference."""
    library, settings = load_library(), Settings()
    made = []
    for entry in json.loads(_FILE.read_text(encoding="utf8")):
        lines, seen = [], {}
        version = entry["versions"][-1]
        for ingredient, entered, *more in version["lines"]:
            seen[ingredient] = seen.get(ingredient, 0) + 1
            key = ingredient if seen[ingredient] == 1 else f"{ingredient}-{seen[ingredient]}"
            grams = weigh_line(Line(id=key, ingredient=ingredient, entered=entered), library, settings).grams.value
            told = more[0] if more else {}
            lines.append({"id": key, "ingredient": ingredient, "entered": entered, "grams": round(grams, 1), **told})
        made.append(
            read_document(
                {
                    "name": entry["name"],
                    "form": {"kind": entry["form"], "pieces": entry["pieces"], "size": entry.get("size", {})},
                    "lines": lines,
                    "targets": version.get("targets", {}),
                }
            )
        )
    return made
