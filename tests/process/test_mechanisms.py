"""What carries, how thick, how dry, how brown: each mechanism moves its figure the way it does in a kitchen, and by degrees."""

from dataclasses import replace
from itertools import pairwise

import pytest

from substrata import Dough, Settings, analyse, bake, load_library, read_document
from substrata.nutrition.net_carbs import difference_sd
from substrata.process.baking.oven_questions import judged
from substrata.process.rheology.target_handling import poured_share
from substrata.publishing.card_panels import card
from tests.support.doughs import document

LIBRARY = load_library()


def dough(form="thin-crust", pieces=6, bake=None, **lines):
    return Dough(read_document(document(form, pieces, **lines) | {"bake": bake or {}}), LIBRARY)


def baked(form="thin-crust", pieces=6, **lines):
    return bake(dough(form, pieces, **lines))


def test_a_sheet_is_pressed_thicker_the_more_vegetable_or_meat_it_is_and_never_jumps():
    """Common practice: rolled crusts are 4 mm, what is squeezed or minced is pressed out to a quarter of an inch."""
    for wet in ("zucchini", "chicken_raw", "tuna"):
        thick = [
            dough(**{wet: share, "almond_flour": 300 - share, "egg": 50}).piece.thickness_mm
            for share in range(0, 300, 10)
        ]
        assert thick[0] == pytest.approx(4.0)
        assert max(thick) == pytest.approx(6.35)
        assert all(a <= b + 1e-9 for a, b in pairwise(thick))
    steps = [dough(zucchini=s, almond_flour=300 - s, egg=50).piece.thickness_mm for s in range(0, 300, 5)]
    assert max(b - a for a, b in pairwise(steps)) < 0.2
    held = document("thin-crust", 6, zucchini=250, egg=60) | {}
    held["form"]["size"] = {"held": "thickness", "thickness_mm": 3}
    assert Dough(read_document(held), LIBRARY).piece.thickness_mm == 3


def test_a_melt_that_no_flour_holds_runs_thin_and_flour_stops_it():
    """A sessile puddle, 2·sqrt(γ/ρg)·sin(θ/2); a lace of cheese lies 1 to 2 mm thick (common practice)."""
    thick = [dough("cracker", 20, cheddar=100, almond_flour=f).piece.thickness_mm for f in (0, 10, 20, 40, 70)]
    assert 1 <= thick[0] <= 2
    assert thick[-1] == pytest.approx(2.5)
    assert all(a <= b for a, b in pairwise(thick))
    assert dough("cracker", 20, feta=100).piece.thickness_mm == pytest.approx(2.5, abs=0.05)  # keeps its shape
    crisp = bake(dough("cracker", 20, cheddar=100, bake={"oven_c": 200}))
    assert 5 <= crisp.ready_min.best <= 9  # common practice: 5 to 8 min
    assert not [
        w.code for w in analyse(dough("cracker", 20, cheddar=100).formula, LIBRARY).warnings if "handling" in w.code
    ]


def test_meat_is_the_dough_where_it_is_most_of_it_and_lies_on_it_elsewhere():
    alone = dough(chicken_raw=300, egg=50, parmesan=30)
    assert {w.role for w in alone.batch.lines if w.ingredient.id == "chicken-raw"} == {"flesh"}
    assert alone.piece.dough_g == pytest.approx(380 / 6)
    laid_on = dough(mozzarella=200, almond_flour=120, egg=60, chicken=90)
    assert {w.role for w in laid_on.batch.lines if w.ingredient.id == "chicken"} == {"filling"}
    chosen = document("thin-crust", 6, chicken_raw=300, egg=50)
    chosen["lines"][0]["role"] = "topping"
    assert Dough(read_document(chosen), LIBRARY).batch.lines[0].role == "topping"
    pocket = dough("pocket", 4, almond_flour=150, egg=60, ground_beef=250)
    assert {w.role for w in pocket.batch.lines if w.ingredient.id == "ground-beef"} == {"filling"}


