"""Every endpoint of the contract as an outsider, as a viewer and signed out."""

import json
import re
from base64 import b64decode
from datetime import date
from pathlib import Path

import pytest
from django.test import Client
from django.utils import timezone

from api.app import api
from kitchen.models import Plan, Run
from kitchen.services import imports, kitchens, maps, ovens, packs, stock
from kitchen.services.access import membership
from kitchen.services.pans import set_pans
from tests.api.conftest import Caller
from tests.conftest import sample

CONTRACT = Path(__file__).parents[2] / "api" / "openapi.json"
OPERATIONS = [
    (method.upper(), path, operation["operationId"])
    for path, methods in json.loads(CONTRACT.read_text(encoding="utf8"))["paths"].items()
    for method, operation in methods.items()
]
# About oneself or the shipped pantry; to be seen without an account by whoever has the key.
OWN = {
    "me",
    "words",
    "find_ingredients",
    "open_kitchen",
    "account_history",
    "close_account",
    "accept_invitation",
    "outbox",
}
OPEN = {"see_invitation", "outbox"}
READS = {
    "shelf", "open_formula", "versions", "version", "compare", "analyse", "prep", "shape", "bake", "ovens", "open_job", "paste", "members", "eaters", "card", "find_in_pantry",
    "open_ingredient", "compare_ingredients", "cheaper_packs", "choose_packs", "read_pack", "read_panel", "open_pack", "stock", "bakes", "open_import",
    "remedies", "what_if", "mix", "lean", "scale", "formula_file", "kitchen_file", "house_formulas",
    "part_of", "newer_parts", "recipe", "recipe_file", "label", "label_file", "premix_bags", "premix_bags_file", "read_recipe_file", "share", "plans", "read_bakes", "open_plan", "try_move", "plan_shopping", "plan_file", "runs", "open_run", "feel_run", "pour_run", "live_run", "proposal_on_draft", "compare_runs", "runs_line", "runs_file", "devices", "photos", "open_photo",
}  # fmt: skip
LABEL = {"document": sample(), "style": "us", "baked_on": "2026-06-06"}
BAGS = {"document": sample(), "bags": 3, "made_on": "2026-06-06"}
DAY = {"name": "x", "start": "2026-06-06T06:00", "ovens": [], "bakes": []}
PACK = {"ingredient": "salt", "name": "Sea salt"}
PLAN = {
    "steps": [],
    "dough_g": 0,
    "pieces": 1,
    "piece_g": 0,
    "ready_min": None,
    "wanted_low": "",
    "wanted_high": "",
    "text": "",
}
CHEESES = [{"id": i, "ingredient": i, "grams": 100, "entered": "100 g"} for i in ("mozzarella", "cheddar")]
BODIES = {
    "read_bakes": {"text": "formula,ready\nRolls,2026-11-28 14:00"},
    "lean": {"document": sample() | {"lines": CHEESES}, "group": ["mozzarella", "cheddar"], "by": "strength", "towards": 0.5},
    "remedies": {"document": sample()}, "mix": {"document": sample(), "group": ["egg", "water"], "line": "egg", "grams": 90}, "what_if": {"document": sample(), "line": sample()["lines"][0]["id"]},
    "analyse": sample(), "create_formula": sample(), "save_draft": {"document": sample(), "lock": 1}, "save_version": {"lock": 1},
    "paste": {"text": "1 g salt"}, "fork_formula": {"name": "x"}, "archive_formula": {"archived": True},
    "change_settings": {"units": "us"}, "invite": {"email": "outsider@kitchen.test", "role": "owner"}, "change_role": {"role": "owner"}, "close_kitchen": {"on": False}, "close_account": {"on": False}, "open_kitchen": {"name": "x"},
    "set_eaters": {"eaters": []}, "card": sample(), "cheaper_packs": sample(), "choose_packs": sample(), "read_pack": PACK, "read_panel": {"text": "Protein 3 g"},
    "create_pack": {"document": PACK}, "save_pack": {"document": PACK, "lock": 1}, "archive_pack": {"archived": True},
    "change_stock": {"kind": "counted", "grams": 1}, "plan_bake": {"formula_id": 1, "batches": 1, "on": "2026-12-01"},
    "start_import": {"text": "name\nSea salt"}, "match_columns": {"columns": ["name"], "style": "us", "per_100": True},
    "prep": {"document": sample()}, "shape": sample(), "bake": {"document": sample()},
    "set_pans": {"pans": []}, "add_oven": {"name": "Back oven"}, "change_oven": {"name": "x"},
    "log_bake": {"document": sample(), "minutes": 20}, "scale": {"document": sample(), "factor": 2}, "take_file": {"file": sample()}, "copy_house_formula": {"name": "Dark seed loaf"}, "start_job": {"kind": "oven-map", "document": sample(), "minutes": 10},
    "start_run": {"formula_id": 1, "key": "k"}, "write_entries": {"entries": []}, "give_verdict": {"liked": "good"}, "change_run": {"left_out": True}, "change_learning": {"off": []},
    "newer_parts": sample(), "recipe": {"document": sample()}, "recipe_file": {"document": sample()}, "label": LABEL, "label_file": LABEL, "premix_bags": BAGS, "premix_bags_file": BAGS, "change_share": {"on": True},
    "create_plan": DAY, "save_plan": {"document": DAY, "lock": 1}, "try_move": {"task": "1:mix", "start_min": 3},
    "slip_plan": {"task": "1:mix", "minutes": 5}, "tick_shopping": {"ingredient": "salt", "done": True}, "change_feed": {"on": True}, "reserve_plan": {"on": True},
    "feel_run": {"felt": "tacky"}, "pour_run": {"line": "egg", "grams": 100}, "live_run": {"minute": 3}, "proposal_on_draft": {"document": sample()}, "tell_device": {"act": "tare"}, "choose_devices": {"devices": ""}, "take_runs": {"file": {}},
}  # fmt: skip


