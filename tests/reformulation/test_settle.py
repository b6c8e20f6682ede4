"""Settle: it comes back from a disturbance, keeps its rails, says what clashes, and answers the same wish the same."""

import random
from dataclasses import replace

import numpy as np
import pytest

from substrata import Settings
from substrata.base.errors import FormulaError
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import figures
from substrata.formula.form_table import Window
from substrata.formula.formula import Target
from substrata.reformulation.balancing import balance
from substrata.reformulation.infeasibility import feasible, irreducible, limits_of
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import check_by_model, rails_broken
from substrata.reformulation.program.linear_rows import rows_at
from substrata.reformulation.program.linearisation import slopes_at
from substrata.reformulation.program.successive_linearisation import search
from substrata.reformulation.request.balance_request import Wish
from substrata.reformulation.request.guard_limits import guard_limits
from tests.reformulation.conftest import DEMO, HOUSE, LIBRARY, but, made, searched, values, weights
from tests.support.planted_changes import disturbed, plain_cost

ROLLS, TWISTS, COINS = DEMO["Market rolls, egg-free"], DEMO["Mustard twists"], DEMO["Lemon shortbread coins"]
CRUST, LOAF = DEMO["Gouda-melt crust"], DEMO["Pumpkin tin loaf"]


def asked(formula, key, **bounds):
    return balance(formula, LIBRARY, Settings(), Wish(targets={key: Window(**bounds)}), ways=1)


def test_it_comes_back_from_planted_disturbances(balanced):
    """Some lines of formulas in balance moved by 10 to 60 %, red cases only (``benchmarks/planted.py`` runs 200)."""
    rng, red, dearer = random.Random(5), 0, 0
    names = sorted(balanced)
    while red < 25:
        formula = balanced[rng.choice(names)]
        draft = disturbed(formula, BalanceProblem(formula, LIBRARY, Settings(), Wish()), rng, most=0.6)
        problem = BalanceProblem(draft, LIBRARY, Settings(), Wish(), saved=formula)
        start = check_by_model(problem, problem.start)
        if not start.missed or start.figures is None:
            continue
        red += 1
        found = search(problem, start=start)
        planted = np.array([slot.reference_g for slot in problem.slots])
        assert found.met, (formula.name, start.missed, found.verdict.missed)
        assert not rails_broken(rows_at(problem, found.verdict.grams, None), found.verdict.grams)
        mass = found.verdict.figures.dough_g / problem.reference.batch.dough_g
        assert 0.97 - 1e-6 <= mass <= 1.03 + 1e-6
        dearer += plain_cost(problem, found.verdict.grams) > 1.001 * plain_cost(problem, planted)
    assert dearer <= 1


@pytest.mark.parametrize("name", DEMO)
def test_what_is_told_is_the_full_model_on_the_written_formula(name):
    formula = DEMO[name]
    answer = asked(formula, "net_carbs", high=0.9 * values(formula)["net_carbs"])
    for way in answer.ways:
        after = figures(Dough(way.formula, LIBRARY))
        for moved in way.brackets:
            assert moved.after == pytest.approx(after.values[moved.key]), moved.key
        assert way.handling.after == after.class_name
        told = {line.id: line.grams for line in way.formula.lines}
        assert {c.line: c.after for c in way.changes if c.after} == {
            k: told[k] for k in (c.line for c in way.changes if c.after)
        }
        assert not {c.line for c in way.changes if not c.after} & set(told)


CRACKERS, BREAD = DEMO["Hazelnut caraway crackers"], DEMO["Four-seed crispbread"]
EGGY = made("bun", 10, almond_flour=330, psyllium_powder=50, egg=100, water=330, salt=9, baking_powder=18)
SODA = made(almond_flour=150, psyllium_powder=20, egg=150, water=150, salt=4, baking_soda=4, cider_vinegar=80)


def at_most(formula, key, share):
    return Wish(targets={key: Window(high=share * values(formula)[key])})


def at_least(formula, key, share):
    return Wish(targets={key: Window(low=share * values(formula)[key])})