@pytest.mark.parametrize(
    ("flesh", "core"),
    [("chicken_raw", 74), ("turkey_raw", 74), ("beef_raw", 71), ("pork_raw", 71), ("white_fish_raw", 63)],
)
def test_raw_flesh_asks_for_its_safe_core(flesh, core):
    """USDA FSIS: poultry 74 °C, ground meat 71 °C, fish 63 °C."""
    made = dough(**{flesh: 300, "parmesan": 40})
    assert made.case.safe_c == core
    assert bake(made).safe_min is not None
    warned = [w for w in analyse(made.formula, LIBRARY).warnings if str(core) in str(w.text)]
    assert warned
    assert warned[0].severity == "caution"
    with_egg = dough(**{flesh: 300, "egg": 50})
    assert with_egg.case.safe_c == max(core, 71)


def test_a_gel_dough_is_dry_enough_by_a_balance_of_water_on_dry_matter():
    """A little psyllium in egg white asks for a little less water, not for a dry bread (field: 8 to 13 min for such a wrap)."""
    water = [dough("wrap", 4, egg_white=200, psyllium_powder=g).case.gel_water for g in (0.5, 2, 4, 8, 12)]
    assert all(a > b for a, b in pairwise(water))
    assert dough("wrap", 4, egg_white=200, psyllium_powder=6).case.gel_water > 0.75


def test_allulose_and_soda_brown_and_erythritol_does_not():
    """Only reducing sugars brown with amines, and alkali hastens it; sucrose and polyols have no part in it (handbook chemistry)."""
    plain = {"almond_flour": 200, "butter": 80, "egg": 50}

    def minutes(**more):
        return baked("cookie", 16, **plain, **more).ready_min.best

    assert minutes(allulose=80) < 0.8 * minutes(erythritol=80)  # common practice: a third off at 10 to 15 °C less
    assert minutes(honey=40) < minutes(sugar=40)
    assert minutes(erythritol=80) == pytest.approx(minutes(xylitol=80), rel=0.05)
    assert minutes(baking_soda=3) < minutes(baking_soda=3, cream_of_tartar=8) + 0.5
    soda = [dough("cookie", 16, **plain, baking_soda=g).case.browning for g in (0, 1, 2, 4, 8, 16)]
    assert all(a <= b for a, b in pairwise(soda))
    assert soda[-1] < 3 * soda[0]


def test_a_piece_goes_on_losing_weight_while_it_cools_and_a_stacked_wrap_does_not():
    loss = dough("tin-loaf", 12, almond_flour=250, egg=220, butter=60).loss_forecast
    assert 0.003 < loss.cool.best - loss.hot.best < 0.05
    stacked = dough("wrap", 4, egg=200, cream_cheese=60).loss_forecast
    assert stacked.cool == stacked.hot


def test_every_station_tells_one_baked_weight():
    """Formula, texture, oven and card stand on one loss with one range."""
    for form, lines in (("cracker", {"almond_flour": 220, "egg": 50}), ("wrap", {"egg": 200, "cream_cheese": 60})):
        made = dough(form, 6, **lines)
        formula, oven = analyse(made.formula, LIBRARY), bake(made)
        assert 100 * formula.baked.loss.value == pytest.approx(oven.loss_percent.best)
        assert 100 * formula.baked.loss.low == pytest.approx(oven.loss_percent.low)
        assert formula.baked.moisture_percent == pytest.approx(oven.moisture_percent)
        assert formula.totals.baked_g / 6 == pytest.approx(card(made.formula, LIBRARY, Settings()).piece_g.value)
        assert made.as_baked().eaten.moisture == pytest.approx(oven.moisture_percent)
        again = made.as_baked().with_changes(grams={"egg": 60})
        assert again.baked.loss == made.as_baked().baked.loss  # while amounts are balanced the share stays


