"""A proposed change applied to what a formula has become since."""

import copy

from hypothesis import given
from hypothesis import strategies as st

from substrata import read_document, write_document
from substrata.formula.exchange.draft_merge import merge_change
from tests.support.doughs import document

BASE = write_document(
    read_document(document("bun", 6, almond_flour=150, psyllium_powder=20, egg=50, water=200, salt=4))
)


def changed(doc, **lines):
    """The same with other weights of lines; ``_`` stands for ``-``."""
    result = copy.deepcopy(doc)
    for line in result["lines"]:
        key = line["id"].replace("-", "_")
        if key in lines:
            line["grams"], line["entered"] = lines[key], f"{lines[key]:g} g"
    return result


def grams(doc):
    return {line["id"]: line["grams"] for line in doc["lines"]}


def test_all_that_was_changed_since_stays():
    present = changed(BASE, salt=5)
    present["name"] = "Renamed"
    present["lines"].append(
        {**present["lines"][0], "id": "sauce", "ingredient": "tomato-passata", "grams": 80, "role": "topping"}
    )
    present["sorts"] = [{"name": "plain", "pieces": 3, "lines": []}, {"name": "red", "pieces": 3, "lines": ["sauce"]}]
    merged = merge_change(BASE, changed(BASE, water=180), present)
    assert merged.conflicts == ()
    assert grams(merged.document) == grams(present) | {"water": 180}
    assert merged.document["name"] == "Renamed"
    assert merged.document["sorts"] == present["sorts"]


def test_a_weight_that_moved_since_moves_by_the_same_share():
    merged = merge_change(BASE, changed(BASE, water=180), changed(BASE, water=400))
    assert grams(merged.document)["water"] == 360


def test_what_both_changed_is_named():
    proposed, present = copy.deepcopy(BASE), copy.deepcopy(BASE)
    proposed["bake"]["oven_c"], present["bake"]["oven_c"] = 200.0, 170.0
    present["lines"] = [line for line in present["lines"] if line["id"] != "water"]
    merged = merge_change(BASE, changed(proposed, water=180), present)
    assert {(c.what, c.present, c.proposed) for c in merged.conflicts} == {
        ("bake oven c", "170", "200"),
        ("the line water", "removed", "180 g"),
    }
    assert merged.document["bake"]["oven_c"] == 200


@given(water=st.floats(1, 900), salt=st.floats(0, 20), oven=st.sampled_from([None, 160.0, 210.0]))
def test_a_change_to_an_untouched_formula_is_the_proposal_and_no_change_is_the_present(water, salt, oven):
    proposed = changed(BASE, water=water, salt=salt)
    proposed["bake"]["oven_c"] = oven
    assert merge_change(BASE, proposed, BASE).document == proposed
    assert merge_change(BASE, BASE, proposed).document == proposed
