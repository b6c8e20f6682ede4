"""The answers that the page's tests mount its stations with: recorded from the API, and still of the shape and values that it serves.

``RECORD_ANSWERS=1 pytest tests/api/test_recorded.py`` records them anew.
"""

import json
import os
from pathlib import Path

import pytest

from kitchen.demo.load import load_demo
from tests.api.conftest import Caller
from tests.support.documents import values

FILE = Path(__file__).parents[2] / "web" / "src" / "testing" / "generated" / "recorded.json"
NAME = "Celeriac flatbread"


def rounded(answer):
    """Six digits: what a page's test looks at, and the same on every machine."""
    if isinstance(answer, float):
        return float(f"{answer:.6g}")
    if isinstance(answer, dict):
        return {key: rounded(part) for key, part in answer.items()}
    return [rounded(part) for part in answer] if isinstance(answer, list) else answer


def shape(answer):
    """Which keys an answer has, whatever stands in them; a list is known by its first entry."""
    if isinstance(answer, dict):
        return {key: shape(part) for key, part in answer.items()}
    if isinstance(answer, list):
        return [shape(answer[0])] if answer else []
    return type(answer).__name__ if isinstance(answer, bool | str) else "number or nothing"


def figures(answer):
    """The values of an answer but for whole numbers: the keys of rows are other ones in each database."""
    return [value for value in values(answer) if not isinstance(value, int) or isinstance(value, bool)]


@pytest.fixture
def answers(db):
    """Every answer by the end of its address."""
    demo = load_demo()
    call, root = Caller(demo.memberships.get(role="owner").user), f"/api/kitchens/{demo.pk}"
    one = f"{root}/formulas/{demo.formulas.get(name=NAME).pk}"
    opened = call("GET", one).json()
    document = opened["document"]
    found = {
        "/api/me": call("GET", "/api/me"),
        "/api/words": call("GET", "/api/words"),
        "/formulas": call("GET", f"{root}/formulas?limit=3"),
        "/{formula_id}": call("GET", one),
        "/versions": call("GET", f"{one}/versions"),
        "/analyse": call("POST", f"{root}/analyse", document),
        "/prep": call("POST", f"{root}/prep", {"document": document}),
        "/shape": call("POST", f"{root}/shape", document),
        "/bake": call("POST", f"{root}/bake", {"document": document}),
        "/card": call("POST", f"{root}/card", document),
        "/ovens": call("GET", f"{root}/ovens"),
        "/pantry": call("GET", f"{root}/pantry?limit=5"),
        "/stock": call("GET", f"{root}/stock"),
        "/bakes": call("GET", f"{root}/bakes"),
    }
    assert {reply.status_code for reply in found.values()} == {200}
    return {path: rounded(reply.json()) for path, reply in found.items()}


def test_the_recorded_answers_have_the_shape_and_the_values_that_are_served(answers):
    if os.environ.get("RECORD_ANSWERS"):
        FILE.write_text(json.dumps(answers, ensure_ascii=False) + "\n", encoding="utf8")
    recorded = json.loads(FILE.read_text(encoding="utf8"))
    assert recorded.keys() == answers.keys()
    for path, answer in answers.items():
        assert shape(recorded[path]) == shape(answer), path
        assert figures(recorded[path]) == figures(answer), path
