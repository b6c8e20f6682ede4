import re

import pytest
from playwright.sync_api import expect

from tests.browser.test_bench import bracket, draft, line, saved, weighs

pytestmark = pytest.mark.browser


def card(page, kind):
    return page.locator(f"[data-task={kind}]").first


@pytest.fixture
def prep(bench):
    """The flatbread's cards."""
    bench.keyboard.press("g")
    bench.keyboard.press("r")
    card(bench, "vegetable").wait_for()
    return bench


def test_a_weighed_vegetable_goes_into_the_formula_and_says_what_changed(prep):
    water = bracket(prep, "water_fill").locator("b").inner_text()
    field = card(prep, "vegetable").get_by_label("Weighed after drying, g")
    field.fill("290")
    field.press("Enter")
    told = prep.get_by_role("region", name="What the weight changed", exact=True)
    expect(told).to_contain_text("Water fill")
    expect(bracket(prep, "water_fill").locator("b")).not_to_have_text(water)
    expect(card(prep, "vegetable")).to_contain_text("290 g on the scale")
    saved(prep)
    kept = next(entry for entry in draft("Celeriac flatbread")["lines"] if entry["id"] == "celeriac")
    assert (kept["grams"], kept["prep"]["weighed"]) == (290, True)
    told.get_by_role("button", name="Undo", exact=True).click()
    expect(told).to_have_count(0)
    expect(bracket(prep, "water_fill").locator("b")).to_have_text(water)
    prep.get_by_role("link", name="Formulas", exact=True).click()
    expect(weighs(prep, "celeriac")).to_have_value("240")
    saved(prep)


def test_another_way_of_drying_asks_for_another_start(prep):
    start = card(prep, "vegetable").get_by_label("Raw weight, g").input_value()
    row = card(prep, "vegetable").get_by_role("row", name=re.compile("Dry in a pan"))
    row.get_by_role("button", name="Use this", exact=True).click()
    expect(card(prep, "vegetable").get_by_label("Raw weight, g")).not_to_have_value(start)
    expect(card(prep, "vegetable").get_by_label("pan: minutes")).to_be_visible()
    saved(prep)


def test_what_is_set_answers_at_once_and_a_wrong_number_is_refused_in_place(prep):
    water = card(prep, "water").get_by_role("textbox")
    water.fill("30")
    water.press("Enter")
    expect(card(prep, "water")).to_contain_text("30 °C")
    water.fill("300")
    water.press("Enter")
    assert water.evaluate("field => field.validationMessage") == "5 to 70 °C"
    expect(card(prep, "water")).to_contain_text("30 °C")
    saved(prep)


def test_what_is_out_is_mended_by_one_press_that_can_be_undone(bench):
    weighs(bench, "water").fill("700")
    weighs(bench, "water").press("Enter")
    notice = bench.locator("[data-code^=handling-]").first
    expect(notice).to_be_visible()
    bench.get_by_role("list", name="Quick fixes").get_by_role("button", name=re.compile("^− .* water")).click()
    expect(weighs(bench, "water")).not_to_have_value("700")
    bench.keyboard.press("Control+z")
    expect(weighs(bench, "water")).to_have_value("700")
    saved(bench)


def test_texture_shows_what_makes_it_and_takes_a_final_moisture(bench):
    texture = bench.get_by_role("region", name="Texture", exact=True)
    texture.get_by_role("button", name=re.compile("^Chewy")).click()
    texture.get_by_role("button", name=re.compile("psyllium")).click()
    expect(line(bench, "psyllium-powder")).to_have_class(re.compile("on|selected"))
    crisp = texture.get_by_role("button", name=re.compile("^Crisp")).locator(".figure")
    before = crisp.inner_text()
    texture.get_by_label("Final moisture, %").fill("4")
    texture.get_by_label("Final moisture, %").press("Enter")
    expect(crisp).not_to_have_text(before)
    expect(texture).to_contain_text("As you set it")
    saved(bench)