CHEATS = [
    ("mass", CRACKERS, at_most(CRACKERS, "net_carbs", 0.9)),
    ("protein", CRACKERS, at_most(CRACKERS, "net_carbs", 0.8)),
    ("identity", CRACKERS, at_most(CRACKERS, "net_carbs", 0.7)),
    ("cheese", CRACKERS, at_most(CRACKERS, "net_carbs", 0.7)),
    ("fat", CRACKERS, at_most(CRACKERS, "net_carbs", 0.7)),
    ("heat_set", CRACKERS, at_most(CRACKERS, "net_carbs", 0.7)),
    ("sweetness", COINS, at_most(COINS, "net_carbs", 0.7)),
    ("solid_fat", COINS, at_most(COINS, "energy", 0.9)),
    ("egg", EGGY, at_least(EGGY, "protein", 1.12).with_changes(may_bring=False, released=frozenset({"soft:texture"}))),
    ("soda", SODA, Wish(without_lines=("cider-vinegar",))),
    ("soft:water_fill", CRACKERS, at_most(CRACKERS, "net_carbs", 0.9)),
    ("soft:binder_load", CRACKERS, at_most(CRACKERS, "net_carbs", 0.8)),
    ("soft:texture", COINS, at_most(COINS, "net_carbs", 0.75)),
    ("soft:salt", CRACKERS, at_least(CRACKERS, "fat", 1.15)),
    ("soft:heat_set", BREAD, at_least(BREAD, "protein", 1.15)),
    ("soft:handling", BREAD, at_least(BREAD, "protein", 1.3)),
    ("soft:added_fat", BREAD, at_least(BREAD, "fat", 1.15)),
    ("soft:fat", CRUST, at_most(CRUST, "net_carbs", 0.75)),
    ("soft:lift", CRUST, at_most(CRUST, "net_carbs", 0.8)),
]


@pytest.mark.parametrize(("rail", "formula", "wish"), CHEATS, ids=[rail for rail, _, _ in CHEATS])
def test_without_its_rail_the_solver_cheats(rail, formula, wish):
    """Each rail has a formula on which the solver breaks it when it is let go; a soft one is paid for and passed less far."""
    problem, kept = searched(formula, wish)
    free = wish.with_changes(released=wish.released | {rail, f"soft:{rail}"}, may_change_mass=rail == "mass")
    _, cheat = searched(formula, free)

    def passed(answer):
        rows = rows_at(problem, answer.verdict.grams, slopes_at(problem, answer.verdict.grams, present=None))
        own = [r for r in rows if r.key in (rail, f"rail:{rail}") or r.key.startswith((f"{rail}:", f"rail:{rail}:"))]
        return max(row.over(answer.verdict.grams) for row in own)

    assert passed(cheat) > 0.03
    assert passed(kept) <= (1e-4 if not rail.startswith("soft") else 0.85 * passed(cheat))


def test_butter_is_replaced_by_as_much_firm_fat():
    """Without its rails a shortbread's butter becomes a third of it in oil, and nobody could bake that."""
    problem, kept = searched(COINS, Wish(without=("dairy",)))
    assert weights(problem, kept.verdict)["coconut-oil"] >= 0.85 * 0.81 * 90
    loose = frozenset({"fat_follows", "fat", "soft:fat", "soft:added_fat", "soft:texture"})
    problem, cheat = searched(COINS, Wish(without=("dairy",), released=loose))
    told = weights(problem, cheat.verdict)
    assert told.get("coconut-oil", 0) + told.get("olive-oil", 0) < 55


def test_more_butter_than_a_dough_can_hold_is_mended_and_not_left():
    rich = but(HOUSE["cookie-almond"], butter=230)
    assert "rail:greasy" in searched(rich)[1].verdict.missed or weights(*_answer(rich))["butter"] < 230
    _, left = searched(rich, Wish(released=frozenset({"greasy"})))
    assert "rail:greasy" not in left.verdict.missed


def _answer(formula):
    problem, found = searched(formula)
    return problem, found.verdict


