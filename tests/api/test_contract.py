"""What the server really answers, held against the committed contract."""

import json
from pathlib import Path

import jsonschema
import pytest

from kitchen.services import formulas
from tests.conftest import sample

CONTRACT = json.loads((Path(__file__).parents[2] / "api" / "openapi.json").read_text(encoding="utf8"))
BY_ID = {op["operationId"]: op for methods in CONTRACT["paths"].values() for op in methods.values()}


def holds(operation, reply):
    """The reply's body is what the contract says for its status."""
    answer = BY_ID[operation]["responses"][str(reply.status_code)]
    if "content" not in answer:
        assert reply.content == b""
        return
    (content,) = answer["content"].values()
    schema = {**content["schema"], "components": CONTRACT["components"]}
    jsonschema.Draft202012Validator(schema).validate(reply.json())


RICH = sample(
    almond_flour=150, coconut_flour=20, psyllium_powder=60, egg=100, mozzarella=30, water=500, xylitol=10, baking_soda=4, celeriac=40
)  # fmt: skip
BROKEN = {**RICH, "lines": [*RICH["lines"], {"id": "x", "ingredient": "moon-dust", "grams": 3}]}


@pytest.mark.parametrize(
    "document", [sample(), RICH, BROKEN, {**sample(), "lines": []}], ids=["plain", "rich", "broken", "empty"]
)
def test_an_analysis_is_what_the_contract_says_though_it_is_written_past_the_validator(caller, kitchen, document):
    reply = caller("baker")("POST", f"/api/kitchens/{kitchen.pk}/analyse", document)
    assert reply.status_code == 200
    holds("analyse", reply)


@pytest.mark.parametrize(
    ("operation", "method", "path", "body"),
    [
        ("me", "GET", "/api/me", None),
        ("words", "GET", "/api/words", None),
        ("find_ingredients", "GET", "/api/ingredients?search=egg", None),
        ("open_kitchen", "POST", "/api/kitchens", {"name": "Second"}),
        ("change_settings", "PATCH", "{root}", {"units": "us"}),
        ("members", "GET", "{root}/members", None),
        ("add_member", "POST", "{root}/members", {"email": "outsider@kitchen.test", "role": "viewer"}),
        ("paste", "POST", "{root}/paste", {"text": "1 cup almond flour\nFor the top:\n2 eggs + 1 white\nmoon dust"}),
        ("shelf", "GET", "{root}/formulas", None),
        ("create_formula", "POST", "{root}/formulas", RICH),
        ("open_formula", "GET", "{one}", None),
        ("save_draft", "PUT", "{one}/draft", {"document": RICH, "lock": 3}),
        ("save_draft", "PUT", "{one}/draft", {"document": RICH, "lock": 99}),
        ("save_version", "POST", "{one}/versions", {"lock": 3}),
        ("save_version", "POST", "{one}/versions", {"lock": 99}),
        ("versions", "GET", "{one}/versions", None),
        ("version", "GET", "{one}/versions/1", None),
        ("version", "GET", "{one}/versions/7", None),
        ("compare", "GET", "{one}/compare?before=1&after=0", None),
        ("compare", "GET", "{one}/compare?before=x&after=0", None),
        ("fork_formula", "POST", "{one}/fork", {"name": "Other"}),
        ("archive_formula", "POST", "{one}/archive", {"archived": True}),
        ("remove_member", "DELETE", "{root}/members/{baker}", None),
    ],
)  # fmt: skip
def test_every_answer_is_what_the_contract_says(caller, people, kitchen, made, operation, method, path, body):
    formulas.save_version(people["baker"], kitchen.pk, made.pk, 1, "first")
    formulas.save_draft(people["baker"], kitchen.pk, made.pk, sample(pieces=8), 2)
    root = f"/api/kitchens/{kitchen.pk}"
    address = path.format(root=root, one=f"{root}/formulas/{made.pk}", baker=people["baker"].pk)
    holds(operation, caller("owner")(method, address, body))
