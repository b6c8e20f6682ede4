"""People as such: asked in by letter, coming in, watched by a second factor, and the server away for a while."""

import re

import pytest
from django.core import mail
from playwright.sync_api import expect

from kitchen.demo.load import DEMO_PASSWORD
from kitchen.models import Draft
from tests.api.test_accounts import totp
from tests.browser.conftest import formula_link, sign_in
from tests.browser.test_newcomer import code_of

pytestmark = pytest.mark.browser
PASSWORD = "a-long-word-of-mine"


def once_more(page):
    page.get_by_label("Confirm your password").fill(DEMO_PASSWORD)
    page.get_by_role("button", name="Continue", exact=True).click()


def test_somebody_is_asked_in_comes_in_and_leaves(shelf, site, browser, browser_context_args):
    shelf.goto(f"{site}/kitchen")
    shelf.get_by_label("Invite a member").fill("helper@example.com")
    shelf.get_by_role("button", name="Send invitation", exact=True).click()
    expect(shelf.get_by_text("asked in as baker")).to_be_visible()
    link = re.search(r"/invitation/\S+", mail.outbox[-1].body)[0]
    context = browser.new_context(**browser_context_args)
    helper = context.new_page()
    helper.goto(site + link)
    expect(helper.get_by_text("h…@example.com")).to_be_visible()
    helper.get_by_role("link", name="Create account", exact=True).click()
    helper.get_by_label("E-mail").fill("helper@example.com")
    helper.get_by_label("Password").fill(PASSWORD)
    helper.keyboard.press("Enter")
    helper.get_by_text("We sent a code to").wait_for()
    helper.get_by_label("Code").fill(code_of(mail.outbox[-1]))
    helper.keyboard.press("Enter")
    helper.get_by_role("button", name="Join kitchen", exact=True).click()
    expect(helper.get_by_text("Market rolls, egg-free").first).to_be_visible()
    shelf.reload()
    expect(shelf.get_by_label("Role of helper@example.com")).to_be_visible()
    expect(shelf.get_by_text("joined the kitchen")).to_be_visible()
    helper.goto(f"{site}/kitchen")
    helper.get_by_role("button", name="Leave kitchen", exact=True).click()
    expect(helper.get_by_text("You have left The Saturday stall")).to_be_visible()
    context.close()


def test_a_second_factor_is_set_up_and_asked_for(shelf, site, browser, browser_context_args):
    shelf.goto(f"{site}/account")
    shelf.get_by_role("button", name="Set up an authenticator", exact=True).click()
    secret = shelf.locator(".factor code").inner_text()
    expect(shelf.locator(".factor img")).to_have_js_property("complete", value=True)
    shelf.get_by_label("Code from the app").fill(totp(secret))
    shelf.get_by_role("button", name="Turn it on", exact=True).click()
    once_more(shelf)
    expect(shelf.locator(".spare code")).to_have_count(10)
    spare = shelf.locator(".spare code").first.inner_text()
    context = browser.new_context(**browser_context_args)
    other = context.new_page()
    other.goto(f"{site}/sign-in")
    other.get_by_label("E-mail").fill("baker@example.com")
    other.get_by_label("Password").fill(DEMO_PASSWORD)
    other.keyboard.press("Enter")
    other.get_by_label("Code").fill(spare)
    other.keyboard.press("Enter")
    other.get_by_role("heading", name="Formulas", exact=True).wait_for()
    shelf.reload()
    shelf.get_by_role("button", name="Sign out this device", exact=True).click()
    expect(shelf.get_by_text("That device is signed out.")).to_be_visible()
    other.reload()
    expect(other.get_by_label("Password")).to_be_visible()
    context.close()


def test_a_passkey_of_the_device_signs_in(shelf, site):
    session = shelf.context.new_cdp_session(shelf)
    session.send("WebAuthn.enable")
    session.send(
        "WebAuthn.addVirtualAuthenticator",
        {"options": {"protocol": "ctap2", "transport": "internal", "hasResidentKey": True, "hasUserVerification": True, "isUserVerified": True}},
    )  # fmt: skip
    shelf.goto(f"{site}/account")
    shelf.get_by_role("button", name="Add a passkey of this device", exact=True).click()
    once_more(shelf)
    expect(shelf.get_by_text("Passkey “")).to_be_visible()
    shelf.context.clear_cookies()
    shelf.goto(f"{site}/sign-in")
    shelf.get_by_role("button", name="Sign in with a passkey", exact=True).click()
    shelf.get_by_role("heading", name="Formulas", exact=True).wait_for()


def test_while_the_server_is_away_the_page_says_so_keeps_the_work_and_sends_it_later(shelf, site):
    def away(route):
        route.fulfill(status=503, content_type="application/problem+json", body='{"title": "away", "status": 503}')

    formula_link(shelf, "Mustard twists").click()
    field = shelf.get_by_label(re.compile("Egg.*, weighs")).first
    field.wait_for()
    shelf.route("**/api/**", away)
    shelf.route("**/health/ready", away)
    field.fill("201")
    field.press("Enter")
    expect(shelf.get_by_text("No connection to the server")).to_be_visible()
    shelf.unroute("**/api/**")
    shelf.unroute("**/health/ready")
    shelf.get_by_role("button", name="Try again", exact=True).click()
    expect(shelf.get_by_text("No connection to the server")).to_be_hidden()
    expect(field).to_have_value("201")
    shelf.get_by_text("draft", exact=True).first.wait_for()
    lines = Draft.objects.get(formula__name="Mustard twists").document["lines"]
    assert "201 g" in [line["entered"] for line in lines]


def test_a_wrong_password_is_told_and_the_next_try_is_free(page, site):
    page.goto(f"{site}/sign-in")
    page.get_by_label("E-mail").fill("baker@example.com")
    page.get_by_label("Password").fill("not-this-one")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_be_visible()
    sign_in(page, site)
