import os
import subprocess
import sys
from pathlib import Path

import pytest
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
