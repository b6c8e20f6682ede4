"""How the judgements fare: good doughs that are called bad, and planted faults that are seen. Either number alone is easy.

``python -m benchmarks.judgements [--each]``
"""

from __future__ import annotations

import csv
import sys
from collections.abc import Iterator
from dataclasses import replace

from substrata.evaluation.analysis.analyse import Analysis, analyse
from substrata.evaluation.target_ranges import is_outside, side_of
from substrata.formula.formula import Formula, Line
from substrata.formula.formula_document import read_document
from substrata.ingredients.library import load_library
from tests.support.baking_practice import TABLE, formula_of
from tests.support.documents import demo_documents

JUDGED = ("water_fill", "binder_load", "lift", "salt", "heat_set")
HANDLING = TABLE.with_name("handling_cases.csv")


def good_doughs() -> Iterator[Formula]:
    """Everyday doughs that bakers make with success."""
    with TABLE.open(encoding="utf8") as file:
        for row in csv.DictReader(file):
            yield formula_of(row)
    yield from handled_doughs()
    for name, document in demo_documents():
        if name != "Celeriac flatbread":  # too wet on purpose
            yield read_document(document)


def handled_doughs() -> Iterator[Formula]:
    """The doughs of the handling table that are shaped, each once."""
    with HANDLING.open(encoding="utf8") as file:
        rows = {row["lines"]: row for row in csv.DictReader(file) if row["form"]}
    for row in rows.values():
        cheese = "melted" if row["melted"] == "1" else "cold"
        yield formula_of(
            row | {"case": row["dough"], "pieces": "6", "size": "", "cheese": cheese, "oven_c": "180", "dough_c": ""}
        )


def reds(judged: Analysis) -> list[str]:
    """Judgements that say the dough will fail."""
    return [f"{b.key} {b.state}" for b in judged.brackets if b.key in JUDGED and b.state in ("low", "high")]


def marks(judged: Analysis) -> set[str]:
    """All that is said to be unusual or worse: marks of either grade, and warnings."""
    outside = {f"{b.key} {side_of(b.state)}" for b in judged.brackets if b.key in JUDGED and is_outside(b.state)}
    return outside | {w.code for w in judged.warnings}


def acts(judged: Analysis) -> list[str]:
    """Warnings that ask for a change."""
    return [w.code for w in judged.warnings if w.severity == "act"]


def _without(formula: Formula, *roles: str) -> Formula:
    library = load_library()
    return replace(
        formula, lines=tuple(l for l in formula.lines if (l.role or library[l.ingredient].role) not in roles)
    )


def _times(formula: Formula, wanted: str, factor: float) -> Formula:
    library = load_library()

    def changed(line: Line) -> Line:
        item = library[line.ingredient]
        if line.ingredient == wanted or wanted in item.flags:
            judged = analyse(replace(formula, lines=(line,)), library).lines
            return replace(line, grams=(judged[0].grams if judged else 0.0) * factor, entered="")
        return line

    return replace(formula, lines=tuple(changed(line) for line in formula.lines))


def planted(formula: Formula) -> Iterator[tuple[str, Formula]]:
    """The same dough with a slip that bakers know to ruin it."""
    library = load_library()
    ids = {line.ingredient for line in formula.lines}
    flags = set().union(*(library[i].flags for i in ids))
    roles = {line.role or library[line.ingredient].role for line in formula.lines}
    if roles & {"egg", "binder"} and not roles & {"cheese"}:
        yield "binder out", _without(formula, "egg", "binder")
    if "water" in ids:
        yield "double water", _times(formula, "water", 2.0)
    if "salt" in ids and "cheese" not in roles:
        yield "no salt", replace(formula, lines=tuple(l for l in formula.lines if l.ingredient != "salt"))
    whole = sum(w.grams for w in analyse(formula, library).lines)
    soda = Line(id="soda", ingredient="baking-soda", grams=round(0.008 * whole, 1))
    plain = tuple(l for l in formula.lines if (l.role or library[l.ingredient].role) not in ("acid", "lift"))
    yield "soda without acid", replace(formula, lines=(*plain, soda))
    if "psyllium" in flags:
        yield "twice the psyllium", _times(formula, "psyllium", 2.0)
    if any(line.prep for line in formula.lines):
        lines = tuple(
            replace(l, prep=None, grams=(l.grams or 0.0) * 1.7, entered="") if l.prep else l for l in formula.lines
        )
        yield "vegetable not squeezed", replace(formula, lines=lines)


def main() -> None:
    library, each = load_library(), "--each" in sys.argv
    judged = red = amber = acting = doughs = clean = planted_n = caught = marked = 0
    missed: dict[str, int] = {}
    for formula in good_doughs():
        found = analyse(formula, library)
        bad, ask = reds(found), acts(found)
        judged += len(JUDGED)
        amber += sum(b.key in JUDGED and b.state in ("under", "over") for b in found.brackets)
        red, acting, doughs, clean = red + len(bad), acting + len(ask), doughs + 1, clean + (not bad and not ask)
        if each:
            values = " ".join(f"{b.key}={b.estimate.value:.2f}" for b in found.brackets if b.key in JUDGED)
            at = found.handling.at_shaping.class_name if found.handling else "–"
            print(f"{formula.name[:30]:30} {formula.form:12} {values}  {at:10} {'; '.join((*bad, *ask))}")
        for fault, ruined in planted(formula):
            after = analyse(ruined, library)
            seen = set(reds(after)) - set(bad) or set(acts(after)) - set(ask)
            planted_n += 1
            caught += bool(seen)
            marked += bool(seen or marks(after) - marks(found))
            if not seen:
                missed[fault] = missed.get(fault, 0) + 1
                if each:
                    print(f"      missed: {fault}")
    print(
        f"false alarms: {red} of {judged} judgements red ({100 * red / judged:.0f} %), {amber} about at the limit, {acting} warnings to act over {doughs} good doughs; {clean} clean"
    )
    print(
        f"planted faults: {caught} of {planted_n} called failing ({100 * caught / planted_n:.0f} %), {marked} marked at all ({100 * marked / planted_n:.0f} %); not called failing: {missed or 'none'}"
    )


if __name__ == "__main__":
    main()
