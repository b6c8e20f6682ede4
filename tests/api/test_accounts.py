import hmac
import importlib
import json
import os
import re
import subprocess
import sys
from base64 import b32decode
from datetime import timedelta
from pathlib import Path
from struct import pack, unpack
from time import time

import pytest
from allauth.account.models import EmailAddress
from allauth.mfa.models import Authenticator
from django.apps import apps
from django.contrib.auth.models import User
from django.core.cache import cache
from django.utils import timezone

from kitchen.accounts.tries import FREE_PER_CLIENT, pause_s
from kitchen.models import Membership, SignInTries
from tests.api.conftest import Caller

pytestmark = pytest.mark.django_db
V1 = "/_allauth/browser/v1"
AUTH = f"{V1}/auth"
WHO = {"email": "new@example.com", "password": "a-rather-long-one"}


@pytest.fixture(autouse=True)
def _fresh_limits():
    cache.clear()


@pytest.fixture
def code(mailoutbox):
    """The code in the last letter."""
    return lambda: re.search(r"^ {4}(\S+)$", mailoutbox[-1].body, re.MULTILINE)[1]


def pending(reply):
    """What an answer says is still to be done."""
    return [flow["id"] for flow in reply.json()["data"]["flows"] if flow.get("is_pending")]


@pytest.fixture
def arrived(code):
    """A person who has signed up and proved their address."""

    def arrive(email=WHO["email"], call=None):
        call = call or Caller()
        assert pending(call("POST", f"{AUTH}/signup", {**WHO, "email": email})) == ["verify_email"]
        assert call("POST", f"{AUTH}/email/verify", {"key": code()}).status_code == 200
        return call

    return arrive


def test_signing_up_takes_a_code_from_the_letter_and_opens_a_kitchen(code, mailoutbox):
    call = Caller()
    assert pending(call("POST", f"{AUTH}/signup", WHO)) == ["verify_email"]
    assert call("GET", "/api/me").status_code == 401
    assert (mailoutbox[0].to, mailoutbox[0].subject) == ([WHO["email"]], "Your code for Substrata")
    assert call("POST", f"{AUTH}/email/verify", {"key": "WRONG1"}).status_code == 400
    assert call("POST", f"{AUTH}/email/verify", {"key": code()}).status_code == 200
    me = call("GET", "/api/me").json()
    assert [(k["role"], k["name"]) for k in me["kitchens"]] == [("owner", "New's kitchen")]
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


def test_nobody_is_told_who_has_an_account(arrived, mailoutbox):
    arrived()
    answers = []
    for path, known, unknown in (
        ("signup", WHO, {**WHO, "email": "other@example.com"}),
        ("password/request", {"email": WHO["email"]}, {"email": "nobody@example.com"}),
        ("login", {**WHO, "password": "not-this-one"}, {"email": "nobody@example.com", "password": "not-this-one"}),
    ):
        pair = [Caller()("POST", f"{AUTH}/{path}", body) for body in (known, unknown)]
        answers.append([(r.status_code, re.sub(r"\d+\.\d+", "", r.content.decode())) for r in pair])
    assert all(a == b for a, b in answers)
    assert [m.subject for m in mailoutbox[1:]] == [
        "You already have an account", "Your code for Substrata",
        "Your password reset code", "There is no account with this address",
    ]  # fmt: skip


def test_a_stranger_who_signs_up_with_my_address_gets_nothing_and_keeps_me_out_of_nothing(code, mailoutbox):
    Caller()("POST", f"{AUTH}/signup", {**WHO, "password": "the-strangers-own"})
    mine = Caller()
    assert pending(mine("POST", f"{AUTH}/signup", WHO)) == ["verify_email"]
    if (
        mailoutbox[-1].subject != "Your code for Substrata"
    ):  # the library holds the address for taken: a new password it is
        mine = Caller()
        mine("POST", f"{AUTH}/password/request", {"email": WHO["email"]})
        reset = {"key": code(), "password": WHO["password"]}
        mine("POST", f"{AUTH}/password/reset", reset)
    else:
        mine("POST", f"{AUTH}/email/verify", {"key": code()})
    assert Caller()("POST", f"{AUTH}/login", WHO).status_code == 200
    assert Caller()("POST", f"{AUTH}/login", {**WHO, "password": "the-strangers-own"}).status_code == 400
    assert EmailAddress.objects.filter(email=WHO["email"], verified=True).count() == 1


