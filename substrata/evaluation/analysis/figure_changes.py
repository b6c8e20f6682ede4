"""What a change did: the bracketed figures of two analyses side by side, in words."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.messages.message import Message, Wording
from substrata.evaluation.analysis.analyse import Analysis
from substrata.evaluation.analysis.target_states import TargetState
from substrata.evaluation.target_ranges import is_outside

_SHOWN = 0.5  # of the last printed digit: a smaller change is none


@dataclass(frozen=True, kw_only=True)
class FigureChange:
    """One figure before and after."""

    key: str
    label: str
    unit: Wording
    before: float
    after: float
    state_before: str
    state_after: str
    text: Wording


def changes(before: Analysis, after: Analysis) -> tuple[FigureChange, ...]:
    """Return the figures that moved by at least half of what is printed, in the order of the balance."""
    old = {bracket.key: bracket for bracket in before.brackets}
    rows = [_change(old[new.key], new) for new in after.brackets if new.key in old and _moved(old[new.key], new)]
    if before.handling and after.handling and before.handling.text != after.handling.text:
        rows.append(
            FigureChange(
                key="handling",
                label="Handling",
                unit="log Pa s",
                before=before.handling.at_shaping.consistency,
                after=after.handling.at_shaping.consistency,
                state_before="in" if before.handling.fits else "out",
                state_after="in" if after.handling.fits else "out",
                text=Message(
                    "figure-changes-was-now", handling_text=before.handling.text, handling_text_2=after.handling.text
                ),
            )
        )
    return tuple(rows)


def _moved(old: TargetState, new: TargetState) -> bool:
    step = 10.0**-new.decimals
    return abs(new.estimate.value - old.estimate.value) >= _SHOWN * step or old.state != new.state


def _change(old: TargetState, new: TargetState) -> FigureChange:
    a, b = old.estimate.value, new.estimate.value
    mended = Message("figure-changes-now-right") if new.state == "in" != old.state else ""
    spoilt = Message("figure-changes-parts", note=new.note) if is_outside(new.state) and new.state != old.state else ""
    return FigureChange(
        key=new.key,
        label=new.label,
        unit=new.unit,
        before=a,
        after=b,
        state_before=old.state,
        state_after=new.state,
        text=f"{new.label} {a:.{new.decimals}f} → {b:.{new.decimals}f} {new.unit}".rstrip() + f"{mended}{spoilt}",
    )
