import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata.base.amounts import LONGEST_AMOUNT, parse_amount, split_amount
from substrata.base.errors import AmountError


@pytest.mark.parametrize(
    ("text", "terms"),
    [
        ("1 1/2 cup", [(1.5, "cup")]),
        ("1½ c.", [(1.5, "cup")]),
        ("2 T", [(2, "tbsp")]),
        ("2 t", [(2, "tsp")]),
        ("3/4 cup plus 2 tablespoons", [(0.75, "cup"), (2, "tbsp")]),
        ("2 lg eggs + 2 whites", [(2, "egg"), (2, "white")]),
        ("1 (8 oz) pkg", [(8, "oz")]),
        ("2 (200 g) packs", [(400, "g")]),
        ("2-3 tbsp", [(2.5, "tbsp")]),
        ("1 to 2 cups", [(1.5, "cup")]),
        ("100 ml", [(100, "ml")]),
        ("a pinch", [(1, "pinch")]),
        ("pinch", [(1, "pinch")]),
        ("½ tsp + ⅛ tsp", [(0.5, "tsp"), (0.125, "tsp")]),
        ("4 oz.", [(4, "oz")]),
        ("2 fl. oz", [(2, "fl-oz")]),
        ("1,5 dl", [(1.5, "dl")]),
        ("0,125 l", [(0.125, "l")]),
        ("1,250 g", [(1250, "g")]),
        (".5 cup", [(0.5, "cup")]),
        ("1-1/2 cups", [(1.5, "cup")]),
        ("half a cup", [(0.5, "cup")]),
        ("1 cup (112 g)", [(112, "g")]),
        ("112 g (1 cup)", [(112, "g")]),
        ("3", [(3, "")]),
    ],
)
def test_amounts_are_read_as_bakers_write_them(text, terms):
    assert [(t.number, t.unit) for t in parse_amount(text).terms] == terms


@pytest.mark.parametrize(
    ("text", "size"), [("2 lg eggs", "large"), ("2 extra large eggs", "xl"), ("2 L eggs", "l"), ("3 medium", "medium")]
)
def test_a_size_before_an_egg_is_kept(text, size):
    assert parse_amount(text).terms[0].size == size


def test_two_litres_are_not_two_large():
    assert parse_amount("2 l").terms[0].unit == "l"


def test_a_range_is_wider_than_its_middle_and_heaping_wider_than_level():
    span = parse_amount("2-3 tbsp").terms[0]
    assert (span.low, span.high) == (2, 3)
    assert parse_amount("1 heaping tbsp").terms[0].number > parse_amount("1 level tbsp").terms[0].number


@pytest.mark.parametrize(
    ("text", "rest"),
    [
        ("1½ c. almond flour, sifted", "almond flour, sifted"),
        ("2 lg eggs + 2 whites, at room temperature", "at room temperature"),
        ("100 g almond flour and a little love", "almond flour and a little love"),
        ("1 cup (about a hand full) almonds", "(about a hand full) almonds"),
    ],
)
def test_what_is_no_amount_is_handed_back(text, rest):
    assert split_amount(text).rest == rest


@pytest.mark.parametrize(
    "text", ["", "salt", "some flour", "1/0 cup", "9999999999 g", "1 cup almond", "x" * (LONGEST_AMOUNT + 1), "½/½"]
)
def test_an_unreadable_amount_says_what_is_allowed(text):
    with pytest.raises(AmountError) as refusal:
        parse_amount(text)
    assert refusal.value.allowed
    assert refusal.value.field == "entered"


@given(st.text(max_size=80))
def test_the_parser_raises_nothing_but_its_own_error(text):
    try:
        amount = split_amount(text)
    except AmountError:
        return
    assert amount.terms
    assert all(0 <= t.low <= t.number <= t.high for t in amount.terms)


_NUMBERS = st.sampled_from(["1", "2", "½", "1 1/2", "2-3", "0.25", "1,5", ".5", "a", "two"])
_UNITS = st.sampled_from(["cup", "c.", "T", "tsp", "g", "oz.", "lg eggs", "(8 oz) pkg", "ml", "pinch", "whites"])


@given(st.lists(st.tuples(_NUMBERS, _UNITS), min_size=1, max_size=3), st.sampled_from([" plus ", " + ", " and "]))
def test_every_term_of_a_written_sum_is_read(parts, joint):
    amount = parse_amount(joint.join(f"{number} {unit}" for number, unit in parts))
    assert len(amount.terms) == len(parts)
