"""What is to be done for a formula before and while mixing, one card a thing, in order of work."""

from __future__ import annotations

from collections.abc import Iterator

from substrata.base.messages.message import Joined, Message
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import read_table
from substrata.evaluation.dough import Dough
from substrata.evaluation.forecasts.mixing_method import mixing_steps
from substrata.evaluation.forecasts.preparation_task import PrepPlan, PrepTask, WorkSurface
from substrata.evaluation.working_time import usual_thickness
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.weighed_lines import is_fried
from substrata.formula.form_table import roles
from substrata.ingredients.groups import is_in_group
from substrata.process.preparation.frying_fats import frying_fats
from substrata.process.preparation.gel_filling import gels
from substrata.process.preparation.microwave import Warmed, bursts
from substrata.process.preparation.premix import premix
from substrata.process.preparation.preparation_inputs import number_set, prep_input
from substrata.process.preparation.vegetable_stages import is_wet_vegetable, vegetable_drying
from substrata.process.preparation.water_temperature import water_for
from substrata.process.preparation.yeast_activation import waking
from substrata.process.rheology.dough_temperature import heat_capacities
from substrata.process.rheology.phases import phase_of
from substrata.process.rheology.yeast_kinetics import yeast_number


def plan_preparation(dough: Dough) -> PrepPlan:
    """Return what is to be done for a dough before and while mixing. A pure function."""
    room = tuple(prep_input(dough.formula, key) for key in ("room_c", "fridge_c", "microwave_watts"))
    makers = (_vegetables, _yeast, _premix, _water, _melt, _mix, _on_the_surface, _rewarm, _gel, _fry)
    bench = WorkSurface(dough=dough, handling=dough.handling) if dough.handling else None
    return PrepPlan(
        dough_kind=dough.kind,
        room=room,
        tasks=tuple(card for make in makers for card in make(bench)) if bench else (),
        problems=dough.problems,
    )


def _premix(b: WorkSurface) -> Iterator[PrepTask]:
    codes = {role.id: role.code for role in roles().values()}
    result = premix(b.dough.batch, int(number_set(b.formula, "batches")), codes)
    if result is None:
        return
    yield PrepTask(
        kind="premix",
        title=Message("preparation-forecast-mix-the-dry-ingredients"),
        text=Message(
            "preparation-forecast-g-per-batch-g-of",
            per_batch=Quantity(result.per_batch_g, "g", digits=0),
            whole=Quantity(result.whole_g, "g", digits=0),
            batches=result.batches,
        ),
        lines=tuple(part.line for part in result.parts),
        inputs=(prep_input(b.formula, "batches"),),
        steps=(Message("preparation-forecast-sift-or-whisk-until-even", keeps=result.keeps),),
        cautions=result.cautions,
        confidence="computed",
        premix=result,
    )


def _vegetables(b: WorkSurface) -> Iterator[PrepTask]:
    for line in b.dough.batch.lines:
        if is_wet_vegetable(line):
            card = vegetable_drying(line)
            yield PrepTask(
                kind="vegetable",
                title=Message(
                    "preparation-forecast-dry-the", ingredient_name=line.ingredient.name.partition(",")[0].lower()
                ),
                text=card.text,
                lines=(line.line.id,),
                inputs=(),
                steps=(Message("preparation-forecast-rice-or-shred-it-squeeze"),) if card.steps else (),
                cautions=(),
                confidence=Message("preparation-forecast-rule-of-thumb"),
                vegetable=card,
            )


def _yeast(b: WorkSurface) -> Iterator[PrepTask]:
    lines = [w for w in b.dough.batch.lines if w.ingredient.parameter("yeast_rate").value > 0]
    if not lines:
        return
    sugar = sum(w.grams.value for w in b.inside.lines if "sugar" in w.ingredient.flags)
    result = waking(
        # Fresh yeast counts as the dry yeast that does the same work.
        sum(w.grams.value * w.ingredient.parameter("yeast_rate").value for w in lines) / yeast_number("rate_30c").value,
        number_set(b.formula, "yeast_c"),
        number_set(b.formula, "yeast_minutes"),
        number_set(b.formula, "yeast_sugar_g", sugar),
    )
    yield PrepTask(
        kind="yeast",
        title=Message("preparation-forecast-activate-the-yeast"),
        text=result.text,
        lines=tuple(w.line.id for w in lines),
        inputs=(
            *(prep_input(b.formula, key) for key in ("yeast_c", "yeast_minutes")),
            prep_input(b.formula, "yeast_sugar_g", sugar),
        ),
        steps=(Message("preparation-forecast-stir-sugar-and-yeast-into"),),
        cautions=(),
        confidence=Message("preparation-forecast-rule-of-thumb"),
        yeast=result,
    )


