import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext

from kitchen.services import formulas
from kitchen.services.access import membership
from tests.api.conftest import Caller
from tests.conftest import sample


def test_a_formula_goes_from_paste_to_version(caller, kitchen):
    call, root = caller("baker"), f"/api/kitchens/{kitchen.pk}"
    pasted = call(
        "POST", f"{root}/paste", {"text": "1 1/2 cups almond flour\n2 T psyllium husk powder\n2 lg eggs\nmoon dust"}
    ).json()
    assert [row["status"] for row in pasted] == ["read", "read", "read", "unknown"]
    lines = [line for row in pasted if row["status"] == "read" for line in row["lines"]]
    made = call("POST", f"{root}/formulas", {**sample(), "lines": lines}).json()
    assert made["lock"] == 1
    judged = call("POST", f"{root}/analyse", made["document"]).json()
    assert judged["totals"]["dough_g"] == pytest.approx(159 + 16 + 100)
    one = f"{root}/formulas/{made['id']}"
    saved = call("PUT", f"{one}/draft", {"document": {**made["document"], "notes": "sift"}, "lock": 1}).json()
    assert saved["lock"] == 2
    assert call("POST", f"{one}/versions", {"lock": 2, "note": "first"}).json()["number"] == 1
    assert call("GET", f"{one}/versions/1").json()["document"]["notes"] == "sift"
    assert call("GET", f"{one}/compare?before=1&after=0").json() == []


def test_a_stale_lock_answers_409_with_what_is_there(caller, at):
    call = caller("baker")
    call("PUT", f"{at}/draft", {"document": sample(pieces=8), "lock": 1})
    reply = call("PUT", f"{at}/draft", {"document": sample(pieces=9), "lock": 1})
    assert reply.status_code == 409
    problem = reply.json()
    assert problem["current"]["document"]["form"]["pieces"] == 8
    assert problem["current"]["differences"] == ["9 → 8 pieces"]


@pytest.mark.parametrize(
    ("change", "line", "field"),
    [
        ({"form": {"kind": "bun", "pieces": 0}}, None, "pieces"),
        ({"form": {"kind": "brick", "pieces": 1}}, None, "form"),
        ({"lines": [{"id": "a", "ingredient": "egg", "grams": "many"}]}, "line 1", "grams"),
        ({"lines": [{"id": "a", "ingredient": "egg", "role": "glue"}]}, "a", "role"),
        ({"lines": [{"id": "a", "ingredient": "egg"}, {"id": "a", "ingredient": "salt"}]}, "a", "id"),
        ({"lines": [{"ingredient": "egg"}]}, "line 1", "id"),
        ({"substrata": 7}, None, "substrata"),
    ],
)
def test_a_refusal_names_line_and_field(caller, kitchen, change, line, field):
    reply = caller("baker")("POST", f"/api/kitchens/{kitchen.pk}/analyse", {**sample(), **change})
    problem = reply.json()
    assert reply.status_code == 422
    assert (problem.get("line"), problem["field"]) == (line, field)
    assert problem["allowed"]


def test_lines_that_cannot_be_weighed_come_back_as_problems_beside_the_figures(caller, kitchen):
    document = sample()
    document["lines"] += [
        {"id": "x", "ingredient": "moon-dust", "grams": 3},
        {"id": "n", "ingredient": "salt", "grams": -3},
    ]
    judged = caller("viewer")("POST", f"/api/kitchens/{kitchen.pk}/analyse", document).json()
    assert {p["line"] for p in judged["problems"]} == {"x", "n"}
    assert judged["totals"]["dough_g"] == 424


@pytest.mark.parametrize(
    "body", ["", "{", "null", "[1]", '{"text": 5}', '{"text": "\\ud800"}', '{"text":"' + "x" * 30_000 + '"}']
)
def test_a_broken_body_is_a_clear_refusal(people, kitchen, body):
    call = Caller(people["baker"])
    reply = call.client.generic("POST", f"/api/kitchens/{kitchen.pk}/paste", body, content_type="application/json")
    assert reply.status_code in (400, 422)
    assert reply.json()["title"]


def test_ten_megabytes_are_refused_before_they_are_read(people, kitchen):
    reply = Caller(people["baker"])("POST", f"/api/kitchens/{kitchen.pk}/paste", {"text": "x" * 10_000_000})
    assert reply.status_code == 413
    assert reply.json()["remedy"]


def test_a_file_of_products_may_be_larger_than_other_bodies_but_not_endless(people, kitchen):
    call, root = Caller(people["baker"]), f"/api/kitchens/{kitchen.pk}"
    row = "Sea salt of " + "many words " * 12 + "\n"
    assert call("POST", f"{root}/paste", {"text": "name\n" + row * 9_000}).status_code == 413
    assert call("POST", f"{root}/imports", {"text": "name\n" + row * 9_000}).status_code == 201
    assert call("POST", f"{root}/imports", {"text": "name\n" + row * 21_000}).json()["title"] == "the file is too large"
    assert call("POST", f"{root}/imports", {"text": "name\n" + row * 90_000}).status_code == 413


@pytest.mark.parametrize("name", ["<script>alert(1)</script>", "Brötchen 🥖", "a" * 120])
def test_any_name_is_kept_as_it_was_written(caller, kitchen, name):
    call = caller("baker")
    made = call("POST", f"/api/kitchens/{kitchen.pk}/formulas", sample(name)).json()
    assert call("GET", f"/api/kitchens/{kitchen.pk}/formulas/{made['id']}").json()["document"]["name"] == name


def test_a_null_character_is_refused_not_crashed_on(caller, kitchen):
    assert caller("baker")("POST", f"/api/kitchens/{kitchen.pk}/formulas", sample("a\x00b")).status_code == 422


def queries(call, *request):
    with CaptureQueriesContext(
        connection,
    ) as captured:
        assert call(*request).status_code == 200
    return len(captured)


def test_the_number_of_queries_does_not_grow_with_the_shelf(caller, people, kitchen):
    call, path = caller("viewer"), f"/api/kitchens/{kitchen.pk}/formulas"
    counts = []
    for size in (2, 12):
        for n in range(size):
            formulas.create_formula(membership(people["baker"], kitchen.pk), sample(f"F{size}-{n}"))
        counts.append(queries(call, "GET", path))
    assert counts[0] == counts[1] <= 6


def test_the_number_of_queries_does_not_grow_with_versions_or_lines(caller, people, kitchen, made, at):
    call, counts = caller("baker"), []
    for n in range(6):
        lock = 2 * n + 1
        formulas.save_draft(membership(people["baker"], kitchen.pk), made.pk, sample(pieces=10 + n), lock)
        formulas.save_version(membership(people["baker"], kitchen.pk), made.pk, lock + 1)
        counts.append(queries(call, "GET", f"{at}/versions"))
    assert counts[0] == counts[-1]


def test_while_a_finger_drags_the_database_is_asked_once(caller, kitchen):
    call, path = caller("baker"), f"/api/kitchens/{kitchen.pk}/analyse"
    assert queries(call, "POST", path, sample()) > 1
    assert queries(call, "POST", path, sample()) > 0  # the first with the pass reads the kitchen's choices
    assert queries(call, "POST", path, sample()) == 1


def test_ingredients_are_found_as_one_types(caller):
    found = caller("viewer")("GET", "/api/ingredients?search=psy").json()
    assert found[0]["id"].startswith("psyllium")
    assert caller("viewer")("GET", "/api/ingredients?limit=9999").status_code == 422
