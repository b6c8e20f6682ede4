"""Groups of ingredients and traits of forms stand in tables; code asks by the name of a group or a trait."""

import ast
from pathlib import Path

import pytest

from substrata import load_library
from substrata.base.errors import LibraryError
from substrata.base.tables.table_reader import read_table
from substrata.formula.form_table import forms
from substrata.ingredients.groups import ingredient_group, is_in_group

CORE = Path(__file__).parents[2] / "substrata"
# Ids that are an ordinary word of the code too: a role, a flag, a nutrient, a kind of piece.
WORDS = {
    "egg",
    "egg-white",
    "egg-yolk",
    "egg-duck",
    "salt",
    "water",
    "milk",
    "sugar",
    "celery",
    "mustard",
    "rope",
    "doughnut",
}


def compared(tree, words):
    """Words of code that stand in a comparison or a collection that something is compared with."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Compare):
            for part in ast.walk(node):
                if isinstance(part, ast.Constant) and part.value in words:
                    yield part.lineno, part.value


def test_no_ingredient_and_no_form_is_compared_by_its_id_in_code():
    ids = {row.text("id") for row in read_table("composition.csv")} | set(forms())
    hits = [
        f"{path.relative_to(CORE)}:{line} {word}"
        for path in CORE.rglob("*.py")
        for line, word in compared(ast.parse(path.read_text(encoding="utf8")), ids - WORDS)
        if not (word == "cookie" and path.name == "bake_figures.py")  # a kind of dough
    ]
    assert not hits


def test_every_group_that_code_asks_for_is_there():
    """A name with a slip is refused where it is asked for; here before."""
    asked = {
        node.args[1].value
        for path in CORE.rglob("*.py")
        for node in ast.walk(ast.parse(path.read_text(encoding="utf8")))
        if isinstance(node, ast.Call)
        and getattr(node.func, "id", "") in ("is_in_group", "is_group_id")
        and isinstance(node.args[1], ast.Constant)
    }
    assert len(asked) >= 10
    for name in asked:
        ingredient_group(name)
    with pytest.raises(LibraryError, match="no such group"):
        ingredient_group("gums")


def test_a_group_holds_its_ids_and_all_that_has_one_of_its_flags():
    library = load_library()
    assert all(is_in_group(library[key], "gum") for key in ("xanthan", "guar", "konjac", "locust-bean-gum"))
    assert not is_in_group(library["psyllium-powder"], "gum")
    assert is_in_group(library["psyllium-powder"], "psyllium")
    # A brown or a ground erythritol is erythritol: it once was for one of five rules only.
    assert is_in_group(library["erythritol-brown"], "erythritol")
    assert is_in_group(library["cottage-cheese"], "animal-food")
