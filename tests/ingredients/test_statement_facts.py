"""Ingredient lists as packs print them, by the names of FALCPA, FASTER and EU 1169/2011 Annex II."""

import pytest

from substrata import Settings, analyse, load_library, read_document
from substrata.ingredients.labels.label_check import check_lot
from substrata.ingredients.labels.pack_reading import ingredient_of_lot
from substrata.ingredients.labels.statement_facts import statement_facts
from substrata.ingredients.pack import Lot
from tests.support.doughs import document

LIBRARY = load_library()


@pytest.mark.parametrize(
    ("printed", "contains", "not_"),
    [
        ("Water, coconut oil, modified potato starch, casein, salt", {"milk", "starch", "coconut", "nightshade"}, {"grain:wheat"}),
        ("Mozzarella (pasteurized milk, cultures, salt, enzymes), corn starch, powdered cellulose (anticaking)", {"milk", "starch", "anticaking"}, set()),
        ("Erythritol, maltodextrin, monk fruit extract", {"polyol", "starch"}, {"grain:barley", "sugar"}),
        ("Barley malt extract, vinegar", {"grain:barley"}, set()),
        ("Cocoa mass, cocoa butter, emulsifier (soya lecithin)", {"soy", "soy-lecithin"}, {"milk"}),
        ("Cocoa mass, sunflower lecithin", set(), {"soy-lecithin", "soy"}),
        ("Almond milk (water, almonds), coconut cream, cream of tartar", {"nut:almond", "coconut"}, {"milk"}),
        ("Buckwheat flour, gluten-free oats", {"grain:oat"}, {"grain:wheat"}),
        ("Pea protein, natural flavour, E223", {"sulphite"}, set()),
        ("Weizenmehl, Magermilchpulver, Sellerie, Milchsäure", {"grain:wheat", "milk", "celery"}, {"soy"}),
        ("Mandelmehl, Milchsäurebakterien, Sojalecithin", {"nut:almond", "soy"}, {"milk"}),
        ("Sesame paste (tahini), sunflower oil. Free from milk, egg and wheat.", {"sesame"}, {"milk", "egg", "grain:wheat"}),
        ("Eggplant, oyster mushrooms", set(), {"egg", "mollusc"}),
    ],
)  # fmt: skip
def test_a_list_brings_what_its_name_does_not_say(printed, contains, not_):
    found = statement_facts(printed).contains
    assert contains <= found
    assert not not_ & found


def test_traces_are_told_apart_and_what_follows_them_is_certain():
    found = statement_facts("Sunflower seeds. May contain traces of milk and hazelnuts. Contains: sesame.")
    assert found.may_contain == {"milk", "nut:hazelnut"}
    assert found.contains == {"sesame"}


def test_a_pack_counts_in_allergens_and_claims_by_its_list_alone():
    lot = Lot(key="k1", ingredient="vegan-cheese", name="Shreds", statement="Water, coconut oil, starch, casein. May contain egg.")  # fmt: skip
    pack = ingredient_of_lot(lot, LIBRARY["vegan-cheese"])
    text = document("thin-crust", 2, almond_flour=100, water=40)
    text["lines"].append({"id": "c", "ingredient": "vegan-cheese", "lot": "k1", "grams": 60})
    judged = analyse(read_document(text), LIBRARY.with_packs([pack]), Settings())
    names = {a.name: a.traces for a in judged.allergens}
    assert names["milk"] is False
    assert next(t for n, t in names.items() if n.startswith("egg")) is True
    assert next(c for c in judged.claims if c.key == "dairy-free").verdict == "fails"
    told = check_lot(lot, LIBRARY["vegan-cheese"], LIBRARY).findings
    assert "casein" in told[0].text
