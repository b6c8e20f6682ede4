"""The Pantry and the Card as a baker meets them."""

import re

import pytest
from playwright.sync_api import expect

from kitchen.models import Draft, Lot, PackImport, PlannedBake
from kitchen.services.jobs import run_job
from tests.browser.conftest import formula_link
from tests.browser.test_access import violations

pytestmark = pytest.mark.browser
PANEL = "Nutrition Facts Serving size 2 Tbsp (13 g) Calories 70 Total Fat 6g Saturated Fat 0.5g Total Carbohydrate 4g Dietary Fiber 4g Total Sugars 0g Protein 3g Sodium 0mg"
ROWS = """name,serving size,calories,total fat (g),total carbohydrate (g),dietary fiber (g),protein (g)
Northfield blanched almond flour,28 g,160,14,6,3,6
Mystery tonic,28 g,1,2,3,4,5
Northfield salted butter,14 g,100,11,0,0,0
"""


def go(page, path):
    page.goto(re.sub(r"/formula.*", path, page.url))


def paste(page, text):
    page.evaluate(
        "t => { const d = new DataTransfer(); d.setData('text/plain', t);"
        " window.dispatchEvent(new ClipboardEvent('paste', {clipboardData: d, bubbles: true, cancelable: true})) }",
        text,
    )


def test_a_pack_is_entered_with_the_keyboard_alone(shelf):
    go(shelf, "/pantry/packs/new")
    name = shelf.get_by_label("Name (your own)")
    expect(name).to_be_focused()
    shelf.keyboard.type("Ridgeway golden flax meal")
    shelf.keyboard.press("Tab")  # the name proposes what it is
    expect(shelf.get_by_role("combobox", name="It is a pack of")).to_have_value("Flax meal")
    for _ in range(3):
        shelf.keyboard.press("Tab")
    expect(shelf.get_by_label("Grams the values are for")).to_be_focused()
    # Serving, its measure, then figure after figure down the label, Enter to the next.
    for text in ("13", "2 tbsp", "70", "6", "0.5", "0", "", "0", "4", "4"):
        shelf.keyboard.type(text)
        shelf.keyboard.press("Enter")
    shelf.keyboard.press("Control+Enter")
    expect(shelf.get_by_role("heading", name="Pack", exact=True)).to_be_visible()
    kept = Lot.objects.get(name="Ridgeway golden flax meal")
    assert (kept.ingredient, kept.document["label"]["per_g"]) == ("flax-meal", 13)
    assert kept.document["label"]["figures"] == {
        "energy_kcal": "70", "fat_g": "6", "saturates_g": "0.5", "trans_g": "0", "sodium_mg": "0", "carbohydrate_g": "4", "fibre_g": "4",
    }  # fmt: skip


def test_a_pasted_panel_fills_the_label_and_an_unsaved_pack_survives_a_reload(shelf):
    go(shelf, "/pantry/packs/new?ingredient=flax-meal")
    shelf.get_by_label("Name (your own)").fill("Meal of the fair")
    paste(shelf, PANEL)
    expect(shelf.locator("[data-figure=fibre_g]")).to_have_value("4")
    expect(shelf.get_by_text("The label makes sense")).to_be_visible()
    shelf.reload()
    expect(shelf.get_by_label("Name (your own)")).to_have_value("Meal of the fair")
    expect(shelf.locator("[data-figure=protein_g]")).to_have_value("3")


def test_a_wrong_label_is_told_why_and_put_right_with_one_press(shelf):
    go(shelf, "/pantry")
    shelf.get_by_role("link", name="Quern ground almonds", exact=True).click()
    expect(shelf.get_by_text("This looks like a European label")).to_be_visible()
    shelf.get_by_role("button", name="Switch label style", exact=True).click()
    expect(shelf.get_by_text("The label makes sense")).to_be_visible()
    shelf.get_by_role("button", name="Save", exact=True).click()
    expect(shelf.get_by_text("is in the pantry")).to_be_visible()
    assert Lot.objects.get(name="Quern ground almonds").trouble == ""


def test_a_figure_that_cannot_be_read_is_told_at_once_and_nothing_is_lost(shelf):
    go(shelf, "/pantry")
    shelf.get_by_role("link", name="Millbrook blanched almond flour", exact=True).click()
    shelf.locator("[data-figure=fat_g]").fill("plenty")
    expect(shelf.get_by_role("alert")).to_contain_text("plenty")
    expect(shelf.locator("[data-figure=fibre_g]")).to_have_value("3")


def test_the_pantry_is_searched_and_things_are_compared(shelf):
    go(shelf, "/pantry")
    shelf.get_by_label("Search the pantry").fill("coconut fl")
    expect(shelf.get_by_role("link", name="Palm Court coconut flour", exact=True)).to_be_visible()
    expect(shelf.get_by_role("link", name="Lark Lane large eggs", exact=True)).to_be_hidden()
    for name in ("Palm Court coconut flour", "Coconut flour"):
        shelf.get_by_label(f"Compare {name}", exact=True).check()
    shelf.get_by_role("link", name="Compare 2", exact=True).click()
    expect(shelf.get_by_role("cell", name="1.32 USD")).to_be_visible()
    finder = shelf.get_by_role("combobox", name="Add another")
    finder.fill("psyl")
    shelf.get_by_role("option").first.wait_for()
    finder.press("Enter")
    expect(shelf.get_by_role("columnheader", name=re.compile("^Psyllium husk powder"))).to_be_visible()


