"""Faults in the making: what the figures of a dough say will go wrong with it."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from substrata.base.messages.message import Listing, Message
from substrata.base.messages.quantity import Quantity, in_grams, in_percent
from substrata.base.tables.table_reader import constant
from substrata.evaluation.analysis.phrasing import short_name
from substrata.evaluation.analysis.warning_inputs import DoughWarning, WarningInputs
from substrata.evaluation.working_time import short_working_minutes
from substrata.formula.batch.batch_lines import WeighedLine
from substrata.ingredients.groups import is_in_group
from substrata.ingredients.vegetable_drying import drying_numbers
from substrata.process.rheology.cheese import runny_cheese_share
from substrata.process.rheology.handling.handling_forecast import HandlingForecast
from substrata.process.rheology.handling_classes import classes
from substrata.process.rheology.phases import is_solid_fat
from substrata.process.rheology.yeast_kinetics import alive, yeast_lines
from substrata.process.shaping.piece import usual_thickness

_A_FEW = 2  # lines from which it is a dough


def _no_lines(r: WarningInputs) -> Iterator[DoughWarning]:
    if not r.dough.batch.lines:
        yield DoughWarning(code="empty", severity="note", text=Message("dough-warnings-no-ingredients-yet-add-one"))
    elif r.dough.batch.dry_base_g <= 0:
        yield DoughWarning(
            code="no-base",
            severity="note",
            text=Message("dough-warnings-add-a-flour-fiber-or"),
        )


def _caps(r: WarningInputs) -> Iterator[DoughWarning]:
    for cap in r.dough.binder.caps:
        if cap.percent > cap.hard_percent:
            yield DoughWarning(
                code=f"{cap.name.replace(' ', '-')}-over-cap",
                severity="act",
                lines=cap.lines,
                text=Message(
                    "dough-warnings-reduce-the-of-the-dough",
                    cap_name=cap.name,
                    percent=Quantity(cap.percent, "%", digits=1),
                    hard=Quantity(cap.hard_percent, "%", digits=-1),
                    effect=cap.effect,
                ),
            )
        elif cap.percent > cap.soft_percent:
            yield DoughWarning(
                code=f"{cap.name.replace(' ', '-')}-near-cap",
                severity="note",
                lines=cap.lines,
                text=Message(
                    "dough-warnings-is-of-the-dough-from",
                    cap_name=cap.name.capitalize(),
                    percent=Quantity(cap.percent, "%", digits=1),
                    soft=Quantity(cap.soft_percent, "%", high=cap.hard_percent, digits=-1),
                    effect=cap.effect,
                ),
            )


def _heat_set(r: WarningInputs) -> Iterator[DoughWarning]:
    share, least = r.dough.binder.heat_set.value, r.dough.binder.heat_set_least
    if r.dough.binder.load.value and least and share < least:
        yield DoughWarning(
            code="heat-set-low",
            severity="note",
            text=Message(
                "dough-warnings-add-egg-egg-white-or",
                share=in_percent(share),
                form_name=r.dough.form.name.lower(),
                least=in_percent(least),
            ),
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
            text=Message("dough-warnings-of-baking-soda-has-no", soda_excess=in_grams(lift.soda_excess_g)),
        )
    elif excess > constant("soapy_soda"):
        surely = excess > constant("soapy_surely")
        yield DoughWarning(
            code="soda-unneutralised",
            severity="act" if surely else "note",
            lines=soda,
            text=Message(
                "dough-warnings-of-soda-has-nothing-to",
                soda_excess=in_grams(lift.soda_excess_g),
                surely="yes" if surely else "no",
            ),
        )
    if acid and lift.soda_g and 100 * lift.acid_excess_g / dough > constant("sour_acid"):
        yield DoughWarning(
            code="acid-left",
            severity="note",
            lines=acid,
            text=Message("dough-warnings-reduce-the-acid-or-add", acid_excess=in_grams(lift.acid_excess_g)),
        )


def _handles(r: WarningInputs) -> Iterator[DoughWarning]:
    """Yield what keeps the dough from being shaped as its form wants."""
    cause = r.dough.handling.cause if r.dough.handling else None
    if r.dough.handling is None or cause is None:
        return
    if cause.kind == "crumbly" and runny_cheese_share(r.dough.inside) >= constant("lace_from"):
        return  # strewn on a tray, and held by what melts
    what = {
        "crumbly": Message("dough-warnings-it-crumbles"),
        "stiff": Message("dough-warnings-too-stiff-to-shape"),
        "cold": Message("dough-warnings-too-cool-to-shape"),
        "wet": Message("dough-warnings-too-soft-to-shape"),
        "chill": Message("dough-warnings-too-soft-to-shape-yet"),
    }
    text = what.get(cause.kind, "Not ready yet")
    mild = cause.kind in ("rest", "chill") or _is_batter(r, cause.kind) or _may_fit(r.dough.handling)
    yield DoughWarning(
        code=f"handling-{cause.kind}",
        severity="note" if mild else "act",
        text=Message("dough-warnings-parts", text=text, cause_text=cause.text),
    )


def _working_time(r: WarningInputs) -> Iterator[DoughWarning]:
    """Yield a dough of melted cheese that cracks before its pieces can be shaped."""
    minutes = short_working_minutes(r.dough)
    if minutes is None:
        return
    time = (
        Message("dough-warnings-about-min", minutes=Quantity(minutes, "min", digits=0))
        if minutes >= 1
        else Message("dough-warnings-less-than-a-minute")
    )
    yield DoughWarning(
        code="working-time-short",
        severity="act",
        text=Message("dough-warnings-it-cracks-after-on-the", time=time),
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
    rich = "short" in r.dough.form.traits or r.dough.form.dough_kind == "batter"
    if share > constant("greasy_fat" if rich else "greasy_fat_lean") and batch.dry_base_g:
        yield DoughWarning(
            code="greasy",
            severity="act",
            lines=tuple(w.line.id for w in batch.lines if w.role == "fat"),
            text=Message("dough-warnings-reduce-the-fat-of-the", share=in_percent(share)),
        )


def _too_large(r: WarningInputs) -> Iterator[DoughWarning]:
    """Yield a sheet far thicker than its shape is, and a piece so heavy that it is another thing."""
    piece, form = r.dough.piece, r.dough.form
    if "thin-sheet" in form.traits or "crisp-sheet" in form.traits:
        usual = usual_thickness(r.dough.batch, r.dough.formula)
        if piece.thickness_mm > constant("too_thick") * usual:
            yield DoughWarning(
                code="too-thick",
                severity="act",
                text=Message(
                    "dough-warnings-too-thick",
                    thickness=Quantity(piece.thickness_mm, "mm", digits=0),
                    usual=Quantity(usual, "mm", digits=1),
                    form=form.name.lower(),
                ),
            )
    if form.piece_most_g is not None and piece.dough_g > form.piece_most_g:
        yield DoughWarning(
            code="piece-too-heavy",
            severity="act",
            text=Message(
                "dough-warnings-piece-too-heavy",
                mass=in_grams(piece.dough_g, 0),
                form=form.name.lower(),
                most=in_grams(form.piece_most_g, 0),
            ),
        )


def _does_not_melt(r: WarningInputs) -> Iterator[DoughWarning]:
    """Yield cheese that is to be melted for the dough and does not melt: acid or brine has set it."""
    if r.dough.formula.mix.cheese != "melted":
        return
    batch = r.dough.batch
    firm = {
        w.line.id: w.ingredient.name.partition(",")[0].lower()
        for w in batch.lines
        if w.in_dough and w.role == "cheese" and w.ingredient.parameter("melt").value < constant("oils_out")
    }
    grams = sum(w.grams.value for w in batch.lines if w.line.id in firm)
    if grams > constant("cheese_dough") * batch.dough_g:
        yield DoughWarning(
            code="does-not-melt",
            severity="act",
            lines=tuple(firm),
            text=Message("dough-warnings-does-not-melt", names=Listing([*dict.fromkeys(firm.values())])),
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
            text=Message("dough-warnings-garlic-in-oil-or-butter"),
        )


def _sinks(r: WarningInputs) -> Iterator[DoughWarning]:
    """Soft: retention of gas is the least known thing here."""
    if r.dough.lift.strain > 1 and r.dough.lift.gas_ml > 0:
        lines = tuple(w.line.id for w in r.dough.batch.lines if w.role == "lift")
        yield DoughWarning(
            code="may-sink",
            severity="note",
            lines=lines,
            text=Message(
                "dough-warnings-use-less-baking-powder-or", strain=Quantity(r.dough.lift.strain, "number", digits=1)
            ),
        )


def _cold_water(r: WarningInputs) -> Iterator[DoughWarning]:
    """Yield a cool psyllium dough gives less gel (common practice; sign from the model)."""
    gelled = tuple(w.line.id for w in r.dough.batch.lines if "psyllium" in w.ingredient.flags)
    if gelled and r.dough.handling and r.dough.handling.temperature_c < constant("cool_psyllium"):
        yield DoughWarning(
            code="cool-psyllium",
            severity="note",
            lines=gelled,
            text=Message(
                "dough-warnings-use-warm-liquid-c-mixed",
                temperature=Quantity(r.dough.handling.temperature_c, "C", digits=0),
            ),
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
            text=Message("dough-warnings-let-the-cheese-cool-to", warm=Quantity(warm, "C", digits=0)),
        )


def _gummy(r: WarningInputs) -> Iterator[DoughWarning]:
    score = next((s for s in r.dough.texture.scores if s.key == "gummy"), None) if r.dough.texture else None
    lines = score.terms[0].lines if score and score.terms else ()
    if score and constant("perhaps_gummy_from") <= score.value < constant("gummy_from"):
        yield DoughWarning(
            code="perhaps-gummy",
            severity="note",
            lines=lines,
            text=Message(
                "dough-warnings-bake-until-the-crumb-is",
                score=Quantity(score.value, "number", digits=0),
                what=score.terms[0].what,
            ),
        )
    if score and score.value >= constant("gummy_from"):
        yield DoughWarning(
            code="gummy",
            severity="act",
            lines=lines,
            text=Message(
                "dough-warnings-expect-a-gummy-crumb-out",
                score=Quantity(score.value, "number", digits=0),
                what=score.terms[0].what,
            ),
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
        text=Message("dough-warnings-add-a-binder-egg-egg"),
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
            text=Message("dough-warnings-squeeze-the-first-see-prep", names=names, juice=in_grams(juice)),
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
            text=Message("dough-warnings-add-a-little-sugar-if"),
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
    _too_large,
    _does_not_melt,
    _garlic_in_oil,
    _cold_water,
    _acid_balance,
    _yeast,
)
