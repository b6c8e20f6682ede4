"""Run and Trials by HTTP: a whole run from the first weight to why."""

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from kitchen.models import Run
from kitchen.services import formulas
from kitchen.services.access import membership
from kitchen.services.jobs import run_job
from tests.conftest import sample
from tests.inference.test_colour import jpeg, picture

ROLLS = sample(almond_flour=160, psyllium_powder=36, water=420, baking_powder=14, cider_vinegar=10, salt=8)


@pytest.fixture
def call(caller):
    return caller("baker")


@pytest.fixture
def root(kitchen):
    return f"/api/kitchens/{kitchen.pk}"


@pytest.fixture
def begun(call, root, people, kitchen):
    made = formulas.create_formula(membership(people["baker"], kitchen.pk), ROLLS).formula
    return call("POST", f"{root}/runs", {"formula_id": made.pk, "key": "phone", "batches": 1}).json()


def entry(key, kind, what="", value=None, minute=0, word=""):
    return {
        "id": key,
        "at": f"2026-05-02T06:{minute:02d}:00+00:00",
        "kind": kind,
        "what": what,
        "value": value,
        "word": word,
    }


def test_a_whole_run(call, root, begun):
    run = f"{root}/runs/{begun['run']['id']}"
    weights = [step for step in begun["plan"]["steps"] if step["kind"] == "weigh"]
    assert {step["line"] for step in weights} == {line["id"] for line in ROLLS["lines"]}
    sent = [entry(f"w{n}", "weighed", step["line"], step["grams"], n) for n, step in enumerate(weights)]
    sent += [entry("m", "moment", "mixed", minute=10), entry("f", "felt", minute=20, word="tacky")]
    reply = call("POST", f"{run}/entries", {"entries": sent}).json()
    assert (reply["new"], len(reply["entries"])) == (len(sent), len(sent))
    later = call("POST", f"{run}/entries", {"entries": sent, "since": reply["entries"][-1]["seq"]}).json()
    assert later == {"new": 0, "entries": []}
    felt = call("POST", f"{run}/feel", {"felt": "spreadable", "minute": 10}).json()
    assert felt["ways"]
    poured = call("POST", f"{run}/pour", {"line": "psyllium_powder", "grams": 44}).json()
    assert {way["kind"] for way in poured["ways"]} >= {"out", "scale"}
    live = call("POST", f"{run}/live", {"minute": 4, "readings": [{"minute": 4, "kind": "core", "value": 45}]}).json()
    assert live["ready_min"] > 0
    assert call("POST", f"{run}/finish").json()["finished_at"]
    judged = call("PUT", f"{run}/verdict", {"liked": "bad", "faults": [{"id": "gummy"}], "mine": 3}).json()
    assert judged["faults"] == ["gummy"]
    opened = call("GET", run).json()
    assert opened["verdict"]["mine"] == 3
    job = call("POST", f"{root}/jobs", {"kind": "why", "run_id": begun["run"]["id"]}).json()
    run_job(job["id"])
    told = call("GET", f"{root}/jobs/{job['id']}").json()["why"]
    assert told["making"]
    assert told["next"][-1]["document"] is None
    assert call("GET", f"{root}/runs?open_only=true").json()["runs"] == []
    assert call("GET", f"{root}/runs").json()["runs"][0]["judged"]


def test_what_was_learned_is_a_job(call, root, begun):
    job = call("POST", f"{root}/jobs", {"kind": "learn"}).json()
    run_job(job["id"])
    told = call("GET", f"{root}/jobs/{job['id']}").json()
    assert told["state"] == "done"
    assert told["learned"]["learned"] == []


@pytest.mark.parametrize(
    ("path", "body", "field"),
    [
        ("feel", {"felt": "squishy"}, "class"),
        ("pour", {"line": "gold", "grams": 3}, "line"),
        ("live", {"minute": 3, "readings": [{"minute": 3, "kind": "core", "value": 999}]}, "core"),
        ("entries", {"entries": [entry("a", "weighed", "water", 1) | {"at": "noon"}]}, "entries.at"),
    ],
)
def test_bad_input_is_told_by_field_and_nothing_is_kept(call, root, begun, path, body, field):
    reply = call("POST", f"{root}/runs/{begun['run']['id']}/{path}", body)
    assert reply.status_code == 422
    assert reply["Content-Type"] == "application/problem+json"
    assert reply.json()["field"] == field
    assert reply.json()["remedy"]
    assert Run.objects.get().entries.count() == 0


def test_a_verdict_of_an_unknown_fault_is_refused(call, root, begun):
    reply = call("PUT", f"{root}/runs/{begun['run']['id']}/verdict", {"faults": [{"id": "sad"}]})
    assert reply.status_code == 422
    assert "gummy" in reply.json()["allowed"]


def test_another_kitchens_run_is_not_there(caller, root, begun, people):
    elsewhere = people["outsider"].memberships.get().kitchen
    run = begun["run"]["id"]
    assert caller("outsider")("GET", f"/api/kitchens/{elsewhere.pk}/runs/{run}").status_code == 404
    assert (
        caller("outsider")("POST", f"/api/kitchens/{elsewhere.pk}/jobs", {"kind": "why", "run_id": run}).status_code
        == 404
    )


def test_pages_of_runs(call, root, begun, kitchen):
    first = Run.objects.get()
    Run.objects.bulk_create(
        Run(kitchen=kitchen, key=f"k{n}", formula_id=first.formula_id, name="x", form="bun", document={}, plan={}, started_at=first.started_at)
        for n in range(60)
    )  # fmt: skip
    page = call("GET", f"{root}/runs").json()
    assert (len(page["runs"]), page["total"]) == (50, 61)
    rest = call("GET", f"{root}/runs?offset=50").json()
    assert (len(rest["runs"]), rest["total"]) == (11, 61)
    assert not {run["id"] for run in page["runs"]} & {run["id"] for run in rest["runs"]}


@pytest.fixture
def photo():
    return jpeg(picture(62))


def send(caller, path, data, name="crust.jpg"):
    return caller("baker").client.post(path, {"photo": SimpleUploadedFile(name, data, "image/jpeg")})


def test_a_photo_tells_the_crusts_colour_and_can_be_deleted(caller, call, root, begun, photo):
    path = f"{root}/runs/{begun['run']['id']}/photos"
    told = send(caller, path, photo)
    assert told.status_code == 201, told.json()
    assert told.json()["lightness"] == pytest.approx(62, abs=3)
    kept = caller("viewer")("GET", f"{path}/{told.json()['id']}")
    assert kept["Content-Type"] == "image/jpeg"
    assert caller("outsider")("GET", f"{path}/{told.json()['id']}").status_code == 404
    assert len(call("GET", path).json()) == 1
    assert call("DELETE", f"{path}/{told.json()['id']}").status_code == 204
    assert call("GET", path).json() == []


@pytest.mark.parametrize(
    ("data", "status"),
    [(b"\x00\x00\x00\x20ftypmp42", 422), (b"", 422), (b"\xff" * 27_000_000, 413)],
    ids=["video", "empty", "27 MB"],
)
def test_what_is_no_photo_is_refused_and_nothing_is_kept(caller, call, root, begun, data, status):
    path = f"{root}/runs/{begun['run']['id']}/photos"
    refused = send(caller, path, data)
    assert refused.status_code == status
    assert refused.json()["remedy"]
    assert call("GET", path).json() == []
