"""The card as it is handed on: a step rewritten, a file, an address that is read without an account and taken back, a label."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import formula_link
from tests.browser.test_access import violations

pytestmark = pytest.mark.browser


@pytest.fixture
def card(shelf):
    formula_link(shelf, "Market rolls, egg-free").click()
    shelf.locator("[data-bracket=salt]").wait_for()
    shelf.get_by_role("link", name="Card", exact=True).click()
    shelf.get_by_text("Storage").wait_for()
    return shelf


def test_a_recipe_is_rewritten_saved_shared_and_taken_back(card, browser, site):
    assert violations(card) == [], "recipe"
    card.get_by_role("button", name="Rewrite: Bake", exact=True).first.click()
    card.get_by_label("Step: Bake").fill("Bake until it sings.")
    card.get_by_role("button", name="Save", exact=True).click()
    expect(card.get_by_text("Bake until it sings.")).to_be_visible()
    card.get_by_label("File format").select_option("pdf-a4")
    with card.expect_download() as download:
        card.get_by_role("button", name="Download", exact=True).click()
    assert Path(download.value.path()).read_bytes().startswith(b"%PDF")
    card.get_by_role("button", name="Create a share link", exact=True).click()
    address = card.locator("code").inner_text()
    stranger = browser.new_context().new_page()
    stranger.goto(address)
    expect(stranger.get_by_role("heading", name="Market rolls, egg-free", exact=True)).to_be_visible()
    card.get_by_role("button", name="Stop sharing", exact=True).click()
    expect(card.get_by_role("button", name="Create a share link", exact=True)).to_be_visible()
    assert stranger.goto(address).status == 404


def test_a_label_says_what_is_missing(card):
    card.get_by_role("radio", name="Pack label", exact=True).click()
    expect(card.get_by_text("its address")).to_be_visible()
    card.get_by_label("address").fill("1 Market")
    card.get_by_label("address").blur()
    expect(card.get_by_text("its address")).to_have_count(0)
    assert violations(card) == [], "label"


def test_a_page_from_a_file_is_read_into_the_box(card):
    card.get_by_role("link", name="Formulas", exact=True).click()
    card.keyboard.press("Control+k")
    card.keyboard.type("paste")
    card.get_by_role("option", name=re.compile("[Pp]aste")).first.click()
    page = '<script type="application/ld+json">{"@type":"Recipe","name":"Seeds","author":"n","recipeIngredient":["40 g flax meal"]}</script>'
    card.locator("input[type=file]").first.set_input_files(
        {"name": "a.html", "mimeType": "text/html", "buffer": page.encode()}
    )
    expect(card.get_by_label("Ingredient list")).to_have_value(re.compile("40 g flax meal"))
    expect(card.get_by_text("Not imported: author.")).to_be_visible()
