"""One list of remedies: the cases that have to come right, and what must never be offered."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import Settings
from substrata.formula.formula import Mix
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import check_by_model
from substrata.reformulation.quick_fix_search import quick_fixes
from substrata.reformulation.request.balance_request import Wish
from tests.reformulation.conftest import HOUSE, LIBRARY, but, made

BUN, CRUST = HOUSE["bun-psyllium"], HOUSE["thin-cheese"]


def offered(formula, saved=None):
    return quick_fixes(formula, LIBRARY, Settings(), saved=saved)


@pytest.mark.parametrize(
    ("draft", "line", "more"),
    [
        ({"xanthan": 12}, "xanthan", False),
        ({"water": 450}, "water", False),
        ({"water": 110}, "water", True),
        ({"psyllium_powder": 70}, "psyllium-powder", False),
        ({"psyllium_powder": 0}, "psyllium-powder", True),
        ({"baking_powder": 36}, "baking-powder", False),
        ({"salt": 0}, "salt", True),
    ],
)
@pytest.mark.parametrize("known", [True, False])
def test_one_cause_has_the_one_edit_a_baker_would_make(draft, line, more, known):
    """Twelve grams of xanthan are answered by less xanthan and never by 400 g of egg; no psyllium by psyllium."""
    formula = but(BUN, **draft)
    first = offered(formula, BUN if known else None)[0]
    assert first.line == line
    now = next((x.grams for x in formula.lines if x.id == line), 0.0)
    assert (first.grams > now) is more


def test_back_to_the_saved_version_where_that_mends_it():
    for draft in ({"water": 450}, {"psyllium_powder": 0}, {"baking_powder": 36}):
        mend = offered(but(BUN, **draft), BUN)[0]
        saved = next(line.grams for line in BUN.lines if line.id == mend.line)
        assert mend.grams == pytest.approx(saved)
        assert mend.whole


@pytest.mark.parametrize("egg", [0, 105, 140, 175])
def test_a_loaf_that_lost_half_its_eggs_gets_them_back(egg):
    """Common practice: coconut flour wants at least an egg to every 30 g. More than a third of the dough may go back at once."""
    loaf = made("tin-loaf", 12, egg=280, coconut_flour=80, butter=100, baking_powder=8, salt=3)
    assert not offered(loaf)
    first = offered(but(loaf, egg=egg), loaf)[0]
    assert (first.line, first.grams) == ("egg", pytest.approx(280))


def test_a_way_back_says_what_the_saved_version_missed_itself():
    loaf = made("tin-loaf", 12, egg=310, coconut_flour=88, butter=110, baking_powder=8, salt=3)
    first = offered(but(loaf, egg=155), loaf)[0]
    assert first.line == "egg"
    assert str(first.text).endswith("g per piece, as in the saved version")


def test_soda_without_acid_is_met_by_acid_in_grams_or_by_less_soda_and_never_by_a_cup_of_vinegar():
    told = offered(but(BUN, baking_powder=0, baking_soda=6, cider_vinegar=0))
    assert {"cream-of-tartar", "baking-soda", "baking-powder"} >= {m.ingredient for m in told[:2]}
    assert all(m.grams < 25 for m in told if m.ingredient in ("cream-of-tartar", "cider-vinegar"))


def test_a_vegetable_full_of_juice_points_to_prep_and_cold_cheese_to_warmth():
    wet = made("thin-crust", 4, zucchini=300, almond_flour=90, egg=50, salt=3)
    assert offered(wet)[0].station == "prep"
    from dataclasses import replace

    cold = replace(made("thin-crust", 6, mozzarella=200, almond_flour=60, egg=30), mix=Mix(temperature_c=8))
    assert any(
        "warm" in str(mend.text).lower() and mend.station == "prep" and mend.grams is None for mend in offered(cold)
    )


def test_a_piece_with_too_many_net_carbs_may_be_cut_smaller():
    told = offered(made("cookie", 6, almond_flour=190, butter=77, erythritol=55, egg_yolk=34, salt=2))
    smaller = next(mend for mend in told if mend.pieces)
    assert smaller.pieces > 6
    assert smaller.keys == ("net_carbs",)


def test_a_dough_that_is_right_or_not_there_has_none():
    assert offered(BUN) == ()
    assert offered(made()) == ()
    assert offered(made(water=20)) == ()


def test_a_locked_line_is_never_the_remedy():
    from dataclasses import replace

    wet = but(BUN, water=450)
    held = replace(wet, lines=tuple(replace(line, locked=line.id == "water") for line in wet.lines))
    assert all(mend.line != "water" for mend in offered(held))


PARTS = st.dictionaries(
    st.sampled_from(["almond_flour", "coconut_flour", "psyllium_powder", "egg", "mozzarella", "water", "butter", "salt", "baking_powder", "erythritol"]),
    st.integers(2, 300),
    min_size=3,
    max_size=7,
)  # fmt: skip


@given(PARTS, st.sampled_from(["bun", "thin-crust", "cookie", "tin-loaf", "cracker"]))
def test_no_remedy_makes_anything_else_worse_and_no_line_moves_twice(parts, form):
    formula = made(form, 6, **parts)
    told = [mend for mend in offered(formula) if mend.grams is not None]
    assert len({mend.line for mend in told}) == len(told)
    problem = BalanceProblem(formula, LIBRARY, Settings(), Wish())
    place = {slot.id: i for i, slot in enumerate(problem.slots)}
    grams, before = problem.start.copy(), check_by_model(problem, problem.start)
    for mend in told:
        grams[place[mend.line]] = mend.grams
        after = check_by_model(problem, grams)
        assert after.violation < before.violation
        for key, miss in after.missed.items():
            assert miss <= before.missed.get(key, 0.0) + 0.003, (key, mend.text)
        before = after
