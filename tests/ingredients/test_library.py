import pytest

from substrata import load_library
from substrata.base.errors import LibraryError, UnknownIngredient
from substrata.base.tables.table_reader import read_table, rows_of
from substrata.ingredients.ingredient import BEHAVIOURS
from substrata.ingredients.library import build_library

LIBRARY = load_library()
TABLES = ("composition.csv", "behaviour.csv", "measures.csv", "aliases.csv")


def test_the_pantry_is_large_and_every_row_names_its_source():
    assert len(LIBRARY) >= 130
    for ingredient in LIBRARY:
        assert ingredient.source
        assert all(p.source and p.unit for p in ingredient.behaviour.values())
        assert all(m.source for m in ingredient.measures.values())


def test_every_proximate_sum_closes():
    for ingredient in LIBRARY:
        assert ingredient.composition.closes_at == pytest.approx(100, abs=1), ingredient.id


def test_every_constant_and_window_names_its_source():
    for table in ("constants.csv", "forms.csv", "caps.csv", "matrices.csv", "egg_sizes.csv"):
        assert all(row.text("source") for row in read_table(table))


def spoiled(table, number, column, value):
    """The shipped tables with one cell of one line replaced."""
    rows = []
    for name in TABLES:
        found = list(read_table(name))
        if name == table:
            bad = found[number - 2]
            found[number - 2] = type(bad)(table=bad.table, number=bad.number, cells={**bad.cells, column: value})
        rows.append(found)
    return rows


@pytest.mark.parametrize(
    ("table", "column", "value", "says"),
    [
        ("composition.csv", "water_g", "40", "do not add up"),
        ("composition.csv", "protein_g", "lots", "not a number"),
        ("composition.csv", "fat_g", "-1", "out of range"),
        ("composition.csv", "sodium_mg", "nan", "out of range"),
        ("composition.csv", "fibre_g", "99", "more parts than"),
        ("composition.csv", "role", "glue", "unknown role"),
        ("composition.csv", "flags", "nut:acorn", "unknown flag"),
        ("composition.csv", "id", "coconut-flour", "appears twice"),
        ("behaviour.csv", "low", "9", "not ordered"),
        ("behaviour.csv", "parameter", "charm", "unknown behaviour"),
        ("behaviour.csv", "ingredient", "moon-dust", "unknown ingredient"),
        ("measures.csv", "low", "0", "weighs nothing"),
        ("aliases.csv", "alias", "almond meal", "alias of two"),
    ],
)
def test_a_bad_row_stops_with_its_line_number(table, column, value, says):
    with pytest.raises(LibraryError, match=says) as refusal:
        build_library(*spoiled(table, 2, column, value))
    assert f"{table} line" in refusal.value.what


def test_a_row_with_too_few_cells_is_named():
    short = rows_of("id,name\nx\n", "short.csv")[0]
    with pytest.raises(LibraryError, match=r"short\.csv line 2"):
        short.text("name")


def test_an_unknown_ingredient_offers_the_nearest():
    with pytest.raises(UnknownIngredient) as refusal:
        LIBRARY["almond-flower"]
    assert "almond-flour" in refusal.value.remedy


def test_every_base_fibre_and_binder_behaves():
    for ingredient in LIBRARY:
        if ingredient.role in ("base", "fibre", "binder"):
            known = set(ingredient.behaviour)
            assert known, ingredient.id
            assert known <= set(BEHAVIOURS)


@pytest.mark.parametrize(
    ("typed", "first"),
    [
        ("psy", "psyllium"),
        ("moz", "mozzarella"),
        ("alm fl", "almond-flour"),
        ("courgette", "zucchini"),
        ("bicarb", "baking-soda"),
    ],
)
def test_a_few_letters_find_names_and_aliases(typed, first):
    assert LIBRARY.names.search(typed)[0].startswith(first)


@pytest.mark.parametrize(
    ("text", "ingredient", "sure"),
    [
        ("superfine blanched almond flour", "almond-flour", True),
        ("shredded low moisture mozzarella cheese", "mozzarella", True),
        ("cream cheese, softened", "cream-cheese", True),
        ("fig butter", "butter", False),
        ("grape sugar", "sugar", False),
        ("3 large eggs, beaten", "egg", True),
        ("Crème fraîche", "sour-cream", True),
    ],
)
def test_a_name_is_taken_only_when_the_other_words_describe_it(text, ingredient, sure):
    match = LIBRARY.names.find(text)
    assert (match.ingredient, match.sure) == (ingredient, sure)
