import pytest

from substrata import Settings, load_library, read_document
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import figures
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import check_by_model
from substrata.reformulation.program.successive_linearisation import search
from substrata.reformulation.request.balance_request import Wish
from substrata.reformulation.starter_formula import formula_templates, template_formula
from tests.support.demo_doughs import demo_formulas
from tests.support.doughs import document

LIBRARY = load_library()
DEMO = {formula.name: formula for formula in demo_formulas()}
HOUSE = {skeleton.id: template_formula(skeleton) for skeleton in formula_templates()}


def made(form="bun", pieces=6, **lines):
    """A formula of grams by ingredient; ``_`` stands for ``-``."""
    return read_document(document(form, pieces, **lines))


def but(formula, **grams):
    """The same formula with other weights; 0 takes a line out, a new name brings one in."""
    told = {key.replace("_", "-"): value for key, value in grams.items()}
    here = {line.id: line.grams for line in formula.lines}
    weights = {key: told.get(key, value) for key, value in (here | told).items()}
    return made(formula.form, formula.pieces, **{key: value for key, value in weights.items() if value})


def values(formula):
    """Its figures."""
    return figures(Dough(formula, LIBRARY)).values


def searched(formula, wish=None, saved=None):
    """The problem of a formula and the answer that the search finds."""
    problem = BalanceProblem(formula, LIBRARY, Settings(), wish or Wish(), saved=saved)
    return problem, search(problem, start=check_by_model(problem, problem.start))


def weights(problem, verdict):
    """Grams by ingredient of an answer."""
    told = {}
    for slot, grams in zip(problem.slots, verdict.grams, strict=True):
        told[slot.ingredient] = told.get(slot.ingredient, 0.0) + float(grams)
    return told


@pytest.fixture(scope="session")
def balanced():
    """The demo formulas, each brought into balance first where something of it was out."""
    found = {}
    for name, formula in DEMO.items():
        problem, answer = searched(formula, Wish(may_bring=False))
        if answer.met:
            found[name] = problem.formula_at(answer.verdict.grams)
    return found
