"""What a pasted list says besides its ingredients."""

from dataclasses import replace

import pytest

from substrata import analyse, load_library
from substrata.base.settings import Settings
from substrata.base.tables.table_reader import read_table
from substrata.formula.exchange.form_vocabulary import form_in
from substrata.formula.exchange.recipe_phrases import RecipePhrases, phrases_in
from substrata.formula.exchange.text_import import import_text, with_phrases
from substrata.formula.form_table import forms
from substrata.formula.formula import Formula

LIBRARY = load_library()
EMPTY = Formula(name="", form="thin-crust", pieces=6)
SLOPPY = """Friday seeded rolls
Makes 8
1 3/4 c almond flour
2 handfuls shredded mozz
a knob of butter
good glug of evoo
2 tsp bp
handful parm, grated
3 eggs
dash salt
warm water, 120 g
bake at 400F for 15-17 min
Serve warm."""


@pytest.mark.parametrize(
    ("line", "told"),
    [
        ("Makes 8", RecipePhrases(pieces=8)),
        ("makes about 6-8 rolls", RecipePhrases(pieces=7, form="bun")),
        ("Serves: 4", RecipePhrases(pieces=4)),
        ("12 servings", RecipePhrases(pieces=12)),
        # 400 degF is 204.4 degC and 350 degF 176.7 degC (NIST SP 811 appendix B.8).
        ("bake at 400 °F for 15 min", RecipePhrases(oven_c=204, minutes=15)),
        ("Preheat oven to 350", RecipePhrases(oven_c=177)),
        ("Bake 12 rolls 20-24 minutes at 180C fan", RecipePhrases(oven_c=180, fan=True, minutes=22)),
        ("Oven: 200 °C / 400 °F", RecipePhrases(oven_c=200)),
        ("bake at gas mark 6, 1 hour", RecipePhrases(oven_c=200, minutes=60)),
        ("Mix everything and rest for 10 min.", RecipePhrases(note="Mix everything and rest for 10 min.")),
        ("2 eggs", RecipePhrases()),
        ("almond flour", RecipePhrases()),
        ("bake at 9000 degrees", RecipePhrases(note="bake at 9000 degrees")),
    ],
)
def test_a_line_says(line, told):
    assert phrases_in(line) == told


def test_a_sloppy_list_is_read_whole():
    rows = import_text(SLOPPY, LIBRARY)
    assert {row.status for row in rows} == {"read", "told"}
    read = {line.ingredient: row for row in rows for line in row.lines}
    assert {
        "almond-flour",
        "mozzarella",
        "butter",
        "olive-oil",
        "baking-powder",
        "parmesan",
        "egg",
        "salt",
        "water",
    } == set(read)
    assert all(row.weights[0] is not None for row in read.values())
    # A tablespoon of butter weighs 14.2 g (USDA SR28 01001); a knob is about as much, give or take a half.
    knob = read["butter"].weights[0]
    assert knob.value == pytest.approx(14.4, abs=0.6)
    assert (knob.high - knob.low) / 2 == pytest.approx(knob.value / 2, rel=0.05)


def test_what_is_told_goes_into_the_formula():
    formula = with_phrases(Formula(name="", form="bun", pieces=1), import_text(SLOPPY, LIBRARY))
    assert (formula.name, formula.pieces, formula.bake.oven_c) == ("Friday seeded rolls", 8, 204)
    assert [(s.kind, s.minutes) for s in formula.bake.stages] == [("bake", 16)]
    assert formula.notes == "Serve warm."


def test_weights_go_by_the_kitchens_spoons():
    us, metric = (
        import_text("1 cup almond flour", LIBRARY, Settings(spoons=s))[0].weights[0].value for s in ("us", "metric")
    )
    assert metric / us == pytest.approx(250 / 236.588, rel=1e-3)


@pytest.mark.parametrize("text", ["almond flour\n2 eggs\n3 g salt", "2 eggs\n3 g salt", "Topping:\n2 eggs\n3 g salt"])
def test_a_first_line_that_is_an_ingredient_or_a_head_is_no_name(text):
    assert import_text(text, LIBRARY)[0].phrases is None


