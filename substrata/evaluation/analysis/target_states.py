"""Each quantity against its wanted window: the brackets of the balance."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache

from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.messages.quantity import in_grams, in_percent
from substrata.base.tables.table_reader import constant, read_table
from substrata.base.tables.table_texts import without_weight
from substrata.evaluation.analysis.phrasing import short_name
from substrata.evaluation.analysis.target_scales import Ruler, open_end_for, ruler
from substrata.evaluation.dough import Dough
from substrata.evaluation.target_ranges import NO_TARGET, Source, State, aim, fails, is_outside, side_of, state_of
from substrata.formula.batch.cost import unpriced_lines
from substrata.formula.batch.propagation import Contribution, Estimate, Figure, Sheet
from substrata.formula.form_table import Window


@dataclass(frozen=True, kw_only=True)
class TargetState:
    """One quantity, its window and what carries it."""

    key: str
    label: str
    unit: Wording
    decimals: int
    primary: bool
    confidence: str  # computed, house scale or rule of thumb
    estimate: Estimate
    window: Window
    window_source: Source
    ruler: Ruler
    state: State
    note: Wording  # one line: what carries it, or what is wrong
    word_share: str  # what a contribution's share does: "brings", "binds"
    word_against: str  # what its share of the denominator does: "drinks"; "" when there is none to show
    contributions: tuple[Contribution, ...]


@dataclass(frozen=True, kw_only=True)
class _Kind:
    label: str
    unit: str
    decimals: int
    primary: bool
    confidence: str
    word_low: str
    word_high: str
    word_share: str
    word_against: str


_HAIR = 1e-9


@cache
def bracket_kinds() -> Mapping[str, _Kind]:
    """Return the bracketed quantities in the order in which they are shown."""
    return {
        row.text("key"): _Kind(
            label=row.text("label"),
            unit=row.text("unit"),
            decimals=int(row.number_in("decimals", 0, 3)),
            primary=row.text("primary") == "1",
            confidence=row.text("confidence"),
            word_low=row.text("word_low"),
            word_high=row.text("word_high"),
            word_share=row.text("word_share"),
            word_against=row.text("word_against"),
        )
        for row in read_table("brackets.csv")
    }


@dataclass(frozen=True, kw_only=True)
class FigureMeaning:
    """What a figure is, and what would change it, in words."""

    key: str
    meaning: str
    raised_by: str
    lowered_by: str


@cache
def figure_meanings() -> tuple[FigureMeaning, ...]:
    """Return the meaning of each figure with a target, in the order in which the figures are shown."""
    rows = {row.text("figure"): row for row in read_table("figure_meanings.csv")}
    return tuple(
        FigureMeaning(
            key=key,
            meaning=rows[key].text("meaning"),
            raised_by=rows[key].text("raised_by"),
            lowered_by=rows[key].text("lowered_by"),
        )
        for key in bracket_kinds()
    )


def brackets(dough: Dough) -> tuple[TargetState, ...]:
    """All brackets of a dough, in the order of the table."""
    priced = dough.sheet.value("cost") > 0 or "cost" in dough.formula.targets
    kinds = {key: kind for key, kind in bracket_kinds().items() if key != "cost" or priced}
    return tuple(_bracket(key, kind, dough) for key, kind in kinds.items())


def _bracket(key: str, kind: _Kind, dough: Dough) -> TargetState:
    target = dough.windows.get(key, NO_TARGET)
    window = target.window
    figure = dough.sheet.figure(key)
    value = figure.estimate.value
    estimate = figure.estimate
    defined = bool(figure.contributions or dough.batch.dry_base_g)
    state = state_of(value, target, lambda: (estimate.low, estimate.high), defined=defined)
    return TargetState(
        key=key,
        label=kind.label,
        unit=Message("target-states-parts-3", currency=dough.settings.currency, unit=kind.unit)
        if key == "cost"
        else kind.unit,
        decimals=kind.decimals,
        primary=kind.primary,
        confidence=kind.confidence,
        estimate=estimate,
        window=window,
        window_source=target.source,
        ruler=ruler(window, open_end_for(value) if state == "open" else 0.0),
        state=state,
        note=_note(key, kind, figure, window, state, dough),
        word_share=kind.word_share,
        word_against=kind.word_against,
        contributions=figure.contributions,
    )


def _water_off(sheet: Sheet, window: Window) -> float:
    """Grams of water beyond a place a little inside a water-fill window; 0 inside it."""
    fill, grams = sheet.ratios["water_fill"], sheet.batch.grams
    available, demand = float(grams @ fill.top[0]), float(grams @ fill.bottom[0])
    if window.low is not None and available < window.low * demand:
        return aim(window, "low") * demand - available
    if window.high is not None and available > window.high * demand:
        return available - aim(window, "high") * demand
    return 0.0


def _note(key: str, kind: _Kind, figure: Figure, window: Window, state: State, dough: Dough) -> Wording:
    if dough.unweighed:
        return Message("target-states-incomplete", without_weight=without_weight(dough.unweighed))
    if state == "undefined":
        return Message("target-states-no-dry-base-yet-add") if key == "binder_load" else ""
    if is_outside(state):
        side = side_of(state)
        bound = (window.low if side == "low" else window.high) or 0.0
        near = not fails(state) and abs(figure.estimate.value - bound) <= constant("about_at_limit") * max(
            abs(bound), _HAIR
        )
        limit = Message("target-states-about-at-the-limit") if near else ""
        if key == "water_fill":
            off = in_grams(_water_off(dough.sheet, window))
            return Message("target-states-water", off=off, short="yes" if side == "low" else "no", limit=limit)
        return Joined((_outside(kind, side, abs(figure.estimate.value - bound)), limit), "")
    if key == "cost" and (unpriced := len(unpriced_lines(dough.batch))):
        count = len(dough.batch.lines)
        return Message("target-states-counts-of-ingredients-the-others", count=count - unpriced, count_2=count)
    matrix = dough.binder.matrix.name
    carried: list[Wording] = [
        Message("target-states-parts-2", name=short_name(c.name), share=in_percent(c.share))
        for c in figure.contributions[:2]
        if c.share > 0
    ]
    if key == "binder_load" and matrix:
        carried = [*carried[:1], matrix]
    return Joined(carried, " · ") if carried else Message("target-states-nothing-in-this-formula-contributes")


def _outside(kind: _Kind, side: str, off: float) -> Wording:
    amount = f"{off:.{kind.decimals}f}"
    if float(amount) == 0:
        return Message("target-states-just-the-target", low="yes" if side == "low" else "no")
    return Message("target-states-parts", amount=amount, word_low=kind.word_low if side == "low" else kind.word_high)
