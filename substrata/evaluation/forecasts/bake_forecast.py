"""What a baker is told of a bake, with its range, and what would change it.

It is a fit, not a validation: times are ranges, and the criterion that decides is named. A surface temperature, a lightness
number or a gram-exact weight is never told as truth.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant
from substrata.base.tables.table_texts import table_text
from substrata.evaluation.dough import Dough
from substrata.evaluation.forecasts.variety_bakes import VarietyBake, variety_bakes
from substrata.formula.bake_settings import is_moment
from substrata.formula.batch.baked_weight import moisture_after, wet_percent
from substrata.formula.form_table import forms
from substrata.ingredients.groups import is_in_group
from substrata.process.baking.bake_case import BakeCase
from substrata.process.baking.bake_picture import BakeSeries, bake_series
from substrata.process.baking.bake_simulation import run
from substrata.process.baking.bake_variations import WhatIf, what_ifs
from substrata.process.baking.doneness import Doneness, never_words
from substrata.process.baking.forecast_interval import Between, between_minutes, design
from substrata.process.baking.oven_questions import OvenSetting, judged, many, settings_of, varied
from substrata.process.baking.simulation.bake_curves import Ran, StageMark
from substrata.process.baking.stage_plan import PlannedStage, StageAddition, planned_stages, stage_additions, stage_name
from substrata.process.rheology.handling.forecast_reliability import bake_rests_on
from substrata.process.rheology.phases import whole_seeds


@dataclass(frozen=True, kw_only=True)
class NamedStage(StageMark):
    """A stage on the time line, with what it is called."""

    name: str
    moment: bool  # takes no time of its own


@dataclass(frozen=True, kw_only=True)
class BakeForecast:
    """What is told of a bake."""

    criterion: str  # that comes last: colour, core, dry, gel, pliable, topping, safe, weight
    decides: Wording  # the same in words
    ready_min: Between | None
    check_min: float | None
    golden_min: float | None
    golden_until_min: float | None
    burnt_min: float | None
    edge_min: float | None  # when the edge is as far
    safe_min: float | None
    safe_c: float | None  # that the core has passed then
    safe_for: str  # what asks for it: egg, filling, poultry, meat, fish, or nothing
    core_c_at_ready: float | None
    hot_loss_percent: Between | None  # of its weight, as it leaves the oven
    loss_percent: Between | None  # of its weight, when it is cool: what is eaten, packed and declared
    moisture_percent: float | None
    bake_to_g: Between | None  # the whole batch, hot from the oven
    bake_to_piece_g: float | None
    carry_over_c: float | None  # core temperature at most, while it rests
    dark: bool  # colored before the oven: its color is no sign
    fried: bool  # in oil: dial and really are the oil's
    oven: Wording
    oven_c: float
    really_c: float  # by what is known of this oven
    stages: tuple[NamedStage, ...]
    planned: tuple[PlannedStage, ...]  # as a document would hold them, ready to be changed
    additions: tuple[StageAddition, ...]  # what adding a stage makes of them
    series: BakeSeries
    what_ifs: tuple[WhatIf, ...]
    settings: tuple[OvenSetting, ...]  # other temperatures for this thickness
    flags: tuple[Wording, ...]  # what goes wrong
    weak_spots: tuple[Wording, ...]  # where the forecast is least sure
    cautions: tuple[Wording, ...]
    sureness: Wording
    rests_on: Wording  # the practice behind it
    sorts: tuple[VarietyBake, ...]  # of a dough that is made into several, the first that is done first
    text: Wording


def forecast_bake(dough: Dough, *, further: bool = True) -> BakeForecast | None:
    """Forecast the bake of a dough in its oven. A pure function.

    Args:
        dough: what is baked.
        further: tell what would change it too: what-ifs and other settings, which are half of the work.

    Returns:
        The forecast; None while there is no dough.
    """
    formula, batch, profile = dough.formula, dough.batch, dough.profile
    if batch.dough_g <= 0:
        return None
    case = dough.case
    done, whole = judged(case)
    shown_until = _horizon(done, whole)
    draws = many(varied(case, formula.form, design()))
    ready = between_minutes(done.ready, [d.ready for d in draws])
    wet, losses = wet_percent(batch), dough.loss_forecast
    loss, cooled = (losses.hot, losses.cool) if losses else (None, None)
    out = done.ready if done.ready is not None else shown_until
    rested = run(case, until_min=out, rest=True)
    weight, oil = batch.whole_g, dough.baked.fat_absorbed_g
    bake_to = None
    if loss:
        # Where the loss itself decides, what is left to doubt is the scale and the evaporation before the oven.
        half = max(weight * (loss.high - loss.best), constant("baked_weight_doubt") * weight)
        best = weight * (1 - loss.best) + oil
        bake_to = Between(low=best - half, best=best, high=best + half)
    edge = next(iter(many([case.rim()]))) if case.piece.kind in ("round", "cut", "rect") else None
    forecast = _Sentences(
        case=case,
        done=done,
        ready=ready,
        edge=edge,
        bake_to=bake_to,
        marks=whole.marks,
        open_from=whole.open_from,
        dark=is_dark(dough),
    )
    marks = _marks(whole, out, rested)
    planned = planned_stages(formula.bake.stages, [mark for mark in marks if mark.kind != "rest"])
    return BakeForecast(
        criterion=done.decides,
        decides=_DECIDES[done.decides],
        ready_min=ready,
        check_min=_check(ready, whole.open_from),
        golden_min=done.gold,
        golden_until_min=done.gold_until,
        burnt_min=done.burnt,
        edge_min=edge.ready if edge else None,
        safe_min=done.safe,
        safe_c=case.safe_c,
        safe_for=case.safe_for,
        core_c_at_ready=done.core_c,
        hot_loss_percent=_percent(loss),
        loss_percent=_percent(cooled),
        moisture_percent=moisture_after(wet, cooled.best) if cooled else None,
        bake_to_g=bake_to,
        bake_to_piece_g=bake_to.best / formula.pieces if bake_to else None,
        carry_over_c=float(rested.core_c[rested.minutes >= out].max()),
        dark=forecast.dark,
        fried=case.fried,
        oven=profile.text,
        oven_c=case.oven_c,
        really_c=case.oven_c if case.fried else case.oven_c + case.offset_k,
        stages=_named(marks, fried=case.fried),
        planned=planned,
        additions=stage_additions(planned, done.ready, fried=case.fried),
        series=bake_series(case, run(case, until_min=shown_until, keep_s=max(shown_until * 60 / 240, 1.0))),
        what_ifs=what_ifs(case, dough.settings.units) if further else (),
        settings=settings_of(case, dough.settings.units) if further else (),
        flags=_flags(forecast),
        weak_spots=_weak_spots(case, done_by_gel=done.decides == "gel", seeds=whole_seeds(dough.inside)),
        cautions=_cautions(case),
        sureness=Message("bake-forecast-log-a-bake-to-narrow")
        if not profile.bakes
        else Message("bake-forecast-the-range-is-based-on"),
        rests_on=bake_rests_on(dough.kind, done.ready, profile.bakes),
        sorts=variety_bakes(dough),
        text=_text(forecast),
    )


def is_dark(dough: Dough) -> bool:
    """Whether a dough is as dark before the oven as others are after it."""
    batch = dough.inside
    dark = sum(w.grams.value for w in batch.lines if is_in_group(w.ingredient, "dark"))
    return batch.dough_g > 0 and dark >= constant("dark_dough") * batch.dough_g


def _percent(share: Between | None) -> Between | None:
    return Between(low=100 * share.low, best=100 * share.best, high=100 * share.high) if share else None


def _check(ready: Between | None, open_from: float) -> float | None:
    """From when bakers look: three quarters of the time or the earliest it may be, but not as the last stage begins."""
    if ready is None:
        return None
    return max(min(constant("check_from") * ready.best, ready.low), open_from + 0.4 * (ready.best - open_from))


def _horizon(done: Doneness, ran: Ran) -> float:
    """How far the picture goes: somewhat beyond the burnt moment, or twice the bake."""
    end = float(ran.minutes[-1])
    if done.ready is None:
        return min(done.burnt * 1.1 if done.burnt else end, end)
    minutes = max(done.ready * 1.35, done.gold_until or 0.0)
    if done.burnt and done.burnt < 1.7 * done.ready:
        minutes = max(minutes, done.burnt * 1.05)
    return min(minutes, end)


def _marks(whole: Ran, out: float, rested: Ran) -> tuple[StageMark, ...]:
    """Return the stages with the open one ended where it is taken out, and the rest after it."""
    rows: list[StageMark] = []
    for mark in whole.marks:
        if mark.start_min > out:
            continue
        rows.append(replace(mark, end_min=min(mark.end_min, out)))
    return (*rows, *(m for m in rested.marks if m.kind == "rest"))


def _named(marks: tuple[StageMark, ...], *, fried: bool) -> tuple[NamedStage, ...]:
    return tuple(
        NamedStage(**vars(mark), name=stage_name(mark.kind, fried=fried), moment=is_moment(mark.kind)) for mark in marks
    )


_DECIDES: dict[str, Wording] = {
    "colour": Message("bake-forecast-color-the-core-is-done"),
    "core": Message("bake-forecast-the-core-temperature"),
    "dry": "dryness",
    "gel": Message("bake-forecast-the-crumb-which-has-to"),
    "pliable": Message("bake-forecast-flexibility-it-must-still-bend"),
    "topping": Message("bake-forecast-the-topping"),
    "safe": Message("bake-forecast-a-food-safe-center"),
    "weight": Message("bake-forecast-your-target-weight"),
}
_WORD: dict[str, Wording] = {
    "colour": "golden",
    "core": "done",
    "dry": Message("bake-forecast-dry-and-golden"),
    "gel": Message("bake-forecast-dry-enough"),
    "pliable": "pliable",
    "topping": "melted",
    "safe": "done",
    "weight": Message("bake-forecast-at-your-target-weight"),
}
_LONG = ("core", "gel", "weight", "safe")  # decided by the inside: the colour follows


@dataclass(frozen=True, kw_only=True)
class _Sentences:
    case: BakeCase
    done: Doneness
    ready: Between | None
    edge: Doneness | None
    bake_to: Between | None
    marks: tuple[StageMark, ...]
    open_from: float
    dark: bool


def _flags(t: _Sentences) -> tuple[Wording, ...]:
    """Where the model is known to be weak, or the bake goes wrong."""
    rows: list[Wording] = []
    done, case = t.done, t.case
    if done.ready is None:
        rows.append(Message("bake-forecast-these-settings-do-not-work", never_words=never_words(done.decides)))
    elif done.burnt is not None and done.burnt < done.ready:
        rows.append(Message("bake-forecast-make-it-thinner-or-bake"))
    if done.ready is not None and done.decides in _LONG and (done.gold is None or done.gold > done.ready * 1.1):
        gold = Message("bake-forecast-golden-from-min", minutes=_minutes(done.gold)) if done.gold else ""
        rows.append(Message("bake-forecast-use-a-wash-or-a", gold=gold))
    usual = forms()[case.form.id].oven_c
    if not case.fried and case.oven_c > usual + constant("oven_far_k"):
        rows.append(Message("bake-forecast-oven-far-too-hot", usual=Quantity(usual, "C", digits=0)))
    if not case.fried and not case.form.asks_dry and case.oven_c < usual - constant("oven_far_k"):
        rows.append(Message("bake-forecast-oven-far-too-cool", usual=Quantity(usual, "C", digits=0)))
    if case.fried and case.oven_c < constant("oil_greasy_c"):
        rows.append(Message("bake-forecast-heat-the-oil-to-c"))
    if case.fried and case.oven_c > constant("oil_dark_c"):
        rows.append(Message("bake-forecast-cool-the-oil-to-c"))
    if case.fried and case.piece.too_thick_to_fry:
        rows.append(Message("bake-forecast-make-it-thinner-at-this"))
    return tuple(rows)


def _weak_spots(case: BakeCase, *, done_by_gel: bool, seeds: float) -> tuple[Wording, ...]:
    """Where this forecast was least sure in its own study."""
    rows: list[Wording] = []
    if "thin-sheet" in forms()[case.form.id].traits and case.wet_percent > constant("very_wet_sheet"):
        rows.append(Message("bake-forecast-less-certain-thin-very-wet"))
    if case.gel_water is not None and case.form.asks_dry and seeds > constant("many_seeds"):
        rows.append(Message("bake-forecast-less-certain-whole-seeds-in"))
    if case.gel_water is not None and done_by_gel:
        rows.append(Message("bake-forecast-less-certain-few-psyllium-bakes"))
    if any(stage.kind == "top" for stage in case.stages):
        rows.append(Message("bake-forecast-rough-forecast-with-a-topping"))
    return tuple(rows)


def _cautions(case: BakeCase) -> tuple[Wording, ...]:
    rows: list[Wording] = []
    if case.filling is not None:
        rows.append(
            table_text(
                "Filling: heat it to {filling_safe_c} in the center. Let it stand before eating: the steam is hotter than the crust."
            )
        )
    if case.safe_for in ("poultry", "meat", "fish"):
        rows.append(Message("bake-forecast-raw-flesh", safe_for=case.safe_for, core=Quantity(case.safe_c or 0.0, "C")))
    if case.safe_for == "egg":
        rows.append(
            table_text(
                "Egg: bake to {egg_safe_c} in the center. Only a thermometer can confirm this. Local food rules come first."
            )
        )
    if case.fried:
        rows.append(Message("bake-forecast-hot-oil-never-leave-it"))
    return tuple(rows)


def _text(t: _Sentences) -> Wording:
    """Check at 14 min; gold at about 16; burnt two minutes after; core safe at 9; take out at 412 g."""
    done = t.done
    if t.ready is None or done.ready is None:
        return Message("bake-forecast-this-bake-has-no-forecast")
    parts: list[Wording] = []
    early = [m for m in t.marks if m.kind in ("flip", "top")]
    if early:
        words = " and ".join(dict.fromkeys(m.kind for m in early))
        parts.append(Message("bake-forecast-at-min-2", words=words.capitalize(), minutes=_minutes(early[0].start_min)))
    parts.append(
        Message(
            "bake-forecast-at-min",
            parts="yes" if parts else "no",
            minutes=_minutes(_check(t.ready, t.open_from) or 0.0),
        )
    )
    word = "done" if t.dark and t.done.decides in ("colour", "dry") else _WORD[t.done.decides]
    parts.append(
        Message(
            "bake-forecast-at-about-min-in-bakes",
            word=word,
            minutes=_minutes(done.ready),
            minutes_2=_minutes(t.ready.low),
            minutes_3=_minutes(t.ready.high),
        )
    )
    if done.burnt is not None:
        minutes = _minutes(max(done.burnt - done.ready, 0.0))
        parts.append(Message("bake-forecast-burns-about-min-later", minutes=minutes))
    if done.safe is not None:
        parts.append(Message("bake-forecast-core-is-food-safe-at", minutes=_minutes(done.safe)))
    if t.edge is not None and t.edge.ready is not None and t.edge.ready < constant("edge_sooner") * done.ready:
        sooner = _minutes(t.edge.ready)
        if sooner != _minutes(done.ready):
            parts.append(
                Message("bake-forecast-take-the-outer-pieces-out", sooner=sooner)
                if t.case.piece.kind == "cut"
                else Message("bake-forecast-edges-done-at-min", sooner=sooner)
            )
    if t.bake_to is not None:
        parts.append(Message("bake-forecast-take-it-out-when-the", best=Quantity(t.bake_to.best, "g", digits=0)))
    return Joined((Joined(parts, "; "), "."), "")


def _minutes(value: float) -> str:
    """Minutes as one says them: halves below ten, whole above.

    >>> _minutes(2.4), _minutes(16.4)
    ('2½', '16')

    Returns:
        Text with its unit.
    """
    if value >= 10:
        return f"{value:.0f}"
    halves = round(value * 2)
    whole, half = divmod(halves, 2)
    return f"{whole or ''}½" if half else f"{whole}"
