"""Figures against standards and handbooks, each named beside its check."""

import pytest

from substrata import Settings, analyse, load_library, read_document
from substrata.base.amounts import parse_amount
from substrata.base.units import unit
from substrata.ingredients.amount_to_grams import weigh
from substrata.ingredients.composition import NUTRIENTS, Composition
from substrata.ingredients.egg_sizes import egg_grams
from substrata.ingredients.thermal_properties import MATTERS, property_choi_okos
from substrata.ingredients.vegetable_drying import drying_numbers
from substrata.nutrition.energy import energy_kcal

LIBRARY = load_library()


@pytest.mark.parametrize(
    ("key", "size"),
    [
        ("oz", 28.349523125),
        ("lb", 453.59237),
        ("fl-oz", 29.5735295625),
        ("cup", 236.5882365),
        ("tbsp", 14.78676478125),
        ("tsp", 4.92892159375),
        ("pint", 473.176473),
        ("quart", 946.352946),
    ],
)
def test_units_by_nist_special_publication_811_appendix_b(key, size):
    assert unit(key).size == pytest.approx(size, rel=1e-9)


def test_a_cup_is_sixteen_tablespoons_and_a_tablespoon_three_teaspoons_in_the_us():
    assert unit("cup").size == pytest.approx(16 * unit("tbsp").size)
    assert unit("tbsp").size == pytest.approx(3 * unit("tsp").size)


@pytest.mark.parametrize(
    ("scheme", "size", "shell_low", "shell_high"),
    [
        ("eu", "s", 0, 53), ("eu", "m", 53, 63), ("eu", "l", 63, 73), ("eu", "xl", 73, 90),  # Regulation (EC) 589/2008 art. 4
        ("us", "medium", 49.6, 56.7), ("us", "large", 56.7, 63.8), ("us", "xl", 63.8, 70.9),  # USDA AMS 56: ounces a dozen
    ],
)  # fmt: skip
def test_eggs_weigh_what_their_class_leaves_without_the_shell(scheme, size, shell_low, shell_high):
    """Shell and membrane are a ninth to an eighth of an egg."""
    whole = egg_grams("whole_g", size, scheme).value
    assert 0.85 * shell_low <= whole <= 0.90 * shell_high
    parts = egg_grams("white_g", size, scheme).value + egg_grams("yolk_g", size, scheme).value
    assert parts == pytest.approx(whole, abs=0.5)


@pytest.mark.parametrize(
    ("nutrient", "kcal"),
    [("protein_g", 4), ("fat_g", 9), ("carbohydrate_g", 4), ("alcohol_g", 7), ("acid_g", 3)],
)
def test_energy_factors_of_regulation_eu_1169_2011_annex_xiv(nutrient, kcal):
    assert energy_kcal(only(**{nutrient: 10})) == pytest.approx(10 * kcal)


@pytest.mark.parametrize(
    ("part", "kcal"), [("fibre_g", 2), ("polyols_g", 2.4), ("erythritol_g", 0), ("allulose_g", 0.4)]
)
def test_energy_factors_of_parts_of_carbohydrate(part, kcal):
    """Annex XIV: fibre 2, polyols 2.4, erythritol 0; allulose .4 by the FDA guidance of 2020."""
    assert energy_kcal(only(**{"carbohydrate_g": 10, part: 10})) == pytest.approx(10 * kcal)


def only(**grams):
    return Composition(values=tuple(float(grams.get(n, 0)) for n in NUTRIENTS), sds=(0.0,) * len(NUTRIENTS))


def piece(convention="us", rule="half", **lines):
    made = {
        "name": "label", "form": {"kind": "cookie", "pieces": 1},
        "lines": [{"id": k, "ingredient": k.replace("_", "-"), "grams": g} for k, g in lines.items()],
    }  # fmt: skip
    return analyse(read_document(made), LIBRARY, Settings(convention=convention, polyol_rule=rule)).nutrition.piece


@pytest.mark.parametrize(
    ("lines", "us", "total"),
    [
        # Worked by hand from the label figures per 100 g: carbohydrate − fibre − erythritol − allulose − ½ xylitol.
        ({"flax_meal": 100}, 28.88 - 27.3, 28.88),  # SR28 12220
        ({"chia_seeds": 50}, (42.12 - 34.4) / 2, 21.06),  # SR28 12006
        ({"coconut_flour": 100}, 58.9 - 34.24, 58.9),  # Foundation Foods
        ({"erythritol": 10}, 0.0, 9.98),
        ({"xylitol": 10}, 9.95 / 2, 9.95),
        ({"allulose": 10}, (98.5 - 97.3) / 10, 9.85),
        ({"almond_flour": 30, "xylitol": 10}, (16.25 - 9.266) * 0.3 + 9.95 / 2, 16.25 * 0.3 + 9.95),
    ],
)
def test_net_carbs_on_worked_label_examples(lines, us, total):
    assert piece("us", **lines).net_carbs.value == pytest.approx(us, abs=0.01)
    assert piece("total", **lines).net_carbs.value == pytest.approx(total, abs=0.01)