def place(path, kitchen, made):
    values = {
        "kitchen_id": kitchen.pk,
        "formula_id": made.pk,
        "number": 1,
        "person_id": kitchen.memberships.first().user_id,
        "ingredient": "salt",
        "lot_id": kitchen.lots.get().pk,
        "bake_id": kitchen.bakes.get().pk,
        "import_id": kitchen.pack_imports.get().pk,
        "oven_id": kitchen.ovens.get().pk,
        "logged_id": 1,
        "job_id": kitchen.jobs.get().pk,
        "run_id": kitchen.runs.first().pk,
        "photo_id": 1,
        "plan_id": kitchen.plans.get().pk,
        "invitation_id": 1,
        "key": "guessed",
        "style": "json",
    }
    if "/recipe/" in path:
        values["style"] = "text"
    address = path.format(**values)
    if path.endswith("/runs-line"):
        return f"{address}?figure=loss"
    if path.endswith("/runs-compared"):
        return f"{address}?runs={','.join(str(run.pk) for run in kitchen.runs.all())}"
    if path.endswith("/formulas/{formula_id}/compare"):
        return f"{address}?before=1&after=0"
    return f"{address}?keys=salt" if path.endswith("/compare") else address


@pytest.fixture(autouse=True)
def _stocked(people, kitchen, made):
    """Something of everything in the kitchen: a pack, a planned bake, an import, an oven, a map."""
    packs.create_lot(membership(people["baker"], kitchen.pk), PACK, 100)
    stock.plan_bake(membership(people["baker"], kitchen.pk), made.pk, 1, date(2026, 12, 1))
    imports.start_import(membership(people["baker"], kitchen.pk), "x.csv", "name\nSea salt")
    ovens.add_oven(membership(people["baker"], kitchen.pk), "Back oven")
    maps.start_map(membership(people["baker"], kitchen.pk), sample(), 10)
    Plan.objects.create(
        kitchen=kitchen,
        name="x",
        on=date(2026, 6, 6),
        document=DAY
        | {"bakes": [{"formula_id": made.pk, "id": "1", "due": "2026-06-06T12:00"}], "ovens": [{"name": "oven"}]},
    )
    for key in ("one", "two"):
        Run.objects.create(
            kitchen=kitchen,
            formula=made,
            key=key,
            name=made.name,
            form=made.form,
            document=sample(),
            plan=PLAN,
            started_at=timezone.now(),
        )


def test_the_committed_contract_is_the_one_the_code_serves():
    served = api.get_openapi_schema(path_prefix="/api/")
    assert json.loads(json.dumps(served)) == json.loads(CONTRACT.read_text(encoding="utf8"))


def test_operation_ids_are_explicit_and_unique():
    ids = [operation for _, _, operation in OPERATIONS]
    assert len(set(ids)) == len(ids)
    assert not [i for i in ids if i.startswith("api_")]


@pytest.mark.parametrize(("method", "path", "operation"), OPERATIONS)
def test_signed_out_nobody_gets_in(caller, kitchen, made, method, path, operation):
    reply = Caller()(method, place(path, kitchen, made), BODIES.get(operation))
    assert reply.status_code == (404 if operation in OPEN else 401)
    assert reply["Content-Type"] == "application/problem+json"


@pytest.mark.parametrize(("method", "path", "operation"), [o for o in OPERATIONS if o[2] not in OWN])
def test_an_outsider_finds_nothing(caller, kitchen, made, method, path, operation):
    assert caller("outsider")(method, place(path, kitchen, made), BODIES.get(operation)).status_code == 404


