"""Net carbohydrate by convention, worked out by hand beside the core.

Regulation (EU) 1169/2011, Annex I: "carbohydrate" excludes fibre and includes polyols; Annex XIV: polyols 2.4 kcal/g, erythritol 0.
21 CFR 101.9(c)(6): total carbohydrate by difference, which includes fibre. That allulose is left out of sugars but not of total
carbohydrate on a United States label: FDA guidance of October 2020.
"""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from substrata import Dough, load_library, read_document
from substrata.base.settings import Settings
from substrata.nutrition.net_carbs import available_per_gram, net_carbs_per_gram, polyols_percent
from tests.support.doughs import document

LIBRARY = load_library()


def batch(**grams):
    return Dough(read_document(document("cookie", 8, **grams)), LIBRARY).batch


def net(convention, rule="half", **grams):
    """Grams of net carbohydrate in a dough."""
    made = batch(**grams)
    return float(made.grams @ net_carbs_per_gram(made, convention, rule)[0])


def held(nutrient, **grams):
    made = batch(**grams)
    return float(made.grams @ made.nutrient(nutrient)[0])


def test_a_us_label_takes_off_fibre_and_sweeteners_that_are_not_used():
    dough = {"almond_flour": 200, "erythritol": 50, "allulose": 30}
    total, fibre = held("carbohydrate_g", **dough), held("fibre_g", **dough)
    polyols, allulose = held("erythritol_g", **dough), held("allulose_g", **dough)
    assert polyols == pytest.approx(50, abs=1)
    assert net("us", **dough) == pytest.approx(total - fibre - polyols - allulose, rel=1e-9)


def test_a_european_label_has_no_fibre_in_it_and_keeps_allulose():
    assert net("eu", allulose=30) == pytest.approx(held("carbohydrate_g", allulose=30), rel=1e-9)
    assert net("us", allulose=30) == pytest.approx(0, abs=0.5)
    assert net("eu", erythritol=50) == pytest.approx(0, abs=0.5)


def test_what_is_total_takes_nothing_off():
    assert net("total", almond_flour=200, erythritol=50) == held("carbohydrate_g", almond_flour=200, erythritol=50)


def test_maltitol_counts_by_half_or_by_its_energy():
    """2.1 kcal/g of maltitol (21 CFR 101.9(c)(1)(i)(F), FDA's table of sugar alcohols) are a little more than half of sugar's 4."""
    row = LIBRARY["maltitol"]
    energy = row.parameter("polyol_energy").value
    polyols = held("polyols_g", maltitol=100)
    assert 2.0 <= energy <= 2.4
    assert net("us", "half", maltitol=100) == pytest.approx(0.5 * polyols, abs=1)
    assert net("us", "energy", maltitol=100) == pytest.approx(energy / 4 * polyols, abs=1)


def test_polyols_are_told_of_what_comes_out_of_the_oven():
    made = batch(almond_flour=200, erythritol=60)
    assert polyols_percent(made, 240.0) == pytest.approx(100 * 60 / 240, rel=0.02)
    assert polyols_percent(made, 0.0) == 0


names = st.sampled_from(
    ["almond-flour", "coconut-flour", "erythritol", "allulose", "egg", "butter", "psyllium-powder", "cheddar", "inulin"]
)


@given(st.dictionaries(names, st.floats(1, 400), min_size=1, max_size=6))
@settings(max_examples=40, deadline=None)
def test_no_convention_counts_more_than_the_total_or_less_than_nothing(lines):
    made = batch(**{key.replace("-", "_"): grams for key, grams in lines.items()})
    total = net_carbs_per_gram(made, "total", "half")[0]
    for convention in ("us", "eu"):
        for rule in ("half", "energy"):
            per_gram, sd = net_carbs_per_gram(made, convention, rule)
            assert np.all(per_gram >= 0)
            assert np.all(sd >= 0)
            # Carbohydrate by difference may come out below sugars that were measured on other samples; those are counted.
            assert np.all(per_gram <= np.maximum(total, made.nutrient("sugars_g")[0]) + 1e-9)
    assert np.all(available_per_gram(made)[0] >= made.nutrient("sugars_g")[0] - 1e-12)


def test_the_bracket_of_a_formula_goes_by_the_kitchens_convention():
    formula = read_document(document("cookie", 10, almond_flour=200, erythritol=60, egg=50))
    told = {
        convention: Dough(formula, LIBRARY, Settings(convention=convention)).sheet.value("net_carbs")
        for convention in ("us", "eu", "total")
    }
    assert told["us"] == pytest.approx(net("us", almond_flour=200, erythritol=60, egg=50) / 10, rel=1e-6)
    assert told["total"] > told["us"] + 5
