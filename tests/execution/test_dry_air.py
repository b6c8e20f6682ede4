"""Dry air: asked for, kept with the run, and answered late and by feel."""

from dataclasses import replace

from substrata.evaluation.dough import Dough
from substrata.execution.feel_advice import feel
from tests.execution.conftest import DEMO, LIBRARY


def test_in_dry_air_up_to_a_quarter_more_of_the_liquid_may_go_in():
    dough = Dough(DEMO["Market rolls, egg-free"], LIBRARY)
    plain, dry = (feel(dough, class_name="tacky", dry_air=on) for on in (False, True))
    added = sum(w.grams.value for w in dough.inside.lines if w.role == "liquid")
    assert f"up to {round(added / 4)} g more" in dry.text
    assert str(dry.text).startswith(str(plain.text))
    assert (dry.fits, dry.ways) == (plain.fits, plain.ways)
    twice = feel(dough, class_name="tacky", dry_air=True, batches=2)
    assert f"up to {round(added / 2)} g more" in twice.text


def test_a_dough_without_liquid_is_covered():
    formula = DEMO["Gouda-melt crust"]
    dough = Dough(replace(formula, lines=tuple(line for line in formula.lines if line.ingredient != "water")), LIBRARY)
    assert feel(dough, class_name="tacky", dry_air=True).text.endswith(
        "Cover the dough right away: in dry air its surface dries out."
    )
