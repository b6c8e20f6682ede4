"""Somebody who has never seen it: from signing up to a printed card in hand, and the same on a phone."""

import json
import re
from pathlib import Path

import pytest
from django.core import mail
from playwright.sync_api import expect

from kitchen.models import Draft, Formula, Kitchen

pytestmark = pytest.mark.browser
# A list as it stands in a notebook; ratios of our own.
NOTEBOOK = """Friday night rolls
Makes 8
- 2 cups almond flour
2 handfuls shredded mozz
a knob of butter
good glug of evoo
2 tsp bp
2 T psyllium husk powder
3 eggs
1/2 cup warm water
dash salt
bake at 400F for 15-18 min
Serve warm."""


def code_of(letter):
    return re.search(r"^ {4}(\S+)$", letter.body, re.MULTILINE)[1]


def sign_up(page, site, email):
    page.goto(f"{site}/formula")
    page.get_by_role("button", name="Create account", exact=True).press("Enter")
    expect(page.get_by_text("at least 10 characters")).to_be_visible()
    page.get_by_label("E-mail").fill(email)
    page.get_by_label("Password").fill("a-long-word-of-mine")
    page.get_by_label("Password").press("Enter")
    page.get_by_text(f"We sent a code to {email}").wait_for()
    page.get_by_label("Code").fill(code_of(mail.outbox[-1]))
    page.get_by_label("Code").press("Enter")
    page.get_by_role("heading", name="Your kitchen has no formulas yet", exact=True).wait_for()


def target(page, key, low="", high=""):
    page.locator(f"[data-bracket={key}] .head").press("Enter")
    for side, value in (("from", low), ("to", high)):
        if value:
            field = page.locator(f"[data-bracket={key}]").get_by_label(side, exact=True)
            field.fill(value)
            field.press("Enter")


def figures(page):
    page.locator("[data-bracket=net_carbs] .value b").wait_for()
    return [
        page.locator(f"[data-bracket={key}] .value b").inner_text()
        for key in ("net_carbs", "protein", "salt", "water_fill")
    ]


def begin_and_turn_back(page):
    # From nothing, and nothing is left behind when one turns back.
    page.get_by_role("button", name="Start with a blank formula", exact=True).press("Enter")
    page.get_by_text("No ingredients yet").first.wait_for()
    page.get_by_role("link", name="Pantry", exact=True).press("Enter")
    page.get_by_role("heading", name="Pantry", exact=True).wait_for()
    page.get_by_role("link", name="Formulas", exact=True).press("Enter")
    page.get_by_role("heading", name="Your kitchen has no formulas yet", exact=True).wait_for()
    # The list may still be the one that was read before; what was begun is given back all the same.
    left = Formula.objects.filter(kitchen__memberships__user__email="first@kitchen.test")
    for _ in range(100):
        if not left.exists():
            break
        page.wait_for_timeout(100)
    assert not left.exists()


def taken_elsewhere(context, site, file, here):
    """Into another kitchen, with the same figures."""
    other = context.new_page()
    sign_up(other, site, "second@kitchen.test")
    other.get_by_label("Formula files").set_input_files(file)
    other.get_by_role("link", name=re.compile("Friday night rolls")).press("Enter")
    assert figures(other) == here
    expect(other.get_by_role("button", name=re.compile("^v1"))).to_be_visible()
    context.close()


