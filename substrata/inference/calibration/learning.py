"""What a kitchen's own runs teach: its oven, its hands, its palate. Always worked out anew from the runs, never edited.

Nothing is explained twice: weight, colour and core go to the *oven block* (offset, convection, habit of thickness, browning; one
joint update), what the hand felt to the *handling block* (a bias of kitchen, form and formula), scores at the weighed moisture to
the *palate block*, a cup that was filled and weighed to the *measures*. A felt class teaches no pack's capacity: a bench test does.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.settings import Lesson, Settings
from substrata.base.tables.table_reader import constant
from substrata.base.uncertainty import SDS_IN_HALF_90
from substrata.evaluation.dough import Dough
from substrata.execution.bake_log import what_was_done
from substrata.execution.run_document import Run
from substrata.formula.form_table import forms
from substrata.inference.as_made_forecast import as_done
from substrata.inference.calibration.habits import habits
from substrata.inference.calibration.hands_block import hands
from substrata.inference.calibration.hands_block import remaining_spread as hands_left
from substrata.inference.calibration.learned_parameters import (
    CalibrationState,
    Learned,
    Odd,
    Reading,
    count,
    factor,
    name_of,
)
from substrata.inference.calibration.measures_block import MEASURES, measure_readings, measures
from substrata.inference.calibration.oven_block import ovens
from substrata.inference.calibration.palate_block import palates
from substrata.inference.calibration.palate_block import remaining_spread as palate_left
from substrata.inference.calibration.robust_update import Updated, update_together
from substrata.ingredients.library import Library
from substrata.process.baking.oven_profile import OvenProfile
from substrata.process.rheology.texture import texture_words


def learn(
    runs: Sequence[Run],
    library: Library,
    settings: Settings = Settings(),  # noqa: B008 - frozen
    *,
    off: frozenset[str] = frozenset(),
    offsets: Mapping[str, Sequence[tuple[str, float, float]]] | None = None,
    altitudes: Mapping[str, float] | None = None,
) -> CalibrationState:
    """Return what runs teach. A pure function.

    Args:
        runs: of one kitchen, with or without verdicts; those that are left out count for nothing.
        library: the ingredients.
        settings: the kitchen's choices.
        off: blocks that are switched off.
        offsets: readings of an oven's offset itself, by its key: of which bake, K, and one standard deviation.
        altitudes: where ovens stand, m, by their key.
    """
    read = [
        reading
        for n, run in enumerate(runs)
        if not run.left_out and (reading := _read(run, n, library, settings, (altitudes or {}).get(run.oven, 0.0)))
    ]
    formulas = {name_of(reading.run): reading.run.formula.name for reading in read}
    blocks: dict[str, Updated] = {}
    places: dict[str, dict[str, int]] = {}
    priors: dict[str, dict[str, float]] = {}
    taught: dict[str, dict[str, tuple[str, ...]]] = {}
    learned: list[Learned] = []
    for block, work in (("oven", ovens), ("hands", hands), ("palate", palates), (MEASURES, measures)):
        if block in off:
            continue
        problems = ovens(read, offsets or {}) if work is ovens else work(read)
        # All axes of one verdict are believed together; each oven's runs are their own.
        updates = update_together([(np.array(prior), residuals) for _, _, prior, residuals in problems])
        for (key, names, prior, residuals), updated in zip(problems, updates, strict=True):
            priors[key] = dict(zip(names, prior, strict=True))
            blocks[key], places[key] = updated, {name: n for n, name in enumerate(names)}
            taught[key] = {
                name: tuple(s.run for s in residuals if np.any(s.slope[:, n] != 0)) for n, name in enumerate(names)
            }
            learned += (
                measure_readings(read, priors[key], taught[key], updated)
                if block == MEASURES
                else _parameter(block, key, names, prior, taught[key], updated, formulas)
            )
    learned += habits(read)
    odd = tuple(
        Odd(run=run, trust=trust, block=key)
        for key, updated in blocks.items()
        for run, trust in updated.trust.items()
        if trust < 0.35
    )
    return CalibrationState(
        runs=len(read),
        learned=tuple(learned),
        odd=odd,
        blocks=blocks,
        places=places,
        priors=priors,
        taught=taught,
    )


def _read(run: Run, number: int, library: Library, settings: Settings, altitude_m: float) -> Reading | None:
    # Measured against the house's forecast: what was learned would else be learned again.
    dough = Dough(run.formula, library, replace(settings, lessons=()), OvenProfile(altitude_m=altitude_m))
    if dough.handling is None:
        return None
    done = what_was_done(run, simulated=False)
    forecast = as_done(dough, done)
    if forecast is None:
        return None
    return Reading(run=run, id=run.id or str(number + 1), done=done, dough=dough, forecast=forecast, oven=run.oven)


def lessons(state: CalibrationState) -> tuple[Lesson, ...]:
    """Return what the forecasts of a kitchen take from it; the oven's part stands in its profile."""
    return tuple(
        Lesson(
            block=block,
            part=part,
            value=round(float(updated.mean[place]), 4),
            runs=len(state.taught[block][part]),
            left=round(_remaining(state, block, part), 4),
        )
        for block, updated in state.blocks.items()
        if not block.startswith("oven")
        for part, place in state.places[block].items()
    )


