import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import Settings, load_library
from substrata.base.amounts import parse_amount
from substrata.base.errors import AmountError
from substrata.ingredients.amount_to_grams import weigh

LIBRARY = load_library()


def grams(text, ingredient, **settings):
    return weigh(parse_amount(text), LIBRARY[ingredient], Settings(**settings))


@pytest.mark.parametrize(
    ("spoons", "cup", "tablespoon"), [("us", 236.6, 14.79), ("metric", 250.0, 15.0), ("australian", 250.0, 20.0)]
)
def test_cups_and_spoons_follow_the_kitchen(spoons, cup, tablespoon):
    assert grams("1 cup", "water", spoons=spoons).value == pytest.approx(cup, rel=0.001)
    assert grams("1 tbsp", "water", spoons=spoons).value == pytest.approx(tablespoon, rel=0.001)


def test_an_egg_follows_size_and_scheme_and_splits_into_white_and_yolk():
    assert grams("2", "egg").value == 100
    assert grams("2 eggs", "egg", egg_scheme="eu").value == 120
    white, yolk = grams("1 large", "egg-white").value, grams("1 large", "egg-yolk").value
    assert white + yolk == grams("1 large", "egg").value


def test_a_spoon_is_less_sure_than_a_scale():
    spoon, scale = grams("2 tbsp", "psyllium-powder"), grams("16 g", "psyllium-powder")
    assert spoon.value == scale.value
    assert spoon.sd > scale.sd > grams("16.0 g", "psyllium-powder").sd


def test_a_range_is_less_sure_than_its_middle():
    assert grams("2-4 tbsp", "olive-oil").sd > grams("3 tbsp", "olive-oil").sd


@pytest.mark.parametrize(
    ("text", "ingredient"), [("1 stick", "olive-oil"), ("2 whites", "egg"), ("1 cup", "pepperoni")]
)
def test_a_measure_without_a_weight_is_refused_with_the_known_ones(text, ingredient):
    with pytest.raises(AmountError) as refusal:
        grams(text, ingredient)
    assert "grams" in refusal.value.allowed


def test_an_unknown_egg_size_names_the_sizes():
    with pytest.raises(AmountError, match="egg size") as refusal:
        grams("2 eggs", "egg", egg_size="giant")
    assert "large" in refusal.value.allowed


@given(st.sampled_from(["cup", "tbsp", "tsp", "g", "oz", "ml"]), st.floats(0.5, 50), st.floats(1.1, 5))
def test_grams_scale_with_the_number(unit, number, factor):
    one = grams(f"{number:.3f} {unit}", "almond-flour")
    more = grams(f"{round(number, 3) * factor:.6f} {unit}", "almond-flour")
    assert more.value == pytest.approx(one.value * factor, rel=1e-3)


@pytest.mark.parametrize("ingredient", [i.id for i in LIBRARY if i.bulk_density])
def test_every_spoonable_ingredient_can_be_weighed_by_cup_and_spoon(ingredient):
    cup, spoon = grams("1 cup", ingredient), grams("1 tbsp", ingredient)
    assert 0 < cup.low < cup.value < cup.high
    # Dosed by hand a spoon is heaped or level; a cup is within a factor of two of sixteen spoons.
    assert 0.5 < cup.value / (16 * spoon.value) < 2