def test_nothing_comes_in_that_somebody_may_not_eat():
    """A vegan roll wished richer in protein gets no whey and no egg white, by whatever way."""
    answer = balance(ROLLS, LIBRARY, Settings(), Wish(targets={"protein": Window(low=1.25 * values(ROLLS)["protein"])}))
    assert answer.status == "settled"
    for way in answer.ways:
        flags = set().union(*(LIBRARY[line.ingredient].flags for line in way.formula.lines))
        assert not flags & {"milk", "egg", "soy", "lupin", "peanut"}
        assert not way.cautions


def test_an_egg_batter_without_egg_and_a_cheese_dough_without_cheese_are_other_breads():
    for formula, without in ((LOAF, "egg"), (CRUST, "dairy"), (ROLLS, "psyllium")):
        answer = balance(formula, LIBRARY, Settings(), Wish(without=(without,)))
        assert answer.status == "begin"
        assert "start from another formula" in answer.text
        assert not answer.ways


def test_the_swaps_of_the_study_in_kind():
    """A nut-free crust keeps its handling on sunflower or coconut; more protein in vegan rolls is pea, and less coconut or more water."""
    crust = but(HOUSE["thin-cheese"], almond_flour=84, mozzarella=200)
    answer = balance(crust, LIBRARY, Settings(), Wish(without=("tree-nut",)))
    way = answer.ways[0]
    grams = {line.ingredient: line.grams for line in way.formula.lines}
    assert "almond-flour" not in grams
    assert grams.get("sunflower-flour", 0) + grams.get("coconut-flour", 0) >= 25
    assert abs(way.handling.consistency_after - way.handling.consistency_before) < 0.38
    assert any("nuts" in text for text in way.lost)
    richer = asked(ROLLS, "protein", low=1.15 * values(ROLLS)["protein"])
    pea = next(c for c in richer.ways[0].changes if c.ingredient == "pea-protein")
    assert pea.after > pea.before


def test_coconut_in_place_of_almond_lands_on_a_school_and_says_so():
    crust = but(HOUSE["thin-cheese"], almond_flour=84, mozzarella=200)
    wish = Wish(without=("tree-nut", "seed"))
    told = [
        text for way in balance(crust, LIBRARY, Settings(), wish).ways for text in way.lost if "common rule" in text
    ]
    assert told
    ratio = float(str(told[0]).split("flour is ")[1].split(" :")[0])
    assert 1.5 <= ratio <= 5


def test_what_cannot_be_met_names_a_clash_and_what_would_do():
    answer = asked(ROLLS, "net_carbs", high=1.2)
    assert answer.status == "nearest"
    assert "net carbs" in answer.nearest
    relax = next(r for r in answer.clash if r.key == "net_carbs")
    assert relax.enough
    assert relax.high > 1.2
    again = asked(ROLLS, "net_carbs", high=relax.high * 1.03)
    assert again.status == "settled"


def test_a_clash_is_irreducible():
    """Fifty planted clashes: with all of its limits nothing is feasible, and without any one of them something is."""
    rng, seen = random.Random(2), 0
    names = sorted(DEMO)
    while seen < 50:
        formula = DEMO[rng.choice(names)]
        now = values(formula)
        wish = Wish(
            targets={
                "net_carbs": Window(high=now["net_carbs"] * rng.uniform(0.3, 0.7)),
                "protein": Window(low=now["protein"] * rng.uniform(1.1, 1.6)),
            }
        )
        problem = BalanceProblem(formula, LIBRARY, Settings(), wish)
        limits = limits_of(rows_at(problem, problem.start, slopes_at(problem, problem.start, present=None)))
        clash = irreducible(problem, limits)
        if not clash:
            continue
        seen += 1
        assert not feasible(problem, clash)
        for limit in clash:
            assert feasible(problem, [other for other in clash if other is not limit]), [c.key for c in clash]


def test_the_same_wish_has_the_same_answer_whatever_the_order_of_the_lines():
    wish = Wish(targets={"net_carbs": Window(high=2.2)})
    first = balance(TWISTS, LIBRARY, Settings(), wish)
    assert balance(TWISTS, LIBRARY, Settings(), wish) == first
    shuffled = replace(TWISTS, lines=tuple(reversed(TWISTS.lines)))
    other = balance(shuffled, LIBRARY, Settings(), wish)
    assert [sorted(str(c.text) for c in way.changes) for way in other.ways] == [
        sorted(str(c.text) for c in way.changes) for way in first.ways
    ]


