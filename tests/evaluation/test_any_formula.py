"""Whatever stands in a readable document is judged, prepared, shaped and baked, or refused in words; nothing breaks."""

import math
from dataclasses import asdict

from hypothesis import given
from hypothesis import strategies as st

from substrata import Dough, Settings, analyse, bake, load_library, prep, read_document, shape
from substrata.base.errors import SubstrataError
from substrata.formula.bake_settings import stage_kinds
from substrata.formula.form_table import forms, roles

LIBRARY = load_library()
KEYS = sorted(ingredient.id for ingredient in LIBRARY)
GRAMS = st.one_of(st.floats(0, 5), st.floats(0, 1000), st.just(0.0), st.floats(1e-6, 1e-3))
STEP = st.fixed_dictionaries(
    {"act": st.sampled_from(["salt", "microwave", "pan", "cook", "squeeze"])},
    optional={
        "minutes": st.floats(0, 40),
        "watts": st.floats(0, 1500),
        "times": st.integers(1, 5),
        "salt_g": st.floats(0, 30),
    },
)
LINE = st.fixed_dictionaries(
    {"ingredient": st.sampled_from(KEYS), "grams": GRAMS},
    optional={
        "role": st.sampled_from(["", *roles()]),
        "temperature_c": st.none() | st.floats(-20, 110),
        "prep": st.none() | st.fixed_dictionaries({"steps": st.lists(STEP, max_size=3)}),
    },
)
STAGE = st.fixed_dictionaries(
    {"kind": st.sampled_from(sorted(stage_kinds()))},
    optional={
        "minutes": st.none() | st.floats(0, 40),
        "oven_c": st.none() | st.floats(80, 300),
        "fan": st.none() | st.booleans(),
    },
)
SIZE = st.fixed_dictionaries(
    {"held": st.sampled_from(["", "thickness", "size"])},
    optional={
        "thickness_mm": st.none() | st.floats(0.5, 200),
        "length_mm": st.none() | st.floats(5, 1000),
        "gap_mm": st.none() | st.floats(0, 200),
        "hole_mm": st.none() | st.floats(0, 300),
    },
)
DOCUMENT = st.fixed_dictionaries(
    {
        "form": st.fixed_dictionaries({"kind": st.sampled_from(list(forms())), "pieces": st.integers(1, 400), "size": SIZE}),
        "lines": st.lists(LINE, max_size=9).map(lambda lines: [{"id": f"l{n}", **line} for n, line in enumerate(lines)]),
        "mix": st.fixed_dictionaries({"cheese": st.sampled_from(["", "melted", "cold"]), "work": st.sampled_from(["", "pressed", "stirred"])}),
        "prep": st.dictionaries(st.sampled_from(["room_c", "fridge_c", "gel_percent"]), st.floats(5, 10), max_size=3),
    },
    optional={
        "bake": st.fixed_dictionaries(
            {},
            optional={
                "stages": st.lists(STAGE, max_size=4), "fan": st.booleans(), "trays": st.integers(1, 3), "dough_c": st.none() | st.floats(-5, 90),
                "moisture_percent": st.none() | st.floats(1, 90), "altitude_m": st.floats(-400, 5000), "ware": st.sampled_from(["", "stone", "rack"]), "doneness": st.sampled_from(["", "soft", "crisp"]),
            },
        )
    },
)  # fmt: skip


def finite(value):
    """Every number in an answer is finite: JSON knows no other."""
    if isinstance(value, float):
        return math.isfinite(value)
    if isinstance(value, dict):
        return all(finite(v) for v in value.values())
    return all(finite(v) for v in value) if isinstance(value, list | tuple) else True


def answer_of(ask):
    """What the core answers; None for a refusal in words. Any other error is a defect and goes through."""
    try:
        return ask()
    except SubstrataError:
        return None


@given(DOCUMENT)
def test_any_document_is_judged_prepared_and_shaped(document):
    formula = read_document(document)
    for ask in (analyse, lambda *a: prep(Dough(*a)), lambda *a: shape(Dough(*a))):
        answer = answer_of(lambda ask=ask: ask(formula, LIBRARY, Settings()))
        assert answer is None or finite(asdict(answer)), ask


@given(DOCUMENT)
def test_any_document_is_baked(document):
    told = answer_of(lambda: bake(Dough(read_document(document), LIBRARY)))
    if told is None:
        return
    assert finite(asdict(told))
    assert told.text
    if told.ready_min:
        assert told.ready_min.low <= told.ready_min.best <= told.ready_min.high
    losses = told.series.loss_percent
    assert -2 < min(losses) <= max(losses) < 100
