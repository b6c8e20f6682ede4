"""What a baker is told of how a dough handles: its class with its probability, over minutes and over degrees.

The model put most of a study's everyday doughs into the accepted class and nearly all within one, so a class is
never given without how likely it is.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from substrata.dough.consistency import Method, handling
from substrata.dough.phases import phase_of
from substrata.formula.formula import Mix
from substrata.formula.weighed import Batch
from substrata.pantry.library import Floats
from substrata.quantities.tables import read_table

MINUTES = np.arange(0.0, 21.0)
DEGREES = np.arange(5.0, 71.0, 5.0)
BRITTLE_BELOW_C = 40.0  # a melted-cheese dough cracks when it is cooler (common practice)
_CHEESE_DOUGH = 0.25  # share of the dough from which cheese is melted first
_MELTED_C, _WARM_C, _ROOM_C = 55.0, 38.0, 22.0  # usual temperatures after mixing (common practice)
_LOW, _HIGH = 5, 95  # per cent of the draws: nine in ten


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


@dataclass(frozen=True, kw_only=True)
class ClassShare:
    """How likely a class is."""

    class_name: str
    probability: float


@dataclass(frozen=True, kw_only=True)
class ClassBand:
    """A handling class on the axis of consistency."""

    class_name: str
    low: float
    high: float


@dataclass(frozen=True, kw_only=True)
class HandlingForecast:
    """How a dough handles, until the baker has tried it."""

    temperature_c: float  # after mixing
    rest_min: float  # the form's usual rest before shaping
    melted: bool
    pressed: bool
    usual_c: float  # what such a dough usually has after mixing
    has_cheese: bool
    at_shaping: HandlingPoint
    probabilities: tuple[ClassShare, ...]  # at shaping, likeliest first; "crumbly" is a want of cohesion
    crumbly: float  # probability
    wanted_low: str  # lowest class the form is shaped at
    wanted_high: str  # highest
    fits: bool
    minutes: tuple[HandlingPoint, ...]  # 0 to 20 min at the mixing temperature
    degrees: tuple[HandlingPoint, ...]  # 5 to 70 degC after the rest
    bands: tuple[ClassBand, ...]
    ready_min: float | None  # when it first can be shaped; None when it does not come there
    brittle_below_c: float | None  # of a melted-cheese dough
    tack: float  # 0..1 at shaping
    text: str


@cache
def classes() -> tuple[ClassBand, ...]:
    """The handling classes from thin to stiff."""
    rows = read_table("handling_classes.csv")
    starts = [row.number_in("from") for row in rows]
    return tuple(
        ClassBand(class_name=row.text("class"), low=low, high=high)
        for row, low, high in zip(rows, starts, [*starts[1:], 9.0], strict=True)
    )


@dataclass(frozen=True, kw_only=True)
class _FormHandling:
    lowest: str
    highest: str
    pressed: bool
    rest_min: float


@cache
def _forms() -> dict[str, _FormHandling]:
    return {
        row.text("form"): _FormHandling(
            lowest=row.text("lowest"),
            highest=row.text("highest"),
            pressed=row.text("pressed") == "1",
            rest_min=row.number_in("rest_min", 0, 60),
        )
        for row in read_table("handling_forms.csv")
    }


def class_of(consistency: float) -> str:
    """The class of a consistency.

    >>> class_of(0.0), class_of(2.6), class_of(5.1)
    ('pourable', 'tacky', 'stiff')
    """
    return next(band.class_name for band in reversed(classes()) if consistency >= band.low)


def mixing_temperature_c(batch: Batch, *, melted: bool) -> float:
    """What a dough usually has after mixing: hot with melted cheese, hand-warm with psyllium, else the room's."""
    if melted:
        return _MELTED_C
    return _WARM_C if any("psyllium" in w.ingredient.flags for w in batch.lines) else _ROOM_C