def test_twice_the_dough_in_twice_the_steps_is_twice_the_answer(monkeypatch):
    wish = Wish(targets={"protein": Window(low=1.15 * values(TWISTS)["protein"])}, released=frozenset({"egg"}))
    _, once = searched(TWISTS, wish)
    double = replace(
        TWISTS, pieces=2 * TWISTS.pieces, lines=tuple(replace(x, grams=2 * x.grams, entered="") for x in TWISTS.lines)
    )
    from substrata.reformulation.program import balance_problem as problem
    from substrata.reformulation.program import milp as program

    plain = problem.step_of
    monkeypatch.setattr(problem, "step_of", lambda *a, **k: replace(plain(*a, **k), grams=2 * plain(*a, **k).grams))
    monkeypatch.setattr(program, "TOUCHED", 2 * program.TOUCHED)
    monkeypatch.setattr(
        program.Ask.__init__, "__kwdefaults__", program.Ask.__init__.__kwdefaults__ | {"new_price": 16.0}
    )
    _, twice = searched(double, wish)
    assert twice.verdict.grams == pytest.approx(2 * once.verdict.grams)


def test_surer_means_further_inside_and_says_how_sure():
    now = values(ROLLS)["net_carbs"]
    plain = asked(ROLLS, "net_carbs", high=0.9 * now)
    wish = Wish(targets={"net_carbs": Window(high=0.9 * now)}, margin=0.5)
    surer = balance(ROLLS, LIBRARY, Settings(), wish, ways=1)
    chances = [answer.ways[0].sure[0].probability for answer in (plain, surer)]
    assert 0.45 < chances[0] < chances[1]
    assert surer.ways[0].cost > plain.ways[0].cost
    assert "Add the label of your own" in plain.surer


@pytest.mark.parametrize(
    ("wish", "field"),
    [
        (Wish(targets={"net_carbs": Window(low=3, high=2)}), "targets.net_carbs"), (Wish(targets={"luck": Window(high=1)}), "targets"),
        (Wish(without=("gluten",)), "without"), (Wish(handling="runny"), "handling"), (Wish(texture={"nice": Window(low=7)}), "texture"),
    ],
)  # fmt: skip
def test_a_wish_that_cannot_be_meant_is_refused_with_its_field(wish, field):
    with pytest.raises(FormulaError) as refusal:
        balance(ROLLS, LIBRARY, Settings(), wish)
    assert refusal.value.field == field
    assert refusal.value.remedy


def test_where_there_is_nothing_to_settle_it_says_why():
    locked = replace(ROLLS, lines=tuple(replace(line, locked=True) for line in ROLLS.lines))
    assert "locked" in asked(locked, "net_carbs", high=2).text
    assert balance(made(), LIBRARY).status == "nothing"
    assert balance(made(water=100), LIBRARY).status == "nothing"
    assert balance(TWISTS, LIBRARY).status == "fits"
    with pytest.raises(FormulaError, match="too many ingredients"):
        balance(replace(ROLLS, lines=tuple(replace(ROLLS.lines[0], id=f"x{n}") for n in range(61))), LIBRARY)


def test_leaving_out_the_only_flour_with_nothing_to_take_its_place_is_a_beginning():
    alone = made("rope", 8, mozzarella=150, almond_flour=140, egg=50, psyllium_powder=9, salt=2)
    wish = Wish(without=("tree-nut", "coconut", "seed"))
    answer = balance(alone, LIBRARY, Settings(), wish)
    assert answer.status == "begin"
    assert "no flour" in answer.text


def test_targets_per_100_g_and_of_cheese_and_sodium_are_met():
    for key, high in (("net_carbs_100g", 4.0), ("sodium", 300.0), ("cheese", 15.0)):
        answer = asked(TWISTS, key, high=high)
        assert answer.status == "settled", key
        after = Dough(replace(answer.ways[0].formula, targets={key: Target(high=high)}), LIBRARY)
        assert after.batch.dough_g > 0


def test_every_rail_is_told_in_words():
    assert all(rail.text for rail in guard_limits().values())
