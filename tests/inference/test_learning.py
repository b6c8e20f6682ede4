"""What runs teach: against closed forms from textbooks, in simulated kitchens, and with a bad log among good ones."""

from dataclasses import replace

import numpy as np
import pytest
from scipy import stats

from substrata.base.amounts import parse_amount
from substrata.base.settings import Settings
from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.evaluation.learned_biases import hand_bias
from substrata.execution.run_document import Done, Felt, Run, Verdict
from substrata.inference.as_made_forecast import as_done
from substrata.inference.bake_figures import PLACE
from substrata.inference.calibration.hands_block import handling_bias
from substrata.inference.calibration.learning import learn, lessons
from substrata.inference.calibration.oven_block import oven_of
from substrata.inference.calibration.palate_block import palate
from substrata.inference.calibration.robust_update import Residual, update, update_together
from substrata.ingredients.amount_to_grams import weigh
from substrata.process.baking.oven_profile import OvenProfile
from substrata.process.baking.oven_questions import coarse
from tests.inference.conftest import DEMO, LIBRARY, demo, run_of
from tests.support.simulated_kitchens import Kitchen, Tally

ROLLS, TWISTS, LOAF = "Market rolls, egg-free", "Mustard twists", "Pumpkin tin loaf"


def seen(run, off, slope=1.0, noise=1.0):
    return Residual(run=run, off=np.array([off]), slope=np.array([[slope]]), noise=np.array([noise]))


def test_one_reading_is_the_product_of_two_normals():
    # Gelman et al., Bayesian Data Analysis, 2.5: precisions add, the mean is weighed by them. A reading that fits is fully trusted.
    told = update(np.array([2.0]), [seen("a", 1.0, noise=1.0)])
    assert told.trust["a"] == 1.0
    assert told.mean[0] == pytest.approx(1.0 * 1 / (1 + 1 / 4))
    assert told.sd[0] ** 2 == pytest.approx(1 / (1 + 1 / 4))


def test_many_readings_are_ridge_regression():
    # Hoerl & Kennard (1970): the posterior mean is (X'X + Λ)⁻¹X'y; with readings that all fit no weight is taken off.
    rng = np.random.default_rng(4)
    slope, theta = rng.normal(size=(12, 3)), np.array([0.4, -0.2, 0.1])
    y = slope @ theta + rng.normal(size=12) * 0.05
    runs = [Residual(run=str(n), off=y[n : n + 1], slope=slope[n : n + 1], noise=np.array([1.0])) for n in range(12)]
    told = update(np.array([1.0, 1.0, 1.0]), runs)
    assert told.mean == pytest.approx(np.linalg.solve(slope.T @ slope + np.eye(3), slope.T @ y))


def test_one_absurd_reading_among_six_hardly_counts():
    good = [seen(str(n), 1.0 + 0.2 * n, noise=0.5) for n in range(5)]
    plain = update(np.array([2.0]), good).mean[0]
    told = update(np.array([2.0]), [*good, seen("bad", 14.0, noise=0.5)])
    assert told.trust["bad"] < 0.1
    assert abs(told.mean[0] - plain) < 0.2 * plain


def test_a_run_that_is_odd_in_one_is_odd_in_all():
    first = [seen(str(n), 0.5, noise=0.5) for n in range(5)] + [seen("bad", 12.0, noise=0.5)]
    second = [seen(str(n), -0.3, noise=0.5) for n in range(5)] + [seen("bad", 0.9, noise=0.5)]
    together = update_together([(np.array([1.0]), first), (np.array([1.0]), second)])
    assert together[1].trust["bad"] < update(np.array([1.0]), second).trust["bad"]


def logged(name, number, **done):
    return Run(formula=DEMO[name], id=str(number), done=Done(**done), verdict=Verdict(liked="good"))


def test_an_oven_that_dries_more_is_hot_and_one_that_dries_less_is_cool():
    for lost, sign in ((0.04, 1), (-0.04, -1)):
        base = as_done(demo(TWISTS), Done()).figures
        out = 1000 * (1 - float(base[PLACE["loss"]]) - lost)
        state = learn([logged(TWISTS, n, weight_in_g=1000, weight_out_g=out) for n in range(3)], LIBRARY)
        assert sign * oven_of(state).offset_k > 4
        assert oven_of(state).offset_sd < 12


def test_the_darkest_chip_stands_for_all_that_is_darker_still():
    """Left out, or taken for its own colour, the ovens that are furthest off would be learned last."""

    def taught(colour):
        runs = [replace(logged(TWISTS, n), verdict=Verdict(liked="good", colour=colour)) for n in range(3)]
        return learn(runs, LIBRARY).blocks["oven"]

    palest, right, dark, darkest = (taught(colour) for colour in (-2, 0, 1, 2))
    assert palest.mean[0] < -2
    assert abs(right.mean[0]) < 2
    assert darkest.mean[0] > dark.mean[0] + 2 > right.mean[0] + 4
    assert palest.mean[3] < right.mean[3] < dark.mean[3] < darkest.mean[3]


