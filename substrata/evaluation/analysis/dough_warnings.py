"""Faults in the making: what the figures of a dough say will go wrong with it."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.evaluation.analysis.phrasing import grams, percent, short_name
from substrata.evaluation.analysis.warning_inputs import DoughWarning, WarningInputs
from substrata.evaluation.working_time import short_working_minutes
from substrata.formula.batch.batch_lines import WeighedLine
from substrata.ingredients.groups import is_in_group
from substrata.ingredients.vegetable_drying import drying_numbers
from substrata.process.rheology.handling.handling_forecast import HandlingForecast
from substrata.process.rheology.handling_classes import classes
from substrata.process.rheology.phases import is_solid_fat
from substrata.process.rheology.yeast_kinetics import alive, yeast_lines

_A_FEW = 2  # lines from which it is a dough


def _no_lines(r: WarningInputs) -> Iterator[DoughWarning]:
    if not r.dough.batch.lines:
        yield DoughWarning(code="empty", severity="note", text="No ingredients yet. Add one or paste a list.")
    elif r.dough.batch.dry_base_g <= 0:
        yield DoughWarning(
            code="no-base",
            severity="note",
            text="Add a flour, fiber, or binder: baker's percentages need a dry base.",
        )


def _caps(r: WarningInputs) -> Iterator[DoughWarning]:
    for cap in r.dough.binder.caps:
        if cap.percent > cap.hard_percent:
            yield DoughWarning(
                code=f"{cap.name.replace(' ', '-')}-over-cap",
                severity="act",
                lines=cap.lines,
                text=f"Reduce the {cap.name}: {cap.percent:.1f} % of the dough is above the {cap.hard_percent:g} % limit and makes it {cap.effect}.",
            )
        elif cap.percent > cap.soft_percent:
            yield DoughWarning(
                code=f"{cap.name.replace(' ', '-')}-near-cap",
                severity="note",
                lines=cap.lines,
                text=f"{cap.name.capitalize()} is {cap.percent:.1f} % of the dough. From about {cap.soft_percent:g} to {cap.hard_percent:g} % the dough can turn {cap.effect}.",
            )


def _heat_set(r: WarningInputs) -> Iterator[DoughWarning]:
    share, least = r.dough.binder.heat_set.value, r.dough.binder.heat_set_least
    if r.dough.binder.load.value and least and share < least:
        yield DoughWarning(
            code="heat-set-low",
            severity="note",
            text=f"Add egg, egg white, or whey: only {percent(share)} of the binding sets in the oven. A {r.dough.form.name.lower()} needs {percent(least)}, or it may rise and then sink.",
        )


def _acid_balance(r: WarningInputs) -> Iterator[DoughWarning]:
    lift, dough = r.dough.lift, r.dough.batch.dough_g
    if not dough:
        return
    soda = tuple(w.line.id for w in r.dough.batch.lines if w.ingredient.parameter("soda").value)
    acid = tuple(
        w.line.id for w in r.dough.batch.lines if w.ingredient.parameter("neutralising").value and w.role == "acid"
    )
    excess = 100 * lift.soda_excess_g / dough
    meant = "short" in r.dough.form.traits and excess <= constant("soapy_cookie")
    if excess > constant("soapy_soda") and meant:
        yield DoughWarning(
            code="soda-browns",
            severity="note",
            lines=soda,
            text=f"{grams(lift.soda_excess_g)} of baking soda has no acid to react with. The dough browns and spreads more, which suits some cookies.",
        )
    elif excess > constant("soapy_soda"):
        surely = excess > constant("soapy_surely")
        yield DoughWarning(
            code="soda-unneutralised",
            severity="act" if surely else "note",
            lines=soda,
            text=f"{grams(lift.soda_excess_g)} of soda has nothing to react with: {'soapy taste, brown crumb' if surely else 'you may taste it, and it browns'}. "
            "Use less soda, add an acid, or use baking powder.",
        )
    if acid and lift.soda_g and 100 * lift.acid_excess_g / dough > constant("sour_acid"):
        yield DoughWarning(
            code="acid-left",
            severity="note",
            lines=acid,
            text=f"Reduce the acid or add {grams(lift.acid_excess_g)} of baking soda: the extra acid will taste sour.",
        )


def _handles(r: WarningInputs) -> Iterator[DoughWarning]:
    """Yield what keeps the dough from being shaped as its form wants."""
    cause = r.dough.handling.cause if r.dough.handling else None
    if r.dough.handling is None or cause is None:
        return
    what = {
        "crumbly": "It crumbles",
        "stiff": "Too stiff to shape",
        "cold": "Too cool to shape",
        "wet": "Too soft to shape",
        "chill": "Too soft to shape yet",
    }
    text = what.get(cause.kind, "Not ready yet")
    mild = cause.kind in ("rest", "chill") or _is_batter(r, cause.kind) or _may_fit(r.dough.handling)
    yield DoughWarning(code=f"handling-{cause.kind}", severity="note" if mild else "act", text=f"{text}: {cause.text}.")


def _working_time(r: WarningInputs) -> Iterator[DoughWarning]:
    """Yield a dough of melted cheese that cracks before its pieces can be shaped."""
    minutes = short_working_minutes(r.dough)
    if minutes is None:
        return
    time = f"about {minutes:.0f} min" if minutes >= 1 else "less than a minute"
    yield DoughWarning(
        code="working-time-short",
        severity="act",
        text=f"It cracks after {time} on the work surface: have the oven hot before the cheese melts, shape a piece at a time and "
        "keep the rest warm. More cheese or less flour gives more time.",
    )


def _may_fit(forecast: HandlingForecast) -> bool:
    """Whether it may well be shaped all the same: what is missed by less than its own doubt asks for nothing."""
    if forecast.crumbly >= constant("shapeable_in_doubt"):
        return False
    names = [band.class_name for band in classes()]
    target_classes = names[names.index(forecast.target_low) : names.index(forecast.target_high) + 1]
    return sum(share.probability for share in forecast.probabilities if share.class_name in target_classes) >= constant(
        "shapeable_in_doubt"
    )


def _is_batter(r: WarningInputs, kind: str) -> bool:
    """Whether it is soft on purpose: whipped egg and cheese without any flour are spooned and set in the oven."""
    return (
        kind == "wet" and not r.dough.batch.dry_base_g and not any(w.role == "vegetable" for w in r.dough.batch.lines)
    )


def _greasy(r: WarningInputs) -> Iterator[DoughWarning]:
    """More butter or oil than the dry matter can hold runs out in the oven: the piece spreads and eats greasy (common practice)."""
    batch = r.dough.batch
    fat = batch.is_role("fat") * batch.inside
    share = float(batch.grams @ fat) / batch.dough_g if batch.dough_g else 0.0
    if share > constant("greasy_fat") and batch.dry_base_g:
        yield DoughWarning(
            code="greasy",
            severity="act",
            lines=tuple(w.line.id for w in batch.lines if w.role == "fat"),
            text=f"Reduce the fat: {percent(share)} of the dough is butter or oil, so it spreads flat and tastes greasy. Even rich doughs rarely go above 25 %.",
        )


def _garlic_in_oil(r: WarningInputs) -> Iterator[DoughWarning]:
    """Raw garlic kept in oil can grow botulinum (USDA FSIS; common caution)."""
    lines = tuple(
        w.line.id
        for w in r.dough.batch.lines
        if is_in_group(w.ingredient, "fresh-garlic") and w.role in ("wash", "topping", "filling", "dusting")
    )
    if lines:
        yield DoughWarning(
            code="garlic-oil",
            severity="caution",
            lines=lines,
            text="Garlic in oil or butter can cause botulism. Make it fresh, keep it in the fridge, and use it within 4 days.",
        )


def _sinks(r: WarningInputs) -> Iterator[DoughWarning]:
    """Soft: retention of gas is the least known thing here."""
    if r.dough.lift.strain > 1 and r.dough.lift.gas_ml > 0:
        lines = tuple(w.line.id for w in r.dough.batch.lines if w.role == "lift")
        yield DoughWarning(
            code="may-sink",
            severity="note",
            lines=lines,
            text=f"Use less baking powder or add egg white: the gas needs {r.dough.lift.strain:.1f} times the space this dough can hold, so it may rise and then sink.",
        )


def _cold_water(r: WarningInputs) -> Iterator[DoughWarning]:
    """Yield a cool psyllium dough gives less gel (common practice; sign from the model)."""
    gelled = tuple(w.line.id for w in r.dough.batch.lines if "psyllium" in w.ingredient.flags)
    if gelled and r.dough.handling and r.dough.handling.temperature_c < constant("cool_psyllium"):
        yield DoughWarning(
            code="cool-psyllium",
            severity="note",
            lines=gelled,
            text=f"Use warm liquid (38–45 °C): mixed at {r.dough.handling.temperature_c:.0f} °C, the psyllium forms less gel and the dough stays wet.",
        )


def _hot_yeast(r: WarningInputs) -> Iterator[DoughWarning]:
    """Yeast stirred into a dough of hot cheese does not live (from memory: it stops at 45 to 50 and dies by 58 °C)."""
    yeast = tuple(w.line.id for w in yeast_lines(r.dough.batch))
    warm = r.dough.handling.temperature_c if r.dough.handling else 0.0
    if yeast and alive(warm) < 1:
        yield DoughWarning(
            code="hot-yeast",
            severity="act",
            lines=yeast,
            text=f"Let the cheese cool to about 38 °C before you add the yeast: at {warm:.0f} °C the yeast dies.",
        )


def _gummy(r: WarningInputs) -> Iterator[DoughWarning]:
    score = next((s for s in r.dough.texture.scores if s.key == "gummy"), None) if r.dough.texture else None
    lines = score.terms[0].lines if score and score.terms else ()
    if score and constant("perhaps_gummy_from") <= score.value < constant("gummy_from"):
        yield DoughWarning(
            code="perhaps-gummy",
            severity="note",
            lines=lines,
            text=f"Bake until the crumb is dry, or it may be slightly gummy ({score.value:.0f} out of 10). Cause: {score.terms[0].what}.",
        )
    if score and score.value >= constant("gummy_from"):
        yield DoughWarning(
            code="gummy",
            severity="act",
            lines=lines,
            text=f"Expect a gummy crumb ({score.value:.0f} out of 10). Cause: {score.terms[0].what}. Bake longer or use less of it.",
        )


def _nothing_binds(r: WarningInputs) -> Iterator[DoughWarning]:
    """Warn where nothing binds: a cookie holds by its fat and a crisp by its cheese; all else needs something that sets or gels."""
    batch = r.dough.batch
    if (
        r.dough.unweighed
        or r.dough.binder.load.value > 0
        or len(batch.lines) < _A_FEW
        or any(w.role == "cheese" for w in batch.lines)
    ):
        return
    fat = sum(w.grams.value for w in batch.lines if w.in_dough and is_solid_fat(w.ingredient.id, w.role))
    if "short" in r.dough.form.traits and fat > constant("short_from") * batch.dough_g:
        return
    yield DoughWarning(
        code="nothing-binds",
        severity="act",
        text="Add a binder (egg, egg white, psyllium, flax, or melted cheese), or the dough will fall apart.",
    )


def _not_squeezed(r: WarningInputs) -> Iterator[DoughWarning]:
    """Warn of a shredded vegetable that nothing has dried: it lets its juice go in the oven (common practice)."""
    batch = r.dough.batch
    wet = [w for w in batch.lines if "watery" in w.ingredient.flags and not _is_dried(w)]
    water = float(batch.grams @ (batch.nutrient("water_g")[0] * np.array([float(w in wet) for w in batch.lines])))
    juice = drying_numbers()["expressed_cooked"].value * water
    if batch.dough_g and juice / batch.dough_g > constant("flooding_juice"):
        names = " and ".join(short_name(w.ingredient.name) for w in wet)
        yield DoughWarning(
            code="not-squeezed",
            severity="act",
            lines=tuple(w.line.id for w in wet),
            text=f"Squeeze the {names} first (see Prep): about {grams(juice)} of juice would come out in the oven and make the crust soggy.",
        )


def _is_dried(line: WeighedLine) -> bool:
    """By steps on the Prep station, or in the line's own words."""
    dried = any(act in line.line.treatment.lower() for act in ("squeez", "press", "wrung", "drain", "dried", "dry"))
    return dried or (line.line.prep is not None and bool(line.line.prep.steps))


def _yeast(r: WarningInputs) -> Iterator[DoughWarning]:
    if r.dough.lift.yeast_g and r.dough.lift.sugar_for_yeast_g < r.dough.lift.yeast_g * 0.2:
        lines = tuple(w.line.id for w in r.dough.batch.lines if is_in_group(w.ingredient, "yeast"))
        yield DoughWarning(
            code="yeast-without-sugar",
            severity="note",
            lines=lines,
            text="Add a little sugar if you want the yeast to raise the dough: with almost no sugar it only adds flavor.",
        )


MAKING_RULES = (
    _no_lines,
    _nothing_binds,
    _not_squeezed,
    _caps,
    _handles,
    _working_time,
    _heat_set,
    _sinks,
    _gummy,
    _hot_yeast,
    _greasy,
    _garlic_in_oil,
    _cold_water,
    _acid_balance,
    _yeast,
)
