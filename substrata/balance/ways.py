"""One answer of the solver told as a way: its edits, what they move, what holds it and how sure it is."""

from __future__ import annotations

from dataclasses import replace
from functools import cached_property
from math import erf, sqrt

from substrata.analysis.brackets import Bracket, brackets
from substrata.balance.bench import Bench, Slot
from substrata.balance.exclusions import excluded_by
from substrata.balance.judge import Verdict
from substrata.balance.measures import ratio_of
from substrata.balance.program import Ask, solve
from substrata.balance.row import Row
from substrata.balance.rows import rows_at
from substrata.balance.settlement import ClassMove, LineChange, Minutes, Moved, Sure, Way
from substrata.balance.slopes import slopes_at
from substrata.balance.words import amount, change_text, limit_text, printed, quantity_text
from substrata.context.dough import Dough
from substrata.context.figures import figures
from substrata.dough.texture import Texture
from substrata.errors import SubstrataError
from substrata.formula.formula import Formula
from substrata.nutrition.allergens import allergens
from substrata.oven.questions import coarse
from substrata.pantry.library import Floats
from substrata.quantities.spread import SDS_IN_HALF_90

_MOVED = 0.5  # of the last printed digit
_BINDING = 0.012  # of a limit: so near to it, it holds the answer
_TIGHTER = 0.05  # of a target: the step whose price is told
_SCORE = 0.25  # points of texture from which a change is told
_MOST_HOLDS = 5
_BETWEEN_SCHOOLS = 2.9  # the middle of 2 : 1 and 4 : 1
_LEAST_G = 1e-6


def minutes_of(dough: Dough) -> float | None:
    """Minutes until it is baked; None where that cannot be said."""
    try:
        return coarse(dough.case).ready
    except SubstrataError:
        return None


