"""Every view against axe's rules for accessibility, in both themes."""

import re

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import expect

pytestmark = pytest.mark.browser


def violations(page):
    found = Axe().run(page, options={"resultTypes": ["violations"]}).response["violations"]
    return [(v["id"], [n["target"] for n in v["nodes"]][:4], v["nodes"][0]["failureSummary"][:300]) for v in found]


@pytest.mark.parametrize("theme", ["light", "dark"])
def test_the_views_are_clean(bench, theme):
    if theme == "dark":
        bench.evaluate("localStorage.setItem('theme', 'dark')")
        bench.reload()
        bench.locator("[data-bracket=salt]").wait_for()
    assert violations(bench) == [], "bench"
    bench.locator("[data-bracket=salt] .head").click()
    bench.get_by_role("button", name=re.compile("^v3")).click()
    bench.get_by_text("Draft since v3:").wait_for()
    assert violations(bench) == [], "versions"
    bench.get_by_role("button", name="Back to ingredients", exact=True).click()
    bench.get_by_role("button", name="paste a list", exact=True).click()
    bench.get_by_label("Ingredient list").fill("1 cup almond flour\n1 cup moon dust")
    bench.get_by_text("unknown ingredient").wait_for()
    assert violations(bench) == [], "paste"
    bench.keyboard.press("Control+k")
    bench.get_by_role("dialog").wait_for()
    assert violations(bench) == [], "command box"
    bench.keyboard.press("Escape")
    for station, sign in (("Prep", "[data-task=mix]"), ("Shape", ".sentence"), ("Oven", ".sentence")):
        bench.get_by_role("link", name=station, exact=True).click()
        bench.locator(sign).first.wait_for()
        assert violations(bench) == [], station
    bench.get_by_role("link", name="Formulas", exact=True).click()
    bench.get_by_role("link", name="Formulas", exact=True).click()
    bench.get_by_role("heading", name="Formulas", exact=True).wait_for()
    assert violations(bench) == [], "shelf"


def test_nothing_of_the_page_is_held_back_by_its_own_policy(bench):
    """Only styles with the page's nonce and those that scripts set are let through; menus, drawings and themes need no other."""
    told = []
    bench.on(
        "console", lambda message: told.append(message.text) if "Content Security Policy" in message.text else None
    )
    bench.reload()
    bench.locator("[data-bracket=salt]").wait_for()
    theme = bench.locator("#vuetify-theme-stylesheet")
    assert theme.evaluate("sheet => [sheet.nonce.length > 10, sheet.sheet.cssRules.length > 0]") == [True, True]
    for station in ("Prep", "Shape", "Oven", "Bake", "Results", "Plan", "Card", "Pantry"):
        bench.get_by_role("link", name=station, exact=True).first.click()
        bench.wait_for_timeout(400)
    bench.get_by_role("link", name="Formulas", exact=True).first.click()
    bench.get_by_role("combobox").first.click()
    assert told == []


def test_the_door_is_clean(page, site):
    page.goto(f"{site}/sign-in")
    page.get_by_role("button", name="Sign in", exact=True).wait_for()
    assert violations(page) == []


def test_the_bench_is_worked_by_keyboard_alone(bench):
    grip = bench.get_by_role("slider", name="Water, boundary", exact=True)
    grip.focus()
    grip.press("ArrowUp")
    expect(grip).to_have_attribute("aria-valuenow", "65")
    bench.keyboard.press("?")
    expect(bench.get_by_role("dialog", name="Keyboard shortcuts")).to_be_visible()
    bench.keyboard.press("Escape")
    bench.keyboard.press("g")
    bench.keyboard.press("p")
    expect(bench.get_by_role("heading", name="Pantry", exact=True)).to_be_visible()
