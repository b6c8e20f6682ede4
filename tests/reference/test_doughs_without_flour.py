"""Common practice that ratios to the flour say little of: what egg, cheese or fat holds alone. Ratios of our own."""

from itertools import pairwise

import pytest

from substrata import analyse, load_library, read_document
from substrata.bench.steps import run_steps
from substrata.context.dough import Dough
from tests.substrata.conftest import document

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
def test_a_shortbread_is_held_by_its_butter_and_a_bun_is_not(flour):
    short = {flour: 190, "butter": 85, "erythritol": 60, "salt": 1}
    cookie, bun = judged("cookie", 20, **short), judged("bun", 6, **short)
    assert states(cookie)["binder_load"] == "under", "unusual, and no failure"
    assert states(bun)["binder_load"] == "low"
    assert "nothing-binds" not in {w.code for w in cookie.warnings}
    assert "nothing-binds" in {w.code for w in bun.warnings}


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
    assert told.handling.wanted_low == told.handling.at_shaping.class_name == "pourable"
    shape = next(s for s in run_steps(told_dough(form, 4, EGGY)).steps if s.group == "shape")
    assert shape.text.startswith("Pour 4")


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
    assert flooded.wanted_low == "spreadable"


def test_an_egg_more_never_makes_another_dough():
    """What a form takes moves by degrees: no gram of egg moves its lowest consistency by a class."""
    lows = [
        told_dough("wrap", 5, {"egg": g, "almond_flour": 120, "salt": 2}).wanted_handling.low for g in range(60, 260, 2)
    ]
    steps = [a - b for a, b in pairwise(lows)]
    assert all(0 <= step < 0.25 for step in steps)
    assert lows[0] - lows[-1] > 3
