import re

import pytest
from allauth.account.models import EmailAddress

from kitchen.models import AuditRow, Kitchen
from substrata.base.messages.reader import current_reader
from tests.conftest import sample


def test_me_lists_only_ones_own_kitchens(caller):
    assert [k["name"] for k in caller("owner")("GET", "/api/me").json()["kitchens"]] == ["The corner kitchen"]
    assert [k["role"] for k in caller("viewer")("GET", "/api/me").json()["kitchens"]] == ["viewer"]


def test_what_is_left_out_of_a_settings_change_stays(caller, kitchen):
    changed = caller("baker")("PATCH", f"/api/kitchens/{kitchen.pk}", {"spoons": "australian"}).json()
    assert (changed["spoons"], changed["convention"], changed["name"]) == ("australian", "us", "The corner kitchen")
    assert AuditRow.objects.get(action="kitchen.settings").detail == {"spoons": "australian"}


@pytest.mark.parametrize(
    ("change", "field"), [({"spoons": "imperial"}, "spoons"), ({"name": " "}, "name"), ({"units": "stone"}, "units")]
)
def test_a_setting_that_cannot_be_is_refused_with_its_choices(caller, kitchen, change, field):
    reply = caller("baker")("PATCH", f"/api/kitchens/{kitchen.pk}", change)
    assert reply.status_code == 422
    assert (reply.json()["field"], bool(reply.json()["allowed"])) == (field, True)


def test_spoons_change_what_a_typed_cup_weighs(caller, kitchen):
    call, path = caller("baker"), f"/api/kitchens/{kitchen.pk}"
    cup = {"form": {"kind": "bun", "pieces": 1}, "lines": [{"id": "w", "ingredient": "water", "entered": "1 cup"}]}
    us = call("POST", f"{path}/analyse", cup).json()["totals"]["dough_g"]
    call("PATCH", path, {"spoons": "metric"})
    metric = call("POST", f"{path}/analyse", cup).json()["totals"]["dough_g"]
    assert metric / us == pytest.approx(250 / 236.588, rel=1e-4)


def test_people_are_asked_in_come_and_go(caller, people, kitchen, mailoutbox):
    owner, path, asked = (
        caller("owner"),
        f"/api/kitchens/{kitchen.pk}/members",
        f"/api/kitchens/{kitchen.pk}/invitations",
    )
    EmailAddress.objects.create(user=people["outsider"], email="outsider@kitchen.test", verified=True, primary=True)
    sent = [
        owner("POST", asked, {"email": email, "role": "baker"})
        for email in ("outsider@kitchen.test", "no-account@kitchen.test")
    ]
    assert [s.status_code for s in sent] == [200, 200]
    assert {tuple(s.json()) for s in sent} == {("id", "email", "role", "valid_until")}
    link = "/api/invitations/" + mailoutbox[0].body.partition("/invitation/")[2].split()[0]
    seen = caller(None)("GET", link).json()
    assert (seen["kitchen"], seen["email"], seen["yours"], seen["signed_in"]) == (
        kitchen.name,
        "o…@kitchen.test",
        False,
        "",
    )
    assert caller("viewer")("POST", link).status_code == 403
    assert caller("outsider")("GET", f"/api/kitchens/{kitchen.pk}/formulas").status_code == 404
    assert caller("outsider")("POST", link).json() == {"kitchen_id": kitchen.pk}
    assert caller("outsider")("GET", f"/api/kitchens/{kitchen.pk}/formulas").status_code == 200
    assert [row["email"] for row in owner("GET", asked).json()] == ["no-account@kitchen.test"]
    assert owner("DELETE", f"{path}/{people['outsider'].pk}").status_code == 204
    assert caller("outsider")("GET", f"/api/kitchens/{kitchen.pk}/formulas").status_code == 404


def test_the_last_owner_cannot_leave(caller, people, kitchen):
    reply = caller("owner")("DELETE", f"/api/kitchens/{kitchen.pk}/members/{people['owner'].pk}")
    assert (reply.status_code, reply.json()["title"]) == (422, "a kitchen needs an owner")


def test_a_kitchen_of_ones_own_is_opened(caller):
    made = caller("viewer")("POST", "/api/kitchens", {"name": "  Mine  "}).json()
    assert (made["name"], made["role"]) == ("Mine", "owner")
    assert Kitchen.objects.filter(name="Mine").count() == 1


def test_sentences_are_answered_in_the_kitchens_units_and_only_in_that_kitchen(caller, kitchen):
    call, path = caller("baker"), f"/api/kitchens/{kitchen.pk}"
    asked = {"document": sample()}

    def texts():
        bake = call("POST", f"{path}/bake", asked).json()["forecast"]
        return (bake["text"], call("POST", f"{path}/shape", sample()).json()["text"])

    for text in texts():
        assert re.search(r"\d (g|mm)\b", text)
    call("PATCH", path, {"units": "us"})
    for text in texts():
        assert re.search(r"\d (oz|in)\b", text)
        assert not re.search(r"\d (g|mm|°C)\b", text)
    assert current_reader().units == "metric", "nothing stays of the request before"
