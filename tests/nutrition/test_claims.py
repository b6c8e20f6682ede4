"""Claims, allergens and statements: what may be said of a formula, and what must be."""

from dataclasses import replace

import pytest

from substrata import Settings, analyse, load_library, read_document
from substrata.base.tables.table_reader import read_table
from substrata.ingredients.labels.pack_reading import ingredient_of_lot
from substrata.ingredients.pack import Lot
from substrata.nutrition.claims import claim_kinds
from substrata.publishing.card_panels import card
from tests.support.doughs import document

LIBRARY = load_library()


def packed(ingredient, **facts):
    return ingredient_of_lot(
        replace(Lot(key=f"pack {ingredient}", ingredient=ingredient, name=f"Pack of {ingredient}"), **facts),
        LIBRARY[ingredient],
    )


def said(*packs, settings=None, **lines):
    """Claims of grams by ingredient; a pack stands in for its ingredient's line."""
    made = document("bun", 6, **lines)
    named = {p.id for p in packs}
    made["lines"] = [
        line | {"lot": f"pack {line['ingredient']}" if line["ingredient"] in named else ""} for line in made["lines"]
    ]
    judged = analyse(read_document(made), LIBRARY.with_packs(packs), settings or Settings())
    return {c.key: c for c in judged.claims}, judged


def verdict(key, *packs, settings=None, **lines):
    return said(*packs, settings=settings, **lines)[0][key].verdict


@pytest.mark.parametrize(
    ("claim", "lines", "wanted"),
    # The traps of the trade (common practice; 21 CFR 101.91 and EU 828/2014 for gluten).
    [
        ("gluten-free", {"wheat_gluten": 10}, "fails"), ("gluten-free", {"malt_vinegar": 5}, "fails"), ("gluten-free", {"nutritional_yeast": 5}, "unsure"),
        ("grain-free", {"oat_fibre": 10}, "fails"), ("gluten-free", {"oat_fibre": 10}, "unsure"), ("gluten-free", {"egg": 50, "salt": 1}, "holds"),
        ("gluten-free", {"almond_flour": 100}, "unsure"), ("grain-free", {"almond_flour": 100}, "holds"), ("grain-free", {"baking_powder": 5}, "unsure"),
        ("grain-free", {"mozzarella_preshredded": 50}, "unsure"), ("grain-free", {"mozzarella": 50}, "holds"), ("nut-free", {"almond_flour": 9}, "fails"),
        ("nut-free", {"peanut_flour": 9}, "fails"), ("nut-free", {"coconut_flour": 9}, "unsure"), ("nut-free", {"coconut_oil": 9}, "holds"), ("nut-free", {"lupin_flour": 9}, "unsure"), ("vegetarian", {"feta": 9}, "unsure"), ("no-added-sugar", {"allulose": 9}, "unsure"), ("nut-free", {"sunflower_flour": 9}, "unsure"),
        ("dairy-free", {"ghee": 9}, "fails"), ("dairy-free", {"whey_isolate": 9}, "fails"), ("egg-free", {"egg_white_powder": 9}, "fails"),
        ("vegan", {"gelatin": 3}, "fails"), ("vegan", {"honey": 3}, "fails"), ("vegan", {"psyllium_powder": 3, "water": 9}, "holds"),
        ("vegetarian", {"gelatin": 3}, "fails"), ("vegetarian", {"parmesan": 3}, "unsure"), ("vegetarian", {"cheddar": 3}, "holds"),
        ("soy-free", {"tofu": 30}, "fails"), ("soy-free", {"dark_chocolate": 30}, "unsure"), ("sesame-free", {"tahini": 5}, "fails"),
        ("pulse-free", {"guar": 1}, "fails"), ("pulse-free", {"lupin_flour": 1}, "fails"), ("nightshade-free", {"potato_starch": 1}, "fails"),
        ("nightshade-free", {"eggplant": 1}, "fails"), ("no-added-sugar", {"honey": 1}, "fails"), ("no-added-sugar", {"monk_fruit_blend": 1}, "unsure"),
        ("no-added-sugar", {"raspberries": 50}, "holds"), ("low-fodmap", {"inulin": 5}, "fails"), ("low-fodmap", {"garlic": 5}, "fails"),
        ("low-fodmap", {"xylitol": 5}, "fails"), ("low-fodmap", {"chickpea_flour": 5}, "fails"),
    ],
)  # fmt: skip
def test_the_traps_are_known(claim, lines, wanted):
    assert verdict(claim, **lines) == wanted


