"""The core's ``analyse`` of twelve lines: wanted 5 ms."""

from benchmarks.formulas import TWELVE_LINES
from benchmarks.spread import line, timed
from substrata import analyse, load_library, read_document

if __name__ == "__main__":
    library, formula = load_library(), read_document(TWELVE_LINES)
    print(line("core analyse, 12 lines", timed(lambda: analyse(formula, library), 400), 5.0))
