"""What a kitchen's own runs teach: its oven, its hands, its palate. Always worked out anew from the runs, never edited.

Nothing is explained twice: weight, colour and core go to the *oven block* (offset, convection, habit of thickness, browning; one
joint update), what the hand felt to the *handling block* (a bias of kitchen, form and formula), scores at the weighed moisture to
the *palate block*. A felt class teaches no pack's capacity: a bench test does.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from math import exp, log, sqrt
from typing import Any

import numpy as np

from substrata.bench.feel import middle_of
from substrata.bench.run_document import CRUMBLY, Done, Run, done_of
from substrata.context.dough import Dough
from substrata.dough.handling import rest_of
from substrata.dough.handling_words import band_of
from substrata.dough.texture import MOST, Eaten, Texture, texture, texture_keys, texture_words
from substrata.formula.form import forms
from substrata.oven.numbers import oven_number
from substrata.oven.profile import FLOOR_K, OvenProfile
from substrata.pantry.library import Library
from substrata.quantities.spread import SDS_IN_HALF_90
from substrata.settings import Lesson, Settings
from substrata.trials.as_done import AsDone, as_done
from substrata.trials.linear import Seen, Updated, update, update_together
from substrata.trials.making import Making, moist_after
from substrata.trials.run_figures import PLACE, run_figures

# Priors: one standard deviation (trials.csv would hold no more than these; assumed).
_OVEN = (("offset", "K", 12.0), ("convection", "ln", 0.15), ("thickness", "ln", 0.12), ("browning", "ln", 0.25))
_KITCHEN, _FORM, _FORMULA = 0.25, 0.25, 0.2  # decades of handling
_PALATE, _TASTE, _WEIGHT = 0.8, 0.7, 0.4  # a baker's own scale; a formula's remainder; weight of one thing in a score
# What one run adds by itself.
_LOSS_SD, _CHIP_L, _CHIP_SD, _PHOTO_SD, _CORE_SD = 0.014, 6.0, 0.8, 3.5, 3.0
_HAND_SD, _SCORE_SD, _OWN_DECADES = 0.25, 0.9, 0.2
_REMAIN = {"loss": 0.012, "top": 2.5, "core": 1.5}
_CLASS = 0.85  # decades from one handling class to the next
_STEP = (6.0, 0.1, 0.08, 0.15)
_OWN_TRIALS = (
    0.67  # share of the variance that is left, from which a forecast counts as backed by the formula's own trials
)


@dataclass(frozen=True, kw_only=True)
class Learned:
    """One number that was learned."""

    key: str  # oven.offset, hands.kitchen, palate.chewy …
    block: str  # oven, hands, palate, habits
    words: str
    unit: str
    prior: float
    prior_sd: float
    posterior: float
    posterior_sd: float
    trials: tuple[str, ...]  # ids of the runs that taught it
    text: str


@dataclass(frozen=True, kw_only=True)
class Odd:
    """A run that hardly fits the others."""

    run: str
    trust: float
    block: str


@dataclass(frozen=True, kw_only=True)
class State:
    """What a kitchen has learned."""

    runs: int
    learned: tuple[Learned, ...]
    odd: tuple[Odd, ...]
    blocks: Mapping[str, Updated]  # what stands behind it
    places: Mapping[str, Mapping[str, int]]  # of each parameter in its block
    taught: Mapping[str, Mapping[str, tuple[str, ...]]]  # which runs taught each parameter of a block

    def value(self, key: str) -> Learned | None:
        """One learned number by its key."""
        return next((one for one in self.learned if one.key == key), None)


@dataclass(frozen=True, kw_only=True)
class _Read:
    """A run with what was forecast for it."""

    run: Run
    id: str
    done: Done
    dough: Dough
    forecast: AsDone
    oven: str


def name_of(run: Run) -> str:
    """By which a formula's own runs are known."""
    return f"{run.formula.form}:{run.formula.name}"