class Teller:
    """Tells the ways of one bench: what the formula was is worked out once."""

    def __init__(self, bench: Bench, start: Verdict) -> None:
        self.bench, self.start = bench, start

    @cached_property
    def before(self) -> dict[str, Bracket]:
        """The brackets of the formula as it stands."""
        return {b.key: b for b in brackets(self.bench.given)} if self.bench.given.batch.dough_g > 0 else {}

    @cached_property
    def minutes(self) -> float | None:
        """In the oven, of the formula as it stands."""
        return minutes_of(self.bench.given)

    def way(self, name: str, verdict: Verdict) -> Way:
        """Tell one answer; what is reported is the full model's word on the formula as it would be written."""
        bench, grams = self.bench, verdict.grams
        formula = bench.formula_at(grams)
        after = Dough(_wished(bench, formula), bench.library, bench.settings)
        told = figures(after)
        rows = rows_at(bench, grams, slopes_at(bench, grams, present=self._present))
        binding = [row for row in rows if not row.price and row.kind != "soft" and float(row.coefficients @ grams) - row.bound > -_BINDING]  # fmt: skip
        return Way(
            name=name,
            formula=formula,
            changes=self.changes(verdict),
            brackets=tuple(self._moved(after)),
            texture=_textures(bench.given.texture, after.texture),
            handling=ClassMove(
                before=self.start.figures.class_name,
                after=told.class_name,
                consistency_before=self.start.figures.consistency,
                consistency_after=told.consistency,
            )
            if told and self.start.figures
            else None,
            minutes=Minutes(before=self.minutes, after=minutes_of(after)),
            dough_before_g=bench.given.batch.dough_g,
            dough_after_g=after.batch.dough_g,
            cost=verdict.cost,
            new=sum(1 for s, g in zip(bench.slots, grams, strict=True) if s.new and g > _LEAST_G),
            holds=tuple(dict.fromkeys(limit_text(bench, row) for row in binding))[:_MOST_HOLDS],
            prices=tuple(self._prices(rows, binding, verdict)),
            sure=tuple(self._sure(after)),
            lost=self._lost(grams),
            cautions=_cautions(bench, after),
            missed=tuple(missed_texts(bench, verdict)),
            met=not verdict.missed,
        )

    @property
    def _present(self) -> float | None:
        return self.start.figures.consistency if self.start.figures else None

    def changes(self, verdict: Verdict) -> tuple[LineChange, ...]:
        """The edits, the largest first."""
        rows = [
            (
                s.step.weight * abs(float(g) - s.start),
                LineChange(
                    line=s.id,
                    ingredient=s.ingredient,
                    name=s.name,
                    role=s.role,
                    before=s.start,
                    after=round(float(g), 3),
                    new=s.start <= _LEAST_G,
                    text=change_text(s, float(g)),
                ),
            )
            for s, g in zip(self.bench.slots, verdict.grams, strict=True)
            if abs(float(g) - s.start) > _LEAST_G
        ]
        return tuple(change for _, change in sorted(rows, key=lambda row: -row[0]))

    def _moved(self, after: Dough) -> list[Moved]:
        rows = []
        for new in brackets(after):
            old = self.before.get(new.key)
            if old is not None and _has_moved(old, new):
                rows.append(
                    Moved(
                        key=new.key, label=new.label, unit=new.unit, decimals=new.decimals,
                        before=old.estimate.value, after=new.estimate.value,
                        state_before=old.state, state_after=new.state,
                    )
                )  # fmt: skip
        return rows

    def _prices(self, rows: list[Row], binding: list[Row], verdict: Verdict) -> list[str]:
        """What a little more of each binding target would take, by the linear problem at the answer."""
        told: list[str] = []
        for row in binding:
            if row.kind != "wish" or row.key.startswith(("texture", "minutes")) or len(told) == 2:
                continue
            ask = Ask(elastic={}, whole_steps=False, near=verdict.grams, trust=1.0)
            now = solve(self.bench, rows, ask)
            # A step that shows in what is printed.
            share = max(_TIGHTER, printed(row.key) / max(abs(row.limit), 1e-9))
            step = share * (abs(row.bound) if row.bound else 1.0)
            tight = [_tightened(other, step) if other is row else other for other in rows]
            more = solve(self.bench, tight, ask)
            less = share * abs(row.limit)
            if now.grams is None:
                continue
            word = "less" if row.side == "high" else "more"
            if more.grams is None:
                told.append(f"No {word} {quantity_text(row.key)} can be had with all else kept.")
            elif more.cost - now.cost > 0:
                told.append(
                    f"{amount(row.key, less)} {word} {quantity_text(row.key)} would take {more.cost - now.cost:.0f} g more change."
                )
        return told

    def _sure(self, after: Dough) -> list[Sure]:
        rows = []
        for key, wanted in after.windows.items():
            if wanted.source != "target" or key not in after.ratios_of:
                continue
            estimate = after.bracketed.one_estimate(key)
            sd = (estimate.high - estimate.value) / SDS_IN_HALF_90
            share = chance(estimate.value, sd, wanted.window.low, wanted.window.high)
            rows.append(
                Sure(key=key, text=f"The target of {quantity_text(key)} is met {ten(share)}.", probability=share)
            )
        return rows

    def _lost(self, grams: Floats) -> tuple[str, ...]:
        bench = self.bench
        gone = [slot for slot in bench.slots if slot.gone and slot.start > 0]
        told = [
            f"Without {exclusion.name} it loses {exclusion.lost}."
            for slot in gone
            for exclusion in excluded_by(slot.of, bench.wish.without)
        ]
        return (*dict.fromkeys(told), *self._school(gone, grams))

    def _school(self, gone: list[Slot], grams: Floats) -> tuple[str, ...]:
        """On which school of nut to coconut flour an answer lands."""
        nut = sum(s.start for s in gone if any(f.startswith("nut:") for f in s.of.flags) and s.role == "base")
        coconut = sum(
            float(g) - s.start for s, g in zip(self.bench.slots, grams, strict=True) if s.ingredient == "coconut-flour"
        )
        others = any(
            s.role == "base" and s.ingredient != "coconut-flour" and float(g) > s.start
            for s, g in zip(self.bench.slots, grams, strict=True)
        )
        if not nut or coconut <= 0 or others:
            return ()
        ratio = nut / coconut
        near = "half the weight" if ratio < _BETWEEN_SCHOOLS else "a quarter of the weight and more egg or water"
        return (
            f"Nut to coconut flour {ratio:.1f} : 1, near the school of {near}: coconut drinks about four times as much.",
        )


