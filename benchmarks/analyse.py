"""The core's ``analyse`` of twelve lines: wanted 5 ms; its figures without words, as a solver asks for them: 1.5 ms."""

from benchmarks.formulas import TWELVE_LINES
from benchmarks.spread import line, timed
from config.memory import keep_what_stands
from substrata import analyse, load_library, read_document
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import figures

if __name__ == "__main__":
    library, formula = load_library(), read_document(TWELVE_LINES)
    keep_what_stands()  # as the server does
    print(line("core analyse, 12 lines", timed(lambda: analyse(formula, library), 400), 5.0))
    print(line("figures without words", timed(lambda: figures(Dough(formula, library)), 400), 1.5))
    dough, grams = Dough(formula, library), {"water": 60.0}
    figures(dough)

    def moved() -> None:
        grams["water"] += 0.01
        figures(dough.with_changes(grams=grams))

    print(line("figures of the same dough, but …", timed(moved, 400), 1.5))
