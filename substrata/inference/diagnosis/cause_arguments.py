"""What speaks for a cause and against it, in sentences of the log and of the forecast."""

from __future__ import annotations

from collections.abc import Mapping

from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.evaluation.dough import Dough
from substrata.inference.diagnosis.causes import Cause, strengths
from substrata.inference.diagnosis.evidence import Logged
from substrata.inference.diagnosis.posterior import HARDLY
from substrata.inference.faults import Mechanisms, fault_table
from substrata.ingredients.library import Floats


def is_explained(cause: str, faults_rated: tuple[str, ...], mechanisms: Mechanisms, rise: Floats) -> bool:
    """Whether a cause brings any of the faults that were told, by this formula or by practice."""
    return not faults_rated or any(
        rise[mechanisms.faults.index(f)] >= HARDLY or strengths().get((f, cause)) for f in faults_rated
    )


def known_oven_text(dough: Dough, cause: Cause) -> Wording:
    """Say what this oven is known to do, beside a cause that is about its heat; "" where nothing is known."""
    profile = dough.profile
    if cause.log != "oven" or not profile.bakes or dough.case.fried:
        return ""
    side = "hot" if profile.offset_k > 0 else "cool"
    return Message(
        "cause-arguments-this-oven-is-known-to",
        offset_k=Quantity(abs(profile.offset_k), "K", digits=0),
        side=side,
        half_90_k=Quantity(profile.half_90_k, "K", digits=0, bare=True),
    )


def evidence_for(
    cause: Cause, faults_rated: tuple[str, ...], mechanisms: Mechanisms, rise: Floats, log_: Mapping[str, Logged]
) -> list[Wording]:
    """Return the sentences that speak for a cause, at most a few."""
    rows: list[Wording] = []
    logged_value = log_.get(cause.log)
    if logged_value is not None and _off(logged_value, cause):
        rows.append(Message("cause-arguments-your-log", logged_value_text=logged_value.text))
    explained = []
    practised = []
    for fault in faults_rated:
        place = mechanisms.faults.index(fault)
        words = fault_table()[fault].words
        if rise[place] >= HARDLY:
            explained.append(
                Message("cause-arguments-parts", words=words, rise=Quantity(100 * rise[place], "%", digits=0))
            )
        elif strengths().get((fault, cause.id)):
            practised.append(words)
    if explained:
        rows.append(Message("cause-arguments-in-this-formula-it-would", explained=Joined(explained, ", ")))
    if practised:
        rows.append(Message("cause-arguments-bakers-know-it-as-a", practised=Joined(practised, ", ")))
    return rows


def _off(logged_value: Logged, cause: Cause) -> bool:
    """Whether the log shows a slip on the side of this cause."""
    if logged_value.even_sd == 0:
        return bool(logged_value.value)
    off = logged_value.value - logged_value.even
    if abs(off) < 1.5 * logged_value.even_sd:
        return False
    sign = {"warmer": 1.0, "trays": 1.0, "vegetable": 1.0}.get(cause.plant)
    if sign is None:
        middle = cause.sizes[len(cause.sizes) // 2]
        nominal = logged_value.even if cause.log == "dough_c" else 0.0 if cause.log == "oven" else 1.0
        sign = 1.0 if middle > nominal else -1.0
    return off * sign > 0


def evidence_against(
    cause: Cause, faults_rated: tuple[str, ...], mechanisms: Mechanisms, rise: Floats, log_: Mapping[str, Logged]
) -> list[Wording]:
    """Return the sentences that speak against a cause, at most a few."""
    rows: list[Wording] = []
    logged_value = log_.get(cause.log)
    if logged_value is not None and not _off(logged_value, cause):
        rows.append(Message("cause-arguments-your-log", logged_value_text=logged_value.text))
    unexplained = [
        fault_table()[fault].words
        for fault in faults_rated
        if rise[mechanisms.faults.index(fault)] < HARDLY and not strengths().get((fault, cause.id))
    ]
    if unexplained:
        rows.append(Message("cause-arguments-does-not-explain", unexplained=Joined(unexplained, ", ")))
    return rows
