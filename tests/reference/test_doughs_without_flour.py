"""Common practice that ratios to the flour say little of: what egg, cheese or fat holds alone. Ratios of our own."""

from itertools import pairwise

import pytest

from substrata import Dough, analyse, bake, load_library, read_document
from substrata.execution.protocol import bake_protocol
from tests.support.doughs import document

LIBRARY = load_library()
JUDGED = ("water_fill", "binder_load", "lift", "heat_set")


def judged(form, pieces, **lines):
    return analyse(read_document(document(form, pieces, **lines)), LIBRARY)


def told_dough(form, pieces, lines):
    return Dough(read_document(document(form, pieces, **lines)), LIBRARY)


def states(told):
    return {b.key: b.state for b in told.brackets if b.key in JUDGED}


@pytest.mark.parametrize(
    ("form", "pieces", "lines"),
    [
        ("thin-crust", 2, {"cheddar": 105, "egg": 96, "almond_flour": 12}),  # in a waffle iron
        ("thin-crust", 2, {"mozzarella": 120, "egg": 100, "coconut_flour": 8}),
        ("wrap", 5, {"egg_white": 250, "coconut_flour": 13, "psyllium_powder": 4, "salt": 1}),  # poured thin
    ],
)
def test_egg_and_cheese_hold_with_next_to_no_flour(form, pieces, lines):
    """They are everyday food, and there is hardly a flour that the water or the binder could be too much for."""
    assert not set(states(judged(form, pieces, **lines)).values()) & {"low", "high"}


def test_a_vegetable_that_lies_in_its_juice_is_still_too_wet():
    told = judged("thin-crust", 2, zucchini=350, egg=55, almond_flour=12, salt=3)
    assert {w.code for w in told.warnings if w.severity == "act"} | set(states(told).values()) & {
        "not-squeezed",
        "high",
    }


@pytest.mark.parametrize("flour", ["hazelnut_meal", "almond_flour"])
def test_a_shortbread_is_held_by_its_butter_and_a_loaf_is_not(flour):
    short = {flour: 190, "butter": 85, "erythritol": 60, "salt": 1}
    cookie, loaf = judged("cookie", 20, **short), judged("free-loaf", 6, **short)
    assert states(cookie)["binder_load"] == "under", "unusual, and no failure"
    assert states(loaf)["binder_load"] == "low"
    assert "nothing-binds" not in {w.code for w in cookie.warnings}
    assert "nothing-binds" in {w.code for w in loaf.warnings}


def test_yeast_rolls_do_not_blow_up():
    """A dough without gluten about doubles in its proof; more yeast or a longer proof raises it no further."""
    rolls = {"almond_flour": 185, "whey_isolate": 48, "psyllium_powder": 28, "egg": 100, "water": 175, "salt": 5}
    some, much = (judged("bun", 8, **rolls, dry_yeast=g).lift.gas.value for g in (4, 12))
    assert some < much < 1.05 * some
    assert states(judged("bun", 8, **rolls, dry_yeast=8))["lift"] == "in"


EGGY = {"egg": 190, "cream_cheese": 95, "almond_flour": 24, "salt": 2}


@pytest.mark.parametrize("form", ["wrap", "thin-crust", "bun"])
def test_a_batter_of_egg_is_poured_on_purpose_in_a_form_that_holds_it(form):
    """Poured thin on parchment or into a ring, it sets by itself (common practice)."""
    told = judged(form, 4, **EGGY)
    assert told.handling.fits
    assert told.handling.target_low == told.handling.at_shaping.class_name == "pourable"
    shape = next(s for s in bake_protocol(told_dough(form, 4, EGGY)).steps if s.group == "shape")
    assert str(shape.text).startswith("Pour 4")


@pytest.mark.parametrize("form", ["rope", "pocket", "free-loaf"])
def test_and_not_in_one_that_is_rolled_or_stands_by_itself(form):
    told = judged(form, 4, **EGGY)
    assert not told.handling.fits
    assert told.handling.cause.kind == "wet"


def test_water_sets_nothing():
    """What is too wet by its water is no batter: the mark of a water doubled by mistake stays."""
    wrap = {"coconut_flour": 42, "psyllium_powder": 13, "water": 180, "egg": 50, "salt": 2}
    assert judged("wrap", 5, **wrap).handling.fits
    flooded = judged("wrap", 5, **(wrap | {"water": 700})).handling
    assert not flooded.fits
    assert flooded.target_low == "spreadable"


def test_an_egg_more_never_makes_another_dough():
    """What a form takes moves by degrees: no gram of egg moves its lowest consistency by a class."""
    lows = [
        told_dough("wrap", 5, {"egg": g, "almond_flour": 120, "salt": 2}).target_handling.low for g in range(60, 260, 2)
    ]
    steps = [a - b for a, b in pairwise(lows)]
    assert all(0 <= step < 0.25 for step in steps)
    assert lows[0] - lows[-1] > 3


@pytest.mark.parametrize(
    ("form", "pieces", "lines"),
    [
        ("bun", 8, {"almond_flour": 260, "butter": 75, "egg": 52, "erythritol": 45, "heavy_cream": 45, "salt": 2, "baking_powder": 9}),  # scones
        ("thick-crust", 10, {"pecans": 85, "almond_flour": 140, "butter": 64, "erythritol": 24, "egg_white": 28, "salt": 2}),  # under a tart
        ("thick-crust", 12, {"hazelnut_meal": 115, "cocoa": 38, "butter": 110, "erythritol": 125, "egg": 150, "salt": 2}),  # brownies
        ("tin-loaf", 14, {"egg_white_powder": 64, "whey_isolate": 42, "egg": 240, "cream_cheese": 115, "butter": 45, "baking_powder": 8}),
        ("cracker", 12, {"pecorino": 115}),  # crisps
    ],
    ids=["scones", "tart", "brownies", "protein loaf", "crisps"],
)  # fmt: skip
def test_what_fat_protein_or_cheese_carries_is_no_failure(form, pieces, lines):
    told = judged(form, pieces, **lines)
    assert [b.key for b in told.brackets if b.key in (*JUDGED, "salt") and b.state in ("low", "high")] == []


