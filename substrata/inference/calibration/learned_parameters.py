"""What learning gives: its numbers, how they are told, and a forecast that was moved by them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import exp

from substrata.base.uncertainty import SDS_IN_HALF_90
from substrata.evaluation.dough import Dough
from substrata.evaluation.learned_biases import formula_key
from substrata.execution.run_document import Done, Run
from substrata.inference.as_made_forecast import AsDone
from substrata.inference.calibration.robust_update import Residual, Updated

# Problems of a block: its key, the names of its parameters, their priors (one standard deviation) and what was seen.
Work = list[tuple[str, list[str], list[float], list[Residual]]]
_PRIOR_BAKES = (
    0.67  # share of the variance that is left, from which a forecast counts as backed by the formula's own trials
)


@dataclass(frozen=True, kw_only=True)
class Learned:
    """One number that was learned."""

    key: str  # oven.offset, hands.kitchen, palate.chewy …
    block: str  # oven, hands, palate, measures, habits
    words: str
    unit: str
    prior: float
    prior_sd: float
    posterior: float
    posterior_sd: float
    trials: tuple[str, ...]  # ids of the runs that taught it
    text: str


@dataclass(frozen=True, kw_only=True)
class Odd:
    """A run that hardly fits the others."""

    run: str
    trust: float
    block: str


@dataclass(frozen=True, kw_only=True)
class CalibrationState:
    """What a kitchen has learned."""

    runs: int
    learned: tuple[Learned, ...]
    odd: tuple[Odd, ...]
    blocks: Mapping[str, Updated]  # what stands behind it
    places: Mapping[str, Mapping[str, int]]  # of each parameter in its block
    priors: Mapping[str, Mapping[str, float]]  # what was held before of each, one standard deviation
    taught: Mapping[str, Mapping[str, tuple[str, ...]]]  # which runs taught each parameter of a block

    def value(self, key: str) -> Learned | None:
        """One learned number by its key."""
        return next((parameter for parameter in self.learned if parameter.key == key), None)


@dataclass(frozen=True, kw_only=True)
class Reading:
    """A run with what was forecast for it."""

    run: Run
    id: str
    done: Done
    dough: Dough
    forecast: AsDone
    oven: str


def name_of(run: Run) -> str:
    """Return the key by which a formula's own bakes are known, whatever it is called now."""
    return formula_key(run.formula)


def factor(block: str, key: str, words: str, value: float, sd: float, before: float, teach: tuple[str, ...]) -> Learned:
    """Return a learned factor, told with its range.

    Args:
        block: that it belongs to.
        key: of the number.
        words: what it is.
        value: its natural logarithm, and likewise the next two.
        sd: one standard deviation of it.
        before: one standard deviation of its prior.
        teach: the runs that taught it.
    """
    middle = exp(value)
    text = f"{words}: × {middle:.2f} ({exp(value - SDS_IN_HALF_90 * sd):.2f}–{exp(value + SDS_IN_HALF_90 * sd):.2f}), from {count(len(teach))}"
    return Learned(
        key=key,
        block=block,
        words=words,
        unit="×",
        prior=1.0,
        prior_sd=before,
        posterior=middle,
        posterior_sd=sd * middle,
        trials=teach,
        text=text,
    )


def count(number: int) -> str:
    """So many trials, in words."""
    return "1 trial" if number == 1 else f"{number} trials"


@dataclass(frozen=True, kw_only=True)
class Backed:
    """A forecast moved by what was learned."""

    value: float
    sd: float
    same_formula: int  # of this formula's own trials
    from_others: int
    text: str


def backed(state: CalibrationState, block: str, key: str, value: float, sd: float, plain: float) -> Backed:
    """Return a forecast with what stands behind it.

    Args:
        state: what was learned.
        block: that moves it.
        key: its parameter of this formula alone.
        value: the forecast.
        sd: one standard deviation.
        plain: the same where nothing was learned.
    """
    runs = len(state.blocks[block].trust)
    mine = len(state.taught[block].get(key, ()))
    if mine and sd**2 <= _PRIOR_BAKES * plain**2:
        text = f"from {mine} of your own bakes"
    elif runs:
        text = (
            f"from {count(runs)} of other doughs in this kitchen" if not mine else f"from {count(runs)} in this kitchen"
        )
    else:
        text = "built-in model"
    return Backed(value=value, sd=sd, same_formula=mine, from_others=runs - mine, text=text)
