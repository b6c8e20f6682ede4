"""The recipe that is handed on, its ways out, and its ways in again."""

import io
import json
import re
import zipfile
from dataclasses import replace
from datetime import date
from pathlib import Path

import pytest
from openpyxl import load_workbook
from PIL import Image, ImageColor

from substrata.base.errors import FormulaError
from substrata.base.settings import Settings
from substrata.evaluation.dough import Dough
from substrata.formula.exchange.page_import import page_recipe, sheet_recipe
from substrata.formula.exchange.recipe_file import file_recipe
from substrata.formula.exchange.text_import import import_text, with_phrases
from substrata.formula.form_table import roles
from substrata.formula.formula import Formula, Line, MethodEdit, Sort
from substrata.formula.formula_document import read_document
from substrata.publishing.card_panels import card
from substrata.publishing.layer_picture import core_png, role_looks
from substrata.publishing.printed_page import as_pdf, label_html, recipe_html
from substrata.publishing.recipe import recipe_of
from substrata.publishing.recipe_formats import TEXT_STYLES, as_csv, as_jsonld, as_markdown, as_text, written
from substrata.publishing.recipe_workbook import as_xlsx
from substrata.publishing.sale_label import Business, pack_label
from tests.inference.conftest import DEMO, LIBRARY
from tests.support.doughs import document

ROLLS, WRAPS, LOAF, COINS = "Market rolls, egg-free", "Broccoli wraps", "Pumpkin tin loaf", "Lemon shortbread coins"


SETTINGS = Settings()


def made(which, *, batches=1.0, settings=SETTINGS, **change):
    return recipe_of(Dough(replace(DEMO[which], **change), LIBRARY, settings).as_baked(), batches=batches)


def grams_of(formula):
    return {line.ingredient: line for line in formula.lines}


def read_back(text, name):
    pasted = import_text(text, LIBRARY)
    lines = tuple(line for row in pasted for line in row.lines)
    formula = with_phrases(Formula(name="x", form=DEMO[name].form, lines=lines), pasted)
    return formula, Dough(formula, LIBRARY)


@pytest.mark.parametrize("name", sorted(DEMO))
def test_every_demo_formula_is_handed_on_and_read_in_again(name):
    recipe = made(name)
    whole = Dough(DEMO[name], LIBRARY).batch
    told = {line.line: line.grams for group in recipe.groups for line in group.lines}
    assert sum(told.values()) == pytest.approx(sum(w.grams.value for w in whole.lines if w.role != "frying"), rel=0.02)
    formula, again = read_back(as_text(recipe), name)
    assert formula.name == DEMO[name].name
    assert formula.pieces == DEMO[name].pieces
    assert again.batch.whole_g == pytest.approx(sum(told.values()), rel=0.02)
    page = page_recipe(f'<html><script type="application/ld+json">{as_jsonld(recipe)}</script></html>')
    _, from_page = read_back(page.text, name)
    assert from_page.batch.whole_g == pytest.approx(sum(told.values()), rel=0.02)


def test_variants_are_what_was_tried_and_what_seasons_it():
    """Sweet ones for a sweet dough; none of ingredients already; nothing of them comes in again as an ingredient."""
    loaf, coins = DEMO[LOAF], made("Lemon shortbread coins")
    egg = next(line for line in loaf.lines if line.ingredient == "egg")
    whites = replace(egg, id="white", ingredient="egg-white", entered="")
    other = replace(loaf, name="With whites", lines=(*(x for x in loaf.lines if x is not egg), whites))
    told = recipe_of(Dough(loaf, LIBRARY, SETTINGS).as_baked(), tried=[other, loaf]).variants
    assert [v.name for v in told if v.kind == "tried"] == ["With whites"], "one without a difference is none"
    assert "removed" in next(v.text for v in told if v.kind == "tried")
    savoury = {v.name for v in made(ROLLS).variants if v.kind == "seasoning"}
    sweet = {v.name for v in coins.variants}
    assert len(savoury) == 3
    assert not savoury & sweet
    assert not savoury & {v.name for v in told}, "a little sweet is sweet"
    assert not any("lemon" in name.lower() for name in sweet), "it is in the coins already"
    text = as_text(recipe_of(Dough(loaf, LIBRARY, SETTINGS).as_baked(), tried=[other]))
    assert "With whites: " in text
    formula, _ = read_back(text, LOAF)
    assert {line.ingredient for line in formula.lines} == {line.ingredient for line in loaf.lines}


