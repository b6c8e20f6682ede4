"""Causes planted in simulated kitchens, and what the diagnosis makes of them."""

from __future__ import annotations

import warnings
from collections import defaultdict
from dataclasses import dataclass, replace
from math import exp

import numpy as np

from substrata import load_library
from substrata.evaluation.dough import Dough
from substrata.execution.run_document import Done, Felt, RatedFault, Run, Verdict
from substrata.inference.bake_figures import PLACE, run_figures
from substrata.inference.diagnosis.cause_effects import CauseTable, cause_table
from substrata.inference.diagnosis.causes import Cause, causes, planted, possible, strengths
from substrata.inference.diagnosis.explanation import Why, why
from substrata.inference.faults import hazards, likely, mechanisms
from substrata.inference.making import Making, dough_temperature, selected_lines
from substrata.process.rheology.handling_classes import class_of, form_handling
from substrata.reformulation.starter_formula import formula_templates, template_formula
from tests.support.demo_doughs import demo_formulas

_SHOWS = 0.25


_OFTEN, _SELDOM = 0.9, 0.15  # how often a Run station logs of itself, and by hand


@dataclass
class Kitchen:
    """What is true in it and nobody knows."""

    rng: np.random.Generator
    harsh: bool

    def ordinary(self, dough: Dough) -> Making:
        """The ordinary spread of one run."""
        rng = self.rng
        normal = lambda sd: float(exp(rng.normal() * sd))  # noqa: E731
        lots = {line: normal(0.14) for what in ("main", "psyllium") for line in selected_lines(dough, what)}
        grams = {line: normal(0.06) for line in selected_lines(dough, "egg")} | {
            line: normal(0.02) for what in ("liquid", "flour") for line in selected_lines(dough, what)
        }
        fried = dough.case.fried
        return Making(
            grams=grams,
            capacity=lots,
            rest=normal(0.2),
            warmer_k=float(rng.normal() * 3),
            thickness=normal(0.08),
            rim=normal(0.06),
            oven_k=float(rng.normal() * (4 if fried else 12)),
            browning=normal(0.25),
            minutes=normal(0.05),
            stiffer=float(rng.normal() * 0.4),
        )

    def with_slip(self, base: Making, slip: Making) -> Making:
        """The slip on top of the ordinary spread."""
        grams = dict(base.grams)
        for line, factor in slip.grams.items():
            grams[line] = factor * (grams.get(line, 1.0) if factor > 0 else 1.0)
        capacity = {**base.capacity, **slip.capacity}
        return replace(
            base,
            grams=grams,
            capacity=capacity,
            water_g=slip.water_g,
            gas=slip.gas,
            rest=base.rest if slip.rest == 1.0 else slip.rest,
            dough_c=slip.dough_c,
            warmer_k=base.warmer_k * (slip.dough_c is None) + slip.warmer_k,
            pressed=slip.pressed,
            thickness=base.thickness if slip.thickness == 1.0 else slip.thickness,
            rim=base.rim * slip.rim,
            hot=slip.hot,
            oven_k=base.oven_k if slip.oven_k == 0 else slip.oven_k,
            minutes=base.minutes if slip.minutes == 1.0 else slip.minutes,
            browning=base.browning * slip.browning,
            two_trays=slip.two_trays,
            unflipped=slip.unflipped,
            flags=slip.flags,
            amounts=slip.amounts,
        )


def drawn_size(cause: Cause, rng: np.random.Generator) -> float:
    """A size between the smallest and the largest that are known."""
    if len(set(cause.sizes)) == 1:
        return cause.sizes[0]
    return float(rng.uniform(min(cause.sizes), max(cause.sizes)))