@pytest.mark.parametrize(
    ("title", "form"),
    # Common practice: the last word is the thing, what follows "with" lies beside it.
    [
        ("Seeded Crackers", "cracker"), ("Lemon shortbread", "cookie"), ("Thin cauliflower pizza crust", "thin-crust"), ("Focaccia bread", "thick-crust"),
        ("Garlic naan bread", "wrap"), ("Bread sticks (quick!)", "rope"), ("Banana bread muffins", "bun"), ("Zucchini bread", "tin-loaf"),
        ("Rustic loaf", "free-loaf"), ("Cinnamon donuts", "doughnut"), ("Pizza pockets with ham", "pocket"), ("Crispbread for cheese", "cracker"),
        ("Stuffed bread", "filled-bread"), ("Sunday treat", None), ("", None), ("Breadth and crustaceans", None),
    ],
)  # fmt: skip
def test_a_title_says_the_form(title, form):
    assert form_in(title) == form


def test_a_biscuit_is_a_bun_or_a_cookie_by_its_sweetener():
    lines = "1 cup almond flour\n1 egg\n40 g butter"
    plain = with_phrases(EMPTY, import_text(f"Almond biscuits\n{lines}", LIBRARY))
    sweet = with_phrases(EMPTY, import_text(f"Almond biscuits\n{lines}\n60 g erythritol", LIBRARY))
    assert (plain.form, sweet.form) == ("bun", "cookie")


def test_a_form_brings_its_usual_pieces_unless_they_are_told():
    lines = "200 g almond flour\n100 g egg\n60 g erythritol\n40 g butter"
    assert with_phrases(EMPTY, import_text(f"Nut cookies\n{lines}", LIBRARY)).pieces == 20
    assert with_phrases(EMPTY, import_text(f"Nut cookies\nmakes 12\n{lines}", LIBRARY)).pieces == 12
    # A list without a title keeps what stands on the bench.
    assert with_phrases(EMPTY, import_text(lines, LIBRARY)).form == "thin-crust"
    # A title is surer than the word beside a number.
    told = with_phrases(EMPTY, import_text(f"Olive crackers\nmakes 40 cookies\n{lines}", LIBRARY))
    assert (told.form, told.pieces) == ("cracker", 40)


def test_the_words_name_every_form_and_none_twice():
    rows = [(row.text("form"), row.text("words").split(";")) for row in read_table("form_words.csv")]
    assert {form for form, _ in rows} == set(forms())
    every = [word for _, words in rows for word in words]
    assert len(every) == len(set(every))


@pytest.mark.parametrize(
    ("line", "told"),
    [
        ("Yield: 1 loaf (16 slices)", RecipePhrases(pieces=16, form="tin-loaf")),
        # 204.4 and 148.9 degC (NIST SP 811 appendix B.8); nothing else says three figures with a degree and minutes.
        ("400 degrees F, 12-14 mins", RecipePhrases(oven_c=204, minutes=13)),
        ("300F for 25-30 min makes 8", RecipePhrases(oven_c=149, minutes=27.5, pieces=8)),
        ("Bake for 50 to 55 minutes.", RecipePhrases(minutes=52.5, note="Bake for 50 to 55 minutes.")),
        ("Bake 10 min, turn, bake 8 min", RecipePhrases(note="Bake 10 min, turn, bake 8 min")),
    ],
)
def test_a_line_says_how_many_and_how_long(line, told):
    assert phrases_in(line) == told