def learn(
    runs: Sequence[Run],
    library: Library,
    settings: Settings = Settings(),  # noqa: B008 - frozen
    *,
    off: frozenset[str] = frozenset(),
) -> State:
    """What runs teach. A pure function.

    Args:
        runs: of one kitchen, with or without verdicts; those that are left out count for nothing.
        library: the ingredients.
        settings: the kitchen's choices.
        off: blocks that are switched off.
    """
    read = [one for n, run in enumerate(runs) if not run.left_out and (one := _read(run, n, library, settings))]
    blocks: dict[str, Updated] = {}
    places: dict[str, dict[str, int]] = {}
    taught: dict[str, dict[str, tuple[str, ...]]] = {}
    learned: list[Learned] = []
    for block, work in (("oven", _ovens), ("hands", _hands), ("palate", _palates)):
        if block in off:
            continue
        problems = work(read)
        # All axes of one verdict are believed together; each oven's runs are their own.
        updates = update_together([(np.array(prior), seen) for _, _, prior, seen in problems])
        for (key, names, prior, seen), updated in zip(problems, updates, strict=True):
            blocks[key], places[key] = updated, {name: n for n, name in enumerate(names)}
            taught[key] = {
                name: tuple(s.run for s in seen if np.any(s.slope[:, n] != 0)) for n, name in enumerate(names)
            }
            learned += _told(block, key, names, prior, taught[key], blocks[key])
    learned += _habits(read)
    odd = tuple(
        Odd(run=run, trust=trust, block=key)
        for key, updated in blocks.items()
        for run, trust in updated.trust.items()
        if trust < 0.35
    )
    return State(runs=len(read), learned=tuple(learned), odd=odd, blocks=blocks, places=places, taught=taught)


def _read(run: Run, number: int, library: Library, settings: Settings) -> _Read | None:
    # Measured against the house's forecast: what was learned would else be learned again.
    dough = Dough(run.formula, library, replace(settings, lessons=()))
    if dough.handling is None:
        return None
    done = done_of(run)
    forecast = as_done(dough, done)
    if forecast is None:
        return None
    return _Read(run=run, id=run.id or str(number + 1), done=done, dough=dough, forecast=forecast, oven=run.oven)


_Work = list[tuple[str, list[str], list[float], list[Seen]]]


def _ovens(read: Sequence[_Read]) -> _Work:
    """One update for each oven: offset, convection, thickness, browning, and what is left of each formula."""
    work: _Work = []
    for oven in dict.fromkeys(one.oven for one in read):
        own = [one for one in read if one.oven == oven and not one.dough.case.fried]
        formulas = list(dict.fromkeys(name_of(one.run) for one in own))
        names = [name for name, *_ in _OVEN]
        prior = [sd for *_, sd in _OVEN]
        for formula in formulas:
            for figure, sd in _REMAIN.items():
                names.append(f"{figure} of {formula}")
                prior.append(sd)
        seen = [s for one in own if (s := _oven_seen(one, names)) is not None]
        if seen:
            work.append((f"oven:{oven}" if oven else "oven", names, prior, seen))
    return work


def _oven_seen(one: _Read, names: list[str]) -> Seen | None:
    done, verdict, base = one.done, one.run.verdict, one.forecast.figures
    found: list[tuple[str, float, float]] = []
    if done.weight_in_g and done.weight_out_g is not None and 0 < done.weight_out_g <= done.weight_in_g:
        found.append(("loss", 1 - done.weight_out_g / done.weight_in_g, _LOSS_SD))
    if verdict and verdict.lightness is not None:
        found.append(("top", verdict.lightness, _PHOTO_SD))
    elif verdict and verdict.colour is not None and abs(verdict.colour) < 2:
        wanted = one.dough.case
        gold = oven_number("dough_light") * exp(-oven_number("gold_dose") * wanted.wish_factor)
        found.append(
            ("top", gold - _CHIP_L * verdict.colour, _CHIP_L * _CHIP_SD)
            if one.dough.case.form.asks_colour
            else ("", 0, 1)
        )
    if done.core_c is not None and one.forecast.marks.crumb:
        found.append(("core", done.core_c, _CORE_SD))
    found = [entry for entry in found if entry[0]]
    probe = done.probe_c is not None
    if not found and not probe and done.thickness_mm is None:
        return None
    slopes = _oven_slopes(one) if found else {}
    offs, rows, noise = [], [], []
    for figure, value, sd in found:
        row = np.zeros(len(names))
        row[: len(_OVEN)] = slopes[figure]
        if done.thickness_mm is not None:
            row[2] = 0.0  # it was measured, and is in the forecast already
        row[names.index(f"{figure} of {name_of(one.run)}")] = 1.0
        offs.append(value - float(base[PLACE[figure]]))
        rows.append(row)
        noise.append(sd)
    if done.probe_c is not None:
        row = np.zeros(len(names))
        row[0] = 1.0
        dial = done.oven_c if done.oven_c is not None else one.dough.case.oven_c
        offs.append(done.probe_c - dial)
        rows.append(row)
        noise.append(5.0)
    if done.thickness_mm is not None:
        row = np.zeros(len(names))
        row[2] = 1.0
        offs.append(log(done.thickness_mm / one.dough.piece.thickness_mm))
        rows.append(row)
        noise.append(0.08)
    return Seen(run=one.id, off=np.array(offs), slope=np.array(rows), noise=np.array(noise))


