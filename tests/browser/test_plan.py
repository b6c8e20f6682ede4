"""Plan as a baker does it: a day made of ticked formulas, planned, a bake dragged and pinned, a slip, the shopping list on a phone."""

import re

import pytest
from playwright.sync_api import expect

from kitchen.services import plans
from tests.browser.test_access import violations
from tests.browser.test_settle import work

pytestmark = pytest.mark.browser


@pytest.fixture
def day(shelf, monkeypatch):
    monkeypatch.setattr(plans, "_SECONDS", 2.0)
    shelf.get_by_role("link", name="Plan", exact=True).click()
    shelf.get_by_text("New plan").wait_for()
    for name in ("Mustard twists", "Lemon shortbread coins"):
        shelf.get_by_label(name).check()
    shelf.get_by_role("button", name="Plan 2 bakes", exact=True).click()
    shelf.get_by_role("heading", name="New plan", exact=True).wait_for()
    work(shelf)
    expect(shelf.get_by_text(re.compile("First work at .* ready on time"))).to_be_visible(timeout=20_000)
    return shelf


def test_a_day_is_planned_pinned_and_mended(day):
    assert violations(day) == [], "plan"
    bake = day.get_by_role("button", name=re.compile("^Bake Mustard twists"))
    box = bake.bounding_box()
    day.mouse.move(box["x"] + 20, box["y"] + 8)
    day.mouse.down()
    day.mouse.move(box["x"] + 400, box["y"] + 8, steps=6)
    expect(day.locator(".told .act").first).to_be_visible(timeout=10_000)
    day.mouse.move(box["x"] + 20, box["y"] + 8, steps=3)
    day.mouse.up()
    day.get_by_role("button", name="Pin to this time", exact=True).click()
    work(day)
    expect(day.get_by_role("button", name=re.compile("^Bake Mustard twists.*pinned"))).to_be_visible(timeout=20_000)
    day.get_by_role("button", name=re.compile("^Mix Lemon")).dispatch_event("pointerdown")
    day.get_by_role("button", name="It took 12 min longer", exact=True).click()
    work(day)
    expect(day.get_by_text(re.compile("task.* move|no tasks move"))).to_be_visible(timeout=20_000)


def test_the_list_is_ticked_off_on_a_phone(day):
    day.set_viewport_size({"width": 390, "height": 844})
    day.get_by_role("link", name="Shopping list", exact=True).click()
    first = day.locator("li input[type=checkbox]").first
    first.check()
    expect(day.get_by_text(re.compile("1 in the cart"))).to_be_visible()
    assert violations(day) == [], "shopping"
    day.reload()
    expect(day.locator("li input[type=checkbox]").first).to_be_checked()
