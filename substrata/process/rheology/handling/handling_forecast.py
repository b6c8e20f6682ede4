"""What a baker is told of how a dough handles: its class with its probability, over minutes and over degrees.

The model put most of a study's everyday doughs into the accepted class and nearly all within one, so a class is
never given without how likely it is.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from substrata.base.bulk_dataclass import in_bulk
from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.form_table import form_of
from substrata.formula.formula import Formula
from substrata.ingredients.library import Floats
from substrata.process.rheology.cheese import cheese_share, melted_share
from substrata.process.rheology.dough_temperature import DoughHeat, dough_heat
from substrata.process.rheology.handling.consistency import Method, handling
from substrata.process.rheology.handling.handling_limits import HandlingCause, cracks, limiting_cause
from substrata.process.rheology.handling.handling_roots import Bowl, crossings
from substrata.process.rheology.handling.resting import place_c, place_of
from substrata.process.rheology.handling_classes import ClassBand, band_of, classes, form_handling, habit_of
from substrata.process.rheology.target_handling import target_handling

MINUTES = np.arange(0.0, 21.0)
DEGREES = np.arange(5.0, 71.0, 5.0)
_LEAST_G = 0.5  # of dough, below which nobody can say how it handles
_LOW, _HIGH = 5, 95  # per cent of the draws: nine in ten


@in_bulk
@dataclass(frozen=True, kw_only=True)
class HandlingPoint:
    """A dough at one moment and temperature."""

    minutes: float
    temperature_c: float
    consistency: float  # log10 Pa s at about 1 per second
    low: float
    high: float
    class_name: str
    probability: float  # of that class


@in_bulk
@dataclass(frozen=True, kw_only=True)
class ClassShare:
    """How likely a class is."""

    class_name: str
    probability: float


@dataclass(frozen=True, kw_only=True)
class HandlingForecast:
    """How a dough handles, until the baker has tried it."""

    temperature_c: float  # after mixing
    rest_min: float  # before shaping
    rest_text: str  # where it rests
    shaped_c: float  # its temperature then
    melted: bool
    pressed: bool
    usual_c: float  # what such a dough usually has after mixing
    has_cheese: bool
    at_shaping: HandlingPoint
    probabilities: tuple[ClassShare, ...]  # at shaping, likeliest first; with ``crumbly`` they are one
    crumbly: float  # probability of falling apart: a want of cohesion
    target_low: str  # lowest class the form is shaped at
    target_high: str  # highest
    fits: bool
    minutes: tuple[HandlingPoint, ...]  # 0 to 20 min of rest
    degrees: tuple[HandlingPoint, ...]  # 5 to 70 degC after the rest
    bands: tuple[ClassBand, ...]
    knead_min: float | None  # when it has seized enough to be kneaded
    ready_min: float | None  # when it first can be shaped; None when it does not come there
    closes_min: float | None  # when it has become too stiff to shape
    brittle_below_c: float | None  # of a melted-cheese dough: below it, it cracks
    tack: float  # 0..1 at shaping
    cause: HandlingCause | None  # what keeps it from being shaped; None when nothing does
    heat: DoughHeat  # where its temperature comes from
    learned: Wording  # what a kitchen's own runs have moved; "" where they have not
    text: Wording


@dataclass(frozen=True, kw_only=True)
class Hands:
    """How a kitchen's own hands differ from the house's."""

    stiffer: float = 0.0  # decades
    remaining: float = 1.0  # of the house's spread
    text: Wording = ""


THE_HOUSES = Hands()


def handling_forecast(
    batch: Batch, formula: Formula, thick: float, *, rest_min: float | None = None, hands: Hands = THE_HOUSES
) -> HandlingForecast | None:
    """Forecast how a dough handles; None when there is no dough to speak of.

    Args:
        batch: the weighed lines; what is not part of the dough is left out here.
        formula: gives the form (wanted class, rest, pressing) and what the baker says of temperature and method.
        thick: thickness of a piece, mm; a thick one may be stiffer.
        rest_min: before it is shaped; None takes the form's usual.
        hands: what the kitchen's own runs have taught.

    Returns:
        The forecast; None when there is no dough.
    """
    batch = batch.dough()
    if len(batch.lines) < 2 or batch.dough_g < _LEAST_G:
        return None
    share = cheese_share(batch)
    bowl, heat = bowl_of(batch, formula, rest_min=rest_min, stiffer=hands.stiffer)
    method, warm, rest, melted = (
        bowl.method,
        bowl.temperature_c,
        bowl.rest_min,
        bowl.method.melted >= constant("melted_from"),
    )
    # The minutes at the mixing temperature, the degrees after the rest, and the moment of shaping.
    # A dough of melted cheese goes on drinking while it cools, though it is shaped at once.
    standing = max(rest, form_handling()[formula.form].rest_min)
    minutes = np.concatenate((MINUTES, np.full(len(DEGREES), standing), [rest]))
    degrees = np.concatenate((bowl.warmth(MINUTES), DEGREES, [bowl.shaped_c]))
    result = handling(bowl.materials, method, minutes, degrees)
    # What its own runs have taught narrows the draws about the typical one.
    drawn = result.consistency[0] + hands.remaining * (result.consistency - result.consistency[0])
    points = _points(minutes, degrees, drawn, thick)
    shaping = len(minutes) - 1
    crumbly = float((result.fill[:, shaping] < 1).mean())
    target = target_handling(batch, formula, thick)
    typical = result.consistency[0]
    at = points[shaping]
    rising = typical[: len(MINUTES)]
    knead, ready, closes = crossings(
        bowl.over_minutes, MINUTES, rising, (band_of("tacky").low, target.low, target.high)
    )
    fits = target.low <= at.consistency < target.high and crumbly < constant("stated_from")
    brittle = (
        _brittle(
            replace(bowl, rest_min=standing), typical[len(MINUTES) : -1], min(target.high, constant("brittle_cheese"))
        )
        if melted and share >= constant("cheese_dough")
        else None
    )
    fits = fits and not cracks(bowl, brittle)
    shares = _shares(drawn[:, shaping], result.fill[:, shaping], thick)
    return HandlingForecast(
        temperature_c=warm,
        rest_min=rest,
        rest_text=place_of(formula.mix).where,
        shaped_c=bowl.shaped_c,
        melted=melted,
        pressed=method.pressed,
        usual_c=heat.temperature_c,
        has_cheese=share > 0,
        at_shaping=at,
        probabilities=shares,
        crumbly=crumbly,
        target_low=target.lowest,
        target_high=target.highest,
        fits=fits,
        minutes=points[: len(MINUTES)],
        degrees=points[len(MINUTES) : -1],
        bands=classes(thick),
        # Kneaded when it has seized to tacky, if its form wants that much.
        knead_min=knead if method.pressed and target.low >= band_of("tacky").low else None,
        ready_min=ready,
        closes_min=closes if closes and ready is not None and closes > ready else None,
        brittle_below_c=brittle,
        tack=float(result.tack[0, shaping]),
        cause=None
        if fits
        else limiting_cause(
            bowl, target, crumbly=crumbly >= constant("stated_from"), ready_min=ready, brittle_below_c=brittle
        ),
        heat=heat,
        learned=hands.text,
        text=_text(points[0], at, shares, crumbly, brittle),
    )


def rest_of(batch: Batch, formula: Formula) -> float:
    """Return the minutes that a dough rests before it is shaped: the formula's own, else what is usual for its form.

    A dough of melted cheese has no rest: it cracks when it cools. The part of the cheese that is melted counts, so that no
    gram makes the rest jump.

    Args:
        batch: the lines of the dough.
        formula: gives the form and the rest that is set.
    """
    if formula.mix.rest_min is not None:
        return formula.mix.rest_min
    return form_handling()[formula.form].rest_min * (1 - melted_share(batch, formula.mix))


def bowl_of(
    batch: Batch, formula: Formula, *, rest_min: float | None = None, stiffer: float = 0.0
) -> tuple[Bowl, DoughHeat]:
    """Return a dough as it is mixed, and where its temperature comes from.

    Args:
        batch: the lines of the dough.
        formula: gives the form and what the baker says of temperature and method.
        rest_min: before it is shaped; None takes the formula's own, or the form's usual.
        stiffer: decades by which the kitchen's own hands find it stiffer.
    """
    mix, habit = formula.mix, habit_of(formula)
    melted = melted_share(batch, mix)
    heat = dough_heat(
        batch,
        melted=melted,
        room_c=_class_bands(formula, "room_c"),
        melted_c=_class_bands(formula, "melt_to_c"),
    )
    bowl = Bowl(
        batch=batch,
        method=Method(
            melted=melted,
            pressed=mix.work == "pressed" if mix.work else habit.pressed,
            fat_melted=form_of(formula.form).dough_kind == "batter",
            stiffer=stiffer,
        ),
        temperature_c=heat.temperature_c if mix.temperature_c is None else mix.temperature_c,
        rest_min=rest_of(batch, formula) if rest_min is None else rest_min,
        place_c=place_c(formula),
    )
    return bowl, heat


def _class_bands(formula: Formula, choice: str) -> float | None:
    """Return what is set on the Prep station; None when nothing is."""
    value = formula.prep.get(choice)
    return float(value) if value is not None else None


def _brittle(bowl: Bowl, falling: Floats, stiff: float) -> float | None:
    """Below which temperature a melted-cheese dough is too stiff to bend; None when it never is."""
    (result,) = crossings(lambda cooled: bowl.over_degrees(-cooled), -DEGREES[::-1], falling[::-1], (stiff,))
    return -result if result is not None else None


def _points(minutes: Floats, degrees: Floats, consistency: Floats, thick: float) -> tuple[HandlingPoint, ...]:
    ranked = np.sort(consistency, axis=0)
    low, high = _percentile(ranked, _LOW), _percentile(ranked, _HIGH)
    which, names = _class_numbers(consistency, thick), [band.class_name for band in classes()]
    sure = (which == which[0]).mean(axis=0)
    columns = (minutes, degrees, consistency[0], low, high, which[0], sure)
    return tuple(
        HandlingPoint(minutes=m, temperature_c=t, consistency=c, low=a, high=b, class_name=names[n], probability=p)
        for m, t, c, a, b, n, p in zip(*(column.tolist() for column in columns), strict=True)
    )


def _percentile(ranked: Floats, percent: float) -> Floats:
    """Of rising columns, between neighbours; as numpy's, without the search that costs more than the sum of it."""
    place = percent / 100 * (len(ranked) - 1)
    low, part = int(place), place % 1
    above = ranked[min(low + 1, len(ranked) - 1)]
    result: Floats = ranked[low] + part * (above - ranked[low])
    return result


