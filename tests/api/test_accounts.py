import importlib
import os
import subprocess
import sys
from pathlib import Path

import pytest
from allauth.account.models import EmailAddress
from django.apps import apps
from django.contrib.auth.models import User
from django.core.cache import cache

from kitchen.models import Membership
from tests.api.conftest import Caller

pytestmark = pytest.mark.django_db
AUTH = "/_allauth/browser/v1/auth"
WHO = {"email": "new@example.com", "password": "a-rather-long-one"}


@pytest.fixture(autouse=True)
def _fresh_limits():
    cache.clear()


def test_signing_up_opens_a_kitchen_signing_out_closes_the_door_and_signing_in_opens_it():
    call = Caller()
    assert call("POST", f"{AUTH}/signup", WHO).status_code == 200
    me = call("GET", "/api/me").json()
    assert me["kitchens"][0]["role"] == "owner"
    assert me["kitchens"][0]["name"] == "New's kitchen"
    call("DELETE", f"{AUTH}/session")
    assert call("GET", "/api/me").status_code == 401
    assert call("POST", f"{AUTH}/login", WHO).status_code == 200
    assert call("GET", "/api/me").status_code == 200


@pytest.mark.parametrize("password", ["short", "password12", "1234567890"])
def test_a_weak_password_is_refused_with_a_reason(password):
    reply = Caller()("POST", f"{AUTH}/signup", {**WHO, "password": password})
    assert reply.status_code == 400
    assert reply.json()["errors"][0]["message"]
    assert not Membership.objects.exists()


def test_guessing_a_password_ends_in_a_locked_door_even_for_the_right_one():
    Caller()("POST", f"{AUTH}/signup", WHO)
    for n in range(8):
        Caller()("POST", f"{AUTH}/login", {**WHO, "password": f"guess-number-{n}"})
    reply = Caller()("POST", f"{AUTH}/login", WHO)
    assert reply.status_code in (400, 429)
    assert reply.json()["errors"][0]["code"] == "too_many_login_attempts"


def test_the_deployment_check_is_clean_behind_https():
    root = Path(__file__).parents[2]
    run = subprocess.run(
        [sys.executable, "manage.py", "check", "--deploy", "--fail-level", "WARNING"],
        cwd=root, capture_output=True, text=True, check=False,
        env=os.environ | {"SUBSTRATA_HTTPS": "1", "SUBSTRATA_SECRET_KEY": "k7" * 40 + "abcdefgh"},
    )  # fmt: skip
    assert run.returncode == 0, run.stderr


@pytest.mark.parametrize(
    ("method", "path"),
    [(method, path) for path in ("account/email", "account/phone", "auth/email/verify", "auth/password/request", "auth/reauthenticate", "config") for method in ("GET", "POST", "PATCH")],
)  # fmt: skip
@pytest.mark.parametrize("client", ["browser", "app"])
def test_of_the_accounts_library_only_what_the_page_asks_for_is_there(people, client, method, path):
    assert (
        Caller(people["baker"])(method, f"/_allauth/{client}/v1/{path}", {"email": "owner@kitchen.test"}).status_code
        == 404
    )


def test_a_password_is_changed_by_whoever_knows_the_old_one():
    call, change = Caller(), "/_allauth/browser/v1/account/password/change"
    call("POST", f"{AUTH}/signup", WHO)
    assert (
        call("POST", change, {"current_password": "not-this-one", "new_password": "quite-another-one"}).status_code
        == 400
    )
    call("POST", change, {"current_password": WHO["password"], "new_password": "quite-another-one"})
    assert Caller()("POST", f"{AUTH}/login", {**WHO, "password": "quite-another-one"}).status_code == 200


def test_an_address_taken_from_a_stranger_gets_no_invitation_and_goes_back(people, kitchen):
    """What the open address book of 0.3.0 left behind: a thief whose account carries the baker's address."""
    thief, baker = people["outsider"], people["baker"]
    for user in (thief, baker):
        EmailAddress.objects.create(user=user, email=user.email, primary=True)
    EmailAddress.objects.filter(user=thief).update(primary=False)
    EmailAddress.objects.create(user=thief, email=baker.email, primary=True)
    User.objects.filter(pk=thief.pk).update(email=baker.email)

    def invite():
        return Caller(people["owner"])(
            "POST", f"/api/kitchens/{kitchen.pk}/members", {"email": "Baker@kitchen.test", "role": "owner"}
        )

    assert (invite().status_code, kitchen.memberships.filter(user=thief).exists()) == (422, False)
    give_back = importlib.import_module("kitchen.migrations.0004_addresses_given_back").give_back
    give_back(apps, None)
    thief.refresh_from_db()
    assert thief.email == "outsider@kitchen.test"
    assert invite().status_code == 200
    assert kitchen.memberships.get(user=baker).role == "owner"