def test_a_probe_in_the_empty_oven_tells_it_directly():
    state = learn([logged(TWISTS, n, oven_c=177, probe_c=195) for n in range(2)], LIBRARY)
    assert oven_of(state).offset_k == pytest.approx(18, abs=3)
    assert state.value("oven.offset").trials == ("0", "1")


def test_a_bake_called_done_early_says_that_the_oven_is_hot_and_the_forecast_follows():
    plain = coarse(demo(ROLLS).case).ready

    def taught(share, count=3, **more):
        runs = [logged(ROLLS, n, minutes=plain * share, **more) for n in range(count)]
        return oven_of(learn(runs, LIBRARY))

    early, late = taught(0.75), taught(1.35)
    assert early.offset_k > 2 > -2 > late.offset_k
    followed = coarse(Dough(DEMO[ROLLS], LIBRARY, profile=early).case).ready
    assert plain * 0.75 < followed < plain, "part of it is the formula's own"
    assert taught(0.75, 40).offset_sd >= constant("oven_known_best_k")
    assert taught(0.75, 1).offset_k < early.offset_k, "the prior holds one bake back"


def test_an_offset_of_an_earlier_release_counts_as_a_thermometer_does():
    # Normal prior and one normal reading (Gelman et al. 2.5): precisions add.
    state = learn([], LIBRARY, offsets={"deck": [("bake-1", 10.0, 0.01)]})
    assert oven_of(state, "deck").offset_k == pytest.approx(10 * (1 / 25) / (1 / 25 + 1 / 144))


def test_another_altitude_is_another_boil_and_no_lesson():
    """The core of a bread in the mountains is cooler by what water boils cooler there: nothing of the oven."""
    high = Dough(DEMO[LOAF], LIBRARY, profile=OvenProfile(altitude_m=2400.0))
    core = float(as_done(high, Done()).figures[PLACE["core"]])
    runs = [replace(logged(LOAF, n, core_c=core), oven="deck") for n in range(3)]
    there = oven_of(learn(runs, LIBRARY, altitudes={"deck": 2400.0}), "deck").offset_k
    assert abs(there) < abs(oven_of(learn(runs, LIBRARY), "deck").offset_k)


def test_a_rename_keeps_what_was_learned_and_a_namesake_shares_nothing():
    mine, twin = replace(DEMO[ROLLS], uid="one"), replace(DEMO[ROLLS], uid="two")
    runs = [replace(logged(ROLLS, n, felt=(Felt(class_name="stiff"),)), formula=mine) for n in range(3)]
    told = Settings(lessons=lessons(learn(runs, LIBRARY)))
    stiffer = [hand_bias(told.lessons, one).stiffer for one in (mine, replace(mine, name="Another name"), twin)]
    assert stiffer[0] == stiffer[1] > stiffer[2]


def test_what_the_hand_feels_is_a_bias_and_no_capacity():
    stiff = [logged(ROLLS, n, felt=(Felt(class_name="stiff"),)) for n in range(3)]
    state = learn(stiff, LIBRARY)
    mine, other = handling_bias(state, DEMO[ROLLS]), handling_bias(state, DEMO[TWISTS])
    assert mine.value > other.value > 0
    assert mine.text == "from 3 of your own bakes"
    assert "other doughs" in other.text
    assert not any("capacity" in one.key for one in state.learned)
    assert handling_bias(learn([], LIBRARY), DEMO[ROLLS]).text == "built-in model"


def test_scores_teach_a_palate_for_other_formulas_too():
    runs = [run_of(name, number=str(n), scores={"chewy": 9.0}) for n, name in enumerate((ROLLS, TWISTS, ROLLS))]
    state = learn(runs, LIBRARY)
    whole = demo(LOAF).texture
    before = {score.key: score.value for score in whole.scores}
    told = palate(state, DEMO[LOAF], whole)
    assert told["chewy"].value > before["chewy"] + 0.3
    assert told["eggy"].value == before["eggy"]
    assert told["eggy"].text == "built-in model"


def test_the_end_of_the_scale_says_nothing_of_what_lies_beyond():
    # The tin loaf's egginess is forecast at the end of the scale, and a ten says just that.
    state = learn([run_of(LOAF, scores={"eggy": 10.0})], LIBRARY)
    assert abs(state.blocks["palate:eggy"].mean).max() < 0.05


def filled(number, grams, words="2 cups", batches=1.0):
    done = Done(grams={"almond-flour": grams / batches}, filled={"almond-flour": words})
    return replace(logged(ROLLS, number), done=done, batches=batches)