@pytest.mark.parametrize(
    ("form", "lines"),
    [
        ("thin-crust", {"cauliflower_boiled": 250, "egg": 60, "mozzarella": 60}),
        ("bun", {"almond_flour": 150, "psyllium_powder": 36, "egg_white": 110, "water": 200}),
        ("cracker", {"flax_meal": 120, "water": 150}),
        ("tin-loaf", {"almond_flour": 250, "egg": 220, "butter": 60}),
    ],
)
def test_the_loss_has_a_range_that_is_not_nothing(form, lines):
    loss = baked(form, 6, **lines).loss_percent
    assert loss.low < loss.best <= loss.high
    assert loss.high - loss.low > 0.8


def test_a_bake_to_a_wished_dryness_is_as_sure_as_its_scale():
    wished = bake(dough("bun", 6, {"moisture_percent": 40}, almond_flour=150, psyllium_powder=36, egg=100, water=200))
    usual = baked("bun", 6, almond_flour=150, psyllium_powder=36, egg=100, water=200)
    assert wished.criterion == "weight"
    assert wished.loss_percent.high - wished.loss_percent.low < usual.loss_percent.high - usual.loss_percent.low


def test_a_batter_is_poured_where_its_egg_can_set_its_liquid():
    """An egg sets up to twice its weight of milk (common practice); a gel is shaped and not poured."""

    def poured(**lines):
        made = dough("wrap", 4, **lines)
        return poured_share(made.inside, made.formula)

    crepe = {"egg": 150, "almond_milk": 150, "coconut_flour": 30}
    assert poured(**crepe) > poured(**crepe | {"psyllium_powder": 20})
    assert poured(**crepe) > poured(**crepe | {"egg": 20})
    shares = [poured(**crepe | {"psyllium_powder": g}) for g in (0, 1, 2, 5, 10, 20)]
    assert all(a >= b for a, b in pairwise(shares))


def test_carbohydrate_and_fibre_of_a_pack_move_together():
    """Two figures rounded to 1 g of a 28 g serving differ by 1.46 g in 100 g or more (computed)."""
    batch = dough(flax_meal=100, almond_flour=100, chia_ground=100, egg=50).batch
    apart = (batch.nutrient("carbohydrate_g")[1] ** 2 + batch.nutrient("fibre_g")[1] ** 2) ** 0.5
    together = difference_sd(batch)
    assert (together[:3] <= apart[:3]).all()
    assert (together[:3] >= 0.0146 - 1e-9).all()
    assert together[3] == pytest.approx(batch.nutrient("carbohydrate_g")[1][3])


def test_a_shallow_cake_is_baked_until_it_has_its_colour():
    """Common practice: golden, and a skewer comes out clean; a deep one is brown long before its middle is done."""
    batter = {"almond_flour": 150, "egg": 150, "butter": 60}
    small, large = (dough("tin-loaf", 9, **{k: g * f for k, g in batter.items()}) for f in (0.5, 3))
    assert judged(small.case)[0].decides == "colour"
    assert judged(large.case)[0].decides == "core"
    hotter = replace(small.case, heat=replace(small.case.heat, oven_c=small.case.oven_c + 20))
    assert judged(hotter)[0].ready < judged(small.case)[0].ready


def test_what_the_crumb_cannot_dissolve_is_told_as_grit():
    """At 25 °C 100 g of water dissolve 37 g of erythritol and 175 g of xylitol (from memory)."""

    def codes(form, **sweet):
        made = dough(form, 12, almond_flour=200, butter=70, egg=60, **sweet)
        return {w.code for w in analyse(made.formula, LIBRARY).warnings}

    assert "erythritol-crystals" in codes("cookie", erythritol=90)
    assert "erythritol-crystals" not in codes("tin-loaf", erythritol=5)
    assert "erythritol-crystals" not in codes("cookie", allulose=90)
    assert "polyols-crystals" not in codes("tin-loaf", xylitol=40)
    assert {"sweet-erythritol"} <= codes("cookie", erythritol=90)
    assert {"sweet-allulose"} <= codes("cookie", allulose=90)