def _oven_slopes(one: _Read) -> dict[str, np.ndarray]:
    """How loss, lightness and core go with offset, convection, thickness and browning."""
    making = one.forecast.making

    def moved(sign: int) -> tuple[Making, ...]:
        oven, air, thick, brown = (sign * step for step in _STEP)
        return (
            replace(making, oven_k=making.oven_k + oven),
            replace(making, convection=making.convection * exp(air)),
            replace(making, thickness=making.thickness * exp(thick)),
            replace(making, browning=making.browning * exp(brown)),
        )

    rows = []
    for more, less, step in zip(moved(1), moved(-1), _STEP, strict=True):
        up, down = (run_figures(one.dough, making, one.forecast.marks) for making in (more, less))
        rows.append((up - down) / (2 * step))
    whole = np.array(rows)
    return {figure: whole[:, PLACE[figure]] for figure in _REMAIN}


def _hands(read: Sequence[_Read]) -> _Work:
    """How much softer or stiffer the hand feels than the forecast says: of the kitchen, the form, the formula."""
    felt = [one for one in read if _felt(one) is not None]
    if not felt:
        return []
    forms_, formulas = ([*dict.fromkeys(key(one) for one in felt)] for key in (_form_of, _formula_of))
    names = ["kitchen", *(f"form {form}" for form in forms_), *(f"formula {formula}" for formula in formulas)]
    prior = [_KITCHEN, *[_FORM] * len(forms_), *[_FORMULA] * len(formulas)]
    seen = []
    for one in felt:
        value, sd = _felt(one) or (0.0, 1.0)
        row = np.zeros(len(names))
        row[[0, names.index(f"form {_form_of(one)}"), names.index(f"formula {_formula_of(one)}")]] = 1.0
        at = float(one.forecast.figures[PLACE["consistency"]])
        seen.append(
            Seen(
                run=one.id,
                off=np.array([value - at]),
                slope=row[None, :],
                noise=np.array([sqrt(sd**2 + _OWN_DECADES**2)]),
            )
        )
    return [("hands", names, prior, seen)]


def _form_of(one: _Read) -> str:
    return one.run.formula.form


def _formula_of(one: _Read) -> str:
    return name_of(one.run)


def _felt(one: _Read) -> tuple[float, float] | None:
    """A felt class as a reading and its doubt; an open end says nothing further out than it begins."""
    felt = next((f for f in reversed(one.done.felt) if f.class_name and f.class_name != CRUMBLY), None)
    if felt is None:
        return None
    band = band_of(felt.class_name, one.dough.piece.thickness_mm)
    middle, at = middle_of(band), float(one.forecast.figures[PLACE["consistency"]])
    if band.low < -8:
        return min(at, middle), 0.4
    if band.high > 8:
        return max(at, middle), 0.4
    return middle, sqrt((band.high - band.low) ** 2 / 12 + _HAND_SD**2)


def _palates(read: Sequence[_Read]) -> _Work:
    """How this kitchen scores: its own scale of each axis, and the weight of what makes a score."""
    work: _Work = []
    for axis in texture_keys():
        own = [one for one in read if one.run.verdict and axis in one.run.verdict.scores]
        if not own:
            continue
        textures = [_texture_of(one) for one in own]
        terms = sorted({t.what for whole in textures if whole for s in whole.scores if s.key == axis for t in s.terms})
        formulas = list(dict.fromkeys(name_of(one.run) for one in own))
        names = ["scale", *(f"weight {what}" for what in terms), *(f"formula {formula}" for formula in formulas)]
        prior = [_PALATE, *[_WEIGHT] * len(terms), *[_TASTE] * len(formulas)]
        seen = []
        for one, whole in zip(own, textures, strict=True):
            if whole is None or one.run.verdict is None:
                continue
            score = next(s for s in whole.scores if s.key == axis)
            row = np.zeros(len(names))
            row[0] = 1.0
            for term in score.terms:
                row[names.index(f"weight {term.what}")] = term.amount
            row[names.index(f"formula {name_of(one.run)}")] = 1.0
            told = one.run.verdict.scores[axis]
            # A score at the end of the scale says nothing of how far beyond it would be.
            at = score.value
            told = min(at, told) if told <= 0 else max(at, told) if told >= MOST else told
            seen.append(Seen(run=one.id, off=np.array([told - at]), slope=row[None, :], noise=np.array([_SCORE_SD])))
        work.append((f"palate:{axis}", names, prior, seen))
    return work


