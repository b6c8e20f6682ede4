import pytest

from substrata import load_library, read_document
from substrata.evaluation.dough import Dough
from tests.support.demo_doughs import demo_formulas
from tests.support.doughs import document

LIBRARY = load_library()
DEMO = {formula.name: formula for formula in demo_formulas()}


def made(form="bun", pieces=6, **lines):
    """A dough of grams by ingredient; ``_`` stands for ``-``."""
    return Dough(read_document(document(form, pieces, **lines)), LIBRARY)


def demo(name):
    """A dough of the demo's."""
    return Dough(DEMO[name], LIBRARY)


@pytest.fixture(scope="session")
def rolls():
    return demo("Market rolls, egg-free")