@pytest.mark.parametrize(
    ("line", "ingredients"),
    # Everyday wordings; what stands in brackets or behind a comma is a remark unless it names or makes another food.
    [
        ("2 oz cream cheese, cubed", ["cream-cheese"]), ("250g smooth peanut butter (no added sugar)", ["peanut-butter"]),
        ("200g golden flaxseed meal", ["flax-meal"]), ("½ cup pumpkin seeds (pepitas)", ["pumpkin-seeds"]),
        ("2 cups shredded mozzarella cheese (low moisture)", ["mozzarella"]), ("salt & pepper to taste", ["salt", "black-pepper"]),
        ("1 tsp Italian seasoning", ["oregano"]), ("3 eggs, straight from the hen", ["egg"]),
        ("120 ml milk (almond)", ["almond-milk"]), ("100 g cream, sour", ["sour-cream"]), ("80 g butter, salted", ["butter-salted"]),
        ("100 g butter (peanut)", ["peanut-butter"]), ("100 g yoghurt, Greek", ["greek-yogurt"]), ("3 eggs, whites only", ["egg-white"]), ("100 g almond flour, defatted", ["almond-flour-defatted"]), ("50 g mushrooms, dried", ["mushroom-dried"]), ("60 g salt substitute", [""]),
    ],
)  # fmt: skip
def test_a_remark_is_no_other_food(line, ingredients):
    assert [l.ingredient for l in import_text(line, LIBRARY)[0].lines] == ingredients


def test_a_vegetable_that_is_squeezed_behind_its_weight_was_weighed_raw():
    raw, left, drained = (
        import_text(line, LIBRARY)[0]
        for line in ("300 g grated courgette, squeezed", "240 g squeezed courgette", "1 can tuna, drained")
    )
    assert raw.lines[0].prep.start_g == 300
    # Two grips take a fifth to a third of a raw one's weight (common practice).
    assert 200 < raw.lines[0].grams < 245
    assert raw.weights[0].value == pytest.approx(raw.lines[0].grams, abs=1)
    assert left.lines[0].entered == "240 g"
    assert left.lines[0].prep.start_g is None
    assert drained.lines[0].prep is None
    lines = tuple(
        l
        for row in import_text("300 g courgette, squeezed\n90 g almond flour\n1 egg\n30 g parmesan", LIBRARY)
        for l in row.lines
    )
    judged = analyse(replace(EMPTY, lines=lines), LIBRARY)
    assert not {"not-squeezed", "handling-crumbly"} & {w.code for w in judged.warnings}


@pytest.mark.parametrize(
    ("line", "oven"),
    # Common practice of Europe: the fan's own temperature stands behind the still oven's.
    [("Bake at 190°C / 170°C fan / gas 5, 20-22 mins", (190, None)), ("200C fan for 15 min", (200, True)), ("180 °C (fan 160 °C), 30 min", (180, None))],
)  # fmt: skip
def test_a_fan_of_its_own_is_no_second_oven(line, oven):
    told = phrases_in(line)
    assert (told.oven_c, told.fan) == oven


def test_a_count_of_a_form_below_the_list_and_a_title_that_is_an_ingredient_too():
    list_ = "Egg wraps\n6 egg whites\n1 tbsp coconut flour\n1/2 tsp xanthan\n5 wraps"
    formula = with_phrases(EMPTY, import_text(list_, LIBRARY))
    assert (formula.name, formula.form, formula.pieces) == ("Egg wraps", "wrap", 5)
    assert import_text("6 wishes", LIBRARY)[0].status != "told"


@pytest.mark.parametrize(
    "line",
    [
        f"Rolls (1{' ' * 19_000}x",
        f"a{' ' * 19_000}b 200C",
        f"bake{' (' * 9_000}",
        "9 " * 9_000,
        f"makes{' ' * 19_000}8",
    ],
)
def test_an_endless_line_does_not_take_for_ever(line):
    """Patterns that begin and end with any number of spaces would try every cut of them."""
    rows = import_text(f"{line}\n100 g almond flour\n1 egg", LIBRARY)
    assert [l.ingredient for row in rows[1:] for l in row.lines] == ["almond-flour", "egg"]


def test_the_second_of_a_name_is_no_count():
    assert (
        with_phrases(EMPTY, import_text("Market rolls (2)\n200 g almond flour\n2 eggs", LIBRARY)).name
        == "Market rolls (2)"
    )
