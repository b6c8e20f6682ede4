"""What one dough is told in several places never says two things: warnings, chances, curve, sentence, weights and safety."""

from hypothesis import given
from hypothesis import strategies as st

from substrata import Dough, analyse, bake, load_library, read_document
from substrata.base.errors import OvenError
from substrata.formula.form_table import forms
from tests.support.doughs import document

LIBRARY = load_library()
AMOUNTS = {
    "almond_flour": 300, "coconut_flour": 120, "egg": 250, "mozzarella": 250, "psyllium_powder": 40, "water": 400, "butter": 120,
    "zucchini": 300, "chicken_raw": 300, "cheddar": 200, "egg_white": 200, "erythritol": 100, "allulose": 80, "almond_milk": 200,
    "baking_powder": 14, "salt": 8,
}  # fmt: skip
LINES = st.dictionaries(st.sampled_from(sorted(AMOUNTS)), st.floats(0.05, 1), min_size=2, max_size=7).map(
    lambda shares: {key: round(share * AMOUNTS[key], 1) for key, share in shares.items()}
)


@given(lines=LINES, form=st.sampled_from(sorted(forms())), pieces=st.integers(1, 24))
def test_no_two_places_contradict_each_other(lines, form, pieces):
    formula = read_document(document(form, pieces, **lines))
    judged = analyse(formula, LIBRARY)
    codes = {w.code for w in judged.warnings if w.severity == "act"}
    codes |= {f"{b.key} {b.state}" for b in judged.brackets if b.key == "water_fill" and b.state in ("low", "high")}
    assert not ({"handling-wet"} & codes and {"water_fill low"} & codes)
    assert not ({"handling-stiff", "handling-crumbly"} & codes and {"water_fill high"} & codes)
    if judged.handling is not None:
        sure = sum(share.probability for share in judged.handling.probabilities) + judged.handling.crumbly
        assert abs(sure - 1) < 1e-9
        assert not (judged.handling.fits and any(code.startswith("handling-") for code in codes))
    try:
        forecast = bake(Dough(formula, LIBRARY))
    except OvenError:
        return
    if forecast is None or forecast.ready_min is None:
        return
    assert forecast.loss_percent.best == 100 * judged.baked.loss.value
    assert forecast.hot_loss_percent.best <= forecast.loss_percent.best + 3  # what is dry takes a little up
    burns = "burn" in str(forecast.text)
    assert burns == (forecast.burnt_min is not None)
    if forecast.safe_c is not None and forecast.safe_min is not None:
        assert forecast.safe_min <= forecast.ready_min.best * 1.001
