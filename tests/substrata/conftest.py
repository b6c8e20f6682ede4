import pytest

from substrata import Settings, analyse, load_library, read_document
from substrata.base.errors import SubstrataError


def refusal_of(act):
    """The core's refusal of what is tried, or None; any other error is a defect and goes through."""
    try:
        act()
    except SubstrataError as refusal:
        return refusal
    return None


def document(form="thin-crust", pieces=6, **lines):
    """A document of grams by ingredient; ``_`` stands for ``-``."""
    return {
        "name": "Test",
        "form": {"kind": form, "pieces": pieces},
        "lines": [
            {"id": key, "ingredient": key, "grams": grams, "entered": f"{grams} g"}
            for key, grams in ((key.replace("_", "-"), grams) for key, grams in lines.items())
        ],
    }


@pytest.fixture
def judged():
    """Analyse grams by ingredient."""

    def judge(form="thin-crust", pieces=6, settings=None, targets=None, **lines):
        made = document(form, pieces, **lines) | {"targets": targets or {}}
        return analyse(read_document(made), load_library(), settings or Settings())

    return judge


@pytest.fixture
def bracket():
    """One bracket of an analysis by key."""
    return lambda analysis, key: next(b for b in analysis.brackets if b.key == key)
