"""Recipes handed on by a kitchen: files, labels, a read-only card that can be revoked; and files that come in."""

from datetime import date

import pytest
from django.test import Client

from kitchen.errors import Forbidden, NotFound, Refused
from kitchen.services import formulas, recipes
from kitchen.services.access import membership
from substrata.base.errors import FormulaError
from substrata.publishing.sale_label import Business
from tests.conftest import sample

ROLLS = sample(almond_flour=160, psyllium_powder=36, water=420, baking_powder=14, cider_vinegar=10, salt=8)


@pytest.fixture
def formula(people, kitchen):
    return formulas.create_formula(membership(people["baker"], kitchen.pk), ROLLS).formula


@pytest.mark.parametrize(
    ("style", "begins"),
    [
        ("text", b"Rolls"),
        ("markdown", b"# Rolls"),
        ("csv", b"group,"),
        ("jsonld", b"{"),
        ("xlsx", b"PK"),
        ("pdf-a4", b"%PDF"),
        ("pdf-a6", b"%PDF"),
    ],
)
def test_every_file_is_made(people, kitchen, style, begins):
    name, kind, data = recipes.recipe_file(membership(people["viewer"], kitchen.pk), ROLLS, style, 2)
    assert data.startswith(begins)
    assert name.startswith("Rolls.")
    assert "/" in kind


def test_what_is_not_made_is_refused(people, kitchen):
    with pytest.raises(Refused, match="file not found"):
        recipes.recipe_file(membership(people["baker"], kitchen.pk), ROLLS, "doc")
    with pytest.raises(Refused, match="too many batches"):
        recipes.recipe_document(membership(people["baker"], kitchen.pk), ROLLS, 0)
    with pytest.raises(FormulaError, match="nothing to make"):
        recipes.recipe_document(membership(people["baker"], kitchen.pk), ROLLS | {"lines": []})
    with pytest.raises(NotFound):
        recipes.recipe_document(membership(people["outsider"], kitchen.pk), ROLLS)


def test_a_card_is_shared_read_only_and_revoked(people, kitchen, formula):
    anybody = Client()
    share = recipes.change_share(membership(people["baker"], kitchen.pk), formula.pk, on=True)
    answer = anybody.get(f"/shared/{share.key}")
    page = answer.content.decode()
    assert answer.status_code == 200
    assert "Almond flour" in page
    assert people["baker"].email not in page
    assert "<script" not in page
    assert answer["X-Robots-Tag"] == "noindex, nofollow"
    # Given anew, the old address is dead; taken away, both are.
    again = recipes.change_share(membership(people["baker"], kitchen.pk), formula.pk, on=True)
    assert anybody.get(f"/shared/{share.key}").status_code == 404
    assert anybody.get(f"/shared/{again.key}").status_code == 200
    recipes.change_share(membership(people["baker"], kitchen.pk), formula.pk, on=False)
    assert anybody.get(f"/shared/{again.key}").status_code == 404
    assert recipes.share_of(membership(people["viewer"], kitchen.pk), formula.pk) is None
    with pytest.raises(Forbidden):
        recipes.change_share(membership(people["viewer"], kitchen.pk), formula.pk, on=True)


def test_a_label_is_told_and_printed(people, kitchen):
    label = recipes.label_of(
        membership(people["baker"], kitchen.pk), ROLLS, "eu", Business(name="Stall"), date(2026, 6, 6)
    )
    assert any("address" in text for text in label.missing)
    assert recipes.label_file(label, 90, 60).startswith(b"%PDF")
    with pytest.raises(Refused, match="label is too large"):
        recipes.label_file(label, 5, 5)


def test_a_file_comes_in_by_what_it_holds(people, kitchen):
    text = recipes.recipe_file(membership(people["baker"], kitchen.pk), ROLLS, "xlsx")[2]
    found, pasted = recipes.read_recipe_file(membership(people["baker"], kitchen.pk), text, "rolls.xlsx")
    assert found.kind == "table"
    assert {line.ingredient for row in pasted for line in row.lines} == {line["ingredient"] for line in ROLLS["lines"]}
    page = b'<script type="application/ld+json">{"@type":"Recipe","name":"A","recipeIngredient":["100 g almond flour"]}</script>'
    assert recipes.read_recipe_file(membership(people["baker"], kitchen.pk), page, "a.html")[0].kind == "page"
    with pytest.raises(FormulaError, match="no recipe"):
        recipes.read_recipe_file(membership(people["baker"], kitchen.pk), b"<p>hello</p>", "a.html")
