"""Simulated kitchens whose oven, hands and palate are known, and what learning makes of their runs."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable
from math import exp

import numpy as np

from substrata.evaluation.dough import Dough
from substrata.execution.run_document import Done, Felt, Run, Verdict
from substrata.inference.as_made_forecast import AsDone
from substrata.inference.bake_figures import PLACE, run_figures
from substrata.inference.calibration.hands_block import handling_bias
from substrata.inference.calibration.learned_parameters import CalibrationState
from substrata.inference.calibration.oven_block import oven_of
from substrata.inference.calibration.palate_block import palate
from substrata.inference.making import Making, moist_after
from substrata.process.rheology.handling_classes import class_of
from substrata.process.rheology.texture import Texture, texture
from substrata.process.rheology.texture_palate import Eaten

TRIALS = (0, 1, 3, 5, 10)


AXES = 6


def eaten(dough: Dough, x: np.ndarray) -> Texture | None:
    """The house's texture at what a run came to."""
    after = moist_after(dough, dough.case, float(x[PLACE["loss"]]))
    m = after.moisture_percent
    return texture(
        dough.batch,
        after,
        Eaten(
            moisture=m,
            moisture_low=m,
            moisture_high=m,
            thickness_mm=dough.piece.thickness_mm,
            oven_c=dough.case.oven_c,
            binder_load=float(x[PLACE["load"]]),
            rise=float(x[PLACE["rise"]]),
        ),
    )


class Kitchen:
    """What is true in it and nobody knows."""

    def __init__(
        self,
        rng: np.random.Generator,
        doughs: dict[str, Dough],
        plain: dict[str, AsDone],
        *,
        weights: float = 0.4,
        rest: float = 0.5,
    ) -> None:
        self.rng = rng
        self.oven = rng.normal() * 12
        self.made = Making(
            oven_k=self.oven,
            convection=exp(rng.normal() * 0.15),
            thickness=exp(rng.normal() * 0.12),
            browning=exp(rng.normal() * 0.25),
        )
        self.hand = rng.normal() * 0.25
        self.forms, self.own = self._drawn(0.25), self._drawn(0.2)
        self.scale, self.weight, self.rest = self._drawn(0.8), self._drawn(weights), self._drawn(rest)
        self.figures = {name: run_figures(dough, self.made, plain[name].marks) for name, dough in doughs.items()}
        self.textures = {name: eaten(dough, self.figures[name]) for name, dough in doughs.items()}

    def _drawn(self, sd: float) -> Callable[..., float]:
        known: dict[tuple[str, ...], float] = defaultdict(lambda: float(self.rng.normal() * sd))
        return lambda *key: known[key]

    def scores(self, name: str) -> dict[str, float]:
        """As this kitchen would give them, without the day's mood."""
        whole = self.textures[name]
        return {
            s.key: min(
                max(
                    s.value
                    + self.scale(s.key)
                    + self.rest(name, s.key)
                    + sum(self.weight(s.key, t.what) * t.amount for t in s.terms),
                    0,
                ),
                10,
            )
            for s in (whole.scores if whole else ())
        }

    def bias(self, dough: Dough) -> float:
        """Decades by which its hands feel a dough stiffer."""
        return self.hand + self.forms(dough.formula.form) + self.own(dough.formula.name)

    def run(self, dough: Dough, number: int, minutes: float, *, wrong: bool, probed: bool = False) -> Run:
        """One run with its verdict."""
        rng, name = self.rng, dough.formula.name
        x, scores = self.figures[name], self.scores(name)
        axes = rng.choice(list(scores), AXES, replace=False)
        said = {axis: float(np.clip(round(2 * (scores[axis] + rng.normal() * 0.7)) / 2, 0, 10)) for axis in axes}
        loss = float(x[PLACE["loss"]]) + rng.normal() * 0.014
        if wrong:
            said = dict(zip(said, list(said.values())[::-1], strict=True))
            loss = min(max(loss + rng.choice([-1, 1]) * 0.12, 0.0), 0.8)
        gold = 82 * exp(-0.187 * dough.case.wish_factor)
        felt = class_of(
            float(x[PLACE["consistency"]]) + self.bias(dough) + rng.normal() * 0.2, dough.piece.thickness_mm
        )
        return Run(
            formula=dough.formula,
            id=str(number),
            done=Done(
                weight_in_g=1000.0,
                weight_out_g=1000 * (1 - loss),
                core_c=float(x[PLACE["core"]]) + rng.normal() * 2.5,
                probe_c=dough.case.oven_c + self.oven + rng.normal() * 6 if probed else None,
                felt=(Felt(class_name=felt),),
                minutes=minutes,
            ),
            verdict=Verdict(
                liked="good",
                colour=int(np.clip(round((gold - x[PLACE["top"]]) / 6 + rng.normal() * 0.7), -2, 2)),
                scores=said,
            ),
        )


class Tally:
    """Errors and coverage, by what and after how many trials."""

    def __init__(self) -> None:
        self.errors: dict[tuple[str, int], list[float]] = defaultdict(list)
        self.covered: dict[tuple[str, int], list[bool]] = defaultdict(list)

    def add(self, what: str, trial: int, off: float, sd: float) -> None:
        """One forecast beside the truth."""
        self.errors[what, trial].append(off)
        self.covered[what, trial].append(abs(off) <= 1.645 * sd)

    def judge(self, state: CalibrationState, kitchen: Kitchen, own: list[Dough], trial: int) -> None:
        """Everything that is forecast after so many trials."""
        profile = oven_of(state)
        self.add("oven K", trial, profile.offset_k - kitchen.oven, profile.offset_sd)
        for dough in own:
            told = handling_bias(state, dough.formula)
            self.add("decades", trial, told.value - kitchen.bias(dough), told.sd)
            whole, scores = kitchen.textures[dough.formula.name], kitchen.scores(dough.formula.name)
            for key, backed in palate(state, dough.formula, whole).items() if whole else ():
                self.add("scores", trial, backed.value - scores[key], backed.sd)