def test_the_european_convention_never_subtracts_fibre_twice_and_keeps_allulose():
    """A European label's carbohydrate already excludes fibre, so both conventions meet without allulose."""
    assert piece("eu", flax_meal=100).net_carbs.value == pytest.approx(piece("us", flax_meal=100).net_carbs.value)
    assert piece("eu", allulose=10).net_carbs.value == pytest.approx(9.85, abs=0.01)


def test_polyols_by_energy():
    """1 − kcal/4 of each: xylitol at 2.4 kcal/g (21 CFR 101.9(c)(1)(i)(F)) keeps .6 of itself."""
    assert piece("us", "energy", xylitol=10).net_carbs.value == pytest.approx(9.95 * 0.6, abs=0.01)


@pytest.mark.parametrize(
    ("amount", "ingredient", "low", "high"),
    [
        ("1 cup", "almond-flour", 100, 112), ("1 cup", "coconut-flour", 112, 120), ("1 tbsp", "coconut-flour", 6.5, 7.5),
        ("1 tbsp", "psyllium-powder", 7, 9), ("1 tbsp", "psyllium-husk", 4.5, 5.5), ("1 tsp", "baking-powder", 4, 5),
        ("1 tsp", "salt", 5.7, 6.3), ("1 tsp", "salt-flaked", 2.7, 3.3), ("1 cup", "mozzarella", 110, 114),
        ("1 cup", "cheddar", 111, 115), ("1 tbsp", "parmesan-grated", 5, 6), ("1 cup", "butter", 225, 229),
        ("1 tsp", "xanthan", 2.5, 4), ("1 cup", "erythritol", 190, 194), ("1 tsp", "erythritol", 3.8, 4.2),
        ("1 large", "egg", 49, 51), ("1 medium", "egg", 43, 45), ("1 xl", "egg", 55, 57), ("1", "egg-white", 32, 34),
        ("1", "egg-yolk", 16, 18), ("1 cup", "cauliflower", 107, 113), ("1 medium", "cauliflower", 580, 595),
        ("1 cup", "zucchini", 122, 126), ("1 stick", "butter", 112, 114), ("1 clove", "garlic", 2.9, 3.1),
    ],
)  # fmt: skip
def test_measures_weigh_what_bakers_expect(amount, ingredient, low, high):
    """Common practice, US cup."""
    assert low <= weigh(parse_amount(amount), LIBRARY[ingredient], Settings()).value <= high


# Choi & Okos (1986) at 20 degC as handbooks of food engineering tabulate them: W/(m K), J/(kg K), kg/m3.
CHOI_OKOS_20C = {
    "water": (0.6037, 4176.6, 995.7), "protein": (0.2016, 2031.9, 1319.5), "fat": (0.1751, 2011.7, 917.2),
    "carbohydrate": (0.2274, 1585.7, 1592.9), "fibre": (0.2070, 1880.7, 1304.2), "ash": (0.3565, 1128.9, 2418.2),
}  # fmt: skip


@pytest.mark.parametrize("matter", MATTERS)
def test_properties_of_matter_by_choi_and_okos_1986(matter):
    found = [property_choi_okos(name, matter, 20.0) for name in ("conductivity", "specific_heat", "density")]
    assert found == pytest.approx(CHOI_OKOS_20C[matter], rel=1e-3)


@pytest.mark.parametrize("degrees", [5.0, 20.0, 50.0, 80.0])
def test_water_against_the_steam_tables(degrees):
    """IAPWS-IF97 by a registry library. The polynomials leave it by up to 2 % in conductivity."""
    from iapws import IAPWS97

    steam = IAPWS97(T=degrees + 273.15, P=0.101325)
    assert property_choi_okos("specific_heat", "water", degrees) == pytest.approx(1000 * steam.cp, rel=0.01)
    assert property_choi_okos("density", "water", degrees) == pytest.approx(steam.rho, rel=0.01)
    assert property_choi_okos("conductivity", "water", degrees) == pytest.approx(steam.k, rel=0.025)


def test_heat_to_boil_water_off_is_the_steam_tables():
    from iapws import IAPWS97

    dry, wet = IAPWS97(T=373.15, x=1), IAPWS97(T=373.15, x=0)
    assert drying_numbers()["water_vapour"].value == pytest.approx(dry.h - wet.h, rel=2e-3)
