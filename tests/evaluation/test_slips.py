"""Slips of heat, size, fat and kind of cheese are named, and everyday doughs are left alone (common practice)."""

import pytest

from substrata import Dough, analyse, bake, load_library, read_document
from tests.support.doughs import document

LIBRARY = load_library()
COOKIE = {"almond_flour": 200, "butter": 80, "erythritol": 60, "egg": 50}
CRUST = {"mozzarella": 200, "almond_flour": 110, "egg": 55, "cream_cheese": 30}
BUN = {"almond_flour": 150, "psyllium_powder": 30, "egg_white": 100, "water": 180, "baking_powder": 8, "salt": 4}


def asked(form, pieces, size=None, mix=None, **lines):
    """Codes of the warnings that ask for a change."""
    text = document(form, pieces, **lines) | {"mix": mix or {}}
    text["form"]["size"] = size or {}
    return {w.code for w in analyse(read_document(text), LIBRARY).warnings if w.severity == "act"}


@pytest.mark.parametrize(
    ("code", "good", "slip"),
    [
        ("too-thick", ("thin-crust", 4, None, None, CRUST), ("thin-crust", 1, {"held": "thickness", "thickness_mm": 14}, None, CRUST)),
        ("piece-too-heavy", ("bun", 5, None, None, BUN), ("bun", 1, None, None, BUN)),
        ("greasy", ("bun", 6, None, None, BUN | {"butter": 40}), ("bun", 6, None, None, BUN | {"butter": 220})),
        ("does-not-melt", ("thin-crust", 4, None, {"cheese": "melted"}, CRUST), ("thin-crust", 4, None, {"cheese": "melted"}, {"feta": 200, "almond_flour": 110, "egg": 55})),
        ("erythritol-crystals", ("cookie", 16, None, None, COOKIE), ("cookie", 16, None, None, COOKIE | {"erythritol": 220})),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)  # fmt: skip
def test_a_slip_is_named_and_the_everyday_dough_is_not(code, good, slip):
    form, pieces, size, mix, lines = good
    assert code not in asked(form, pieces, size, mix, **lines)
    form, pieces, size, mix, lines = slip
    assert code in asked(form, pieces, size, mix, **lines)


def test_an_oven_far_from_what_its_shape_is_baked_at_is_told():
    """Practised doughs of a shape lie between 40 K below and 27 K above its usual oven (tests/support/*.csv)."""

    def flags(oven_c, form="thin-crust"):
        made = read_document(document(form, 4, **CRUST) | {"bake": {"oven_c": oven_c}})
        return " ".join(map(str, bake(Dough(made, LIBRARY)).flags))

    assert "Turn the oven down" in flags(285)
    assert "Turn the oven up" in flags(130)
    assert "Turn the oven" not in flags(190) + flags(235)
    assert "Turn the oven up" not in flags(110, "cracker")  # what is dried may be baked as cool as one likes
