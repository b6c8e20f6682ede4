"""How long a baked piece keeps: by the water activity of what is baked, and by what is in it and on it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache

import numpy as np

from substrata.base.messages.message import Message, Wording, listed
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import Row, constant, read_table, whole_constant
from substrata.base.tables.table_texts import table_text
from substrata.evaluation.dough import Dough
from substrata.formula.batch.baked_weight import moisture_after, wet_percent
from substrata.formula.batch.batch_lines import FRYING, Batch
from substrata.ingredients.library import Floats, Library
from substrata.nutrition.water_activity import solutes, water_activity_ross
from substrata.process.baking.simulation.baked_material import dough_sorption

UNCOUNTED = "uncounted"


@dataclass(frozen=True, kw_only=True)
class Perishable:
    """A food that has to be kept cold wherever water is left in it."""

    kind: str
    name: str
    fridge_days: int
    freezer_months: int
    why: Wording


@dataclass(frozen=True, kw_only=True)
class Keeping:
    """How long a piece keeps, and why."""

    room_days: int  # 0: not past the day of baking, or not at all where ``chill_within_hours`` says so
    fridge_days: int | None  # None where the fridge only makes it stale
    freezer_months: int | None
    chill_within_hours: int | None  # after baking; None where it may stand for the day
    water_activity: float  # best estimate
    water_activity_high: float  # at the wet end of the range
    why: Wording
    text: Wording


def keeping(dough: Dough) -> Keeping:
    """Estimate how long the pieces of a dough keep at room temperature, in the fridge and in the freezer.

    Args:
        dough: as its oven is forecast to leave it.

    Source: FDA Food Code 2022, 1-201.10(B), table B: what is not packed needs time and temperature control from a water activity
    of .88; pH is not computed and earns nothing here. Days in the fridge: USDA/FDA cold storage chart.

    Returns:
        Days by place, with wrap and reason.
    """
    likely, wet = (_whole_activity(dough, moisture) for moisture in _moistures(dough))
    fresh = max((_raw_activity(dough.batch, rows) for rows in _added_fresh(dough.batch)), default=0.0)
    likely, wet = max(likely, fresh), max(wet, fresh)
    perishables = (*_uncounted(dough), *_perishables(dough.batch))
    form = _storage().get(dough.formula.form, _storage()[""])
    room = _room(wet, perishables)
    chill = 2 if perishables and room is None else None
    fridge = None if room else _fridge_days(dough, form, perishables)
    months = min([int(form.number_in("freezer_months", 0)), *(p.freezer_months for p in perishables)])
    return Keeping(
        room_days=int(room.number_in("room_days", 0)) if room else 0,
        fridge_days=fridge,
        freezer_months=months or None,
        chill_within_hours=chill,
        water_activity=likely,
        water_activity_high=wet,
        why=_why(likely, room, perishables),
        text=_text(room, fridge, months, chill, form, perishables, likely, wet),
    )


def _moistures(dough: Dough) -> tuple[float, float]:
    """Return the likely water and the wet end of its range, % of what is baked."""
    after = dough.baked
    missed = 0.0 if after.source == "set" else constant("loss_missed") * after.loss.value
    wetter = moisture_after(wet_percent(dough.batch), max(after.loss.value - missed, 0.0))
    return after.moisture_percent, max(after.moisture_high, after.moisture_percent, wetter)


def _whole_activity(dough: Dough, moisture: float) -> float:
    """Compute the water activity of the whole baked piece at a moisture, %."""
    batch = dough.batch
    dry = float(batch.grams @ (1 - batch.matters()["water"]))
    water = dry * moisture / max(100 - moisture, 1.0)
    return _activity(batch, np.ones(len(batch.lines)), water, dough_sorption(batch))


def _raw_activity(batch: Batch, rows: Floats) -> float:
    """Compute the water activity of some lines as they are laid in or on; ``rows`` of shape (n,)."""
    water = float((batch.grams * rows) @ batch.matters()["water"])
    return _activity(batch, rows, water, dough_sorption(batch))


def _activity(batch: Batch, rows: Floats, water_g: float, sorption: float) -> float:
    grams, matters = batch.grams * rows, batch.matters()
    amounts = {s.nutrient: float(grams @ batch.nutrient(s.nutrient)[0]) for s in solutes()}
    dissolving = sum(amounts[s.nutrient] * s.grams_per_unit for s in solutes())
    solids = float(grams @ (1 - matters["water"] - matters["fat"]))
    return water_activity_ross(water_g, max(solids - dissolving, 0.0), sorption, amounts)


def _added_fresh(batch: Batch) -> Iterator[Floats]:
    """Yield the lines that keep their own water: fillings, and toppings of fresh food; each of shape (n,)."""
    for n, weighed in enumerate(batch.lines):
        if weighed.grams.value <= 0 or weighed.in_dough or weighed.role == FRYING:
            continue
        if weighed.role == "filling" or (weighed.role == "topping" and _perishable_at(batch, n) is not None):
            rows = np.zeros(len(batch.lines))
            rows[n] = 1.0
            yield rows


def _perishables(batch: Batch) -> Iterator[Perishable]:
    """Yield each perishable food of a batch once."""
    kinds: set[str] = set()
    for n, weighed in enumerate(batch.lines):
        perishable = _perishable_at(batch, n) if weighed.grams.value > 0 else None
        if perishable is not None and perishable.kind not in kinds:
            kinds.add(perishable.kind)
            yield perishable


def _uncounted(dough: Dough) -> Iterator[Perishable]:
    """Yield one perishable for the lines that are not counted, unless each is known to be a dry store, such as salt to taste."""
    ingredients = {line.id: line.ingredient for line in dough.formula.lines}
    moist = [
        key
        for key in (ingredients.get(p.line or "", "") for p in dough.problems)
        if not _is_dry_store(dough.library, key)
    ]
    if moist:
        names = listed(dough.unweighed)
        yield Perishable(
            kind=UNCOUNTED,
            name=names,
            fridge_days=1,
            freezer_months=0,
            why=Message("keeping-is-not-counted-so-nobody", names=names),
        )


def _is_dry_store(library: Library, key: str) -> bool:
    return key in library and library[key].composition["water_g"] < 100 * constant("fresh_food_water")


def _perishable_at(batch: Batch, n: int) -> Perishable | None:
    """Return the perishable food that line ``n`` is, None for one that is none or a dry store."""
    weighed = batch.lines[n]
    food = weighed.ingredient
    dry_pulse = "raw-pulse" in food.flags  # it is soaked and cooked
    if batch.nutrient("water_g")[0][n] < constant("fresh_food_water") and not dry_pulse:
        return None
    for match, perishable in _perishable_table():
        kind, _, value = match.partition(":")
        if (
            (kind == "flag" and value in food.flags)
            or (kind == "role" and weighed.role == value)
            or (kind == "id" and food.id in value.split())
        ):
            return perishable
    return None


@cache
def _perishable_table() -> tuple[tuple[str, Perishable], ...]:
    return tuple(
        (
            row.text("match"),
            Perishable(
                kind=row.text("kind"),
                name=row.text("name"),
                fridge_days=int(row.number_in("fridge_days", 1)),
                freezer_months=int(row.number_in("freezer_months", 0)),
                why=row.text("why"),
            ),
        )
        for row in read_table("perishables.csv")
    )


@cache
def _storage() -> dict[str, Row]:
    return {row.text("form"): row for row in read_table("storage.csv")}


def _room(activity: float, perishables: tuple[Perishable, ...]) -> Row | None:
    """Return the row of ``keeping.csv`` for a water activity; None where it is not kept at room temperature."""
    if perishables and (activity > constant("perishable_room_aw") or any(p.kind == UNCOUNTED for p in perishables)):
        return None
    for row in read_table("keeping.csv"):
        if activity <= row.number_in("water_activity", 0, 1):
            return row
    return None


def _fridge_days(dough: Dough, form: Row, perishables: tuple[Perishable, ...]) -> int:
    days = [int(form.number_in("fridge_days", 1)), *(p.fridge_days for p in perishables)]
    inside = dough.inside
    if inside.dough_g and float(inside.grams @ inside.is_role("egg")) > constant("egg_dish_from") * inside.dough_g:
        days.append(whole_constant("egg_dish_days"))
    return min(days)


def _why(likely: float, room: Row | None, perishables: tuple[Perishable, ...]) -> Wording:
    """Say why: the days go by the wet end of the range, the words by what it most likely is."""
    if room is not None:
        return (_room(likely, perishables) or room).text("why")
    if perishables and perishables[0].kind == UNCOUNTED:
        return perishables[0].why
    if perishables:
        return Message("keeping-it-is-moist-and-holds", value=" and ".join(p.name for p in perishables))
    return Message("keeping-it-is-moist-and-germs")


def _text(
    room: Row | None,
    fridge: int | None,
    months: int,
    chill: int | None,
    form: Row,
    perishables: tuple[Perishable, ...],
    likely: float,
    wet: float,
) -> Wording:
    frozen = Message("keeping-in-the-freezer", count=Message("keeping-months", number=months)) if months else ""
    reason = _why(likely, room, perishables)
    hot = (
        table_text(", until it is {filling_safe_c} inside")
        if room is None and any(p.kind in {"meat", "fish"} for p in perishables)
        else ""
    )
    warm = (
        Message("keeping-to-reheat", form_text=table_text(form.text("reheat")), hot=hot) if form.text("reheat") else ""
    )
    last = Message(
        "keeping-estimated-water-activity-up-to",
        warm=warm,
        likely=Quantity(likely, "number", digits=2),
        wet=Quantity(wet, "number", digits=2),
    )
    if room is not None:
        days = _days(int(room.number_in("room_days", 0)))
        return Message(
            "keeping-keeps-at-room-temperature-why",
            days=days,
            frozen=frozen,
            form_text=form.text("keep"),
            reason=reason,
            last=last,
        )
    cold = Message(
        "keeping-in-the-fridge-why-not",
        count=_days(fridge or 0),
        frozen=frozen,
        form_text=form.text("keep_cold"),
        reason=reason,
        last=last,
    )
    if chill is not None:
        return Message("keeping-put-it-in-the-fridge", chill=chill, cold=cold)
    return Message("keeping-eat-it-on-the-day", cold=cold)


def _days(number: int) -> Wording:
    return Message("keeping-days", number=number)