@pytest.mark.parametrize(("method", "path", "operation"), [o for o in OPERATIONS if o[2] not in OWN | OPEN])
def test_a_viewer_reads_and_changes_nothing(caller, kitchen, made, method, path, operation):
    status = caller("viewer")(method, place(path, kitchen, made), BODIES.get(operation)).status_code
    # A version that was never kept is not there for anybody; a plan that was never planned has nothing to move.
    odd = 422 if operation == "try_move" else 404
    assert status in ((200, odd) if operation in READS else (403,))


def test_a_forged_request_from_another_site_is_refused(people, kitchen):
    strict = Caller(people["baker"], enforce_csrf_checks=True)
    assert strict("POST", f"/api/kitchens/{kitchen.pk}/formulas", sample()).status_code == 403
    assert strict("POST", f"/api/kitchens/{kitchen.pk}/analyse", sample()).status_code == 403


def test_a_bench_pass_is_for_one_kitchen_and_dies_when_tampered_with(people, kitchen):
    baker = Caller(people["baker"])
    path = f"/api/kitchens/{kitchen.pk}/analyse"
    assert baker("POST", path, sample()).status_code == 200
    value = baker.client.cookies["bench"].value
    elsewhere = people["outsider"].memberships.get().kitchen

    def bearer(cookie, where, session=baker.client.cookies["sessionid"].value):
        other = Caller()
        other.client.cookies["bench"] = cookie
        if session:
            other.client.cookies["sessionid"] = session
        return other("POST", where, sample()).status_code

    assert bearer(value, path) == 200
    assert bearer(value, path, session="") == 401
    baker.client.logout()
    assert bearer(value, f"/api/kitchens/{elsewhere.pk}/analyse") == 401
    assert bearer(value[:-2] + "xx", path) == 401
    assert bearer(value, f"/api/kitchens/{kitchen.pk}/formulas") == 401
    assert bearer(value, path) == 401, "signed out"


def test_a_bench_pass_ends_when_its_person_is_taken_out_and_tells_nothing(people, kitchen, monkeypatch):
    pan = {"name": "Grandmother's tray", "kind": "tray", "length_mm": 480, "width_mm": 330, "height_mm": 20}
    set_pans(membership(people["owner"], kitchen.pk), [{**pan, "name": f"{pan['name']} {n}"} for n in range(20)])
    kitchens.set_eaters(membership(people["owner"], kitchen.pk), [{"name": "Ada", "budgets": {"net_carbs": 20}}])
    baker, path = Caller(people["baker"]), f"/api/kitchens/{kitchen.pk}/analyse"
    first = baker("POST", path, sample())
    value = baker.client.cookies["bench"].value
    assert len(first.cookies["bench"].OutputString()) < 1000
    shown = b64decode(value.split(":")[0] + "==", altchars="-_")
    assert not [word for word in (b"Ada", b"Grand", b"net_carbs", b"a-long") if word in shown]
    assert "bench" not in baker("POST", path, sample()).cookies, "the pass holds"
    kitchens.remove_member(membership(people["owner"], kitchen.pk), people["baker"].pk)
    assert baker("POST", path, sample()).status_code == 404


def test_what_a_role_does_not_allow_is_shown_to_the_owner(people, kitchen):
    for _ in range(3):
        Caller(people["viewer"])("POST", f"/api/kitchens/{kitchen.pk}/formulas", sample())
    rows = Caller(people["owner"])("GET", f"/api/kitchens/{kitchen.pk}/history").json()["rows"]
    refused = [row for row in rows if row["refused"]]
    assert [(r["who"], r["place"]) for r in refused] == [("viewer@kitchen.test", "127.0.0.1")]


def test_changed_settings_take_the_pass_back(people, kitchen):
    baker = Caller(people["baker"])
    baker("POST", f"/api/kitchens/{kitchen.pk}/analyse", sample())
    baker("PATCH", f"/api/kitchens/{kitchen.pk}", {"convention": "total"})
    assert baker("POST", f"/api/kitchens/{kitchen.pk}/analyse", sample()).json()["basis"]["convention"] == "total"


def test_the_page_carries_a_content_security_policy_without_inline_script(db):
    policy = Client().get("/formula")["Content-Security-Policy"]
    assert "default-src 'self'" in policy
    nonce = re.search(r"style-src 'self' 'nonce-([^']+)'", policy)[1]
    assert "unsafe" not in policy
    assert Client().get("/formula")["Content-Security-Policy"] != policy, "each page has its own"
    assert nonce
    assert "script-src" not in policy or "unsafe" not in policy.split("script-src")[1].split(";")[0]
