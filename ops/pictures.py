"""Take the pictures of docs/screenshots from the demo kitchen.

Usage: ``.venv/bin/python ops/pictures.py http://localhost:8000`` with ``./start --reset-demo`` running and the
development requirements installed (``./check`` installs them).
"""

from __future__ import annotations

import sys
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

FOLDER = Path(__file__).resolve().parent.parent / "docs" / "screenshots"
CHROMIUM = "/usr/bin/chromium"
FLAGS = ["--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run"]
FLAGS += ["--disable-background-networking", "--disable-component-update", "--disable-sync"]


def bench(page: Page) -> None:
    """Open the celeriac flatbread, analysed."""
    page.get_by_role("link", name="Celeriac flatbread").click()
    page.locator("[data-bracket=salt]").wait_for()


def at(path: str, sign: str) -> Callable[[Page], object]:
    """Open a view by its address and wait for a sign of it."""

    def view(page: Page) -> None:
        page.goto(page.url.replace("/formula", path))
        page.get_by_text(sign).first.wait_for()

    return view


def pack(page: Page) -> None:
    """Open a pack whose label was typed the wrong way."""
    at("/pantry", "Your packs")(page)
    page.get_by_role("link", name="Quern ground almonds").click()
    page.get_by_text("This looks like").wait_for()


def card(page: Page) -> None:
    """Open the card."""
    bench(page)
    page.get_by_role("link", name="Card", exact=True).click()
    page.get_by_text("Storage").wait_for()


def plan(page: Page) -> None:
    """Open the plan of the coming Saturday."""
    at("/plan", "Saturday market")(page)
    page.get_by_role("link", name="Saturday market").click()
    page.get_by_text("ready on time").wait_for(timeout=60_000)
    page.wait_for_timeout(15_000)


def prep(page: Page) -> None:
    """Open a vegetable on its way into the dough."""
    bench(page)
    page.get_by_role("link", name="Prep", exact=True).click()
    page.locator("[data-task=vegetable]").wait_for()


def station(word: str, sign: str) -> Callable[[Page], object]:
    """Return a station of the celeriac flatbread."""

    def view(page: Page) -> None:
        bench(page)
        page.get_by_role("link", name=word, exact=True).click()
        page.locator(sign).first.wait_for()
        page.wait_for_timeout(1500)

    return view


def rolls(page: Page) -> None:
    """Open the egg-free rolls."""
    page.get_by_role("link", name="Market rolls").click()
    page.locator("[data-bracket=salt]").wait_for()


def settle(page: Page) -> None:
    """Fewer net carbs, and what brings the dough there."""
    rolls(page)
    carbs = page.locator("[data-bracket=net_carbs]")
    carbs.locator(".head").click()
    carbs.get_by_label("to").fill("2.7")
    carbs.get_by_label("to").press("Enter")
    carbs.get_by_text("your target").wait_for()
    carbs.locator(".head").click()
    page.get_by_role("button", name="Balance formula", exact=True).first.click()
    page.get_by_role("list", name="Changes").wait_for()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Next option").hover()


def trade_off(page: Page) -> None:
    """Open the trade-off of net carbs."""
    rolls(page)
    page.get_by_role("button", name="More actions").click()
    page.locator(".v-list-item", has_text="Trade-offs").click()
    page.get_by_role("button", name="Draw chart").click()
    page.locator("circle.point").first.wait_for()
    page.locator("circle.point").nth(5).click()


def begin(page: Page) -> None:
    """Buns on several bases."""
    page.get_by_role("button", name="Start from a shape", exact=True).click()
    page.get_by_label("Max net carbs, g per piece").fill("3")
    page.get_by_role("button", name="Suggest formulas").click()
    page.get_by_role("list", name="Suggested formulas").wait_for()


def phone(page: Page) -> None:
    """Open the targets on a phone."""
    bench_of_phone = page.get_by_role("link", name="Celeriac flatbread")
    bench_of_phone.click()
    page.get_by_role("button", name="Targets").click()
    page.locator("[data-bracket=salt]").wait_for()


def begun(page: Page, name: str) -> None:
    """Open a run that has just begun."""
    page.goto(page.url.replace("/formula", "/run"))
    page.get_by_role("link", name=name).last.click()
    page.get_by_role("button", name="Start a bake").click()
    page.locator(".weigh").wait_for()


def weighing(page: Page) -> None:
    """Too much in the bowl, and what the rest of the formula answers."""
    begun(page, "Market rolls")
    for digit in "195":
        page.locator(".pad").get_by_role("button", name=digit, exact=True).click()
    page.get_by_role("button", name="Weighed").click()
    page.get_by_role("alert").wait_for()


def baking(page: Page) -> None:
    """In the oven, on a phone."""
    begun(page, "Mustard twists")
    for _ in range(40):
        if page.locator(".live .sentence").count():
            break
        page.locator("footer .act-button").click()
        page.wait_for_timeout(350)
    page.wait_for_timeout(4000)


def trial(page: Page) -> None:
    """Why, and what next."""
    at("/trials", "Compare")(page)
    page.get_by_role("link", name="Lemon shortbread").last.click()
    page.get_by_role("heading", name="What to try next").wait_for()


VIEWS: dict[str, tuple[Callable[[Page], object], str]] = {
    "shelf": (lambda _: None, "light"),
    "formula": (bench, "light"),
    "begin": (begin, "light"),
    "trade-off": (trade_off, "light"),
    "pantry": (at("/pantry", "Your packs"), "light"),
    "pack": (pack, "light"),
    "stock": (at("/pantry/stock", "Mark as baked and deduct stock"), "light"),
    "card": (card, "light"),
    "plan": (plan, "light"),
    "prep": (prep, "light"),
    "shape": (station("Shape", ".drawings"), "light"),
    "oven": (station("Oven", ".strip"), "light"),
    "oven-dark": (station("Oven", ".strip"), "dark"),
    "phone": (phone, "light"),
    "trial": (trial, "light"),
    "learned": (at("/trials/learned", "oven offset"), "light"),
    "run": (weighing, "light"),
    "run-phone": (baking, "light"),
    "settle": (settle, "light"),  # last: it leaves a target behind
}
SIZES = {"phone": (390, 844), "run-phone": (390, 844), "run": (1024, 768)}
USUAL_SIZE = (1280, 800)


def main(address: str) -> None:
    """Take them all."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        signed_in = None
        for name, (view, scheme) in VIEWS.items():
            width, height = SIZES.get(name, USUAL_SIZE)
            context = browser.new_context(
                viewport={"width": width, "height": height}, color_scheme=scheme, storage_state=signed_in
            )
            page = context.new_page()
            page.goto(f"{address}/formula")
            if signed_in is None:
                page.get_by_label("E-mail").fill("baker@example.com")
                page.get_by_label("Password").fill("rye-free-and-easy")
                page.get_by_role("button", name="Sign in", exact=True).click()
            page.get_by_role("link", name="Celeriac flatbread").wait_for()
            signed_in = signed_in or context.storage_state()
            view(page)
            page.wait_for_timeout(700)
            page.screenshot(path=FOLDER / f"{name}.png")
            context.close()
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1] if len(sys.argv) > 1 else "http://localhost:8000")
