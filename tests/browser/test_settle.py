"""Settle as a baker does it: a target, an answer as a ghost, a part of it taken; a swap from a claim; a clash; a beginning."""

import re

import pytest
from playwright.sync_api import expect

from kitchen.models import Job
from kitchen.services.jobs import run_job
from tests.browser.conftest import formula_link
from tests.browser.test_access import violations

pytestmark = pytest.mark.browser


def work(page, kind=""):
    """Run the jobs that wait, as the worker would, once the page has asked for one; "learn" comes with every verdict."""
    for _ in range(600):
        waiting = Job.objects.filter(state=Job.State.WAITING).order_by("pk")
        if waiting.filter(kind=kind).exists() if kind else waiting.exclude(kind="reach").exists():
            break
        page.wait_for_timeout(100)
    else:
        raise AssertionError(f"the page asked for no job{f' of kind {kind!r}' if kind else ''} within a minute")
    for job in list(waiting):
        run_job(job.pk)


@pytest.fixture
def rolls(shelf):
    formula_link(shelf, "Market rolls, egg-free").click()
    shelf.locator("[data-bracket=salt]").wait_for()
    return shelf


def wish(page, most):
    """Net carbs at most so many grams a piece."""
    head = page.locator("[data-bracket=net_carbs] .head")
    head.click()
    page.locator("[data-bracket=net_carbs]").get_by_label("to").fill(most)
    page.locator("[data-bracket=net_carbs]").get_by_label("to").press("Enter")
    expect(page.locator("[data-bracket=net_carbs]").get_by_text("your target")).to_be_visible()
    head.click()


def test_a_target_is_settled_a_part_of_it_taken_and_taken_back(rolls):
    wish(rolls, "2.7")
    water = rolls.get_by_label("Almond flour, blanched, weighs")
    before = water.input_value()
    rolls.evaluate("document.activeElement.blur()")
    rolls.keyboard.press("s")
    work(rolls)
    edits = rolls.get_by_role("list", name="Changes")
    expect(edits.get_by_role("listitem").first).to_contain_text("almond flour")
    expect(rolls.locator("[data-ghost]")).to_be_visible()
    expect(rolls.locator("[data-moved=net_carbs]")).to_contain_text("2.7")
    assert violations(rolls) == [], "settle"
    count = edits.get_by_role("checkbox").count()
    edits.get_by_role("checkbox").last.uncheck()
    rolls.get_by_role("button", name=f"Apply {count - 1} of {count}", exact=True).click()
    expect(rolls.locator("[data-ghost]")).to_have_count(0)
    expect(rolls.get_by_label("Almond flour, blanched, weighs")).not_to_have_value(before)
    rolls.keyboard.press("Control+z")
    expect(rolls.get_by_label("Almond flour, blanched, weighs")).to_have_value(before)


def test_other_pieces_are_wished_for_seen_and_taken_in_one_step(rolls):
    wish(rolls, "2.6")
    rolls.get_by_role("button", name="Balance formula", exact=True).first.click()
    work(rolls)
    rolls.get_by_label("how many pieces").check()
    rolls.get_by_role("slider", name="Certainty", exact=True).press("ArrowRight")
    expect(rolls.get_by_text("targets met 6 times in 10")).to_be_visible()
    rolls.get_by_role("button", name="Balance again", exact=True).click()
    work(rolls)
    edits = rolls.get_by_role("list", name="Changes")
    expect(edits.get_by_text(re.compile(r"1\d pieces instead of 8"))).to_be_visible()
    assert violations(rolls) == [], "settle with other pieces"
    rolls.get_by_role("button", name="Apply all", exact=True).click()
    expect(rolls.get_by_role("button", name=re.compile(r"bun · 1\d pieces"))).to_be_visible()
    rolls.keyboard.press("Control+z")
    expect(rolls.get_by_role("button", name="bun · 8 pieces", exact=True)).to_be_visible()


def test_nut_free_from_the_chip_swaps_the_flour(rolls):
    rolls.get_by_role("button", name="Nut-free: not allowed", exact=True).click()
    rolls.get_by_role("button", name=re.compile("Remove nuts")).click()
    work(rolls)
    edits = rolls.get_by_role("list", name="Changes")
    expect(edits.get_by_text("no almond flour")).to_be_visible()
    expect(rolls.get_by_text("Without nuts and peanut, the bread loses")).to_be_visible()
    rolls.get_by_role("button", name="Apply all", exact=True).click()
    expect(rolls.get_by_role("button", name=re.compile("^Nut-free: (holds|needs certified packs)"))).to_be_visible()


def test_what_clashes_is_let_go_by_a_button(rolls):
    wish(rolls, "1.2")
    rolls.get_by_role("button", name="Balance formula", exact=True).first.click()
    work(rolls)
    expect(rolls.get_by_text("Closest result")).to_be_visible()
    rolls.get_by_role("button", name=re.compile("^set it to")).first.click()
    work(rolls)
    expect(rolls.get_by_text(re.compile("into range|Closest result"))).to_be_visible()
    expect(rolls.locator("[data-bracket=net_carbs]")).not_to_have_attribute("data-state", "open")


def test_a_formula_is_begun_from_a_shape_and_comes_to_the_bench(shelf):
    shelf.get_by_role("button", name="Start from a shape", exact=True).click()
    shelf.get_by_label("Max net carbs, g per piece").fill("3")
    shelf.get_by_role("button", name="Suggest formulas", exact=True).click()
    work(shelf)
    made = shelf.get_by_role("list", name="Suggested formulas")
    expect(made.get_by_role("listitem").first).to_be_visible()
    assert violations(shelf) == [], "begin"
    made.get_by_role("button", name="Use this formula", exact=True).first.click()
    expect(shelf.locator("[data-bracket=net_carbs]")).to_have_attribute("data-state", "in")


def test_a_line_is_looked_at_mixed_and_traded_off(shelf):
    formula_link(shelf, "Gouda-melt crust").click()
    shelf.locator("[data-bracket=salt]").wait_for()
    shelf.locator("[data-line=gouda] .name button").first.click()
    shelf.get_by_role("button", name="Show what if more or less", exact=True).click()
    expect(shelf.get_by_role("img", name=re.compile("^Protein"))).to_be_visible()
    assert violations(shelf) == [], "what if"
    shelf.get_by_role("button", name="Back to ingredients", exact=True).click()
    shelf.locator("[data-line=gouda] .name button").first.click()
    shelf.get_by_role("button", name="Blend the cheese ingredients", exact=True).click()
    gouda = shelf.get_by_role("region", name="Blend", exact=True).get_by_label("Gouda")
    gouda.fill("80")
    expect(shelf.get_by_role("region", name="Blend", exact=True).get_by_text("80 g", exact=True)).to_be_visible()
    assert violations(shelf) == [], "mix"
    shelf.keyboard.press("Control+k")
    shelf.keyboard.type("trade")
    expect(shelf.get_by_role("option", name=re.compile("Trade-offs"))).to_be_visible()
    shelf.keyboard.press("Enter")
    shelf.get_by_role("button", name="Draw chart", exact=True).click()
    work(shelf)
    expect(shelf.get_by_role("button", name=re.compile("^[0-9.]+, ")).first).to_be_visible()
    shelf.get_by_role("button", name=re.compile("^[0-9.]+, ")).last.click()
    expect(shelf.get_by_role("button", name="Apply this option", exact=True)).to_be_enabled()
    assert violations(shelf) == [], "trade-off"