def test_a_cup_that_is_filled_and_weighed_is_known_here():
    """By hand (Gelman et al., 2.5): anybody's cup is within 8 % nine times in ten; three fillings of two cups, .05/sqrt(2) each."""
    state = learn([filled(n, 236.0) for n in range(3)], LIBRARY)
    prior, noise = 0.08 / 1.645, 0.05 / np.sqrt(2)
    share = 3 / noise**2 / (3 / noise**2 + 1 / prior**2)
    mine = state.value("measures.almond-flour")
    assert mine.posterior == pytest.approx(106 * (118 / 106) ** share, rel=0.01)
    assert str(mine.text).startswith("a cup of almond flour")
    assert "built-in value 106 g; from 3 trials" in mine.text

    own = Settings(lessons=lessons(state))
    almond, coconut = LIBRARY["almond-flour"], LIBRARY["coconut-flour"]
    cup, house = (weigh(parse_amount("1 cup"), almond, s) for s in (own, Settings()))
    assert cup.value == pytest.approx(mine.posterior, rel=1e-3)
    assert cup.high - cup.low < 0.8 * (house.high - house.low), "and better known than anybody's"
    spoon = weigh(parse_amount("3 tbsp"), almond, own).value / weigh(parse_amount("3 tbsp"), almond, Settings()).value
    assert spoon == pytest.approx(cup.value / house.value), "a spoon is filled by the same hand"
    assert weigh(parse_amount("1 cup"), coconut, own) == weigh(parse_amount("1 cup"), coconut, Settings())
    assert weigh(parse_amount("120 g"), almond, own) == weigh(parse_amount("120 g"), almond, Settings())


def test_what_was_filled_counts_for_all_batches_and_only_where_it_is_a_measure():
    one, three = (
        learn([run], LIBRARY).value("measures.almond-flour")
        for run in (filled(1, 118, "1 cup"), filled(1, 354, "3 cups", 3.0))
    )
    assert three.posterior > one.posterior > 106, "three fillings tell more than one"
    for word in ("a good heap", "250 g", "2 pieces", ""):
        assert learn([filled(1, 118, word)], LIBRARY).value("measures.almond-flour") is None


def test_what_is_left_out_or_switched_off_teaches_nothing():
    run = logged(TWISTS, 1, oven_c=177, probe_c=199)
    assert learn([replace(run, left_out=True)], LIBRARY).learned == ()
    assert not any(one.block == "oven" for one in learn([run], LIBRARY, off=frozenset(("oven",))).learned)


def test_the_order_of_runs_does_not_matter_and_nothing_is_kept_between():
    runs = [logged(TWISTS, n, oven_c=177, probe_c=177 + n, felt=(Felt(class_name="rollable"),)) for n in range(4)]
    one, two = learn(runs, LIBRARY), learn(runs[::-1], LIBRARY)
    for a in one.learned:
        assert two.value(a.key).posterior == pytest.approx(a.posterior)


def test_a_kitchen_that_thickens_is_known_for_it():
    thick = demo(TWISTS).piece.thickness_mm
    state = learn([logged(TWISTS, n, thickness_mm=1.2 * thick) for n in range(4)], LIBRARY)
    assert 1.1 < state.value("oven.thickness").posterior < 1.2


def kitchens(wrong):
    rng, tally = np.random.default_rng(17), Tally()
    names = (ROLLS, TWISTS, LOAF, "Broccoli wraps", "Four-seed crispbread")
    doughs = {name: demo(name) for name in names}
    plain = {name: as_done(dough, Done()) for name, dough in doughs.items()}
    for _ in range(7):
        own = [doughs[name] for name in rng.choice(names, 4, replace=False)]
        kitchen = Kitchen(rng, doughs, plain)
        runs = []
        for trial in range(9):
            if trial in (0, 1, 8):
                tally.judge(learn(runs, LIBRARY), kitchen, own, trial)
            dough = own[trial % 4]
            runs.append(kitchen.run(dough, trial, plain[dough.formula.name].marks.minutes, wrong=wrong and trial == 3))
    return {key: float(np.sqrt(np.mean(np.square(off)))) for key, off in tally.errors.items()}, tally


def test_simulated_kitchens_are_known_better_after_every_trial():
    """``python -m benchmarks.learning`` has more of them."""
    error, tally = kitchens(wrong=False)
    assert error["scores", 8] < 0.5 * error["scores", 0]
    assert error["scores", 1] < error["scores", 0]
    assert error["oven K", 8] < 0.65 * error["oven K", 0]
    assert error["decades", 8] < 0.8 * error["decades", 0]
    # Nine in ten, within what so few can show (binomial).
    inside = tally.covered["scores", 8]
    assert stats.binomtest(sum(inside), len(inside), 0.9).pvalue > 1e-3 or np.mean(inside) > 0.9


def test_one_bad_log_of_eight_spoils_little():
    error, _ = kitchens(wrong=True)
    assert error["scores", 8] < 0.7 * error["scores", 0]
    assert error["oven K", 8] < 0.8 * error["oven K", 0]