def test_a_stranger_who_guesses_waits_longer_each_time_and_the_person_not_at_all(arrived):
    arrived()

    def guess(password=WHO["email"], **client):
        return Caller(REMOTE_ADDR=client.get("at", "203.0.113.9"))(
            "POST", f"{AUTH}/login", {**WHO, "password": password}
        )

    replies = [guess() for _ in range(FREE_PER_CLIENT + 1)]
    assert [r.status_code for r in replies] == [400] * len(replies)
    assert "Wait 1 s" in replies[-1].json()["errors"][0]["message"]
    assert "Wait" in guess(WHO["password"]).json()["errors"][0]["message"]
    assert guess(WHO["password"], at="198.51.100.4").status_code == 200
    SignInTries.objects.update(last_at=timezone.now() - timedelta(seconds=2))
    guess()
    assert "Wait 2 s" in guess().json()["errors"][0]["message"]
    SignInTries.objects.update(last_at=timezone.now() - timedelta(hours=2))
    assert guess(WHO["password"]).status_code == 200
    assert pause_s(10_000, 5) == 60


def test_codes_of_a_second_factor_are_heard_five_times_in_five_minutes(arrived, mailoutbox):
    call, factor = arrived(), f"{V1}/account/authenticators"
    call("POST", f"{AUTH}/reauthenticate", {"password": WHO["password"]})
    secret = call("GET", f"{factor}/totp").json()["meta"]["secret"]
    assert call("POST", f"{factor}/totp", {"code": totp(secret)}).status_code == 200

    def tries(code, at="203.0.113.9"):
        other = Caller(REMOTE_ADDR=at)
        other("POST", f"{AUTH}/login", WHO)
        return other("POST", f"{AUTH}/2fa/authenticate", {"code": code})

    replies = [tries("000000", f"203.0.113.{n}").json()["errors"][0]["code"] for n in range(8)]
    assert replies == ["incorrect_code"] * 5 + ["too_many_login_attempts"] * 3
    assert tries(totp(secret)).status_code == 400, "the right one is not heard either"
    rows = call("GET", "/api/account/history").json()["rows"]
    assert [r["refused"] for r in rows if r["action"] == "second-factor"] == [True] * 5
    assert [m.subject for m in mailoutbox].count("Wrong codes for your account") == 1
    cache.clear()  # five minutes later
    assert tries(totp(secret)).status_code == 200


def test_the_password_that_ends_an_account_is_heard_as_seldom(arrived):
    call, closing = arrived(), "/api/account/closing"
    wrong = [call("PUT", closing, {"on": True, "password": f"not-this-one-{n}"}) for n in range(7)]
    assert {r.status_code for r in wrong} == {403}
    assert ["too many" in r.content.decode() for r in wrong] == [False] * 5 + [True] * 2
    assert call("PUT", closing, {"on": True, "password": WHO["password"]}).status_code == 403
    cache.clear()
    assert call("PUT", closing, {"on": True, "password": WHO["password"]}).status_code == 200


def test_signing_up_costs_the_same_work_whether_the_address_is_known_or_not(arrived):
    """A known address is not told by the time: both hash one password and open one kitchen, of which one is taken back."""
    from unittest.mock import patch

    arrived()
    done = []
    with patch("django.contrib.auth.base_user.make_password", side_effect=lambda p: done.append("hash") or f"!{p}"):
        for email in (WHO["email"], "stranger@example.com"):
            done.append(email)
            assert Caller()("POST", f"{AUTH}/signup", {**WHO, "email": email}).status_code == 401
    assert done == [WHO["email"], "hash", "stranger@example.com", "hash"]
    assert Membership.objects.count() == 2


def test_what_stands_in_a_forwarding_header_is_believed_only_of_proxies_that_are_counted(arrived, settings):
    arrived()
    for n in range(FREE_PER_CLIENT):
        Caller(HTTP_X_FORWARDED_FOR=f"10.0.0.{n}")("POST", f"{AUTH}/login", {**WHO, "password": "not-this-one"})
    assert "Wait" in Caller(HTTP_X_FORWARDED_FOR="10.0.0.77")("POST", f"{AUTH}/login", WHO).content.decode()
    settings.ALLAUTH_TRUSTED_PROXY_COUNT = 1
    assert Caller(HTTP_X_FORWARDED_FOR="10.0.0.77")("POST", f"{AUTH}/login", WHO).status_code == 200


def test_many_wrong_passwords_are_told_by_letter(arrived, mailoutbox):
    arrived()
    for n in range(20):
        Caller(REMOTE_ADDR=f"203.0.113.{n}")("POST", f"{AUTH}/login", {**WHO, "password": "not-this-one"})
    assert mailoutbox[-1].subject == "Failed sign-in attempts on your account"


