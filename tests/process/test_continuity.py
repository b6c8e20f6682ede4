"""No cliffs: two hundredths of a line never make another dough of it, whatever the dough; the sweep of everyday doughs is a benchmark."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata.evaluation.dough import Dough
from substrata.formula.form_table import forms
from substrata.formula.formula import Formula, Line
from substrata.ingredients.library import load_library
from tests.support.continuity import MOST, moves, point

LIBRARY = load_library()
BY_ROLE = {}
for one in LIBRARY:
    BY_ROLE.setdefault(one.role, []).append(one.id)
# What makes a dough of some kind: a body, something that binds, water or fat, and what else there may be.
BODY = st.sampled_from(sorted(BY_ROLE["base"] + BY_ROLE["vegetable"] + BY_ROLE["cheese"]))
MUCH = st.sampled_from(
    sorted(key for role in ("base", "egg", "cheese", "vegetable", "liquid") for key in BY_ROLE[role])
)
SOME = st.sampled_from(
    sorted(key for role in ("binder", "fat", "protein", "sweetener") for key in BY_ROLE.get(role, []))
)
PARTS = st.lists(st.tuples(MUCH, st.floats(10, 150)) | st.tuples(SOME, st.floats(2, 50)), min_size=1, max_size=6)


@given(body=BODY, grams=st.floats(150, 400), parts=PARTS, form=st.sampled_from(list(forms())), data=st.data())
def test_a_fiftieth_of_a_line_moves_no_figure_by_much(body, grams, parts, form, data):
    amounts = [(body, grams), *parts]
    formula = Formula(
        form=form,
        pieces=6,
        lines=tuple(Line(id=f"l{n}", ingredient=key, grams=g) for n, (key, g) in enumerate(amounts)),
    )
    moved = data.draw(st.integers(0, len(amounts) - 1))
    dough = Dough(formula, LIBRARY)
    before, after = point(dough), point(dough.with_changes(grams={f"l{moved}": amounts[moved][1] * 1.02}))
    assert before
    assert after
    for what, by, one, other in moves(before, after):
        assert by <= MOST[what.split()[0]], f"{what}: {one:.3f} to {other:.3f}"


@pytest.mark.parametrize(
    "wet",
    [
        {"egg": 140, "cream-cheese": 100},
        {"egg-white": 190, "psyllium-powder": 5, "salt": 1},
        {"egg": 160, "ricotta": 90},
    ],
)
def test_what_carries_a_dough_without_flour_is_there_before_the_flour_is(wet):
    """Egg and gum set the wet dough itself: as the flour goes to nothing the binder load moves without a jump, and is never none."""

    def loaded(flour):
        lines = (*wet.items(), ("almond-flour", flour))
        formula = Formula(
            form="wrap", pieces=4, lines=tuple(Line(id=key, ingredient=key, grams=g) for key, g in lines if g)
        )
        return Dough(formula, LIBRARY).binder.load.value

    loads = [loaded(flour) for flour in (60, 40, 20, 10, 5, 3, 1, 0.1, 0)]
    assert loads[-1] > 2
    assert all(abs(b / a - 1) < 0.35 for a, b in pairwise(loads))
    assert loads[-2] == pytest.approx(loads[-1], rel=0.01)
