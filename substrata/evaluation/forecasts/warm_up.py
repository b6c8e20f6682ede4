"""Compile the bake and the handling, or load them compiled: run at set-up and in the background of a server, so that no baker waits for it."""

from __future__ import annotations

from threading import Thread

from substrata.formula.formula import Formula, Line
from substrata.ingredients.library import load_library


def warm() -> None:
    """Mix and bake a small cracker."""
    # Imported here: importing the compiled part is itself the slow part.
    from substrata.evaluation.dough import Dough
    from substrata.process.baking.bake_simulation import run

    lines = (Line(id="a", ingredient="almond-flour", grams=100), Line(id="e", ingredient="egg", grams=25))
    dough = Dough(Formula(name="warm", form="cracker", pieces=20, lines=lines), load_library())
    _ = dough.handling
    run(dough.case)


def warm_in_background() -> None:
    """Compile in the background, beside other work."""
    Thread(target=warm, name="warm oven", daemon=True).start()


if __name__ == "__main__":
    warm()
