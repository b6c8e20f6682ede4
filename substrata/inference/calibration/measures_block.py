"""What a kitchen's runs teach of its cups and spoons: how much of an ingredient lies in one, where it was filled and then weighed."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from math import exp, log, sqrt

import numpy as np

from substrata.base.amounts import parse_amount
from substrata.base.errors import AmountError
from substrata.base.messages.message import Message
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant
from substrata.base.uncertainty import SDS_IN_HALF_90, Spread
from substrata.base.units import unit
from substrata.execution.reading_noise import reading_noise
from substrata.inference.calibration.learned_parameters import Learned, Reading, Work, count
from substrata.inference.calibration.robust_update import Residual, Updated
from substrata.ingredients.amount_to_grams import weigh

MEASURES = "measures"


def measures(read: Sequence[Reading]) -> Work:
    """How much fuller or emptier the kitchen's measures are than the house's, ln, of each ingredient that was filled and weighed."""
    fillings_by_run = {reading.id: fillings for reading in read if (fillings := _fillings(reading))}
    prior: dict[str, float] = {}
    for ingredient, house, _, _ in (filling for fillings in fillings_by_run.values() for filling in fillings):
        prior.setdefault(
            ingredient, max((house.high - house.low) / 2 / SDS_IN_HALF_90 / house.value, constant("measure_least_sd"))
        )
    names = list(prior)
    residuals = [
        Residual(
            run=run,
            off=np.array([log(grams / house.value) for _, house, grams, _ in fillings]),
            slope=np.array([[float(name == ingredient) for name in names] for ingredient, *_ in fillings]),
            # Fillings of one hand are alike, and average out over several.
            noise=np.array([reading_noise("filling").sd / sqrt(max(number, 1.0)) for *_, number in fillings]),
        )
        for run, fillings in fillings_by_run.items()
    ]
    return [(MEASURES, names, list(prior.values()), residuals)] if residuals else []


def _fillings(reading: Reading) -> list[tuple[str, Spread, float, float]]:
    """Of each line that was filled and weighed: its ingredient, what the house takes it for, what it weighed, and how many fillings."""
    rows = []
    by_id = {w.line.id: w for w in reading.dough.batch.lines}
    for line, words in reading.done.filled.items():
        weighed, grams = by_id.get(line), reading.done.grams.get(line, 0.0) * reading.run.batches
        if weighed is None or grams <= 0:
            continue
        try:
            amount = parse_amount(words)
            house = weigh(amount, weighed.ingredient, reading.dough.settings)
        except AmountError:
            continue  # a word that is no measure was kept as it was said, and teaches nothing
        spoons = reading.dough.settings.spoons
        if house.value > 0 and all(term.unit and unit(term.unit, spoons).kind == "volume" for term in amount.terms):
            ingredient = weighed.ingredient.id.partition("@")[0]
            rows.append((ingredient, house, grams, sum(term.number for term in amount.terms)))
    return rows


def measure_readings(
    read: Sequence[Reading], priors: Mapping[str, float], taught: Mapping[str, tuple[str, ...]], to: Updated
) -> list[Learned]:
    """Return a cup of each ingredient as it is filled here: 104 g (99 to 109), the house says 106."""
    rows = []
    lines = {
        w.ingredient.id.partition("@")[0]: (w.ingredient, reading.dough)
        for reading in read
        for w in reading.dough.batch.lines
    }
    for n, (name, before) in enumerate(priors.items()):
        ingredient, dough = lines[name]
        house = weigh(parse_amount("1 cup"), ingredient, dough.settings).value
        value, sd = house * exp(float(to.mean[n])), house * float(to.sd[n])
        words = Message(
            "measures-block-a-cup-of",
            ingredient_name=ingredient.name[:1].lower(),
            ingredient_name_2=ingredient.name[1:],
        )
        half = SDS_IN_HALF_90 * sd
        rows.append(
            Learned(
                key=f"{MEASURES}.{name}",
                block=MEASURES,
                words=words,
                unit="g",
                prior=house,
                prior_sd=house * before,
                posterior=value,
                posterior_sd=sd,
                trials=taught[name],
                text=Message(
                    "measures-block-g-g-built-in-value",
                    words=words,
                    value=Quantity(value, "g", digits=0),
                    value_2=Quantity(value - half, "g", high=value + half, digits=0),
                    house=Quantity(house, "g", digits=0),
                    count=count(len(taught[name])),
                ),
            )
        )
    return rows