def _tightened(row: Row, step: float) -> Row:
    return replace(row, bound=row.bound - step)


def _has_moved(old: Bracket, new: Bracket) -> bool:
    return old.state != new.state or abs(old.estimate.value - new.estimate.value) >= _MOVED * 10.0**-new.decimals


def _wished(bench: Bench, formula: Formula) -> Formula:
    """The formula with the wish's targets: its brackets are told against them."""
    return replace(formula, targets=bench.base.formula.targets)


def _textures(before: Texture | None, after: Texture | None) -> tuple[Moved, ...]:
    if before is None or after is None:
        return ()
    return tuple(
        Moved(
            key=new.key, label=new.label, unit="", decimals=1, before=old.value, after=new.value, state_before="open",
            state_after="open",
        )
        for old, new in zip(before.scores, after.scores, strict=True)
        if abs(old.value - new.value) >= _SCORE
    )  # fmt: skip


def chance(value: float, sd: float, low: float | None, high: float | None) -> float:
    """Probability that a normal figure lies between two bounds.

    >>> round(chance(3.0, 1.0, None, 4.2816), 2)
    0.9
    """
    if sd <= 0:
        return float((low is None or value >= low) and (high is None or value <= high))

    def below(bound: float) -> float:
        return 0.5 * (1 + erf((bound - value) / sd / sqrt(2)))

    return (1.0 if high is None else below(high)) - (0.0 if low is None else below(low))


def ten(share: float) -> str:
    """A probability as bakers say it.

    >>> ten(0.5), ten(0.97)
    ('5 times in 10', 'nearly always')
    """
    if share > 0.95:
        return "nearly always"
    return f"{round(10 * share)} times in 10" if share >= 0.05 else "hardly ever"


def missed_texts(bench: Bench, verdict: Verdict) -> list[str]:
    """What an answer does not meet, in words."""
    told = verdict.figures
    if told is None:
        return ["there is no dough"]
    rows = []
    for key in verdict.missed:
        kind, _, name = key.partition(":")
        words: dict[str, str] = {
            "handling": f"it is {told.class_name} at shaping",
            "crumbly": "it crumbles",
            "minutes": f"it takes {verdict.minutes or 0:.0f} min in the oven",
            "without": f"{name.replace('-', ' ')} stays in it",
            "cap": f"more {name} than it should hold",
            "rail": "soda that finds no acid" if name == "soda" else "more fat than it can hold",
            "texture": f"{name} {told.texture.get(name, 0.0):.1f}",
        }
        if kind in words:
            rows.append(words[kind])
        else:
            dough = bench.at(verdict.grams)
            rows.append(f"{quantity_text(key)} {amount(key, ratio_of(key, dough).value(dough.batch.grams))}")
    return rows


def _cautions(bench: Bench, after: Dough) -> tuple[str, ...]:
    """What a way brings that somebody has to know."""
    had = {a.name for a in allergens(bench.given.batch)}
    told = [f"Brings {a.name} into it." for a in allergens(after.batch) if a.name not in had and not a.traces]
    here = {w.ingredient.id for w in after.batch.lines}
    flags = frozenset().union(*(w.ingredient.flags for w in after.batch.lines)) if after.batch.lines else frozenset()
    before = (
        frozenset().union(*(w.ingredient.flags for w in bench.given.batch.lines))
        if bench.given.batch.lines
        else frozenset()
    )
    if "seed:sunflower" in flags and "seed:sunflower" not in before and here & {"baking-soda", "baking-powder"}:
        told.append("Sunflower flour can turn green with soda or powder: harmless. A little lemon juice keeps it pale.")
    if "psyllium" in flags and "psyllium" not in before:
        told.append("Psyllium swells: eat it with plenty of liquid.")
    return tuple(told)


def spread_over(bench: Bench, grams: Floats, key: str) -> tuple[str, float]:
    """The line that makes a quantity most doubtful: its name, and its share of the doubt."""
    figure = bench.at(grams).sheet.figure(key)
    top = max(figure.contributions, key=lambda c: c.spread_share, default=None)
    return (top.name, top.spread_share) if top else ("", 0.0)