def test_a_pack_chosen_at_a_line_shows_in_the_draft_and_the_reference_can_be_taken_again(bench):
    before = bench.locator("[data-bracket=cost] .value b").inner_text()
    bench.get_by_role("button", name="Gruyère", exact=True).click()
    bench.get_by_role("radio", name="Reference values (no pack)", exact=True).click()
    expect(bench.locator("[data-bracket=cost] .value b")).not_to_have_text(before)
    bench.get_by_role("radio", name=re.compile("Alpe Vigna")).click()
    expect(bench.locator("[data-bracket=cost] .value b")).to_have_text(before)


def test_all_lines_are_taken_from_packs_as_one_edit(shelf):
    formula_link(shelf, "Market rolls, egg-free").click()
    shelf.get_by_role("button", name="use my packs", exact=True).click()
    expect(shelf.get_by_text("Millbrook blanched almond flour").first).to_be_visible()
    expect(shelf.locator("[data-bracket=cost]")).to_be_visible()
    shelf.get_by_role("button", name=re.compile("· draft$")).wait_for()
    lots = {
        line["ingredient"]: line["lot"]
        for line in Draft.objects.get(formula__name="Market rolls, egg-free").document["lines"]
    }
    # First in, first out: the winter pack of psyllium has the nearer date.
    assert lots["psyllium-powder"] == Lot.objects.get(name__contains="winter pack").key
    shelf.get_by_role("button", name="Undo (Ctrl Z)", exact=True).or_(
        shelf.get_by_role("button", name="Undo", exact=True).first
    ).first.click()
    expect(shelf.locator("[data-bracket=cost]")).to_be_hidden()


def test_claims_and_budgets_say_why(bench):
    bench.get_by_role("button", name="Vegetarian: needs certified packs", exact=True).click()
    expect(bench.get_by_text("made with calf rennet")).to_be_visible()
    bench.get_by_role("button", name=re.compile("^Strict day")).click()
    expect(bench.get_by_text(re.compile(r"Strict day: \d pieces a day"))).to_be_visible()
    expect(bench.get_by_text("Amounts hidden by rounding to 0")).to_be_visible()


def test_a_bake_is_planned_and_takes_its_grams_away(shelf):
    go(shelf, "/pantry/stock")
    field = shelf.get_by_label("Alpe Vigna gruyère, grams on hand")
    expect(field).to_have_value("410")
    shelf.get_by_role("button", name="Mark as baked and deduct stock", exact=True).click()
    expect(field).to_have_value("270")
    field.fill("300")
    field.press("Enter")
    expect(shelf.get_by_text("300 g on hand")).to_be_visible()
    shelf.get_by_label("Formula", exact=True).fill("short")
    shelf.get_by_role("option", name="Lemon shortbread coins", exact=True).click()
    shelf.get_by_role("button", name="Plan", exact=True).click()
    expect(shelf.get_by_text("missing from stock").first).to_be_visible()
    assert PlannedBake.objects.filter(state="planned").get().name == "Lemon shortbread coins"


def test_a_file_is_imported_with_its_bad_rows_told_by_number(shelf):
    go(shelf, "/pantry/import")
    shelf.get_by_label("Rows of products").fill(ROWS)
    shelf.get_by_role("button", name="Read file", exact=True).click()
    shelf.get_by_role("button", name="Review all 3", exact=True).click()
    expect(shelf.locator(".progress")).to_be_visible()
    run_job(PackImport.objects.get().job_id)  # what the worker does
    expect(shelf.get_by_text("row 3")).to_be_visible()
    shelf.get_by_role("button", name=re.compile("^Import 2 valid rows")).click()
    expect(shelf.locator(".progress")).to_be_visible()
    run_job(PackImport.objects.get().job_id)
    shelf.get_by_role("link", name="Show packs", exact=True).click()
    expect(shelf.get_by_role("link", name="Northfield salted butter", exact=True)).to_be_visible()


def test_the_card_follows_the_bench_in_both_regions(bench):
    bench.get_by_role("link", name="Card", exact=True).click()
    bench.get_by_role("radio", name="Panel and allergens", exact=True).click()
    expect(bench.get_by_role("region", name="Nutrition Facts", exact=True)).to_be_visible()
    expect(bench.get_by_text("Contains: egg, hazelnut, milk, sesame.")).to_be_visible()
    bench.get_by_role("radio", name="European Union", exact=True).click()
    panel = bench.get_by_role("region", name="Nutrition declaration", exact=True)
    expect(panel.get_by_role("row", name=re.compile("^Energy .* kJ"))).to_be_visible()
    expect(bench.locator(".statement strong").filter(has_text="celery")).to_be_visible()
    before = panel.inner_text()
    bench.get_by_role("slider", name="Water, boundary", exact=True).press("ArrowUp")
    expect(panel).not_to_have_text(before)


@pytest.mark.parametrize("theme", ["light", "dark"])
def test_the_views_are_clean(bench, theme):
    bench.evaluate(f"localStorage.setItem('theme', '{theme}')")
    card = f"{bench.url}/card"
    pack, bad = (Lot.objects.get(name=name).pk for name in ("Millbrook blanched almond flour", "Quern ground almonds"))
    for path, sign in (
        ("/pantry", "Your packs"), (f"/pantry/packs/{pack}", "The label makes sense"), (f"/pantry/packs/{bad}", "This looks like"),
        ("/pantry/ingredients/almond-flour", "Function in dough"), ("/pantry/compare?keys=almond-flour&keys=psyllium-powder", "Water absorption"),
        ("/pantry/stock", "Mark as baked and deduct stock"), ("/pantry/import", "Drop a product file"), (card, "Dry bowl|Bowl"),
    ):  # fmt: skip
        bench.goto(path if path.startswith("http") else re.sub(r"/formula.*", path, card))
        bench.get_by_text(re.compile(sign)).first.wait_for()
        assert violations(bench) == [], path
