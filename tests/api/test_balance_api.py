"""Settle, reach, trade-off and begin as jobs, and remedies and what-if, by HTTP."""

import pytest

from kitchen.models import Job
from kitchen.services import formulas, packs
from kitchen.services.access import membership
from kitchen.services.jobs import run_job
from substrata import load_library, read_document
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import figures
from tests.conftest import sample

ROLLS = {"almond_flour": 150, "psyllium_powder": 35, "egg_white": 99, "water": 225, "cider_vinegar": 15, "baking_powder": 12, "salt": 5}  # fmt: skip


@pytest.fixture
def done(caller, kitchen):
    """A job asked for and worked off; what it answers."""

    def run(body, status=201):
        call, jobs = caller("baker"), f"/api/kitchens/{kitchen.pk}/jobs"
        reply = call("POST", jobs, body)
        assert reply.status_code == status, reply.json()
        if status != 201:
            return reply.json()
        run_job(reply.json()["id"])
        return call("GET", f"{jobs}/{reply.json()['id']}").json()

    return run


def test_a_formula_is_settled_in_the_background(done):
    document = sample(**ROLLS) | {"targets": {"net_carbs": {"low": None, "high": 2.4}}}
    job = done({"kind": "settle", "document": document, "wish": {}})
    assert job["state"] == "done"
    assert job["done"] > 0
    answer = job["settlement"]
    assert answer["status"] == "settled"
    assert answer["started"]["water"] == 225
    for way in answer["ways"]:
        after = figures(Dough(read_document(way["document"]), load_library()))
        assert after.values["net_carbs"] <= 2.4001
    assert job["map"] is job["rows"] is job["front"] is None


def test_the_saved_version_is_what_the_change_is_measured_against(done, people, kitchen):
    kept = formulas.create_formula(membership(people["baker"], kitchen.pk), sample(**ROLLS))
    formulas.save_version(membership(people["baker"], kitchen.pk), kept.formula.pk, 1)
    draft = sample(**ROLLS | {"water": 450})
    job = done({"kind": "settle", "document": draft, "formula_id": kept.formula.pk, "wish": {"may_bring": False}})
    water = next(c for c in job["settlement"]["ways"][0]["changes"] if c["line"] == "water")
    assert 215 <= water["after"] <= 235
    # Another kitchen's formula is nothing to measure against, and no way to look into it.
    other = done(
        {"kind": "settle", "document": draft, "formula_id": kept.formula.pk + 1000, "wish": {"may_bring": False}}
    )
    assert other["state"] == "done"


def test_reach_trade_off_and_beginnings(done):
    reach = done({"kind": "reach", "document": sample(**ROLLS), "keys": ["net_carbs", "protein"]})["reach"]
    assert [end["key"] for end in reach] == ["net_carbs", "protein"]
    assert all(end["low"] <= end["now"] <= end["high"] for end in reach)
    front = done({"kind": "front", "document": sample(**ROLLS), "x": "net_carbs", "y": "change"})["front"]
    assert front["points"]
    assert read_document(front["points"][-1]["document"]).lines
    again = done({"kind": "front", "document": sample(**ROLLS), "x": "net_carbs", "y": "change"})
    assert again["front"] == front
    assert Job.objects.filter(kind="front").count() == 1  # the same question is not worked out twice
    made = done({"kind": "begin", "form": "bun", "without": ["dairy"]})["beginnings"]
    assert len(made) >= 3
    assert all(
        "-" not in weight["name"].split(",")[0].replace("part-defatted", "")
        for one in made
        for weight in one["weights"]
    )


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"kind": "settle", "document": sample(), "wish": {"without": ["gluten"]}}, "without"),
        ({"kind": "settle", "document": sample(), "wish": {"texture": {"crisp": {"low": 8, "high": 2}}}}, "targets.crisp"),
        ({"kind": "settle", "document": sample(), "wish": {"margin": 9}}, ""),
    ],
)  # fmt: skip
def test_what_cannot_be_wished_for_is_refused_before_it_waits(done, body, field):
    told = done(body, status=422)
    assert told["remedy"] or told["title"]
    if field:
        assert told["field"] == field
    assert not Job.objects.exists()


def test_only_what_the_kitchen_has_is_brought_in(done, people, kitchen):
    packs.create_lot(membership(people["baker"], kitchen.pk), {"ingredient": "oat-fibre", "name": "Oat fibre"}, 200)
    packs.create_lot(membership(people["baker"], kitchen.pk), {"ingredient": "almond-flour", "name": "Almonds"}, 400)
    document = sample(**ROLLS) | {"targets": {"protein": {"low": 10, "high": None}}}
    free = done({"kind": "settle", "document": document, "wish": {}})["settlement"]
    bound = done({"kind": "settle", "document": document, "wish": {"only_stock": True}})["settlement"]
    brought = lambda told: {c["ingredient"] for way in told["ways"] for c in way["changes"] if c["new"]}  # noqa: E731
    assert brought(free)
    assert brought(bound) <= {"water", "almond-flour", "oat-fibre"}
    made = done({"kind": "begin", "form": "bun", "only_stock": True})["beginnings"]
    assert all(weight["name"] != "Sunflower seed flour" for one in made for weight in one["weights"])


def test_a_job_that_cannot_be_done_says_why(done):
    job = done({"kind": "begin", "form": "sandcastle"})
    assert job["state"] == "failed"
    assert job["problem"]["what"]


def test_remedies_and_a_swept_line(caller, kitchen):
    root = f"/api/kitchens/{kitchen.pk}"
    wet = sample(**ROLLS | {"water": 450})
    mends = caller("viewer")("POST", f"{root}/remedies", {"document": wet}).json()
    assert mends[0]["line"] == "water"
    assert mends[0]["grams"] < 300
    sweep = caller("viewer")("POST", f"{root}/what-if", {"document": wet, "line": "water"}).json()
    assert len(sweep["grams"]) == 25
    refused = caller("viewer")("POST", f"{root}/what-if", {"document": wet, "line": "nobody"})
    assert refused.status_code == 422
    assert refused.json()["field"] == "line"