def test_the_deployment_check_is_clean_behind_https():
    root = Path(__file__).parents[2]
    run = subprocess.run(
        [sys.executable, "manage.py", "check", "--deploy", "--fail-level", "WARNING"],
        cwd=root, capture_output=True, text=True, check=False,
        env=os.environ | {"SUBSTRATA_HTTPS": "1", "SUBSTRATA_SECRET_KEY": "k7" * 40 + "abcdefgh"},
    )  # fmt: skip
    assert run.returncode == 0, run.stderr


@pytest.mark.parametrize(
    ("client", "path"),
    [("browser", path) for path in ("account/phone", "auth/code/request", "auth/code/confirm", "auth/phone/verify", "auth/2fa/trust", "auth/webauthn/signup", "config")]
    + [("app", path) for path in ("account/email", "auth/login", "auth/signup", "tokens/refresh", "config")],
)  # fmt: skip
@pytest.mark.parametrize("method", ["GET", "POST", "PATCH"])
def test_of_the_accounts_library_only_what_the_page_asks_for_is_there(people, client, method, path):
    assert Caller(people["baker"])(method, f"/_allauth/{client}/v1/{path}", {"email": "x@y.test"}).status_code == 404


def test_a_password_is_changed_by_whoever_knows_the_old_one(arrived, mailoutbox):
    call, change = arrived(), f"{V1}/account/password/change"
    wrong = {"current_password": "not-this-one", "new_password": "quite-another-one"}
    assert call("POST", change, wrong).status_code == 400
    call("POST", change, {"current_password": WHO["password"], "new_password": "quite-another-one"})
    assert Caller()("POST", f"{AUTH}/login", {**WHO, "password": "quite-another-one"}).status_code == 200
    assert "Your password was changed" in [m.subject for m in mailoutbox]


def test_a_forgotten_password_is_replaced_with_the_code_of_a_letter(arrived, code):
    arrived()
    call = Caller()
    assert pending(call("POST", f"{AUTH}/password/request", {"email": WHO["email"]})) == ["password_reset_by_code"]
    assert call("POST", f"{AUTH}/password/reset", {"key": "WRONG1", "password": "quite-another-one"}).status_code == 400
    assert call("POST", f"{AUTH}/password/reset", {"key": code(), "password": "quite-another-one"}).status_code == 200
    assert call("GET", "/api/me").json()["email"] == WHO["email"]


def test_an_address_is_changed_only_with_the_code_sent_to_it(arrived, code, mailoutbox):
    arrived("neighbour@example.com")
    call = arrived()
    assert call("POST", f"{V1}/account/email", {"email": "mine@example.com"}).status_code == 401
    call("POST", f"{AUTH}/reauthenticate", {"password": WHO["password"]})
    for wanted in ("neighbour@example.com", "mine@example.com"):
        assert call("POST", f"{V1}/account/email", {"email": wanted}).status_code in (200, 400)
        assert call("GET", "/api/me").json()["email"] == WHO["email"]
    assert mailoutbox[-1].to == ["mine@example.com"]
    assert call("POST", f"{AUTH}/email/verify", {"key": code()}).status_code == 200
    assert call("GET", "/api/me").json()["email"] == "mine@example.com"
    assert User.objects.get(email="neighbour@example.com").emailaddress_set.get().verified


