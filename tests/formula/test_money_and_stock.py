"""Cost, cheaper packs, daily budgets, hidden amounts, stock, side by side."""

from dataclasses import replace
from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import Settings, analyse, load_library, read_document
from substrata.base.settings import Eater
from substrata.formula.batch.cheaper_packs import cheaper_packs, equivalent
from substrata.formula.batch.weighed_lines import weigh_formula
from substrata.ingredients.labels.pack_reading import ingredient_of_lot
from substrata.ingredients.pack import Lot
from substrata.ingredients.printed_label import Label
from substrata.ingredients.stock import Need, StockedLot, allocate
from substrata.nutrition.ingredient_comparison import compare
from tests.support.doughs import document

LIBRARY = load_library()
ON = date(2027, 3, 1)


def pack(key, ingredient, price=None, grams=1000.0, **facts):
    lot = Lot(key=key, ingredient=ingredient, name=key, price=price, pack_g=grams)
    return ingredient_of_lot(replace(lot, **facts), LIBRARY[ingredient])


def judged(packs, pieces=4, settings=None, **lines):
    made = document("bun", pieces, **lines)
    by_ingredient = {p.id: p.key for p in packs}
    made["lines"] = [line | {"lot": by_ingredient.get(line["ingredient"], "")} for line in made["lines"]]
    return analyse(read_document(made), LIBRARY.with_packs(packs), settings or Settings())


def test_cost_by_hand():
    """200 g at 10 a kilogram and 100 g at 5, a fifth of which is peeled off, for four pieces."""
    found = judged(
        [pack("a", "almond-flour", 10), pack("c", "celeriac", 5, usable=0.8)], almond_flour=200, celeriac=100, salt=4
    ).cost
    assert found.batch == pytest.approx(2.0 + 0.5 / 0.8)
    assert found.piece == pytest.approx(found.batch / 4)
    assert found.dough_100g == pytest.approx(100 * found.batch / 304)
    assert found.unpriced == ("salt",)
    assert [line.line for line in found.lines][:2] == ["almond-flour", "celeriac"]


def test_the_cost_bracket_appears_with_the_first_price_and_takes_a_target(bracket):
    lines = {"almond_flour": 200, "egg": 100}
    assert "cost" not in [b.key for b in judged([], **lines).brackets]
    shown = bracket(judged([pack("a", "almond-flour", 10)], settings=Settings(currency="EUR"), **lines), "cost")
    assert (shown.unit, shown.state) == ("EUR per piece", "open")
    assert shown.estimate.value == pytest.approx(0.5)
    assert shown.note == "counts 1 of 2 ingredients: the others have no price"
    whole = bracket(judged([pack("a", "almond-flour", 10), pack("e", "egg", 4)], **lines), "cost")
    assert "counts" not in whole.note


def test_water_from_the_tap_costs_nothing_and_is_no_gap():
    assert judged([pack("a", "almond-flour", 10)], almond_flour=100, water=100).cost.priced_share == 1.0


def batch_of(*packs, **lines):
    made = document("bun", 4, **lines)
    made["lines"] = [line | {"lot": packs[0].key} for line in made["lines"]]
    return weigh_formula(read_document(made), LIBRARY.with_packs(packs), Settings())[0]


def test_a_cheaper_pack_of_the_same_food_is_offered_with_what_it_saves():
    dear, cheap, dearer = (pack(k, "almond-flour", p) for k, p in (("dear", 20), ("cheap", 10), ("dearer", 30)))
    (offer,) = cheaper_packs(batch_of(dear, almond_flour=400), [dear, dearer, cheap], 4, "EUR")
    assert (offer.lot, offer.same_ingredient) == ("cheap", True)
    assert offer.saves_a_piece == pytest.approx(1.0)


def test_an_offer_brings_no_new_allergen_and_does_the_same_work():
    almond = pack("a", "almond-flour", 20)
    assert not equivalent(almond, pack("h", "hazelnut-meal", 1))
    assert not equivalent(almond, pack("c", "coconut-flour", 1))
    assert not equivalent(pack("n", "almond-flour", 9), pack("m", "almond-flour", 1, contains=frozenset({"milk"})))
    assert equivalent(almond, pack("b", "almond-flour", 1))


def test_pieces_that_fit_a_day_by_hand():
    eater = Eater(name="Ada", budgets={"cheese": 100.0, "net_carbs": 1000.0})
    fit = judged([], settings=Settings(eaters=(eater,)), mozzarella=120, almond_flour=100).eaters[0]
    assert (fit.pieces, fit.limit) == (3, "Cheese")  # 30 g of cheese a piece
    assert "Cheese".lower() in fit.text


def test_a_budget_is_kept_for_sure_only_at_the_top_of_the_range():
    eater = Eater(name="Ada", budgets={"net_carbs": 20.0})
    fit = judged([], settings=Settings(eaters=(eater,)), coconut_flour=100, egg=100).eaters[0]
    assert fit.pieces_for_sure <= fit.pieces