def _remaining(state: CalibrationState, block: str, part: str) -> float:
    """Return what is left of the house's spread where this is the nearest thing that was learned."""
    updated, places = state.blocks[block], state.places[block]
    if block == MEASURES:
        return min(float(updated.sd[places[part]]) / state.priors[block][part], 1.0)
    return (hands_left if block == "hands" else palate_left)(updated, places, part)


_SHOWN: dict[str, tuple[Wording, str]] = {
    "offset": (Message("learning-oven-offset-actual-minus-set"), "K"),
    "convection": (Message("learning-heat-transfer-by-air"), "×"),
    "thickness": (Message("learning-actual-thickness-formula-thickness"), "×"),
    "browning": ("browning", "×"),
}


def _parameter(
    block: str,
    key: str,
    names: list[str],
    prior: list[float],
    taught: Mapping[str, tuple[str, ...]],
    updated: Updated,
    formulas: Mapping[str, str],
) -> list[Learned]:
    rows = []
    for n, name in enumerate(names):
        if " of " in name or (name.startswith(("weight ", "formula ")) and block == "palate"):
            continue
        teach = taught[name]
        if not teach:
            continue
        value, sd, before = float(updated.mean[n]), float(updated.sd[n]), prior[n]
        words, unit = _words(block, key, name, formulas)
        if unit == "×":
            rows.append(factor(block, f"{key}.{name}", words, value, sd, before, teach))
            continue
        if block == "oven":
            sd = max(sd, constant("oven_known_best_k"))
        half = SDS_IN_HALF_90 * sd
        if unit == "decades":
            side = "stiffer" if value >= 0 else "softer"
            value_text: Wording = Message(
                "learning-handling-steps",
                value=Quantity(abs(value) / constant("class_decades"), "number", digits=1),
                side=side,
                half=Quantity(half / constant("class_decades"), "number", digits=1),
            )
        else:
            value_text = _value_text(value, half, unit)
        text = Message("learning-from", words=words, value_text=value_text, count=count(len(teach)))
        rows.append(
            Learned(
                key=f"{key}.{name}",
                block=block,
                words=words,
                unit=unit,
                prior=0.0,
                prior_sd=before,
                posterior=value,
                posterior_sd=sd,
                trials=teach,
                text=text,
            )
        )
    return rows


def _value_text(value: float, half: float, unit: str) -> Wording:
    """Return a learned difference with its 90 % half-range."""
    sign = "+" if value >= 0 else "−"
    if unit == "K":
        degrees = Quantity(abs(value), "K", digits=-2, bare=True)
        return Message("learning-degrees", sign=sign, value=degrees, half=Quantity(half, "K", digits=-2))
    return f"{sign}{abs(value):.2g} ± {half:.2g} {unit}"


def _words(block: str, key: str, name: str, names: Mapping[str, str]) -> tuple[Wording, str]:
    """Return what a learned number is, and its unit; formulas by their names."""
    if block == "oven":
        words, unit = _SHOWN[name]
        oven = key.partition(":")[2]
        return (Message("learning-parts", words=words, oven=oven) if oven else words), unit
    if block == "hands":
        kind, _, what = name.partition(" ")
        if kind == "kitchen":
            return Message("learning-your-feel-compared-with-the"), "decades"
        if kind == "form":
            return Message("learning-doughs", name=forms()[what].name.lower()), "decades"
        return Message("learning-and", get=names.get(what, "this formula")), "decades"
    return Message("learning-you-score-higher", texture_words=texture_words()[key.partition(":")[2]].lower()), "points"
