"""Common practice that ratios to the flour say little of: what egg, cheese or fat holds alone. Ratios of our own."""

import pytest

from substrata import analyse, load_library, read_document
from tests.substrata.conftest import document

LIBRARY = load_library()
JUDGED = ("water_fill", "binder_load", "lift", "heat_set")


def judged(form, pieces, **lines):
    return analyse(read_document(document(form, pieces, **lines)), LIBRARY)


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