def test_what_is_not_there_stops_nobody():
    fit = judged([], settings=Settings(eaters=(Eater(name="A", budgets={"cream": 30.0}),)), almond_flour=50).eaters[0]
    assert "no limit applies" in fit.text


ZERO = Label(style="us", per_g=5, per_digit_g=0.0, figures={"carbohydrate_g": "0", "fat_g": "<1", "protein_g": "2"})


def test_hidden_amounts_by_hand():
    """40 g of a pack that prints 0 g in 5 g: up to 4 g in the dough, 1 g in each of four pieces."""
    found = {h.figure: h for h in judged([pack("x", "xanthan", label=ZERO)], xanthan=40, egg=50).hidden}
    assert found["carbohydrate_g"].most_a_piece == pytest.approx(1.0)
    assert found["fat_g"].most_a_piece == pytest.approx(2.0)  # "<1" in 5 g: up to 20 g per 100 g
    assert "protein_g" not in found


def test_hidden_carbohydrate_is_told_as_a_warning():
    codes = [w.code for w in judged([pack("x", "xanthan", label=ZERO)], xanthan=40, egg=50).warnings]
    assert "hidden-carbs" in codes


STOCK = [
    StockedLot(key="late", ingredient="egg", on_hand_g=500, reserved_g=0, use_by=date(2027, 5, 1)),
    StockedLot(key="soon", ingredient="egg", on_hand_g=100, reserved_g=20, use_by=date(2027, 3, 5)),
    StockedLot(key="gone", ingredient="egg", on_hand_g=300, reserved_g=0, use_by=date(2027, 2, 1)),
    StockedLot(key="none", ingredient="egg", on_hand_g=300, reserved_g=0, use_by=None),
]


def test_first_in_first_out_and_never_past_its_date():
    found = allocate([Need(line="e", ingredient="egg", grams=200)], STOCK, ON)
    assert [(p.lot, p.grams) for p in found.picks] == [("soon", 80), ("late", 120)]
    assert found.expired == ("gone",)


def test_the_pack_a_line_names_goes_first_even_when_others_ask_earlier():
    needs = [Need(line="a", ingredient="egg", grams=300), Need(line="b", ingredient="egg", grams=80, lot="soon")]
    picks = {(p.line, p.lot): p.grams for p in allocate(needs, STOCK, ON).picks}
    assert picks["b", "soon"] == 80
    assert ("a", "soon") not in picks


def test_what_is_peeled_off_is_taken_too_and_water_needs_no_pack():
    lots = [StockedLot(key="k", ingredient="celeriac", on_hand_g=1000, reserved_g=0, usable=0.5)]
    found = allocate(
        [Need(line="c", ingredient="celeriac", grams=200), Need(line="w", ingredient="water", grams=99)], lots, ON
    )
    assert [p.grams for p in found.picks] == [400]
    assert found.shortages == ()


@given(
    st.lists(st.tuples(st.sampled_from("ab"), st.floats(0.1, 500)), max_size=6),
    st.lists(st.tuples(st.sampled_from("ab"), st.floats(0, 400), st.floats(0, 300), st.floats(0.2, 1)), max_size=6),
)
def test_stock_is_conserved(needs, lots):
    """What is picked and what is missing add up to the need, and no pack gives more than is free."""
    wanted = [Need(line=str(i), ingredient=k, grams=g) for i, (k, g) in enumerate(needs)]
    stocked = [
        StockedLot(key=str(i), ingredient=k, on_hand_g=h, reserved_g=r, usable=u) for i, (k, h, r, u) in enumerate(lots)
    ]
    found = allocate(wanted, stocked, ON)
    usable = {lot.key: lot.usable for lot in stocked}
    for need in wanted:
        got = sum(p.grams * usable[p.lot] for p in found.picks if p.line == need.line)
        missing = sum(s.grams for s in found.shortages if s.line == need.line)
        assert got + missing == pytest.approx(need.grams, abs=1e-5)
    for lot in stocked:
        assert sum(p.grams for p in found.picks if p.lot == lot.key) <= lot.free_g + 1e-9


def test_side_by_side_layers_make_a_hundred_grams():
    for seen in compare([i.id for i in LIBRARY], LIBRARY, Settings()):
        assert sum(layer.grams for layer in seen.layers) == pytest.approx(100, abs=2.5), seen.key


def test_the_price_of_a_function_by_hand():
    library = LIBRARY.with_packs([pack("p", "psyllium-powder", 20)])
    (seen,) = compare(["p"], library, Settings())
    assert seen.price_100g == pytest.approx(2.0)
    assert seen.function_price.water_100g == pytest.approx(100 * 0.02 / seen.capacity.value)
    assert seen.function_price.egg_equivalent == pytest.approx(0.02 / (seen.binding.value / 100))
    assert seen.function_price.protein_100g is None  # nobody buys it for its protein
