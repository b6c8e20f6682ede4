"""Any run that can be read is answered, however odd: no number that is typed is impossible."""

import json
import math
import random

import pytest

from substrata.evaluation.dough import Dough
from substrata.execution.run_document import faults, felt_words, read_run, slip_words
from substrata.formula.formula_document import write_document
from substrata.inference.calibration.learning import learn
from substrata.inference.diagnosis.diagnosis import diagnose
from substrata.reformulation.starter_formula import formula_templates, template_formula
from tests.inference.conftest import LIBRARY

FORMULAS = [template_formula(skeleton) for skeleton in formula_templates()]


def odd_run(number):
    """A run whose numbers may be anything that the format allows."""
    rng = random.Random(number)
    document = write_document(FORMULAS[(7 * number) % len(FORMULAS)])
    for line in document["lines"]:
        if rng.random() < 0.3:
            line["grams"] *= rng.choice([0.1, 0.5, 2, 5])
    told = {
        "rest_min": [None, 0, 600],
        "dough_c": [None, -5, 80],
        "thickness_mm": [None, 0.5, 40],
        "oven_c": [None, 100, 300],
        "probe_c": [None, 20, 350],
        "minutes": [None, 0, 300],
        "weight_in_g": [None, 0, 500],
        "weight_out_g": [None, 0, 600],
        "core_c": [None, 20, 130],
        "trays": [None, 1, 9],
        "squeezed_g": [None, 0, 4000],
    }
    done = {key: rng.choice(values) for key, values in told.items()}
    done["grams"] = {line["id"]: line["grams"] * rng.choice([0, 1, 50]) for line in document["lines"][::2]}
    done["steps"] = {key: rng.random() < 0.5 for key in rng.sample(list(slip_words()), 4)}
    done["felt"] = [{"class": rng.choice(felt_words())}]
    verdict = {
        "faults": [{"id": fault} for fault in rng.sample(list(faults()), rng.randint(0, 6))],
        "colour": rng.choice([None, -2, 2]),
        "lightness": rng.choice([None, 0, 100]),
        "scores": {"chewy": 0, "gummy": 10},
        "asked": {"early": True, "nothing we know": False},
    }
    return read_run(json.loads(json.dumps({"formula": document, "id": str(number), "done": done, "verdict": verdict})))


@pytest.mark.parametrize("number", range(8))
def test_any_run_is_explained(number):
    run = odd_run(number)
    told = diagnose(Dough(run.formula, LIBRARY), run)
    assert told.text
    assert all(0 <= found.probability <= 1 for found in (*told.making, *told.formula))
    assert all(math.isfinite(p.gain) for p in told.next)


def test_any_runs_teach_something_finite():
    state = learn([odd_run(n) for n in range(8)], LIBRARY)
    assert all(math.isfinite(one.posterior) and one.posterior_sd > 0 for one in state.learned)
