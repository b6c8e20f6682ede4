"""The science of grain-free, low-carb doughs as a pure library: no web, no database, no clock.

This module is the public face: documented functions with stable signatures, each a pure function of its arguments. What is
not named here may change with any release. ``docs/library.md`` shows every function at work.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING, Any

from substrata.base.errors import SubstrataError
from substrata.base.settings import Settings
from substrata.evaluation.analysis.analyse import Analysis, analyse
from substrata.evaluation.dough import Dough
from substrata.formula.form_table import Window
from substrata.formula.formula import Formula
from substrata.formula.formula_document import read_document, write_document
from substrata.ingredients.library import Library, load_library
from substrata.process.baking.oven_profile import OvenProfile
from substrata.reformulation.request.balance_request import Wish

if TYPE_CHECKING:
    from substrata.evaluation.forecasts.bake_forecast import BakeForecast
    from substrata.evaluation.forecasts.preparation_task import PrepPlan
    from substrata.evaluation.forecasts.shape_forecast import ShapePlan
    from substrata.execution.protocol_step import RunPlan
    from substrata.execution.run_document import Run
    from substrata.inference.calibration.learned_parameters import CalibrationState
    from substrata.inference.diagnosis.diagnosis import Diagnosis
    from substrata.inference.diagnosis.next_test import Proposal
    from substrata.publishing.recipe import Recipe
    from substrata.reformulation.request.balance_answer import BalanceAnswer
    from substrata.reformulation.starter_formula import StarterFormula
    from substrata.scheduling.plans.plan_answer import Planned
    from substrata.scheduling.plans.plan_document import Plan

__all__ = [
    "Analysis",
    "Dough",
    "Formula",
    "Library",
    "OvenProfile",
    "Settings",
    "SubstrataError",
    "Window",
    "Wish",
    "analyse",
    "bake",
    "balance",
    "begin",
    "learn",
    "load_library",
    "next_test",
    "plan",
    "prep",
    "read_document",
    "read_plan",
    "read_run",
    "recipe",
    "shape",
    "steps",
    "swap",
    "why",
    "write_document",
]

# The rooms are imported when they are first used: the compiled bake, the solver and the scheduler take a while to load.


def prep(dough: Dough) -> PrepPlan:
    """Return what is to be done before and while mixing, one task for each thing, in order of work.

    Args:
        dough: the formula with its library and settings.

    Returns:
        The preparation tasks with their temperatures, minutes and problems.

    Raises:
        SubstrataError: when the form is unknown.
    """
    from substrata.evaluation.forecasts.preparation_forecast import plan_preparation

    return plan_preparation(dough)


def shape(dough: Dough) -> ShapePlan | None:
    """Return the piece, the trays and the loads of a dough.

    Args:
        dough: the formula with its library and settings.

    Returns:
        The plan of shapes in mm and g; None while there is no dough.

    Raises:
        SubstrataError: when pieces cannot lie on the tray.
    """
    from substrata.evaluation.forecasts.shape_forecast import plan_shape

    return plan_shape(dough)


def bake(dough: Dough) -> BakeForecast | None:
    """Forecast the bake of a dough in its oven.

    Args:
        dough: the formula with its library, settings and oven profile.

    Returns:
        Minutes, weights in g and temperatures in °C with their 90 % ranges; None while there is no dough.

    Raises:
        SubstrataError: when a setting is beyond what the model knows.
    """
    from substrata.evaluation.forecasts.bake_forecast import forecast_bake

    return forecast_bake(dough)


def steps(dough: Dough, *, batches: float = 1.0) -> RunPlan:
    """Return the protocol of a bake session: what is done, one step after the other.

    Args:
        dough: the formula with its library, settings and oven profile.
        batches: factor of every weight.

    Returns:
        The steps with grams, minutes and signs.

    Raises:
        SubstrataError: when there is no dough to make.
    """
    from substrata.execution.protocol import bake_protocol

    return bake_protocol(dough, batches=batches)


def balance(dough: Dough, wish: Wish = Wish(), *, saved: Formula | None = None) -> BalanceAnswer:  # noqa: B008 - frozen
    """Change amounts until all targets are met, with the fewest and smallest changes.

    Args:
        dough: the formula with its library and settings.
        wish: targets besides the formula's own, exclusions, locks and levers.
        saved: the version whose character is kept; the formula itself without one.

    Returns:
        Options, each with its changes and effects, or the targets that conflict.

    Raises:
        SubstrataError: when a wish names what does not exist.
    """
    from substrata.reformulation.balancing import balance as solve

    return solve(dough.formula, dough.library, dough.settings, wish, saved=saved)


def swap(dough: Dough, without: Sequence[str], *, targets: Mapping[str, Window] | None = None) -> BalanceAnswer:
    """Replace what somebody may not eat and balance the rest.

    Args:
        dough: the formula with its library and settings.
        without: exclusions by id, as ``egg`` or ``dairy``.
        targets: target ranges by figure.

    Returns:
        Options, each with its changes, effects and losses.

    Raises:
        SubstrataError: when an exclusion or a figure is unknown.
    """
    return balance(dough, Wish(targets=dict(targets or {}), without=tuple(without)))


def begin(
    form: str,
    library: Library,
    settings: Settings = Settings(),  # noqa: B008 - frozen
    *,
    targets: Mapping[str, Window] | None = None,
    without: Sequence[str] = (),
    pieces: int | None = None,
) -> tuple[StarterFormula, ...]:
    """Return starter formulas of a form on different bases, those that meet everything first.

    Args:
        form: id of the form, as ``thin-crust``.
        library: the ingredients.
        settings: the kitchen's choices.
        targets: target ranges by figure.
        without: exclusions by id.
        pieces: how many pieces; None for the form's usual number.

    Returns:
        Three or four formulas, balanced where they can be.

    Raises:
        SubstrataError: when form, figure or exclusion is unknown.
    """
    from substrata.reformulation.starter_formula import begin as starters

    return starters(form, library, settings, targets=dict(targets or {}), without=without, pieces=pieces)


def why(
    run: Run,
    library: Library,
    settings: Settings = Settings(),  # noqa: B008 - frozen
    *,
    proven: bool = False,
) -> Diagnosis:
    """Explain the rating of a bake: likely causes, questions, checks and next tests.

    Args:
        run: a bake session with its rating.
        library: the ingredients.
        settings: the kitchen's choices.
        proven: this version came out well before, so that its formula is hardly at fault.

    Returns:
        The causes with their probabilities and evidence, and what would help.

    Raises:
        SubstrataError: when the run has no rating or makes no dough.
    """
    from substrata.inference.diagnosis.diagnosis import diagnose

    return diagnose(Dough(run.formula, library, settings), run, proven=proven)


def next_test(run: Run, library: Library, settings: Settings = Settings()) -> tuple[Proposal, ...]:  # noqa: B008 - frozen
    """Return the changes that are expected to help most in the next bake, the best first.

    Args:
        run: a bake session with its rating.
        library: the ingredients.
        settings: the kitchen's choices.

    Returns:
        The proposals with their expected gain.

    Raises:
        SubstrataError: when the run has no rating or makes no dough.
    """
    return why(run, library, settings).next


def learn(
    runs: Sequence[Run],
    library: Library,
    settings: Settings = Settings(),  # noqa: B008 - frozen
    *,
    off: Sequence[str] = (),
) -> CalibrationState:
    """Return what a kitchen's bakes teach of its ovens, hands, palate, measures and habits.

    Args:
        runs: bake sessions with their readings, in any order.
        library: the ingredients.
        settings: the kitchen's choices.
        off: blocks that learn nothing: oven, hands, palate.

    Returns:
        The learned parameters with prior, posterior and the bakes that taught them.
    """
    from substrata.inference.calibration.learning import learn as calibrate

    return calibrate(runs, library, settings, off=frozenset(off))


def read_run(document: Mapping[str, Any]) -> Run:
    """Read an open run document (``docs/formats/run.schema.json``).

    Args:
        document: the parsed JSON.

    Returns:
        The run.

    Raises:
        SubstrataError: when the document is not one, by field.
    """
    from substrata.execution.run_document import read_run as read

    return read(document)


def read_plan(document: Mapping[str, Any]) -> Plan:
    """Read an open plan document (``docs/formats/plan.schema.json``).

    Args:
        document: the parsed JSON.

    Returns:
        The plan.

    Raises:
        SubstrataError: when the document is not one, by field.
    """
    from substrata.scheduling.plans.plan_document import read_plan as read

    return read(document)


def plan(
    document: Plan,
    library: Library,
    settings: Settings = Settings(),  # noqa: B008 - frozen
    *,
    profiles: Mapping[str, OvenProfile] | None = None,
    seconds: float = 10.0,
) -> Planned:
    """Plan several bakes, people and ovens so that each bake is ready in time.

    Args:
        document: what is to be ready when, by whom and in which ovens.
        library: the ingredients.
        settings: the kitchen's choices.
        profiles: learned oven profiles by the plan's oven names.
        seconds: how long the solver may search.

    Returns:
        Tasks with clock times, how often the plan holds, and what is late.

    Raises:
        SubstrataError: when a formula makes no dough or an oven does not exist.
    """
    from substrata.scheduling.plans.planning import make_plan
    from substrata.scheduling.plans.planning_case import planning_case
    from substrata.scheduling.solver.search_effort import Effort

    return make_plan(planning_case(document, library, settings, profiles), effort=Effort(seconds=seconds))


def recipe(dough: Dough, *, batches: float = 1.0) -> Recipe:
    """Return the recipe card of a dough: grouped ingredients, method, panels, keeping.

    Args:
        dough: the formula with its library, settings and oven profile; weights are those that its bake is forecast to leave.
        batches: factor of every weight.

    Returns:
        The recipe, from which every file format is written.

    Raises:
        SubstrataError: when there is no dough to make.
    """
    from substrata.publishing.recipe import recipe_of

    return recipe_of(dough.as_baked(), batches=batches)
