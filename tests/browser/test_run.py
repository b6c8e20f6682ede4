"""A bake as it is done: weights, feel, timers, oven, verdict, why; on a phone, with a network that goes and comes back."""

import re
import socket
import subprocess
import sys
from datetime import timedelta

import pytest
from django.db.models import F
from playwright.sync_api import expect

from kitchen.demo.load import DEMO_NAME
from kitchen.models import Kitchen, Run, RunEntry
from kitchen.services import devices
from substrata.execution.bake_log import what_was_done
from substrata.execution.run_document import read_run
from tests.browser.conftest import formula_link, sign_in
from tests.browser.test_access import violations
from tests.browser.test_settle import work

pytestmark = pytest.mark.browser
PHONE = {"width": 390, "height": 844}


def begin(page, site, name="Market rolls, egg-free"):
    page.goto(f"{site}/run")
    formula_link(page, name).click()
    page.get_by_role("button", name="Start a bake", exact=True).click()
    page.locator(".weigh").wait_for()


def press_done(page):
    before = page.locator("h3").inner_text()
    page.locator("footer .act-button").click()
    expect(page.locator("h3")).not_to_have_text(before)


def type_number(page, digits):
    for digit in digits:
        page.locator(".pad").get_by_role("button", name=digit, exact=True).click()


def until(page, selector, most=30):
    for _ in range(most):
        if page.locator(selector).count():
            return
        press_done(page)
    raise AssertionError(f"{selector} never came")


def until_worker_serves(page):
    """Wait until the page's own worker serves it without a network."""
    for _ in range(300):
        if page.evaluate("navigator.serviceWorker.controller !== null"):
            return
        page.wait_for_timeout(200)
    raise AssertionError("the page's worker did not take over within a minute")


def sent(page):
    """Nothing waits here any more."""
    expect(page.locator("header .waiting")).to_have_count(0)


def test_a_whole_run_on_a_phone_offline_in_the_middle(shelf, site):
    page = shelf
    page.set_viewport_size(PHONE)
    begin(page, site)
    assert violations(page) == [], "weigh"
    # Too much flour: the rest of the formula answers, and one answer is taken.
    type_number(page, "195")
    page.get_by_role("button", name="Weighed", exact=True).click()
    answer = page.get_by_role("alert")
    expect(answer).to_contain_text("too much almond flour")
    answer.get_by_role("button", name=re.compile("to keep the same handling")).click()
    press_done(page)
    sent(page)
    # The network goes; weights are kept here, and a reload loses nothing.
    until_worker_serves(page)
    page.reload()
    page.locator(".weigh").wait_for()
    page.context.set_offline(True)
    until(page, ".count")
    expect(page.locator("header .waiting")).to_contain_text("saved on this device")
    here = page.locator("h3").inner_text()
    page.reload()
    expect(page.locator("h3")).to_have_text(here, timeout=30_000)
    until(page, ".feel")
    page.context.set_offline(False)
    sent(page)
    run = Run.objects.get(finished_at=None)
    done = what_was_done(read_run(_document(run)))
    assert done.grams["almond-flour"] == 195
    assert done.grams["water"] > 425  # the answer that was taken moved its target
    assert len(done.grams) == len(run.document["lines"])
    # By feel, with an answer in minutes or grams.
    page.get_by_role("button", name="spreadable", exact=True).click()
    expect(
        page.get_by_role("status").filter(has_text=re.compile("preadable is (not )?right for a bun"))
    ).to_be_visible()
    assert violations(page) == [], "feel"
    until(page, ".live")
    # A probe says the oven is hot: the window moves.
    expect(page.locator(".live .sentence")).to_contain_text("min left")
    page.get_by_label("Oven temperature now").fill("199")
    page.get_by_label("Oven temperature now").press("Enter")
    expect(page.locator(".live .sentence")).to_contain_text("hot")
    assert violations(page) == [], "bake"
    until(page, ".huge >> text=Finish")
    page.get_by_role("button", name="Finish and rate", exact=True).click()
    # The verdict, and why.
    page.get_by_role("button", name="bad", exact=True).click()
    page.get_by_role("button", name=re.compile("too soft or runny")).click()
    page.get_by_role("button", name="Save rating", exact=True).click()
    work(page, "why")
    # Every cause of the formula is planted in the core first: on a busy machine that takes a while.
    expect(page.get_by_role("region", name="In how it was made", exact=True)).to_be_visible(timeout=40_000)
    assert violations(page) == [], "why"
    run.refresh_from_db()
    assert run.faults == ["too_soft"]
    assert run.stock_taken


def _document(run):
    from kitchen.services.runs import as_document

    return as_document(run)


