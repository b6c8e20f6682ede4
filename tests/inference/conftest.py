from functools import cache

from substrata.execution.run_document import Done, RatedFault, Run, Verdict
from substrata.inference.diagnosis.cause_effects import cause_table
from tests.execution.conftest import DEMO, LIBRARY, demo

__all__ = ["DEMO", "LIBRARY", "demo", "planted_table", "run_of"]


@cache
def planted_table(name):
    """The causes of a demo formula, planted once."""
    return cause_table(demo(name))


def run_of(name, *faults, done=None, number="1", **verdict):
    """A run of a demo formula with its verdict."""
    told = Verdict(faults=tuple(RatedFault(id=fault) for fault in faults), liked="bad" if faults else "good", **verdict)
    return Run(formula=DEMO[name], id=number, done=done or Done(), verdict=told)