def _texture_of(one: _Read) -> Texture | None:
    """The texture forecast at the moisture that was really weighed, where it was."""
    done, dough = one.done, one.dough
    loss = float(one.forecast.figures[PLACE["loss"]])
    if done.weight_in_g and done.weight_out_g is not None and 0 < done.weight_out_g <= done.weight_in_g:
        loss = 1 - done.weight_out_g / done.weight_in_g
    after = moist_after(dough, dough.case, loss)
    eaten = Eaten(
        moisture=after.moisture_percent,
        moisture_low=after.moisture_percent,
        moisture_high=after.moisture_percent,
        thickness_mm=max(done.thickness_mm or dough.piece.thickness_mm, 0.2),
        oven_c=dough.case.oven_c,
        binder_load=float(one.forecast.figures[PLACE["load"]]),
        rise=float(one.forecast.figures[PLACE["rise"]]),
    )
    return texture(dough.batch, after, eaten)


_SHOWN = {
    "offset": ("the oven over its dial", "K"),
    "convection": ("heat by moving air", "×"),
    "thickness": ("thickness beside what is written", "×"),
    "browning": ("browning", "×"),
}


def _told(
    block: str, key: str, names: list[str], prior: list[float], taught: Mapping[str, tuple[str, ...]], updated: Updated
) -> list[Learned]:
    rows = []
    for n, name in enumerate(names):
        if " of " in name or (name.startswith(("weight ", "formula ")) and block == "palate"):
            continue
        teach = taught[name]
        if not teach:
            continue
        value, sd, before = float(updated.mean[n]), float(updated.sd[n]), prior[n]
        words, unit = _words(block, key, name)
        if unit == "×":
            rows.append(_factor(block, f"{key}.{name}", words, value, sd, before, teach))
            continue
        if block == "oven":
            sd = max(sd, FLOOR_K)
        half = SDS_IN_HALF_90 * sd
        if unit == "decades":
            side = "stiffer" if value >= 0 else "softer"
            said = f"{abs(value) / _CLASS:.1f} of a class {side} ± {half / _CLASS:.1f}"
        else:
            said = f"{value:+.2g} ± {half:.2g} {'°C' if unit == 'K' else unit}"
        text = f"{words}: {said}, from {_count(len(teach))}"
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


def _factor(
    block: str, key: str, words: str, value: float, sd: float, before: float, teach: tuple[str, ...]
) -> Learned:
    middle = exp(value)
    text = f"{words}: × {middle:.2f} ({exp(value - SDS_IN_HALF_90 * sd):.2f}–{exp(value + SDS_IN_HALF_90 * sd):.2f}), from {_count(len(teach))}"
    return Learned(
        key=key,
        block=block,
        words=words,
        unit="×",
        prior=1.0,
        prior_sd=before,
        posterior=middle,
        posterior_sd=sd * middle,
        trials=teach,
        text=text,
    )


def _count(number: int) -> str:
    return "1 trial" if number == 1 else f"{number} trials"


def _words(block: str, key: str, name: str) -> tuple[str, str]:
    if block == "oven":
        words, unit = _SHOWN[name]
        oven = key.partition(":")[2]
        return (f"{words} ({oven})" if oven else words), unit
    if block == "hands":
        kind, _, what = name.partition(" ")
        if kind == "kitchen":
            return "this kitchen feels doughs", "decades"
        if kind == "form":
            return f"and {forms()[what].name.lower()} doughs", "decades"
        return f"and {what.partition(':')[2] or 'this formula'}", "decades"
    return f"scores {texture_words()[key.partition(':')[2]].lower()} higher", "points"


def _habits(read: Sequence[_Read]) -> list[Learned]:
    """What is usually done otherwise than written: rests, pours, cuts warm."""
    rows = []
    pours = [(one.id, _pour(one)) for one in read]
    rests = [(one.id, _rest(one)) for one in read]
    for key, words, values, sd in (
        ("habits.pour", "pours beside what is written", pours, 0.03),
        ("habits.rest", "rests beside what is written", rests, 0.25),
    ):
        known = [(run, value) for run, value in values if value is not None]
        if not known:
            continue
        seen = [
            Seen(run=run, off=np.array([value]), slope=np.ones((1, 1)), noise=np.array([sd])) for run, value in known
        ]
        updated = update(np.array([sd]), seen)
        rows.append(
            _factor(
                "habits", key, words, float(updated.mean[0]), float(updated.sd[0]), sd, tuple(run for run, _ in known)
            )
        )
    return rows