def test_a_thin_batter_of_egg_takes_its_water_and_a_cake_no_salt():
    poured = judged("wrap", 6, egg=145, cream_cheese=92, almond_flour=22, salt=1)
    assert states(poured)["water_fill"] not in ("low", "high")
    cake = {"almond_flour": 210, "egg": 240, "butter": 90, "baking_powder": 9}
    salt = [
        next(b for b in judged("tin-loaf", 12, **cake, erythritol=g).brackets if b.key == "salt").state
        for g in (0, 110)
    ]
    assert salt == ["low", "in"]


def test_a_wrap_that_bends_from_the_start_is_baked_until_it_colours():
    """Common practice: flatbreads of melted cheese take some 8 min in a hot oven, and are spotted."""
    lines = {"mozzarella": 155, "cream_cheese": 40, "almond_flour": 105, "egg": 50, "baking_powder": 6}
    told = bake(Dough(read_document({**document("wrap", 6, **lines), "bake": {"oven_c": 210}}), LIBRARY))
    assert 4 < told.ready_min.best < 12


@pytest.mark.parametrize(("water", "severity"), [(235, "note"), (600, "act")])
def test_a_dough_that_may_be_shaped_all_the_same_asks_for_nothing(water, severity):
    rolls = {"almond_flour": 150, "psyllium_powder": 18, "egg_white": 60, "salt": 4, "water": water}
    told = judged("bun", 6, **rolls)
    assert not told.handling.fits
    found = [w.severity for w in told.warnings if w.code.startswith("handling-") and w.code != "handling-rest"]
    assert found == [severity]


def test_salt_that_is_added_to_a_salty_cheese_is_still_too_much():
    crisps = {"pecorino": 80, "almond_flour": 40, "egg": 30}
    salt = [next(b for b in judged("cracker", 12, **crisps, salt=g).brackets if b.key == "salt").state for g in (0, 8)]
    assert salt == ["in", "high"]


def test_soda_without_acid_browns_a_cookie_and_spoils_a_bun():
    nut = {"tahini": 190, "allulose": 85, "egg": 50}
    some, much = ({w.code for w in judged("cookie", 14, **nut, baking_soda=g).warnings} for g in (1.5, 6))
    assert "soda-browns" in some
    assert "soda-unneutralised" in much
    assert "soda-unneutralised" in {
        w.code
        for w in judged("bun", 8, almond_flour=200, egg=150, psyllium_powder=12, water=60, baking_soda=1.5).warnings
    }


def test_a_nut_butter_loaf_with_a_little_soda_is_eaten_and_with_much_is_not():
    """Common practice: half a teaspoon and a spoon of vinegar."""
    loaf = {"almond_butter": 240, "egg": 200, "cider_vinegar": 10, "salt": 3}

    def severities(soda):
        return [
            w.severity
            for w in judged("tin-loaf", 10, **loaf, baking_soda=soda).warnings
            if w.code == "soda-unneutralised"
        ]

    assert severities(0.5) == []
    assert severities(2.0) == ["note"]
    assert severities(5.0) == ["act"]


def test_a_rope_of_cheese_takes_little_psyllium_and_a_rope_of_psyllium_is_made_of_it():
    cheese = {"mozzarella": 190, "almond_flour": 120, "egg": 50, "psyllium_powder": 20}
    plain = {"almond_flour": 140, "psyllium_powder": 22, "egg_white": 60, "water": 110, "olive_oil": 15, "salt": 3}

    def over(lines):
        return "psyllium-over-cap" in {w.code for w in judged("rope", 10, **lines).warnings}

    assert over(cheese)
    assert not over(plain)
    assert over(plain | {"psyllium_powder": 44})


def test_cheese_and_flour_alone_are_a_dough_and_need_no_water():
    """The plainest melted-cheese dough has nothing else in it, and a cheese cracker is pressed together."""
    for form, lines in (
        ("thin-crust", {"mozzarella": 180, "almond_flour": 95}),
        ("cracker", {"cheddar": 150, "almond_flour": 80, "butter": 15}),
    ):
        assert states(judged(form, 6, **lines))["water_fill"] not in ("low", "high")


def test_a_macaroon_holds_by_its_wet_shreds_and_falls_apart_without_white():
    macaroon = {"desiccated_coconut": 180, "erythritol": 80}
    wet, dry = (judged("cookie", 20, **macaroon, egg_white=g).handling for g in (115, 40))
    assert wet.fits
    assert dry.crumbly > 0.5


def test_a_tortilla_that_gum_holds_is_pressed_and_one_of_flour_alone_cracks():
    """Common practice: two spoons of xanthan in a press; what the gum could drink is no want of water."""
    dry = {"almond_flour": 90, "coconut_flour": 26, "egg": 52, "water": 14, "salt": 2}
    held, plain = judged("wrap", 8, **dry, xanthan=6), judged("wrap", 8, **dry)
    assert states(held)["water_fill"] == "in"
    assert "xanthan-over-cap" not in {w.code for w in held.warnings}
    assert "xanthan-over-cap" in {w.code for w in judged("wrap", 8, **dry, xanthan=12).warnings}
    assert states(plain)["binder_load"] != "in" or plain.handling.crumbly > held.handling.crumbly - 0.1
