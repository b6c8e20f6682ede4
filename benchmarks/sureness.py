"""On what each forecast stands: everyday cases of each kind of dough, and how far off they were with their own kind left out.

``python -m benchmarks.sureness`` prints ``substrata/data/sureness.csv``. Kinds with few cases lean on the whole: an error counts as
that of its own cases and of four that missed as all did.
"""

from __future__ import annotations

from collections import defaultdict

from benchmarks.judgements import handled_doughs
from substrata.evaluation.dough import Dough
from substrata.ingredients.library import load_library
from tests.support.baking_practice import browned, error, fitted, practised
from tests.support.handling_practice import observations, read, said

_LEANS_ON = 4


def pooled(own: list[float], whole: float) -> float:
    """Root mean square of a kind's errors, leaning on that of all."""
    return float(((sum(e * e for e in own) + _LEANS_ON * whole**2) / (len(own) + _LEANS_ON)) ** 0.5)


def bakes() -> dict[str, list[float]]:
    """Errors in ln t by kind of dough, browning fitted without its group."""
    cases, found = practised(), defaultdict(list)
    without = {g: fitted(c for c in cases if c.group != g) for g in {c.group for c in cases}}
    for one in cases:
        found[one.kind].append(error(one, browned(one, without[one.group])))
    return found


def handled() -> dict[str, list[bool]]:
    """Whether each observation is told in its accepted class, by kind of dough."""
    kinds = {formula.name: Dough(formula, load_library()).kind for formula in handled_doughs()}
    found = defaultdict(list)
    for one in observations():
        if one.dough in kinds:  # a bare gel is no dough of a kind
            found[kinds[one.dough]].append(said(*read(one, {})) in one.accepted)
    return found


def main() -> None:
    """Print the table."""
    baked, shaped = bakes(), handled()
    every = [e for errors in baked.values() for e in errors]
    whole = float((sum(e * e for e in every) / len(every)) ** 0.5)
    print("kind,bakes,bake_error,handled,handled_right,source")
    for kind in sorted({*baked, *shaped}):
        errors, right = baked.get(kind, []), shaped.get(kind, [])
        print(
            f"{kind},{len(errors)},{pooled(errors, whole):.2f},{len(right)},{sum(right)},benchmarks: python -m benchmarks.sureness"
        )


if __name__ == "__main__":
    main()