def test_a_claim_names_the_line_that_breaks_it():
    claims, _ = said(almond_flour=50, egg=50, milk=20)
    assert [g.line for g in claims["vegan"].grounds] == ["egg", "milk"]
    assert "Milk" in claims["dairy-free"].text


def test_a_certificate_settles_a_doubt_but_never_a_breach():
    sure = packed("almond-flour", certificates=frozenset({"gluten-free", "nut-free"}))
    assert verdict("gluten-free", sure, almond_flour=50) == "holds"
    assert verdict("nut-free", sure, almond_flour=50) == "fails"


def test_plant_cheese_with_casein_is_not_dairy_free():
    """A pack can hold what its kind does not: "almond" cheese with casein."""
    assert verdict("dairy-free", almond_butter=50) == "holds"
    assert verdict("dairy-free", packed("almond-butter", contains=frozenset({"milk"})), almond_butter=50) == "fails"


def test_traces_on_a_pack_leave_a_claim_unsure_and_are_listed_apart():
    claims, judged = said(packed("egg", may_contain=frozenset({"nut:almond"})), egg=50)
    assert claims["nut-free"].verdict == "unsure"
    assert [(a.name, a.traces) for a in judged.allergens] == [("egg", False), ("nuts (almond)", True)]


@pytest.mark.parametrize(
    ("setting", "claim", "lines"),
    [("coconut_is_nut", "nut-free", {"coconut_oil": 9}), ("xanthan_is_grain", "grain-free", {"xanthan": 1})],
)
def test_a_strict_kitchen_bans_what_others_allow(setting, claim, lines):
    assert verdict(claim, **lines) == "holds"
    assert verdict(claim, settings=Settings(**{setting: True}), **lines) == "fails"


def test_what_weighs_nothing_brings_no_allergen():
    made = card(read_document(document(egg=50, walnut_meal=0)), LIBRARY, Settings())
    assert [a.name for a in made.allergens] == ["egg"]
    assert made.us_statement.contains == "Contains: egg."


def test_a_line_left_out_leaves_every_claim_unsure():
    made = document("bun", 6, egg=50)
    made["lines"].append({"id": "x", "ingredient": "moon-dust", "grams": 3})
    assert {c.verdict for c in analyse(read_document(made), LIBRARY).claims} <= {"unsure", "fails"}


def test_an_empty_bowl_makes_no_claim():
    assert {c.verdict for c in said()[0].values()} == {"empty"}


def test_every_rule_names_a_flag_role_or_ingredient_that_exists():
    flags = {row.text("flag") for row in read_table("allergens.csv")}
    roles = {row.text("role") for row in read_table("roles.csv")}
    for row in read_table("claim_rules.csv"):
        assert row.text("claim") in claim_kinds()
        assert row.text("effect") in ("fails", "needs", "strict", "school")
        kind, _, match = row.text("match").partition(":")
        known = {"flag": flags | {"nut:*", "seed:*"}, "role": roles, "id": {i.id for i in LIBRARY}}[kind]
        assert set(match.split()) <= known, row.number


def made(style="eu", *packs, **lines):
    text = document("bun", 6, **lines)
    text["lines"] = [
        line | {"lot": f"pack {line['ingredient']}" if line["ingredient"] in {p.id for p in packs} else ""}
        for line in text["lines"]
    ]
    found = card(read_document(text), LIBRARY.with_packs(packs), Settings())
    return found.us_statement if style == "us" else found.eu_statement


def test_a_statement_descends_by_weight_and_sets_allergens_off():
    statement = made(almond_flour=100, egg=150, salt=2)
    assert statement.text.startswith("Eggs, blanched almond flour, ")
    assert [p.text.lower() for p in statement.parts if p.strong] == ["eggs", "almond"]


