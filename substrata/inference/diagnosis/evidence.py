"""What a run's own log and its verdict say of each cause, as log-likelihoods."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import exp, log, pi, sqrt

from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.execution.run_document import Done, Verdict, slip_words
from substrata.inference.diagnosis.causes import Cause, causes
from substrata.inference.making import dough_temperature, selected_lines
from substrata.process.rheology.handling.handling_forecast import rest_of

# One standard deviation of a logged value about its size, of a slip and of what is as written.
_WIDE = {"rest_min": (0.35, 0.2), "thickness_mm": (0.09, 0.07), "minutes": (0.08, 0.06), "grams:egg": (0.06, 0.05)}
_DEGREES, _OVEN = (2.5, 2.0), (5.0, 5.0)


@dataclass(frozen=True, kw_only=True)
class Logged:
    """One thing that the log tells: its value in the terms of the causes' sizes, and what is as written there."""

    field: str
    value: float
    even: float  # value when nothing went otherwise
    slip_sd: float
    even_sd: float
    text: str  # in words: "the egg weighed 77 % of what was written"


def logged(dough: Dough, done: Done, minutes: float) -> dict[str, Logged]:
    """Return what the log tells, by the field that causes name.

    Args:
        dough: as it is written.
        done: what was really done.
        minutes: in the oven as planned.
    """
    rows = [*_weights(dough, done), *_measured(dough, done, minutes), *_steps(done)]
    return {row.field: row for row in rows}


def _weights(dough: Dough, done: Done) -> list[Logged]:
    rows = []
    here = {w.line.id: w.grams.value for w in dough.batch.lines}
    for kind in ("egg", "liquid", "flour", "binder", "gum", "lift", "acid", "salt", "topping", "filling"):
        lines = [line for line in selected_lines(dough, kind) if line in done.grams and here[line] > 0]
        if not lines:
            continue
        factor = sum(done.grams[line] for line in lines) / sum(here[line] for line in lines)
        slip, even = _WIDE.get(f"grams:{kind}", (constant("logged_slip_sd"), constant("logged_even_sd")))
        rows.append(
            Logged(
                field=f"grams:{kind}",
                value=factor,
                even=1.0,
                slip_sd=max(slip, 0.12 * factor),
                even_sd=even,
                text=f"{_NAMES.get(kind, kind)}: {100 * factor:.0f} % of the formula weight",
            )
        )
    vegetable = sum(w.grams.value for w in dough.batch.lines if w.role == "vegetable")
    if done.squeezed_g is not None and vegetable:
        over = done.squeezed_g / vegetable - 1
        rows.append(
            Logged(
                field="squeezed",
                value=over,
                even=0.0,
                slip_sd=0.06,
                even_sd=0.04,
                text=f"the vegetable weighed {done.squeezed_g:.0f} g instead of {vegetable:.0f} g",
            )
        )
    return rows


_NAMES = {
    "egg": "the eggs",
    "liquid": "the liquid",
    "flour": "the flour",
    "binder": "the binder",
    "lift": "the leavening",
}


