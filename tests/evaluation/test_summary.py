"""The sentence that opens the station."""

import pytest


def sentence(analysis):
    return "".join(str(phrase.text) for phrase in analysis.summary)


@pytest.mark.parametrize(
    ("lines", "says"),
    [
        ({"almond_flour": 150, "egg": 100, "psyllium_powder": 10, "water": 40, "salt": 4}, "Good binding"),
        ({"almond_flour": 300, "water": 40}, "Too little binding"),
        ({"almond_flour": 100, "water": 200, "psyllium_powder": 75}, "Rather firmly bound"),
        ({"almond_flour": 60, "water": 300, "psyllium_powder": 200}, "Too much binding"),
        ({"almond_flour": 200, "egg": 50, "psyllium_powder": 10, "water": 400}, "water too much for a thin crust"),
        ({"coconut_flour": 200, "egg": 50}, "water short for a thin crust"),
        ({"mozzarella": 170, "egg": 50, "almond_flour": 60}, "right amount of water for a thin crust"),
        ({"water": 100}, "No dry base yet"),
        ({"almond_flour": 200, "egg": 100, "baking_powder": 40}, "More gas than the dough can hold"),
        ({"almond_flour": 200, "egg": 100, "salt": 30}, "Salty"),
        ({"almond_flour": 200, "egg": 40}, "Under-salted"),
    ],
)
def test_the_sentence_says_what_the_dough_is_like(judged, lines, says):
    assert says in sentence(judged(**lines))


def test_every_linked_phrase_leads_to_a_bracket_that_is_there(judged):
    found = judged(almond_flour=200, egg=50, water=200)
    keys = {bracket.key for bracket in found.brackets}
    linked = [phrase for phrase in found.summary if phrase.bracket]
    assert len(linked) >= 4
    assert {phrase.bracket for phrase in linked} <= keys


def test_figures_of_the_sentence_are_those_of_the_brackets(judged, bracket):
    found = judged(almond_flour=200, egg=100, water=30)
    assert f"{bracket(found, 'net_carbs').estimate.value:.1f} g net carbs" in sentence(found)
    assert f"{bracket(found, 'protein').estimate.value:.1f} g protein per piece" in sentence(found)
