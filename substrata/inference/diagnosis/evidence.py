"""What a run's own log and its verdict say of each cause, as log-likelihoods."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import exp, log, pi, sqrt

from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.messages.quantity import Quantity
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
    text: Wording  # in words: "the egg weighed 77 % of what was written"


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
                text=Message(
                    "evidence-of-the-formula-weight",
                    get=_NAMES.get(kind, kind),
                    factor=Quantity(100 * factor, "%", digits=0),
                ),
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
                text=Message(
                    "evidence-the-vegetable-weighed-g-instead",
                    squeezed=Quantity(done.squeezed_g, "g", digits=0),
                    vegetable=Quantity(vegetable, "g", digits=0),
                ),
            )
        )
    return rows


_NAMES = {
    "egg": Message("evidence-the-eggs"),
    "liquid": Message("evidence-the-liquid"),
    "flour": Message("evidence-the-flour"),
    "binder": Message("evidence-the-binder"),
    "lift": Message("evidence-the-leavening"),
}


def _measured(dough: Dough, done: Done, minutes: float) -> list[Logged]:
    rows = []

    def factor(field: str, value: float | None, written: float, reading: Wording) -> None:
        if value is None or written <= 0:
            return
        slip, even = _WIDE[field]
        share = value / written
        # A size is told as a factor of what is written; far off, a tenth more or less is no matter.
        rows.append(
            Logged(field=field, value=share, even=1.0, slip_sd=max(slip, 0.15 * share), even_sd=even, text=reading)
        )

    usual = rest_of(dough.inside, dough.formula)
    factor(
        "rest_min",
        done.rest_min,
        usual,
        Message(
            "evidence-rested-min-instead-of-min", number=_number(done.rest_min), usual=Quantity(usual, "min", digits=-1)
        ),
    )
    thick = dough.piece.thickness_mm
    factor(
        "thickness_mm",
        done.thickness_mm,
        thick,
        Message(
            "evidence-mm-thick-instead-of-mm",
            measured=Quantity(done.thickness_mm or 0.0, "mm"),
            thick=Quantity(thick, "mm", digits=1),
        ),
    )
    factor(
        "minutes",
        done.minutes,
        minutes,
        Message(
            "evidence-min-in-the-oven-instead", number=_number(done.minutes), minutes=Quantity(minutes, "min", digits=0)
        ),
    )
    warm = dough_temperature(dough)
    if done.dough_c is not None:
        rows.append(
            Logged(
                field="dough_c",
                value=done.dough_c,
                even=warm,
                slip_sd=_DEGREES[0],
                even_sd=_DEGREES[1] + 1.0,
                text=Message(
                    "evidence-the-dough-was-c-instead",
                    dough=Quantity(done.dough_c, "C", digits=0),
                    warm=Quantity(warm, "C", digits=0),
                ),
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
                text=Message(
                    "evidence-the-oven-thermometer-read-c",
                    probe=Quantity(done.probe_c, "C", digits=0),
                    dial=Quantity(dial, "oven", digits=0),
                ),
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
                text=Message("evidence-trays-in-the-oven", trays=done.trays),
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
        text = Joined((Message("evidence-parts-2", line=line, what=what) for line, what in done.swapped.items()), "; ")
        rows.append(
            Logged(
                field="happened:swapped",
                value=1.0,
                even=0.0,
                slip_sd=0.0,
                even_sd=0.0,
                text=Message("evidence-substitute-used", text=text),
            )
        )
    return rows


def _step_words(key: str, happened: bool) -> Wording:
    return Message("evidence-parts", slip_words=slip_words()[key], happened="yes" if happened else "no")


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