def test_sorts_are_variants_with_their_own_lines():
    seeds = Line(id="seeds", ingredient="sesame-seeds", grams=12, role="topping")
    half = DEMO[ROLLS].pieces // 2
    sorts = (Sort(name="plain", pieces=half), Sort(name="seeded", pieces=half, lines=frozenset({"seeds"})))
    plain, seeded = (
        v for v in made(ROLLS, lines=(*DEMO[ROLLS].lines, seeds), sorts=sorts).variants if v.kind == "sort"
    )
    assert (plain.name, seeded.name) == ("plain", "seeded")
    assert "as they are" in plain.text
    assert "with 12 g sesame seeds" in seeded.text
    doubled = made(ROLLS, lines=(*DEMO[ROLLS].lines, seeds), sorts=sorts, batches=2).variants[1]
    assert str(doubled.text).startswith(f"{2 * half} × with")


def test_json_ld_has_what_schema_org_asks_for():
    # schema.org/Recipe and schema.org/NutritionInformation: names, and durations as ISO 8601.
    whole = json.loads(as_jsonld(made(ROLLS)))
    assert (whole["@context"], whole["@type"]) == ("https://schema.org", "Recipe")
    assert whole["recipeYield"] == "8 pieces"
    assert {step["@type"] for step in whole["recipeInstructions"]} == {"HowToStep"}
    assert whole["cookTime"].startswith("PT")
    assert {"calories", "fatContent", "carbohydrateContent", "fiberContent", "proteinContent"} <= set(
        whole["nutrition"]
    )


def test_measures_are_a_kitchens_own_and_say_when_to_weigh():
    recipe = made(WRAPS)
    lines = {line.name: line for group in recipe.groups for line in group.lines}
    assert lines["Egg white"].measure == "2 large eggs" or "white" in lines["Egg white"].measure
    assert lines["Egg, whole"].measure == "1 large egg"
    rolls = {line.name: line for group in made(ROLLS).groups for line in group.lines}
    # A cup of blanched almond flour is about 106 g by this pantry's own table: 160 g are a cup and a half.
    assert rolls["Almond flour, blanched"].measure == "1½ cups"
    assert rolls["Psyllium husk powder"].weigh_it
    assert not rolls["Cider vinegar"].weigh_it
    metric = {
        line.name: line for group in made(ROLLS, settings=Settings(spoons="metric")).groups for line in group.lines
    }
    assert metric["Water"].measure != rolls["Water"].measure


def test_more_batches_are_more_of_everything_but_of_the_oven():
    one, three = made(ROLLS), made(ROLLS, batches=3)
    a = {line.line: line.grams for group in one.groups for line in group.lines}
    b = {line.line: line.grams for group in three.groups for line in group.lines}
    assert {key: b[key] for key in b} == pytest.approx({key: 3 * a[key] for key in a}, rel=0.05)
    assert three.oven == one.oven == "177 °C"
    assert three.pieces == 24


def test_a_step_in_the_bakers_words_stays_and_says_when_it_no_longer_agrees():
    plain = made(ROLLS)
    bake = next(step for step in plain.steps if step.title == "Bake")
    mine = {
        bake.id: MethodEdit(text="Bake until my nose says so.", of=bake.computed),
        plain.steps[1].id: MethodEdit(text=""),
    }
    edited = made(ROLLS, method=mine)
    step = next(s for s in edited.steps if s.id == bake.id)
    assert (step.text, step.edited, step.stale) == ("Bake until my nose says so.", True, False)
    assert plain.steps[1].id not in {s.id for s in edited.steps}
    hotter = made(ROLLS, method=mine, bake=replace(DEMO[ROLLS].bake, oven_c=200.0))
    step = next(s for s in hotter.steps if s.id == bake.id)
    assert (step.text, step.stale) == ("Bake until my nose says so.", True)


def test_the_method_follows_the_family_and_keeping_the_form():
    wraps = " ".join(step.text for step in made(WRAPS).steps)
    assert wraps.index("Squeeze") < wraps.index("into the vegetable first")
    assert "fridge" in made(WRAPS).keeping.text
    assert made(LOAF).keeping.room_days == 0  # moist, with pumpkin in it: FDA Food Code 2022, 3-501.16
    assert made(COINS).keeping.room_days >= 3
    assert made("Spinach pockets").keeping.room_days == 0  # a cooked filling does not stand about
    assert any("71 °C" in caution for caution in made(LOAF).cautions)


def test_a_workbook_and_a_table_come_back_as_they_went():
    recipe = made(ROLLS)
    data = as_xlsx(recipe)
    book = load_workbook(io.BytesIO(data))
    assert book.sheetnames == ["Ingredients", "Method", "Figures", "Variants", "About"]
    for found in (sheet_recipe(data, "rolls.xlsx"), sheet_recipe(as_csv(recipe).encode(), "rolls.csv")):
        _, again = read_back(found.text, ROLLS)
        assert again.batch.whole_g == pytest.approx(Dough(DEMO[ROLLS], LIBRARY).batch.whole_g, rel=0.02)


