"""Texture and the baked weight: signs, sums and what fried pieces take up."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import analyse, load_library, read_document
from substrata.base.tables.table_reader import read_table
from substrata.evaluation.analysis.figure_changes import changes
from substrata.formula.batch.baked_weight import loss_to
from tests.support.doughs import document

LIBRARY = load_library()
BUN = {"almond_flour": 150, "psyllium_powder": 25, "egg": 100, "water": 200, "baking_powder": 8, "salt": 5}
COOKIE = {"almond_flour": 200, "butter": 80, "egg": 30}


def judged(form="bun", bake=None, **lines):
    return analyse(read_document({**document(form, 6, **lines), "bake": bake or {}}), LIBRARY)


def score(key, form="bun", bake=None, **lines):
    return next(s for s in judged(form, bake, **lines).texture.scores if s.key == key)


@pytest.mark.parametrize(
    ("key", "more", "grams", "sign"),
    [
        ("chewy", "psyllium_powder", 15, 1), ("chewy", "mozzarella", 120, 1), ("chewy", "egg", 60, 1), ("chewy", "xanthan", 3, 1),
        ("tender", "butter", 60, 1), ("tender", "whey_isolate", 40, -1), ("tender", "mozzarella", 120, -1),
        ("sturdy", "egg", 60, 1), ("sturdy", "mozzarella", 120, 1), ("moist", "coconut_flour", 40, -1), ("moist", "olive_oil", 30, 1),
        ("crumbly", "egg", 60, -1), ("crumbly", "butter", 60, 1), ("gummy", "psyllium_powder", 15, 1), ("gummy", "xanthan", 5, 1),
        ("eggy", "egg", 60, 1), ("eggy", "cheddar", 80, -1), ("coconut", "coconut_flour", 40, 1), ("coconut", "cinnamon", 4, -1),
    ],
)  # fmt: skip
def test_more_of_it_moves_the_score_as_bakers_know(key, more, grams, sign):
    """At one final moisture, so that only the matter speaks. Common practice and Katz & Labuza (1981)."""
    base = BUN | ({"coconut_flour": 30} if key == "coconut" else {})
    bake = {"moisture_percent": 45}
    before = score(key, bake=bake, **base)
    after = score(key, bake=bake, **base | {more: base.get(more, 0) + grams})
    assert sum(t.amount for t in after.terms) * sign > sum(t.amount for t in before.terms) * sign


def test_drier_is_crisper_and_thinner_is_crisper():
    wet = [score("crisp", "cracker", {"moisture_percent": m}, **COOKIE).value for m in (3, 6, 9, 15, 30)]
    assert wet == sorted(wet, reverse=True)
    assert wet[0] > 8
    assert thick_score(12) < thick_score(2)


def thick_score(thickness_mm):
    made = document("cracker", 6, **COOKIE)
    made["form"]["size"] = {"held": "thickness", "thickness_mm": thickness_mm}
    return next(s.value for s in analyse(read_document(made), LIBRARY).texture.scores if s.key == "crisp")


def test_a_syrup_makes_a_cookie_chewy_and_erythritol_does_not():
    """Common practice."""
    allulose, erythritol = (score("chewy", "cookie", **COOKIE, **{s: 60}).value for s in ("allulose", "erythritol"))
    assert allulose > erythritol + 1


@given(
    st.fixed_dictionaries({name: st.floats(1, 300) for name in ("almond_flour", "psyllium_powder", "egg", "water", "butter", "mozzarella")}),
    st.floats(1, 80),
)  # fmt: skip
def test_scores_stay_on_the_scale_and_are_the_sum_of_their_parts(lines, moisture):
    for found in judged("thin-crust", {"moisture_percent": moisture}, **lines).texture.scores:
        assert 0 <= found.low <= found.value <= found.high <= 10
        whole = sum(t.amount for t in found.terms)
        assert found.value == pytest.approx(min(max(whole, 0), 10), abs=0.3)  # terms below .05 are not listed


@pytest.mark.parametrize(("wet", "moisture", "loss"), [(46, 25, 0.28), (30, 30, 0), (20, 30, 0), (50, 0, 0.5)])
def test_the_loss_to_a_moisture_by_hand(wet, moisture, loss):
    """46 g water in 100 g dough: 28 g off leave 18 g in 72 g, a quarter."""
    assert loss_to(wet, moisture) == pytest.approx(loss)


def test_what_is_baked_to_a_moisture_weighs_its_dry_matter_and_that_water():
    found = judged(bake={"moisture_percent": 40}, **BUN)
    dry = found.totals.whole_g * (1 - found.totals.water_percent / 100)
    assert found.baked.bake_to_g == pytest.approx(dry / 0.6, rel=1e-6)
    assert found.baked.source == "set"
    assert found.nutrition.piece.grams.value == pytest.approx(found.baked.bake_to_piece_g)
    assert found.nutrition.baked_100g.fat.value == pytest.approx(
        100 * found.nutrition.piece.fat.value / found.nutrition.piece.grams.value
    )


def test_crackers_are_dried_through_and_no_oven_takes_more_water_than_there_is():
    assert 2 <= judged("cracker", **COOKIE).baked.moisture_percent <= 7
    assert judged("cracker", almond_flour=200, olive_oil=100).baked.loss.value < 0.04
    assert judged("wrap", almond_flour=200, egg=20).baked.moisture_percent >= 0


def test_a_fried_piece_takes_up_its_fat_and_a_baked_one_none():
    """Fried dough takes up 6 to 12 % of its weight (from memory)."""
    dough = {"almond_flour": 230, "egg": 150, "psyllium_powder": 10}
    fried, baked = judged("doughnut", **dough), judged("doughnut", {"fried": "baked"}, **dough)
    assert baked.baked.fat_absorbed_g == 0
    assert 0.06 <= fried.baked.fat_absorbed_g / fried.totals.dough_g <= 0.12
    more = fried.nutrition.piece.fat.value - baked.nutrition.piece.fat.value
    assert more == pytest.approx(fried.baked.fat_absorbed_g / 6, rel=0.01)
    assert fried.nutrition.piece.energy.value - baked.nutrition.piece.energy.value == pytest.approx(9 * more, rel=0.02)
    # The dough itself is the same.
    assert fried.handling == baked.handling
    assert fried.binder.load.value == pytest.approx(baked.binder.load.value)
    assert fried.water.fill.value == pytest.approx(baked.water.fill.value)
    assert fried.totals.dough_g == baked.totals.dough_g
    assert [line.id for line in fried.lines] == [line.id for line in baked.lines]


def test_what_lies_on_the_dough_does_nothing_in_it():
    plain = judged(**BUN)
    made = document("bun", 6, **BUN, sesame_seeds=30)
    made["lines"][-1]["role"] = "topping"
    topped = analyse(read_document(made), LIBRARY)
    assert topped.handling == plain.handling
    assert topped.water.fill.value == plain.water.fill.value
    assert topped.totals.dough_g == plain.totals.dough_g
    assert topped.nutrition.piece.fat.value > plain.nutrition.piece.fat.value


def test_an_ordinary_psyllium_bun_is_not_said_to_sink_and_a_blown_up_one_is():
    """Common practice: psyllium buns stand; thrice the powder without egg does not."""
    codes = lambda **lines: [w.code for w in judged(**lines).warnings]  # noqa: E731
    vegan = BUN | {"egg": 0, "psyllium_powder": 30, "pea_protein": 30, "water": 280}
    assert "may-sink" not in codes(**BUN)
    assert "may-sink" not in codes(**vegan)
    assert "may-sink" in codes(**vegan | {"baking_powder": 40, "pea_protein": 0})


def test_a_change_is_told_in_figures_and_words():
    told = {c.key: c for c in changes(judged(**BUN), judged(**BUN | {"water": 330}))}
    assert told["water_fill"].after > told["water_fill"].before
    assert told["water_fill"].state_after == "high"
    assert "too much" in told["water_fill"].text
    assert "Now:" in told["handling"].text
    assert "protein" not in told
    assert changes(judged(**BUN), judged(**BUN)) == ()


def test_every_rule_of_the_table_names_a_matter_or_a_state_and_bends_in_a_known_way():
    shares = {row.text("share") for row in read_table("texture_shares.csv")} | {"syrup"}
    states = {"one", "moisture", "binder", "rise", "dryness", "crust", "thinness", "density"}
    rows = list(read_table("texture_terms.csv"))
    assert {row.text("of") for row in rows} <= shares | states
    assert {row.text("score") for row in rows} == {row.text("score") for row in read_table("texture.csv")}
    assert {row.text("how") for row in rows} <= {"", "above", "over", "most", "saturates"}
    assert all(bool(row.text("how")) == bool(row.text("at")) for row in rows)
    assert {row.text("gate") for row in rows} <= {"", "wetter", "drier", "thin"}
    assert all(row.text("source") for row in rows)


def test_gumminess_is_told_by_degrees(judged):
    dough = {"almond_flour": 140, "egg_white": 90, "water": 230, "baking_powder": 9}
    codes = [{w.code for w in judged("bun", 6, **dough, psyllium_powder=grams).warnings} for grams in (8, 38, 90)]
    assert not {"gummy", "perhaps-gummy"} & codes[0]
    assert "perhaps-gummy" in codes[1]
    assert "gummy" in codes[2]
    assert "perhaps-gummy" not in codes[2]