def _water(b: WorkSurface) -> Iterator[PrepTask]:
    lines = [w for w in b.inside.lines if is_in_group(w.ingredient, "water") and w.grams.value > 0]
    if not lines:
        return
    largest = max(lines, key=lambda w: w.grams.value)
    target_c = number_set(b.formula, "dough_c", round(b.handling.temperature_c))
    egg = any(w.role == "egg" for w in b.inside.lines)
    result = water_for(b.heat, largest.line.id, target_c, room_c=b.room_c, has_egg=egg)
    if result.within:
        text = Message(
            "preparation-forecast-g-of-water-at-c",
            grams=Quantity(largest.grams.value, "g", digits=0),
            water=Quantity(result.water_c, "C", digits=0),
            target=Quantity(target_c, "C", digits=0),
        )
    else:
        side = (
            Message("preparation-forecast-boiling-hot")
            if result.water_c > result.limit_c
            else Message("preparation-forecast-ice-cold")
        )
        reach = Message(
            "preparation-forecast-c-the-limit-gives-c",
            limit=Quantity(result.limit_c, "C", digits=0),
            egg="yes" if egg else "no",
            dough_at_limit=Quantity(result.dough_at_limit_c, "C", digits=0),
        )
        text = Message(
            "preparation-forecast-warm-or-chill-the-other",
            target=Quantity(target_c, "C", digits=0),
            side=side,
            reach=reach if result.water_c > result.limit_c else "",
        )
    gelled = any("psyllium" in w.ingredient.flags for w in b.inside.lines)
    cautions = (Message("preparation-forecast-use-liquid-at-c-cooler"),) if gelled else ()
    yield PrepTask(
        kind="water",
        title=Message("preparation-forecast-warm-the-water"),
        text=text,
        lines=(largest.line.id,),
        inputs=(prep_input(b.formula, "dough_c", target_c),),
        steps=(),
        cautions=(*cautions, *((Message("preparation-forecast-stay-below-c-if-there"),) if egg else ())),
        confidence="computed",
        water=result,
    )


def _melt(b: WorkSurface) -> Iterator[PrepTask]:
    if not b.melts:
        return
    rows = [
        n
        for n, w in enumerate(b.inside.lines)
        if phase_of(w).name == "cheese" or is_in_group(w.ingredient, "melted-with-cheese")
    ]
    matter = _warmed(b.inside, rows)
    fridge, aim = number_set(b.formula, "fridge_c"), number_set(b.formula, "melt_to_c")
    watts, length = number_set(b.formula, "microwave_watts"), number_set(b.formula, "burst_seconds")
    result = bursts(matter, fridge, aim, watts=watts, burst_s=length)
    yield PrepTask(
        kind="melt",
        title=Message("preparation-forecast-melt-the-cheese"),
        text=Message(
            "preparation-forecast-g-from-the-fridge-bursts",
            grams=Quantity(matter.grams, "g", digits=0),
            bursts=len(result.bursts),
            seconds=Quantity(result.seconds, "number", digits=0),
            low=Quantity(result.low_s, "number", digits=0),
            high=Quantity(result.high_s, "number", digits=0),
        ),
        lines=tuple(b.inside.lines[n].line.id for n in rows),
        inputs=tuple(prep_input(b.formula, key) for key in ("burst_seconds", "melt_to_c")),
        steps=(Message("preparation-forecast-stop-when-the-cheese-flows"),),
        cautions=(Message("preparation-forecast-careful-hot-cheese-burns"),),
        confidence="computed",
        bursts=result,
    )


def _warmed(batch: Batch, rows: list[int]) -> Warmed:
    held, fat = heat_capacities(batch), batch.grams * batch.nutrient("fat_g")[0]
    return Warmed(grams=float(batch.grams[rows].sum()), j_per_k=float(held[rows].sum()), fat_g=float(fat[rows].sum()))


def _mix(b: WorkSurface) -> Iterator[PrepTask]:
    yield PrepTask(
        kind="mix",
        title="Mix",
        text=b.handling.text,
        lines=(),
        inputs=(),
        steps=tuple(step.text for step in mixing_steps(b.dough)),
        cautions=(Message("preparation-forecast-raw-egg-do-not-taste"),)
        if any(w.role == "egg" for w in b.inside.lines)
        else (),
        confidence=Message("preparation-forecast-rule-of-thumb"),
    )


