"""Wishes for a handling class one or two away from where a demo formula is shaped: how many are met, by grams or by minutes and degrees.

``python -m benchmarks.class_wishes``
"""

import statistics
import time

from substrata.base.settings import Settings
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import figures
from substrata.ingredients.library import load_library
from substrata.process.rheology.handling_classes import classes
from substrata.reformulation.balancing import balance
from substrata.reformulation.request.balance_request import Wish
from tests.support.demo_doughs import demo_formulas


def main():
    library, settings = load_library(), Settings()
    names = [band.class_name for band in classes()]
    asked = met = helped = 0
    seconds = []
    for formula in demo_formulas():
        at = names.index(figures(Dough(formula, library, settings)).class_name)
        for number in (at - 2, at - 1, at + 1, at + 2):
            if not 0 <= number < len(names):
                continue
            asked += 1
            begun = time.perf_counter()
            answer = balance(formula, library, settings, Wish(handling=names[number]), ways=1)
            seconds.append(time.perf_counter() - begun)
            met += answer.status in ("settled", "fits")
            helped += answer.status == "nearest" and bool(answer.moves)
            if answer.status == "nearest":
                print(f"  {formula.name}: {names[at]} to {names[number]}: {answer.nearest} {answer.moves}")
    print(
        f"asked {asked}: by grams {met}, by minutes or degrees {helped}, together {met + helped} ({(met + helped) / asked:.0%})"
    )
    print(f"s median {statistics.median(seconds):.2f} max {max(seconds):.2f}")


if __name__ == "__main__":
    main()