def test_from_signing_up_to_a_card_and_into_another_kitchen(page, site, browser, browser_context_args, tmp_path):
    sign_up(page, site, "first@kitchen.test")
    begin_and_turn_back(page)
    page.get_by_role("button", name="Paste a recipe", exact=True).press("Enter")
    page.get_by_label("Ingredient list").fill(NOTEBOOK)
    expect(page.get_by_text("name: Friday night rolls")).to_be_visible()
    expect(page.get_by_text("oven at 204 °C, 16 min").or_(page.get_by_text("oven at 204 °C, 17 min"))).to_be_visible()
    expect(page.locator(".rows .grams").filter(has_text="±").first).to_be_visible()
    assert "olive-oil" not in page.locator(".rows").inner_text()
    page.get_by_role("button", name="Ignore dash salt", exact=True).press("Enter")
    page.get_by_role("button", name="Add 8 lines", exact=True).press("Enter")
    expect(page.get_by_label("Name of the formula")).to_have_value("Friday night rolls")
    expect(page.get_by_role("button", name=re.compile("8 pieces"))).to_be_visible()

    # One key to the add field; what was typed beside the name stays.
    page.locator("body").press("/")
    page.keyboard.type("4 g salt crushed finely")
    page.get_by_role("option").first.wait_for()
    page.keyboard.press("Enter")
    page.locator("[data-line=salt]").wait_for()
    target(page, "net_carbs", high="3.5")
    target(page, "protein", low="9")

    page.get_by_role("button", name="More actions", exact=True).press("Enter")
    page.get_by_role("listitem").filter(has_text="Scale").or_(
        page.locator(".v-list-item", has_text="Scale")
    ).first.press("Enter")
    page.get_by_label("times as much").fill("1.5")
    expect(page.get_by_text("12 pieces")).to_be_visible()
    page.get_by_label("times as much").press("Enter")
    expect(page.get_by_role("button", name=re.compile("12 pieces"))).to_be_visible()

    page.locator("body").press("v")
    page.get_by_label("Note for the version").fill("from the notebook")
    page.get_by_label("Note for the version").press("Enter")
    expect(page.get_by_text("Saved as version 1.")).to_be_visible()
    document = Draft.objects.get(formula__name="Friday night rolls").document
    assert document["targets"] == {"net_carbs": {"low": None, "high": 3.5}, "protein": {"low": 9, "high": None}}
    assert next(line for line in document["lines"] if line["id"] == "salt")["note"] == "crushed finely"
    assert document["notes"] == "Serve warm."
    page.get_by_role("button", name="Back to ingredients", exact=True).press("Enter")
    here = figures(page)

    page.keyboard.press("Control+k")
    page.keyboard.type("export with")
    with page.expect_download() as download:
        page.keyboard.press("Enter")
    file = tmp_path / "rolls.substrata.json"
    file.write_bytes(Path(download.value.path()).read_bytes())
    assert [v["note"] for v in json.loads(file.read_text(encoding="utf8"))["formulas"][0]["versions"]] == [
        "from the notebook"
    ]

    taken_elsewhere(browser.new_context(**browser_context_args), site, file, here)

    page.get_by_role("link", name="Card", exact=True).press("Enter")
    page.get_by_role("button", name="Print", exact=True).wait_for()
    page.evaluate("window.print = () => { window.printed = true }")
    page.get_by_role("button", name="Print", exact=True).press("Enter")
    assert page.evaluate("window.printed")


def test_a_house_formula_is_copied_with_one_press(page, site):
    sign_up(page, site, "third@kitchen.test")
    page.get_by_role("button", name=re.compile("Market rolls")).click()
    expect(page.get_by_label("Name of the formula")).to_have_value("Market rolls, egg-free")
    assert Kitchen.objects.get(memberships__user__email="third@kitchen.test").formulas.count() == 1


def test_the_same_in_the_hand(browser, browser_context_args, site):
    context = browser.new_context(
        **(browser_context_args | {"viewport": {"width": 390, "height": 844}, "has_touch": True})
    )
    page = context.new_page()
    sign_up(page, site, "phone@kitchen.test")
    page.get_by_role("button", name="Paste a recipe", exact=True).tap()
    page.get_by_label("Ingredient list").fill(NOTEBOOK)
    page.get_by_role("button", name="Add 9 lines", exact=True).tap()
    expect(page.get_by_label("Name of the formula")).to_have_value("Friday night rolls")
    # The balance comes up as a sheet, with its targets.
    page.get_by_role("button", name=re.compile("^Targets · ")).tap()
    sheet = page.get_by_role("dialog", name="Targets")
    sheet.locator("[data-bracket=net_carbs] .head").tap()
    sheet.get_by_role("button", name="Close", exact=True).tap()
    expect(sheet).to_be_hidden()
    lines = page.locator("[data-line]").count()
    page.get_by_role("button", name="Remove Salt, fine", exact=True).tap()
    expect(page.locator("[data-line]")).to_have_count(lines - 1)
    page.get_by_role("button", name="Undo", exact=True).first.tap()
    expect(page.locator("[data-line]")).to_have_count(lines)
    page.get_by_role("button", name="Search or run a command", exact=True).tap()
    page.keyboard.type("oven")
    page.get_by_role("option", name=re.compile("^Oven")).tap()
    dial = page.get_by_label("Oven setting")
    expect(dial).to_have_value("204")
    assert dial.bounding_box()["y"] < 500, "the dial stands in the first screen"
    for station in ("Pantry", "Prep", "Shape", "Bake", "Results", "Plan", "Card"):
        page.get_by_role("link", name=station, exact=True).tap()
        expect(page.get_by_role("link", name=station, exact=True)).to_have_attribute("aria-current", "page")
    context.close()
