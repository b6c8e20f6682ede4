"""Everyday words of a kitchen, each to its plain food (common practice); what is far is no answer."""

import pytest

from substrata import load_library

NAMES = load_library().names
PLAIN = {
    "egg": "egg", "eggs": "egg", "butter": "butter", "milk": "milk", "cream": "heavy-cream", "cheese": "mozzarella", "cheddar": "cheddar",
    "flour": "almond-flour", "almond flour": "almond-flour", "coconut flour": "coconut-flour", "oil": "olive-oil", "salt": "salt",
    "pepper": "black-pepper", "yeast": "dry-yeast", "vinegar": "cider-vinegar", "water": "water", "yogurt": "yogurt", "cocoa": "cocoa",
    "almonds": "almonds", "walnuts": "walnuts", "pecans": "pecans", "hazelnuts": "hazelnuts", "olives": "olives", "onion": "onion",
    "garlic": "garlic", "tomato": "tomato", "basil": "basil", "ham": "ham", "bacon": "bacon", "tuna": "tuna", "salmon": "smoked-salmon",
    "chicken": "chicken", "beef": "ground-beef", "parmesan": "parmesan", "feta": "feta", "ricotta": "ricotta", "honey": "honey",
    "sugar": "sugar", "vanilla": "vanilla", "cinnamon": "cinnamon", "baking powder": "baking-powder", "baking soda": "baking-soda",
    "psyllium": "psyllium-powder", "chia": "chia-seeds", "flax": "flax-meal", "cream cheese": "cream-cheese", "sour cream": "sour-cream",
    "egg white": "egg-white", "egg yolk": "egg-yolk", "spinach": "spinach", "zucchini": "zucchini", "cauliflower": "cauliflower",
}  # fmt: skip


@pytest.mark.parametrize(("word", "food"), PLAIN.items())
def test_a_plain_word_is_its_plain_food(word, food):
    assert NAMES.search(word, 5)[0] == food


@pytest.mark.parametrize("word", ["unicorn dust", "gravel", "moonlight", "xyzzy"])
def test_what_nothing_is_called_is_spelled_by_nothing(word):
    assert NAMES.spelled(word) == []


def test_whole_words_come_before_words_that_begin_so():
    assert NAMES.search("butter").index("butter-salted") < NAMES.search("butter", 20).index("buttermilk")