def _pour(one: _Read) -> float | None:
    here = {w.line.id: w.grams.value for w in one.dough.batch.lines if w.grams.value > 0}
    known = [line for line in one.done.grams if line in here]
    if not known:
        return None
    poured, told = sum(one.done.grams[line] for line in known), sum(here[line] for line in known)
    return log(max(poured, 0.01) / told)


def _rest(one: _Read) -> float | None:
    usual = rest_of(one.run.formula)
    return log(max(one.done.rest_min, 0.1) / usual) if one.done.rest_min is not None and usual else None


@dataclass(frozen=True, kw_only=True)
class Backed:
    """A forecast moved by what was learned."""

    value: float
    sd: float
    from_own: int  # of this formula's own trials
    from_others: int
    text: str


def handling_bias(state: State, formula: Any) -> Backed:
    """By how many decades this kitchen feels a formula's dough stiffer than it is forecast, and what stands behind it.

    Args:
        state: what was learned.
        formula: whose dough it is.
    """
    updated, places = state.blocks.get("hands"), state.places.get("hands", {})
    plain = sqrt(_KITCHEN**2 + _FORM**2 + _FORMULA**2)
    if updated is None:
        return Backed(value=0.0, sd=plain, from_own=0, from_others=0, text="house model")
    keys = ["kitchen", f"form {formula.form}", f"formula {formula.form}:{formula.name}"]
    known = [places[key] for key in keys if key in places]
    rest = sum(sd**2 for key, sd in zip(keys, (_KITCHEN, _FORM, _FORMULA), strict=True) if key not in places)
    value = float(updated.mean[known].sum())
    sd = sqrt(float(updated.covariance[np.ix_(known, known)].sum()) + rest)
    return _backed(state, "hands", keys[2], value, sd, plain)


def palate(state: State, formula: Any, whole: Texture) -> dict[str, Backed]:
    """Every score as this kitchen would give it.

    Args:
        state: what was learned.
        formula: what is eaten.
        whole: the house's texture forecast.
    """
    told = {}
    for score in whole.scores:
        block = f"palate:{score.key}"
        updated, places = state.blocks.get(block), state.places.get(block, {})
        terms = {f"weight {t.what}": t.amount for t in score.terms}
        own = f"formula {formula.form}:{formula.name}"
        row = {"scale": 1.0, **terms, own: 1.0}
        priors = {"scale": _PALATE, own: _TASTE}
        plain = sqrt(sum((amount * priors.get(key, _WEIGHT)) ** 2 for key, amount in row.items()))
        if updated is None:
            told[score.key] = Backed(value=score.value, sd=plain, from_own=0, from_others=0, text="house model")
            continue
        slope = np.zeros(len(places))
        rest = 0.0
        for key, amount in row.items():
            if key in places:
                slope[places[key]] = amount
            else:
                rest += (amount * priors.get(key, _WEIGHT)) ** 2
        value = min(max(score.value + float(slope @ updated.mean), 0.0), MOST)
        sd = sqrt(float(slope @ updated.covariance @ slope) + rest)
        told[score.key] = _backed(state, block, own, value, sd, plain)
    return told


def lessons(state: State) -> tuple[Lesson, ...]:
    """What the forecasts of a kitchen take from it; the oven's part stands in its profile."""
    return tuple(
        Lesson(block=block, part=part, value=round(float(updated.mean[place]), 4), runs=len(state.taught[block][part]))
        for block, updated in state.blocks.items()
        if not block.startswith("oven")
        for part, place in state.places[block].items()
    )


def _backed(state: State, block: str, own: str, value: float, sd: float, plain: float) -> Backed:
    runs = len(state.blocks[block].trust)
    mine = len(state.taught[block].get(own, ()))
    if mine and sd**2 <= _OWN_TRIALS * plain**2:
        text = f"from {mine} of your own"
    elif runs:
        text = (
            f"from {_count(runs)} of other doughs in this kitchen"
            if not mine
            else f"from {_count(runs)} in this kitchen"
        )
    else:
        text = "house model"
    return Backed(value=value, sd=sd, from_own=mine, from_others=runs - mine, text=text)


def oven_of(state: State, oven: str = "", name: str = "this oven") -> OvenProfile:
    """An oven as its runs tell it."""
    updated = state.blocks.get(f"oven:{oven}" if oven else "oven")
    if updated is None:
        return OvenProfile(name=name)
    return OvenProfile(
        name=name,
        offset_k=float(updated.mean[0]),
        offset_sd=max(float(updated.sd[0]), FLOOR_K),
        browning=exp(float(updated.mean[3])),
        bakes=len(updated.trust),
    )