def _measured(dough: Dough, done: Done, minutes: float) -> list[Logged]:
    rows = []

    def factor(field: str, value: float | None, written: float, reading: str) -> None:
        if value is None or written <= 0:
            return
        slip, even = _WIDE[field]
        share = value / written
        # A size is told as a factor of what is written; far off, a tenth more or less is no matter.
        rows.append(
            Logged(field=field, value=share, even=1.0, slip_sd=max(slip, 0.15 * share), even_sd=even, text=reading)
        )

    usual = rest_of(dough.inside, dough.formula)
    factor("rest_min", done.rest_min, usual, f"rested {_number(done.rest_min)} min instead of {usual:g} min")
    thick = dough.piece.thickness_mm
    factor("thickness_mm", done.thickness_mm, thick, f"{_number(done.thickness_mm)} mm thick instead of {thick:.1f} mm")
    factor("minutes", done.minutes, minutes, f"{_number(done.minutes)} min in the oven instead of {minutes:.0f} min")
    warm = dough_temperature(dough)
    if done.dough_c is not None:
        rows.append(
            Logged(
                field="dough_c",
                value=done.dough_c,
                even=warm,
                slip_sd=_DEGREES[0],
                even_sd=_DEGREES[1] + 1.0,
                text=f"the dough was {done.dough_c:.0f} °C instead of {warm:.0f} °C",
            )
        )
    dial = done.oven_c if done.oven_c is not None else (dough.case.oven_c if done.probe_c is not None else None)
    if done.probe_c is not None and dial is not None:
        off = done.probe_c - dial
        rows.append(
            Logged(
                field="oven",
                value=off,
                even=dough.profile.offset_k,
                slip_sd=_OVEN[0],
                even_sd=_OVEN[1],
                text=f"the oven thermometer read {done.probe_c:.0f} °C at a setting of {dial:.0f} °C",
            )
        )
    if done.trays is not None:
        written = dough.formula.bake.trays
        rows.append(
            Logged(
                field="trays",
                value=float(done.trays > written),
                even=0.0,
                slip_sd=0.2,
                even_sd=0.2,
                text=f"{done.trays} trays in the oven",
            )
        )
    return rows


def _number(value: float | None) -> str:
    return "?" if value is None else f"{value:.1f}".removesuffix(".0")


def _steps(done: Done) -> list[Logged]:
    rows = []
    for key, happened in done.steps.items():
        for field, slipped in ((f"step:{key}", not happened), (f"happened:{key}", happened)):
            rows.append(
                Logged(
                    field=field,
                    value=float(slipped),
                    even=0.0,
                    slip_sd=0.0,
                    even_sd=0.0,
                    text=_step_words(key, happened),
                )
            )
    if done.swapped:
        text = "; ".join(f"{line}: {what}" for line, what in done.swapped.items())
        rows.append(
            Logged(
                field="happened:swapped", value=1.0, even=0.0, slip_sd=0.0, even_sd=0.0, text=f"substitute used: {text}"
            )
        )
    return rows


def _step_words(key: str, happened: bool) -> str:
    return f"{slip_words()[key]}: {'yes' if happened else 'no'}"


def log_evidence(
    cause: Cause | None, size: float, log_: Mapping[str, Logged], temperature: float | None = None
) -> float:
    """Log-likelihood of all that is logged, if this was the cause; None stands for no slip.

    Args:
        cause: the hypothesis.
        size: of it.
        log_: what is logged.
        temperature: that the dough has then, °C, for a cause that is told as a difference of it.

    Returns:
        Log-likelihood, nats.
    """
    total = 0.0
    for field, logged_value in log_.items():
        about = cause is not None and cause.log == field
        if logged_value.even_sd == 0:
            total += log(constant("logged_yes") if bool(logged_value.value) == about else constant("logged_no"))
            continue
        expected, sd = logged_value.even, logged_value.even_sd
        if about:
            expected, sd = (temperature if temperature is not None else size), logged_value.slip_sd
            if field == "trays":
                expected = 1.0
        total += log(
            (1 - constant("log_wrong")) * _normal(logged_value.value, expected, sd)
            + constant("log_wrong") * _wide(logged_value.value, logged_value.even, 8 * sd)
        )
    return total


def answer_evidence(cause: Cause | None, verdict: Verdict) -> float:
    """Log-likelihood of the answers to what was asked."""
    total = 0.0
    for question, yes in verdict.asked.items():
        about = cause is not None and (cause.id == question or _same_question(cause, question))
        chance = constant("answered_yes") if about else constant("answered_no")
        total += log(chance if yes else 1 - chance)
    return total


def _same_question(cause: Cause, question: str) -> bool:
    other = causes().get(question)
    return other is not None and other.asks == cause.asks


def _normal(x: float, mean: float, sd: float) -> float:
    return exp(-0.5 * ((x - mean) / sd) ** 2) / (sd * sqrt(2 * pi))


def _wide(x: float, mean: float, scale: float) -> float:
    """Return a Cauchy density: nothing that is typed is impossible."""
    return 1 / (pi * scale * (1 + ((x - mean) / scale) ** 2))
