"""Compile the bake, or load it compiled: run at set-up and in the background of a server, so that no baker waits for it."""

from __future__ import annotations

from threading import Thread

from substrata.batch.weighed import weigh_formula
from substrata.formula.formula import Formula, Line
from substrata.pantry.library import load_library
from substrata.settings import Settings


def warm() -> None:
    """Bake a small cracker."""
    # Imported here: importing the compiled part is itself the slow part.
    from substrata.oven.case import bake_case
    from substrata.oven.profile import OvenProfile
    from substrata.oven.stages_run import run

    lines = (Line(id="a", ingredient="almond-flour", grams=100), Line(id="e", ingredient="egg", grams=25))
    formula = Formula(name="warm", form="cracker", pieces=20, lines=lines)
    batch, _ = weigh_formula(formula, load_library(), Settings())
    run(bake_case(formula, batch, load_library(), OvenProfile()))


def warm_in_background() -> None:
    """The same beside other work."""
    Thread(target=warm, name="warm oven", daemon=True).start()


if __name__ == "__main__":
    warm()
