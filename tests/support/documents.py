"""Documents of the demo and random ones, always the same for a number, and what differs between two answers."""

import json
import re
from collections.abc import Callable, Iterator
from pathlib import Path
from random import Random
from typing import Any

from substrata import load_library
from substrata.execution.run_document import faults, felt_words, slip_words
from substrata.formula.form_table import forms, roles
from substrata.formula.formula_document import write_document
from substrata.reformulation.starter_formula import formula_templates, template_formula

_DEMO = Path(__file__).parents[2] / "kitchen" / "demo" / "formulas.json"


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


def random_run(number: int) -> dict[str, Any]:
    """A run document whose readings may be anything that its format allows, always the same for a number."""
    dice = Random(number)
    templates = formula_templates()
    document = write_document(template_formula(templates[(7 * number) % len(templates)]))
    for line in document["lines"]:
        if dice.random() < 0.3:
            line["grams"] *= dice.choice([0.1, 0.5, 2, 5])
    readings: dict[str, list[Any]] = {
        "rest_min": [None, 0, 20, 600], "dough_c": [None, 5, 24, 60], "thickness_mm": [None, 2, 40],
        "oven_c": [None, 100, 190, 300], "probe_c": [None, 150, 350], "minutes": [None, 12, 35, 300],
        "weight_in_g": [None, 500], "weight_out_g": [None, 430], "core_c": [None, 93, 120],
        "trays": [None, 1, 2], "squeezed_g": [None, 400],
    }  # fmt: skip
    done: dict[str, Any] = {key: dice.choice(values) for key, values in readings.items()}
    done["grams"] = {line["id"]: line["grams"] * dice.choice([0.9, 1, 1.3]) for line in document["lines"][::2]}
    done["steps"] = {key: dice.random() < 0.5 for key in dice.sample(list(slip_words()), 4)}
    done["felt"] = [{"class": dice.choice(felt_words())}]
    verdict = {
        "faults": [{"id": fault} for fault in dice.sample(list(faults()), dice.randint(0, 4))],
        "colour": dice.choice([None, -2, 0, 2]), "lightness": dice.choice([None, 40, 70]),
        "scores": {"chewy": dice.randint(0, 10), "gummy": dice.randint(0, 10)},
    }  # fmt: skip
    return {"formula": document, "id": str(number), "done": done, "verdict": verdict}


def random_plan(number: int) -> dict[str, Any]:
    """A plan document of one to three demo bakes, always the same for a number."""
    dice = Random(number)
    chosen = dice.sample(list(demo_documents()), 1 + number % 3)
    bakes = [
        {"formula": document, "due": f"2026-06-06T{12 + 2 * n}:00", "id": str(n)}
        for n, (_, document) in enumerate(chosen, 1)
    ]
    return {"start": "2026-06-06T06:00", "bakes": bakes, "name": f"Plan {number}"}


_MOMENT = re.compile(r"20\d\d-\d\d-\d\d\S*|\b[0-9a-f]{12,32}\b")  # a time of today, or an id by chance


def values(answer: Any) -> list[Any]:
    """The values of an answer in their order; times of today and random ids are none."""
    if isinstance(answer, dict):
        return [value for part in answer.values() for value in values(part)]
    if isinstance(answer, list):
        return [value for part in answer for value in values(part)]
    if isinstance(answer, float) and answer:
        return [float(f"{answer:.9g}")]
    return [_MOMENT.sub("", answer)] if isinstance(answer, str) else [answer]


def differences(before: Any, after: Any, place: str = "") -> Iterator[str]:
    """Places where two answers differ by more than nine decimals."""
    if isinstance(before, dict) and isinstance(after, dict):
        for key in sorted(before):  # what an answer says besides is no difference
            yield from differences(before.get(key, "absent"), after.get(key, "absent"), f"{place}.{key}")
    elif isinstance(before, list) and isinstance(after, list) and len(before) == len(after):
        for n, (one, other) in enumerate(zip(before, after, strict=True)):
            yield from differences(one, other, f"{place}[{n}]")
    elif isinstance(before, float | int) and isinstance(after, float | int):
        if abs(before - after) > 1e-8 * max(1.0, abs(before)):
            yield f"{place}: {before} -> {after}"
    elif before != after:
        yield f"{place}: {str(before)[:90]} -> {str(after)[:90]}"