def totp(secret, at=None):
    """A code after RFC 6238 (30 s, 6 digits, SHA-1), written out from the standard."""
    counter = int((time() if at is None else at) // 30)
    key = b32decode(secret) if isinstance(secret, str) else secret
    digest = hmac.new(key, pack(">Q", counter), "sha1").digest()
    place = digest[-1] & 15
    return f"{(unpack('>I', digest[place : place + 4])[0] & 0x7FFFFFFF) % 1_000_000:06d}"


def test_the_codes_of_these_tests_are_those_of_the_standard():
    # RFC 6238, appendix B, SHA-1, the last six of eight digits.
    for at, printed in ((59, "94287082"), (1111111109, "07081804"), (20000000000, "65353130")):
        assert totp(b"12345678901234567890", at) == printed[2:]


def test_a_second_factor_is_asked_for_and_a_recovery_code_stands_in_once(arrived):
    call, factor = arrived(), f"{V1}/account/authenticators"
    secret = call("GET", f"{factor}/totp").json()["meta"]["secret"]
    assert b"<svg" in call("GET", "/api/account/second-factor.svg").content
    assert call("POST", f"{factor}/totp", {"code": "000000"}).status_code == 400
    assert call("POST", f"{factor}/totp", {"code": totp(secret)}).status_code == 401
    call("POST", f"{AUTH}/reauthenticate", {"password": WHO["password"]})
    assert call("POST", f"{factor}/totp", {"code": totp(secret)}).status_code == 200
    spare = call("GET", f"{factor}/recovery-codes").json()["data"]["unused_codes"]
    assert len(spare) == 10

    def comes_in(code):
        other = Caller()
        assert pending(other("POST", f"{AUTH}/login", WHO)) == ["mfa_authenticate"]
        assert other("GET", "/api/me").status_code == 401
        return other("POST", f"{AUTH}/2fa/authenticate", {"code": code}).status_code

    assert comes_in("123456") == 400
    assert [comes_in(spare[0]), comes_in(spare[0])] == [200, 400]
    assert call("DELETE", f"{factor}/totp").status_code == 200
    assert not Authenticator.objects.filter(type="totp").exists()


def test_other_browsers_are_listed_and_signed_out(arrived):
    call = arrived()
    other = Caller()
    other("POST", f"{AUTH}/login", WHO)
    rows = call("GET", f"{AUTH}/sessions").json()["data"]
    assert [row["is_current"] for row in rows].count(True) == 1
    ends = [row["id"] for row in rows if not row["is_current"]]
    assert len(ends) == 1
    call("DELETE", f"{AUTH}/sessions", {"sessions": ends})
    assert other("GET", "/api/me").status_code == 401
    assert call("GET", "/api/me").status_code == 200


def test_a_sign_in_from_elsewhere_is_told_by_letter_and_kept(arrived, mailoutbox):
    call = arrived()
    Caller(REMOTE_ADDR="203.0.113.9", HTTP_USER_AGENT="Elsewhere/1.0")("POST", f"{AUTH}/login", WHO)
    assert mailoutbox[-1].subject == "New sign-in to your account"
    assert "203.0.113.9" in mailoutbox[-1].body
    Caller(REMOTE_ADDR="203.0.113.9")("POST", f"{AUTH}/login", {**WHO, "password": "not-this-one"})
    rows = call("GET", "/api/account/history").json()["rows"]
    assert [(r["action"], r["refused"]) for r in rows[:2]] == [("sign-in", True), ("sign-in", False)]
    assert rows[0]["place"] == "203.0.113.9"


def test_an_account_ends_after_its_days_of_grace_unless_it_is_kept(arrived):
    from kitchen.models import Closing, Kitchen
    from kitchen.services.closing import erase_what_is_due

    call = arrived()
    closing = "/api/account/closing"
    assert call("PUT", closing, {"on": True, "password": "not-this-one"}).status_code == 403
    assert call("PUT", closing, {"on": True, "password": WHO["password"]}).json()["erased_at"]
    assert call("GET", "/api/me").json()["erased_at"]
    erase_what_is_due()
    assert call("PUT", closing, {"on": False}).json()["erased_at"] is None
    call("PUT", closing, {"on": True, "password": WHO["password"]})
    Closing.objects.update(erased_at=timezone.now())
    Kitchen.objects.update(erased_at=timezone.now())
    assert erase_what_is_due()["people"] == 1
    assert not User.objects.exists()
    assert not Kitchen.objects.exists()
    assert call("GET", "/api/me").status_code == 401


def test_who_never_proved_their_address_is_forgotten_and_nobody_else(people, code):
    from kitchen.services.closing import erase_what_is_due

    Caller()("POST", f"{AUTH}/signup", WHO)
    User.objects.update(date_joined=timezone.now() - timedelta(days=15))
    assert erase_what_is_due() == {"kitchens": 1, "people": 1, "history": 0}
    assert User.objects.count() == len(people)


def test_an_address_taken_from_a_stranger_goes_back(people):
    """What the open address book of 0.3.0 left behind: a thief whose account carries the baker's address."""
    thief, baker = people["outsider"], people["baker"]
    for user in (thief, baker):
        EmailAddress.objects.create(user=user, email=user.email, primary=True)
    EmailAddress.objects.filter(user=thief).update(primary=False)
    EmailAddress.objects.create(user=thief, email=baker.email, primary=True)
    User.objects.filter(pk=thief.pk).update(email=baker.email)
    give_back = importlib.import_module("kitchen.migrations.0004_addresses_given_back").give_back
    give_back(apps, None)
    thief.refresh_from_db()
    assert thief.email == "outsider@kitchen.test"


def test_no_answer_of_the_accounts_names_a_cookie_or_a_secret_in_the_history(arrived):
    call = arrived()
    rows = json.dumps(call("GET", "/api/account/history").json())
    assert WHO["password"] not in rows
    assert call.client.cookies["sessionid"].value not in rows