def test_an_allergen_the_name_does_not_say_stands_in_brackets():
    """EU 1169/2011 article 21: celeriac is celery, ghee is milk."""
    assert "(celery)" in made(celeriac=100).text
    assert [p.text for p in made(ghee=100).parts if p.strong] == ["milk"]


def test_the_united_states_say_contains_and_group_the_little_ones():
    statement = made("us", almond_flour=200, egg=150, salt=3, xanthan=1)
    assert statement.contains == "Contains: almond, egg."
    assert "contains 2 % or less of: salt" in statement.text


def test_two_lines_of_one_food_are_one_entry():
    text = document("bun", 6, almond_flour=10, egg=50)
    text["lines"].append({"id": "more", "ingredient": "almond-flour", "grams": 100})
    statement = card(read_document(text), LIBRARY, Settings()).us_statement
    assert statement.text.lower().count("almond flour") == 1
    assert statement.text.lower().startswith("blanched almond flour")


def test_a_packs_own_list_stands_for_the_usual_one():
    usual = made("us", mozzarella=50)
    own = made("us", packed("mozzarella", statement="milk, salt, potato starch."), mozzarella=50)
    assert usual.to_read == ("mozzarella",)
    assert "(milk, salt, potato starch)" in own.text
    assert own.to_read == ()


def test_in_europe_added_water_counts_as_what_is_left_of_it():
    """EU 1169/2011 Annex VII A 1: up to 5 % of the finished food it need not be listed."""
    assert "water" in made("us", almond_flour=100, egg=50, water=20).text
    assert "water" not in made(almond_flour=100, egg=50, water=12).text
    assert "water" in made(almond_flour=100, water=200).text.lower()


def test_cautions_go_with_what_is_in_the_bowl():
    codes = lambda **lines: {c.code for c in card(read_document(document(**lines)), LIBRARY, Settings()).cautions}  # noqa: E731
    assert {"xylitol", "polyol-gut"} <= codes(xylitol=5)
    assert "gum-liquid" in codes(psyllium_powder=5)
    assert "egg-core" in codes(egg=50)
    assert codes(water=5) == {"clinician", "selling", "low-carb"}
    assert {"polyol-laxative", "with-sweetener"} <= codes(almond_flour=50, egg=30, erythritol=20)
    assert "polyol-laxative" not in codes(almond_flour=100, egg=50, erythritol=3)
    assert "allulose-eu" in codes(allulose=5)
    assert "sulphites" in codes(sun_dried_tomato=5)
    assert {"oxalate", "raw-flour"} <= codes(almond_flour=5)


def test_an_additive_is_named_after_its_class_in_europe():
    """EU 1169/2011 Annex VII part C."""
    lines = {"almond_flour": 100, "egg": 50, "xanthan": 3, "erythritol": 10, "baking_soda": 2}
    assert {"thickener: xanthan gum", "sweetener: erythritol", "raising agent: sodium bicarbonate"} <= set(
        made(**lines).text.removesuffix(".").split(", ")
    )
    assert "thickener" not in made("us", **lines).text


def test_sugars_are_never_more_than_the_carbohydrate_they_are_part_of():
    """EU 1169/2011 Annex XV: "of which sugars"; fibre by difference may leave less than the sugars measured elsewhere."""
    for key in ("zucchini", "eggplant", "sesame-seeds-hulled"):
        rows = {r.key: r for r in card(read_document(document(**{key.replace("-", "_"): 100})), LIBRARY, Settings()).eu_panel.rows}  # fmt: skip
        grams = {name: rows[name].cells[0].estimate.value for name in ("carbohydrate_g", "sugars_g")}
        assert grams["sugars_g"] <= grams["carbohydrate_g"], key


def test_every_gluten_in_the_bowl_is_named_not_only_the_first():
    codes = {
        w.code for w in analyse(read_document(document(wheat_gluten=20, malt_vinegar=5, water=30)), LIBRARY).warnings
    }
    assert {"gluten", "gluten-barley"} <= codes