def told(
    kitchen: Kitchen, dough: Dough, table: CauseTable, made: Making, cause: Cause | None
) -> tuple[Verdict, np.ndarray, np.ndarray]:
    """The verdict of a run, the probability of each fault, and what it is without the slip."""
    rng = kitchen.rng
    of = mechanisms(dough.formula.form)
    jitter = 1.4 if kitchen.harsh else 0.7
    own = replace(
        of,
        threshold=of.threshold + rng.uniform(-jitter, jitter, len(of.threshold)) * of.width,
        most=of.most * (rng.random(len(of.most)) > (1 / 6 if kitchen.harsh else 0.0)),
    )
    x = run_figures(dough, made, table.written.marks)
    for key in ("gummy", "eggy", "coconut", "crumbly"):
        x[PLACE[key]] += rng.normal() * 0.8
    p = likely(hazards(x, table.written.figures, table.written.marks, own), own)
    for place, fault in enumerate(of.faults):
        strength = strengths().get((fault, cause.id)) if cause else None
        if strength:
            p[place] = 1 - (1 - p[place]) * (1 - {3: 0.5, 2: 0.3, 1: 0.15}[strength]) if p[place] < 0.05 else p[place]
    happened = rng.random(len(p)) < p
    seen = happened & (rng.random(len(p)) < (0.75 if kitchen.harsh else 0.85))
    if kitchen.harsh and rng.random() < 0.3:
        seen[rng.integers(len(p))] = True
    faults = tuple(RatedFault(id=fault) for fault, yes in zip(of.faults, seen, strict=True) if yes)
    base = x[PLACE["top"]]
    chips = int(np.clip(round(float((table.written.figures[PLACE["top"]] - base) / 6 + rng.normal() * 0.7)), -2, 2))
    return Verdict(faults=faults, colour=chips, liked="bad" if faults else "good"), p, x


def log_of(kitchen: Kitchen, dough: Dough, made: Making, x: np.ndarray, cause: Cause | None, often: bool) -> Done:
    """What a Run station keeps of it by itself; the rest now and then."""
    rng = kitchen.rng

    def kept(of_itself: bool) -> bool:
        return bool(rng.random() < (_OFTEN if of_itself else _SELDOM))

    if not often:
        return Done(felt=_felt(dough, x))
    here = {w.line.id: w.grams.value for w in dough.batch.lines}
    grams = {line: grams * made.grams.get(line, 1.0) for line, grams in here.items() if kept(of_itself=True)}
    for role, factor in made.amounts.items():
        grams |= {w.line.id: here[w.line.id] * factor for w in dough.batch.lines if w.role == role}
    usual = form_handling()[dough.formula.form].rest_min
    steps: dict[str, bool] = {}
    for other in causes().values():
        kind, _, step = other.log.partition(":")
        if kind in ("step", "happened") and step != "swapped" and kept(of_itself=step in ("flip", "turn")):
            slipped = cause is not None and cause.log == other.log
            steps[step] = (not slipped) if kind == "step" else slipped
    dial = dough.case.oven_c
    vegetable = sum(w.grams.value for w in dough.batch.lines if w.role == "vegetable")
    return Done(
        grams=grams,
        rest_min=usual * made.rest if usual and kept(of_itself=True) else None,
        minutes=None if not kept(of_itself=True) else x_minutes(dough, made),
        dough_c=(dough_temperature(dough) if made.dough_c is None else made.dough_c) + made.warmer_k
        if kept(of_itself=False)
        else None,
        thickness_mm=dough.piece.thickness_mm * made.thickness if kept(of_itself=False) else None,
        oven_c=dial,
        probe_c=dial + made.oven_k + float(rng.normal() * 3) if kept(of_itself=False) else None,
        trays=(2 if made.two_trays else 1) if kept(of_itself=True) else None,
        squeezed_g=vegetable + made.water_g if vegetable and kept(of_itself=True) else None,
        steps=steps,
        felt=_felt(dough, x),
    )


def x_minutes(dough: Dough, made: Making) -> float:
    """Baking time, min."""
    return _TABLES[dough.formula.name].written.marks.minutes * made.minutes


def _felt(dough: Dough, x: np.ndarray) -> tuple[Felt, ...]:
    return (Felt(minute=5.0, class_name=class_of(float(x[PLACE["consistency"]]), dough.piece.thickness_mm)),)


_TABLES: dict[str, CauseTable] = {}


@dataclass(frozen=True)
class Share:
    """How often the planted cause came first, and in the first three."""

    first: float
    in_three: float
    count: int


