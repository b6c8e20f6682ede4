"""Formulas and kitchens as files: what leaves a kitchen makes the same figures in another."""

import json

import pytest

from kitchen.demo.load import load_demo
from kitchen.errors import Forbidden, NotFound, Refused
from kitchen.models import Formula, Lot
from kitchen.services import files, formulas, house, packs
from kitchen.services.access import membership
from kitchen.services.judging import core_settings, judge, library_of
from tests.conftest import sample

LABEL = {
    "style": "us",
    "per_g": 28,
    "figures": {"fat_g": "14", "carbohydrate_g": "6", "fibre_g": "3", "protein_g": "7"},
}


@pytest.fixture
def baker(people):
    return people["baker"]


@pytest.fixture
def elsewhere(people):
    return people["outsider"].memberships.get().kitchen


@pytest.fixture
def packed(baker, kitchen):
    """A formula whose flour comes from a pack that differs from the reference."""
    lot = packs.create_lot(
        membership(baker, kitchen.pk), {"name": "Mill flour", "ingredient": "almond-flour", "label": LABEL}, 500
    ).lot
    document = sample()
    document["lines"][0]["lot"] = lot.key
    formula = formulas.create_formula(membership(baker, kitchen.pk), document).formula
    formulas.save_version(membership(baker, kitchen.pk), formula.pk, 1, "first")
    formulas.save_draft(membership(baker, kitchen.pk), formula.pk, document | {"notes": "softer"}, 2)
    return formula


def through_json(content):
    return json.loads(json.dumps(content, default=str))


def figures(formula):
    document = formula.draft.document
    judged = judge(library_of(formula.kitchen, document), core_settings(formula.kitchen), document)
    return {b.key: pytest.approx(b.estimate.value, rel=1e-12) for b in judged.brackets}


def test_a_formula_makes_the_same_figures_in_the_other_kitchen(people, baker, kitchen, elsewhere, packed):
    content = through_json(files.formula_file(membership(baker, kitchen.pk), packed.pk, versions=True))
    taken = files.take_file(membership(people["outsider"], elsewhere.pk), content)
    (here,) = taken.formulas
    assert (taken.packs_added, taken.packs_known) == (1, 0)
    assert figures(here) == figures(packed)
    assert here.draft.document["lines"][0]["lot"] != packed.draft.document["lines"][0]["lot"], (
        "keys are a kitchen's own"
    )
    plain = formulas.create_formula(membership(baker, kitchen.pk), sample()).formula
    assert figures(plain)["net_carbs"] != figures(here)["net_carbs"], "the pack matters"
    version = here.versions.get()
    assert (version.number, version.note, here.draft.base_number, here.draft.changed) == (1, "first", 1, True)
    assert version.document["lines"][0]["lot"] == here.draft.document["lines"][0]["lot"]


def test_a_pack_that_says_the_same_is_the_same_pack(people, baker, kitchen, elsewhere, packed):
    content = files.formula_file(membership(baker, kitchen.pk), packed.pk, versions=False)
    assert "versions" not in content["formulas"][0]
    files.take_file(membership(people["outsider"], elsewhere.pk), content)
    again = files.take_file(membership(people["outsider"], elsewhere.pk), content)
    assert (again.packs_added, again.packs_known, elsewhere.lots.count()) == (0, 1, 1)


def test_a_plain_document_is_taken_too(baker, kitchen):
    taken = files.take_file(membership(baker, kitchen.pk), sample("Plain"))
    assert [f.name for f in taken.formulas] == ["Plain"]


def test_a_whole_kitchen_goes_into_another_and_back(people, elsewhere):
    demo = load_demo()
    demo.refresh_from_db()
    owner = demo.memberships.get(role="owner").user
    content = through_json(files.kitchen_file(membership(owner, demo.pk)))
    files.take_file(membership(people["outsider"], elsewhere.pk), content, settings=True)
    elsewhere.refresh_from_db()
    for one in demo.formulas.all():
        other = elsewhere.formulas.get(name=one.name)
        assert figures(other) == figures(one), one.name
        assert other.versions.count() == one.versions.count()
    stock = lambda k: sorted(k.lots.values_list("name", "on_hand_g"))  # noqa: E731
    assert stock(elsewhere) == stock(demo)
    assert [e.name for e in elsewhere.eaters.all()] == [e.name for e in demo.eaters.all()]
    (oven,), (own,) = elsewhere.ovens.all(), demo.ovens.all()
    assert oven.key == own.key
    assert [b.readings for b in oven.bakes.order_by("pk")] == [b.readings for b in own.bakes.order_by("pk")]
    assert elsewhere.pans == demo.pans
    again = through_json(files.kitchen_file(membership(people["outsider"], elsewhere.pk)))
    said = lambda c: sorted(json.dumps(p["document"], sort_keys=True) for p in c["packs"])  # noqa: E731
    assert said(again) == said(content)


@pytest.mark.parametrize(
    ("content", "field"),
    [
        ({"hello": 1}, "file"),
        ({"substrata_file": 9}, "file"),
        ({"substrata_file": 1, "formulas": ["?"]}, "formulas"),
        ({"substrata_file": 1, "formulas": [{"document": sample()}], "packs": [{"key": "a"}]}, "packs"),
        ({"substrata_file": 1, "formulas": [{"document": sample(), "versions": [3]}]}, "versions"),
        ({"substrata_file": 1, "formulas": [{"document": sample()}, {"document": sample(pieces=0)}]}, "pieces"),
    ],
)
def test_what_cannot_be_read_is_named_and_nothing_is_taken(baker, kitchen, content, field):
    with pytest.raises(Refused) as refusal:
        files.take_file(membership(baker, kitchen.pk), content)
    assert refusal.value.field == field
    assert not Formula.objects.exists()
    assert not Lot.objects.exists()


def test_files_are_the_kitchens_own(people, kitchen, packed):
    with pytest.raises(NotFound):
        files.formula_file(membership(people["outsider"], kitchen.pk), packed.pk, versions=True)
    with pytest.raises(Forbidden):
        files.take_file(membership(people["viewer"], kitchen.pk), sample())


def test_a_house_formula_is_copied_without_the_demos_packs(people, elsewhere):
    every = house.house_formulas()
    assert len(every) >= 10
    made = house.copy_house_formula(membership(people["outsider"], elsewhere.pk), every[0].name)
    assert made.formula.name == every[0].name
    assert not any(line["lot"] for line in made.draft.document["lines"])
    assert made.draft.document["bake"]["oven"] == ""
    with pytest.raises(NotFound):
        house.copy_house_formula(membership(people["outsider"], elsewhere.pk), "Moon bread")


def test_what_was_begun_and_left_blank_leaves_nothing_behind(baker, kitchen, packed):
    blank = formulas.create_formula(membership(baker, kitchen.pk), sample() | {"lines": []}).formula
    formulas.discard_blank(membership(baker, kitchen.pk), blank.pk)
    assert not Formula.objects.filter(pk=blank.pk).exists()
    with pytest.raises(Refused):
        formulas.discard_blank(membership(baker, kitchen.pk), packed.pk)
    # A page that was closed in between cannot say so: the shelf does not show what it left.
    formulas.create_formula(membership(baker, kitchen.pk), sample("New formula") | {"lines": []})
    named = formulas.create_formula(membership(baker, kitchen.pk), sample("Soon") | {"lines": []}).formula
    assert set(formulas.shelf(membership(baker, kitchen.pk))) == {packed, named}
