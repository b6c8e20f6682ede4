"""The handling model against everyday doughs, Krieger & Dougherty, Einstein, and the signs of every ingredient and parameter."""

import numpy as np
import pytest

from substrata import Settings, analyse, load_library, read_document
from substrata.formula.batch.weighed_lines import weigh_formula
from substrata.formula.form_table import form_of
from substrata.process.rheology.handling.consistency import Method, draws_of, handling, parameters
from substrata.process.rheology.handling.mixture_loops import crowding
from substrata.process.rheology.handling_classes import band_of, classes
from tests.support.doughs import document
from tests.support.handling_practice import distance, observations, read, said

LIBRARY = load_library()
WORDS = ["crumbly", *(band.class_name for band in classes())]
MIXED = {"almond-flour": 100, "coconut-flour": 20, "psyllium-powder": 10, "flax-meal": 15, "egg": 50, "water": 140}
SEEDY = MIXED | {"sunflower-seeds": 60}
CHEESE = {"mozzarella": 160, "cream-cheese": 62, "egg": 92, "coconut-flour": 36}


def made(lines):
    return document("bun", 6, **{key.replace("-", "_"): grams for key, grams in lines.items()})


def consistency(lines, degrees=30.0, minutes=10.0, *, melted=True, **replaced):
    batch = weigh_formula(read_document(made(lines)), LIBRARY, Settings())[0]
    point = np.array([minutes]), np.array([degrees])
    found = handling(batch, Method(melted=melted), *point, draws=draws_of(replaced))
    return float(found.consistency[0, 0])


def test_everyday_doughs_fall_into_their_class():
    """Common practice (benchmarks/handling_cases.csv). Left out one by one and fitted again it is 31 of 39, 38 within one."""
    seen = observations()
    told = [said(*read(one, {})) for one in seen]
    right = sum(name in one.accepted for name, one in zip(told, seen, strict=True))
    near = sum(
        min(abs(WORDS.index(name) - WORDS.index(a)) for a in one.accepted) <= 1
        for name, one in zip(told, seen, strict=True)
    )
    assert right >= 0.8 * len(seen)
    assert near >= len(seen) - 1


def test_known_consistencies_are_met_within_half_a_decade():
    for one in observations():
        if one.consistency is not None:
            assert read(one, {})[0] == pytest.approx(one.consistency, abs=0.5)


def test_the_residual_of_a_fit_is_nought_inside_the_class():
    inside = next(one for one in observations() if one.dough == "almond psyllium loaf")
    assert distance(inside, {}) == [0, 0]


def test_thin_suspensions_thicken_as_einstein_says():
    """Einstein (1906): 1 + 2.5 φ. Krieger & Dougherty's slope is k/φm; doughs fit one a little steeper."""
    k, packed = (
        parameters()["packing_exponent"].value,
        parameters()["max_packing"].value + parameters()["press_packing"].value,
    )
    thin = crowding(0.01 / packed, k, 0.92)
    assert (10**thin - 1) / 0.01 == pytest.approx(2.5, rel=0.12)


ABSORBERS = sorted(
    i.id for i in LIBRARY
    if i.role in ("base", "fibre", "binder") and i.parameter("capacity").value >= 0.5 and i.composition["water_g"] < 15
    and not i.parameter("lubricates").value and not i.parameter("coarse").value and i.id not in ("whey-isolate", "whey-80")  # they dissolve
)  # fmt: skip
LIQUIDS = sorted(i.id for i in LIBRARY if i.role == "liquid" and i.composition["water_g"] >= 80)


@pytest.mark.parametrize("ingredient", ABSORBERS)
def test_more_of_what_drinks_stiffens(ingredient):
    assert consistency(MIXED | {ingredient: MIXED.get(ingredient, 0) + 5}) > consistency(MIXED)


@pytest.mark.parametrize("ingredient", LIQUIDS)
def test_more_of_what_is_wet_softens(ingredient):
    assert consistency(MIXED | {ingredient: MIXED.get(ingredient, 0) + 25}) < consistency(MIXED)


@pytest.mark.parametrize(
    ("name", "lines", "degrees", "sign"),
    [
        ("max_packing", MIXED, 30, -1), ("press_packing", MIXED, 30, -1), ("packing_exponent", MIXED, 30, 1), ("oil_release", MIXED, 30, -1),
        ("cheese_60", CHEESE, 50, 1), ("cheese_slope", CHEESE, 40, 1), ("particle_modulus", CHEESE, 10, 1), ("sharing", MIXED, 30, 1),
        ("gel_yield", MIXED, 20, -1), ("gel_yield", MIXED, 50, 1), ("coarse_packing", SEEDY, 30, -1),
    ],
)  # fmt: skip
def test_every_parameter_pulls_as_its_meaning_says(name, lines, degrees, sign):
    spread = parameters()[name]
    assert (
        consistency(lines, degrees, **{name: spread.high}) - consistency(lines, degrees, **{name: spread.low})
    ) * sign > 0


def test_flour_among_whole_seeds_packs_closer_than_either():
    """Furnas (1931): a mixture of large and small lies denser than either alone."""
    coarse = [consistency(SEEDY, coarse_packing=value) for value in (0.0, 0.2)]
    assert coarse[1] < coarse[0]
    assert consistency(MIXED, coarse_packing=0.0) == consistency(MIXED, coarse_packing=0.2)


@pytest.mark.parametrize(
    ("form", "lines", "kind"),
    [
        ("bun", MIXED | {"water": 320}, "wet"), ("cracker", {"almond-flour": 224, "egg": 20}, "crumbly"), ("wrap", MIXED | {"coconut-flour": 60, "water": 70}, "stiff"),
    ],
)  # fmt: skip
def test_what_keeps_a_dough_from_being_shaped_is_named(form, lines, kind):
    document_ = made(lines) | {"form": {"kind": form, "pieces": 6}}
    before = analyse(read_document(document_), LIBRARY)
    warning = next(w for w in before.warnings if w.code.startswith("handling-"))
    assert warning.code == f"handling-{kind}"


def test_the_told_moments_are_roots_of_the_curve():
    formula = read_document(made(MIXED))
    found = analyse(formula, LIBRARY).handling
    warm = found.temperature_c
    for minute, name in ((found.ready_min, found.target_low), (found.knead_min, "tacky")):
        assert consistency(MIXED, warm, minute) == pytest.approx(
            band_of(name, form_of("bun").thickness_mm).low, abs=0.05
        )
    crust = made(CHEESE) | {"form": {"kind": "thin-crust", "pieces": 6}}
    brittle = analyse(read_document(crust), LIBRARY).handling.brittle_below_c
    assert consistency(CHEESE, brittle, 5) == pytest.approx(band_of("stiff", 4).low, abs=0.05)


def test_a_little_egg_makes_a_nut_butter_seize_and_much_water_loosens_it_again():
    """Common practice; capillary suspensions (Koos & Willenbacher 2011)."""
    plain = {"peanut-butter": 250, "erythritol": 60}
    little, more, much = (
        consistency(plain | {"egg": egg, "water": water}, 21.0) for egg, water in ((20, 0), (55, 0), (55, 600))
    )
    assert consistency(plain | {"egg": 1}, 21.0) < little
    assert more > 2.5  # rolled into balls
    assert much < 0.9  # a soup
