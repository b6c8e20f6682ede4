"""The sentence that opens the station: made of the same figures as the brackets, and linked to them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from substrata.base.messages.message import Message, Uncapitalized, Wording
from substrata.base.messages.quantity import Quantity, in_percent
from substrata.base.tables.table_texts import without_weight
from substrata.evaluation.analysis.phrasing import short_name
from substrata.evaluation.analysis.target_states import TargetState
from substrata.evaluation.target_ranges import fails, is_outside
from substrata.formula.form_table import form_of
from substrata.formula.formula import Formula
from substrata.process.rheology.handling.handling_forecast import HandlingForecast
from substrata.process.rheology.texture import Texture

Tone = Literal["plain", "figure", "about", "act"]


@dataclass(frozen=True, kw_only=True)
class Phrase:
    """A run of words; ``bracket`` names the figure behind it."""

    text: Wording
    bracket: str = ""
    tone: Tone = "plain"
    section: str = ""  # part of the bench that shows more: handling or texture


def summary(
    formula: Formula,
    brackets: Sequence[TargetState],
    handling: HandlingForecast | None,
    texture: Texture | None,
    *,
    weighed_lines: int,
    working_minutes: float | None = None,
    unweighed: Sequence[str] = (),
    beyond: Wording = "",
) -> tuple[Phrase, ...]:
    """How the dough holds and drinks, how it handles, what it eats like, and what a piece brings."""
    if not weighed_lines:
        if formula.lines:
            return (Phrase(text=Message("summary-no-ingredient-has-a-usable"), tone="act"),)
        return (Phrase(text=Message("summary-no-ingredients-yet-add-one")),)
    by_key = {bracket.key: bracket for bracket in brackets}
    return (
        *_incomplete(unweighed),
        *_binding(by_key),
        Phrase(text=", "),
        *_water(by_key, formula),
        Phrase(text=". "),
        *(_beyond(beyond) if beyond else (*_handles(handling), *_working(working_minutes), *_eats(texture))),
        *_piece(by_key),
        *_rest(by_key),
    )


def _incomplete(unweighed: Sequence[str]) -> tuple[Phrase, ...]:
    if not unweighed:
        return ()
    return (
        Phrase(
            text=Message("summary-incomplete-yet-and-every-figure", without_weight=without_weight(unweighed)),
            tone="act",
        ),
    )


def _beyond(what: Wording) -> tuple[Phrase, ...]:
    return (
        Phrase(
            text=Message("summary-this-is-outside-what-the", what=what),
            tone="act",
        ),
    )


def _handles(handling: HandlingForecast | None) -> tuple[Phrase, ...]:
    if handling is None:
        return ()
    tone: Tone = "figure" if handling.fits else "act"
    return Phrase(text=handling.text, section="handling", tone=tone), Phrase(text=" ")


def _working(minutes: float | None) -> tuple[Phrase, ...]:
    """Return a working time that is too short to shape all pieces; None where it is long enough."""
    if minutes is None:
        return ()
    time = (
        Message("summary-only-about-min", minutes=Quantity(minutes, "min", digits=0))
        if minutes >= 1
        else Message("summary-less-than-a-minute")
    )
    return Phrase(text=Message("summary-to-shape-it-before-it", time=time), section="handling", tone="act"), Phrase(
        text=" "
    )


def _eats(texture: Texture | None) -> tuple[Phrase, ...]:
    if texture is None:
        return ()
    return (
        Phrase(text="Texture: "),
        Phrase(text=texture.text[0].lower() + texture.text[1:], section="texture", tone="figure"),
        Phrase(text=" "),
    )


def _phrase(bracket: TargetState, text: Wording) -> Phrase:
    return Phrase(
        text=text,
        bracket=bracket.key,
        tone="act" if fails(bracket.state) else "about" if is_outside(bracket.state) else "figure",
    )


def _binding(by_key: Mapping[str, TargetState]) -> tuple[Phrase, ...]:
    load = by_key["binder_load"]
    words: dict[str, Wording] = {
        "in": Message("summary-good-binding"),
        "under": Message("summary-rather-loosely-bound"),
        "over": Message("summary-rather-firmly-bound"),
        "low": Message("summary-too-little-binding"),
        "high": Message("summary-too-much-binding"),
        "open": "Bound",
        "undefined": Message("summary-no-dry-base-yet"),
    }
    rows = [_phrase(load, words[load.state])]
    if load.contributions and load.state != "undefined":
        top = load.contributions[0]
        rows.append(Phrase(text=Message("summary-parts", top_name=short_name(top.name), share=in_percent(top.share))))
    return tuple(rows)


def _water(by_key: Mapping[str, TargetState], formula: Formula) -> tuple[Phrase, ...]:
    fill = by_key["water_fill"]
    form = form_of(formula.form).name.lower()
    if fill.state == "in":
        return _phrase(fill, Message("summary-right-amount-of-water-for", form=form)), Phrase(
            text=_heat(by_key["heat_set"])
        )
    if is_outside(fill.state):
        return (
            _phrase(fill, fill.note),
            Phrase(text=Message("summary-for-a", form=form, heat=_heat(by_key["heat_set"]))),
        )
    return (_phrase(fill, Message("summary-water-not-checked")),)


def _heat(heat: TargetState) -> Wording:
    return (
        Message("summary-only-of-the-binding-sets", estimate=in_percent(heat.estimate.value))
        if is_outside(heat.state)
        else ""
    )


def _piece(by_key: Mapping[str, TargetState]) -> tuple[Phrase, ...]:
    carbs, protein = by_key["net_carbs"], by_key["protein"]
    return (
        _phrase(carbs, Message("summary-g-net-carbs", estimate=Quantity(carbs.estimate.value, "nutrient", digits=1))),
        Phrase(text=" and "),
        _phrase(protein, Message("summary-g-protein", estimate=Quantity(protein.estimate.value, "nutrient", digits=1))),
        Phrase(text=Message("summary-per-piece")),
    )


def _rest(by_key: Mapping[str, TargetState]) -> tuple[Phrase, ...]:
    """Lift and salt are mentioned only when they ask for something."""
    words: dict[tuple[str, str], Wording] = {
        ("lift", "low"): Message("summary-little-leavening"),
        ("lift", "high"): Message("summary-more-gas-than-the-dough"),
        ("salt", "under"): Message("summary-low-in-salt"),
        ("salt", "over"): Message("summary-rather-salty"),
        ("lift", "under"): Message("summary-little-leavening"),
        ("lift", "over"): Message("summary-too-much-gas"),
        ("salt", "low"): "Under-salted",
        ("salt", "high"): "Salty",
    }
    asking = [by_key[key] for key in ("lift", "salt") if is_outside(by_key[key].state)]
    rows: list[Phrase] = []
    for bracket in asking:
        text = words[bracket.key, bracket.state]
        rows += [Phrase(text=" " if not rows else ", "), _phrase(bracket, text if not rows else Uncapitalized(text))]
    return (*rows, Phrase(text=".")) if rows else ()
