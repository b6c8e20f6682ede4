"""What learning gives: its numbers, how they are told, and a forecast that was moved by them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import exp

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
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
    words: Wording
    unit: Wording
    prior: float
    prior_sd: float
    posterior: float
    posterior_sd: float
    trials: tuple[str, ...]  # ids of the runs that taught it
    text: Wording


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


def factor(
    block: str, key: str, words: Wording, value: float, sd: float, before: float, teach: tuple[str, ...]
) -> Learned:
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
    text = Message(
        "learned-parameters-from",
        words=words,
        middle=Quantity(middle, "number", digits=2),
        exp=Quantity(exp(value - SDS_IN_HALF_90 * sd), "number", digits=2),
        exp_2=Quantity(exp(value + SDS_IN_HALF_90 * sd), "number", digits=2),
        count=count(len(teach)),
    )
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


def count(number: int) -> Wording:
    """So many trials, in words."""
    return Message("learned-parameters-trial") if number == 1 else Message("learned-parameters-trials", number=number)


@dataclass(frozen=True, kw_only=True)
class Backed:
    """A forecast moved by what was learned."""

    value: float
    sd: float
    same_formula: int  # of this formula's own trials
    from_others: int
    text: Wording


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
        text = Message("learned-parameters-from-of-your-own-bakes", mine=mine)
    elif runs:
        text = (
            Message("learned-parameters-from-of-other-doughs-in", count=count(runs))
            if not mine
            else Message("learned-parameters-from-in-this-kitchen", count=count(runs))
        )
    else:
        text = Message("learned-parameters-built-in-model")
    return Backed(value=value, sd=sd, same_formula=mine, from_others=runs - mine, text=text)
