"""Whether a change of the house leaves every answer as it was: the demo's formulas and 200 random documents.

``python -m benchmarks.same_answers keep FILE`` before the change, ``… compare FILE`` after it. Numbers are compared to nine
decimals; what differs is listed by its place, so that what was mended on purpose can be named.
"""

import gzip
import json
import sys
from collections.abc import Callable, Iterator
from dataclasses import asdict
from pathlib import Path
from random import Random
from typing import Any

from substrata import Settings, analyse, load_library, read_document
from substrata.card.card import card
from substrata.errors import SubstrataError
from substrata.formula.form import forms, roles
from substrata.settings import Eater
from substrata.stations.bake import bake
from substrata.stations.prep import prep_plan
from substrata.stations.shape import shape_plan

RANDOM = 200
_DEMO = Path(__file__).parent.parent / "kitchen" / "demo" / "formulas.json"
_EATER = Eater(name="One", budgets=(("net_carbs", 30.0), ("energy", 2000.0)))
STATIONS: dict[str, Callable[..., Any]] = {
    "analyse": analyse,
    "card": card,
    "prep": prep_plan,
    "shape": shape_plan,
    "bake": bake,
}


def demo_documents() -> Iterator[tuple[str, dict[str, Any]]]:
    """The last version of every demo formula, by its name."""
    for formula in json.loads(_DEMO.read_text(encoding="utf8")):
        version = formula["versions"][-1]
        lines = [
            {"id": f"l{n}", "ingredient": entry[0], "entered": entry[1], **(entry[2] if len(entry) > 2 else {})}
            for n, entry in enumerate(version["lines"])
        ]
        rest = {key: formula[key] for key in ("bake", "mix", "prep", "targets") if key in formula}
        form = {"kind": formula["form"], "pieces": formula["pieces"], "size": formula.get("size", {})}
        yield formula["name"], {"name": formula["name"], "form": form, "lines": lines, **rest}


def random_document(number: int) -> dict[str, Any]:
    """A readable document, always the same for a number."""
    dice = Random(number)
    keys = sorted(ingredient.id for ingredient in load_library())
    usual = ["almond-flour", "egg", "water", "mozzarella", "psyllium-powder", "coconut-flour", "butter", "salt"]

    def perhaps(chance: float, value: Callable[[], Any]) -> Any:
        return value() if dice.random() < chance else None

    lines = []
    for n in range(dice.randint(1, 10)):
        line: dict[str, Any] = {"id": f"l{n}", "ingredient": dice.choice(usual if dice.random() < 0.5 else keys)}
        line |= {"grams": round(dice.choice([4, 40, 400]) * dice.random(), 2), "locked": dice.random() < 0.1}
        line |= {"role": perhaps(0.1, lambda: dice.choice(list(roles()))) or ""}
        line |= {"temperature_c": perhaps(0.1, lambda: dice.uniform(2, 60))}
        if dice.random() < 0.1:
            line["prep"] = {"steps": [{"act": "salt", "salt_g": 5, "minutes": 20}, {"act": "squeeze"}]}
        lines.append(line)
    size = {
        "held": dice.choice(["", "", "thickness", "size"]),
        "thickness_mm": perhaps(0.3, lambda: dice.uniform(2, 40)),
    }
    size |= {
        "length_mm": perhaps(0.3, lambda: dice.uniform(30, 300)),
        "hole_mm": perhaps(0.1, lambda: dice.uniform(5, 40)),
    }
    bake_wish = {"oven_c": perhaps(0.4, lambda: dice.uniform(140, 240)), "fan": dice.random() < 0.3}
    bake_wish |= {"moisture_percent": perhaps(0.2, lambda: dice.uniform(4, 40)), "trays": dice.choice([1, 1, 2])}
    bake_wish |= {"altitude_m": dice.choice([0, 0, 1500]), "ware": dice.choice(["", "", "stone"])}
    return {
        "name": f"Random {number}",
        "form": {"kind": dice.choice(list(forms())), "pieces": dice.randint(1, 40), "serving_pieces": dice.randint(1, 3), "size": size},
        "lines": lines,
        "mix": {"cheese": dice.choice(["", "", "melted", "cold"]), "work": dice.choice(["", "", "pressed", "stirred"])},
        "bake": bake_wish,
        "prep": {"room_c": dice.uniform(15, 30)} if dice.random() < 0.3 else {},
        "targets": {"net_carbs": {"high": dice.uniform(1, 6)}} if dice.random() < 0.3 else {},
    }  # fmt: skip


def answers() -> dict[str, Any]:
    """What every station says of every document."""
    library = load_library()
    documents = dict(demo_documents()) | {f"random {n}": random_document(n) for n in range(RANDOM)}
    table: dict[str, Any] = {}
    for number, (name, document) in enumerate(documents.items()):
        formula = read_document(document)
        settings = Settings(eaters=(_EATER,), convention=("us", "eu", "total")[number % 3])
        for station, ask in STATIONS.items():
            try:
                answer = ask(formula, library, settings)
            except SubstrataError as refusal:
                table[f"{name}/{station}"] = str(refusal)
                continue
            table[f"{name}/{station}"] = json.loads(json.dumps(asdict(answer))) if answer is not None else None
    return table


RENAMED = {
    "prep.family": "prep.dough_kind",
    "prep.cards": "prep.tasks",
    "shape.laying": "shape.layout",
}  # what goes by another name since it was kept


def renamed(answers_kept: dict[str, Any]) -> dict[str, Any]:
    """Answers that were kept, under the names of today."""
    for name, answer in answers_kept.items():
        for old, new in RENAMED.items():
            (station, before), (_, after) = old.split("."), new.split(".")
            if name.endswith(f"/{station}") and isinstance(answer, dict) and before in answer:
                answer[after] = answer.pop(before)
    return answers_kept


def differences(before: Any, after: Any, place: str = "") -> Iterator[str]:
    """Places where two answers differ by more than nine decimals."""
    if isinstance(before, dict) and isinstance(after, dict):
        for key in sorted(before):  # what an answer says besides is no difference
            yield from differences(before.get(key, "absent"), after.get(key, "absent"), f"{place}.{key}")
    elif isinstance(before, list) and isinstance(after, list) and len(before) == len(after):
        for n, (one, other) in enumerate(zip(before, after, strict=True)):
            yield from differences(one, other, f"{place}[{n}]")
    elif isinstance(before, float | int) and isinstance(after, float | int):
        if abs(before - after) > 1e-9 * max(1.0, abs(before)):
            yield f"{place}: {before} -> {after}"
    elif before != after:
        yield f"{place}: {str(before)[:90]} -> {str(after)[:90]}"


def main() -> int:
    """Keep or compare; returns the exit code."""
    what, file = sys.argv[1], Path(sys.argv[2])
    if what == "keep":
        file.write_bytes(gzip.compress(json.dumps(answers()).encode()))
        return 0
    result = list(differences(renamed(json.loads(gzip.decompress(file.read_bytes()))), answers()))
    print("\n".join(result[:40]) or "every answer is as it was")
    print(f"{len(result)} differences")
    return 1 if result else 0


if __name__ == "__main__":
    raise SystemExit(main())
