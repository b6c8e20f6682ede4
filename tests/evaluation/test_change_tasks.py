"""Two of the change tasks of docs/structure.md done for real, with made-up data: a hydrocolloid and a cause."""

from substrata import Dough, Settings, analyse, load_library, next_test, read_document, read_run, why
from substrata.inference.diagnosis.causes import causes
from tests.conftest import sample
from tests.support.growing import grown

GUM = {
    "composition.csv": ("id", "xanthan", {"id": "velvet-gum", "name": "Velvet gum", "flags": ""}),
    "behaviour.csv": ("ingredient", "xanthan", {"ingredient": "velvet-gum"}),
    "aliases.csv": ("ingredient", "xanthan", {"alias": "velvet powder", "ingredient": "velvet-gum"}),
}
CAUSE = {
    "causes.csv": ("cause", "cap_hi", {"cause": "meal_dry", "words": "the meal dried out on the shelf", "prior": "9"}),
    "fault_causes.csv": ("cause", "cap_hi", {"cause": "meal_dry", "strength": "3"}),
}


def consistency(library, **lines):
    formula = read_document(sample(almond_flour=150, egg=100, water=90, salt=4, **lines))
    return analyse(formula, library, Settings()).handling.at_shaping.consistency


def test_a_made_up_gum_binds_thickens_and_is_read_by_three_tables(tmp_path, monkeypatch):
    assert "velvet-gum" not in load_library()
    with grown(tmp_path, monkeypatch, GUM):
        library = load_library()
        assert library["velvet-gum"].name == "Velvet gum"
        assert consistency(library, velvet_gum=3) > consistency(library)
        assert consistency(library, velvet_gum=3) == consistency(library, xanthan=3)
        bound = analyse(read_document(sample(almond_flour=150, water=90, velvet_gum=3)), library)
        plain = analyse(read_document(sample(almond_flour=150, water=90)), library)
        loads = [next(s for s in a.brackets if s.key == "binder_load").estimate.value for a in (bound, plain)]
        assert loads[0] > loads[1]
    assert "velvet-gum" not in load_library()


def test_a_made_up_cause_is_weighed_and_named_by_two_tables(tmp_path, monkeypatch):
    rated = {"formula": sample(), "id": "1", "done": {}, "verdict": {"faults": [{"id": "dense"}, {"id": "too_stiff"}]}}
    assert "meal_dry" not in causes()
    with grown(tmp_path, monkeypatch, CAUSE):
        library = load_library()
        assert "meal_dry" in causes()
        run = read_run(rated)
        named = {cause.cause: cause for cause in why(run, library).making}
        assert named["meal_dry"].words == "the meal dried out on the shelf"
        assert named["meal_dry"].probability > 0
        assert next_test(run, library)
        assert Dough(run.formula, library).batch.dough_g > 0
