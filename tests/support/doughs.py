"""Formula documents of grams by ingredient, and the refusal of what is tried."""

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
