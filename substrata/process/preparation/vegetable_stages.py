"""The vegetable of a formula: where it stands after each step, and what each school of drying would give."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import read_table
from substrata.formula.batch.batch_lines import WeighedLine
from substrata.ingredients.vegetable_drying import Dried, DryingStep, dry, is_squeezable, start_for


@dataclass(frozen=True, kw_only=True)
class DryingSchool:
    """One way of drying, and what it asks of the raw vegetable."""

    key: str
    name: str
    note: str
    source: str
    steps: tuple[DryingStep, ...]
    start_g: float  # raw, for the grams that the formula wants
    water_percent: float  # in what is left
    sugars_lost_g: float
    chosen: bool


@dataclass(frozen=True, kw_only=True)
class VegetableDrying:
    """A vegetable on its way into the dough."""

    line: str
    name: str
    target_g: float  # what the formula wants of it
    low_g: float  # nine cloths in ten, from the same start
    high_g: float
    start_g: float
    start_set: bool  # the raw weight is the baker's own
    weighed: bool  # the target stands on the scale
    dried: Dried | None  # None while it goes in as it is
    steps: tuple[DryingStep, ...]
    schools: tuple[DryingSchool, ...]
    text: Wording


@cache
def _schools() -> tuple[tuple[str, str, tuple[DryingStep, ...], str, str], ...]:
    return tuple(
        (row.text("school"), row.text("name"), _steps(row.text("steps")), row.text("note"), row.text("source"))
        for row in read_table("drying_schools.csv")
    )


def _steps(text: str) -> tuple[DryingStep, ...]:
    """``microwave:minutes=6:watts=900 squeeze:times=2`` as steps."""
    rows = []
    for word in text.split():
        act, *settings = word.split(":")
        numbers = {key: float(value) for key, value in (s.split("=") for s in settings)}
        times = int(numbers.pop("times", 1))
        rows.append(DryingStep(act=act, times=times, **numbers))  # type: ignore[arg-type]  # a test reads every row
    return tuple(rows)


def is_wet_vegetable(line: WeighedLine) -> bool:
    """Whether a line is a vegetable that may be dried: most of it is water that others could drink."""
    return line.role == "vegetable" and line.grams.value > 0 and is_squeezable(line.ingredient)


def vegetable_drying(line: WeighedLine) -> VegetableDrying:
    """Return the card of one vegetable line."""
    prep, target = line.line.prep, line.grams.value
    raw = line.ingredient.composition
    steps = tuple(step.plain for step in prep.steps) if prep else ()
    start = line.dried.start_g if line.dried else target
    forecast = dry(raw, steps, start) if steps else None
    return VegetableDrying(
        line=line.line.id,
        name=line.ingredient.name,
        target_g=target,
        low_g=forecast.low_g if forecast else target,
        high_g=forecast.high_g if forecast else target,
        start_g=start,
        start_set=bool(prep and prep.start_g),
        weighed=bool(prep and prep.weighed),
        dried=line.dried,
        steps=steps,
        schools=tuple(_school(entry, raw_line=line, target=target, steps=steps) for entry in _schools()),
        text=_text(line, forecast),
    )


def _school(
    entry: tuple[str, str, tuple[DryingStep, ...], str, str],
    *,
    raw_line: WeighedLine,
    target: float,
    steps: tuple[DryingStep, ...],
) -> DryingSchool:
    key, name, school, note, source = entry
    raw = raw_line.ingredient.composition
    # Salt and poured water are told for half a kilogram; a pan's and a microwave's minutes grow with the vegetable.
    start = start_for(raw, school, target)
    fitted = tuple(_sized(step, start) for step in school)
    start = start_for(raw, fitted, target)
    result = dry(raw, fitted, start)
    return DryingSchool(
        key=key,
        name=name,
        note=note,
        source=source,
        steps=fitted,
        start_g=start,
        water_percent=result.composition["water_g"],
        sugars_lost_g=result.sugars_lost_g,
        chosen=[s.act for s in steps] == [s.act for s in school],
    )


_REFERENCE_G = 500.0


def _sized(step: DryingStep, start_g: float) -> DryingStep:
    factor = start_g / _REFERENCE_G
    minutes = round(step.minutes * factor * 2) / 2 if step.act in ("microwave", "pan") else step.minutes
    return replace(step, minutes=max(minutes, 0.5) if step.minutes else 0.0, salt_g=round(step.salt_g * factor, 1))


def _text(line: WeighedLine, forecast: Dried | None) -> Wording:
    target = line.grams.value
    if forecast is None:
        return Message(
            "vegetable-stages-use-g-as-is-water",
            target=Quantity(target, "g", digits=0),
            composition=Quantity(line.ingredient.composition["water_g"], "%", digits=0),
        )
    if line.dried and line.line.prep and line.line.prep.weighed and line.line.prep.start_g:
        off = target - forecast.end_g
        words = (
            Message("vegetable-stages-as-forecast")
            if abs(off) < 0.03 * target
            else Message(
                "vegetable-stages-g-than-forecast",
                off=Quantity(abs(off), "g", digits=0),
                more="yes" if off > 0 else "no",
            )
        )
        return Message(
            "vegetable-stages-g-on-the-scale-from",
            target=Quantity(target, "g", digits=0),
            start=Quantity(line.dried.start_g, "g", digits=0),
            words=words,
            composition=Quantity(line.dried.composition["water_g"], "%", digits=0),
        )
    return Message(
        "vegetable-stages-g-raw-gives-g-after",
        start=Quantity(forecast.start_g, "g", digits=0),
        target=Quantity(target, "g", digits=0),
        low=Quantity(forecast.low_g, "g", high=forecast.high_g, digits=0),
    )
