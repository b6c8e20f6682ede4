import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import choose, formula_link
from tests.browser.test_bench import draft, saved
from tests.browser.test_settle import work

pytestmark = pytest.mark.browser


def at(page, station):
    page.get_by_role("link", name=station, exact=True).click()


def test_thickness_and_size_answer_each_other_and_the_tray_counts(bench):
    at(bench, "Shape")
    size = bench.get_by_label("Size, mm")
    before = size.input_value()
    thick = bench.get_by_label("Thickness, mm")
    thick.fill("8")
    thick.press("Enter")
    expect(size).not_to_have_value(before)
    size.fill("100")
    size.press("Enter")
    expect(thick).not_to_have_value("8")
    expect(bench.get_by_role("img", name=re.compile("Half sheet pan"))).to_be_visible()
    choose(bench, "Tray", "Long grey tray")
    expect(bench.get_by_text("Long grey tray, top view")).to_be_visible()
    bench.get_by_role("button", name="Undo", exact=True).click()
    expect(bench.get_by_text("Half sheet pan, top view")).to_be_visible()
    saved(bench)
    assert draft("Celeriac flatbread")["form"]["size"]["held"] == "size"


def test_a_face_of_the_piece_is_pulled(bench):
    at(bench, "Shape")
    grip = bench.get_by_role("slider", name="Thickness", exact=True)
    grip.wait_for()
    box = grip.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    bench.mouse.move(x, y)
    bench.mouse.down()
    for step in range(1, 7):
        bench.mouse.move(x, y - 5 * step)
    bench.mouse.up()
    expect(bench.get_by_label("Thickness, mm")).not_to_have_value("4")
    grip.focus()
    bench.keyboard.press("ArrowUp")
    saved(bench)


def test_a_bun_gets_a_hole_and_loses_it(shelf):
    formula_link(shelf, "Market rolls, egg-free").click()
    shelf.locator("[data-bracket=water_fill]").wait_for()
    at(shelf, "Shape")
    sentence, hole = shelf.locator(".sentence"), shelf.get_by_label("Hole, mm")
    shelf.get_by_role("button", name="with a hole", exact=True).click()
    expect(hole).to_have_value("30")
    expect(sentence).to_contain_text("with a hole of 30 mm")
    before = shelf.get_by_label("Thickness, mm").input_value()
    hole.fill("45")
    hole.press("Enter")
    expect(shelf.get_by_label("Thickness, mm")).not_to_have_value(before)
    saved(shelf)
    assert draft("Market rolls, egg-free")["form"]["size"]["hole_mm"] == 45
    shelf.get_by_role("button", name="without a hole", exact=True).click()
    expect(hole).to_have_count(0)
    expect(sentence).not_to_contain_text("hole")


def test_the_bake_is_told_and_the_dial_changes_it(bench):
    at(bench, "Oven")
    sentence = bench.locator(".sentence")
    expect(sentence).to_contain_text("take it out when the batch weighs")
    before = sentence.inner_text()
    dial = bench.get_by_label("Oven setting")
    dial.fill("175")
    dial.press("Enter")
    expect(sentence).not_to_have_text(before)
    bench.get_by_role("button", name="Compare with this forecast", exact=True).click()
    bench.get_by_role("button", name=re.compile("^195 °C")).first.click()
    expect(bench.get_by_text(re.compile("Dashed: the forecast at 175 °C"))).to_be_visible()
    expect(bench.get_by_text(re.compile("Formula, card, and label use this weight"))).to_be_visible()


def test_stages_are_changed_by_the_keyboard_and_put_back(bench):
    at(bench, "Oven")
    bench.get_by_role("button", name="turn over", exact=True).click()
    edge = bench.get_by_role("slider", name="bake: minutes", exact=True).first
    edge.focus()
    bench.keyboard.press("ArrowRight")
    bench.get_by_role("button", name="the usual stages", exact=True).click()
    bench.get_by_role("button", name="open the door", exact=True).click()
    expect(bench.get_by_role("button", name="the usual stages", exact=True)).to_be_visible()
    saved(bench)


def test_an_oven_learns_from_a_logged_bake(bench):
    at(bench, "Oven")
    side = bench.get_by_role("complementary", name="Oven")
    expect(side).to_contain_text(re.compile(r"from \d+ bakes"))
    before = int(re.search(r"from (\d+) bakes", side.inner_text())[1])
    assert before > 3  # three that were typed, and the runs
    side.get_by_role("button", name=re.compile("^Log a bake · ")).click()
    side.get_by_label("Done at, minutes").fill("9")
    side.get_by_label("Weight before, g").fill("640")
    side.get_by_label("Weight after, g").fill("505")
    side.get_by_role("button", name="Save this bake", exact=True).click()
    work(bench, "learn")
    expect(side).to_contain_text(f"from {before + 1} bakes", timeout=30_000)
    side.get_by_label("Done at, minutes").fill("")
    side.get_by_role("button", name="Save this bake", exact=True).click()
    expect(side.get_by_role("alert")).to_contain_text("no reading that shows")
    saved(bench)