def handling_forecast(batch: Batch, form: str, mix: Mix) -> HandlingForecast | None:
    """Forecast how a dough handles; None when there is no dough to speak of.

    Args:
        batch: the weighed lines.
        form: id of the form: gives the wanted class, the rest and whether it is usually pressed.
        mix: what the baker says of temperature and method; the rest follows from what is in the bowl.
    """
    if len(batch.lines) < 2 or batch.dough_g <= 0:
        return None
    habit = _forms()[form]
    cheese = np.array([float(phase_of(w).name == "cheese") for w in batch.lines])
    much_cheese = float(batch.grams @ cheese) >= _CHEESE_DOUGH * batch.dough_g
    melted = mix.cheese == "melted" if mix.cheese else much_cheese
    pressed = mix.work == "pressed" if mix.work else habit.pressed
    method = Method(melted=melted, pressed=pressed)
    usual = mixing_temperature_c(batch, melted=melted and much_cheese)
    warm = usual if mix.temperature_c is None else mix.temperature_c
    minutes = np.concatenate((MINUTES, np.full(len(DEGREES), habit.rest_min)))
    degrees = np.concatenate((np.full(len(MINUTES), warm), DEGREES))
    found = handling(batch, method, minutes, degrees)
    points = _points(minutes, degrees, found.consistency)
    shaping = int(habit.rest_min)  # minutes are whole
    shares = _shares(found.consistency[:, shaping])
    crumbly = float((found.fill[:, shaping] < 1).mean())
    low, high = (next(b for b in classes() if b.class_name == name) for name in (habit.lowest, habit.highest))
    typical = found.consistency[0, : len(MINUTES)]
    at = points[shaping]
    return HandlingForecast(
        temperature_c=warm,
        rest_min=habit.rest_min,
        melted=melted,
        pressed=pressed,
        usual_c=usual,
        has_cheese=bool(cheese.any()),
        at_shaping=at,
        probabilities=shares,
        crumbly=crumbly,
        wanted_low=habit.lowest,
        wanted_high=habit.highest,
        fits=low.low <= at.consistency < high.high and crumbly < 0.5,
        minutes=points[: len(MINUTES)],
        degrees=points[len(MINUTES) :],
        bands=classes(),
        ready_min=_first_minute(typical, low.low),
        brittle_below_c=BRITTLE_BELOW_C if melted and much_cheese else None,
        tack=float(found.tack[0, shaping]),
        text=_text(at, shares, crumbly, melted=melted and much_cheese, rest=habit.rest_min),
    )


def _points(minutes: Floats, degrees: Floats, consistency: Floats) -> tuple[HandlingPoint, ...]:
    low, high = np.percentile(consistency, (_LOW, _HIGH), axis=0)
    which = _class_numbers(consistency)
    sure = (which == which[0]).mean(axis=0)
    columns = (minutes, degrees, consistency[0], low, high, which[0], sure)
    return tuple(
        HandlingPoint(
            minutes=m, temperature_c=t, consistency=c, low=a, high=b, class_name=classes()[n].class_name, probability=p
        )
        for m, t, c, a, b, n, p in zip(*(column.tolist() for column in columns), strict=True)
    )


def _class_numbers(consistency: Floats) -> NDArray[np.int64]:
    """Place in ``classes`` of each consistency, same shape."""
    return np.searchsorted(np.array([band.low for band in classes()]), consistency, side="right") - 1


def _shares(draws: Floats) -> tuple[ClassShare, ...]:
    """How likely each class is, over the draws of one point."""
    counts = np.bincount(_class_numbers(draws), minlength=len(classes())) / len(draws)
    found = [ClassShare(class_name=b.class_name, probability=float(n)) for b, n in zip(classes(), counts, strict=True)]
    return tuple(sorted(found, key=lambda share: -share.probability))


def _first_minute(consistency: Floats, wanted: float) -> float | None:
    """When a thickening dough first reaches a consistency: the root between two minutes."""
    there = np.flatnonzero(consistency >= wanted)
    if not len(there):
        return None
    at = int(there[0])
    if at == 0:
        return 0.0
    before, after = consistency[at - 1], consistency[at]
    return float(MINUTES[at - 1] + (wanted - before) / (after - before))


def _text(at: HandlingPoint, shares: tuple[ClassShare, ...], crumbly: float, *, melted: bool, rest: float) -> str:
    sure = "" if at.probability >= 0.75 else f", perhaps {_other(at, shares)}"
    when = f"after {rest:g} min" if rest else "at once"
    said = f"{at.class_name.capitalize()}{sure} {when}"
    if crumbly >= 0.5:
        said = "Crumbly: too little flows to fill the voids; a little more liquid or egg, or press it"
    cool = f"; cracks below {BRITTLE_BELOW_C:.0f} °C" if melted else ""
    return f"{said}{cool}."


def _other(at: HandlingPoint, shares: tuple[ClassShare, ...]) -> str:
    return next(share.class_name for share in shares if share.class_name != at.class_name)
