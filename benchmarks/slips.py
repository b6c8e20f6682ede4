"""Slips of eighteen sorts planted in the doughs of the trade: which are called failing, which are marked at all.

``python -m benchmarks.slips [--each]``

Only doughs that are not called failing by themselves count. A slip is seen by a red judgement, a warning that asks for a change, or
a flag of the oven; it is marked by any new note, judgement at the limit, or caution of the oven.
"""

from __future__ import annotations

import csv
import sys
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace

from benchmarks.field import TABLE
from benchmarks.judgements import acts, marks, reds
from substrata.base.errors import SubstrataError
from substrata.evaluation.analysis.analyse import analyse
from substrata.evaluation.dough import Dough
from substrata.evaluation.forecasts.bake_forecast import forecast_bake
from substrata.formula.batch.baked_weight import oven_c
from substrata.formula.formula import Formula, Line
from substrata.ingredients.library import load_library
from tests.support.baking_practice import formula_of

LIBRARY = load_library()


def _lines(formula: Formula, change) -> Formula:
    return replace(formula, lines=tuple(new for line in formula.lines if (new := change(line)) is not None))


def _scaled(formula: Formula, factor: float, *, role: str = "", ids: tuple[str, ...] = ()) -> Formula | None:
    hit = [l for l in formula.lines if LIBRARY[l.ingredient].role == role or l.ingredient in ids]
    if not hit:
        return None
    return _lines(formula, lambda l: replace(l, grams=l.grams * factor, entered="") if l in hit else l)


def _swapped(formula: Formula, old: str, new: str) -> Formula | None:
    if old not in {l.ingredient for l in formula.lines}:
        return None
    return _lines(formula, lambda l: replace(l, ingredient=new) if l.ingredient == old else l)


def _added(formula: Formula, ingredient: str, share: float) -> Formula:
    whole = sum(l.grams for l in formula.lines)
    return replace(
        formula,
        lines=(*formula.lines, Line(id="slip", ingredient=ingredient, grams=round(share * whole, 1))),
    )


def slips(formula: Formula) -> Iterator[tuple[str, Formula]]:
    """Yield the same dough with a slip that bakers know to spoil it."""
    kind = Dough(formula, LIBRARY).piece
    made: list[tuple[str, Formula | None]] = [
        ("oven 70 °C too hot", replace(formula, bake=replace(formula.bake, oven_c=oven_c(formula) + 70))),
        ("oven 80 °C too cool", replace(formula, bake=replace(formula.bake, oven_c=oven_c(formula) - 80))),
        ("three times as thick", replace(formula, size=replace(formula.size, held="thickness", thickness_mm=3 * kind.thickness_mm)) if kind.kind in ("round", "cut") else None),
        ("one piece of it all", replace(formula, pieces=1) if formula.form in ("bun", "cookie") and formula.pieces > 3 else None),
        ("fat four times", _scaled(formula, 4.0, role="fat")),
        ("fat added, a third", _added(formula, "butter", 0.33)),
        ("wrong cheese", _swapped(formula, "mozzarella", "feta")),
        ("coconut for almond 1:1", _swapped(formula, "almond-flour", "coconut-flour")),
        ("almond for coconut 1:1", _swapped(formula, "coconut-flour", "almond-flour")),
        ("eggs twice", _scaled(formula, 2.0, ids=("egg",))),
        ("no egg", _scaled(formula, 0.0, role="egg")),
        ("sweetener a third", _added(formula, "erythritol", 0.5)),
        ("salt five times", _scaled(formula, 5.0, role="salt")),
        ("leavening four times", _scaled(formula, 4.0, role="lift")),
        ("psyllium three times", _scaled(formula, 3.0, ids=("psyllium-powder",))),
        ("water added, a third", _added(formula, "water", 0.33)),
        ("whole seeds for flour", _swapped(formula, "almond-flour", "sunflower-seeds")),
        ("gum added, 4 %", _added(formula, "xanthan", 0.04)),
    ]  # fmt: skip
    for name, slipped in made:
        if slipped is not None:
            yield name, slipped


@dataclass(frozen=True)
class Judged:
    """Marks of a dough: what fails, and all that is marked."""

    fails: frozenset[str]
    marked: frozenset[str]


def judge(formula: Formula) -> Judged:
    """Return what is told of a formula and its bake; a refusal names what is wrong."""
    try:
        analysis, bake = analyse(formula, LIBRARY), forecast_bake(Dough(formula, LIBRARY), further=False)
    except SubstrataError as error:
        return Judged(frozenset({error.what}), frozenset({error.what}))
    flags = [str(f).partition(" (")[0] for f in bake.flags] if bake else []
    fails = frozenset((*reds(analysis), *acts(analysis), *flags))
    return Judged(fails, fails | marks(analysis) | frozenset(map(str, bake.cautions if bake else ())))


def main() -> None:
    count: Counter[str] = Counter()
    failing: Counter[str] = Counter()
    marked: Counter[str] = Counter()
    with TABLE.open(encoding="utf8") as file:
        formulas = [formula_of(row) for row in csv.DictReader(file)]
    for formula in formulas:
        before = judge(formula)
        if before.fails:
            continue
        for name, slipped in slips(formula):
            after = judge(slipped)
            count[name] += 1
            failing[name] += bool(after.fails - before.fails)
            marked[name] += bool(after.marked - before.marked)
            if "--each" in sys.argv and not after.fails - before.fails:
                print(f"  {name}: {formula.name}{'' if after.marked - before.marked else ' (nothing said)'}")
    for name in count:
        print(f"{name:24} {count[name]:3} failing {failing[name]:3} marked {marked[name]:3}")
    n = count.total()
    print(
        f"{n} slips of {len(count)} sorts: failing {failing.total()} ({100 * failing.total() / n:.0f} %), marked {marked.total()} ({100 * marked.total() / n:.0f} %)"
    )


if __name__ == "__main__":
    main()
