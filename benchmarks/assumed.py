"""Which assumed numbers matter: each is moved by its spread, and everyday doughs say what moves with it.

``python -m benchmarks.assumed [--rows 30] [--jobs 2]`` prints the numbers of ``constants.csv``, ``oven.csv`` and ``handling.csv`` whose
source is an assumption, the one that moves most first: rms change of ln minutes in the oven, rms change of consistency (decades),
and the share of doughs whose marks or warnings change. A number without a range is moved by 20 % of itself.
"""

from __future__ import annotations

import argparse
import csv
import shutil
import tempfile
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from functools import partial
from math import log, sqrt
from pathlib import Path

from benchmarks.judgements import good_doughs, marks
from substrata import Dough, Formula, SubstrataError, analyse, load_library
from substrata.base.tables import table_reader
from substrata.process.baking.oven_questions import judged
from tests.support.growing import DATA, forget_tables

TABLES = {"constants.csv": "value", "oven.csv": "typical", "handling.csv": "typical"}
_BLIND = 0.2  # of itself, where a number has no range


@dataclass(frozen=True, kw_only=True)
class Number:
    """An assumed number of a table."""

    table: str
    name: str
    value: float
    moved: float
    unit: str


@dataclass(frozen=True, kw_only=True)
class Outcome:
    """What is said of a dough."""

    minutes: float | None
    consistency: float | None
    marks: frozenset[str]


def assumed_numbers() -> Iterator[Number]:
    """Yield the numbers whose source says that they are assumed, each with the end of its range that is further away."""
    for table, column in TABLES.items():
        with (DATA / table).open(encoding="utf8") as file:
            for row in csv.DictReader(file):
                if "assumed" not in row["source"] and "house choice" not in row["source"]:
                    continue
                value, low, high = (float(row[key] or row[column]) for key in (column, "low", "high"))
                moved = high if high - value >= value - low else low
                moved = moved if moved != value else value * (1 + _BLIND)
                yield Number(table=table, name=row["name"], value=value, moved=moved, unit=row["unit"])


def outcomes(formulas: list[Formula]) -> list[Outcome]:
    """Return what is said of each dough by the tables as they are."""
    library = load_library()
    result = []
    for formula in formulas:
        analysis = analyse(formula, library)
        try:
            minutes = judged(Dough(formula, library).case)[0].ready
        except SubstrataError:
            minutes = None
        at_shaping = analysis.handling.at_shaping if analysis.handling else None
        result.append(
            Outcome(
                minutes=minutes,
                consistency=at_shaping.consistency if at_shaping else None,
                marks=frozenset(marks(analysis)),
            )
        )
    return result


def effect(number: Number, formulas: list[Formula], before: list[Outcome]) -> tuple[Number, float, float, float] | str:
    """Return rms change of ln minutes and of consistency and the share of changed marks; a sentence where the core refuses."""
    with tempfile.TemporaryDirectory() as folder:
        shutil.copytree(DATA, Path(folder) / "data")
        path = Path(folder) / "data" / number.table
        with path.open(encoding="utf8") as file:
            rows = list(csv.DictReader(file))
        for row in rows:
            if row["name"] == number.name:
                row[TABLES[number.table]] = moved = f"{number.moved:.12g}"
                for end, widest in (("low", min), ("high", max)):  # a number without a range takes its ends along
                    row[end] = widest(row[end], moved, key=float)
        with path.open("w", encoding="utf8", newline="") as file:
            writer = csv.DictWriter(file, rows[0].keys(), lineterminator="\n")
            writer.writeheader()
            writer.writerows(rows)
        shipped, table_reader.files = table_reader.files, lambda _: Path(folder)  # type: ignore[assignment]
        try:
            forget_tables()
            after = outcomes(formulas)
        except (SubstrataError, ArithmeticError, ValueError) as refusal:
            return f"{number.name}: {refusal}"
        finally:
            table_reader.files = shipped
            forget_tables()
    minutes = [log(a.minutes / b.minutes) for a, b in zip(after, before, strict=True) if a.minutes and b.minutes]
    stiffness = [
        a.consistency - b.consistency
        for a, b in zip(after, before, strict=True)
        if a.consistency is not None and b.consistency is not None
    ]
    changed = sum(a.marks != b.marks for a, b in zip(after, before, strict=True)) / len(before)
    return number, _rms(minutes), _rms(stiffness), changed


def _rms(values: list[float]) -> float:
    return sqrt(sum(value * value for value in values) / len(values)) if values else 0.0


def main() -> None:
    """Print the ranking."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--rows", type=int, default=30)
    parser.add_argument("--jobs", type=int, default=2)
    options = parser.parse_args()
    formulas = list(good_doughs())[:54]
    before = outcomes(formulas)
    with ProcessPoolExecutor(options.jobs) as pool:
        results = list(pool.map(partial(effect, formulas=formulas, before=before), assumed_numbers()))
    ranked = [result for result in results if not isinstance(result, str)]
    ranked.sort(key=lambda r: -max(r[1] / 0.1, r[2] / 0.3, r[3]))
    print(f"{len(formulas)} doughs, {len(ranked)} assumed numbers")
    print("| number | from | to | unit | ln minutes | consistency | marks |\n|---|---|---|---|---|---|---|")
    for number, minutes, stiffness, changed in ranked[: options.rows]:
        print(
            f"| `{number.name}` | {number.value:g} | {number.moved:g} | {number.unit} "
            f"| {minutes:.3f} | {stiffness:.3f} | {changed:.0%} |"
        )
    print("\n".join(result for result in results if isinstance(result, str)))


if __name__ == "__main__":
    main()
