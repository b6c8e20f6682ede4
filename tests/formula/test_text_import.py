import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import load_library
from substrata.base.errors import FormulaError
from substrata.formula.exchange.text_import import LONGEST_PASTE, import_text

LIBRARY = load_library()
LIST = """For the dough:
• 1 1/2 cups (150 g) superfine blanched almond flour
2 T psyllium husk powder, packed
- 2 lg eggs + 2 whites, at room temperature
1) 1 (8 oz) pkg cream cheese, softened
[ ] 8 oz mozzarella, shredded (divided)
½ cup mustard butter
salt, a pinch
salt to taste
1 cup wobbleberry dust
Topping:
2 tbsp sesame seeds
"""


@pytest.fixture(scope="module")
def pasted():
    return import_text(LIST, LIBRARY)


def by_text(pasted, word):
    return next(row for row in pasted if word in row.text)


def test_every_line_of_the_paste_is_accounted_for(pasted):
    assert [row.text for row in pasted] == [part.strip() for part in LIST.splitlines()]


def test_amount_ingredient_and_note_are_told_apart(pasted):
    line = by_text(pasted, "mozzarella").lines[0]
    assert (line.ingredient, line.entered, line.note) == ("mozzarella", "8 oz", "shredded, divided")
    assert by_text(pasted, "superfine").lines[0].note == "superfine"


def test_eggs_and_whites_become_two_lines_and_keep_the_note(pasted):
    lines = by_text(pasted, "whites").lines
    assert [line.ingredient for line in lines] == ["egg", "egg-white"]
    assert lines[0].note == "at room temperature"


def test_a_head_gives_its_role_to_the_lines_below(pasted):
    assert by_text(pasted, "sesame").lines[0].role == "topping"
    assert by_text(pasted, "psyllium").lines[0].role == ""


def test_an_amount_behind_the_name_is_found(pasted):
    assert by_text(pasted, "a pinch").lines[0].entered == "a pinch"


def test_a_line_without_an_amount_is_kept_with_its_problem(pasted):
    row = by_text(pasted, "to taste")
    assert row.lines[0].ingredient == "salt"
    assert "no amount" in row.problem.what


@pytest.mark.parametrize(("word", "status"), [("mustard butter", "unsure"), ("wobbleberry", "unknown")])
def test_a_doubtful_name_is_offered_not_guessed(pasted, word, status):
    row = by_text(pasted, word)
    assert row.status == status
    assert row.lines[0].ingredient == ""
    assert row.nearest
    assert all(key in LIBRARY for key in row.nearest)


@pytest.mark.parametrize("text", ["x" * (LONGEST_PASTE + 1), "1 g salt\n" * 300])
def test_a_paste_that_is_too_long_is_refused_with_its_size(text):
    with pytest.raises(FormulaError) as refusal:
        import_text(text, LIBRARY)
    assert refusal.value.field == "text"


@given(st.text(max_size=300))
def test_any_text_is_read_or_reported(text):
    rows = import_text(text, LIBRARY)
    assert all(row.status in ("read", "section") or row.phrases or row.problem for row in rows)
    assert all(line.ingredient in LIBRARY for row in rows if row.status == "read" for line in row.lines)


@pytest.mark.parametrize(
    ("text", "ingredient"),
    [
        ("100 g milk chocolate", "milk-chocolate"), ("100 g unsweetened chocolate", "chocolate-unsweetened"), ("2 tbsp fresh dill", "dill-fresh"),
        ("1 tsp dried dill", "dill"), ("21 g fresh yeast", "fresh-yeast"), ("7 g instant dry yeast", "dry-yeast"), ("20 g dried mushrooms", "mushroom-dried"),
        ("20 g buttermilk powder", "buttermilk-powder"), ("1 tsp mustard powder", "mustard-powder"), ("100 g light cream", "light-cream"),
        ("100 g almond paste", "almond-paste"), ("100 g cream of coconut", "cream-of-coconut"), ("1 tsp kosher salt", "salt-flaked"),
        ("3 tbsp egg white powder", "egg-white-powder"), ("1 tbsp soy sauce", "soy-sauce"), ("200 g whole milk mozzarella, shredded", "mozzarella-whole"),
        ("10 g psyllium husk powder", "psyllium-powder"), ("2 large fresh eggs, beaten", "egg"),
    ],
)  # fmt: skip
def test_a_word_that_names_another_food_or_strength_finds_its_own_row(text, ingredient):
    row = import_text(text, LIBRARY)[0]
    assert (row.status, row.lines[0].ingredient) == ("read", ingredient)


@pytest.mark.parametrize("text", ["100 g cheddar powder", "30 g dried spinach", "100 g light sour cream", "50 g cooked chickpea flour", "30 g smoked almonds"])  # fmt: skip
def test_a_word_that_changes_the_food_is_asked_about_and_never_swallowed(text):
    row = import_text(text, LIBRARY)[0]
    assert row.status in ("unsure", "unknown")
    assert row.lines[0].ingredient == ""
    assert row.nearest


def test_what_is_said_below_other_heads_is_no_ingredient_and_sets_no_oven():
    rows = import_text(
        "Rolls\n\n120 g almond flour\n2 eggs\nBake at 175 C for 20 min\n\nNotes:\n- Rosemary: 4 g more\nVariations:\nBake at 220 C with cheddar",
        LIBRARY,
    )
    assert [line.ingredient for row in rows for line in row.lines] == ["almond-flour", "egg"]
    assert [row.phrases.oven_c for row in rows if row.phrases and row.phrases.oven_c] == [175]