def _on_the_surface(b: WorkSurface) -> Iterator[PrepTask]:
    """Yield the clock only runs for a dough that is warmer than the room and minds it."""
    result = b.dough.surface_cooling
    if result is None or result.until_c is None:
        return
    until, usual = result.until_c, usual_thickness(b.dough)
    if result.minutes is None:
        text = Message(
            "preparation-forecast-the-dough-stays-workable-in",
            until=Quantity(until, "C", digits=0),
            room=Quantity(b.room_c, "C", digits=0),
        )
    elif result.minutes <= 0:
        text = Message("preparation-forecast-warm-the-piece-you-are", until=Quantity(until, "C", digits=0))
    else:
        low, high = f"{result.low_min:.0f}", f"{result.high_min:.0f}"
        span = Message("preparation-forecast-to-min", low=low, high=high) if low != high else ""
        text = Message(
            "preparation-forecast-min-to-shape-before-it",
            minutes=Quantity(result.minutes, "min", digits=0),
            span=span,
            start=Quantity(result.start_c, "C", digits=0, bare=True),
            until=Quantity(until, "C", digits=0),
        )
    yield PrepTask(
        kind="bench",
        title=Message("preparation-forecast-time-to-shape"),
        text=text,
        lines=(),
        inputs=(
            prep_input(b.formula, "cool_shape"),
            prep_input(b.formula, "cool_mm", usual),
            prep_input(b.formula, "cool_on"),
        ),
        steps=(),
        cautions=(),
        confidence="computed",
        cooling=result,
    )


def _rewarm(b: WorkSurface) -> Iterator[PrepTask]:
    """Warming one piece again, once it has gone stiff."""
    until = b.handling.brittle_below_c
    if until is None:
        return
    share = 1 / b.formula.pieces
    whole = _warmed(b.inside, list(range(len(b.inside.lines))))
    piece = Warmed(grams=whole.grams * share, j_per_k=whole.j_per_k * share, fat_g=whole.fat_g * share)
    aim = max(number_set(b.formula, "warm_to_c"), until)
    watts = number_set(b.formula, "microwave_watts")
    start = max(b.room_c, min(until - 5, aim))
    result = bursts(piece, start, aim, watts=watts, burst_s=min(number_set(b.formula, "burst_seconds"), 15.0))
    all_of_it = bursts(whole, start, aim, watts=watts, burst_s=15.0)
    yield PrepTask(
        kind="rewarm",
        title=Message("preparation-forecast-warm-a-piece-again"),
        text=Message(
            "preparation-forecast-warm-only-the-piece-you",
            grams=Quantity(piece.grams, "g", digits=0),
            start=Quantity(start, "C", digits=0, bare=True),
            aim=Quantity(aim, "C", digits=0),
            seconds=Quantity(result.seconds, "number", digits=0),
            seconds_2=Quantity(all_of_it.seconds, "number", digits=0),
        ),
        lines=(),
        inputs=(prep_input(b.formula, "warm_to_c", aim),),
        steps=(Message("preparation-forecast-rewarm-as-seldom-as-possible"),),
        cautions=(Message("preparation-forecast-knead-before-you-touch-it"),),
        confidence="computed",
        bursts=result,
    )


def _gel(b: WorkSurface) -> Iterator[PrepTask]:
    """Shown where a filling is usual, or one is wanted."""
    if not b.dough.form.filled and "gel_percent" not in b.formula.prep:
        return
    percent = b.formula.prep.get("gel_percent")
    water = number_set(b.formula, "gel_water_g")
    result = gels(water, None if percent is None else float(percent))
    first = result[0]
    yield PrepTask(
        kind="gel",
        title=Message("preparation-forecast-a-gel-filling"),
        text=Message(
            "preparation-forecast-for-liquid-one-of",
            water=Quantity(water, "g", digits=0),
            gels=Joined(
                [
                    Message(
                        "preparation-forecast-g", grams=Quantity(gel.grams, "g", digits=1), ingredient=gel.ingredient
                    )
                    for gel in result[:3]
                ],
                ", ",
            ),
        ),
        lines=(),
        inputs=(prep_input(b.formula, "gel_water_g"), prep_input(b.formula, "gel_percent", first.percent)),
        steps=(),
        cautions=(Message("preparation-forecast-dry-konjac-and-psyllium-swell"),),
        confidence=Message("preparation-forecast-rule-of-thumb"),
        gels=result,
    )


def _fry(b: WorkSurface) -> Iterator[PrepTask]:
    if not is_fried(b.formula):
        return
    oil = number_set(b.formula, "fry_c", b.dough.form.oven_c)
    fats = frying_fats(
        oil,
        {key: b.dough.library[key].name for key in (row.text("ingredient") for row in read_table("frying_fats.csv"))},
    )
    good = [fat.name.partition(",")[0].lower() for fat in fats if fat.verdict == "good"]
    yield PrepTask(
        kind="fry",
        title=Message("preparation-forecast-choose-the-frying-fat"),
        text=Message(
            "preparation-forecast-at-c",
            oil=Quantity(oil, "C", digits=0),
            value=", ".join(good[:4]) or "no common fat stays clear of its smoke point",
        ),
        lines=(),
        inputs=(prep_input(b.formula, "fry_c", oil),),
        steps=(Message("preparation-forecast-test-the-oil-with-a"),),
        cautions=(Message("preparation-forecast-hot-oil-never-leave-it"),),
        confidence=Message("preparation-forecast-rule-of-thumb"),
        fats=fats,
    )