def test_no_cell_is_a_formula_of_a_sheet():
    recipe = made(ROLLS, lines=tuple(replace(line, note="=HYPERLINK(1)") for line in DEMO[ROLLS].lines))
    cells = [cell for row in load_workbook(io.BytesIO(as_xlsx(recipe)))["Ingredients"].iter_rows() for cell in row]
    assert not [cell for cell in cells if cell.data_type == "f"]
    assert ",=" not in as_csv(recipe)


@pytest.mark.parametrize("name", sorted(DEMO))
def test_the_picture_of_the_core_has_its_strata_by_weight(name):
    """Read back by the imaging library: down the column each role's colour takes as much as its share of the weight."""
    dough = Dough(DEMO[name], LIBRARY)
    image = Image.open(io.BytesIO(core_png(dough)))
    assert (image.format, image.width) == ("PNG", 840)
    column = [image.getpixel((58, y)) for y in range(150, image.height - 50)]
    lines = [w for w in dough.batch.lines if w.grams.value > 0]
    whole = sum(w.grams.value for w in lines)
    shares = {}
    for w in lines:
        colour = ImageColor.getrgb(role_looks()[w.role][0])
        shares[colour] = shares.get(colour, 0.0) + w.grams.value / whole
    for colour, share in shares.items():
        if share > 0.05:
            assert column.count(colour) / len(column) == pytest.approx(share, abs=0.06)
    with pytest.raises(FormulaError):
        core_png(Dough(replace(DEMO[name], lines=()), LIBRARY))


def test_the_picture_has_the_colours_of_the_page():
    """Every role has its look, and it is the light one of the page's own tokens."""
    tokens = Path("web/src/styles/tokens.css").read_text(encoding="utf8")
    told = dict(reversed(re.findall(r"--role-([a-z]+): (#[0-9a-f]{6})", tokens)))
    assert set(roles()) <= set(role_looks())
    assert {role: colour for role, (colour, _) in role_looks().items() if role != "frying"} == told


def pdf_text(data):
    pdfium = pytest.importorskip("pypdfium2")
    document = pdfium.PdfDocument(data)
    return " ".join(" ".join(page.get_textpage().get_text_range() for page in document).split())


@pytest.mark.parametrize("paper", ["a4", "letter", "a6"])
def test_a_page_is_set_with_every_line_and_step(paper):
    recipe = made(ROLLS)
    data = as_pdf(recipe_html(recipe, paper))
    assert data.startswith(b"%PDF")
    text = pdf_text(data)
    for line in (line for group in recipe.groups for line in group.lines):
        assert line.name.split(",")[0] in text
    assert str(recipe.net_carbs) in text


def test_a_name_is_never_markup():
    recipe = made(ROLLS, name='<script>alert(1)</script> & "rolls" | *x*', notes="<img src=http://example.com/x>")
    assert "<script>" not in recipe_html(recipe)
    assert as_pdf(recipe_html(recipe)).startswith(b"%PDF")
    assert "\\<script>" in as_markdown(recipe)
    assert json.loads(as_jsonld(recipe))["name"].startswith("<script>")


def test_a_label_tells_what_the_law_wants_and_what_is_missing():
    us = pack_label(made(LOAF), "us", Business(pieces_a_pack=2), baked_on=date(2026, 6, 6))
    # 21 CFR 101.7: both systems; 101.4 and FALCPA: statement and "Contains".
    assert "Net Wt" in us.words[0]
    assert "oz" in us.words[0]
    assert us.contains.startswith("Contains")
    assert us.words[1] == "Best by 10 Jun 2026. Keep refrigerated."
    assert any("address" in text for text in us.missing)
    named = pack_label(made(LOAF), "us", Business(name="The stall", address="1 Market"), baked_on=date(2026, 6, 6))
    assert "The stall, 1 Market" in named.words
    assert not any("business" in text for text in named.missing)
    eu = pack_label(made("Lemon shortbread coins"), "eu", Business(), baked_on=date(2026, 6, 6))
    # EU 1169/2011, article 24(1): a "use by" date is for what spoils and may harm.
    pumpkin = pack_label(made(LOAF), "eu", Business(), baked_on=date(2026, 6, 6))
    assert pumpkin.words[1].startswith("Use by 10 Jun 2026")
    assert not eu.words[1].startswith("Use by")
    # EU 1169/2011, Annex III 2.1.
    assert eu.name.endswith("with sweetener(s)")
    assert any(part.strong for part in eu.statement)
    assert as_pdf(label_html(eu, (90, 60))).startswith(b"%PDF")


