"""What the server really answers, held against the committed contract."""

import json
from datetime import date
from pathlib import Path

import jsonschema
import pytest

from kitchen.services import formulas, imports, maps, oven_readings, ovens, packs, stock
from kitchen.services.access import membership
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
WET = {
    **RICH,
    "form": {"kind": "doughnut", "pieces": 6},
    "lines": [
        *RICH["lines"],
        {
            "id": "z",
            "ingredient": "zucchini",
            "grams": 100,
            "prep": {"steps": [{"act": "squeeze", "times": 2}], "start_g": 180, "weighed": True},
        },
        {"id": "y", "ingredient": "dry-yeast", "grams": 4},
        {"id": "m", "ingredient": "mozzarella", "grams": 400},
    ],
}
PACK = {
    "ingredient": "almond-flour", "name": "Mill", "price": 9, "pack_g": 900,
    "label": {"style": "us", "per_g": 28, "figures": {"fat_g": "14", "carbohydrate_g": "6", "fibre_g": "3", "protein_g": "6"}},
}  # fmt: skip
OWN_PAN = {"name": "Grey", "kind": "tray", "length_mm": 400, "width_mm": 300, "height_mm": 20}
FAULTY = {
    **PACK,
    "label": {
        "style": "us",
        "per_g": 100,
        "figures": {"carbohydrate_g": "6", "fibre_g": "10", "fat_g": "53", "protein_g": "22"},
    },
}
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
        ("invitations", "GET", "{root}/invitations", None),
        ("invite", "POST", "{root}/invitations", {"email": "outsider@kitchen.test", "role": "viewer"}),
        ("invite", "POST", "{root}/invitations", {"email": "nowhere", "role": "viewer"}),
        ("see_invitation", "GET", "/api/invitations/none", None),
        ("change_role", "PATCH", "{root}/members/{baker}", {"role": "viewer"}),
        ("kitchen_history", "GET", "{root}/history", None),
        ("account_history", "GET", "/api/account/history", None),
        ("close_kitchen", "PUT", "{root}/closing", {"on": True, "name": "The corner kitchen"}),
        ("close_account", "PUT", "/api/account/closing", {"on": False}),
        ("outbox", "GET", "/api/outbox", None),
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
        ("set_eaters", "PUT", "{root}/eaters", {"eaters": [{"name": "Ada", "budgets": {"cheese": 100}}]}),
        ("eaters", "GET", "{root}/eaters", None),
        ("card", "POST", "{root}/card", RICH),
        ("card", "POST", "{root}/card", BROKEN),
        ("prep", "POST", "{root}/prep", {"document": WET, "before": RICH}),
        ("prep", "POST", "{root}/prep", {"document": {**WET, "prep": {"room_c": 900}}}),
        ("cheaper_packs", "POST", "{root}/cheaper", RICH),
        ("find_in_pantry", "GET", "{root}/pantry?search=mill", None),
        ("find_in_pantry", "GET", "{root}/pantry?limit=0", None),
        ("open_ingredient", "GET", "{root}/ingredients/almond-flour", None),
        ("open_ingredient", "GET", "{root}/ingredients/moon-dust", None),
        ("compare_ingredients", "GET", "{root}/compare?keys=egg&keys=salt", None),
        ("shape", "POST", "{root}/shape", RICH),
        ("shape", "POST", "{root}/shape", {**RICH, "form": {"kind": "tin-loaf", "pieces": 4, "size": {"pan": "bucket"}}}),
        ("shape", "POST", "{root}/shape", {**RICH, "lines": []}),
        ("bake", "POST", "{root}/bake", {"document": RICH, "within_min": 12}),
        ("bake", "POST", "{root}/bake", {"document": {**RICH, "lines": []}}),
        ("bake", "POST", "{root}/bake", {"document": {**RICH, "bake": {"oven_c": 9000}}}),
        ("set_pans", "PUT", "{root}/pans", {"pans": [OWN_PAN]}),
        ("set_pans", "PUT", "{root}/pans", {"pans": [{**OWN_PAN, "height_mm": 0}]}),
        ("ovens", "GET", "{root}/ovens", None),
        ("add_oven", "POST", "{root}/ovens", {"name": "Deck"}),
        ("add_oven", "POST", "{root}/ovens", {"name": " "}),
        ("change_oven", "PATCH", "{root}/ovens/{oven}", {"name": "Deck two"}),
        ("log_bake", "POST", "{root}/ovens/{oven}/bakes", {"document": RICH, "minutes": 25, "before_g": 900, "after_g": 800}),
        ("log_bake", "POST", "{root}/ovens/{oven}/bakes", {"document": RICH}),
        ("delete_logged_bake", "DELETE", "{root}/ovens/{oven}/bakes/{logged}", None),
        ("delete_logged_bake", "DELETE", "{root}/ovens/{oven}/bakes/999999", None),
        ("start_job", "POST", "{root}/jobs", {"kind": "oven-map", "document": RICH, "minutes": 12}),
        ("start_job", "POST", "{root}/jobs", {"kind": "oven-map", "document": RICH, "minutes": -1}),
        ("start_job", "POST", "{root}/jobs", {"kind": "import-check", "import_id": "{imported}"}),
        ("start_job", "POST", "{root}/jobs", {"kind": "import-save", "import_id": "{imported}"}),
        ("start_job", "POST", "{root}/jobs", {"kind": "sleep"}),
        ("open_job", "GET", "{root}/jobs/{job}", None),
        ("open_job", "GET", "{root}/jobs/999999", None),
        ("stop_job", "POST", "{root}/jobs/{job}/stop", None),
        ("read_pack", "POST", "{root}/packs/read", PACK),
        ("read_pack", "POST", "{root}/packs/read", FAULTY),
        ("read_pack", "POST", "{root}/packs/read", {**PACK, "price": -1}),
        ("read_panel", "POST", "{root}/packs/panel", {"text": "Protein 3 g"}),
        ("read_panel", "POST", "{root}/packs/panel", {"text": ""}),
        ("create_pack", "POST", "{root}/packs", {"document": PACK, "on_hand_g": 5}),
        ("open_pack", "GET", "{root}/packs/{lot}", None),
        ("save_pack", "PUT", "{root}/packs/{lot}", {"document": FAULTY, "lock": 1}),
        ("save_pack", "PUT", "{root}/packs/{lot}", {"document": FAULTY, "lock": 9}),
        ("archive_pack", "POST", "{root}/packs/{lot}/archive", {"archived": True}),
        ("change_stock", "POST", "{root}/packs/{lot}/stock", {"kind": "counted", "grams": 9}),
        ("stock", "GET", "{root}/stock", None),
        ("plan_bake", "POST", "{root}/bakes", {"formula_id": "{made}", "batches": 1, "on": "2027-03-01"}),
        ("bakes", "GET", "{root}/bakes", None),
        ("finish_bake", "POST", "{root}/bakes/{bake}/done", None),
        ("cancel_bake", "POST", "{root}/bakes/{bake}/cancel", None),
        ("start_import", "POST", "{root}/imports", {"text": "name,protein\nGouda,24\nMoon,x"}),
        ("start_import", "POST", "{root}/imports", {"text": "{"}),
        ("open_import", "GET", "{root}/imports/{imported}", None),
        ("match_columns", "PUT", "{root}/imports/{imported}/columns", {"columns": ["name"], "style": "eu", "per_100": True}),
        ("stop_import", "POST", "{root}/imports/{imported}/stop", None),
    ],
)  # fmt: skip
def test_every_answer_is_what_the_contract_says(caller, people, kitchen, made, operation, method, path, body):
    formulas.save_version(membership(people["baker"], kitchen.pk), made.pk, 1, "first")
    formulas.save_draft(membership(people["baker"], kitchen.pk), made.pk, sample(pieces=8), 2)
    root, baker = f"/api/kitchens/{kitchen.pk}", people["baker"]
    lot = packs.create_lot(membership(baker, kitchen.pk), PACK, 400).lot
    places = {
        "lot": lot.pk,
        "bake": stock.plan_bake(membership(baker, kitchen.pk), made.pk, 1, date(2027, 3, 1)).pk,
        "oven": (oven := ovens.add_oven(membership(baker, kitchen.pk), "Back oven")).pk,
        "logged": oven_readings.log_bake(
            membership(baker, kitchen.pk), oven.pk, RICH, oven_readings.BakeReadings(probe_c=180)
        ).pk,
        "job": maps.start_map(membership(baker, kitchen.pk), RICH, 9).pk,
        "imported": imports.start_import(membership(baker, kitchen.pk), "x.csv", "name\nSea salt").pk,
    }
    if isinstance(body, dict):
        named = {"{made}": made.pk, "{imported}": places["imported"]}
        body = {key: named.get(value, value) if isinstance(value, str) else value for key, value in body.items()}
    address = path.format(root=root, one=f"{root}/formulas/{made.pk}", baker=baker.pk, **places)
    holds(operation, caller("owner")(method, address, body))
