"""The spread against a random draw of the same formula: another method for the same figure."""

import numpy as np
import pytest

from substrata import Settings, load_library, read_document
from substrata.evaluation.figure_ratios import quantities
from substrata.formula.batch.propagation import Sheet
from substrata.formula.batch.weighed_lines import weigh_formula
from tests.support.doughs import document

LIBRARY = load_library()
FORMULA = read_document(
    document(almond_flour=150, coconut_flour=40, psyllium_powder=20, egg=100, water=120, salt=4, baking_powder=9)
)


@pytest.fixture(scope="module")
def sheet():
    batch, _ = weigh_formula(FORMULA, LIBRARY, Settings())
    return Sheet(batch, {key: of(batch) for key, of in quantities(FORMULA, Settings()).items()})


@pytest.mark.parametrize(
    ("key", "tolerance"),
    [("net_carbs", 0.06), ("protein", 0.06), ("salt", 0.06), ("water_fill", 0.25), ("binder_load", 0.2)],
)
def test_the_range_agrees_with_random_draws(sheet, key, tolerance):
    """Monte Carlo of every weight and every number; ratios are not linear, so their tolerance is wider."""
    random = np.random.default_rng(7)
    ratio, batch, n = sheet.ratios[key], sheet.batch, 20_000
    grams = random.normal(batch.grams, batch.grams_sd, (n, len(batch.grams)))
    top = random.normal(ratio.top[0], ratio.top[1], (n, len(batch.grams)))
    bottom = random.normal(ratio.bottom[0], ratio.bottom[1], (n, len(batch.grams)))
    drawn = ratio.scale * (grams * top).sum(axis=1) / (ratio.offset + (grams * bottom).sum(axis=1))
    low, high = np.quantile(drawn, [0.05, 0.95])
    estimate = sheet.estimate(key)
    assert estimate.high - estimate.low == pytest.approx(high - low, rel=tolerance)
    assert estimate.value == pytest.approx(np.median(drawn), rel=tolerance)


def test_shares_of_value_and_of_spread_sum_to_one(sheet):
    for key in sheet.ratios:
        contributions = sheet.figure(key).contributions
        if contributions and any(c.share for c in contributions):
            assert sum(c.share for c in contributions) == pytest.approx(1)
            assert sum(c.spread_share for c in contributions) == pytest.approx(1)
            assert sum(c.amount for c in contributions) == pytest.approx(sheet.value(key))


def test_one_flour_on_two_lines_is_as_doubtful_as_on_one():
    """The brand is the same on both lines, so its error does not average out; only the scale's does."""

    def width(*grams):
        made = document()
        made["lines"] = [{"id": f"f{n}", "ingredient": "coconut-flour", "grams": g} for n, g in enumerate(grams)]
        batch, _ = weigh_formula(read_document(made), LIBRARY, Settings())
        estimate = Sheet(batch, {"n": quantities(FORMULA, Settings())["net_carbs"](batch)}).estimate("n")
        return estimate.high - estimate.low

    assert width(50, 50) == pytest.approx(width(100), rel=0.01)


def test_grams_to_reach_inverts_the_ratio(sheet):
    ratio, batch = sheet.ratios["water_fill"], sheet.batch
    index = [w.ingredient.id for w in batch.lines].index("water")
    top, bottom = float(ratio.top[0][index]), float(ratio.bottom[0][index])
    added = ratio.grams_to_reach(batch.grams, 0.8, top, bottom)
    weights = batch.grams.copy()
    weights[index] += added
    assert ratio.value(weights) == pytest.approx(0.8)
    assert ratio.grams_to_reach(batch.grams, 0.8, 0.8, 1.0) is None