PAGE = """<!doctype html><html><head><script>var x = "<b>";</script><script type="application/ld+json">{"@graph": [{"@type": "WebPage"},
 {"@type": ["Recipe", "Thing"], "name": "Seed &amp; nut sheet", "recipeYield": ["24", "24 crackers"], "image": "x.png", "author": {"name": "n"},
  "recipeIngredient": ["1 1/2 cups almond flour", "2 tbsp flax meal", "1 large egg", "½ tsp <b>salt</b>"],
  "recipeInstructions": [{"@type": "HowToSection", "itemListElement": [{"@type": "HowToStep", "text": "Mix it all."},
  {"@type": "HowToStep", "text": "Bake at 175 °C for 15 minutes."}]}]}]}</script></head><body onload="x()">…</body></html>"""


def test_a_page_of_the_web_is_read_and_what_is_left_is_told():
    page = page_recipe(PAGE)
    assert page.unread == ("author", "image")
    formula, dough = read_back(page.text, "Hazelnut caraway crackers")
    assert (formula.name, formula.pieces) == ("Seed & nut sheet", 24)
    assert {line.ingredient for line in formula.lines} == {"almond-flour", "flax-meal", "egg", "salt"}
    assert formula.bake.oven_c == 175.0
    assert dough.batch.dough_g > 200


@pytest.mark.parametrize(
    ("data", "name", "words"),
    [
        (b"<html><body>no recipe here</body></html>", "a.html", "holds no recipe"),
        (b'{"@type": "Recipe"', "a.json", "holds no recipe"),
        (b"x" * 5_000_000, "a.html", "too large"),
        (b"PK\x03\x04 not a zip", "a.xlsx", "cannot be read"),
        (b"\x00\x01\x02", "a.txt", "not text"),
        (b"", "a.csv", "empty"),
    ],
)
def test_what_is_no_recipe_is_refused_in_words(data, name, words):
    with pytest.raises(FormulaError) as refused:
        file_recipe(data, name)
    assert words in str(refused.value)


def test_a_bomb_is_not_unpacked():
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("xl/worksheets/sheet1.xml", b"\0" * 80_000_000)
    assert len(out.getvalue()) < 1_000_000
    with pytest.raises(FormulaError, match="cannot be read"):
        sheet_recipe(out.getvalue(), "b.xlsx")


def test_deep_json_ends():
    deep = '{"@graph": ' * 3000 + "1" + "}" * 3000
    with pytest.raises(FormulaError, match="no recipe"):
        page_recipe(f'<script type="application/ld+json">{deep}</script>')


def test_every_style_is_written():
    for style in TEXT_STYLES:
        assert "lmond flour" in written(made(ROLLS), style)


def _with_part(data, name, content):
    """The same workbook with another content of one part."""
    result = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(result, "w", zipfile.ZIP_DEFLATED) as new:
        for entry in old.infolist():
            new.writestr(entry.filename, content if entry.filename == name else old.read(entry.filename))
    return result.getvalue()


def test_styles_and_names_of_a_workbook_are_never_looked_at():
    data = as_xlsx(made(ROLLS))
    plain = sheet_recipe(data, "rolls.xlsx")
    styles = f'<styleSheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><cellXfs>{"<xf/>" * 400_000}</cellXfs></styleSheet>'
    bomb = _with_part(data, "xl/styles.xml", styles)
    assert len(bomb) < 30_000
    assert sheet_recipe(bomb, "rolls.xlsx") == plain
    # A part that is needed has a limit, and the process that reads it has one too.
    sheet = zipfile.ZipFile(io.BytesIO(data)).read("xl/worksheets/sheet1.xml").decode()
    with pytest.raises(FormulaError, match="workbook cannot be read"):
        sheet_recipe(_with_part(data, "xl/worksheets/sheet1.xml", sheet + " " * 21_000_000), "rolls.xlsx")
    names = "<definedName name='a'>b</definedName>" * 20_000
    with pytest.raises(FormulaError, match="workbook cannot be read"):
        sheet_recipe(
            _with_part(data, "xl/workbook.xml", f"<workbook><definedNames>{names}</definedNames></workbook>"),
            "rolls.xlsx",
        )


def test_the_card_cautions_for_who_can_be_hurt():
    """Cautions of health offices: honey and infants (CDC), whole nuts and small children (NHS), bitter lupin (BfR), raw flesh (FSIS)."""
    for lines, words in (
        ({"honey": 20, "almond_flour": 200, "egg": 50}, "12 months"),
        ({"walnuts": 80, "almond_flour": 150, "egg": 50}, "small children"),
        ({"lupin_flour": 100, "egg": 100}, "Bitter lupin"),
        ({"chicken_raw": 300, "parmesan": 40}, "74 °C"),
    ):
        made = card(read_document(document("thin-crust", 6, **lines)), LIBRARY, SETTINGS)
        assert any(words in str(c.text) for c in made.cautions), words
    fish = card(read_document(document("thin-crust", 6, tuna=250, egg=60)), LIBRARY, SETTINGS)
    assert "tuna" in fish.us_statement.contains
    assert "fish" not in fish.us_statement.contains  # FALCPA names the species