def _class_numbers(consistency: Floats, thick: float) -> NDArray[np.int64]:
    """Place in ``classes`` of each consistency, same shape."""
    return np.searchsorted(np.array([band.low for band in classes(thick)]), consistency, side="right") - 1


def _shares(draws: Floats, fill: Floats, thick: float) -> tuple[ClassShare, ...]:
    """Return how likely each class is, over the draws of one point; what falls apart has no class, so all of them and it are one."""
    coheres = _class_numbers(draws[fill >= 1], thick)
    counts = np.bincount(coheres, minlength=len(classes())) / len(draws)
    rows = [ClassShare(class_name=b.class_name, probability=float(n)) for b, n in zip(classes(), counts, strict=True)]
    return tuple(sorted(rows, key=lambda share: -share.probability))


def _text(
    start: HandlingPoint,
    at: HandlingPoint,
    shares: tuple[ClassShare, ...],
    crumbly: float,
    brittle: float | None,
) -> Wording:
    """Tacky at mixing, rollable after 8 min; cracks below 34 °C."""
    if crumbly >= constant("stated_from"):
        return Message("handling-forecast-crumbly-not-enough-free-liquid")
    perhaps = (
        ""
        if at.probability >= constant("stated_surely_from")
        else Message("handling-forecast-perhaps", other=_other(at, shares))
    )
    if not at.minutes:
        words = Message("handling-forecast-right-after-mixing", class_name=at.class_name.capitalize(), perhaps=perhaps)
    elif start.class_name == at.class_name:
        words = Message("handling-forecast-from-the-start", class_name=at.class_name.capitalize(), perhaps=perhaps)
    else:
        words = Message(
            "handling-forecast-at-mixing-after",
            class_name=start.class_name.capitalize(),
            class_name_2=at.class_name,
            long=_long(at.minutes),
            perhaps=perhaps,
        )
    if brittle is None:
        return Joined((words, "."), "")
    return Message("handling-forecast-cracks-below", words=words, until=Quantity(brittle, "C", digits=0))


def _long(minutes: float) -> Wording:
    return (
        f"{minutes / 60:.3g} h"
        if minutes >= constant("rest_in_hours_from")
        else Message("handling-forecast-min", minutes=Quantity(minutes, "min", digits=0))
    )


def _other(at: HandlingPoint, shares: tuple[ClassShare, ...]) -> str:
    return next(share.class_name for share in shares if share.class_name != at.class_name)
