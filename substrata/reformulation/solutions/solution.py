"""One answer of the solver told as a way: its edits, what they move, what holds it and how sure it is."""

from __future__ import annotations

from dataclasses import replace
from functools import cached_property

from substrata.base.errors import SubstrataError
from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.evaluation.analysis.target_states import TargetState, brackets
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import figures
from substrata.formula.formula import Formula
from substrata.ingredients.library import Floats
from substrata.process.baking.oven_questions import coarse
from substrata.process.rheology.texture import Texture
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import ModelCheck
from substrata.reformulation.program.linear_figures import ratio_of
from substrata.reformulation.program.linear_rows import rows_at
from substrata.reformulation.program.linearisation import slopes_at
from substrata.reformulation.request.balance_answer import BalanceOption, ClassMove, LineChange, Minutes, Moved
from substrata.reformulation.solutions.alternatives import Answer
from substrata.reformulation.solutions.side_effects import cautions, losses
from substrata.reformulation.solutions.solution_text import amount, change_text, limit_text, quantity_text
from substrata.reformulation.solutions.target_probability import prices_of_more, target_probabilities

_MOVED = 0.5  # of the last printed digit
_BINDING = 0.012  # of a limit: so near to it, it holds the answer
_SCORE = 0.25  # points of texture from which a change is told
_MOST_HOLDS = 5
_LEAST_G = 1e-6


def minutes_of(dough: Dough) -> float | None:
    """Minutes until it is baked; None where that cannot be said."""
    try:
        return coarse(dough.case).ready
    except SubstrataError:
        return None


class Teller:
    """Tells the ways of one problem: what the formula was is worked out once."""

    def __init__(self, problem: BalanceProblem, start: ModelCheck) -> None:
        self.original, self.start = problem, start

    @cached_property
    def before(self) -> dict[str, TargetState]:
        """The brackets of the formula as it stands."""
        return {b.key: b for b in brackets(self.original.original)} if self.original.original.batch.dough_g > 0 else {}

    @cached_property
    def minutes(self) -> float | None:
        """In the oven, of the formula as it stands."""
        return minutes_of(self.original.original)

    def way(self, name: Wording, answer: Answer) -> BalanceOption:
        """Tell one answer; what is reported is the full model's word on the formula as it would be written."""
        problem, verdict, grams = answer.problem, answer.verdict, answer.verdict.grams
        formula = problem.formula_at(grams)
        after = Dough(
            _wished(problem, formula), problem.library, problem.settings, oven_loss=problem.original.oven_loss
        )
        values = figures(after)
        rows = rows_at(problem, grams, slopes_at(problem, grams, present=self._present))
        binding = [row for row in rows if not row.price and row.kind != "soft" and float(row.coefficients @ grams) - row.bound > -_BINDING]  # fmt: skip
        return BalanceOption(
            name=name,
            formula=formula,
            changes=line_changes(problem, grams),
            shape=answer.shaped.changes,
            brackets=tuple(self._moved(after)),
            texture=_textures(self.original.original.texture, after.texture),
            handling=ClassMove(
                before=self.start.figures.class_name,
                after=values.class_name,
                consistency_before=self.start.figures.consistency,
                consistency_after=values.consistency,
            )
            if values and self.start.figures
            else None,
            minutes=Minutes(before=self.minutes, after=minutes_of(after)),
            dough_before_g=problem.original.batch.dough_g,
            dough_after_g=after.batch.dough_g,
            cost=answer.cost,
            new=sum(1 for s, g in zip(problem.slots, grams, strict=True) if s.new and g > _LEAST_G),
            holds=tuple(dict.fromkeys([limit_text(problem, row) for row in binding]))[:_MOST_HOLDS],
            prices=tuple(prices_of_more(problem, rows, binding, verdict)),
            sure=tuple(target_probabilities(after)),
            lost=losses(problem, grams),
            cautions=cautions(problem, after),
            missed=tuple(missed_texts(problem, verdict)),
            met=not verdict.missed,
        )

    @property
    def _present(self) -> float | None:
        return self.start.figures.consistency if self.start.figures else None

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


def line_changes(problem: BalanceProblem, grams: Floats) -> tuple[LineChange, ...]:
    """Return the edits of the lines, the largest first."""
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
        for s, g in zip(problem.slots, grams, strict=True)
        if abs(float(g) - s.start) > _LEAST_G
    ]
    return tuple(change for _, change in sorted(rows, key=lambda row: -row[0]))


def _has_moved(old: TargetState, new: TargetState) -> bool:
    return old.state != new.state or abs(old.estimate.value - new.estimate.value) >= _MOVED * 10.0**-new.decimals


def _wished(problem: BalanceProblem, formula: Formula) -> Formula:
    """Return the formula with the wish's targets: its brackets are told against them."""
    return replace(formula, targets=problem.base.formula.targets)


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


def missed_texts(problem: BalanceProblem, verdict: ModelCheck) -> list[Wording]:
    """Return what an answer does not meet, in words."""
    values = verdict.figures
    if values is None:
        return [Message("solution-there-is-no-dough")]
    rows: list[Wording] = []
    for key in verdict.missed:
        kind, _, name = key.partition(":")
        words: dict[str, Wording] = {
            "handling": Message("solution-the-dough-is-at-shaping", class_name=values.class_name),
            "crumbly": Message("solution-it-crumbles"),
            "working_time": Message("solution-it-cracks-before-it-can"),
            "minutes": Message("solution-baking-takes-min", value=Quantity(verdict.minutes or 0, "min", digits=0)),
            "thickness": Message("solution-it-is-mm-thick", thickness=Quantity(values.thickness_mm, "mm", digits=0)),
            "without": Message("solution-still-contains", name=name.replace("-", " ")),
            "cap": Message("solution-more-than-recommended", name=name),
            "rail": Message("solution-baking-soda-without-enough-acid")
            if name == "soda"
            else Message("solution-more-fat-than-the-dough"),
            "texture": Message(
                "solution-parts", name=name, get=Quantity(values.texture.get(name, 0.0), "number", digits=1)
            ),
        }
        if kind in words:
            rows.append(words[kind])
        else:
            dough = problem.at(verdict.grams)
            rows.append(
                Message(
                    "solution-parts-2",
                    quantity_text=quantity_text(key),
                    amount=amount(key, ratio_of(key, dough).value(dough.batch.grams)),
                )
            )
    return rows
