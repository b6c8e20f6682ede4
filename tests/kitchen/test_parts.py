"""Formulas of a kitchen as lines of another: taken in with their packs, newer ones offered, circles refused, sorts handed on."""

import pytest

from kitchen.errors import NotFound, Refused
from kitchen.services import formulas, packs, parts, recipes
from kitchen.services.access import membership
from kitchen.services.judging import core_settings, judge, library_of, packs_named
from tests.conftest import sample

DRY = sample(almond_flour=160, psyllium_powder=36, baking_powder=14, salt=8) | {"name": "Dry mix"}


@pytest.fixture
def dry(people, kitchen):
    formula = formulas.create_formula(membership(people["baker"], kitchen.pk), DRY).formula
    formulas.save_version(membership(people["baker"], kitchen.pk), formula.pk, 1, "first")
    return formula


def with_part(taken, **more):
    rolls = sample(water=420, cider_vinegar=10)
    line = {"id": "mix", "ingredient": "part", "grams": taken.grams, "entered": "", "role": "base", "part": taken.part}
    return rolls | {"lines": [*rolls["lines"], line], **more}


def test_a_part_is_taken_in_as_it_was_last_saved(people, kitchen, dry):
    taken = parts.part_of(membership(people["baker"], kitchen.pk), dry.pk, 0)
    assert (taken.name, taken.grams, taken.part["number"]) == ("Dry mix", 218.0, 1)
    document = with_part(taken)
    told = judge(library_of(kitchen, document), core_settings(kitchen), document)
    apart = judge(
        library_of(kitchen),
        core_settings(kitchen),
        sample(almond_flour=160, psyllium_powder=36, baking_powder=14, salt=8, water=420, cider_vinegar=10),
    )
    assert told.problems == ()
    assert told.nutrition.piece.protein.value == pytest.approx(apart.nutrition.piece.protein.value)
    assert next(line for line in told.lines if line.id == "mix").name == "Dry mix"


def test_a_newer_version_is_offered_with_what_is_different(people, kitchen, dry):
    document = with_part(parts.part_of(membership(people["baker"], kitchen.pk), dry.pk, 0))
    assert parts.newer_parts(membership(people["baker"], kitchen.pk), document) == ()
    changed = DRY | {
        "lines": [
            line | {"grams": 200, "entered": "200 g"} if line["ingredient"] == "almond-flour" else line
            for line in DRY["lines"]
        ]
    }
    saved = formulas.save_draft(membership(people["baker"], kitchen.pk), dry.pk, changed, 2)
    formulas.save_version(membership(people["baker"], kitchen.pk), dry.pk, saved.draft.lock, "more")
    (newer,) = parts.newer_parts(membership(people["baker"], kitchen.pk), document)
    assert (newer.line, newer.number, newer.newest) == ("mix", 1, 2)
    assert any("200" in change for change in newer.changes)


def test_a_formula_never_comes_to_lie_in_itself(people, kitchen, dry):
    taken = parts.part_of(membership(people["baker"], kitchen.pk), dry.pk, 0)
    rolls = formulas.create_formula(
        membership(people["baker"], kitchen.pk), with_part(taken) | {"name": "Rolls"}
    ).formula
    with pytest.raises(Refused, match="contain itself") as refused:
        parts.part_of(membership(people["baker"], kitchen.pk), rolls.pk, dry.pk)
    assert refused.value.got == "Dry mix in Rolls"
    with pytest.raises(Refused, match="contain itself"):
        parts.part_of(membership(people["baker"], kitchen.pk), dry.pk, dry.pk)
    with pytest.raises(NotFound):
        parts.part_of(membership(people["outsider"], kitchen.pk), dry.pk, 0)


def test_packs_of_a_part_count(people, kitchen, dry):
    lot = packs.create_lot(
        membership(people["baker"], kitchen.pk),
        {"ingredient": "almond-flour", "name": "Fine", "price": 10.0, "pack_g": 500.0},
        0,
    ).lot
    document = with_part(parts.part_of(membership(people["baker"], kitchen.pk), dry.pk, 0))
    inner = document["lines"][-1]["part"]["formula"]
    inner["lines"] = [
        line | {"lot": lot.key} if line["ingredient"] == "almond-flour" else line for line in inner["lines"]
    ]
    assert packs_named(document) == {lot.key}
    told = judge(library_of(kitchen, document), core_settings(kitchen), document)
    assert told.problems == ()


def test_a_sort_is_handed_on_by_itself(people, kitchen):
    rolls = sample(
        almond_flour=160,
        psyllium_powder=36,
        water=420,
        baking_powder=14,
        cider_vinegar=10,
        salt=8,
        spinach=120,
        feta=60,
    )
    pieces = rolls["form"]["pieces"]
    rolls["sorts"] = [
        {"name": "green", "pieces": pieces - 2, "lines": ["spinach"]},
        {"name": "white", "pieces": 2, "lines": ["feta"]},
    ]
    green = recipes.recipe_document(membership(people["baker"], kitchen.pk), rolls, sort="green")
    assert green.pieces == pieces - 2
    names = {line.name for group in green.groups for line in group.lines}
    assert any("pinach" in name for name in names)
    assert not any("Feta" in name for name in names)
    assert "milk" not in green.allergens
    with pytest.raises(Refused, match="sort not found"):
        recipes.recipe_document(membership(people["baker"], kitchen.pk), rolls, sort="blue")
