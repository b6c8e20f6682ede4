"""Amounts, spread and wording around the figures."""

import pytest

from substrata import Settings, analyse, load_library, read_document
from substrata.formula.batch.rounding_steps import kitchen_step, to_the_scale
from tests.support.doughs import document

LIBRARY = load_library()


def test_a_serving_is_its_pieces_and_100_g_are_100_g():
    made = document("cracker", 30, almond_flour=224, egg=50, salt=3)
    made["form"]["serving_pieces"] = 5
    facts = analyse(read_document(made), LIBRARY).nutrition
    assert facts.serving.protein.value == pytest.approx(5 * facts.piece.protein.value)
    assert facts.dough_100g.protein.value == pytest.approx(facts.piece.protein.value * 30 / 2.77)
    assert facts.baked_100g.grams.value == facts.dough_100g.grams.value == 100


def test_baking_off_water_concentrates_by_the_loss_and_widens_the_range(judged):
    """A thin crust loses 15 to 30 % (common practice)."""
    analysis = judged("thin-crust", almond_flour=150, egg=100)
    facts, left = analysis.nutrition, 1 - analysis.baked.loss.value
    assert 0.65 < left < 0.9
    assert facts.baked_100g.fat.value == pytest.approx(facts.dough_100g.fat.value / left)
    baked, dough = facts.baked_100g.fat, facts.dough_100g.fat
    assert (baked.high - baked.low) / baked.value > (dough.high - dough.low) / dough.value
    assert facts.piece.grams.value == pytest.approx(250 * left / 6)


def test_a_flour_by_the_cup_is_less_sure_than_by_the_scale():
    made = document(almond_flour=106, egg=50)
    by_scale = analyse(read_document(made), LIBRARY).lines[0]
    made["lines"][0]["entered"] = "1 cup"
    by_cup = analyse(read_document(made), LIBRARY).lines[0]
    assert by_cup.grams == by_scale.grams
    assert by_cup.grams_high - by_cup.grams_low > 4 * (by_scale.grams_high - by_scale.grams_low)


def test_bakers_percentages_make_the_dry_base_a_hundred(judged):
    lines = {
        line.id: line.bakers_percent
        for line in judged(almond_flour=150, psyllium_powder=25, oat_fibre=25, egg=100, water=80).lines
    }
    assert lines["almond-flour"] + lines["psyllium-powder"] + lines["oat-fibre"] == pytest.approx(100)
    assert lines["egg"] == pytest.approx(50)


def test_a_role_given_by_hand_counts_instead_of_the_usual_one():
    made = document(almond_flour=150, parmesan=50, egg=50)
    made["lines"][1]["role"] = "base"
    found = analyse(read_document(made), LIBRARY)
    assert found.totals.dry_base_g == 200
    assert found.lines[1].code == "Ba"


@pytest.mark.parametrize(
    ("key", "grams", "step"),
    [("egg", 100, 50), ("egg-white", 66, 33), ("psyllium-powder", 20, 0.5), ("almond-flour", 200, 5), ("water", 20, 1)],
)
def test_arrow_keys_step_as_a_kitchen_does(key, grams, step):
    assert kitchen_step(LIBRARY[key], grams, Settings()) == step


@pytest.mark.parametrize(
    ("grams", "shown"), [(0.04, 0.0), (4.26, 4.3), (19.96, 20.0), (41.3, 41.5), (126.4, 126.0), (-3.26, -3.3)]
)
def test_weights_are_rounded_to_what_a_scale_shows(grams, shown):
    assert to_the_scale(grams) == shown


def test_the_largest_doubt_is_named_with_its_line(judged):
    found = next(w for w in judged(coconut_flour=100, egg=100, water=150).warnings if w.code == "largest-doubt")
    assert found.lines == ("coconut-flour",)


def test_warnings_to_act_on_come_first_and_cautions_last(judged):
    order = [
        w.severity
        for w in judged("bun", almond_flour=100, psyllium_powder=30, egg=50, baking_soda=3, water=200).warnings
    ]
    assert order == sorted(order, key=["act", "note", "caution"].index)
    assert {"act", "caution"} <= set(order)


def test_a_water_fill_tells_who_brings_and_who_drinks(judged, bracket):
    found = {
        c.line: c
        for c in bracket(judged(almond_flour=150, psyllium_powder=20, egg=50, water=150), "water_fill").contributions
    }
    assert found["water"].share > 0.7
    assert found["water"].against == 0
    assert found["psyllium-powder"].share == 0
    assert found["psyllium-powder"].against > 0.5
    assert sum(c.against for c in found.values()) == pytest.approx(1)


@pytest.mark.parametrize("convention", ["us", "eu", "total"])
def test_a_figure_never_stands_without_its_convention(convention):
    found = analyse(read_document(document(almond_flour=100)), LIBRARY, Settings(convention=convention))
    assert found.basis.convention == convention
    assert found.basis.convention_rule
    by_name = getattr(found.nutrition, f"net_carbs_{convention}").value
    assert found.nutrition.piece.net_carbs.value == pytest.approx(by_name)


def test_a_piece_with_the_carbohydrate_of_a_slice_of_wheat_bread_is_not_called_low_carb(judged):
    """A slice of wheat bread of 28 g has 13 g of net carbohydrate (USDA SR28 18064)."""

    def said(**lines):
        return [str(w.text) for w in judged("bun", **lines).warnings if w.code == "not-low-carb"]

    assert said(chickpea_flour=300, egg=100)
    assert "chickpea" in said(chickpea_flour=300, egg=100)[0]
    assert not said(almond_flour=200, egg=150)