def test_timers_go_on_through_a_reload_and_are_rung_once(shelf, site):
    page = shelf
    begin(page, site)
    until(page, ".count >> text=20 min")
    page.keyboard.press("t")
    timer = page.get_by_role("region", name="Timers", exact=True)
    expect(timer).to_contain_text("Preheat the oven")
    expect(page).to_have_title(re.compile(r"^(1\d|20):\d\d Preheat the oven"))
    page.reload()
    expect(timer).to_contain_text("Preheat the oven")
    timer.get_by_role("button", name=re.compile("^Add 5 min")).click()
    expect(timer.locator(".left")).to_have_text(re.compile(r"^(1[5-9]|2[0-5]):"))
    sent(page)
    # The clock goes on while the tablet sleeps: it has rung once when it wakes.
    RunEntry.objects.filter(kind="timer").update(at=F("at") - timedelta(hours=2))
    page.evaluate("indexedDB.deleteDatabase('substrata-bench')")
    page.reload()
    expect(page.get_by_text("time is up")).to_have_count(1)
    page.reload()
    timer.wait_for()
    page.wait_for_timeout(1200)
    expect(page.get_by_text("time is up")).to_have_count(0)
    timer.get_by_role("button", name=re.compile("^Stop ")).click()
    expect(timer).to_have_count(0)


@pytest.fixture
def scale(settings, site):
    """The simulated scale and probe, as ./start has them on the bench."""
    ports = []
    for _ in range(2):
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            ports.append(free.getsockname()[1])
    command = [sys.executable, "-m", "devices.simulate", "--scale", str(ports[0]), "--probe", str(ports[1])]
    process = subprocess.Popen(command)
    settings.BENCH_SCALE, settings.BENCH_PROBE = (f"socket://127.0.0.1:{port}" for port in ports)
    settings.BENCH_SIMULATED = True
    devices._bridge.cache_clear()
    Kitchen.objects.filter(name=DEMO_NAME).update(devices=Kitchen.Devices.SIMULATED)
    yield process
    process.kill()
    process.wait()
    devices._bridge.cache_clear()


def test_the_scale_pours_weighs_and_moves_on_by_itself_until_it_dies(scale, shelf, site):
    page = shelf
    begin(page, site, "Mustard twists")
    expect(page.locator(".live")).to_contain_text("on the simulated scale")
    first = page.locator("h3").inner_text()
    page.get_by_role("button", name="Pour (simulated scale)", exact=True).click()
    expect(page.locator("h3")).not_to_have_text(first, timeout=30_000)
    sent(page)
    weighed = RunEntry.objects.filter(run__finished_at=None, kind="weighed")
    assert weighed.get().value == pytest.approx(150, abs=4)
    assert weighed.get().source == "simulated"
    assert violations(page) == [], "scale"
    # It dies in mid pour: that is told, and the weight can be typed.
    page.get_by_role("button", name="Pour (simulated scale)", exact=True).click()
    scale.kill()
    expect(page.get_by_text("The scale is silent")).to_be_visible()
    type_number(page, "14")
    press_done(page)
    sent(page)
    assert weighed.last().value == 14


def test_two_devices_write_one_run(shelf, site, browser):
    page = shelf
    begin(page, site, "Mustard twists")
    press_done(page)
    sent(page)
    other = browser.new_context(viewport=PHONE).new_page()
    sign_in(other, site, "partner@example.com")
    other.goto(page.url)
    other.locator(".weigh").wait_for()
    assert other.locator("h3").inner_text() == page.locator("h3").inner_text()
    press_done(other)
    sent(other)
    expect(page.locator("h3")).to_have_text(other.locator("h3").inner_text())
    assert Run.objects.get(finished_at=None).entries.filter(kind="weighed").count() == 2
    other.close()


def test_a_proposal_lies_on_the_bench_as_a_ghost_until_it_is_taken(shelf, site):
    page = shelf
    page.goto(f"{site}/trials")
    formula_link(page, "Celeriac flatbread").click()
    work(page)
    page.get_by_role("region", name="What to try next", exact=True).get_by_role(
        "button", name="Open changed formula", exact=True
    ).first.click()
    banner = page.get_by_role("region", name="Suggested after a bake", exact=True)
    expect(banner).to_be_visible()
    expect(page.locator("[data-ghost]")).to_be_visible()
    banner.get_by_role("button", name="Apply", exact=True).click()
    expect(banner).to_have_count(0)
    expect(page.get_by_text("The suggested changes are now in your formula.")).to_be_visible()


def test_trials_are_put_side_by_side_and_what_they_taught_is_told(shelf, site):
    page = shelf
    page.goto(f"{site}/trials")
    page.get_by_role("row").nth(1).wait_for()
    assert violations(page) == [], "trials"
    for row in page.get_by_role("row", name=re.compile("Mustard twists")).all():
        row.get_by_role("checkbox").check()
    page.get_by_role("button", name=re.compile("^Compare")).click()
    expect(page.get_by_role("row", name=re.compile("^oven setting"))).to_contain_text("165")
    assert violations(page) == [], "side by side"
    page.goto(f"{site}/trials/learned")
    work(page)
    expect(page.get_by_text("oven offset (actual minus set)")).to_be_visible()
    assert violations(page) == [], "learned"
    page.goto(f"{site}/trials")
    page.get_by_role("link", name="Dark seed loaf", exact=True).click()
    page.get_by_role("button", name="Exclude from learning", exact=True).click()
    expect(page.get_by_role("button", name="Use for learning", exact=True)).to_be_visible()