def measured(
    *,
    plants: int,
    seed: int,
    harsh: bool = False,
    names: tuple[str, ...] = (),
    said: list[tuple[float, bool]] | None = None,
) -> dict[str, Share]:
    """Plant causes and count how often they are found; from the verdict alone, with the run's own log, with answers.

    Args:
        plants: that show.
        seed: of the draws.
        harsh: kitchens that differ more.
        names: formulas of the demo; none takes all of them and a dozen skeletons.
        said: is filled with the probability of the first and whether it was right.
    """
    warnings.simplefilter("ignore")
    rng, library = np.random.default_rng(seed), load_library()
    kitchen = Kitchen(rng, harsh)
    formulas = [f for f in demo_formulas() if not names or f.name in names]
    formulas += [] if names else [template_formula(s) for s in formula_templates()[:12]]
    doughs = [Dough(f, library) for f in formulas]
    for dough in doughs:
        _TABLES.setdefault(dough.formula.name, cause_table(dough))
    ranks: dict[str, list[int]] = defaultdict(list)
    while len(ranks["verdict"]) < plants:
        dough = doughs[rng.integers(len(doughs))]
        found = plant(kitchen, dough)
        if found is None:
            continue
        cause, made, verdict, x = found.cause, found.made, found.verdict, found.figures
        for name, often in (("verdict", False), ("log", True)):
            run = Run(formula=dough.formula, done=log_of(kitchen, dough, made, x, cause, often), verdict=verdict)
            _ask(dough, run, cause, name, ranks, said if often else None)
    return {
        name: Share(float(np.mean([r == 1 for r in places])), float(np.mean([r <= 3 for r in places])), len(places))
        for name, places in ranks.items()
    }


@dataclass(frozen=True)
class Plant:
    """A cause that was planted and shows."""

    cause: Cause
    size: float
    base: Making  # without it
    made: Making
    verdict: Verdict
    figures: np.ndarray
    raised: frozenset[str]  # faults that it brought


def plant(kitchen: Kitchen, dough: Dough) -> Plant | None:
    """One cause that shows; None where it changes nothing that is seen."""
    rng, table = kitchen.rng, _TABLES[dough.formula.name]
    every = possible(table.kinds)
    weights = np.array([c.prior for c in every])
    cause = every[rng.choice(len(every), p=weights / weights.sum())]
    size = drawn_size(cause, rng)
    slip = planted(dough, cause, size)
    if slip is None:
        return None
    base = kitchen.ordinary(dough)
    state = rng.bit_generator.state
    _, without, _ = told(kitchen, dough, table, base, None)
    rng.bit_generator.state = state
    made = kitchen.with_slip(base, slip)
    verdict, p, x = told(kitchen, dough, table, made, cause)
    of, seen = mechanisms(dough.formula.form), {f.id for f in verdict.faults}
    raised = frozenset(fault for n, fault in enumerate(of.faults) if fault in seen and p[n] - without[n] >= _SHOWS)
    return Plant(cause, size, base, made, verdict, x, raised) if raised else None


def _ask(
    dough: Dough, run: Run, cause: Cause, name: str, ranks: dict[str, list[int]], said: list[tuple[float, bool]] | None
) -> None:
    """Diagnose, then answer the two questions that are asked."""
    table, asked = _TABLES[dough.formula.name], dict[str, bool]()
    answer = why(dough, table, run)
    ranks[name].append(rank_of(answer, cause))
    if said is not None:
        said.append((answer.making[0].probability if answer.making else 0.0, rank_of(answer, cause) == 1))
    for number in (1, 2):
        open_ = [q for q in answer.questions if q.cause not in asked]
        if open_:
            asked[open_[0].cause] = causes()[open_[0].cause].asks == cause.asks
        verdict = replace(run.verdict or Verdict(), asked=dict(asked))
        answer = why(dough, table, replace(run, verdict=verdict))
        ranks[f"{name} + {number}"].append(rank_of(answer, cause))


def rank_of(answer: Why, cause: Cause) -> int:
    """Place of a cause in the list; 99 where it is not in it."""
    return next((place for place, found in enumerate(answer.making, 1) if found.cause == cause.id), 99)
